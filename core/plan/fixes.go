package plan

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/sheet"
	"brevium/core/shop"
	"brevium/core/style"
)

// Fix is a change that would bring every piece on to its sheet: what, by how
// much, and the fields that do it.
type Fix struct {
	Text string            `json:"text"`
	Set  map[string]string `json:"set"`
}

// fixes looks for the smallest changes that bring every piece on to the sheet
// that was chosen.
func (p *Plan) fixes(shelf Workshop) (out []Fix) {
	w := shelf
	w.only = &p.Sheet
	// They are tried by their sizes; what closes the box must find its place too.
	out = slices.DeleteFunc(p.slighter(w), func(f Fix) bool { return !p.affords(2) || len(troubles(p.with(f.Set), w)) > 0 })
	for _, s := range shelf.sheets(p.Card) {
		if p.takesAll(s) && s.ID != p.Sheet.ID {
			out = append(out, Fix{"Cut it from " + s.Title + ".", map[string]string{"card.sheet": s.ID}})
			break
		}
	}
	if set := map[string]string{"card.join": "yes"}; len(p.Layout.TooBig) > 0 && p.tries(w, set) {
		out = append(out, Fix{fmt.Sprintf("Make the %s of two halves with a strip of %s behind the joint.",
			p.Layout.TooBig[0].Name,
			p.Say(2*p.Adhesive.Width.Up(p.Step.Size))), set})
	}
	return out
}

// with gives the brief with a change made.
func (p *Plan) with(set map[string]string) brief.Brief {
	b := p.Brief.Clone()
	for field, text := range set {
		b.Set(field, text)
	}
	return b
}

// slighter looks for what would be a little less of: allowances, another
// arrangement, finger room, a measure of the style's, the walls.
func (p *Plan) slighter(w Workshop) (out []Fix) {
	add := func(text string, set map[string]string) {
		if p.tries(w, set) {
			out = append(out, Fix{text, set})
		}
	}
	if !p.Plain {
		add("Plain numbers, without allowances for the card's thickness: where it binds, a sliver is trimmed by eye.",
			map[string]string{"tools.allowances": "plain"})
	}
	for _, way := range p.Ways[:min(6, len(p.Ways))] { // the likeliest: each is planned anew
		if way.ID != p.Load.ID && len(out) < 2 {
			n := len(out)
			if add("Arrange them "+way.Says+".", map[string]string{"arrange.way": way.ID}); len(out) > n {
				break
			}
		}
	}
	if around := p.Load.Room.Around; around > 0 {
		set := func(at measure.Length) map[string]string { return map[string]string{"room.around": at.Exact(p.Units)} }
		if at, ok := p.largest(0, around, func(at measure.Length) bool { return p.tries(w, set(at)) }); ok {
			out = append(out, Fix{fmt.Sprintf("Finger room of %s in place of %s.", p.Say(at), p.Say(around)), set(at)})
		}
	}
	return append(append(out, p.shorter(w)...), p.lower(w)...)
}

// over is how much the largest piece is too large for its sheet.
func (p *Plan) over() (most measure.Length) {
	for _, piece := range p.Box.Pieces() {
		upright := max(piece.Width-p.Sheet.Width, piece.Height-p.Sheet.Height)
		turned := max(piece.Height-p.Sheet.Width, piece.Width-p.Sheet.Height)
		if l := p.onSheet(piece, 1); l.Upright {
			turned = upright
		} else if l.Across {
			upright = turned
		}
		most = max(most, min(upright, turned))
	}
	return most
}

// shorter tries each length among the style's questions, less by what is too
// much: a shorter seam, a shorter lap of the band, a lower flap.
func (p *Plan) shorter(w Workshop) (out []Fix) {
	over := p.over().Up(p.Step.Size)
	for _, q := range p.Style.Asks {
		now, settled := p.Box.Settled[q.ID]
		if !settled || len(q.Choices) > 0 {
			continue
		}
		for _, less := range []measure.Length{(over / 2).Up(p.Step.Size), over} {
			at := (now - less).Down(p.Step.Size)
			set := map[string]string{"box.options." + q.ID: at.Exact(p.Units)}
			if at > 0 && p.tries(w, set) {
				out = append(out, Fix{fmt.Sprintf("%s: %s in place of %s.", q.Label, p.Say(at), p.Say(now)), set})
				break
			}
		}
	}
	return out
}

