package layout

import (
	"math/rand/v2"
	"testing"

	"brevium/core/measure"
)

const in, mm = measure.Inch, measure.Millimetre

func TestWorkedFits(t *testing.T) {
	cases := []struct {
		name   string
		pieces []Piece
		w, h   Length
		sheets int
	}{
		{"tray and lid on two", []Piece{{Name: "base", W: 9 * in, H: 15 * in / 2, Count: 1},
			{Name: "lid", W: 105 * in / 16, H: 81 * in / 16, Count: 1}}, 12 * in, 12 * in, 2},
		{"four quarters", []Piece{{Name: "q", W: 6 * in, H: 6 * in, Count: 4}}, 12 * in, 12 * in, 1},
		{"only turned", []Piece{{Name: "long", W: 11 * in, H: 4 * in, Count: 2}}, 17 * in / 2, 11 * in, 1},
		{"upright", []Piece{{Name: "long", W: 4 * in, H: 8 * in, Count: 2, Upright: true}}, 17 * in / 2, 11 * in, 1},
		{"a strip beside", []Piece{{Name: "a", W: 9 * in, H: 12 * in, Count: 1},
			{Name: "b", W: 12 * in, H: 3 * in, Count: 1}}, 12 * in, 12 * in, 1},
	}
	for _, c := range cases {
		got := Fit(c.pieces, c.w, c.h)
		if len(got.Sheets) != c.sheets || got.Bound > c.sheets {
			t.Errorf("%s: %d sheets, bound %d; want %d", c.name, len(got.Sheets), got.Bound, c.sheets)
		}
	}
	// Two that fill the sheet's width can't lie beside each other.
	const mm = measure.Millimetre
	if got := Fit([]Piece{{Name: "cover", W: 214 * mm, H: 121 * mm, Count: 8}}, 210*mm, 297*mm); len(got.Sheets) != 8 ||
		got.Bound != 8 {
		t.Errorf("%d sheets, at least %d", len(got.Sheets), got.Bound)
	}
	if got := Fit([]Piece{{Name: "wide", W: 13 * in, H: in, Count: 1}}, 12*in, 12*in); len(got.TooBig) != 1 ||
		len(got.Sheets) != 0 {
		t.Errorf("a piece larger than the sheet: %+v", got)
	}
}

// Whatever goes in: every piece lies on a sheet once, within it, clear of the
// others, the cuts free each one, and the sheets are no fewer than the bound.
func TestFitHolds(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	for range 300 {
		var pieces []Piece
		count := 0
		for k := range 1 + r.IntN(6) {
			p := Piece{Name: string(rune('a' + k)), W: Length(1+r.IntN(190)) * in / 16,
				H: Length(1+r.IntN(190)) * in / 16, Count: 1 + r.IntN(4), Upright: r.IntN(4) == 0}
			pieces, count = append(pieces, p), count+p.Count
		}
		got := Fit(pieces, 12*in, 12*in)
		if n, _ := Count(pieces, 12*in, 12*in); n != len(got.Sheets) {
			t.Fatalf("%d sheets were counted, %d laid", n, len(got.Sheets))
		}
		placed, area := 0, 0.0
		for _, s := range got.Sheets {
			placed += len(s.Placed)
			for i, p := range s.Placed {
				area += p.Rect.Area()
				if p.Rect.X < 0 || p.Rect.Y < 0 || p.Rect.X+p.Rect.W > s.W || p.Rect.Y+p.Rect.H > s.H {
					t.Fatalf("%+v stands over the sheet", p)
				}
				for _, q := range s.Placed[i+1:] {
					if meet(p.Rect, q.Rect) {
						t.Fatalf("%+v and %+v overlap", p, q)
					}
				}
			}
			checkCuts(t, s)
		}
		if placed != count || len(got.Sheets) < got.Bound {
			t.Fatalf("%d of %d placed on %d sheets, bound %d", placed, count, len(got.Sheets), got.Bound)
		}
		if share := area / (float64(len(got.Sheets)) * 304.8 * 304.8); share-got.Used > 1e-9 || got.Used-share > 1e-9 {
			t.Fatalf("used %.4f, said %.4f", share, got.Used)
		}
	}
}

func checkCuts(t *testing.T, s Sheet) {
	t.Helper()
	if err := s.Check(0); err != nil {
		t.Fatalf("%v: %+v", err, s)
	}
}

func meet(a, b Rect) bool {
	return a.X < b.X+b.W && b.X < a.X+a.W && a.Y < b.Y+b.H && b.Y < a.Y+a.H
}

func BenchmarkFit(b *testing.B) {
	pieces := []Piece{{Name: "base", W: 9 * in, H: 7 * in, Count: 6},
		{Name: "lid", W: 6 * in, H: 5 * in, Count: 6}, {Name: "strip", W: 5 * in, H: in, Count: 12}}
	for b.Loop() {
		Fit(pieces, 12*in, 12*in)
	}
}

