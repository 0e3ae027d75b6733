//go:build !windows && !darwin

package desktop

import (
	"path/filepath"
	"strings"

	"github.com/adrg/xdg"
)

// Every desktop starts what lies in this folder: freedesktop.org's Desktop Application Autostart Specification.
func loginFile() string { return filepath.Join(xdg.ConfigHome, "autostart", "brevium.desktop") }

func startsAtLogin() bool { return is(loginFile()) }

func stopAtLogin() error { return removed(loginFile()) }

func startAtLogin(program string) error {
	// An argument stands in quotes; in them these four, and the sign that begins a code, are written so.
	quoted := strings.NewReplacer(`\`, `\\\\`, `"`, `\\"`, "`", "\\\\`", `$`, `\\$`, `%`, `%%`).Replace(program)
	return written(loginFile(), "[Desktop Entry]\nType=Application\nName=Brevium\nExec=\""+quoted+"\" "+QuietArg+"\n"+
		"Icon=brevium\nTerminal=false\nX-GNOME-Autostart-enabled=true\n", 0o644)
}
