package plan

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/sheet"
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
	Remedies    []Fix
}

// carries looks at what the box bears of what goes in it.
func (p *Plan) carries() (out []Carry) {
	grams := p.Load.Grams()
	b := p.Box
	if grams == 0 || len(b.Parts) == 0 || b.Parts[0].Piece == nil {
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
		out = append(out, Carry{Code: code, Name: name, Load: load, Limit: limit, Holds: load <= limit, Text: says})
	}
	limit := p.floorBears(floor, first)
	add("floor", "the floor carries what is in it", grams, limit,
		fmt.Sprintf("%s on the floor; it carries about %s before it is seen to sag.", weight(grams), weight(limit)))
	open, closed, holder := p.wallsHold(walls, first)
	says := fmt.Sprintf("Of %s, about a fifth leans on a wall when the box is tilted. Open, its walls hold about %s "+
		"before a rim is seen to bow", weight(grams), weight(open))
	switch {
	case holder != "":
		says += fmt.Sprintf("; closed, with the %s to help, about %s", holder, weight(closed))
	case closed > open:
		says += "; closed, about " + weight(closed)
	}
	says += "."
	add("walls", "the walls hold what leans on them", grams, closed, says)
	if b.Above == fold.Flat && p.LoadAbove > 0 {
		var panels []strength.Panel
		for _, w := range walls {
			panels = append(panels, p.wall(w, first))
		}
		limit = strength.Stands(panels...)
		add("stack", "the walls bear what stands on them", p.LoadAbove, limit,
			fmt.Sprintf("%s stands on it; its walls bear about %s.", weight(p.LoadAbove), weight(limit)))
	}
	return out
}

// floorBears is how many grams the floor carries, with all that is glued on it or under it.
func (p *Plan) floorBears(side assembly.Side, first *sheet.Piece) float64 {
	c := p.CardOf(first.Stock)
	grain := ""
	if runs := c.Runs(p.SheetOf(c)); p.KeepGrain && runs != "" {
		grain = map[string]string{"height": "width", "width": "length"}[wantsGrain(first)]
	}
	floor := p.panel(side, first, grain)
	across, along := p.beams()
	floor.Length, floor.Width = floor.Length/float64(across+1), floor.Width/float64(along+1)
	return strength.Floor(floor) * float64((across+1)*(along+1))
}

// wallsHold is how many grams the weakest wall holds, open and closed, and which other pieces help when it is closed.
func (p *Plan) wallsHold(walls []assembly.Side, first *sheet.Piece) (open, closed float64, holder string) {
	open, closed = math.Inf(1), math.Inf(1)
	round := 0.0
	for _, w := range walls {
		round += w.Along
	}
	banded := !slices.ContainsFunc(walls, func(w assembly.Side) bool { return w.Band == nil })
	var helpers []string
	for _, w := range walls {
		panel := p.wall(w, first)
		free := strength.Wall(panel, false)
		helped := strength.Wall(panel, w.Holder != "")
		if w.Holder != "" && w.Holder != first.Name {
			helpers = append(helpers, words.Plain(w.Holder))
		}
		if banded {
			helped += strength.Belt{Card: p.cardIn(w.Band), Wide: w.BandHigh - w.BandLow,
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
func (p *Plan) wall(side assembly.Side, first *sheet.Piece) strength.Panel {
	out := p.panel(side, first, "")
	if more := measure.Length(p.Outside)*p.Layer.Caliper - p.skin; more > 0 {
		said := strength.Card{T: more.MM(), GSM: float64(p.Layer.GSM) * float64(more) / float64(p.Layer.Caliper)}
		out.Card = strength.Glued(out.Card, said)
	}
	return out
}

func weight(grams float64) string {
	if grams >= 1000 {
		return fmt.Sprintf("%.1f kg", grams/1000)
	}
	return fmt.Sprintf("%.0f g", math.Round(grams))
}

// panel is a side as one panel: of the mean card there is at its places, or of the first piece's where
// slopes and openings leave none.
func (p *Plan) panel(side assembly.Side, first *sheet.Piece, grain string) strength.Panel {
	c := p.CardOf(first.Stock)
	single := strength.Card{T: cmp.Or(first.Caliper, c.Caliper).MM(), GSM: float64(c.GSM)}
	var places []strength.Card
	for _, glued := range side.Glued {
		var all strength.Card
		for _, b := range glued {
			all = strength.Glued(all, p.cardIn(b))
		}
		if all.T == 0 {
			all = single
		}
		places = append(places, all)
	}
	return strength.Panel{Card: strength.Mean(places...), Length: side.Along, Width: side.High, Grain: grain}
}

func (p *Plan) cardIn(b *fold.Body) strength.Card {
	c := p.CardOf(b.Piece.Stock)
	return strength.Card{T: cmp.Or(b.Piece.Caliper, c.Caliper).MM(), GSM: float64(c.GSM)}
}

// beams counts the dividers that stand on the floor, from front to back and from left
// to right: each is a beam, stuck to the walls at its ends.
func (p *Plan) beams() (across, along int) {
	for _, part := range p.Box.Parts {
		if part.Piece == nil || part.Piece.Part != sheet.Insert || p.Kind == nil || p.Kind.ID != "slotted" {
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

// warnStrength tells what does not bear, with what would.
func (p *Plan) warnStrength(w Workshop) {
	p.Carries = p.carries()
	for i := range p.Carries {
		c := &p.Carries[i]
		if c.Holds {
			continue
		}
		if p.what == whole {
			c.Remedies = p.strengthen(w, c.Code)
		}
		fix, set := "Take heavier card, or carry it from below.", map[string]string(nil)
		if len(c.Remedies) > 0 {
			fix, set = c.Remedies[0].Text, c.Remedies[0].Set
		}
		p.Warn(brief.Warning{Code: "weak-" + c.Code, Text: c.Text + " That is a guide: damp card and poor glue bear less.", Fix: fix, Set: set})
	}
}

// Grain tells of each piece which way its grain should run, and whether it does on
// the sheet it is cut from.
type Grain struct {
	Piece, Says string
	Runs        bool
}

// Grains lists them; nothing where no card's grain is known.
func (p *Plan) Grains() (out []Grain) {
	for _, piece := range p.Box.Pieces() {
		c := p.CardOf(piece.Stock)
		if c.Runs(p.SheetOf(c)) == "" {
			continue
		}
		wants := wantsGrain(piece)
		g := Grain{Piece: piece.Name, Runs: true, Says: map[string]string{"height": "up and down, as it is drawn",
			"width": "left to right, as it is drawn"}[wants]}
		for _, cut := range p.Cuts {
			for _, s := range cut.Sheets {
				for _, l := range s.Placed {
					if l.Piece == piece.Name && (c.Runs(cut.Sheet) == wants) == l.Turned {
						g.Runs = false
					}
				}
			}
		}
		if !g.Runs {
			g.Says += "; on the sheet it lies the other way"
			if c.Directed() {
				g.Says += ", because its pattern must stand upright"
			}
		}
		out = append(out, g)
	}
	return out
}