// A sheet that has no room for a piece that must stay upright may have room for
// the same piece turned.
func TestUprightIsAnotherSize(t *testing.T) {
	const mm = 1_000_000
	pieces := []Piece{{Name: "wide", W: 95 * mm, H: 60 * mm, Count: 1},
		{Name: "upright", W: 35 * mm, H: 90 * mm, Count: 2, Upright: true},
		{Name: "free", W: 35 * mm, H: 90 * mm, Count: 1}}
	if got := Fit(pieces, 100*mm, 100*mm); len(got.Sheets) != 2 {
		t.Errorf("%d sheets: %+v", len(got.Sheets), got.Sheets)
	}
}

// Pieces that must lie one way lie that way, or are told to be too large; no others
// are kept from turning by it; and sheets of several kinds add up.
func TestLies(t *testing.T) {
	r := rand.New(rand.NewPCG(21, 22))
	for range 400 {
		w, h := mm*Length(150+r.IntN(200)), mm*Length(150+r.IntN(200))
		var pieces []Piece
		for i := range 1 + r.IntN(6) {
			way := r.IntN(3)
			pieces = append(pieces, Piece{Name: string(rune('a' + i)), W: mm * Length(20+r.IntN(240)),
				H:     mm * Length(20+r.IntN(240)),
				Count: 1 + r.IntN(3), Upright: way == 1, Across: way == 2})
		}
		of := map[string]Piece{}
		for _, p := range pieces {
			of[p.Name] = p
		}
		l := Fit(pieces, w, h)
		for _, p := range l.TooBig {
			if p.Lies(w, h) {
				t.Fatalf("%+v does lie on %v x %v", p, w, h)
			}
		}
		placed := 0
		for _, s := range l.Sheets {
			for _, it := range s.Placed {
				p := of[it.Piece]
				if placed++; p.Upright && it.Turned || p.Across && !it.Turned {
					t.Fatalf("%+v is turned: %v", p, it.Turned)
				}
				if want := (Rect{W: p.W, H: p.H}); it.Turned && (it.Rect.W != want.H || it.Rect.H != want.W) || !it.Turned &&
					it.Rect.W != want.W {
					t.Fatalf("%+v lies as %+v", p, it)
				}
			}
		}
		want := 0
		for _, p := range pieces {
			if p.Lies(w, h) {
				want += p.Count
			}
		}
		both := Join(l, Fit(pieces[:1], w, h))
		if placed != want || len(l.Sheets) < l.Bound || len(both.Sheets) < len(l.Sheets) || both.Used > 1 ||
			both.Bound < l.Bound {
			t.Fatalf("%d placed of %d, %d sheets, bound %d", placed, want, len(l.Sheets), l.Bound)
		}
	}
}

// Pieces that have their place lie there, each on a sheet of its own; the others lie
// round them, and every cut goes right across.
func TestSpots(t *testing.T) {
	r := rand.New(rand.NewPCG(8, 8))
	for range 200 {
		w, h := Length(20+r.IntN(80))*mm, Length(20+r.IntN(80))*mm
		at := &Spot{Length(r.IntN(100)) * mm, Length(r.IntN(100)) * mm}
		n := 1 + r.IntN(3)
		pieces := []Piece{{Name: "front", W: w, H: h, Count: n, At: at},
			{Name: "other", W: Length(10+r.IntN(60)) * mm, H: Length(10+r.IntN(60)) * mm, Count: 1 + r.IntN(8)}}
		got := Fit(pieces, 200*mm, 200*mm)
		if len(got.TooBig) > 0 {
			t.Fatalf("%+v", got.TooBig)
		}
		fronts, others := 0, 0
		for _, s := range got.Sheets {
			checkCuts(t, s)
			own := 0
			for i, p := range s.Placed {
				for _, q := range s.Placed[:i] {
					if meet(p.Rect, q.Rect) {
						t.Fatalf("%v and %v meet", p, q)
					}
				}
				if p.Piece != "front" {
					others++
					continue
				}
				if own++; p.Rect != (Rect{at.X, at.Y, w, h}) || p.Turned {
					t.Fatalf("it lies at %v, not at %v", p.Rect, at)
				}
			}
			if fronts += own; own > 1 {
				t.Fatal("two lie in one place")
			}
		}
		if fronts != n || others != pieces[1].Count {
			t.Fatalf("%d of %d and %d of %d are laid", fronts, n, others, pieces[1].Count)
		}
	}
	if got := Fit([]Piece{{Name: "over", W: 50 * mm, H: 50 * mm, Count: 1, At: &Spot{180 * mm, 0}}}, 200*mm,
		200*mm); len(got.TooBig) != 1 {
		t.Error("what hangs over its sheet is laid")
	}
}
