package batch

import (
	"fmt"
	"slices"

	"brevium/core/bench"
	"brevium/core/schedule"
)

// Hands rest: after so many minutes of work, so many of rest, if more work follows.
const (
	WorkAtOnce = 45
	RestFor    = 5
)

// workable is how many minutes one works of so many that one has.
func workable(minutes int) int {
	whole := minutes / (WorkAtOnce + RestFor)
	return whole*WorkAtOnce + min(WorkAtOnce, minutes%(WorkAtOnce+RestFor))
}

// onClock is when the minute of work comes, rests counted, if work goes on there.
func onClock(m int) int { return m + m/WorkAtOnce*RestFor }

// untilClock is when so many minutes of work are over.
func untilClock(m int) int { return m + max(0, m-1)/WorkAtOnce*RestFor }

// Entry is work on one stage of one order within a sitting.
type Entry struct {
	At       int // minutes from the beginning of the sitting, rests counted
	Order    *Ordered
	Stage    string
	Minutes  int
	Setup    int // minutes before it
	Idle     int // minutes before it that are only waited
	From, To int // which of the copies, about, from 0
	Last     bool
	Titles   []string // the stages that are done with it: with the filling of food what comes after it
}

// More is how many copies are done with it, about.
func (e Entry) More() int { return max(1, e.To-e.From) }

// Sitting is the work of a day.
type Sitting struct {
	Day     Day
	Begins  int // minutes after midnight
	Has     int // minutes that there are
	Minutes int // that it takes, with setups, rests and idle ones
	Rests   int
	Entries []Entry
	now     Moment
}

// Clock is what clocks say so many minutes after its beginning, in minutes after midnight.
func (s Sitting) Clock(after int) int { return s.now.clock(s.Day, s.Begins, after) }

// Wait is a time in which something is left alone.
type Wait struct {
	Order   *Ordered
	Stage   string // after which
	Minutes int
	Day     Day
	At      int      // from the beginning of that sitting
	Filled  []string // the stages that are worked on meanwhile; none in which one only waits
	Over    bool     // it is over before the next sitting
}

// Shared is the work shared out.
type Shared struct {
	Sittings []Sitting
	Waits    []Wait
	Fits     bool
	Late     int // minutes of work after their dates
	Left     int // minutes that find no day at all
	Minutes  int // of work that is to be done
	Start    *Day
	Ready    map[string]Day // when each order is done
	Unmade   map[string]int // minutes of an order that find no day: it is late, and nobody knows by how much
	Exact    bool
	Gap      int // minutes that another course might end earlier by
	Spared   int // minutes of only waiting that are let go by working on in a later sitting
	Saved    int // minutes that the simple order would end later
}

// beyond is how many days after the last date are looked at, to say when it would be ready.
const beyond = 120

// table is a batch made ready for sharing out.
type table struct {
	*Batch
	first Day
	on    []*Ordered
	p     schedule.Problem
	last  map[string][]string // of each order the stages that are done last
}

// table lists what is to be done yet, day by day.
func (b *Batch) table(pace bench.Pace) *table {
	t := &table{Batch: b, first: b.From, last: map[string][]string{}}
	t.p.Hands = b.Hands
	for _, title := range Stages {
		t.p.Setup = append(t.p.Setup, bench.Setup(title))
	}
	last := 0
	for _, o := range b.Orders {
		if o.Made == nil || !o.Made.OK() || !o.OnTable() {
			continue
		}
		if so := t.order(o, pace); len(so.Work) > 0 || so.Last != nil {
			t.on, t.p.Orders = append(t.on, o), append(t.p.Orders, so)
			last = max(last, so.By)
		}
	}
	t.p.Days = t.days(b.Calendar, max(0, last)+beyond)
	return t
}

