package sets_test

import (
	"strings"
	"testing"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/internal/tried"
)

func ofSize(name, l, w, d string) brief.Member {
	return brief.Member{ID: name, Name: brief.Text(name), Size: &brief.Size{Length: brief.Text(l + " mm"), Width: brief.Text(w + " mm"),
		Depth: brief.Text(d + " mm")}}
}

// beside is a high box with a low one of some style stuck to it.
func beside(style string) brief.Brief {
	m := ofSize("second", "50", "50", "30")
	m.Box = &brief.Box{Style: brief.Text(style)}
	b := tried.ASet("cluster", "", m)
	b.Size.Depth = "150 mm"
	return b
}

func open(m brief.Member) brief.Member {
	m.Box = &brief.Box{Style: "tray-lid", Options: brief.Options{"lid": "none"}}
	return m
}

// Sets that go together, and those that don't: each check fails by name.
func TestSetsBelong(t *testing.T) {
	for _, c := range []struct {
		name  string
		b     brief.Brief
		wrong string
	}{
		{"a stack by steps", tried.ASet("stack", "20 mm", brief.Member{ID: "2"}, brief.Member{ID: "3"}), ""},
		{"a stack by sizes", tried.ASet("stack", "", ofSize("second", "90", "90", "30")), ""},
		{"a larger one on top", tried.ASet("stack", "", ofSize("second", "140", "90", "30")), "the second stands on the first: it stands out"},
		{"on an open tray", tried.ASet("stack", "", open(ofSize("second", "100", "90", "30")), ofSize("third", "60", "60", "30")),
			"the third stands on the second: the second has no level top"},
		{"a nest", tried.ASet("nest", "", brief.Member{ID: "2"}, brief.Member{ID: "3"}), ""},
		{"a nest too tight", tried.ASet("nest", "", ofSize("second", "121", "110", "50")), "the first goes into the second with its lid on"},
		{"a cluster of trays", tried.ASet("cluster", "", open(ofSize("second", "60", "80", "20")), open(ofSize("third", "60", "80", "20")),
			open(ofSize("fourth", "60", "50", "20"))), ""},
		{"as high as the lid", tried.ASet("cluster", "", open(ofSize("second", "60", "80", "38"))), "leaves the first free to open"},
		{"with a lid of its own", tried.ASet("cluster", "", ofSize("second", "60", "80", "20")), "can be opened beside the first"},
		{"longer than the side", tried.ASet("cluster", "", open(ofSize("second", "160", "180", "20"))), "longer than that side"},
		{"turned, its hinge to the first", beside("hinged-lid"), ""},
		{"a long one, turned", tried.ASet("cluster", "", open(ofSize("second", "60", "180", "20"))), ""},
		{"a flap box", beside("flap-box"), ""}, {"a carton", beside("carton"), ""},
		{"a pouch", beside("pleat-pouch"), ""}, {"a book wrap", beside("book-wrap"), ""},
		{"a drawer", beside("sleeve-drawer"), ""}, {"a tube", beside("pinch-top"), ""},
		{"a foot", beside("chamfer-foot"), ""}, {"a cover", beside("wrap-cover"), ""},
		{"a cap over all", beside("gable-cap"), "its cap opens there"},
		{"shells", beside("corner-shells"), "its shell opens there"},
		{"companions", tried.ASet("companions", "", ofSize("second", "200", "180", "60")), ""},
	} {
		s := sets.Make(c.b, request.Default)
		if !s.OK() {
			t.Errorf("%s: %v", c.name, s.Problems)
			for _, p := range s.Plans {
				t.Log(p.Problems)
			}
			continue
		}
		if got := assembly.Said(s.Checks); (got == "") != (c.wrong == "") || !strings.Contains(got, c.wrong) || s.Holds() != (got == "") {
			t.Errorf("%s: %q, holds %v", c.name, got, s.Holds())
		}
		if s.Sheets() > s.Alone() || len(s.Cards()) == 0 || len(s.Names) != len(s.Plans) {
			t.Errorf("%s: %d sheets together, %d alone", c.name, s.Sheets(), s.Alone())
		}
		steps := s.Steps()
		if len(steps) < 5 || s.Kind != "companions" && steps[len(steps)-1].Title != "Put them together" {
			t.Errorf("%s: %d steps", c.name, len(steps))
		}
		for _, step := range steps {
			for _, says := range step.Says {
				if bad := tried.Badly.FindString(says); bad != "" || !strings.HasSuffix(says, ".") {
					t.Errorf("%s: %q in %q", c.name, bad, says)
				}
			}
		}
	}
}

