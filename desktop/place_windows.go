package desktop

import (
	"os"
	"path/filepath"
)

const folder = "Brevium"

// earlier is where Brevium kept boxes on Windows before: in the folder that follows a user from computer to computer,
// which a growing database should not.
func earlier() []string {
	dir, err := os.UserConfigDir()
	if err != nil {
		return nil
	}
	return []string{filepath.Join(dir, "Brevium", "brevium.db")}
}
