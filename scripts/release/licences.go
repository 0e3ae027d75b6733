package main

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"os"
	"os/exec"
	"path/filepath"
	"runtime"
	"slices"
	"strings"
)

// module is what others wrote that a program is built of.
type module struct{ Path, Version, Dir string }

// kinds tells licences by words that only they have, the more telling first.
var kinds = []struct{ name, says string }{
	{"Apache-2.0", "Apache License"}, {"MPL-2.0", "Mozilla Public License"}, {"OFL-1.1", "SIL OPEN FONT LICENSE"},
	{"ISC", "Permission to use, copy, modify, and/or distribute"}, {"ISC", "Permission to use, copy, modify, and distribute"},
	{"MIT", "Permission is hereby granted, free of charge"}, {"BSD-3-Clause", "Neither the name"},
	{"BSD-2-Clause", "Redistributions in binary form"},
}

func kindOf(text string) (string, error) {
	text = strings.Join(strings.Fields(text), " ")
	for _, k := range kinds {
		if strings.Contains(text, k.says) {
			return k.name, nil
		}
	}
	return "", errors.New("no licence that is known here")
}

// modulesOf lists the modules of which the programs for all systems are built.
func modulesOf() ([]module, error) {
	all := map[string]module{}
	for _, t := range targets {
		cmd := exec.Command("go", "list", "-deps", "-json=Module", "./cmd/brevium")
		cmd.Env = append(os.Environ(), "CGO_ENABLED=0", "GOOS="+t.os, "GOARCH="+t.arch)
		out, err := cmd.Output()
		if err != nil {
			return nil, fmt.Errorf("go list: %w", err)
		}
		for in := json.NewDecoder(bytes.NewReader(out)); ; {
			var p struct{ Module *module }
			if err := in.Decode(&p); errors.Is(err, io.EOF) {
				break
			} else if err != nil {
				return nil, err
			}
			if p.Module != nil && p.Module.Version != "" {
				all[p.Module.Path] = *p.Module
			}
		}
	}
	root, err := exec.Command("go", "env", "GOROOT").Output()
	if err != nil {
		return nil, fmt.Errorf("go env: %w", err)
	}
	list := []module{{"Go", runtime.Version(), strings.TrimSpace(string(root))}}
	for _, path := range slices.Sorted(maps.Keys(all)) {
		list = append(list, all[path])
	}
	return list, nil
}

// licenceOf finds the text of a module's licence.
func licenceOf(m module) (string, error) {
	for _, pattern := range []string{"LICENSE*", "LICENCE*", "COPYING*", "License*"} {
		found, _ := filepath.Glob(filepath.Join(m.Dir, pattern))
		for _, at := range found {
			data, err := os.ReadFile(at)
			if err != nil {
				continue
			}
			notices, _ := filepath.Glob(filepath.Join(m.Dir, "NOTICE*"))
			for _, notice := range notices { // one of the licences wants it handed on
				if more, err := os.ReadFile(notice); err == nil {
					data = append(append(data, "\n\n"...), more...)
				}
			}
			return string(data), nil
		}
	}
	return "", fmt.Errorf("%s has no licence file", m.Path)
}

// inside lists what is in a release: one line each, and the texts of all licences.
func inside(version string) (licences, contents string, err error) {
	var texts, list strings.Builder
	fmt.Fprintf(&list, "# What is in Brevium %s\n\nBrevium itself, and:\n\n| what | version | licence |\n|---|---|---|\n", version)
	add := func(what, version, kind, text string) {
		fmt.Fprintf(&list, "| %s | %s | %s |\n", what, version, kind)
		fmt.Fprintf(&texts, "%s\n%s %s (%s)\n\n%s\n\n", strings.Repeat("=", 76), what, version, kind, strings.TrimSpace(text))
	}
	modules, err := modulesOf()
	if err != nil {
		return "", "", err
	}
	for _, m := range modules {
		text, err := licenceOf(m)
		kind := ""
		if err == nil {
			kind, err = kindOf(text)
		}
		if err != nil {
			return "", "", fmt.Errorf("%s: %w", m.Path, err)
		}
		add(m.Path, m.Version, kind, text)
	}
	// What was vendored says itself what it is, in a table.
	for _, from := range []string{"web/static/vendor", "export/fonts/more"} {
		data, err := os.ReadFile(filepath.Join(from, "LICENCES.md"))
		if err != nil {
			return "", "", err
		}
		told := map[string]bool{}
		for line := range strings.Lines(string(data)) {
			cells := strings.Split(line, "|")
			if len(cells) < 6 || !strings.Contains(cells[4], "](") {
				continue
			}
			what, version := strings.TrimSpace(cells[2]), strings.TrimSpace(cells[3])
			kind, file, _ := strings.Cut(strings.Trim(strings.TrimSpace(cells[4]), "[)"), "](")
			if told[what] {
				continue
			}
			told[what] = true
			text, err := os.ReadFile(filepath.Join(from, file))
			if err != nil {
				return "", "", err
			}
			add(what, version, kind, string(text))
		}
	}
	for _, font := range []string{"text", "heading"} {
		text, err := os.ReadFile("export/fonts/" + font + ".LICENSE.txt")
		if err != nil {
			return "", "", err
		}
		add("the font of what is printed: "+font, "", "OFL-1.1", string(text))
	}
	return texts.String(), list.String(), nil
}
