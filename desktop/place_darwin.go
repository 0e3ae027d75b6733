package desktop

import (
	"os"
	"path/filepath"
)

const folder = "Brevium"

// earlier is where Brevium kept boxes on a Mac before it asked the system.
func earlier() []string {
	home, err := os.UserHomeDir()
	if err != nil {
		return nil
	}
	return []string{filepath.Join(home, ".local", "share", "brevium", "brevium.db")}
}
