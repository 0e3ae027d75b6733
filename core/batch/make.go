package batch

import (
	"fmt"
	"math"
	"slices"
	"strconv"

	"brevium/core/advice"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/costs"
	"brevium/core/cutting"
	"brevium/core/layout"
	"brevium/core/least"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/core/shop"
)

// Stages are the titles of the work, in order, for every batch. A house that burnishes before it cuts
// changes the order within a box, not here.
var Stages = bench.Titles("")

// Made is a box as it is made for an order.
type Made struct {
	Job      sets.Job
	Problems []brief.Problem
	Food     bool
	Stages   []Stage // those that there are, in order
}

// Stage is the work of one kind on all copies.
type Stage struct {
	Title   string
	Minutes float64 // reckoned, at nobody's pace
	Wait    int     // minutes it must then be left alone
	steps   []bench.Step
}

// Plan plans a box for an order; it is what takes time, and the same for the same box.
func Plan(b brief.Brief, w request.Workshop) *Made {
	m := &Made{}
	if b.Several != nil {
		s := sets.Make(b, w)
		if !s.OK() {
			m.Problems = slices.Clone(s.Problems)
			for _, p := range s.Plans {
				m.Problems = append(m.Problems, p.Problems...)
			}
			return m
		}
		m.Job = s.Job()
	} else {
		p := advice.Make(b, w)
		if !p.OK() {
			m.Problems = p.Problems
			return m
		}
		m.Job = sets.JobOf(p)
	}
	for _, p := range m.Job.Plans {
		m.Food = m.Food || slices.ContainsFunc(p.Load.Things, func(t contents.Thing) bool { return t.Food })
	}
	m.stages()
	return m
}

// OK reports whether there is a plan.
func (m *Made) OK() bool { return len(m.Problems) == 0 }

// stages puts the steps of one title together. What only waits belongs to the stage before it.
func (m *Made) stages() {
	for _, title := range Stages {
		st := Stage{Title: title}
		wait := 0
		for _, s := range m.Job.Steps {
			if s.Title != title {
				continue
			}
			st.Minutes, st.steps = st.Minutes+s.Minutes, append(st.steps, s)
			for _, w := range s.Waits {
				wait = max(wait, w.Seconds/60)
			}
		}
		switch n := len(m.Stages); {
		case len(st.steps) == 0:
		case st.Minutes == 0 && n > 0: // it is left alone
			m.Stages[n-1].Wait = max(m.Stages[n-1].Wait, wait)
		default:
			if wait >= bench.DryMinutes { // what is only held is no pause of the day
				st.Wait = wait
			}
			m.Stages = append(m.Stages, st)
		}
	}
}

// At is the minutes of a stage at a maker's pace.
func (s Stage) At(pace bench.Pace) float64 { return pace.Minutes(s.steps) }

// Planner gives the plan of a box; it may know it already.
type Planner func(b brief.Brief) *Made

// Sheets is what all orders are cut from.
type Sheets struct {
	Cuts     []cutting.Cut
	Buys     []shop.Buy
	Cost     costs.Cost
	Bound    int // no arrangement takes fewer sheets
	Alone    int // sheets if each order were laid by itself
	Settings []Setting
	Uncut    []string // what no sheet holds
	Units    measure.Unit
	Left     []string // offcuts worth keeping, in words
}

// Count is how many sheets there are.
func (s Sheets) Count() (n int) {
	for _, c := range s.Cuts {
		n += len(c.Sheets)
	}
	return n
}

// Make plans every order and notes what is wrong with any.
func (b *Batch) Make(planner Planner) {
	for i, o := range b.Orders {
		if b.wrong(fmt.Sprintf("orders.%d.box", i)) || o.State == Handed {
			continue
		}
		o.Made = planner(o.Brief)
		if !o.Made.OK() {
			p := o.Made.Problems[0]
			b.problem(fmt.Sprintf("orders.%d.box", i), o.Called()+": "+p.Text, "Open the box and fix this: "+p.Fix)
			continue
		}
		if warn := o.Made.Job.Warning(); warn != "" {
			b.Warnings = append(b.Warnings, brief.Warning{Code: "unproved", Text: o.Called() + ": " + warn,
				Fix: "Open the box and look at its checks before you cut anything."})
		}
		if o.Words != "" && !slices.ContainsFunc(o.Brief.Dress.Toppers, func(t brief.Topper) bool { return t.Words == o.Words }) {
			b.Warnings = append(b.Warnings, brief.Warning{Code: "no-tag", Text: fmt.Sprintf("%s has no tag for the words “%s”.",
				o.Called(), o.Words), Fix: "They are printed on its label. To have them on the box, add a topper or a tag."})
		}
	}
}

// OK reports whether all of it can be planned.
func (b *Batch) OK() bool { return len(b.Problems) == 0 }

// Holds reports whether the proofs of all boxes hold.
func (b *Batch) Holds() bool {
	return b.OK() && !slices.ContainsFunc(b.Orders, func(o *Ordered) bool { return o.Made != nil && !o.Made.Job.Holds() })
}

// uncut are the orders whose sheets are still to be cut: none of one that has been trimmed.
func (b *Batch) uncut() (out []*Ordered) {
	for _, o := range b.Orders {
		if o.Made != nil && o.Made.OK() && o.State == "" && b.Doc.Done.Of(o.ID, "Trim") < o.Copy {
			out = append(out, o)
		}
	}
	return out
}

