package desktop

import (
	"bytes"
	"encoding/xml"
	"os"
	"path/filepath"
)

// launchd starts what lies in this folder when she logs in.
func loginFile() string {
	home, _ := os.UserHomeDir()
	return filepath.Join(home, "Library", "LaunchAgents", "brevium.plist")
}

func startsAtLogin() bool { return is(loginFile()) }

func stopAtLogin() error { return removed(loginFile()) }

func startAtLogin(program string) error {
	var path bytes.Buffer
	if err := xml.EscapeText(&path, []byte(program)); err != nil {
		return err
	}
	return written(loginFile(), xml.Header+`<plist version="1.0"><dict><key>Label</key><string>brevium</string>
<key>ProgramArguments</key><array><string>`+path.String()+`</string><string>`+QuietArg+`</string></array>
<key>RunAtLoad</key><true/></dict></plist>
`, 0o644)
}
