package readings

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/cutting"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/strength"
	"brevium/core/words"
)

// Carry is one thing a box must bear: how much there is, how much it bears, and what
// would make it bear more, the least card first.
type Carry struct {
	Code        string // floor, walls or stack
	Name        string
	Load, Limit float64 // grams
	Holds       bool
	Text        string
	Remedies    []brief.Fix
}

// Carries looks at what the box bears of what goes in it.
func Carries(p *plan.Plan) (out []Carry) {
	grams := p.Load.Grams()
	b := p.Box
	if b == nil || grams == 0 || len(b.Parts) == 0 || b.Parts[0].Piece == nil {
		return nil
	}
	stands := b.Proved
	if len(b.Rooms) > 0 { // each small box bears its own
		grams, b = 0, b.Rooms[0].Box
		stands = b.Assemble(p.Card.Caliper, assembly.Closed)
		for _, r := range p.Rooms {
			grams = max(grams, r.Load.Grams())
		}
	}
	first := b.Parts[0].Piece
	floor, walls := b.Sides(stands)
	if len(walls) == 0 {
		return nil
	}
	add := func(code, name string, load, limit float64, says string) {
		out = append(out, Carry{Code: code, Name: name, Load: load, Limit: limit, Holds: load <= limit, Text: says,
			Remedies: p.Advice.Stronger[code]})
	}
	limit := floorBears(p, floor, first)
	add("floor", "the floor holds the weight", grams, limit,
		fmt.Sprintf("The floor has %s on it. It holds about %s before you see it sag.", Weight(grams), Weight(limit)))
	open, closed, holder := wallsHold(p, walls, first)
	says := fmt.Sprintf("About a fifth of %s leans on a wall when you tilt the box. Open, the walls hold about %s "+
		"before a rim bows", Weight(grams), Weight(open))
	switch {
	case holder != "":
		says += fmt.Sprintf("; closed, with the %s to help, about %s", holder, Weight(closed))
	case closed > open:
		says += "; closed, about " + Weight(closed)
	}
	says += "."
	add("walls", "the walls hold when the box is tilted", grams, closed, says)
	if b.Above == fold.Flat && p.Above > 0 {
		var panels []strength.Panel
		for _, w := range walls {
			panels = append(panels, wall(p, w, first))
		}
		limit = strength.Stands(panels...)
		add("stack", "the walls hold what stands on them", p.Above, limit,
			fmt.Sprintf("%s stands on it. Its walls hold about %s.", Weight(p.Above), Weight(limit)))
	}
	return out
}

// floorBears is how many grams the floor carries, with all that is glued on it or under it.
func floorBears(p *plan.Plan, side assembly.Side, first *net.Piece) float64 {
	c := p.CardOf(first.Stock)
	grain := ""
	if runs := c.Runs(p.SheetOf(c)); p.KeepGrain && runs != "" {
		grain = map[string]string{"height": "width", "width": "length"}[cutting.WantsGrain(first)]
	}
	floor := panel(p, side, first, grain)
	across, along := beams(p)
	floor.Length, floor.Width = floor.Length/float64(across+1), floor.Width/float64(along+1)
	return strength.Floor(floor) * float64((across+1)*(along+1))
}

// wallsHold is how many grams the weakest wall holds, open and closed, and which other pieces help when it is closed.
func wallsHold(p *plan.Plan, walls []assembly.Side, first *net.Piece) (open, closed float64, holder string) {
	open, closed = math.Inf(1), math.Inf(1)
	round := 0.0
	for _, w := range walls {
		round += w.Along
	}
	banded := !slices.ContainsFunc(walls, func(w assembly.Side) bool { return w.Band == nil })
	var helpers []string
	for _, w := range walls {
		panel := wall(p, w, first)
		free := strength.Wall(panel, false)
		helped := strength.Wall(panel, w.Holder != "")
		if w.Holder != "" && w.Holder != first.Name {
			helpers = append(helpers, words.Plain(w.Holder))
		}
		if banded {
			helped += strength.Belt{Ply: cardIn(p, w.Band), Wide: w.BandHigh - w.BandLow,
				Up: (w.BandHigh + w.BandLow) / 2, Round: round}.Helps(panel)
			helpers = append(helpers, words.Plain(w.Band.Name))
		}
		open, closed = min(open, free), min(closed, helped)
	}
	slices.Sort(helpers)
	if closed > open {
		holder = words.List(slices.Compact(helpers))
	}
	return open, closed, holder
}

// wall is a wall as one panel, with the layers that are only said to lie on it, as far as none are planned there.
func wall(p *plan.Plan, side assembly.Side, first *net.Piece) strength.Panel {
	out := panel(p, side, first, "")
	if more := measure.Length(p.Outside)*p.Layer.Caliper - p.Skin; more > 0 {
		said := strength.Ply{T: more.MM(), GSM: float64(p.Layer.GSM) * float64(more) / float64(p.Layer.Caliper)}
		out.Ply = strength.Glued(out.Ply, said)
	}
	return out
}

// Weight writes a weight for people, in grams or kilograms.
func Weight(grams float64) string {
	if grams >= 1000 {
		return fmt.Sprintf("%.1f kg", grams/1000)
	}
	return fmt.Sprintf("%.0f g", math.Round(grams))
}

// panel is a side as one panel: of the mean card there is at its places, or of the first piece's where
// slopes and openings leave none.
func panel(p *plan.Plan, side assembly.Side, first *net.Piece, grain string) strength.Panel {
	c := p.CardOf(first.Stock)
	single := strength.Ply{T: cmp.Or(first.Caliper, c.Caliper).MM(), GSM: float64(c.GSM)}
	var places []strength.Ply
	for _, glued := range side.Glued {
		var all strength.Ply
		for _, b := range glued {
			all = strength.Glued(all, cardIn(p, b))
		}
		if all.T == 0 {
			all = single
		}
		places = append(places, all)
	}
	return strength.Panel{Ply: strength.Mean(places...), Length: side.Along, Width: side.High, Grain: grain}
}

func cardIn(p *plan.Plan, b *fold.Body) strength.Ply {
	c := p.CardOf(b.Piece.Stock)
	return strength.Ply{T: cmp.Or(b.Piece.Caliper, c.Caliper).MM(), GSM: float64(c.GSM)}
}

// beams counts the dividers that stand on the floor, from front to back and from left
// to right: each is a beam, stuck to the walls at its ends.
func beams(p *plan.Plan) (across, along int) {
	for _, part := range p.Box.Parts {
		if part.Piece == nil || part.Piece.Part != net.Insert || p.Kind == nil || p.Kind.ID != "slotted" {
			continue
		}
		for _, at := range part.At {
			if at.Quarters&1 == 1 {
				across++
			} else {
				along++
			}
		}
	}
	return across, along
}
