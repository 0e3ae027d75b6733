package wish

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/shop"
	"brevium/core/words"
)

const mm, inch = measure.Millimetre, measure.Inch

// Shelf finds the cards of a reading: one that is named, and the usual one for a part.
type Shelf struct {
	Find  func(field, id string) (shop.Card, bool)
	Usual func(part string) shop.Card
}

// reading reads one document's dressing.
type reading struct {
	*brief.Reader
	shelf Shelf
	d     *brief.Dress
	entry string
}

// Read reads what a document asks for, or notes what is wrong with it.
func Read(r *brief.Reader, d *brief.Dress, shelf Shelf) *Wish {
	k := reading{Reader: r, shelf: shelf, d: d}
	w := &Wish{}
	for i, l := range d.Layers {
		k.at("layers", i)
		w.Layers = append(w.Layers, k.layer(l))
	}
	for i, l := range d.Liners {
		k.at("liners", i)
		w.Liners = append(w.Liners, Liner{Entry: k.entry, In: k.one("in", l.In, "floor", "walls", "lid", "tabs", "all"),
			Less: k.length("less", l.Less, k.eighth()), Layers: k.count("layers", l.Layers, 1, mostDeep),
			Card: k.card("stock", l.Stock, "liner"), Words: strings.TrimSpace(string(l.Words))})
	}
	for i, o := range d.Windows {
		k.at("windows", i)
		w.Windows = append(w.Windows, Window{Entry: k.entry, On: string(o.On),
			Shape: k.one("shape", o.Shape, "square", "rounded", "round"),
			Width: k.length("width", o.Width, 0), Height: k.length("height", o.Height, 0),
			Right: k.off("right", o.Right), Down: k.off("down", o.Down),
			Lap:  k.length("lap", o.Lap, k.Step.Usual(inch/4, 6*mm)),
			Film: k.Flag(k.field("film"), o.Film, true), Frame: k.length("frame", o.Frame, 0),
			Card: k.card("stock", o.Stock, "frame")})
	}
	for i, g := range d.Grips {
		k.at("grips", i)
		w.Grips = append(w.Grips, Grip{Entry: k.entry, Kind: k.one("kind", g.Kind, "notch", "pull"), On: string(g.On),
			Width: k.length("width", g.Width, k.Step.Usual(3*inch/4, 18*mm)), Card: k.card("stock", g.Stock, "pull")})
	}
	for i, t := range d.Toppers {
		k.at("toppers", i)
		w.Toppers = append(w.Toppers, k.topper(t))
	}
	for i, f := range d.Finishes {
		k.at("finishes", i)
		w.Finish = append(w.Finish, k.finish(f))
	}
	k.singles(w)
	return w
}

// mostDeep is how many layers, liners or shapes lie on each other at the most.
const mostDeep = 4

func (k *reading) at(list string, i int) { k.entry = fmt.Sprintf("%s.%d", list, i) }

func (k *reading) field(name string) string { return "dress." + k.entry + "." + name }

func (k *reading) eighth() measure.Length { return k.Step.Usual(inch/8, 3*mm) }

// length reads a length, or gives what is usual where it is left open.
func (k *reading) length(name string, text brief.Text, open measure.Length) measure.Length {
	switch strings.ToLower(strings.TrimSpace(string(text))) {
	case "":
		return open
	case "none":
		return 0
	}
	l, ok := k.LengthOrNone(k.field(name), text)
	if ok && l > 2000*mm {
		k.Problem(k.field(name), k.Say(l)+" is more than any box needs.", "Give a smaller length.", k.field(name), "")
	}
	return l
}

// off reads how far something lies off a middle: less than nothing is the other way.
func (k *reading) off(name string, text brief.Text) measure.Length {
	said, back := strings.CutPrefix(strings.TrimSpace(string(text)), "-")
	l := k.length(name, brief.Text(said), 0)
	if back {
		return -l
	}
	return l
}

