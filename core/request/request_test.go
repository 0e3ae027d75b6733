package request_test

import (
	"maps"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/request"
	"brevium/core/shop"
	"brevium/internal/tried"
)

// What can't be read is noted at its own field and, where the problem carries a change, the change mends it.
func TestTheDoorRefuses(t *testing.T) {
	for _, c := range []struct{ field, text, says string }{
		{"box.style", "shoe", "doesn't know the box"}, {"tools.fit", "tight", "lid can't fit"}, {"tools.step", "7 mm", "7 mm"},
		{"tools.allowances", "some", "Allowances can't be"}, {"tools.adhesive", "spit", "spit"}, {"card.stock", "felt", "felt"},
		{"card.sheet", "a9", "a9"}, {"copies", "0", "How many"}, {"copies", "9999", "How many"}, {"room.around", "wide", "wide"},
		{"contents.0.length", "-3 mm", "below zero"}, {"contents.0.count", "many", "many"},
		{"box.options.walls", "woven", "woven"}, {"arrange.compartments", "nets", "nets"}, {"sheets.margin", "90 mm", "too wide"},
		{"sheets.aim", "luck", "luck"}, {"dress.outside", "9", "9"}, {"tools.burnish", "never", "never"},
	} {
		b := brief.New("mm")
		if !b.Set(c.field, c.text) {
			t.Fatalf("there is no field %s", c.field)
		}
		q := request.Read(b, request.Default)
		i := slices.IndexFunc(q.Problems, func(p brief.Problem) bool { return p.Field == c.field })
		if i < 0 || !strings.Contains(q.Problems[i].Text, c.says) {
			t.Errorf("%s = %q: %+v", c.field, c.text, q.Problems)
			continue
		}
		set := q.Problems[i].Set
		if again := request.Read(b.With(set), request.Default); len(set) > 0 && len(again.Problems) >= len(q.Problems) {
			t.Errorf("%s = %q: %v doesn't mend it: %+v", c.field, c.text, set, again.Problems)
		}
	}
}

// What a house does is done where a document leaves it open, noted, and never where it says otherwise. Written into the
// document, it is read alike by a house that has said nothing.
func TestTheHouseAnswers(t *testing.T) {
	doc := shop.Shipped()
	for path, text := range map[string]string{"habits.walls": "rolled", "habits.tabs": "half", "habits.clearance": "trim",
		"habits.gussets": "pinched", "habits.adhesive": "glue", "habits.burnish": "before", "tools.tape": "6 mm",
		"tools.trimmer.cuts": "31 cm", "tools.scoring": "ruler"} {
		if !doc.Set(path, text) {
			t.Fatalf("there is no field %s", path)
		}
	}
	s, report := shop.Read(doc)
	if len(report.Problems) > 0 {
		t.Fatal(report.Problems)
	}
	house := request.Workshop{Shop: *s}
	for style, want := range map[string]map[string]string{
		"tray-lid":      {"walls": "rolled", "tabs": "half", "clearance": "trim-base"},
		"sleeve-drawer": {"walls": "rolled", "tabs": "half", "clearance": "trim-drawer"},
		"gable-cap":     {"walls": "rolled", "tabs": "half", "gussets": "pinched"}, "hinged-lid": {"tabs": "half"}, "carton": {}} {
		b := tried.Metric(style, 90, 70, 40)
		q := request.Read(b, house)
		if !maps.Equal(q.Answers.Choice, want) || !q.Tools.Ruler || q.Burnish != "before" || len(q.Problems) > 0 {
			t.Errorf("%s: %v, ruler %v, burnish %q, %v", style, q.Answers.Choice, q.Tools.Ruler, q.Burnish, q.Problems)
		}
		alike := request.Read(q.Written(b, nil), request.Default)
		if !maps.Equal(alike.Answers.Choice, want) || alike.Adhesive != q.Adhesive || alike.Burnish != q.Burnish ||
			alike.Tools.Cuts != q.Tools.Cuts || len(alike.Used) > 0 {
			t.Errorf("%s, written out: %v %v %+v", style, alike.Answers.Choice, alike.Adhesive, alike.Used)
		}
		if b.Set("box.options.tabs", "full"); want["tabs"] != "" && request.Read(b, house).Answers.Choice["tabs"] != "full" {
			t.Errorf("%s: what the document says of tabs is overruled", style)
		}
		b.Set("tools.house", "no")
		for _, u := range request.Read(b, house).Used {
			if u.Kind == "habit" || u.Kind == "tools" {
				t.Errorf("%s takes from the house and should not: %s", style, u.Says)
			}
		}
	}
}

// Reading a brief changes nothing of it, reads the same twice, and every field a problem names is one of the document's.
func TestReadingIsPure(t *testing.T) {
	r := rand.New(rand.NewPCG(26, 3))
	for range 300 {
		b := tried.Random(r)
		for range 3 {
			f := brief.Table[r.IntN(len(brief.Table))]
			b.Set(strings.ReplaceAll(f.Path, "*", "0"), []string{"", "7", "-1", "x", "3 mm", "yes", "1/0"}[r.IntN(7)])
		}
		before := string(b.Encode())
		q, again := request.Read(b, request.Default), request.Read(b, request.Default)
		if string(b.Encode()) != before || len(q.Problems) != len(again.Problems) {
			t.Fatalf("reading changes %s", before)
		}
		for _, p := range q.Problems {
			if _, known := brief.FieldAt(p.Field); !known && !strings.HasPrefix(p.Field, "box.options.") && !b.Has(p.Field) {
				t.Fatalf("a problem names %q, which is no field: %s", p.Field, p.Text)
			}
		}
	}
}