// What stands together touches nothing it should not: bodies of different boxes are
// apart, in a stack and beside each other, and on every step of coming together each
// box is whole.
func TestSetsStand(t *testing.T) {
	for _, b := range []brief.Brief{tried.ASet("stack", "20 mm", brief.Member{ID: "2"}, brief.Member{ID: "3"}),
		tried.ASet("nest", "", brief.Member{ID: "2"}), tried.ASet("companions", "", ofSize("second", "80", "60", "60")),
		tried.ASet("cluster", "", open(ofSize("second", "60", "80", "20")), open(ofSize("third", "60", "80", "20")))} {
		s := sets.Make(b, request.Default)
		if got := len(s.Course()); got != len(s.Plans)-1 {
			t.Errorf("%s: %d steps for %d boxes", s.Kind, got, len(s.Plans))
		}
		for _, done := range []float64{0, float64(len(s.Plans))} {
			all := s.Standing(done)
			for i := range all {
				for k := range i {
					if c := fold.Apart(nil, append(all[i].Bodies, all[k].Bodies...)...); !c.Holds {
						t.Errorf("%s at %.0f: %s", s.Kind, done, c.Figure)
					}
				}
			}
		}
		first, last := s.Outside(), s.Plans[0].Box.Outside
		if s.Kind != "nest" && (first.Length < last.Length || first.Depth < last.Depth) {
			t.Errorf("%s: together %v, the first alone %v", s.Kind, first, last)
		}
	}
}

// What the boxes of a set follow from: steps, the one inside, the one card for all; a
// heavy one on top and nonsense are told.
func TestSetsFollow(t *testing.T) {
	s := sets.Make(tried.ASet("stack", "15 mm", brief.Member{ID: "2"}, brief.Member{ID: "3"}), request.Default)
	for i, want := range []string{"120 mm", "105 mm", "90 mm"} {
		if got := s.Plans[i].Box.Size.Length.Exact("mm"); got != want || s.Plans[i].Box.Size.Depth.Exact("mm") != "40 mm" {
			t.Errorf("box %d is %s long", i, got)
		}
	}
	b := tried.ASet("stack", "", ofSize("second", "80", "80", "30"))
	b.Size = nil
	b.Contents = []brief.Item{{Name: "seeds", Shape: "block", Length: "90 mm", Width: "90 mm", Height: "20 mm", Count: "1", Mass: "20 g"}}
	heavy := []brief.Item{{Name: "pot", Shape: "block", Length: "40 mm", Width: "40 mm", Height: "20 mm", Count: "1", Mass: "400 g"}}
	b.Several.Boxes[1].Contents = &heavy
	s = sets.Make(b, request.Default)
	if !s.Holds() || len(s.Warnings) != 1 || s.Warnings[0].Code != "heavy-on-top" {
		t.Errorf("a heavy one on top: %+v %v", s.Warnings, s.Checks)
	}
	b = tried.ASet("heap", "", brief.Member{ID: "2"})
	if s = sets.Make(b, request.Default); s.OK() || len(s.Problems) != 1 || s.Problems[0].Field != "set.kind" {
		t.Errorf("a heap: %+v", s.Problems)
	}
	s = sets.Make(tried.ASet("stack", "wide", brief.Member{ID: "2"}), request.Default)
	if len(s.Problems) != 1 || s.Problems[0].Field != "set.step" {
		t.Errorf("a step that is none: %+v", s.Problems)
	}
	b = tried.ASet("companions", "", brief.Member{ID: "2", Copies: "3", Card: &brief.Card{Stock: "cover-270"}})
	b.Several.Copies = "2"
	if s = sets.Make(b, request.Default); s.Plans[0].Copies != 2 || s.Plans[1].Copies != 6 || len(s.Layouts) != 2 ||
		s.Plans[1].Sheet.ID != "a3" {
		t.Errorf("two sets of one and three: %d and %d, %d kinds of sheet", s.Plans[0].Copies, s.Plans[1].Copies, len(s.Layouts))
	}
}
