package advice

import (
	"fmt"
	"slices"

	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
)

// fixes looks for the smallest changes that bring every piece on to the sheet that was chosen.
func (a *adviser) fixes(shelf request.Workshop) (out []brief.Fix) {
	w := shelf
	w.Only = &a.Sheet
	// They are tried by their sizes; what closes the box must find its place too.
	out = slices.DeleteFunc(a.slighter(w), func(f brief.Fix) bool {
		return !a.affords(2) || len(a.Try(a.With(f.Set), f.Set, w).Troubles()) > 0
	})
	for _, s := range shelf.SheetsOf(a.Card) {
		if a.TakesAll(s) && s.ID != a.Sheet.ID {
			out = append(out, brief.Fix{Text: "Cut it from " + s.Title + ".", Set: brief.To("card.sheet", s.ID)})
			break
		}
	}
	if set := brief.To("card.join", "yes"); len(a.Layout.TooBig) > 0 && a.tries(w, set) {
		out = append(out, brief.Fix{Text: fmt.Sprintf("Make the %s of two halves with a strip of %s behind the joint.",
			a.Layout.TooBig[0].Name, a.Say(2*a.Adhesive.Width.Up(a.Step.Size))), Set: set})
	}
	return out
}

// slighter tries small savings: plain numbers, another arrangement, less finger room, a shorter length among the
// answers, lower walls.
func (a *adviser) slighter(w request.Workshop) (out []brief.Fix) {
	add := func(text string, set brief.Changes) {
		if a.tries(w, set) {
			out = append(out, brief.Fix{Text: text, Set: set})
		}
	}
	if !a.Plain {
		add("Use plain numbers, with no allowance for the card's thickness. Trim a sliver where it binds.",
			brief.To("tools.allowances", "plain"))
	}
	for _, way := range a.Ways[:min(6, len(a.Ways))] { // the likeliest: each is planned anew
		if way.ID != a.Load.ID && len(out) < 2 {
			n := len(out)
			if add("Arrange them "+way.Says+".", brief.To("arrange.way", way.ID)); len(out) > n {
				break
			}
		}
	}
	if around := a.Load.Room.Around; around > 0 {
		set := func(at measure.Length) brief.Changes { return brief.To("room.around", at.Exact(a.Units)) }
		if at, ok := greatest(a.Step.Size, 0, around, func(at measure.Length) bool { return a.tries(w, set(at)) }); ok {
			out = append(out, brief.Fix{Text: fmt.Sprintf("Finger room of %s instead of %s.", a.Say(at), a.Say(around)), Set: set(at)})
		}
	}
	return append(append(out, a.shorter(w)...), a.lower(w)...)
}

// over is how much the largest piece is too large for its sheet.
func (a *adviser) over() (most measure.Length) {
	for _, piece := range a.Box.Pieces() {
		upright := max(piece.Width-a.Sheet.Width, piece.Height-a.Sheet.Height)
		turned := max(piece.Height-a.Sheet.Width, piece.Width-a.Sheet.Height)
		if l := a.OnSheet(piece, 1); l.Upright {
			turned = upright
		} else if l.Across {
			upright = turned
		}
		most = max(most, min(upright, turned))
	}
	return most
}

// shorter tries each length among the answers, made shorter by what the piece is too large: a seam, the lap of a
// band, a flap.
func (a *adviser) shorter(w request.Workshop) (out []brief.Fix) {
	over := a.over().Up(a.Step.Size)
	for _, q := range a.Style.Asks {
		now, settled := a.Box.Settled[q.ID]
		if !settled || len(q.Choices) > 0 {
			continue
		}
		for _, less := range []measure.Length{(over / 2).Up(a.Step.Size), over} {
			at := (now - less).Down(a.Step.Size)
			set := brief.To("box.options."+q.ID, at.Exact(a.Units))
			if at > 0 && a.tries(w, set) {
				out = append(out, brief.Fix{Text: fmt.Sprintf("%s: %s instead of %s.", q.Label, a.Say(at), a.Say(now)), Set: set})
				break
			}
		}
	}
	return out
}

