// Package plan is the one call through all of the core: a brief goes in, a
// plan comes out, and everything a person sees is drawn from the plan.
package plan

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"brevium/core/assembly"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/cutting"
	"brevium/core/fold"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/core/words"
)

// Plan is a box ready to cut, or the problems why there is none. It is finished when Make
// gives it away: nothing writes it again, and any number of goroutines may read it at once.
type Plan struct {
	cutting.Table
	Load    contents.Load // empty when only a size was given
	Ways    []Way         // the arrangements to choose from, best first
	Blocks  []fold.Block  // the contents, in their places in the box
	Rooms   []Room        // or in each of several small boxes
	Checks  []fold.Check
	Layout  layout.Layout
	Cuts    []cutting.Cut // the same, by card
	Cost    int64         // of the sheets, in hundredths
	Guide   bench.Guide
	Advice  Advice
	Refused *Refused // when a piece is larger than every sheet; Box is nil then
	Above   float64  // grams that stand on it, in a set

	taken *style.Dims // what the style's card takes of a size
}

// Refused is a box of which a piece is larger than every sheet.
type Refused struct {
	Box    *style.Box
	Guilty style.Blame    // the field that asks for each measure
	Scores []style.Scored // of a list, the pieces
	Says   string
}

// Advice is what was looked for beside the plan; Make looks for nothing.
type Advice struct {
	Fixes    []brief.Fix            // what would bring a piece on to its sheet
	Stronger map[string][]brief.Fix // what would make the box bear more, by the code of what it doesn't bear
}

// OK reports whether there is a box to show.
func (p *Plan) OK() bool { return len(p.Problems) == 0 && p.Box != nil }

// Holds reports whether every check of the proof holds.
func (p *Plan) Holds() bool { return p.OK() && assembly.Said(p.Checks) == "" }

// Fault says of the first check that failed what goes wrong, "" when all hold.
func (p *Plan) Fault() string {
	for _, c := range p.Checks {
		if !c.Holds {
			return c.Fault()
		}
	}
	return ""
}

// Proved reports whether no arrangement on sheets takes less than what the plan takes.
func (p *Plan) Proved() bool { return AllProved(p.Cuts) }

// Minutes is about how long the bench work takes.
func (p *Plan) Minutes() int { return bench.Minutes(p.Guide.Steps) }

// With is the brief of the plan with changes made.
func (p *Plan) With(set brief.Changes) brief.Brief { return p.Brief.With(set) }

// Reporting is the plan with other problems, warnings and advice.
func (p *Plan) Reporting(problems []brief.Problem, warnings []brief.Warning, a Advice) *Plan {
	q, asked, r := *p, *p.Request, *p.Report
	r.Problems, r.Warnings = problems, warnings
	asked.Report, q.Request, q.Advice = &r, &asked, a
	return &q
}

// Under is the plan of a box on which a load of so many grams stands.
func (p *Plan) Under(grams float64) *Plan {
	q := *p
	if q.Above = grams; grams > 0 {
		q.Advice.Stronger = nil // it was looked for with nothing on it
	}
	return &q
}

// InRoom is the plan as it is for one of its rooms alone, to be drawn.
func (p *Plan) InRoom(r Room) *Plan {
	q := *p
	q.Load, q.Blocks, q.Box, q.Rooms = r.Load, r.Blocks, r.Box, nil
	return &q
}

// Make plans a brief. It is pure, and never fails but by Problems. It walks through the rooms once: the request is
// read at the door; the contents are arranged and the box built round them; the box is proved, its pieces laid on
// sheets, and the bench told what to do.
func Make(b brief.Brief, w request.Workshop) *Plan {
	return newMaking(request.Read(b, w), w, nil).make()
}

// Like is Make for a brief of the same box as a plan, but for its contents: what the style's
// card takes of a size is known from there.
func (p *Plan) Like(b brief.Brief, w request.Workshop) *Plan {
	return newMaking(request.Read(b, w), w, p.taken).make()
}

