// Package dress is what goes on, in and round a box: layers, liners, windows, grips,
// toppers, bands, ribbon, handles, bows and what holds it closed.
//
// It works on the folded box. Panels are found on it, with what shows of them; a layer is a panel's outline moved
// inwards; liners are cut to the room that was measured; a band goes round the true outside. Each becomes a part of
// the same tree as walls and lids, so that it is drawn, proved, laid out and cut like any other.
package dress

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/shop"
	"brevium/core/wish"
	"brevium/core/words"
)

type Length = measure.Length

const mm, inch = measure.Millimetre, measure.Inch

// Means is what a box is dressed with.
type Means struct {
	*brief.Report
	T      Length // of the box's card
	Card   func(stock string) shop.Card
	Sticks shop.Adhesive
	Tools  shop.Tools
	Ease   Length   // of what slides over something
	Plain  bool     // plain numbers
	Mass   float64  // grams that go in
	Tucks  []string // the field of the style by which what closes the box is tucked in, and the answer; nil where none does
}

// Dressed is a box's dressing: what was cut for it, bought for it, and is said of it.
type Dressed struct {
	Laid     []Laid
	Supplies []Supply
	Runs     []Run
	Motifs   []Motif
	Flat     []string // what is stuck on while all is flat
	Before   []string // what is put on before anything goes in
	Last     []string // what goes on or round the closed box
	Finishes []Finishing
	Skins    [][]Length // of each clearance, side by side: how thick what lies under what goes over is
	Panels   []*Panel
}

// Laid is a piece of the dressing, and where its copies go.
type Laid struct {
	Piece *net.Piece
	On    []string // "base/front"
	Entry string   // the entry of the document it comes of: "layers.0"
	Words string   // printed or lettered on it
}

// Supply is something to buy that is no card.
type Supply = assembly.Supply

// work is a box while it is being dressed.
type work struct {
	Means
	*wish.Wish
	box   *assembly.Box
	stand assembly.Standing
	out   *Dressed
	lo    fold.Vec // the outside, with what is on so far
	hi    fold.Vec
	names map[string]int
	entry string
	cuts  []cutInto
}

// On dresses a folded box. What can't be is noted as a problem.
func On(box *assembly.Box, w *wish.Wish, m Means) *Dressed {
	k := &work{Means: m, Wish: w, box: box, out: &Dressed{}, names: map[string]int{}}
	k.look()
	if openings(k) {
		k.look()
	}
	marks(k)
	liners(k)
	layers(k)
	frames(k)
	skins(k)
	k.outer()
	closes(k)
	belts(k)
	ribbon(k)
	handle(k)
	toppers(k)
	bow(k)
	finishes(k)
	box.Count()
	return k.out
}

// look folds the box as it is now, and finds its panels.
func (k *work) look() {
	k.stand = k.box.Assemble(k.T, assembly.Closed)
	k.out.Panels = k.panels()
}

// outer measures the outside, with the layers that lie on the panels.
func (k *work) outer() {
	k.lo, k.hi = fold.Extent(k.stand.Box()...)
	for _, p := range k.out.Panels {
		if p.Thick() == 0 {
			continue
		}
		lo, hi := fold.Reach(p.Face)
		out := p.Face.In.Times(-(p.T/2 + p.Thick()).MM())
		for _, v := range []fold.Vec{lo.Add(out), hi.Add(out)} {
			k.lo = fold.Vec{X: min(k.lo.X, v.X), Y: min(k.lo.Y, v.Y), Z: min(k.lo.Z, v.Z)}
			k.hi = fold.Vec{X: max(k.hi.X, v.X), Y: max(k.hi.Y, v.Y), Z: max(k.hi.Z, v.Z)}
		}
	}
}

// name makes a name that no other piece of the box has.
func (k *work) name(s string) string {
	for k.names[s] > 0 || k.box.Part(s) != nil {
		k.names[s] = max(1, k.names[s]) + 1
		if t := fmt.Sprintf("%s %d", s, k.names[s]); k.names[t] == 0 && k.box.Part(t) == nil {
			s = t
		}
	}
	k.names[s] = 1
	return s
}

// add makes a piece a part of the box, cut from a card.
func (k *work) add(p *net.Piece, c shop.Card, on []string, at ...assembly.Place) *assembly.Part {
	p.Stock, p.Caliper = c.ID, c.Caliper
	if len(p.Faces) == 0 {
		p.Find()
	}
	k.out.Laid = append(k.out.Laid, Laid{Piece: p, On: on, Entry: k.entry})
	part := k.box.Add(p, at...)
	p.Count = max(1, len(at))
	return part
}

// loose adds pieces that have no place of their own in the folded box.
func (k *work) loose(p *net.Piece, c shop.Card, count int, on ...string) {
	k.add(p, c, on, make([]assembly.Place, count)...).Loose = true
	p.Count = count
}

// wrong notes what can't be, at a field of the entry that is being worked on.
func (k *work) wrong(field, text, fix string, set ...string) {
	k.Problem("dress."+k.entry+"."+field, text, fix, set...)
}

// find finds the one panel that something is to be on, or notes that there is none.
func (k *work) find(field, name string) *Panel {
	all, ok := k.resolve(field, name)
	if !ok || len(first(all)) == 0 {
		return nil
	}
	return slices.MaxFunc(first(all), byArea)
}

// supply notes something to buy by length.
func (k *work) supply(what string, width, length Length, count int, says string) {
	k.out.Supplies = append(k.out.Supplies, Supply{What: what, Width: width, Length: length, Count: count, Says: says})
}

func (k *work) flat(format string, args ...any) {
	k.out.Flat = append(k.out.Flat, fmt.Sprintf(format, args...))
}

// late says of parts that ride that they are stuck on last.
func (k *work) late(names ...string) {
	for _, name := range names {
		if part := k.box.Part(name); part != nil {
			part.Last = true
		}
	}
}

// before says what is put on before anything goes in: its ends lie inside.
func (k *work) before(format string, args ...any) {
	k.out.Before = append(k.out.Before, fmt.Sprintf(format, args...))
}

func (k *work) last(format string, args ...any) {
	if s := fmt.Sprintf(format, args...); !slices.Contains(k.out.Last, s) {
		k.out.Last = append(k.out.Last, s)
	}
}

// nice rounds up what is cut off a reel.
func (k *work) nice(l Length) Length {
	if k.Step.Unit == measure.Inches {
		return l.Up(measure.Inch / 2)
	}
	return l.Up(10 * mm)
}

// usual is a length that is said in the unit of the marks.
func (k *work) usual(inches, millimetres Length) Length { return k.Step.Usual(inches, millimetres) }

// plain is the name of a part and a face as people say it.
func plain(ref string) string { return words.Plain(strings.ReplaceAll(ref, "/", " ")) }
