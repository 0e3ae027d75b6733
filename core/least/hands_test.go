package least

import (
	"math/rand/v2"
	"slices"
	"testing"

	"brevium/core/layout"
)

// Who looks on is told of each better answer and no worse, and ends the work; the answer
// is whole then.
func TestWatch(t *testing.T) {
	task := classes[6].task(60, rand.New(rand.NewPCG(9, 9)))
	task.Work = Quick
	looks, last := 0, int64(1<<40)
	got, err := Solve(task, func(p Progress) bool {
		if looks++; p.Done < 0 || p.Done > p.Of {
			t.Errorf("%d of %d is done", p.Done, p.Of)
		}
		if p.Better != nil {
			if p.Better.Least > last || len(p.Better.Sheets) != p.Better.Count {
				t.Errorf("%d sheets after %d", p.Better.Least, last)
			}
			last = p.Better.Least
		}
		return looks < 2
	})
	if err != nil || looks != 2 {
		t.Fatal(looks, err)
	}
	holds(t, task, got)
}

// Among equals the largest rest is left whole, or the stop is set less often.
func TestTies(t *testing.T) {
	r := rand.New(rand.NewPCG(11, 12))
	offcut, stops := [2]float64{}, [2]int{}
	for range 25 {
		task := classes[5].task(20, r)
		for i, tie := range []Tie{Offcut, Stops} {
			task.Tie, task.Work = tie, Quick/4
			got, err := Solve(task, nil)
			if err != nil {
				t.Fatal(err)
			}
			most := 0.0
			for _, s := range got.Sheets {
				for _, o := range s.Offcuts {
					most = max(most, o.Area())
				}
			}
			offcut[i], stops[i] = offcut[i]+most, stops[i]+got.Settings()
		}
	}
	if offcut[0] <= offcut[1] || stops[0] <= stops[1] {
		t.Errorf("offcuts %v, settings %v", offcut, stops)
	}
}

// What a hand pinned stays, on its sheet; everything else is laid round it.
func TestPinned(t *testing.T) {
	r := rand.New(rand.NewPCG(13, 14))
	held := 0
	for range 200 {
		task := Task{Sheets: []Size{{Name: "A", W: 200 * mm, H: 200 * mm, Count: Unlimited}}, Work: 20_000}
		for i := range 2 + r.IntN(3) {
			task.Pieces = append(task.Pieces, Piece{Piece: layout.Piece{Name: string(rune('a' + i)), W: mm * Length(20+r.IntN(80)),
				H: mm * Length(20+r.IntN(80)), Count: 1 + r.IntN(4)}})
		}
		for i := range 1 + r.IntN(3) {
			task.Pins = append(task.Pins, Pin{Piece: r.IntN(len(task.Pieces)), Sheet: i % 2,
				At: layout.Spot{X: mm * Length(r.IntN(150)), Y: mm * Length(r.IntN(150))}, Turned: r.IntN(2) == 0})
		}
		got, err := Solve(task, nil)
		if err != nil {
			continue
		}
		held++
		holds(t, task, got)
		pins := 0
		for n, s := range got.Sheets {
			for _, p := range s.Placed {
				if !p.Pinned {
					continue
				}
				pins++
				if !slices.ContainsFunc(task.Pins, func(pin Pin) bool {
					return pin.Piece == p.Of && (pin.Sheet == n || len(got.Sheets) <= pin.Sheet) && pin.At == (layout.Spot{X: p.Rect.X, Y: p.Rect.Y})
				}) {
					t.Fatalf("%+v on sheet %d was not pinned there: %+v", p, n, task.Pins)
				}
			}
		}
		if pins != len(task.Pins) {
			t.Fatalf("%d of %d pins are held", pins, len(task.Pins))
		}
	}
	if held < 60 {
		t.Errorf("only %d were laid", held)
	}
}
