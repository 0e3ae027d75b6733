// Package desktop is what Brevium is on its maker's own computer: where that keeps her boxes, the one Brevium that
// serves them, and what only the computer itself can do for her: open a page or a folder, name the disks that a copy
// can be kept on, start Brevium when she logs in. It knows nothing of boxes.
package desktop

import (
	"errors"
	"io/fs"
	"os"
	"path/filepath"

	"github.com/adrg/xdg"
	"github.com/pkg/browser"
)

// Version is the release this program was built as; "" when nobody released it.
var Version string

// Name tells which Brevium this is, as a person says it.
func Name() string {
	if Version == "" {
		return "Brevium (not a release)"
	}
	return "Brevium " + Version
}

// Database is the file of the maker's own boxes, where her system keeps such things. Where an earlier Brevium had its
// own idea of the place and her boxes are there, they stay there.
func Database() (string, error) {
	xdg.Reload() // as the system says now
	for _, was := range earlier() {
		if _, err := os.Stat(was); err == nil {
			return was, nil
		}
	}
	if xdg.DataHome == "" {
		return "", errors.New("this computer names no place for your boxes; name one with --db")
	}
	return filepath.Join(xdg.DataHome, folder, "brevium.db"), nil
}

// OpenPage opens an address in her browser.
func OpenPage(address string) error {
	browser.Stdout = nil
	return browser.OpenURL(address)
}

// OpenFolder shows a folder as her system shows folders.
func OpenFolder(dir string) error {
	if is, err := os.Stat(dir); err != nil {
		return err
	} else if !is.IsDir() {
		return fs.ErrInvalid
	}
	browser.Stdout = nil
	return browser.OpenFile(dir)
}
