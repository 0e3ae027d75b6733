package web

import (
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/web/desk"
	"brevium/web/questions"
	"brevium/web/workbench"
)

func testForm(b *brief.Brief) questions.Form {
	p := plan.Make(*b, request.Default)
	f := questions.Of(b, p, nil, request.Default)
	if p.OK() {
		f.Shown = p
	}
	return f
}

// The rail tells what is done, wants a look, or is still to come: nothing is done that nobody touched.
func TestRail(t *testing.T) {
	states := func(past workbench.Past, change func(*brief.Brief)) string {
		b := brief.New("in")
		change(&b)
		var out []string
		for _, st := range workbench.Rail(workbench.View{Stage: "box"}, &b, plan.Make(b, request.Default), request.Default, past) {
			out = append(out, map[string]string{"done": "d", "look": "L", "later": "l"}[st.State])
		}
		return strings.Join(out, "")
	}
	for want, change := range map[string]func(*brief.Brief){
		"lllllll": func(*brief.Brief) {},
		"dllllll": func(b *brief.Brief) { b.Set("contents.0.count", "5") },
		"Lllllll": func(b *brief.Brief) { b.Set("contents.0.count", "none") },
		"lLlllll": func(b *brief.Brief) { b.Set("box.options.tabs", "huge") },
		"llLllll": func(b *brief.Brief) { b.Set("tools.fit", "perfect") },
		"llllLll": func(b *brief.Brief) { b.Set("copies", "0") },
		"dldlLLl": func(b *brief.Brief) { b.Set("contents.0.count", "9"); b.Set("card.sheet", "6x6"); b.Set("name", "x") },
	} {
		if got := states(workbench.Past{}, change); got != want {
			t.Errorf("the rail is %s, want %s", got, want)
		}
	}
	agreed := workbench.Past{Agreed: []string{"box", "dressing"}}
	for want, change := range map[string]func(*brief.Brief){
		"ldldlll": func(*brief.Brief) {},
		"lLldlll": func(b *brief.Brief) { b.Set("box.options.tabs", "huge") },
	} {
		if got := states(agreed, change); got != want {
			t.Errorf("with what was suggested taken the rail is %s, want %s", got, want)
		}
	}
}

// Every field a stage asks for is one the document has, is labelled, and shows
// its problem; what is left open says what it comes to.
func TestFields(t *testing.T) {
	b := brief.New("in")
	b.Set("box.options.tabs", "narrow")
	b.Set("arrange.compartments", "partitions")
	asked := map[string]desk.Field{}
	f := testForm(&b)
	for _, st := range workbench.Stages {
		for _, g := range f.Groups(st.ID) {
			for _, fd := range append(g.Fields, g.More...) {
				asked[fd.Path] = fd
				probe := b.Clone()
				if fd.Label == "" || !probe.Set(fd.Path, "x") {
					t.Errorf("%s asks %q, labelled %q", st.ID, fd.Path, fd.Label)
				}
				if workbench.IsLength(fd.Path) != (fd.Kind == "length") {
					t.Errorf("%s is read as one kind and asked as another", fd.Path)
				}
			}
		}
	}
	if got := asked["box.options.tab-width"].Open; got != "7/16" {
		t.Errorf("a tab's width left open says %q", got)
	}
	if got := asked["room.around"].Open; got != "1/8" {
		t.Errorf("finger room left open says %q", got)
	}
	if got := asked["contents.@1.length"]; got.Value != "4 1/2" || got.Unit != "in" || got.Other != "about 114.3 mm" {
		t.Errorf("%+v", got)
	}
	b.Set("contents.0.length", "115 mm")
	b.Set("contents.0.width", "lots")
	for _, fd := range testForm(&b).Contents()[0].Fields {
		if fd.Path == "contents.@1.length" && (fd.Value != "115 mm" || fd.Other != "about 4 17/32 in") {
			t.Errorf("the other unit: %+v", fd)
		}
		if (fd.Path == "contents.@1.width") != (fd.Problem != nil) {
			t.Errorf("%s has the problem %v", fd.Path, fd.Problem)
		}
	}
}

func TestFractions(t *testing.T) {
	for in, want := range map[string]string{
		"Cut 9 x 7 1/2 in.": "Cut 9 x 7\u202f<span class=\"fr\"><i>1</i>⁄<i>2</i></span>\u00a0in.",
		"5 <b> 15⁄16":       "5 &lt;b&gt; <span class=\"fr\"><i>15</i>⁄<i>16</i></span>", "and/or": "and/or",
	} {
		if got := string(desk.SetFractions(in)); got != want {
			t.Errorf("%q is set %q, want %q", in, got, want)
		}
	}
}
