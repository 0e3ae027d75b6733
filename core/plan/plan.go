// Package plan is the one call through all of the core: a brief goes in, a
// plan comes out, and everything a person sees is drawn from the plan.
package plan

import (
	"fmt"
	"slices"

	"brevium/core/assembly"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/dress"
	"brevium/core/fold"
	"brevium/core/layout"
	"brevium/core/shop"
	"brevium/core/style"
	"brevium/core/words"
)

// MostCopies is how many of one box a plan lays out, MostPieces how many pieces
// of them all.
const (
	MostCopies = 200
	MostPieces = 6000
)

// Plan is a box ready to cut. When Problems is not empty there is no box.
type Plan struct {
	*Request
	Load   contents.Load // empty when only a size was given
	Ways   []Way         // the arrangements to choose from, best first
	Fixes  []Fix         // what would bring a piece on to its sheet
	Blocks []fold.Block  // the contents, in their places in the box
	Rooms  []Room        // or in each of several small boxes
	Box    *style.Box
	Checks []fold.Check
	Layout layout.Layout
	Cuts   []Cut   // the same, by card
	Near   []Near  // the changes that are a hair from saving, once they were looked for
	Found  []Found // when it was searched for: by card, with the proof
	Cost   int64   // of the sheets, in hundredths
	Cards  []bench.ScoreCard
	Steps  []bench.Step
	Tape   bench.Tape

	Dressed *dress.Dressed // what goes on, in and round it; nil when that is nothing

	Sections  []Section // the corner of what goes over something
	Carries   []Carry   // what it must bear
	Doubts    []Suspect // of a list of scores: what may be wrong in it, when that was asked
	LoadAbove float64   // grams that stand on it, in a set

	patterns map[string][]dress.Stands // how the panels of each piece stand, once that is asked
	sampled  map[string][]dress.Stands // and those of a box of a usual size

	what     extent
	taken    *style.Dims    // what the style's card takes of a size, once it is known
	remedies *budget        // of the search for Fixes
	pick     *contents.Load // the arrangement that is wanted, laid out already
	large    bool           // a piece is larger than every sheet
}

// OK says whether there is a box to show.
func (p *Plan) OK() bool { return len(p.Problems) == 0 && p.Box != nil }

// Holds says whether every check of the proof holds.
func (p *Plan) Holds() bool { return p.OK() && assembly.Said(p.Checks) == "" }

// Make plans a brief. It is pure, and never fails but by Problems. It walks
// through the rooms once: the request is read at the door; the contents are
// arranged and the box built round them; the box is proved, its pieces laid on
// sheets, and the bench told what to do.
func Make(b brief.Brief, w Workshop) *Plan {
	p := build(Read(b, w), w, whole, nil)
	p.mends(w)
	return p
}

// how much of a plan is wanted: all of it; all but what would make it fit, to be
// shown beside others; or the picked way alone, unranked, for a row of figures.
type extent int

const (
	whole extent = iota
	shown
	pinned
)

func build(q *Request, w Workshop, what extent, taken *style.Dims) *Plan {
	return (&Plan{Request: q, what: what, taken: taken}).build(w)
}

func (p *Plan) build(w Workshop) *Plan {
	q, what := p.Request, p.what
	if len(q.Problems) > 0 {
		return p
	}
	s := newSearch(p)
	s.only = what == pinned
	if p.Box = s.run(); p.Box == nil || !p.dress(s) || !p.cuttable(w, s.job) {
		p.Box = nil
		return p
	}
	if len(p.Rooms) == 0 {
		p.Blocks = s.blocks(p.Load, p.Box)
	}
	p.Checks = p.Box.Prove(assembly.Means{T: p.Card.Caliper, Width: p.Adhesive.Width, Proud: p.Room.Proud}, p.Blocks)
	if p.Dressed != nil {
		p.Box.Outer()
	}
	p.lay(w)
	p.Cards, p.Steps = p.bench(p.Say)
	p.Checks = append(p.Checks, p.told([]fold.Check{bench.ToldRight(p.Box.Pieces(), p.Cards, bench.CutsOf, p.Say)})...)
	if what != pinned {
		p.warn(w)
	}
	return p
}