// Lying is the plan with the contents in another of its ways, and no others to choose from.
func (p *Plan) Lying(way Way, w request.Workshop) *Plan {
	b := p.Brief.Clone()
	b.Arrange.Way = brief.Text(way.ID)
	m := newMaking(request.Read(b, w), w, p.taken)
	m.pick = &way.Load
	return m.make()
}

// Draft plans a brief as far as the sizes of its pieces, without faces, proof or layout; nil when that can't be.
func Draft(b brief.Brief, w request.Workshop) *Plan {
	m := newMaking(request.Read(b, w), w, nil)
	m.hasty, m.sizes = true, true
	if !m.found() || len(m.Problems) > 0 {
		return nil
	}
	return m.Plan
}

// Proof plans a brief as far as its proof: nothing is laid on sheets and the bench is told nothing.
func Proof(b brief.Brief, w request.Workshop) *Plan {
	m := newMaking(request.Read(b, w), w, nil)
	if m.found() && len(m.Problems) == 0 {
		m.prove()
	} else {
		m.Box = nil
	}
	return m.Plan
}

// Borne is a plan as far as what it bears: it is proved and its pieces have sheets, but how they lie there is not known
// and the bench is told nothing; nil when it does not come so far.
func Borne(b brief.Brief, w request.Workshop) *Plan {
	m := newMaking(request.Read(b, w), w, nil)
	if !m.found() || !m.dress() || !m.cuttable() {
		return nil
	}
	m.sizes = true
	if _, tooBig := m.needs(m.Box); tooBig > 0 {
		return nil
	}
	m.prove()
	return m.Plan
}

// Tried is a changed brief of a plan, made as far as its box. It is not safe for concurrent use.
type Tried struct {
	m     *making
	found bool
}

// Try makes b, the plan's brief with set changed, as far as its box.
func (p *Plan) Try(b brief.Brief, set brief.Changes, w request.Workshop) *Tried {
	t := &Tried{m: p.changed(b, set, w)}
	t.found = t.m.found()
	return t
}

// Troubles returns what is wrong with it, sheets left out of account.
func (t *Tried) Troubles() []brief.Problem { return t.m.Problems }

// Refusals goes on from there and returns what keeps the brief from having a plan: the problems of Make, found without
// proof, sheets or words. It must be called once at most, after Troubles.
func (t *Tried) Refusals() []brief.Problem {
	if t.found && t.m.dress() {
		t.m.cuttable()
	}
	return t.m.Problems
}

// changed begins to make a plan's brief that was changed. Where only what is put on the box is other, the things lie as
// they did: no other way for them is looked for.
func (p *Plan) changed(b brief.Brief, set brief.Changes, w request.Workshop) *making {
	m := newMaking(request.Read(b, w), w, nil)
	dressed := !slices.ContainsFunc(set, func(c brief.Change) bool { return !strings.HasPrefix(c.Field, "dress.") })
	if dressed && p.Load.ID != "" {
		m.pick = &p.Load
	}
	return m
}

// making is a plan while it is made.
type making struct {
	*Plan
	w     request.Workshop
	spec  *style.Spec
	room  contents.Room  // that was asked for, before the compartments want theirs
	pick  *contents.Load // the arrangement that is wanted, laid out already
	hasty bool           // only whether it can be done is wanted: few ways, no faces
	sizes bool           // only whether each piece has a sheet, not how they lie on it
}

func newMaking(q *request.Request, w request.Workshop, taken *style.Dims) *making {
	return &making{Plan: &Plan{Table: cutting.Table{Request: q}, taken: taken}, w: w, room: q.Room}
}

// found arranges the contents and builds the box; false when there is none.
func (m *making) found() bool {
	if len(m.Problems) > 0 {
		return false
	}
	m.begin()
	m.Box = m.run()
	return m.Box != nil
}

func (m *making) make() *Plan {
	if !m.found() || !m.dress() || !m.cuttable() {
		m.Box = nil
		return m.Plan
	}
	m.prove()
	if m.Dressed != nil {
		m.Box.Outer()
	}
	m.lay(m.OnSheets(m.ToLay(m.Box, m.Copies)))
	m.Guide = m.tell(m.Say)
	m.Checks = append(m.Checks, m.told([]fold.Check{bench.ToldRight(m.Box.Pieces(), m.Guide.Cards, bench.CutsOf, m.Say)})...)
	return m.Plan
}

