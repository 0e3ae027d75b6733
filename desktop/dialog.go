package desktop

import (
	"bytes"
	"context"
	"errors"
	"os/exec"
	"path/filepath"
	"strings"
)

// ErrNoDialog says that this system shows no dialogs to a program like ours.
var ErrNoDialog = errors.New("this computer has no window to choose a folder in")

// ErrCancelled says that she chose nothing.
var ErrCancelled = errors.New("no folder was chosen")

// ask is a program of the system that shows a dialog: the first that is there is taken.
type ask struct {
	program string
	words   []string
}

// ChooseFolder has her choose a folder in her system's own window. It waits for her.
func ChooseFolder(ctx context.Context, title string) (string, error) {
	for _, a := range folderAsks(title) {
		if _, err := exec.LookPath(a.program); err != nil {
			continue
		}
		out, err := exec.CommandContext(ctx, a.program, a.words...).Output()
		dir := strings.TrimRight(string(bytes.TrimSpace(out)), "/")
		switch {
		case ctx.Err() != nil:
			return "", ctx.Err()
		case err != nil || dir == "":
			return "", ErrCancelled
		case !filepath.IsAbs(dir):
			return "", ErrCancelled
		}
		return dir, nil
	}
	return "", ErrNoDialog
}

// CanChooseFolder reports whether there is such a window.
func CanChooseFolder() bool {
	for _, a := range folderAsks("") {
		if _, err := exec.LookPath(a.program); err == nil {
			return hasScreen()
		}
	}
	return false
}

// Say shows a sentence in a window, where neither a page nor a terminal can be counted on.
func Say(text string) {
	for _, a := range sayAsks(text) {
		if _, err := exec.LookPath(a.program); err == nil && exec.Command(a.program, a.words...).Run() == nil {
			return
		}
	}
}
