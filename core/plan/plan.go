// Package plan is the one call through all of the core: a brief goes in, a
// plan comes out, and everything a person sees is drawn from the plan.
package plan

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/bench"
	"brevium/core/box"
	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/fit"
	"brevium/core/fold"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/sheet"
	"brevium/core/stock"
	"brevium/core/words"
)

// Workshop is what the maker has to work with.
type Workshop struct{ stock.Shelf }

// Default is the workshop of a maker who has said nothing about it.
var Default = Workshop{stock.Default}

// MostCopies is how many of one box a plan lays out, MostPieces how many pieces
// of them all.
const (
	MostCopies = 200
	MostPieces = 6000
)

// Plan is a box ready to cut. When Problems is not empty there is no box.
type Plan struct {
	Brief    brief.Brief
	Name     string
	Copies   int
	Units    measure.Unit
	Step     measure.Step
	Card     stock.Card
	Sheet    stock.Sheet
	Adhesive fit.Adhesive
	Load     contents.Load // empty when only a size was given
	Ways     []Way         // the arrangements to choose from, best first
	Kind     string        // of compartments
	Fixes    []Fix         // what would bring a piece on to its sheet
	Blocks   []fold.Block  // the contents, in their places in the box
	Box      *box.Box
	Checks   []fold.Check
	Layout   layout.Layout
	Cost     int64 // of the sheets, in hundredths
	Cards    []bench.ScoreCard
	Steps    []bench.Step
	Warnings []brief.Warning
	Problems []brief.Problem
	Notes    []string // defaults that were taken, said

	remedies *budget // of the search for Fixes
}

// OK says whether there is a box to show.
func (p *Plan) OK() bool { return len(p.Problems) == 0 && p.Box != nil }

// Holds says whether every check of the proof holds.
func (p *Plan) Holds() bool {
	for _, c := range p.Checks {
		if !c.Holds {
			return false
		}
	}
	return p.OK()
}

// Make plans a brief. It is pure, and never fails but by Problems.
func Make(b brief.Brief, w Workshop) *Plan { return build(begin(b, w), w) }

// build builds the box that was begun, and all that follows from it.
func build(s *search, w Workshop) *Plan {
	p, r := s.plan, s.job.Reader
	p.Name = r.Name("name", s.brief.Name, "The project")
	p.Copies, _ = r.Count("copies", s.brief.Copies, "How many", MostCopies)
	if len(r.Problems) == 0 {
		if p.Box = s.run(); p.Box != nil {
			p.finish(r, w, s.job)
		}
	}
	p.Problems, p.Warnings = r.Problems, r.Warnings
	if len(p.Problems) > 0 {
		p.Box = nil
	}
	return p
}

// begin reads a brief as far as what is to be built, of what and for what.
func begin(b brief.Brief, w Workshop) *search {
	r := brief.NewReader(&b)
	p := &Plan{Brief: b, Units: r.Units, Step: r.Step}
	job := &box.Job{Reader: r, Options: b.Box.Options}
	p.readCard(b, r, w)
	p.readTools(b, r, job)
	job.Card, job.Adhesive = p.Card, p.Adhesive
	job.Typed, job.Stated = b.Box.Pieces, b.Box.Stated
	s := &search{plan: p, job: job, brief: &b, style: box.Find(string(b.Box.Style))}
	if s.style == nil || !s.style.Typed || len(b.Contents) > 0 || b.Size != nil {
		s.things, _ = p.readSize(b, r, job)
	}
	if s.style == nil {
		r.Problem("box.style", fmt.Sprintf("%q is not a box Brevium knows.", b.Box.Style), "Choose one of the styles shown.")
	}
	return s
}

func (p *Plan) readCard(b brief.Brief, r *brief.Reader, w Workshop) {
	var ok bool
	if p.Card, ok = w.Card(string(b.Card.Stock)); !ok {
		r.Problem("card.stock", fmt.Sprintf("There is no card called %q on the shelf.", b.Card.Stock),
			"Choose one of the cards shown.")
	}
	if p.Sheet, ok = w.Sheet(string(b.Card.Sheet)); !ok {
		r.Problem("card.sheet", fmt.Sprintf("There is no sheet called %q on the shelf.", b.Card.Sheet),
			"Choose one of the sheets shown.")
	}
}

func (p *Plan) readTools(b brief.Brief, r *brief.Reader, job *box.Job) {
	var ok bool
	if job.Slack, ok = fit.Slack[string(b.Tools.Fit)]; !ok {
		r.Problem("tools.fit", fmt.Sprintf("A lid can't fit %q.", b.Tools.Fit), "Choose snug, easy or loose.")
	}
	p.Adhesive = fit.Adhesives[0]
	if b.Tools.Adhesive == "" {
		return
	}
	for _, a := range fit.Adhesives {
		if a.ID == string(b.Tools.Adhesive) {
			p.Adhesive = a
			return
		}
	}
	r.Problem("tools.adhesive", fmt.Sprintf("%q is not something Brevium sticks with.", b.Tools.Adhesive), "Choose tape or glue.")
}

