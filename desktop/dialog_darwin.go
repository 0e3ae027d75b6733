package desktop

func hasScreen() bool { return true }

// The words of a script's line are handed over beside it, so nothing in them is read as a script.
func folderAsks(title string) []ask {
	return []ask{{"osascript", []string{"-e", "on run asked", "-e",
		"POSIX path of (choose folder with prompt (item 1 of asked))", "-e", "end run", title}}}
}

func sayAsks(text string) []ask {
	return []ask{{"osascript", []string{"-e", "on run said", "-e",
		`display alert "Brevium" message (item 1 of said)`, "-e", "end run", text}}}
}
