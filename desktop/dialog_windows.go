package desktop

func hasScreen() bool { return true }

// The words are arguments of the script's block, so nothing in them is read as a script.
func shown(script, text string) []ask {
	return []ask{{"powershell", []string{"-NoProfile", "-STA", "-Command", "& {param($said) " + script + "}", quoted(text)}}}
}

func folderAsks(title string) []ask {
	return shown("Add-Type -AssemblyName System.Windows.Forms; [Console]::OutputEncoding = [Text.Encoding]::UTF8; "+
		"$d = New-Object System.Windows.Forms.FolderBrowserDialog; $d.Description = $said; "+
		"if ($d.ShowDialog() -eq 'OK') { $d.SelectedPath }", title)
}

func sayAsks(text string) []ask {
	return shown("Add-Type -AssemblyName System.Windows.Forms; "+
		"[void][System.Windows.Forms.MessageBox]::Show($said, 'Brevium')", text)
}

// quoted writes a text so that PowerShell takes it as it stands.
func quoted(text string) string {
	out := []rune{'\''}
	for _, r := range text {
		if out = append(out, r); r == '\'' || r == '‘' || r == '’' {
			out = append(out, r)
		}
	}
	return string(append(out, '\''))
}
