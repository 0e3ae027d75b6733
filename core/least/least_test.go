package least

import (
	"math/rand/v2"
	"strings"
	"testing"

	"brevium/core/layout"
)

// chance makes a task of any kind: sheets of several sizes, stocks, prices, few in hand,
// offcuts, margins; pieces that may turn, may not, have their spot, may be of any card;
// a short trimmer.
func chance(r *rand.Rand) Task {
	t := Task{Aim: Aim(r.IntN(3)), Tie: Tie(r.IntN(2)), Work: 20_000, Seed: r.Uint64()}
	for i := range 1 + r.IntN(3) {
		s := Size{Name: string(rune('A' + i)), W: mm * Length(60+r.IntN(150)), H: mm * Length(60+r.IntN(150)), Count: Unlimited,
			Price: int64(5 * (1 + r.IntN(20)))}
		if r.IntN(4) == 0 {
			s.Count = r.IntN(4)
		}
		if r.IntN(4) == 0 {
			s.Margin = mm * Length(r.IntN(8))
		}
		if s.Offcut = r.IntN(4) == 0; s.Offcut {
			s.Count = 1 + r.IntN(2)
		}
		s.Stock = []string{"", "", "kraft"}[r.IntN(3)]
		t.Sheets = append(t.Sheets, s)
	}
	if r.IntN(6) == 0 { // sides with odd fractions: their unit is a nanometre
		t.Sheets[0].W, t.Sheets[0].H = t.Sheets[0].W*10/3+1, t.Sheets[0].H*10/7
		t.Sheets[0].Margin = 0
	}
	if r.IntN(3) == 0 {
		t.Longest = mm * Length(80+r.IntN(140))
	}
	for i := range 1 + r.IntN(7) {
		p := Piece{Piece: layout.Piece{Name: string(rune('a' + i)), W: mm * Length(8+r.IntN(120)), H: mm * Length(8+r.IntN(120)),
			Count: 1 + r.IntN(5), Upright: r.IntN(4) == 0, Stock: []string{"", "kraft"}[r.IntN(2)]}}
		if p.Across = !p.Upright && r.IntN(5) == 0; r.IntN(4) == 0 {
			p.Stocks = []string{"", "kraft"}
		}
		if r.IntN(12) == 0 {
			p.At, p.Across = &layout.Spot{X: mm * Length(r.IntN(30)), Y: mm * Length(r.IntN(30))}, false
		}
		t.Pieces = append(t.Pieces, p)
	}
	for i := range 2 * r.IntN(2) * r.IntN(2) { // a run of three
		p := Piece{Piece: layout.Piece{Name: string(rune('p' + i)), W: mm * Length(8+r.IntN(40)), H: mm * Length(8+r.IntN(60)),
			Count: 2, Stock: "kraft"}, Run: "front"}
		q := p
		q.Name = string(rune('x' + i))
		t.Pieces = append(t.Pieces, p, q)
	}
	return t
}