// Lay lays the pieces of all orders that are not trimmed yet on sheets together.
func (b *Batch) Lay(w request.Workshop, pace bench.Pace) (s Sheets) {
	var plans []*plan.Plan
	var names []string
	var steps []bench.Step
	for _, o := range b.uncut() {
		j := o.Made.Job
		for i, p := range j.Plans {
			name := fmt.Sprintf("%d %s", o.Place+1, o.Called())
			if len(j.Names) > 0 {
				name += ", " + j.Names[i]
			}
			plans, names = append(plans, p), append(names, name)
			if len(p.Layout.TooBig) > 0 {
				s.Uncut = append(s.Uncut, name)
			}
		}
		for _, c := range j.Cuts {
			s.Alone += len(c.Sheets)
		}
		steps = append(steps, j.Steps...)
	}
	if len(plans) == 0 || len(s.Uncut) > 0 {
		return s
	}
	tasks := cutting.Together(plan.Tables(plans), names, request.Cutting{})
	for i := range tasks {
		tasks[i].Work = least.Hasty
	}
	found := cutting.Search(tasks, nil)
	s.Cuts = cutting.Cuts(found)
	for _, f := range found {
		s.Bound += f.Layout.Bound
	}
	s.Buys = shop.Shopping(costs.Needs(s.Cuts, w))
	j := sets.Job{Name: string(b.Doc.Name), Plans: plans, Names: names, Cuts: s.Cuts, Steps: steps, Made: b.boxes()}
	s.Cost = costs.Reckon(j, w, pace)
	s.Units, s.Settings = plans[0].Units, SettingsOf(s.Cuts, plans[0].Say)
	for _, c := range s.Cuts {
		for _, o := range Offcuts(c) {
			s.Left = append(s.Left, fmt.Sprintf("%d of %s × %s, %s", o.Count, plans[0].Say(o.W), plans[0].Say(o.H), c.Card.Title))
		}
	}
	return s
}

func (b *Batch) boxes() (n int) {
	for _, o := range b.uncut() {
		n += o.Copy
	}
	return n
}

// Setting is one place of the trimmer's stop, and all that is cut while it stands there.
type Setting struct {
	At   string
	Cuts []Cuts
	All  int
}

// Cuts are the same cuts of sheets that are cut alike.
type Cuts struct {
	Sheet, Alike int   // the number of the first, from 1, and how many there are of it
	Steps        []int // which of its cuts, from 1
	Of           string
}

// kind are sheets that are cut alike, and how far they are cut.
type kind struct {
	cuts     []layout.Cut
	n, alike int
	at       int
	of       string
}

// SettingsOf tells in which order all sheets are cut so that the stop is set seldom: where it
// stands, every sheet is cut that is next to be cut there, as often as it can be; then it goes
// where most cuts wait. The cuts of each sheet keep their turn.
func SettingsOf(cuts []cutting.Cut, say func(measure.Length) string) (out []Setting) {
	var kinds []*kind
	known := map[string]*kind{}
	n := 0
	for _, c := range cuts {
		for _, s := range c.Sheets {
			n++
			mark := c.Mark(s)
			if k := known[mark]; k != nil {
				k.alike++
				continue
			}
			k := &kind{cuts: s.Cuts, n: n, alike: 1, of: c.Card.Title}
			known[mark], kinds = k, append(kinds, k)
		}
	}
	for {
		at, most := measure.Length(0), 0
		waiting := map[measure.Length]int{}
		for _, k := range kinds {
			if k.at < len(k.cuts) {
				next := k.cuts[k.at].At
				if waiting[next] += k.alike; waiting[next] > most || waiting[next] == most && next > at {
					at, most = next, waiting[next]
				}
			}
		}
		if most == 0 {
			return out
		}
		set := Setting{At: say(at)}
		for _, k := range kinds {
			c := Cuts{Sheet: k.n, Alike: k.alike, Of: k.of}
			for ; k.at < len(k.cuts) && k.cuts[k.at].At == at; k.at++ {
				c.Steps = append(c.Steps, k.at+1)
			}
			if len(c.Steps) > 0 {
				set.Cuts, set.All = append(set.Cuts, c), set.All+len(c.Steps)*k.alike
			}
		}
		out = append(out, set)
	}
}

// Progress is what is done, each under “order/stage”: of how many copies.
type Progress map[string]brief.Whole

// Of is how many copies of an order are done with a stage; what can't be read is nothing.
func (p Progress) Of(order, stage string) int {
	n, _ := strconv.Atoi(string(p[order+"/"+stage]))
	return max(0, n)
}

// begun reports whether anything of an order is done.
func (p Progress) begun(order string) bool {
	return slices.ContainsFunc(Stages, func(stage string) bool { return p.Of(order, stage) > 0 })
}

// Left is the minutes of a stage that are still to be done, whole ones.
func (b *Batch) Left(o *Ordered, st Stage, pace bench.Pace) int {
	if o.Copy == 0 {
		return 0
	}
	left := float64(o.Copy-min(o.Copy, b.Doc.Done.Of(o.ID, st.Title))) / float64(o.Copy)
	return int(math.Ceil(st.At(pace)*left - 1e-9))
}