// cuttable says whether the pieces have a sheet, and are no more than can be
// laid out.
func (p *Plan) cuttable(w Workshop, job *style.Job) bool {
	fits := p.Join || p.takesAll(p.SheetOf(p.Card)) || slices.ContainsFunc(w.sheets(p.Card), p.takesAll)
	if !fits {
		p.tooLarge(w, job)
		return false
	}
	if each := p.pieces(); each*p.Copies > MostPieces {
		most := max(1, MostPieces/each)
		p.Problem("copies", fmt.Sprintf("%d boxes of %d pieces each are too many to lay out at once.", p.Copies, each),
			fmt.Sprintf("Make at most %d at a time.", most), "copies", fmt.Sprint(most))
		return false
	}
	return true
}

// pieces counts what is cut for one box.
func (p *Plan) pieces() (n int) {
	for _, piece := range p.toLay(p.Box, 1) {
		n += piece.Count
	}
	return n
}

// takesAll says whether every piece lies on a sheet of a size, or on its own card's.
func (p *Plan) takesAll(s shop.Sheet) bool {
	long := map[string]bool{} // what may be made of two, if need be
	for _, piece := range p.Box.Pieces() {
		long[piece.Name] = p.joins(piece)
	}
	return !slices.ContainsFunc(p.toLay(p.Box, 1), func(l layout.Piece) bool {
		if long[l.Name] {
			return false
		}
		on := s
		if c := p.CardOf(l.Stock); c.ID != p.Card.ID && len(c.Sheets) > 0 {
			on = p.SheetOf(c)
		}
		return !l.Lies(on.Width, on.Height)
	})
}

func (p *Plan) lay(w Workshop) {
	p.Cuts = p.onSheets(p.toLay(p.Box, p.Copies))
	all := make([]layout.Layout, len(p.Cuts))
	for i, c := range p.Cuts {
		all[i], p.Cost = c.Layout, p.Cost+c.Card.Cost(c.Sheet, len(c.Sheets))
	}
	p.Layout = layout.Join(all...)
	if big := len(p.Layout.TooBig) > 0; big && p.what == whole {
		p.Fixes = p.fixes(w)
	}
	p.Checks = p.told(p.Checks)
	p.checkSheets()
}

// onItsSheet is the check that every piece lies on one.
const onItsSheet = "every piece lies on its sheet"

// checkSheets checks that every piece lies on its sheet, and warns where one doesn't.
func (p *Plan) checkSheets() {
	check := fold.Check{Name: onItsSheet, Holds: true, Figure: p.SheetsSaid()}
	for _, big := range p.Layout.TooBig {
		check.Holds = false
		check.Figure = fmt.Sprintf("%s is too small for the %s, %s × %s", p.SheetOf(p.CardOf(big.Stock)).Title, big.Name,
			p.Say(big.W), p.Say(big.H))
		switch c := p.CardOf(big.Stock); {
		case big.Across || big.Upright && !c.Directed():
			check.Figure += ", with its grain along its longer scores"
		case big.Upright:
			check.Figure += ", with its pattern upright"
		}
	}
	if !check.Holds {
		fix := "See what would make it fit."
		switch {
		case p.remedies != nil && p.remedies.over():
			fix = "There is too much in this box to look for every remedy: put less in, or choose a larger sheet."
		case len(p.Fixes) == 0:
			fix = "Make the box smaller, or choose a larger sheet."
		}
		warning := brief.Warning{Code: "sheet-too-small", Text: words.Capital(check.Figure) + ".", Fix: fix}
		if len(p.Fixes) > 0 {
			warning.Set = p.Fixes[0].Set
			warning.Fix = p.Fixes[0].Text
		}
		p.Warn(warning)
	}
	p.Checks = append(p.Checks, p.told([]fold.Check{check})...)
}