// holds checks a result against its task, and counts what lies where.
func holds(t *testing.T, task Task, r Result) {
	t.Helper()
	laid := make([]int, len(task.Pieces))
	opened := map[string]int{}
	cost := int64(0)
	for _, s := range r.Sheets {
		if err := s.Check(task.Longest); err != nil {
			t.Fatalf("%v\n%+v\n%+v", err, s, task)
		}
		opened[s.Title]++
		in := task.Sheets[s.Title[0]-'A']
		if !in.Offcut {
			cost += map[Aim]int64{Sheets: 1, Cost: in.Price}[task.Aim]
		}
		if n := opened[s.Title]; in.Count != Unlimited && n > in.Count {
			t.Fatalf("%d of %d sheets of %s are cut", n, in.Count, s.Title)
		}
		for _, p := range s.Placed {
			laid[p.Of]++
			of, x := task.Pieces[p.Of], p.Rect
			if !of.On(in.Stock) || of.Upright && p.Turned || of.Across && !p.Turned || of.At != nil && !p.Pinned {
				t.Fatalf("%+v lies as %+v on %+v", of, p, in)
			}
			if x.X < in.Margin || x.Y < in.Margin || x.X+x.W > in.W-in.Margin || x.Y+x.H > in.H-in.Margin {
				t.Fatalf("%+v lies in the margin of %+v", p, in)
			}
			if w, h := x.W, x.H; p.Turned && (w != of.H || h != of.W) || !p.Turned && (w != of.W || h != of.H) {
				t.Fatalf("%+v lies as %+v", of, p)
			}
		}
	}
	inOrder(t, task, r)
	left := map[string]int{}
	for _, p := range append(r.TooBig, r.Short...) {
		left[p.Name] = p.Count
	}
	for i, p := range task.Pieces {
		if laid[i]+left[p.Name] != p.Count {
			t.Fatalf("%d of %d %s are laid, %d told as left\n%+v", laid[i], p.Count, p.Name, left[p.Name], task)
		}
	}
	if r.Least < r.Bound && len(r.Short) == 0 || r.Proved != (len(r.Short) == 0 && r.Least == r.Bound) || r.Count < r.Layout.Bound &&
		len(r.Short) == 0 || task.Aim != Card && r.Least != cost {
		t.Fatalf("costs %d (%d), at least %d, %d sheets of %d; proved: %v\n%+v", r.Least, cost, r.Bound, r.Count, r.Layout.Bound,
			r.Proved, task)
	}
}

// inOrder looks whether pieces of a run lie beside each other in their order.
func inOrder(t *testing.T, task Task, r Result) {
	t.Helper()
	for _, s := range r.Sheets {
		for i, p := range s.Placed {
			if i == 0 || task.Pieces[p.Of].Run == "" || s.Placed[i-1].Of != p.Of-1 || task.Pieces[p.Of-1].Run == "" {
				continue
			}
			a, b := s.Placed[i-1].Rect, p.Rect
			if right := b.X == a.X+a.W && b.Y == a.Y; p.Turned == right && (b.Y != a.Y+a.H || b.X != a.X) {
				t.Fatalf("%+v and %+v are out of order", a, b)
			}
		}
	}
}

func TestSolveHolds(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	short, proved := 0, 0
	for i := range 400 {
		task := chance(r)
		got, err := Solve(task, nil)
		if err != nil {
			if !strings.Contains(err.Error(), "trimmer") {
				t.Fatal(err, task)
			}
			continue
		}
		holds(t, task, got)
		again, _ := Solve(task, nil)
		if again.Least != got.Least || len(again.Sheets) != len(got.Sheets) || again.Settings() != got.Settings() {
			t.Fatalf("the same task has two answers: %+v", task)
		}
		// No bound is above what more work, or other luck, finds.
		if more := task; i%10 == 0 {
			more.Work, more.Seed = 200_000, task.Seed+1
			if better, err := Solve(more, nil); err == nil && len(better.Short) == 0 && (better.Least < got.Bound ||
				got.Proved && better.Least < got.Least) {
				t.Fatalf("%d is found, bound %d (proved: %v): %+v", better.Least, got.Bound, got.Proved, task)
			}
		}
		if len(got.Short) > 0 {
			short++
		}
		if got.Proved {
			proved++
		}
	}
	if short < 20 || proved < 120 {
		t.Errorf("%d are short of sheets, %d are proved", short, proved)
	}
}

// brute is the least cost by looking at every way to cut: a part of the pieces lies in
// a rectangle when it is one piece, or when a cut parts both.
type brute struct {
	pieces [][2]int
	turn   []bool
	sizes  [][3]int // width, height, price
	known  map[[3]int]bool
}

func (b *brute) lies(set, w, h int) bool {
	if set == 0 {
		return true
	}
	key := [3]int{set, w, h}
	if v, ok := b.known[key]; ok {
		return v
	}
	got := false
	if set&(set-1) == 0 {
		for i, p := range b.pieces {
			got = got || set == 1<<i && (p[0] <= w && p[1] <= h || b.turn[i] && p[1] <= w && p[0] <= h)
		}
	} else {
		for part := (set - 1) & set; part > 0 && !got; part = (part - 1) & set {
			for at := 1; at < w && !got; at++ {
				got = b.lies(part, at, h) && b.lies(set&^part, w-at, h)
			}
			for at := 1; at < h && !got; at++ {
				got = b.lies(part, w, at) && b.lies(set&^part, w, h-at)
			}
		}
	}
	b.known[key] = got
	return got
}