// order is what is left of an order; the filling of what is food comes last of all.
func (t *table) order(o *Ordered, pace bench.Pace) schedule.Order {
	so := schedule.Order{By: o.Due.Since(t.first)}
	fill := slices.Index(Stages, "Fill")
	for _, st := range o.Made.Stages {
		m := t.Left(o, st, pace)
		n := slices.Index(Stages, st.Title)
		if m == 0 {
			continue
		}
		if o.Made.Food && n >= fill {
			if so.Last == nil {
				so.Last = &schedule.Work{Stage: n}
				t.last[o.ID] = nil
			}
			so.Last.Minutes += m
			t.last[o.ID] = append(t.last[o.ID], st.Title)
			continue
		}
		so.Work = append(so.Work, schedule.Work{Stage: n, Minutes: m, Wait: st.Wait})
	}
	return so
}

// Share shares out what is not done yet over the days from when work can begin.
func (b *Batch) Share(pace bench.Pace) Shared { return b.ShareBy(pace, schedule.Solve) }

// ShareBy is Share by one who may know the answer to a problem already.
func (b *Batch) ShareBy(pace bench.Pace, solve func(schedule.Problem) schedule.Result) Shared {
	t := b.table(pace)
	res := solve(t.p)
	out := t.told(res)
	out.Saved = max(0, schedule.Simple(t.p).End-res.End)
	return out
}

// told tells a result in days, orders and stages.
func (t *table) told(res schedule.Result) Shared {
	out := Shared{Fits: res.Late == 0, Late: res.Late, Left: res.Left, Exact: res.Exact, Gap: res.Gap(),
		Spared: res.Spared, Ready: map[string]Day{}, Unmade: map[string]int{}}
	if len(t.on) > 0 && res.Start >= 0 {
		start := t.first.Plus(res.Start)
		out.Start = &start
	}
	for _, so := range t.p.Orders {
		for _, w := range so.Work {
			out.Minutes += w.Minutes
		}
		if so.Last != nil {
			out.Minutes += so.Last.Minutes
		}
	}
	gone := map[[2]int]int{}
	for _, c := range res.Chunks {
		day := t.first.Plus(c.Day)
		if n := len(out.Sittings); n == 0 || out.Sittings[n-1].Day != day {
			has := t.Calendar.Of(day)
			out.Sittings = append(out.Sittings, Sitting{Day: day, Begins: has.From, Has: has.Minutes, now: t.Now})
		}
		s := &out.Sittings[len(out.Sittings)-1]
		s.Entries = append(s.Entries, t.entry(c, gone))
		end := c.At + c.Setup + c.Minutes
		s.Minutes = untilClock(end)
		s.Rests = s.Minutes - end
		out.Ready[t.on[c.Order].ID] = day
	}
	for i, minutes := range t.unmade(res) {
		if minutes > 0 {
			out.Unmade[t.on[i].ID] = minutes
			delete(out.Ready, t.on[i].ID)
		}
	}
	t.pullForward(&out)
	out.Waits = t.waits(res)
	return out
}

// unmade is how many minutes of each order find no day.
func (t *table) unmade(res schedule.Result) []int {
	out := make([]int, len(t.p.Orders))
	for i, o := range t.p.Orders {
		for _, w := range o.Work {
			out[i] += t.clock(w.Minutes)
		}
		if o.Last != nil {
			out[i] += t.clock(o.Last.Minutes)
		}
	}
	for _, c := range res.Chunks {
		out[c.Order] -= c.Minutes
	}
	return out
}

