// Package costs reckons what a job takes of a shop and what it costs: card by its part and by its pack, tape, glue and
// what closes it, the work, and what to ask for one.
package costs

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/bench"
	"brevium/core/cutting"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/core/shop"
	"brevium/core/words"
)

// What a box takes, and what it costs.

// CostLine is one thing that is paid for.
type CostLine struct {
	What   string
	Amount string // for all of them
	All    int64  // what is used up, in hundredths of a coin
	Packs  string // what is bought for it
	Buy    int64
	Known  bool // its price is known
}

// Cost is what all that is made costs, and what to ask for one.
type Cost struct {
	Boxes   int
	Parts   []CostLine // card, by what it is for
	Cards   []CostLine // card, by the sheet and the pack
	Rest    []CostLine // tape, closures, ribbon
	All     int64      // what is used up
	Buy     int64      // what is bought in whole packs
	Minutes float64    // for all
	Work    int64
	Ask     int64    // for one, with the margin; 0 when no wage is known
	Unknown []string // what has no price yet
}

// One is the cost of one box out of all that are made.
func (c Cost) One() int64 { return Each(c.All, c.Boxes) }

// WorkOne is the work on one box.
func (c Cost) WorkOne() int64 { return Each(c.Work, c.Boxes) }

// Said tells a sum of these costs, written by coins: as the least it can be where some price is not known, and not at
// all where none is.
func (c Cost) Said(n int64, coins func(int64) string) string {
	switch {
	case len(c.Unknown) == 0:
		return coins(n)
	case n == 0:
		return "not known"
	}
	return "at least " + coins(n)
}

// Each is what one box costs, in hundredths.
func Each(all int64, n int) int64 { return (all + int64(n) - 1) / int64(max(n, 1)) }

// Reckon reckons what a job costs at the prices of a shop and a maker's pace.
func Reckon(j sets.Job, w request.Workshop, pace bench.Pace) Cost {
	c := Cost{Boxes: Boxes(j), Minutes: pace.Whole(j.Steps)}
	c.Parts = byPart(j)
	for _, p := range c.Parts {
		c.All += p.All
	}
	c.Cards = byCard(j, w)
	for _, l := range c.Cards {
		c.Buy += l.Buy
		if !l.Known {
			c.Unknown = append(c.Unknown, l.What)
		}
	}
	c.Rest = supplies(j, w)
	for _, l := range c.Rest {
		c.All, c.Buy = c.All+l.All, c.Buy+l.Buy
		if !l.Known {
			c.Unknown = append(c.Unknown, l.What)
		}
	}
	wage := w.Prices["wage"].Coins
	c.Work = int64(math.Round(float64(wage) * c.Minutes / 60))
	if wage > 0 {
		margin := w.Prices["margin"].Coins // hundredths of a percent
		c.Ask = Each(int64(math.Ceil(float64(c.All+c.Work)*(1+float64(margin)/10_000))), c.Boxes)
	}
	return c
}

// Boxes is how many are made: of a set, how many sets.
func Boxes(j sets.Job) int {
	switch {
	case j.Set != nil:
		return max(1, j.Set.Sets)
	case j.Made > 0:
		return j.Made
	}
	return j.Plans[0].Copies
}

// byPart shares what each sheet costs among what is cut from it, by area.
func byPart(j sets.Job) (out []CostLine) {
	cost, area, pieces := map[string]float64{}, map[string]float64{}, map[string]int{}
	var order []string
	total := int64(0)
	for _, c := range j.Cuts {
		price := c.Cost()
		total += price
		whole := 0.0
		for _, s := range c.Sheets {
			for _, it := range s.Placed {
				whole += it.Rect.Area()
			}
		}
		for _, s := range c.Sheets {
			for _, it := range s.Placed {
				part := partOf(j, it.Piece)
				if !slices.Contains(order, part) {
					order = append(order, part)
				}
				a := it.Rect.Area()
				cost[part], area[part] = cost[part]+float64(price)*a/whole, area[part]+a
				pieces[part]++
			}
		}
	}
	left := total
	for i, part := range order {
		l := CostLine{What: part, Amount: fmt.Sprintf("%s, %s", words.Count(pieces[part], "piece"), areaSaid(j, area[part])),
			All: int64(math.Round(cost[part])), Known: cost[part] > 0}
		if i == len(order)-1 {
			l.All = left // what rounding left over
		}
		left -= l.All
		out = append(out, l)
	}
	return out
}

func areaSaid(j sets.Job, mm2 float64) string {
	if j.Plans[0].Step.Unit == measure.Inches {
		return fmt.Sprintf("%.0f sq in", mm2/645.16)
	}
	return fmt.Sprintf("%.0f cm²", mm2/100)
}

