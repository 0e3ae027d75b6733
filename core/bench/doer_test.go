package bench_test

import (
	"fmt"
	"regexp"
	"slices"
	"strings"

	"brevium/core/bench"
	"brevium/core/net"
	"brevium/core/plan"
)

// doer is a pair of hands that knows nothing of styles. It has card, flat pieces, glue and faces; it
// does each step as it is told and lit, and says where a step is impossible, missing, double or out
// of order, and what at the end is not the plan's box.
type doer struct {
	p      *plan.Plan
	faults []string
	done   map[string]bool // what was done, in a word or two: "score base 0", "fold base/left"
	spread map[string]string
	backed map[string]bool
	put    []string // the parts in their places
	filled bool
	wet    bool
	text   string // all that was said
}

// do does the steps and gives what was wrong with them.
func do(p *plan.Plan, steps []bench.Step) []string {
	d := &doer{p: p, done: map[string]bool{}, spread: map[string]string{}, backed: map[string]bool{}}
	for _, s := range steps {
		d.step(s)
	}
	d.end()
	return d.faults
}

func (d *doer) wrong(format string, args ...any) {
	d.faults = append(d.faults, fmt.Sprintf(format, args...))
}

// once does something that can be done only once.
func (d *doer) once(format string, args ...any) {
	what := fmt.Sprintf(format, args...)
	if d.done[what] {
		d.wrong("double: %s", what)
	}
	d.done[what] = true
}

// need wants something done before.
func (d *doer) need(now, format string, args ...any) {
	if what := fmt.Sprintf(format, args...); !d.done[what] {
		d.wrong("out of order: %s, but not yet %s", now, what)
	}
}

func (d *doer) step(s bench.Step) {
	d.once("step %s", s.ID)
	d.text += strings.ToLower(strings.Join(s.Says, " ")) + " "
	for _, says := range s.Says {
		if m := odd.FindString(says); m != "" {
			d.wrong("badly said: %q in %q", m, says)
		}
	}
	switch s.Title {
	case "Trim":
		for _, f := range s.Frames {
			d.once("sheet %v cut %d", f.At, f.N)
		}
	case "Score":
		d.need(s.ID, "sheet 0 cut %d", max(0, -1))
		for i, f := range s.Frames {
			d.once("score %s %d", f.Piece, i)
		}
		d.once("scored %s", s.Piece)
	case "Cut", "Mitre":
		d.cut(s)
	case "Fold and burnish":
		d.once("burnished")
		for _, f := range s.Frames {
			d.need(s.ID, "scored %s", f.Piece)
		}
	case "Closures":
		for _, f := range s.Frames {
			if f.Look == bench.Marked {
				d.once("mark %s %d", f.Piece, f.N)
			}
		}
	case "Decorate while flat", bench.DressStanding:
		d.once("dressed")
		for _, p := range d.p.Box.Pieces() {
			for i := range bench.CutsOf(p) {
				if p.Part == net.Layer {
					d.need(s.ID, "cut %s %d", p.Name, i)
				}
			}
		}
		if d.filled {
			d.wrong("out of order: layers go on a filled box")
		}
	case "Fold it dry":
		d.once("folded dry")
	case "Stick", bench.StickOuter, bench.FormOn, "Fold to shape":
		d.stick(s)
	case "Dry-fit":
		d.once("tried on")
		for _, lid := range d.outer() {
			if d.done["stuck "+lid] && len(d.p.Box.Piece(lid).Glues) > 0 {
				d.wrong("out of order: the %s is stuck before it is tried on", lid)
			}
		}
	case "Put together":
		d.together(s)
	case "Let it dry":
		d.once("dried")
	case "Fill":
		d.fill()
	case "Close":
		d.close(s)
	}
}

// odd is what no sentence has.
var odd = regexp.MustCompile(`%!|  |\b(the the|a a|of of|to to|on on|and and|'s's)\b|\ba [aeio]|\.\.|\b0 in\b|; then ;|, \.|^[a-z]| and \.`)

func (d *doer) outer() (names []string) {
	for _, part := range d.p.Box.Parts {
		if part.When == net.Close && len(d.p.Box.Clears) > 0 && part.Piece.Part == net.Box {
			names = append(names, part.Name)
		}
	}
	return names
}

// cut makes the lit cuts; they end at scores, which must be there.
func (d *doer) cut(s bench.Step) {
	p := d.p.Box.Piece(s.Piece)
	if p == nil {
		d.wrong("impossible: there is no %s to cut", s.Piece)
		return
	}
	if _, spare := d.p.Spare(p); len(p.Passes)+len(p.Slanted) > 0 && spare == 0 {
		d.need(s.ID, "scored %s", p.Name)
	}
	all := bench.CutsOf(p)
	for _, f := range s.Frames {
		if f.N >= len(all) && len(p.Tips) == 0 {
			d.wrong("impossible: cut %d of the %s", f.N, p.Name)
		}
		d.once("cut %s %d", p.Name, f.N)
	}
	for _, says := range s.Says {
		if strings.Contains(says, "always cut the same corner") && !alikeRound(p) {
			d.wrong("impossible: the corners of the %s are not all cut alike", p.Name)
		}
	}
}

// alikeRound reports whether a piece, turned a quarter, has its slits where they were: from which edge
// they start and how far they are from the corner before it.
func alikeRound(p *net.Piece) bool {
	seen := map[string][]string{}
	for _, l := range p.Outline() {
		if l.Kind != net.Cut {
			continue
		}
		for _, at := range []net.Point{l.A, l.B} {
			w, h := p.Width, p.Height
			switch {
			case at.Y == 0:
				seen["top"] = append(seen["top"], fmt.Sprint(at.X < w/2))
			case at.X == w:
				seen["right"] = append(seen["right"], fmt.Sprint(at.Y < h/2))
			case at.Y == h:
				seen["bottom"] = append(seen["bottom"], fmt.Sprint(at.X > w/2))
			case at.X == 0:
				seen["left"] = append(seen["left"], fmt.Sprint(at.Y > h/2))
			}
		}
	}
	return len(seen) == 4 && slices.Equal(seen["top"], seen["right"]) && slices.Equal(seen["top"], seen["bottom"]) &&
		slices.Equal(seen["top"], seen["left"])
}