// lower tries lower walls: of a given size, or of the lid.
func (a *adviser) lower(w request.Workshop) (out []brief.Fix) {
	if a.Given != nil {
		high := a.Box.Size.Depth
		set := func(at measure.Length) brief.Changes { return brief.To("size.depth", at.Exact(a.Units)) }
		if at, ok := greatest(a.Step.Size, (high / 2).Up(a.Step.Size), high,
			func(at measure.Length) bool { return a.tries(w, set(at)) }); ok {
			return []brief.Fix{{Text: fmt.Sprintf("Walls of %s instead of %s.", a.Say(at), a.Say(high)), Set: set(at)}}
		}
	}
	return slices.DeleteFunc(a.Style.Remedies(style.Slighter, a.Answers), func(f brief.Fix) bool { return !a.tries(w, f.Set) })
}

// tooLarge looks for the smallest change, in proportion, that makes a box small enough for some sheet.
func (a *adviser) tooLarge() {
	r := a.Refused
	if r == nil || len(r.Scores) > 0 {
		return
	}
	a.Box = r.Box // to be tried with
	defer func() { a.Box = nil }()
	a.Problems = slices.DeleteFunc(a.Problems, func(p brief.Problem) bool { return p.Text == r.Says })
	for _, f := range a.slighter(a.w) {
		if len(a.Try(a.With(f.Set), f.Set, a.w).Refusals()) == 0 {
			a.Refuse(brief.Problem{Field: f.Set[0].Field, Text: r.Says, Fix: f.Text, Set: f.Set})
			return
		}
	}
	dim, at := a.deciding(a.w)
	a.Problem(a.SizeField(dim), r.Says, r.Fix(dim, at, a.Say), "card.join", "yes")
}

// deciding finds the dimension that has to change least, in proportion, for every piece to have a sheet; where no
// one dimension will do, the largest.
func (a *adviser) deciding(w request.Workshop) (dim string, at measure.Length) {
	size, largest, best := a.Box.Size, measure.Length(0), 0.0
	empty := a.Brief.Clone()
	empty.Contents, empty.Arrange = nil, brief.Arrange{}
	for _, d := range []struct {
		name string
		of   *measure.Length
	}{{"length", &size.Length}, {"width", &size.Width}, {"depth", &size.Depth}} {
		now := *d.of
		if best == 0 && now > largest {
			dim, largest = d.name, now
		}
		to, ok := a.less(now, func(l measure.Length) bool {
			*d.of = l
			text := func(l measure.Length) brief.Text { return brief.Text(l.Exact(a.Units)) }
			empty.Size = &brief.Size{Length: text(size.Length), Width: text(size.Width), Depth: text(size.Depth)}
			return a.hasSheets(empty, w)
		})
		*d.of = now
		if share := to.MM() / now.MM(); ok && share > best {
			dim, at, best = d.name, to, share
		}
	}
	return dim, at
}

// less finds how much must be taken off a length: by tenths until it does, then by halving. A box that became much
// too small is refused for other reasons.
func (a *adviser) less(whole measure.Length, will func(measure.Length) bool) (measure.Length, bool) {
	above := whole
	for tenths := measure.Length(9); tenths > 0; tenths-- {
		at := (whole * tenths / 10).Down(a.Step.Size)
		if at > 0 && will(at) {
			if finer, ok := greatest(a.Step.Size, at, above, will); ok {
				return finer, true
			}
			return at, true
		}
		above = at
	}
	return 0, false
}

// greatest finds the greatest length on a mark, from low and below high, that will do. What does at a length is
// taken to do below it, so halving finds it in a dozen tries, however far apart the two are.
func greatest(step, low, high measure.Length, will func(measure.Length) bool) (measure.Length, bool) {
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

// tries reports whether a change gives a plan whose pieces have a sheet that takes them all.
func (a *adviser) tries(w request.Workshop, set brief.Changes) bool {
	return a.hasSheets(a.With(set), w)
}

// hasSheets is tries for a brief that was changed already.
func (a *adviser) hasSheets(b brief.Brief, w request.Workshop) bool {
	if !a.affords(1) {
		return false
	}
	got := plan.Draft(b, w)
	return got != nil && slices.ContainsFunc(w.SheetsOf(got.Card), got.TakesAll)
}
