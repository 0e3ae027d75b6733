package schedule

import (
	"fmt"
	"math/rand/v2"
	"reflect"
	"slices"
	"testing"
)

// chance makes a small problem: few orders of few stages over few days.
func chance(r *rand.Rand, orders, stages int) Problem {
	p := Problem{Hands: 1 + r.IntN(2)*r.IntN(2)}
	for range stages + 1 {
		p.Setup = append(p.Setup, r.IntN(12))
	}
	for range orders {
		o := Order{By: r.IntN(9)}
		for s := range stages {
			if r.IntN(4) > 0 {
				o.Work = append(o.Work, Work{Stage: s, Minutes: 1 + r.IntN(60), Wait: r.IntN(2) * r.IntN(70)})
			}
		}
		if r.IntN(3) == 0 {
			o.Last = &Work{Stage: stages, Minutes: 1 + r.IntN(30)}
		}
		p.Orders = append(p.Orders, o)
	}
	for range 12 {
		p.Days = append(p.Days, r.IntN(2)*(10+r.IntN(110)))
	}
	return p
}

// every course of the work there is: each order's stages in their turn, mixed in all ways.
func every(p Problem, do func([]item)) {
	at := make([]int, len(p.Orders))
	var course []item
	var step func()
	step = func() {
		done := true
		for i, o := range p.Orders {
			if at[i] == len(o.Work) {
				continue
			}
			done = false
			course = append(course, item{order: i, n: at[i]})
			at[i]++
			step()
			at[i]--
			course = course[:len(course)-1]
		}
		if done {
			do(course)
		}
	}
	step()
}

// Against every course that small problems have: the best there is is found, the bounds bound,
// and no gap is larger than it is said to be.
func TestAgainstEvery(t *testing.T) {
	r := rand.New(rand.NewPCG(14, 1))
	same := 0
	const tries = 160
	for n := range tries {
		shape := [][2]int{{1, 3}, {2, 4}, {3, 3}, {5, 1}, {4, 2}}[r.IntN(5)]
		p := chance(r, shape[0], shape[1])
		run, l := p.ready()
		best := run.simple(l)
		every(p, func(c []item) {
			if got := run.follow(slices.Clone(c), l); better(got, best) {
				best = got
			}
		})
		got := run.best(l)
		if better(got, best) {
			t.Fatalf("%d: %d late, ended at %d beats every course: %+v", n, got.Late, got.End, p)
		}
		if got.Least > best.Late || best.Late == 0 && got.Bound > best.End {
			t.Fatalf("%d: bound %d late, ended at %d, but %d, %d can be: %+v", n, got.Least, got.Bound, best.Late, best.End, p)
		}
		if !got.Exact || got.Late != best.Late || got.End != best.End {
			t.Fatalf("%d: %d late, ended at %d; %d, %d can be: %+v", n, got.Late, got.End, best.Late, best.End, p)
		}
		// As it is looked for when there are many orders.
		run.few = 0
		many := run.best(l)
		if best.Late == 0 && many.Late == 0 && many.End-best.End > many.Gap() {
			t.Fatalf("%d: gap %d, but it could end %d earlier: %+v", n, many.Gap(), many.End-best.End, p)
		}
		if many.Late == best.Late && many.End == best.End {
			same++
		}
	}
	if same < tries*8/10 {
		t.Errorf("of %d problems looked through by dates only %d came out best", tries, same)
	}
	t.Logf("by dates %d of %d came out best", same, tries)
}

// twenty orders of fifteen boxes each, of ten kinds, that many days apart: two hours on week days, more at the weekend.
func twenty(apart int) Problem {
	p := Problem{Setup: []int{5, 2, 3, 3, 2, 1, 1, 3, 3, 5, 1, 2}}
	for day := range 330 {
		p.Days = append(p.Days, []int{110, 110, 110, 325, 220, 110, 110}[day%7])
	}
	minutes := [][]int{
		{25, 0, 0, 30, 36, 60, 18, 15, 0, 54, 54, 12}, {23, 0, 0, 30, 36, 30, 18, 15, 0, 54, 50, 12},
		{57, 0, 0, 30, 51, 60, 18, 15, 3, 54, 54, 12}, {15, 0, 0, 15, 18, 30, 9, 8, 0, 54, 0, 8},
		{38, 12, 0, 45, 55, 30, 27, 15, 3, 54, 54, 12}, {53, 0, 6, 38, 36, 60, 23, 15, 6, 54, 54, 23},
		{30, 0, 0, 30, 22, 38, 18, 15, 0, 54, 15, 12}, {15, 0, 0, 30, 54, 38, 18, 8, 0, 24, 0, 16},
		{15, 9, 0, 30, 60, 30, 18, 8, 0, 83, 0, 12}, {44, 0, 4, 30, 40, 45, 12, 11, 0, 40, 30, 10},
	}
	for i := range 20 {
		o := Order{By: 30 + apart*i}
		for stage, m := range minutes[i%10] {
			if m > 0 {
				o.Work = append(o.Work, Work{Stage: stage, Minutes: m})
			}
		}
		p.Orders = append(p.Orders, o)
	}
	return p
}

