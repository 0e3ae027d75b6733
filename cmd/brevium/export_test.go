package main

import (
	"bytes"
	"context"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"brevium/export"
)

const fits = `{"brevium": 1, "name": "Bulb tray", "units": "mm", "size": {"length": "90 mm", "width": "70 mm", "depth": "40 mm"},
	"box": {"style": "tray-lid"}, "card": {"sheet": "a3"}, "tools": {"step": "1 mm"}}`

// exported runs the command and gives what it wrote, its exit code, and what it said.
func exported(t *testing.T, document string, args ...string) (file []byte, exit int, said string) {
	t.Helper()
	in := filepath.Join(t.TempDir(), "in.json")
	if err := os.WriteFile(in, []byte(document), 0o600); err != nil {
		t.Fatal(err)
	}
	out := filepath.Join(t.TempDir(), "out")
	c := exportCommand()
	var stderr bytes.Buffer
	c.SetErr(&stderr)
	c.SetOut(&stderr)
	c.SilenceErrors, c.SilenceUsage = true, true
	c.SetArgs(append([]string{in, "-o", out}, args...))
	exit = exitOf(c.ExecuteContext(context.Background()), &stderr)
	file, _ = os.ReadFile(out)
	return file, exit, stderr.String()
}

// Every kind of file is written, and begins as such a file does.
func TestExport(t *testing.T) {
	for as, begins := range map[string]string{"pdf": "%PDF-", "slip": "%PDF-", "templates": "%PDF-", "svg": "<?xml", "dxf": "999",
		"hpgl": "IN;", "gcode": "(Sheet 1", "zip": "PK"} {
		file, exit, said := exported(t, fits, "--as", as)
		if exit != exitOK || !strings.HasPrefix(strings.TrimSpace(string(file)), begins) || said != "" {
			t.Errorf("%s: exit %d, %.20q, %s", as, exit, file, said)
		}
	}
	if len(export.As) != 8 {
		t.Errorf("kinds of file that are not tested: %v", export.As)
	}
}

// What is wrong is said, with the exit code that plan has for it, and leaves no half file.
func TestExportRefuses(t *testing.T) {
	large := strings.Replace(fits, `"a3"`, `"6x6"`, 1)
	for name, c := range map[string]struct {
		document string
		args     []string
		exit     int
		says     string
		writes   bool
	}{
		"an unproved plan":         {large, []string{"--as", "svg"}, exitNoHold, "DON'T CUT", true},
		"an unproved plan's sheet": {large, []string{"--as", "pdf"}, exitNoHold, "DON'T CUT", true},
		"an unproved plan, cut":    {large, []string{"--as", "hpgl"}, exitNoHold, "DON'T CUT", false},
		"an impossible brief":      {strings.Replace(fits, `"40 mm"`, `"-4 mm"`, 1), []string{"--as", "pdf"}, exitNoHold, "size.depth", false},
		"no document":              {"{", []string{"--as", "pdf"}, exitUnusable, "", false},
		"an unknown kind":          {fits, []string{"--as", "docx"}, exitUnusable, "choose pdf, slip", false},
		"an unknown paper":         {fits, []string{"--as", "pdf", "--paper", "b7"}, exitUnusable, "a4 or letter", false},
		"an unknown part":          {fits, []string{"--as", "pdf", "--with", "poem"}, exitUnusable, "choose from notes, materials", false},
		"no such piece":            {fits, []string{"--as", "dxf", "--piece", "roof"}, exitUnusable, "no piece", false},
		"no such sheet":            {fits, []string{"--as", "gcode", "--sheet", "9"}, exitUnusable, "no sheet 9", false},
		"a piece for a machine":    {fits, []string{"--as", "hpgl", "--piece", "base"}, exitUnusable, "leave --piece out", false},
		"a sheet of all":           {fits, []string{"--as", "zip", "--sheet", "1"}, exitUnusable, "leave --sheet out", false},
		"a sheet before the first": {fits, []string{"--as", "svg", "--sheet", "-1"}, exitUnusable, "counts from 1", false},
		"a piece and a sheet":      {fits, []string{"--as", "svg", "--sheet", "1", "--piece", "base"}, exitUnusable, "not both", false},
		"nowhere to write":         {fits, []string{"--as", "pdf", "-o", "/no folder/x.pdf"}, exitUnusable, "/no folder/x.pdf", false},
		"a full disk":              {fits, []string{"--as", "pdf", "-o", "/dev/full"}, exitUnusable, "no space left", false},
	} {
		file, exit, said := exported(t, c.document, c.args...)
		if exit != c.exit || !strings.Contains(said, c.says) || (len(file) > 0) != c.writes {
			t.Errorf("%s: exit %d, %d bytes, %q", name, exit, len(file), said)
		}
	}
}

// A file that can't be written whole leaves what was there before, and nothing beside it.
func TestWriteWhole(t *testing.T) {
	dir := t.TempDir()
	name := filepath.Join(dir, "box.pdf")
	for _, text := range []string{"first", "second"} {
		if err := writeWhole(name, []byte(text)); err != nil {
			t.Fatal(err)
		}
	}
	if err := writeWhole(dir, []byte("x")); err == nil {
		t.Error("a folder was written over")
	}
	if got, _ := os.ReadFile(name); string(got) != "second" {
		t.Errorf("%s", got)
	}
	if left, _ := os.ReadDir(dir); len(left) != 1 {
		t.Errorf("left beside it: %v", left)
	}
}