// readSize takes the size to the letter and reads what goes in.
func (p *Plan) readSize(b brief.Brief, r *brief.Reader, job *box.Job) ([]contents.Thing, bool) {
	if s := b.Size; s != nil {
		l, okL := r.Length("size.length", s.Length, "The length")
		w, okW := r.Length("size.width", s.Width, "The width")
		d, okD := r.Length("size.depth", s.Depth, "The depth")
		job.Given = &box.Dims{Length: l, Width: w, Depth: d}
		if len(b.Contents) == 0 {
			return nil, okL && okW && okD
		}
	}
	return contents.Read(&b, r)
}

// finish does all that needs a box: proof, layout, bench, warnings.
func (p *Plan) finish(r *brief.Reader, w Workshop, job *box.Job) {
	largest := 0.0
	takes := false
	for _, s := range w.Sheets {
		largest = max(largest, max(s.Width, s.Height).MM())
		takes = takes || fitsAll(s, p.Box)
	}
	if !takes && p.Brief.Card.Join != "yes" {
		p.tooLarge(r, job)
		return
	}
	if each := p.pieces(); each*p.Copies > MostPieces {
		r.Problem("copies", fmt.Sprintf("%d boxes of %d pieces each are too many to lay out at once.", p.Copies, each),
			fmt.Sprintf("Make at most %d at a time.", max(1, MostPieces/each)))
		return
	}
	p.Blocks = blocks(p.Load, p.Kind, p.Box, job)
	p.Checks = p.Box.Prove(job, p.Blocks)
	p.lay(r, w)
	p.Cards, p.Steps = p.bench(r)
	p.warn(r)
}

// pieces counts what is cut for one box.
func (p *Plan) pieces() (n int) {
	for _, piece := range p.toLay(p.Box, 1) {
		n += piece.Count
	}
	return n
}

func fitsAll(s stock.Sheet, b *box.Box) bool {
	for _, piece := range b.Pieces {
		if !s.Takes(piece.Width, piece.Height) {
			return false
		}
	}
	return true
}

// tooLarge blames the dimension that weighs most in the piece no sheet takes.
func (p *Plan) tooLarge(r *brief.Reader, job *box.Job) {
	size, dim := p.Box.Size, "length"
	if size.Width > size.Length {
		dim = "width"
	}
	if 2*size.Depth > max(size.Length, size.Width) {
		dim = "depth"
	}
	var pieces []string
	for _, piece := range p.Box.Pieces {
		pieces = append(pieces, fmt.Sprintf("the %s %s × %s", piece.Name, r.Say(piece.Width), r.Say(piece.Height)))
	}
	r.Problem(job.SizeField(dim), "This box is larger than every sheet on the shelf: "+strings.Join(pieces, ", ")+".",
		"Make the box smaller or its walls lower, or let large pieces be made of two halves (under Card & fit).")
}

func (p *Plan) lay(r *brief.Reader, w Workshop) {
	p.Layout = layout.Fit(p.toLay(p.Box, p.Copies), p.Sheet.Width, p.Sheet.Height)
	p.Cost = p.Card.Cost(p.Sheet, len(p.Layout.Sheets))
	check := fold.Check{Name: "every piece lies on its sheet", Holds: true,
		Figure: fmt.Sprintf("%d of %s", len(p.Layout.Sheets), p.Sheet.Title)}
	for _, big := range p.Layout.TooBig {
		check.Holds = false
		check.Figure = fmt.Sprintf("the %s is %s × %s, larger than %s", big.Name, r.Say(big.W), r.Say(big.H), p.Sheet.Title)
	}
	if !check.Holds {
		p.Fixes = p.fixes(w)
		fix := "See what would make it fit."
		switch {
		case p.remedies != nil && p.remedies.over():
			fix = "There is too much in this box to look for every remedy: put less in, or choose a larger sheet."
		case len(p.Fixes) == 0:
			fix = "Make the box smaller, or choose a larger sheet."
		}
		r.Warn(brief.Warning{Code: "sheet-too-small", Text: words.Capital(check.Figure) + ".", Fix: fix})
	}
	p.Checks = p.told(append(p.Checks, check))
}

func (p *Plan) bench(r *brief.Reader) ([]bench.ScoreCard, []bench.Step) {
	var cards []bench.ScoreCard
	for _, piece := range p.Box.Pieces {
		c := bench.Card(piece, r.Say, p.Step.Size)
		c.Count *= p.Copies
		c.Says = c.Sentences(r.Say)
		cards = append(cards, c)
	}
	w := bench.Work{Pieces: p.Box.Pieces, Cards: cards, Sheets: len(p.Layout.Sheets), SheetIs: p.Sheet.Title,
		Adhesive: p.Adhesive.Title, Copies: p.Copies, Say: r.Say}
	for _, l := range p.Box.Lids {
		w.Lids = append(w.Lids, l.Piece)
	}
	for _, m := range p.Box.Mounts {
		if m.Closes != "" && len(m.Clears) > 0 {
			w.Lids = append(w.Lids, m.Piece)
		}
	}
	for _, s := range p.Box.Slides {
		w.Lids = append(w.Lids, s.Into)
	}
	w.Together, w.Closing = p.together()
	w.Opens = slices.Concat(p.Box.Opens, p.Box.Seals)
	w.Caution = strings.Join(p.Box.Cautions, " ")
	for _, piece := range p.Box.Pieces {
		if piece.Part == sheet.Insert {
			w.Inside = append(w.Inside, piece.Name)
		}
	}
	w.Joints, w.Care = p.Joints(), p.care()
	w.Contents = p.contents()
	return cards, bench.Steps(w)
}
