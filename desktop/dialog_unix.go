//go:build !windows && !darwin

package desktop

import "os"

func hasScreen() bool { return os.Getenv("DISPLAY") != "" || os.Getenv("WAYLAND_DISPLAY") != "" }

func folderAsks(title string) []ask {
	return []ask{{"zenity", []string{"--file-selection", "--directory", "--title", title}},
		{"kdialog", []string{"--title", title, "--getexistingdirectory"}}}
}

func sayAsks(text string) []ask {
	return []ask{{"zenity", []string{"--error", "--no-markup", "--title", "Brevium", "--text", text}},
		{"kdialog", []string{"--title", "Brevium", "--error", text}}, {"xmessage", []string{"-center", text}}}
}
