package desktop

import (
	"os"
	"strings"
)

// pluggedIn names a disk that isn't the one Windows itself is on.
func pluggedIn(at string) (name string, ok bool) {
	return "Disk " + at, !strings.EqualFold(strings.TrimSuffix(at, `\`), os.Getenv("SystemDrive"))
}