// lower tries lower walls: of a given size, or of the lid.
func (p *Plan) lower(w Workshop) (out []Fix) {
	if p.Given != nil {
		high := p.Box.Size.Depth
		set := func(at measure.Length) map[string]string { return map[string]string{"size.depth": at.Exact(p.Units)} }
		if at, ok := p.largest((high / 2).Up(p.Step.Size), high,
			func(at measure.Length) bool { return p.tries(w, set(at)) }); ok {
			return []Fix{{fmt.Sprintf("Walls of %s in place of %s.", p.Say(at), p.Say(high)), set(at)}}
		}
	}
	set := map[string]string{"box.options.lid": "short", "box.options.lid-height": "", "box.options.reveal": ""}
	if p.Answers.Choice["lid"] == "full" && p.tries(w, set) {
		return []Fix{{"A short lid in place of a full one.", set}}
	}
	return nil
}

// tooLarge refuses a box that no sheet on the shelf takes. It blames the measure
// that decides: the change that is least of what it changes.
func (p *Plan) tooLarge(w Workshop, job *style.Job) {
	var pieces []string
	var large *sheet.Piece // the first
	p.large = true
	for _, piece := range p.Box.Pieces() {
		l := p.onSheet(piece, 1)
		if !slices.ContainsFunc(w.sheets(p.CardOf(piece.Stock)), func(s shop.Sheet) bool { return l.Lies(s.Width, s.Height) }) {
			says := fmt.Sprintf("the %s %s × %s", piece.Name, p.Say(piece.Width), p.Say(piece.Height))
			if over, on := nearestSheet(l, w.sheets(p.CardOf(piece.Stock))); over > 0 {
				says += fmt.Sprintf(", %s too large for %s", p.Say(over), on.Title)
			}
			pieces = append(pieces, says)
			large = cmp.Or(large, piece)
		}
	}
	text := "This box is larger than every sheet on the shelf: " + strings.Join(pieces, "; ") + "."
	if len(pieces) == 0 {
		text = "No one sheet on the shelf takes every piece of this box."
	}
	if len(job.Scores) > 0 {
		p.Problem(typedSide(job.Scores, large), text,
			"Let large pieces be made of two halves (under Card & fit), or put a larger sheet on the shelf.",
			"card.join", "yes")
		return
	}
	var fixes []Fix
	if p.what == whole {
		fixes = p.slighter(w)
	}
	holds := func(f Fix) bool { return build(Read(p.with(f.Set), w), w, shown, nil).OK() }
	if i := slices.IndexFunc(fixes, holds); i >= 0 {
		f := fixes[i]
		var set []string
		for field, to := range brief.Sorted(f.Set) {
			set = append(set, field, to)
		}
		p.Problem(set[0], text, f.Text, set...)
		return
	}
	dim, at := p.deciding(w)
	fix := "No one measure decides: make it smaller in more than one"
	if at > 0 {
		fix = fmt.Sprintf("Make it %s %s", p.Say(at),
			map[string]string{"length": "long", "width": "from front to back", "depth": "high"}[dim])
	}
	p.Problem(job.SizeField(dim), text, fix+", or let large pieces be made of two halves (under Card & fit).", "card.join",
		"yes")
}

// nearestSheet is the sheet that a piece misses by least, and by how much: the way it misses it more.
func nearestSheet(l layout.Piece, sheets []shop.Sheet) (over measure.Length, on shop.Sheet) {
	for _, s := range sheets {
		miss := max(0, l.W-s.Width, l.H-s.Height)
		if !l.Upright {
			miss = min(miss, max(0, l.H-s.Width, l.W-s.Height))
		}
		if on.ID == "" || miss < over {
			over, on = miss, s
		}
	}
	return over, on
}