// partOf is what something on a sheet is for: the box itself, an insert, a layer.
func partOf(j sets.Job, name string) string {
	if p, own, ok := j.Called(name); ok {
		own, _, _ = strings.Cut(own, ", ")
		if piece := p.Box.Piece(own); piece != nil {
			return map[net.Part]string{net.Box: "the box", net.Insert: "inside", net.Layer: "layers", net.Liner: "liners",
				net.Band: "bands", net.Topper: "toppers", net.Handle: "handles", net.Bow: "bows"}[piece.Part]
		}
	}
	return "layers" // a strip that several are cut from
}

// Needs is what cuts take of a shop, a line for each size of a card: of cards as they are
// there now, whatever a box was planned with, where the shop says anything of them.
func Needs(cuts []cutting.Cut, w request.Workshop) (needs []shop.Need) {
	for _, c := range cuts {
		if c.Offcut || len(c.Sheets) == 0 {
			continue
		}
		i := slices.IndexFunc(needs, func(n shop.Need) bool { return n.Card.ID == c.Card.ID && n.Sheet.Same(c.Sheet) })
		if i < 0 {
			if now, ok := w.Card(c.Card.ID); ok && (now.Each > 0 || now.Hand > 0 || now.Pack > 0) {
				c.Card = now
			}
			i, needs = len(needs), append(needs, shop.Need{Card: c.Card, Sheet: c.Sheet})
		}
		needs[i].Count += len(c.Sheets)
	}
	return needs
}

// byCard lists the sheets, with what is bought for them.
func byCard(j sets.Job, w request.Workshop) (out []CostLine) {
	for _, b := range shop.Shopping(Needs(j.Cuts, w)) {
		l := CostLine{What: b.Card.Title, Amount: fmt.Sprintf("%d of %s", b.Count, b.Sheet.Title),
			All: b.Card.Cost(b.Sheet, b.Count), Buy: b.Price, Known: b.Card.Each > 0}
		switch {
		case b.Short == 0:
			l.Packs = "in hand"
		case b.Packs > 0:
			l.Packs = words.Count(b.Packs, "pack")
		default:
			l.Packs = words.Count(b.Short, "sheet")
		}
		out = append(out, l)
	}
	return out
}

// dotOfGlue is how much glue a dot of the glue map takes, in millilitres.
const dotOfGlue = 0.02

// supplies lists what is no card: tape or glue, and what closes and ties.
func supplies(j sets.Job, w request.Workshop) (out []CostLine) {
	amounts := map[string]float64{}
	others := map[string]int{}
	for _, p := range j.Plans {
		amounts["tape"] += p.Guide.Tape.Long().MM()
		amounts["glue"] += glueOf(p)
		all := slices.Clone(p.Box.Supplies)
		if p.Dressed != nil {
			all = append(all, p.Dressed.Supplies...)
		}
		for _, s := range all {
			k, ok := shop.PriceOf(s.What)
			n := s.Count * p.Copies
			switch {
			case s.Tool:
			case !ok:
				others[s.What] += n
			case k.By == shop.ByLength:
				amounts[k.ID] += s.Length.MM() * float64(n)
			default:
				amounts[k.ID] += float64(n)
			}
		}
	}
	for _, k := range shop.PriceKinds {
		amount := amounts[k.ID]
		if amount <= 0 {
			continue
		}
		l := CostLine{What: k.Label, Amount: amountSaid(j, k.By, amount)}
		if p, ok := w.Prices[k.ID]; ok {
			n := p.Packs(amount)
			l.Known, l.All, l.Packs, l.Buy = true, p.Share(amount), words.Count(n, "pack"), p.Coins*int64(n)
		}
		out = append(out, l)
	}
	names := make([]string, 0, len(others))
	for name := range others {
		names = append(names, name)
	}
	slices.SortFunc(names, cmp.Compare)
	for _, name := range names {
		out = append(out, CostLine{What: name, Amount: fmt.Sprint(others[name])})
	}
	return out
}

// glueOf is how much wet glue all copies take, in millilitres.
func glueOf(p *plan.Plan) (ml float64) {
	for _, piece := range p.Box.Pieces() {
		for _, s := range p.Glue().Spreads(piece) {
			if !s.Taped {
				ml += dotOfGlue * float64(len(s.Dots)*piece.Count*p.Copies)
			}
		}
	}
	return ml
}

func amountSaid(j sets.Job, by shop.By, amount float64) string {
	switch by {
	case shop.ByLength:
		return j.Plans[0].Say(measure.FromMM(amount).Up(10 * j.Plans[0].Step.Size))
	case shop.ByVolume:
		return fmt.Sprintf("about %.1f ml", amount)
	}
	return fmt.Sprint(int(amount))
}
