package sets

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/cutting"
	"brevium/core/fold"
	"brevium/core/layout"
	"brevium/core/plan"
)

// Job is what is made at the bench in one go, and handed on as one: a box in so many copies, or all boxes of a set.
type Job struct {
	Name  string
	Plans []*plan.Plan
	Names []string      // of the boxes of a set; empty for a single box
	Cuts  []cutting.Cut // the sheets of all
	Steps []bench.Step
	Set   *Set // nil for a single box
	Made  int  // how many boxes, where several of them are made together that are no set
}

// JobOf is a plan as it is made at the bench.
func JobOf(p *plan.Plan) Job {
	return Job{Name: string(p.Brief.Name), Plans: []*plan.Plan{p}, Cuts: p.Cuts, Steps: p.Guide.Steps}
}

// Job is the set as it is made at the bench: the sheets of all are cut, then of each title
// every box's steps are done in turn; each is filled and closed by itself, and last they come
// together, of a nest before the next is closed. A frame says of which box it is.
func (s *Set) Job() Job {
	j := Job{Name: string(s.Brief.Name), Plans: s.Plans, Names: s.Names, Set: s}
	for _, l := range s.Layouts {
		j.Cuts = append(j.Cuts, l.Cut)
	}
	j.Steps = bench.TrimSteps(plan.Alike(j.Cuts, s.Plans[0].Say), s.Plans[0].Tools, s.Plans[0].Say)
	for _, title := range s.titles() {
		if title != "Trim" && title != "Fill" && title != "Close" {
			for i := range s.Plans {
				j.Steps = append(j.Steps, s.titled(i, title)...)
			}
		}
	}
	gather := s.gather()
	for i := range s.Plans {
		if s.Kind == "nest" && i > 0 {
			j.Steps = append(j.Steps, gather[i-1])
		}
		if s.Kind != "nest" || !s.follows(i) {
			j.Steps = append(j.Steps, s.titled(i, "Fill")...)
		}
		j.Steps = append(j.Steps, s.titled(i, "Close")...)
	}
	if s.Kind != "nest" && s.together() != "" {
		j.Steps = append(j.Steps, gather...)
	}
	return j
}

// titled are the steps of a title for one of the boxes.
func (s *Set) titled(i int, title string) (out []bench.Step) {
	for _, step := range s.Plans[i].Guide.Steps {
		if step.Title == title {
			out = append(out, s.stepOf(i, step))
		}
	}
	return out
}

// gather are the steps by which each box but the first comes to those before it.
func (s *Set) gather() (out []bench.Step) {
	for i, says := range s.Course() {
		out = append(out, bench.Step{ID: fmt.Sprintf("set:%d", i+1), Title: bench.Gather, Piece: s.Names[i+1],
			Count: max(1, s.Sets), Says: []string{says}, Frames: []bench.Frame{{Says: says, Look: bench.Gathered, At: float64(i + 1)}},
			Check: "It stands or lies as shown, without force.", Fails: []bench.Remedy{{When: "It won't go",
				Do: "press in any wall that leans out or band that sticks up."}}, Minutes: 0.25 * float64(max(1, s.Sets))})
	}
	return out
}

// titles are the steps of the work, in turn.
func (s *Set) titles() []string { return bench.Titles(s.Plans[0].Burnish) }

func (s *Set) stepOf(i int, step bench.Step) bench.Step {
	step.ID = fmt.Sprintf("%d/%s", i+1, step.ID)
	step.Piece = strings.TrimSuffix(s.Names[i]+": "+step.Piece, ": ")
	step.Frames = slices.Clone(step.Frames)
	for k := range step.Frames {
		step.Frames[k].Box = i
	}
	return step
}

// InBoth is the job with every length of its cards and steps in both units. Its steps go by the same names.
func (j Job) InBoth() Job {
	both := j
	both.Plans = make([]*plan.Plan, len(j.Plans))
	for i, p := range j.Plans {
		told := *p
		told.Guide = p.InBoth()
		both.Plans[i] = &told
	}
	if j.Set == nil {
		both.Steps = both.Plans[0].Guide.Steps
		return both
	}
	set := *j.Set
	set.Plans = both.Plans
	return set.Job()
}

// Holds reports whether the proof of all that is made holds.
func (j Job) Holds() bool { return len(j.Failed()) == 0 }

// Failed lists the checks that don't hold, of a set under the names of its boxes.
func (j Job) Failed() (out []fold.Check) {
	note := func(of string, checks []fold.Check) {
		for _, c := range checks {
			if !c.Holds {
				c.Name = of + c.Name
				out = append(out, c)
			}
		}
	}
	for i, p := range j.Plans {
		of := ""
		if len(j.Names) > 0 {
			of = j.Names[i] + ": "
		}
		note(of, p.Checks)
	}
	if j.Set != nil {
		note("", j.Set.Checks)
	}
	return out
}

// Warning says in words that the proof does not hold, and why; "" when it does.
func (j Job) Warning() string {
	failed := j.Failed()
	if len(failed) == 0 {
		return ""
	}
	says := make([]string, 0, len(failed))
	for _, c := range failed {
		says = append(says, c.Fault())
	}
	return "DON'T CUT THIS. A check failed. " + strings.Join(says, " ")
}

// Sheet gives the nth sheet of all, with the card it is of.
func (j Job) Sheet(n int) (layout.Sheet, cutting.Cut, bool) {
	for _, c := range j.Cuts {
		if n >= 0 && n < len(c.Sheets) {
			return c.Sheets[n], c, true
		}
		n -= len(c.Sheets)
	}
	return layout.Sheet{}, cutting.Cut{}, false
}

// Called finds what lies on a sheet under a name: of which box it is, and what it is called there.
func (j Job) Called(name string) (p *plan.Plan, own string, ok bool) {
	if len(j.Names) == 0 {
		return j.Plans[0], name, true
	}
	for i, p := range j.Plans {
		if own, ok := strings.CutPrefix(name, j.Names[i]+": "); ok {
			return p, own, true
		}
	}
	return nil, name, false
}

// Step finds a step by its identity.
func (j Job) Step(id string) (bench.Step, int) {
	for i, s := range j.Steps {
		if s.ID == id {
			return s, i
		}
	}
	return bench.Step{}, -1
}

// Written is Request.Written for all that is made: of the boxes of a set what they share, cards and tools.
func (j Job) Written() brief.Brief {
	if j.Set == nil {
		return j.Plans[0].Written(j.Plans[0].Brief, nil)
	}
	b := j.Set.Brief
	for _, p := range j.Plans {
		b = p.Written(b, func(path string) bool {
			return strings.HasPrefix(path, "card.own.") || strings.HasPrefix(path, "tools.")
		})
	}
	return b
}

// AsMade is Written for good: nothing that the shop learns, and no habit it takes up, moves the plan again.
func (j Job) AsMade() brief.Brief {
	b := j.Written()
	for i := range j.Plans {
		if j.Set == nil {
			break
		}
		m := j.Plans[i].Written(b.Member(i), func(path string) bool {
			return strings.HasPrefix(path, "box.options.") || strings.HasPrefix(path, "dress.")
		})
		b.SetMember(i, m)
	}
	b.Tools.House = "no"
	return b
}
