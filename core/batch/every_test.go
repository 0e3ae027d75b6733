package batch

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"brevium/core/brief"
	"brevium/core/request"
	"brevium/core/schedule"
	"brevium/internal/tried"
)

// some makes small work for the days of a calendar that begins at any minute of a day, near one on which clocks leap.
func some(r *rand.Rand, zone *time.Location) (schedule.Problem, string) {
	now := time.Date(2027, time.March, 24+r.IntN(6), r.IntN(24), r.IntN(60), 0, 0, zone)
	d := Document{Orders: orders(1, "2027-12-01"), Hours: map[string]brief.Text{}}
	for i := range 9 {
		if r.IntN(2) == 0 {
			day := DayOf(now).Plus(i).String()
			d.Hours[day] = brief.Text([]string{"1", "30 min", "19:00-20:10", "1:00-4:00", "23:10-24:00", "none"}[r.IntN(6)])
		}
	}
	d.Hours["2027-12-31"] = "1"
	b := Read(d, Now(now), request.Default)
	p := schedule.Problem{Hands: 1 + r.IntN(3)*r.IntN(2), Setup: []int{r.IntN(9), r.IntN(9), r.IntN(9), r.IntN(9)}}
	for i := range 10 {
		p.Days = append(p.Days, workable(b.Calendar.Of(b.From.Plus(i)).Minutes))
	}
	for range 1 + r.IntN(3) {
		o := schedule.Order{By: r.IntN(9)}
		for stage := range 3 {
			if r.IntN(4) > 0 {
				o.Work = append(o.Work, schedule.Work{Stage: stage, Minutes: 1 + r.IntN(50), Wait: r.IntN(2) * r.IntN(60)})
			}
		}
		if r.IntN(2) == 0 {
			o.Last = &schedule.Work{Stage: 3, Minutes: 1 + r.IntN(30)}
		}
		p.Orders = append(p.Orders, o)
	}
	return p, fmt.Sprint(now, d.Hours)
}

// works lists an order's works, what is done last among them.
func works(o schedule.Order) []schedule.Work {
	if o.Last == nil {
		return o.Work
	}
	return append(slices.Clone(o.Work), *o.Last)
}

// lateness does a course, one work after the other, and counts the minutes that are done after their dates.
func lateness(p schedule.Problem, course []int) (late int) {
	day, at, stage := 0, 0, -1
	step, begins := make([]int, len(p.Orders)), make([][2]int, len(p.Orders))
	next := func() { day, at, stage = day+1, 0, -1 }
	for _, i := range course {
		w := works(p.Orders[i])[step[i]]
		for rest := (w.Minutes + p.Hands - 1) / p.Hands; rest > 0; {
			if day >= len(p.Days) {
				late += rest
				break
			}
			set := p.Setup[w.Stage]
			if stage == w.Stage {
				set = 0
			}
			from := at + set
			if b := begins[i]; b[0] > day {
				next()
				continue
			} else if b[0] == day {
				from = max(from, b[1])
			}
			if from >= p.Days[day] {
				next()
				continue
			}
			done := min(rest, p.Days[day]-from)
			if rest, at, stage = rest-done, from+done, w.Stage; day > p.Orders[i].By {
				late += done
			}
		}
		step[i]++
		begins[i] = [2]int{day, at + w.Wait}
	}
	return late
}

// leastLate is how little is late in the best of all courses.
func leastLate(p schedule.Problem) int {
	best, course, step := -1, []int(nil), make([]int, len(p.Orders))
	var try func()
	try = func() {
		done := true
		for i, o := range p.Orders {
			if step[i] < len(works(o)) && best != 0 {
				done = false
				step[i]++
				course = append(course, i)
				try()
				course = course[:len(course)-1]
				step[i]--
			}
		}
		if late := 0; done && best != 0 {
			if late = lateness(p, course); best < 0 || late < best {
				best = late
			}
		}
	}
	try()
	return max(0, best)
}

// sound says what is wrong with a course that is told: more in a day than there is, work out of its turn, not waited for, or
// not done.
func sound(p schedule.Problem, got schedule.Result) error {
	used, done := make([]int, len(p.Days)), make([]int, len(p.Orders))
	step, begins := make([]int, len(p.Orders)), make([][2]int, len(p.Orders))
	for _, c := range got.Chunks {
		all := works(p.Orders[c.Order])
		from := c.At + c.Setup
		if c.At < used[c.Day] || from+c.Minutes > p.Days[c.Day] || step[c.Order] == len(all) || all[step[c.Order]].Stage != c.Stage {
			return fmt.Errorf("%+v comes out of turn, or where there is no time", c)
		}
		w := all[step[c.Order]]
		if b := begins[c.Order]; b[0] > c.Day || b[0] == c.Day && b[1] > from {
			return fmt.Errorf("%+v does not wait till %v", c, b)
		}
		used[c.Day] = from + c.Minutes
		if done[c.Order] += c.Minutes; done[c.Order] == (w.Minutes+p.Hands-1)/p.Hands {
			step[c.Order], done[c.Order], begins[c.Order] = step[c.Order]+1, 0, [2]int{c.Day, used[c.Day] + w.Wait}
		}
	}
	for i, o := range p.Orders {
		if got.Left == 0 && step[i] < len(works(o)) {
			return fmt.Errorf("order %d is not done: %+v", i, got.Chunks)
		}
	}
	return nil
}

// Against every course that small batches have, with food, drying, several hands, days without hours, a day on which clocks
// leap, and begun at any minute: nothing is said to be ready that is not, nor late that need not be; what is said to be exact
// is; and the last day to start is the last.
func TestAgainstEveryCourse(t *testing.T) {
	zone, err := time.LoadLocation("Europe/Vienna")
	if err != nil {
		t.Skip(err)
	}
	r := rand.New(rand.NewPCG(28, 2))
	fits, withFood, exact := 0, 0, 0
	many := 250
	if *tried.Long {
		many = 1000
	}
	for n := range many {
		p, what := some(r, zone)
		want, got := leastLate(p), schedule.Solve(p)
		if err := sound(p, got); err != nil {
			t.Fatalf("%d: %v: %+v %s", n, err, p, what)
		}
		// What is filled last may be interrupted, which none of every course is.
		food := slices.ContainsFunc(p.Orders, func(o schedule.Order) bool { return o.Last != nil })
		if got.Late > 0 && want == 0 || got.Late < want && !food || got.Exact && got.Late > want || got.Least > got.Late {
			t.Fatalf("%d: %d late, at least %d; %d can be (exact %v): %+v %s", n, got.Late, got.Least, want, got.Exact, p, what)
		}
		if got.Exact {
			exact++
		}
		for _, c := range got.Chunks {
			if want == 0 && c.Day > p.Orders[c.Order].By {
				t.Fatalf("%d: nothing is late, and %+v is: %+v", n, c, p)
			}
		}
		if got.Late > 0 {
			continue
		}
		if fits++; food {
			withFood++
		}
		for day := got.Start; day < len(p.Days); day++ {
			later := p
			later.Days = slices.Clone(p.Days)
			clear(later.Days[:day])
			late := leastLate(later)
			if again := schedule.Solve(later).Late; p.Days[day] > 0 && (day > got.Start && late == 0 || day == got.Start && again > 0) {
				t.Fatalf("%d: start by %d, but begun on %d it is %d late, or %d: %+v", n, got.Start, day, late, again, p)
			}
		}
	}
	t.Logf("of %d batches %d fit, %d of them with food; %d are exact", many, fits, withFood, exact)
	if fits < many/5 || withFood < many/12 || exact < many/2 {
		t.Error("too few of a kind")
	}
}