func (k *reading) count(name string, text brief.Whole, open, most int) int {
	if strings.TrimSpace(string(text)) == "" {
		return open
	}
	n, ok := k.Count(k.field(name), text, most)
	if !ok {
		return open
	}
	return n
}

// one reads a choice; the first is what is meant where it is left open.
func (k *reading) one(name string, text brief.Text, choices ...string) string {
	said := strings.ToLower(strings.TrimSpace(string(text)))
	if said == "" {
		return choices[0]
	}
	if !slices.Contains(choices, said) {
		f, _ := brief.FieldAt(k.field(name))
		k.Problem(k.field(name), fmt.Sprintf("%s can't be %q.", f.Title(), string(text)),
			"Choose "+words.Either(choices)+".", k.field(name), "")
		return choices[0]
	}
	return said
}

// scheme gives the card of a part of the box's small scheme.
func (k *reading) scheme(name string) (brief.Text, bool) {
	s := k.d.Scheme
	card, known := map[string]brief.Text{"main": s.Main, "second": s.Second, "accent": s.Accent, "plain": s.Plain}[name]
	return card, known
}

// in is which part of the scheme a thing draws on, unless it says otherwise.
var in = map[string]string{"layer": "second", "liner": "plain", "band": "accent", "frame": "accent", "pull": "accent",
	"topper": "plain", "handle": "accent", "bow": "accent", "closure": "accent", "strip": "main"}

// card finds the card of something: as it is named, by the scheme, or the usual one.
func (k *reading) card(name string, text brief.Text, part string) shop.Card {
	id, field := strings.TrimSpace(string(text)), k.field(name)
	if of, known := k.scheme(strings.ToLower(id)); known {
		if id, field = string(of), "dress.scheme."+strings.ToLower(id); id == "" {
			return k.shelf.Usual(part)
		}
	}
	if of, _ := k.scheme(in[part]); id == "" && of != "" {
		id, field = string(of), "dress.scheme."+in[part]
	}
	if id == "" {
		return k.shelf.Usual(part)
	}
	c, ok := k.shelf.Find(field, id)
	if !ok {
		return k.shelf.Usual(part)
	}
	return c
}

func (k *reading) layer(l brief.Layer) Layer {
	out := Layer{Entry: k.entry, On: string(l.On), Border: k.length("border", l.Border, k.eighth()),
		Top: k.length("top", l.Top, -1), Bottom: k.length("bottom", l.Bottom, -1), Card: k.card("stock", l.Stock, "layer"),
		Run: k.Flag(k.field("run"), l.Run, false), Inside: k.Flag(k.field("inside"), l.Inside, false)}
	if k.one("corners", l.Corners, "square", "round") == "round" {
		out.Round = k.Step.Usual(inch/4, 5*mm)
	}
	if !words.Visible(out.On) {
		k.Problem(k.field("on"), "This layer isn't on any panel.", "Choose its panels, or write all, outside, sides, "+
			"lid or top.",
			k.field("on"), "outside")
	}
	if l.Motif != (brief.Spot{}) {
		x, okX := k.Length(k.field("motif.x"), l.Motif.X)
		y, okY := k.Length(k.field("motif.y"), l.Motif.Y)
		if okX && okY {
			out.Motif = &net.Point{X: x, Y: y}
		}
	}
	return out
}

// Shapes are those a topper may have.
var Shapes = []string{"rectangle", "rounded", "round", "oval", "scalloped", "banner", "tag", "star", "heart",
	"triangle"}