func (b *brute) least(set int) int {
	if set == 0 {
		return 0
	}
	best := 1 << 30
	for part := set; part > 0; part = (part - 1) & set {
		if part&(set&-set) == 0 {
			continue
		}
		for _, s := range b.sizes {
			if b.lies(part, s[0], s[1]) {
				best = min(best, s[2]+b.least(set&^part))
			}
		}
	}
	return best
}

// few makes a small task, with the search that looks at everything.
func few(r *rand.Rand, n int) (Task, *brute) {
	b := &brute{known: map[[3]int]bool{}}
	task := Task{Work: Hasty, Aim: Cost}
	w, h := 0, 0
	for range 1 + r.IntN(2) {
		s := [3]int{5 + r.IntN(6), 5 + r.IntN(6), 1 + r.IntN(9)}
		b.sizes = append(b.sizes, s)
		task.Sheets = append(task.Sheets, Size{Name: string(rune('A' + len(task.Sheets))), W: mm * Length(s[0]), H: mm * Length(s[1]),
			Count: Unlimited, Price: int64(s[2])})
	}
	w, h = b.sizes[0][0], b.sizes[0][1]
	for i := range n {
		p := [2]int{1 + r.IntN(w), 1 + r.IntN(h)}
		turn := r.IntN(3) > 0
		b.pieces, b.turn = append(b.pieces, p), append(b.turn, turn)
		task.Pieces = append(task.Pieces, Piece{Piece: layout.Piece{Name: string(rune('a' + i)), W: mm * Length(p[0]),
			H: mm * Length(p[1]), Count: 1, Upright: !turn}})
	}
	return task, b
}

// Of few pieces the answer is the least there is, and said to be proved; and no bound is
// above it, whichever way it was found.
func TestLeastOfFew(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	for i := range 200 {
		n := 2 + r.IntN(5)
		if i%25 == 0 {
			n = 8
		}
		task, b := few(r, n)
		got, err := Solve(task, nil)
		if err != nil {
			t.Fatal(err)
		}
		holds(t, task, got)
		want := int64(b.least(1<<n - 1))
		if got.Least != want || !got.Proved {
			t.Fatalf("it costs %d (proved: %v), least %d: %+v", got.Least, got.Proved, want, task)
		}
		p := task.problem()
		g := p.programme()
		if low := p.below(); low > want || g == nil || g.bound > want {
			t.Fatalf("bounds %d and %d, least %d: %+v", low, g.bound, want, task)
		}
	}
}

// Of batches, patterns find what is proved nearly always; the same pieces many times over
// take no more than as often the sheets of one.
func TestBatches(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	proved, all := 0, 60
	for range all {
		one := Task{Sheets: []Size{{Name: "A", W: 305 * mm, H: 305 * mm, Count: Unlimited}}, Work: Quick / 2}
		for i := range 1 + r.IntN(4) {
			one.Pieces = append(one.Pieces, Piece{Piece: layout.Piece{Name: string(rune('a' + i)), W: mm * Length(40+r.IntN(230)),
				H: mm * Length(30+r.IntN(180)), Count: 1 + r.IntN(2), Upright: r.IntN(5) == 0}})
		}
		many := one
		many.Pieces = nil
		for _, p := range one.Pieces {
			p.Count *= 24
			many.Pieces = append(many.Pieces, p)
		}
		got, err := Solve(many, nil)
		if err != nil {
			t.Fatal(err)
		}
		holds(t, many, got)
		if single, _ := Solve(one, nil); got.Count > 24*single.Count {
			t.Fatalf("%d sheets for 24 times %d: %+v", got.Count, single.Count, one)
		}
		if got.Proved {
			proved++
		}
	}
	if proved < all*9/10 {
		t.Errorf("only %d of %d are proved", proved, all)
	}
}