// prove folds the box and puts what goes in into it.
func (m *making) prove() {
	if len(m.Rooms) == 0 {
		m.Blocks = m.blocks(m.Load, m.Box)
	}
	m.Checks = m.Box.Prove(assembly.Means{T: m.Card.Caliper, Width: m.Adhesive.Width, Proud: m.Room.Proud}, m.Blocks)
}

// cuttable reports whether the pieces have a sheet, and are no more than can be laid out.
func (m *making) cuttable() bool {
	if !m.Join && !m.HasSheets(m.w) {
		m.tooLarge()
		return false
	}
	if each := m.Pieces(); each*m.Copies > request.MostPieces {
		most := max(1, request.MostPieces/each)
		m.Problem("copies", fmt.Sprintf("%d boxes of %d pieces each are too many to lay out at once.", m.Copies, each),
			fmt.Sprintf("Make at most %d at a time.", most), "copies", fmt.Sprint(most))
		return false
	}
	return true
}

// lay takes the pieces as they lie on their sheets.
func (p *Plan) lay(cuts []cutting.Cut) {
	all := make([]layout.Layout, len(cuts))
	p.Cuts, p.Cost = cuts, 0
	for i, c := range cuts {
		all[i], p.Cost = c.Layout, p.Cost+c.Cost()
	}
	p.Layout = layout.Join(all...)
	p.Checks = append(p.told(slices.Clip(p.Checks)), p.told([]fold.Check{p.onTheirSheets()})...)
}

// The proof reckons in millimetres and calls faces by what the recipe calls them. What it found is told in the
// project's unit, with faces and pieces named as people do.

var (
	inMM  = regexp.MustCompile(`-?\b\d+\.\d{1,2} mm\b`) // reckoned, not typed
	inCM2 = regexp.MustCompile(`(\d+(?:\.\d+)?) cm²`)
)

func (p *Plan) told(checks []fold.Check) []fold.Check {
	var names []string
	for _, piece := range p.Box.Pieces() {
		names = append(names, piece.Name)
		for _, f := range piece.Faces {
			names = append(names, f.Name)
		}
	}
	names = slices.DeleteFunc(names, func(n string) bool { return !strings.Contains(n, "-") })
	// The longest first: one name may be a part of another.
	slices.SortFunc(names, func(a, b string) int { return len(b) - len(a) })
	var pairs []string
	for _, n := range slices.Compact(names) {
		pairs = append(pairs, n, words.Plain(n))
	}
	plainly := strings.NewReplacer(pairs...)
	for i := range checks {
		checks[i].Name = plainly.Replace(checks[i].Name)
		checks[i].Figure = InUnit(plainly.Replace(checks[i].Figure), p.Step.Unit)
	}
	return checks
}

// InUnit writes the millimetres and square centimetres of a text in inches, where those are the unit.
func InUnit(text string, u measure.Unit) string {
	if u == measure.Millimetres {
		return text
	}
	number := func(s string) float64 {
		n, _ := strconv.ParseFloat(strings.Fields(s)[0], 64)
		return n
	}
	text = inMM.ReplaceAllStringFunc(text, func(s string) string {
		const finest = measure.Inch / 64
		if u == measure.Centimetres {
			return strconv.FormatFloat(number(s)/10, 'f', -1, 64) + " cm"
		}
		switch l := measure.FromMM(number(s)); {
		case l == 0:
			return "0 in"
		case l < 0 && -l < finest:
			return "a hair under 0 in"
		case l.Abs() < finest:
			return "less than 1/64 in"
		default:
			return strings.ReplaceAll((measure.Step{Size: finest, Unit: measure.Inches}).Show(l.Near(finest)).String(), "⁄", "/")
		}
	})
	if u.Metric() || !strings.Contains(text, "cm²") {
		return text
	}
	return inCM2.ReplaceAllStringFunc(text, func(s string) string {
		return strconv.FormatFloat(number(s)/6.4516, 'f', 1, 64) + " sq in"
	})
}