func (k *reading) topper(t brief.Topper) Topper {
	out := Topper{Entry: k.entry, Shape: k.one("shape", t.Shape, Shapes...), On: strings.TrimSpace(string(t.On)),
		Width: k.length("width", t.Width, 0), Height: k.length("height", t.Height, 0),
		Right: k.off("right", t.Right), Down: k.off("down", t.Down),
		Border: k.length("border", t.Border, k.eighth()), Raised: k.Flag(k.field("raised"), t.Raised, false),
		Words: strings.TrimSpace(string(t.Words)), Ink: strings.TrimSpace(string(t.Ink))}
	if out.Ink != "" && !shop.IsColour(out.Ink) {
		k.Problem(k.field("ink"), fmt.Sprintf("%q isn't a colour.", out.Ink), "Write it like #2a2520.", k.field("ink"), "")
	}
	n := k.count("layers", t.Layers, 2, mostDeep)
	named := strings.Split(string(t.Stock), ",")
	usual := []brief.Text{"accent", "plain", "second", "main"}
	for i := range n {
		name := usual[i%len(usual)]
		if i < len(named) && strings.TrimSpace(named[i]) != "" {
			name = brief.Text(strings.TrimSpace(named[i]))
		}
		out.Cards = append(out.Cards, k.card("stock", name, "topper"))
	}
	return out
}

// singles reads what there is one of.
func (k *reading) singles(w *Wish) {
	d := k.d
	if d.Band != (brief.Belt{}) && d.Band.Way != "none" {
		k.entry = "band"
		w.Belt = &Belt{Way: k.one("way", d.Band.Way, "across", "along", "level", "cross"),
			Width: k.length("width", d.Band.Width, k.Step.Usual(inch, 25*mm)),
			Lap:   k.length("lap", d.Band.Lap, k.Step.Usual(3*inch/4, 20*mm)), Second: k.length("second", d.Band.Second, 0),
			Card: k.card("stock", d.Band.Stock, "band"), Over: k.card("over", d.Band.Over, "liner"),
			Stuck: k.Flag(k.field("stuck"), d.Band.Stuck, false), Notch: k.Flag(k.field("notch"), d.Band.Notch, false),
			Above:  k.one("seam", d.Band.Seam, "below", "above") == "above",
			Middle: k.one("lap-at", d.Band.LapAt, "edge", "middle") == "middle"}
		if d.Band.Form != "" {
			w.Belt.Form = k.one("form", d.Band.Form, "scored", "wrapped")
		}
	}
	if d.Ribbon != (brief.Ribbon{}) && d.Ribbon.Way != "none" {
		k.entry = "ribbon"
		w.Ribbon = &Ribbon{What: k.one("what", d.Ribbon.What, "ribbon", "twine", "lace"),
			Way: k.one("way", d.Ribbon.Way, "across", "along", "level", "cross", "holes", "under"),
			Bow: k.one("bow", d.Ribbon.Bow, "single", "none", "knot", "double"), Turns: k.count("turns", d.Ribbon.Turns, 1, 20),
			Width: k.length("width", d.Ribbon.Width, 0), Loops: k.length("loops", d.Ribbon.Loops, k.Step.Usual(2*inch, 50*mm)),
			Tails: k.length("tails", d.Ribbon.Tails, k.Step.Usual(3*inch, 75*mm)), Reel: k.length("reel", d.Ribbon.Reel, 0),
			Stuck: k.Flag(k.field("stuck"), d.Ribbon.Stuck, false)}
	}
	if d.Handle.Kind != "" && d.Handle.Kind != "none" {
		k.entry = "handle"
		w.Handle = &Handle{Kind: k.one("kind", d.Handle.Kind, "strip", "swing", "ribbon", "cord"), On: string(d.Handle.On),
			Width:  k.length("width", d.Handle.Width, k.Step.Usual(3*inch/4, 20*mm)),
			Height: k.length("height", d.Handle.Height, 0), Card: k.card("stock", d.Handle.Stock, "handle")}
	}
	if d.Bow != (brief.Bow{}) {
		k.entry = "bow"
		w.Bow = &Bow{Loops: k.count("loops", d.Bow.Loops, 6, 24), Tiers: k.count("tiers", d.Bow.Tiers, 1, 3),
			Width: k.length("width", d.Bow.Width, k.Step.Usual(inch/2, 12*mm)),
			Size:  k.length("size", d.Bow.Size, k.Step.Usual(3*inch, 80*mm)), Tails: k.Flag(k.field("tails"), d.Bow.Tails,
				false), Curls: k.count("curls", d.Bow.Curls, 0, 40), Rod: k.length("rod", d.Bow.Rod, 6*mm),
			Curl: k.length("curl", d.Bow.Curl, 0), Card: k.card("stock", d.Bow.Stock, "bow")}
	}
	if d.Closure.Kind != "" && d.Closure.Kind != "none" {
		k.entry = "closure"
		w.Closure = &Closure{Kind: k.one("kind", d.Closure.Kind, Closures...), On: string(d.Closure.On),
			Width: k.length("width", d.Closure.Width, 0), Card: k.card("stock", d.Closure.Stock, "closure")}
	}
}