// Of twenty orders it is known within the hour how much earlier they might be done.
func TestTwenty(t *testing.T) {
	for _, apart := range []int{1, 3, 5, 8} {
		if got := Solve(twenty(apart)); got.Late > 0 || got.Gap() >= 60 {
			t.Errorf("%d days apart: %d late, ended at %d of which %d may be too much", apart, got.Late, got.End, got.Gap())
		} else {
			t.Logf("%d days apart: ended at %d, bound %d", apart, got.End, got.Bound)
		}
	}
}

// sound says what is wrong with a result: work lost, out of turn, before its wait is over, or
// beyond a day's minutes.
func sound(p Problem, got Result) error {
	done := map[[2]int]int{}
	used := make([]int, len(p.Days))
	end := make([]moment, len(p.Orders))
	next := make([]int, len(p.Orders))
	late, spent := 0, 0
	var now moment
	for _, c := range got.Chunks {
		begin := moment{c.Day, c.At}
		if c.Setup+c.Minutes <= 0 || begin.compare(now) < 0 {
			return fmt.Errorf("%+v begins before %v", c, now)
		}
		now = moment{c.Day, c.At + c.Setup + c.Minutes}
		if used[c.Day] = now.at; used[c.Day] > p.Days[c.Day] {
			return fmt.Errorf("day %d has %d minutes and is used %d", c.Day, p.Days[c.Day], used[c.Day])
		}
		o, of := p.Orders[c.Order], c.Stage
		done[[2]int{c.Order, of}] += c.Minutes
		if c.Day > o.By {
			late += c.Minutes
		}
		spent += c.Setup + c.Minutes + c.Idle
		if c.Last {
			// What is filled waits for all that comes before it.
			if end[c.Order].compare(moment{c.Day, c.At + c.Setup}) > 0 || next[c.Order] < len(o.Work) {
				return fmt.Errorf("%+v is filled before it is made", c)
			}
			continue
		}
		n := next[c.Order]
		if n == len(o.Work) { // it follows the rest, which is late
			o.Work = append(slices.Clone(o.Work), *o.Last)
		}
		w := o.Work[n]
		if w.Stage != of {
			return fmt.Errorf("%+v comes before stage %d", c, w.Stage)
		}
		work := moment{c.Day, c.At + c.Setup}
		if done[[2]int{c.Order, of}] == c.Minutes && end[c.Order].compare(work) > 0 {
			return fmt.Errorf("%+v does not wait till %v", c, end[c.Order])
		}
		if done[[2]int{c.Order, of}] == p.clock(w.Minutes) {
			next[c.Order], end[c.Order] = n+1, moment{now.day, now.at + w.Wait}
		}
	}
	left := 0
	for i, o := range p.Orders {
		for _, w := range o.Work {
			left += p.clock(w.Minutes) - done[[2]int{i, w.Stage}]
		}
		if o.Last != nil {
			left += p.clock(o.Last.Minutes) - done[[2]int{i, o.Last.Stage}]
		}
	}
	if left != got.Left || spent != got.Spent || late+left > got.Late {
		return fmt.Errorf("left %d, late %d, spent %d; said %d, %d, %d", left, late, spent, got.Left, got.Late, got.Spent)
	}
	return nil
}