// entry tells a chunk, with which of the copies it is about.
func (t *table) entry(c schedule.Chunk, gone map[[2]int]int) Entry {
	o := t.on[c.Order]
	e := Entry{At: onClock(c.At), Order: o, Stage: Stages[c.Stage], Minutes: c.Minutes, Setup: c.Setup, Idle: c.Idle,
		Last: c.Last}
	all := 0
	for _, w := range t.p.Orders[c.Order].Work {
		if w.Stage == c.Stage {
			all = t.clock(w.Minutes)
		}
	}
	e.Titles = []string{e.Stage}
	if last := t.p.Orders[c.Order].Last; last != nil && last.Stage == c.Stage {
		all, e.Titles = t.clock(last.Minutes), t.last[o.ID]
	}
	key := [2]int{c.Order, c.Stage}
	from := gone[key]
	gone[key] += c.Minutes
	if base := min(o.Copy, t.Doc.Done.Of(o.ID, e.Stage)); all > 0 {
		e.From, e.To = base+from*(o.Copy-base)/all, base+gone[key]*(o.Copy-base)/all
	}
	return e
}

func (t *table) clock(minutes int) int { return (minutes + t.Hands - 1) / t.Hands }

// pullForward lets what is done last in a day follow on what comes before it there: it was put
// at the end of the day to keep that free.
func (t *table) pullForward(out *Shared) {
	for i := range out.Sittings {
		s := &out.Sittings[i]
		at := 0
		for k := range s.Entries {
			e := &s.Entries[k]
			if e.Last && onClock(at) < e.At && t.dry(s, k, onClock(at)+e.Setup) {
				e.At = onClock(at)
			} else {
				at = workOf(e.At)
			}
			at += e.Setup + e.Minutes
		}
		s.Minutes = untilClock(at)
		s.Rests = s.Minutes - at
	}
}

// workOf is the minute of work that comes at a time of the clock.
func workOf(clock int) int { return clock - clock/(WorkAtOnce+RestFor)*RestFor }

// dry reports whether what an entry waits for in its own sitting is over by then.
func (t *table) dry(s *Sitting, k, at int) bool {
	for _, e := range s.Entries[:k] {
		if e.Order != s.Entries[k].Order {
			continue
		}
		for _, st := range e.Order.Made.Stages {
			if st.Title == e.Stage && untilClock(workOf(e.At)+e.Setup+e.Minutes)+st.Wait > at {
				return false
			}
		}
	}
	return true
}

// waits tells what is left alone after which work, and what is done meanwhile.
func (t *table) waits(res schedule.Result) (out []Wait) {
	for i, c := range res.Chunks {
		wait := 0
		ended := true
		for _, w := range t.p.Orders[c.Order].Work {
			if w.Stage == c.Stage && !c.Last {
				wait = w.Wait
			}
		}
		for _, d := range res.Chunks[i+1:] {
			if d.Order == c.Order && d.Stage == c.Stage {
				ended = false
			}
		}
		if wait == 0 || !ended {
			continue
		}
		end := c.At + c.Setup + c.Minutes
		w := Wait{Order: t.on[c.Order], Stage: Stages[c.Stage], Minutes: wait, Day: t.first.Plus(c.Day), At: untilClock(end),
			Over: true}
		for _, d := range res.Chunks[i+1:] {
			if d.Day != c.Day || d.At-d.Idle >= end+wait {
				break
			}
			if d.Order == c.Order {
				w.Over = false
				break
			}
			if title := Stages[d.Stage]; !slices.Contains(w.Filled, title) {
				w.Filled = append(w.Filled, title)
			}
		}
		out = append(out, w)
	}
	return out
}

// Says tells an entry: the stage, for whom, and which of the copies where it is not all.
func (e Entry) Says() string {
	if e.To-e.From >= e.Order.Copy {
		return fmt.Sprintf("%s × %d", e.Order.Called(), e.Order.Copy)
	}
	return fmt.Sprintf("%s, about %d of %d", e.Order.Called(), max(1, e.To-e.From), e.Order.Copy)
}

// Blades is how many fresh blades so many cuts want.
func (s Sheets) Blades() int {
	cuts := 0
	for _, set := range s.Settings {
		cuts += set.All
	}
	return (cuts + cutsABlade - 1) / cutsABlade
}

// cutsABlade is how many cuts a blade of a trimmer makes cleanly in card.
const cutsABlade = 250
