package desktop

import "os"

// Starting when she logs in is a line in her own part of what her system starts then. Service libraries were tried: what
// they install on Windows needs an administrator and starts before anybody logs in, and their unit for a user of
// systemd hangs on a target that users don't have.

// QuietArg starts Brevium without opening the browser: when she logs in.
const QuietArg = "--quietly"

// StartsAtLogin reports whether Brevium starts when she logs in.
func StartsAtLogin() bool { return startsAtLogin() }

// StartAtLogin has this program start when she logs in, or no longer.
func StartAtLogin(start bool) error {
	if !start {
		return stopAtLogin()
	}
	program, err := os.Executable()
	if err != nil {
		return err
	}
	return startAtLogin(program)
}