func TestSound(t *testing.T) {
	r := rand.New(rand.NewPCG(14, 2))
	fits, starts := 0, 0
	for n := range 40 {
		p := chance(r, 1+r.IntN(9), 1+r.IntN(6))
		for i := range p.Orders { // some with time enough
			if n%2 == 0 {
				p.Orders[i].By += 5
			}
		}
		got := Solve(p)
		if err := sound(p, got); err != nil {
			t.Fatalf("%d: %v\n%+v\n%+v", n, err, p, got.Chunks)
		}
		if simple := Simple(p); better(simple, got) {
			t.Fatalf("%d: the simple order is better: %d, %d", n, simple.Late, simple.End)
		}
		if again := Solve(p); !reflect.DeepEqual(again.Chunks, got.Chunks) {
			t.Fatalf("%d: another result the second time", n)
		}
		if got.Late > 0 {
			continue
		}
		fits++
		late := p
		late.Days = slices.Clone(p.Days)
		for i := range got.Start {
			late.Days[i] = 0
		}
		if Solve(late).Late > 0 {
			t.Fatalf("%d: begun on day %d it is late", n, got.Start)
		}
		if got.Start > 0 {
			starts++
		}
	}
	if fits < 6 || starts < 2 {
		t.Errorf("only %d fit, %d may be begun later", fits, starts)
	}
}

// Worked by hand.
func TestWorked(t *testing.T) {
	day := func(n ...int) []int { return n }
	order := func(by int, minutes ...int) Order {
		o := Order{By: by}
		for s, m := range minutes {
			o.Work = append(o.Work, Work{Stage: s, Minutes: m})
		}
		return o
	}
	dries := order(3, 20, 10)
	dries.Work[0].Wait = 60
	food := order(3, 30)
	food.Last = &Work{Stage: 1, Minutes: 20}
	for _, c := range []struct {
		name              string
		p                 Problem
		late, left, spent int
		start             int
	}{
		{"nothing to do", Problem{Days: day(60)}, 0, 0, 0, 0},
		{"no days", Problem{Orders: []Order{order(2, 30)}}, 30, 30, 0, -1},
		{"alike are set up for once", Problem{Days: day(120), Setup: day(5, 7), Orders: []Order{order(0, 20, 20), order(0, 20,
			20)}}, 0, 0, 92, 0},
		{"one at a time where there is no time for both",
			Problem{Days: day(50, 50), Setup: day(5, 5), Orders: []Order{order(0, 20, 20), order(1, 20, 20)}}, 0, 0, 100, 0},
		{"two hands", Problem{Days: day(60), Hands: 2, Setup: day(5), Orders: []Order{order(0, 101)}}, 0, 0, 56, 0},
		{"a wait is idle in one sitting", Problem{Days: day(120), Orders: []Order{dries}}, 0, 0, 90, 0},
		{"nobody sits and waits when there is another day", Problem{Days: day(120, 60), Orders: []Order{dries}}, 0, 0, 30, 0},
		{"and over before the next", Problem{Days: day(20, 0, 30), Orders: []Order{dries}}, 0, 0, 30, 0},
		{"other work fills it", Problem{Days: day(120), Orders: []Order{dries, order(3, 60)}}, 0, 0, 90, 0},
		{"it may be begun later", Problem{Days: day(60, 60, 60, 60), Orders: []Order{order(3, 100)}}, 0, 0, 100, 2},
		{"food is filled last", Problem{Days: day(60, 60, 60, 60), Orders: []Order{food}}, 0, 0, 50, 3},
		{"setups alone are too much", Problem{Days: day(30), Setup: day(10, 10), Orders: []Order{order(0, 10, 10)}}, 10, 10,
			20, -1},
		{"a date that is past", Problem{Days: day(60), Orders: []Order{order(-1, 10)}}, 10, 0, 10, -1},
	} {
		got := Solve(c.p)
		if got.Late != c.late || got.Left != c.left || got.Spent != c.spent || got.Start != c.start || got.Least > got.Late {
			t.Errorf("%s: late %d left ended at %d %d start %d, want %d %d %d %d: %+v", c.name, got.Late, got.Left, got.Spent,
				got.Start,
				c.late, c.left, c.spent, c.start, got.Chunks)
		}
	}
	if got := Solve(Problem{Days: day(60, 60, 60, 60), Orders: []Order{food}}); got.Chunks[len(got.Chunks)-1].Day != 3 {
		t.Errorf("food is filled on day %d", got.Chunks[len(got.Chunks)-1].Day)
	}
}

func BenchmarkSolve(b *testing.B) {
	r := rand.New(rand.NewPCG(14, 3))
	p := Problem{Setup: []int{5, 5, 5, 5, 5, 5, 5, 5, 5}}
	for i := range 20 {
		o := Order{By: 7 + i*2}
		for s := range 8 {
			o.Work = append(o.Work, Work{Stage: s, Minutes: 5 + r.IntN(40)})
		}
		p.Orders = append(p.Orders, o)
	}
	for range 120 {
		p.Days = append(p.Days, 60+r.IntN(60))
	}
	for b.Loop() {
		Solve(p)
	}
}