// typedSide is the field of the longer side of a piece of a list of scores; of no one
// piece, the sheet's.
func typedSide(rows []style.Scored, piece *sheet.Piece) string {
	for _, row := range rows {
		if piece == nil || row.Name != piece.Name {
			continue
		}
		if piece.Width > piece.Height {
			return row.Field + "width"
		}
		return row.Field + "height"
	}
	return "card.sheet"
}

// deciding finds the dimension that must be changed least, of what it is, for
// every piece to have a sheet; or when no one dimension will do, the largest.
func (p *Plan) deciding(w Workshop) (dim string, at measure.Length) {
	size, largest, best := p.Box.Size, measure.Length(0), 0.0
	empty := p.Brief.Clone()
	empty.Contents, empty.Arrange = nil, brief.Arrange{}
	for _, d := range []struct {
		name string
		of   *measure.Length
	}{{"length", &size.Length}, {"width", &size.Width}, {"depth", &size.Depth}} {
		now := *d.of
		if best == 0 && now > largest {
			dim, largest = d.name, now
		}
		to, ok := p.less(now, func(l measure.Length) bool {
			*d.of = l
			text := func(l measure.Length) brief.Text { return brief.Text(l.Exact(p.Units)) }
			empty.Size = &brief.Size{Length: text(size.Length), Width: text(size.Width), Depth: text(size.Depth)}
			return p.what == whole && p.hasSheets(empty, w)
		})
		*d.of = now
		if share := to.MM() / now.MM(); ok && share > best {
			dim, at, best = d.name, to, share
		}
	}
	return dim, at
}

// less finds how much less of a length will do: by tenths, until it does, and
// then by halving. A box much too small is refused for other reasons.
func (p *Plan) less(whole measure.Length, will func(measure.Length) bool) (measure.Length, bool) {
	above := whole
	for tenths := measure.Length(9); tenths > 0; tenths-- {
		at := (whole * tenths / 10).Down(p.Step.Size)
		if at > 0 && will(at) {
			if finer, ok := p.largest(at, above, will); ok {
				return finer, true
			}
			return at, true
		}
		above = at
	}
	return 0, false
}

// largest finds the largest length on a mark, from low and below high, that will
// do. What does at a length is taken to do below it, so halving finds it in a
// dozen tries, however far apart the two are.
func (p *Plan) largest(low, high measure.Length, will func(measure.Length) bool) (measure.Length, bool) {
	step := p.Step.Size
	low, high = low.Up(step), (high - 1).Down(step)
	if low > high || !will(low) {
		return 0, false
	}
	for low < high {
		if mid := (low + high + step) / 2; will(mid.Down(step)) {
			low = mid.Down(step)
		} else {
			high = mid.Down(step) - step
		}
	}
	return low, true
}

// tries says whether a change gives a plan whose pieces have a sheet that takes
// them all.
func (p *Plan) tries(w Workshop, set map[string]string) bool {
	return p.hasSheets(p.with(set), w)
}

// hasSheets is tries for a brief that was changed already.
func (p *Plan) hasSheets(b brief.Brief, w Workshop) bool {
	if !p.affords(1) {
		return false
	}
	got := sketch(b, w, true, nil)
	return got != nil && slices.ContainsFunc(w.sheets(got.Card), got.takesAll)
}

// sketch plans a brief as far as its pieces, without faces, proof or layout;
// nil when that can't be. For their sizes alone they are not laid on sheets. What
// the card takes is measured, unless it is known.
func sketch(b brief.Brief, w Workshop, sizes bool, taken *style.Dims) *Plan {
	p := &Plan{Request: Read(b, w), taken: taken}
	if len(p.Problems) > 0 {
		return nil
	}
	s := newSearch(p)
	s.hasty, s.sizes = true, sizes
	if p.Box = s.run(); p.Box == nil || len(p.Problems) > 0 {
		return nil
	}
	return p
}
