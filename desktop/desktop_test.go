//go:build linux

package desktop

import (
	"context"
	"errors"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/adrg/xdg"
)

// program reads the command out of a login file as desktops do: first the escapes of a value, then those of an argument
// in quotes, then the codes.
func program(t *testing.T, file string) (path, rest string) {
	t.Helper()
	text, err := os.ReadFile(file)
	if err != nil {
		t.Fatal(err)
	}
	_, line, _ := strings.Cut(string(text), "\nExec=")
	line, _, _ = strings.Cut(line, "\n")
	line = strings.NewReplacer(`\\`, `\`, `\s`, " ").Replace(line)
	var out strings.Builder
	for i := 1; i < len(line); i++ {
		switch c := line[i]; {
		case c == '"':
			return strings.ReplaceAll(out.String(), "%%", "%"), line[i+1:]
		case c == '\\' && i+1 < len(line) && strings.IndexByte("\"`$\\", line[i+1]) >= 0:
			i++
			out.WriteByte(line[i])
		case strings.IndexByte("`$\\", c) >= 0:
			t.Fatalf("%q means something to a desktop in %s", c, line)
		default:
			out.WriteByte(c)
		}
	}
	t.Fatalf("no command in %s", text)
	return "", ""
}

// Wherever the program lies, it is the one that starts when she logs in; and none does when that is off.
func TestLogin(t *testing.T) {
	t.Setenv("XDG_CONFIG_HOME", t.TempDir())
	xdg.Reload()
	t.Cleanup(xdg.Reload)
	if err := StartAtLogin(false); err != nil || StartsAtLogin() {
		t.Fatal("before it was on:", err)
	}
	for _, path := range []string{"/usr/bin/brevium", "/home/wren/my things/brevium", `/tmp/a"b`,
		"/tmp/50% off/$HOME/`x`", `/tmp/back\slash`, `/tmp/both\"%f`} {
		if err := startAtLogin(path); err != nil {
			t.Fatal(err)
		}
		if got, rest := program(t, loginFile()); got != path || rest != " "+QuietArg || !StartsAtLogin() {
			t.Errorf("%s: %q starts with %q", path, got, rest)
		}
	}
	if err := StartAtLogin(true); err != nil {
		t.Fatal(err)
	}
	self, _ := os.Executable()
	if got, _ := program(t, loginFile()); got != self {
		t.Errorf("it is %s, not %s", got, self)
	}
	if err := StartAtLogin(false); err != nil || StartsAtLogin() {
		t.Error("still on", err)
	}
}

// One Brevium has a database; it says where it is, and another has it once it is let go.
func TestClaim(t *testing.T) {
	file := filepath.Join(t.TempDir(), "boxes.db")
	one, err := TakeUp(file)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := TakeUp(file); !errors.Is(err, ErrRunning) {
		t.Errorf("two have it: %v", err)
	}
	soon, cancel := context.WithTimeout(t.Context(), 100*time.Millisecond)
	defer cancel()
	if _, err := First(soon, file); !errors.Is(err, ErrRunning) {
		t.Errorf("one that says nothing: %v", err)
	}
	if err := os.WriteFile(file+".running", []byte("{"), 0o600); err != nil { // half written
		t.Fatal(err)
	}
	time.AfterFunc(50*time.Millisecond, func() { _ = one.Tell(Running{"http://127.0.0.1:1", "x"}) })
	if r, err := First(t.Context(), file); err != nil || r.Address != "http://127.0.0.1:1" {
		t.Error(r, err)
	}
	if err := (Running{Address: "http://127.0.0.1:1"}).AskToClose(t.Context()); err == nil {
		t.Error("one that isn't there closes")
	}
	time.AfterFunc(50*time.Millisecond, func() { _ = one.LetGo() })
	two, err := TakeUpAfter(t.Context(), file)
	if err != nil {
		t.Fatal(err)
	}
	if is(file + ".running") {
		t.Error("it still says where the first one was")
	}
	if err := two.LetGo(); err != nil {
		t.Error(err)
	}
}

// Disks are told by where desktops mount them; her boxes lie where her system keeps such things.
func TestPlaces(t *testing.T) {
	for at, want := range map[string]string{"/media/wren/BLUE": "BLUE", "/run/media/wren/Card": "Card", "/mnt/attic": "attic",
		"/Volumes/Blue stick": "Blue stick", "/": "", "/home": "", "/media": "", "/mnt": "", "/boot/efi": ""} {
		if name, ok := pluggedIn(at); name != want || ok != (want != "") {
			t.Errorf("%s is %q, %v", at, name, ok)
		}
	}
	home := t.TempDir()
	t.Setenv("XDG_DATA_HOME", home)
	t.Cleanup(xdg.Reload)
	if file, err := Database(); err != nil || file != filepath.Join(home, "brevium", "brevium.db") {
		t.Error(file, err)
	}
	if writable(filepath.Join(home, "none")) || !writable(home) {
		t.Error("what can be written to is mistaken")
	}
	if all, err := os.ReadDir(home); err != nil || len(all) > 0 {
		t.Error("left behind", all, err)
	}
	if OpenFolder(filepath.Join(home, "none")) == nil {
		t.Error("a folder that isn't there opens")
	}
}

// A clock that says a day before the program was made is wrong; of any later day nothing is known.
func TestClockWrong(t *testing.T) {
	made := time.Date(2026, 12, 2, 0, 0, 0, 0, time.UTC)
	for at, want := range map[string]bool{"2020-01-01": true, "2026-11-30": true, "2026-12-01": false, "2031-01-01": false} {
		now, err := time.Parse(time.DateOnly, at)
		if err != nil {
			t.Fatal(err)
		}
		if (Computer{Made: made}).ClockWrong(now) != want || (Computer{}).ClockWrong(now) {
			t.Errorf("%s is wrong: %v", at, !want)
		}
	}
}