// Finish is what is inked, sponged, stamped, embossed, lettered or stuck on; When is its moment,
// Minutes and Dry how long it takes on one box, and must then be left alone.
type Finish struct {
	Entry, Kind, On, What string
	When                  string
	Count, Minutes, Dry   int
	Said                  bool // how many minutes is the maker's own figure
}

// Moments are when a finish can be done: before its piece is scored, while all is flat, when layers
// are on and nothing is stuck, and on the closed box.
var Moments = []string{"scoring", "flat", "sticking", "last"}

var Finishings = map[string]KindOf{
	"ink": {"flat", 0.75, 0, 5, "Put scrap paper under it, and draw %s along the edges of %s", "an ink pad", false},
	"sponge": {"flat", 1.5, 0, 10, "Sponge %s along the edges of %s. Start on scrap paper, wipe inwards, and add a little at a time",
		"an ink pad and a sponge", false},
	"stamp": {"scoring", 0.25, 0.5, 5, "Stamp %s on %s. Press straight down and don't rock the stamp", "a stamp and an ink pad", true},
	"emboss": {"scoring", 2, 0, 0, "Emboss %s into %s. Do it before you score: the press flattens scores",
		"an embossing folder and a press", false},
	"punched": {"sticking", 0.25, 0.75, 0, "Punch or cut %s out of leftover card, and stick it on %s",
		"a punch or a die", true},
	"sticker": {"last", 0, 0.25, 0, "Stick %s on %s, away from the folds", "", true},
	"letter":  {"flat", 1, 0, 10, "Letter %s on %s. Draw pencil lines first, and rub them out when the ink is dry", "a fine pen", false},
}

// FinishKinds are the kinds that there are, as they are offered.
var FinishKinds = []string{"ink", "sponge", "stamp", "emboss", "punched", "sticker", "letter"}

// Counted reports whether a kind of finish is counted: so many stamps on each panel.
func Counted(kind string) bool { return Finishings[kind].Counted }

// usually is what a finish is done with where nothing is said.
var Usually = map[string]string{"ink": "the ink pad", "sponge": "ink", "stamp": "the stamp", "emboss": "the pattern", "punched": "a shape",
	"sticker": "a sticker", "letter": "the words"}

const mostFinish = 240

func (k *reading) finish(f brief.Finish) Finish {
	out := Finish{Entry: k.entry, Kind: k.one("kind", f.Kind, FinishKinds...), On: strings.TrimSpace(string(f.On)),
		What: strings.TrimSpace(string(f.What))}
	of := Finishings[out.Kind]
	choices := append([]string{of.when}, slices.DeleteFunc(slices.Clone(Moments), func(s string) bool { return s == of.when })...)
	out.When = k.one("when", f.When, choices...)
	out.Count, out.Said = k.count("count", f.Count, 1, 99), strings.TrimSpace(string(f.Minutes)) != ""
	out.Minutes, out.Dry = k.count("minutes", f.Minutes, 0, mostFinish), k.count("dry", f.Dry, of.dry, 24*60)
	if out.On == "" {
		out.On = "outside"
	}
	return out
}

// KindOf is what is usual of a finish.
type KindOf struct {
	when       string
	Minutes    float64 // on a panel
	Each       float64 // and for each, where it is counted
	dry        int
	Does, With string // does: what is done with what, on what
	Counted    bool
}
