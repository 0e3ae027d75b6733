package reader_test

import (
	"maps"
	"slices"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/internal/tried"
)

// Lists with one number wrong, of all roles: the first suspect puts back what was there in 95 of a hundred.
func TestTeaches(t *testing.T) {
	all, first, each := 0, 0, 0
	var missed []string
	for _, list := range typedLists {
		written := func(pieces [][7]string, stated *brief.Size) brief.Brief {
			b := listOf(pieces...)
			b.Set("units", "mm")
			b.Set("tools.step", "1 mm")
			b.Box.Stated = stated
			return b
		}
		good := written(list.pieces, nil)
		size := advice.Make(good, request.Default).Box.Size
		in := func(l measure.Length) brief.Text { return brief.Text(l.Exact(measure.Millimetres)) }
		stated := &brief.Size{Length: in(size.Length), Width: in(size.Width), Depth: in(size.Depth)}
		bad := mistyped(list.pieces, 1, -1, 2, -2, 3, -3, 5, -5)
		for _, what := range slices.Sorted(maps.Keys(bad)) {
			if isFree(list.free, what) {
				continue
			}
			if each++; !*tried.Long && each%25 != 0 {
				continue
			}
			b := written(bad[what], stated)
			all++
			got := advice.Suspects(plan.Make(b, request.Default), request.Default)
			switch {
			case len(got) == 0:
				missed = append(missed, list.name+": none for "+what)
			case same(tried.Taken(b, got[0].Set), good):
				first++
			default:
				missed = append(missed, list.name+": "+what+" -> "+got[0].Text)
			}
		}
	}
	t.Logf("of %d lists %d are put right at first, %.1f %%; missed: %s", all, first, 100*float64(first)/float64(all),
		strings.Join(missed, "\n"))
	if each < 500 || 100*first < 95*all {
		t.Errorf("of %d lists (%d in all) only %d are put right", all, each, first)
	}
}

// A lid cut without its clearance is one slip, though two numbers are off by it; and a button that only moves the
// slip elsewhere is none.
func TestTeachesBothWays(t *testing.T) {
	b := listOf([7]string{"base", "tray", "9", "7 1/2", "2, 7", "2, 5 1/2", ""},
		[7]string{"lid", "lid", "6 1/2", "5", "3/4 both", "3/4 both", ""})
	got := advice.Suspects(advice.Make(b, request.Default), request.Default)
	if len(got) == 0 || !strings.Contains(got[0].Text, "should be 6 9/16 in × 5 1/16 in") ||
		!strings.Contains(got[0].Text, "the lid clears the base") {
		t.Fatalf("%+v", got)
	}
	for _, s := range got {
		if q := advice.Make(tried.Taken(b, s.Set), request.Default); !q.Holds() {
			t.Errorf("%s: %s", s.Text, tried.Said(q))
		}
	}
}

// A list that is right has no suspect, and one that can't be read is told by itself.
func TestTeachesNothing(t *testing.T) {
	for _, list := range typedLists {
		b := listOf(list.pieces...)
		b.Set("units", "mm")
		got := advice.Suspects(advice.Make(b, request.Default), request.Default)
		if len(got) > 0 && list.name != "hinged" && list.name != "strip" {
			t.Errorf("%s: %+v", list.name, got)
		}
	}
	b := listOf([7]string{"base", "tray", "9 in", "7 1/2", "2, seven", "2, 5 1/2", ""})
	if got := advice.Suspects(advice.Make(b, request.Default), request.Default); len(got) > 0 {
		t.Errorf("%+v", got)
	}
}

func isFree(list, what string) bool {
	return slices.ContainsFunc(strings.Split(list, "; "), func(f string) bool { return f != "" && strings.HasPrefix(what, f) })
}

// same reports whether two lists say the same numbers.
func same(a, b brief.Brief) bool {
	for i := range a.Box.Pieces {
		ra, rb := brief.NewReader(&a), brief.NewReader(&b)
		x, y := a.Box.Pieces[i], b.Box.Pieces[i]
		wa, _ := ra.Length("", x.Width)
		wb, _ := rb.Length("", y.Width)
		ha, _ := ra.Length("", x.Height)
		hb, _ := rb.Length("", y.Height)
		aa, _ := ra.Lengths("", x.Across, wa)
		ab, _ := rb.Lengths("", y.Across, wb)
		da, _ := ra.Lengths("", x.Down, ha)
		db, _ := rb.Lengths("", y.Down, hb)
		if wa != wb || ha != hb || !slices.Equal(aa, ab) || !slices.Equal(da, db) {
			return false
		}
	}
	return true
}
