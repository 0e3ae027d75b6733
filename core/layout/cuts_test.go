package layout

import (
	"math/rand/v2"
	"strings"
	"testing"
)

// Cuts in any order that can be made are put in one that can be made too, all of them,
// with no more settings of the stop.
func TestInOrder(t *testing.T) {
	r := rand.New(rand.NewPCG(31, 32))
	better := 0
	for range 300 {
		var pieces []Piece
		for i := range 2 + r.IntN(5) {
			pieces = append(pieces, Piece{Name: string(rune('a' + i)), W: mm * Length(20+10*r.IntN(8)), H: mm * Length(20+10*r.IntN(8)),
				Count: 1 + r.IntN(4)})
		}
		for _, s := range Fit(pieces, 300*mm, 300*mm).Sheets {
			// Later cuts of other parts may come first.
			for range 20 {
				i := r.IntN(max(1, len(s.Cuts)-1))
				if i+1 < len(s.Cuts) {
					a, b := s.Cuts[i], s.Cuts[i+1]
					if kept, rest := a.Parts(); b.In != kept && b.In != rest {
						s.Cuts[i], s.Cuts[i+1] = b, a
					}
				}
			}
			if err := s.Check(0); err != nil {
				t.Fatal(err)
			}
			n, before := len(s.Cuts), (Layout{Sheets: []Sheet{s}}).Settings()
			s.Cuts = InOrder(s.Cuts)
			if err := s.Check(0); err != nil || len(s.Cuts) != n {
				t.Fatalf("%v, %d cuts of %d", err, len(s.Cuts), n)
			}
			if after := (Layout{Sheets: []Sheet{s}}).Settings(); after > before {
				t.Fatalf("%d settings, %d before: %+v", after, before, s.Cuts)
			} else if after < before {
				better++
			}
		}
	}
	if better < 30 {
		t.Errorf("only %d sheets are set less often", better)
	}
}

// Sheets that are cut alike are cut together: the stop is set once for all of them.
func TestSettings(t *testing.T) {
	got := Fit([]Piece{{Name: "cover", W: 200 * mm, H: 120 * mm, Count: 6, Upright: true}}, 210*mm, 297*mm)
	if len(got.Sheets) != 3 || got.Settings() != (Layout{Sheets: got.Sheets[:1]}).Settings() {
		t.Errorf("%d sheets, %d settings", len(got.Sheets), got.Settings())
	}
}

// Faults of a sheet are found: a cut across what is not there, one too long, a piece that
// no cut frees, two in one place, an offcut that is none.
func TestCheck(t *testing.T) {
	good := Sheet{W: 100 * mm, H: 80 * mm, Placed: []Placed{{Piece: "a", Rect: Rect{W: 60 * mm, H: 80 * mm}}},
		Cuts: []Cut{{In: Rect{W: 100 * mm, H: 80 * mm}, Down: true, At: 60 * mm}}, Offcuts: []Rect{{60 * mm, 0, 40 * mm, 80 * mm}}}
	if err := good.Check(80 * mm); err != nil {
		t.Fatal(err)
	}
	for says, spoil := range map[string]func(s *Sheet){
		"card that is not there":  func(s *Sheet) { s.Cuts = append(s.Cuts, s.Cuts[0]) },
		"cut 1 goes across":       func(s *Sheet) { s.Cuts = []Cut{{In: Rect{W: 100 * mm, H: 80 * mm}, Down: true, At: 100 * mm}} },
		"never free a":            func(s *Sheet) { s.Cuts = nil },
		"never free b":            func(s *Sheet) { s.Placed = append(s.Placed, Placed{Piece: "b", Rect: s.Placed[0].Rect}) },
		"where a piece lies":      func(s *Sheet) { s.Offcuts = []Rect{{50 * mm, 0, 50 * mm, 80 * mm}} },
		"longer than the trimmer": func(s *Sheet) { s.H, s.Cuts[0].In.H, s.Placed[0].Rect.H = 90*mm, 90*mm, 90*mm },
	} {
		s := good
		s.Cuts, s.Placed = append([]Cut(nil), good.Cuts...), append([]Placed(nil), good.Placed...)
		spoil(&s)
		if err := s.Check(80 * mm); err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%s: %v", says, err)
		}
	}
}

// The cuts are told as they are made at the trimmer: what is set, what lies against the
// stop, what comes free.
func TestSteps(t *testing.T) {
	say := func(l Length) string { return l.Exact("mm") }
	l := Fit([]Piece{{Name: "base", W: 90 * mm, H: 80 * mm, Count: 1}, {Name: "lid", W: 90 * mm, H: 20 * mm, Count: 1}}, 90*mm, 100*mm)
	steps := l.Sheets[0].Steps(say)
	if len(steps) != 1 || steps[0].Says != "Set 80 mm, the top of the sheet against it, and cut: that is the base, and the lid is left." {
		t.Errorf("%+v", steps)
	}
	l = Fit([]Piece{{Name: "tag", W: 50 * mm, H: 50 * mm, Count: 2, Upright: true}}, 100*mm, 120*mm)
	var says []string
	for _, st := range l.Sheets[0].Steps(say) {
		says = append(says, st.Says)
		if st.Moved == strings.HasPrefix(st.Says, "Leave") {
			t.Errorf("%+v", st)
		}
	}
	told := strings.Join(says, "\n")
	if !strings.Contains(told, "Leave the trimmer set") || strings.Count(told, "that is "+
		"the tag") < 1 || !strings.Contains(told, "part of") {
		t.Error(told)
	}
}

// What is cut off and holds no piece goes or is put aside; it is not kept.
func TestStepsTellWhatGoes(t *testing.T) {
	say := func(l Length) string { return l.Exact("mm") }
	sheet := Rect{W: 100 * mm, H: 80 * mm}
	rest := Rect{X: 5 * mm, W: 95 * mm, H: 80 * mm}
	s := Sheet{W: 100 * mm, H: 80 * mm, Cuts: []Cut{{sheet, true, 5 * mm}, {rest, true, 60 * mm},
		{Rect{5 * mm, 0, 60 * mm, 80 * mm}, false, 50 * mm}},
		Placed: []Placed{{Piece: "a", Rect: Rect{5 * mm, 0, 60 * mm, 50 * mm}}}}
	if err := s.Check(0); err != nil {
		t.Fatal(err)
	}
	for i, says := range []string{"throw away the left part", "keep the left part", "that is the a"} {
		if got := s.Steps(say)[i].Says; !strings.Contains(got, says) {
			t.Errorf("cut %d: %s", i+1, got)
		}
	}
	s.Placed = append(s.Placed, Placed{Piece: "b", Rect: Rect{65 * mm, 0, 35 * mm, 80 * mm}})
	s.Cuts = append(s.Cuts, Cut{Rect{65 * mm, 0, 35 * mm, 80 * mm}, false, 80 * mm})[:3]
	if got := s.Steps(say)[0].Says; !strings.Contains(got, "throw away") {
		t.Error(got)
	}
}
