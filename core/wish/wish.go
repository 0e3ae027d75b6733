// Package wish reads what a document asks to be put on, in and round a box: layers, liners, windows, grips, toppers,
// finishes, a band, a ribbon, a handle, a bow, a closure. Where it goes on the box is for dress to find.
package wish

import (
	"slices"
	"strings"

	"brevium/core/fasteners"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/shop"
)

// Wish is what a document asks for, read: numbers, and cards that there are.
type Wish struct {
	Layers  []Layer
	Liners  []Liner
	Windows []Window
	Grips   []Grip
	Toppers []Topper
	Finish  []Finish
	Belt    *Belt
	Ribbon  *Ribbon
	Handle  *Handle
	Bow     *Bow
	Closure *Closure
}

// Layer is a layer on the outside of panels. Top and Bottom are less than nothing where they are as the border.
type Layer struct {
	Entry               string
	On                  string
	Border, Top, Bottom measure.Length
	Round               measure.Length // of its corners
	Card                shop.Card
	Run, Inside         bool
	Motif               *net.Point
}

// Liner lines the inside, smaller by Less each way.
type Liner struct {
	Entry, In string
	Less      measure.Length
	Layers    int
	Card      shop.Card
	Words     string
	Quiet     bool // where it can't be it is left out
}

// Window is an opening in a panel; Width and Height are 0 where they are left open.
type Window struct {
	Entry, On, Shape   string
	Width, Height, Lap measure.Length
	Right, Down        measure.Length // from the middle of its panel, as one looks at it
	Film               bool
	Frame              measure.Length
	Card               shop.Card
}

// Grip is a thumb notch or a pull tab.
type Grip struct {
	Entry, Kind, On string
	Width           measure.Length
	Card            shop.Card
}

// Topper is a stack of shapes, from the lowest up a card each.
type Topper struct {
	Entry, Shape, On string
	Width, Height    measure.Length
	Right, Down      measure.Length
	Border           measure.Length
	Cards            []shop.Card
	Raised           bool
	Words, Ink       string
}

// Belt is a band of paper round the closed box, Second the width of another on it.
type Belt struct {
	Way                string
	Width, Lap, Second measure.Length
	Card, Over         shop.Card
	Stuck, Notch       bool
	Form               string // scored, or wrapped on the box itself; "" as in Supplies
	Above              bool   // its seam is on top, for a topper to hide
	Middle             bool   // its lap lies in the middle of that side
}

// Ribbon is ribbon, twine or lace.
type Ribbon struct {
	What, Way, Bow            string
	Width, Loops, Tails, Reel measure.Length
	Turns                     int
	Stuck                     bool
}

// Handle is what the box is carried by.
type Handle struct {
	Kind, On      string
	Width, Height measure.Length
	Card          shop.Card
}

// Bow is of paper, and so are curls.
type Bow struct {
	Loops, Tiers, Curls int
	Width, Size, Rod    measure.Length
	Curl                measure.Length // how long each curl is cut; 0 for three turns
	Tails               bool
	Card                shop.Card
}

// Closure holds the box closed.
type Closure struct {
	Kind, On string
	Width    measure.Length
	Card     shop.Card
}

// Empty reports whether nothing is asked for.
func (w *Wish) Empty() bool {
	return w == nil || len(w.Layers)+len(w.Liners)+len(w.Windows)+len(w.Grips)+len(w.Toppers)+len(w.Finish) == 0 && w.Belt == nil &&
		w.Ribbon == nil && w.Handle == nil && w.Bow == nil && w.Closure == nil
}

// Lined is how much of the room inside liners take: on the floor, on each wall, under the cover.
func (w *Wish) Lined() (floor, wall, cover measure.Length) {
	if w == nil {
		return 0, 0, 0
	}
	for _, l := range w.Lines() {
		t := measure.Length(l.Layers) * l.Card.Caliper
		switch l.In {
		case "floor":
			floor += t
		case "walls", "tabs":
			wall += t
		case "lid":
			cover += t
		case "all":
			floor, wall, cover = floor+t, wall+t, cover+t
		}
	}
	return floor, wall, cover
}

// Lines gives the liners, with those that layers on the inside come to.
func (w *Wish) Lines() []Liner {
	out := slices.Clone(w.Liners)
	for _, l := range w.Layers {
		if l.Inside || strings.EqualFold(strings.TrimSpace(l.On), "inside") {
			out = append(out, Liner{Entry: l.Entry, In: "all", Less: 2 * l.Border, Layers: 1, Card: l.Card})
		}
	}
	return out
}

// Skin guesses how thick layers lie on walls that something goes over, and how many, before there is a box to look
// at: all but what names only lids, tops and what is below or within.
func (w *Wish) Skin() (t measure.Length, n int) {
	if w == nil {
		return 0, 0
	}
	under := func(word string) bool {
		return !strings.HasPrefix(word, "lid") && !strings.HasPrefix(word, "petals") &&
			!slices.Contains([]string{"top", "underside", "inside", "and", "base", "bottom"}, word)
	}
	for _, l := range w.Layers {
		if slices.ContainsFunc(l.names(), under) {
			t, n = t+l.Card.Caliper, n+1
		}
	}
	return t, n
}

// names are the words by which a layer says what it lies on.
func (l Layer) names() []string {
	return strings.FieldsFunc(strings.ToLower(l.On), func(r rune) bool { return strings.ContainsRune(" ,;+", r) })
}

// Papers is how thick what is asked for on the petals of an insert is.
func (w *Wish) Papers() (t measure.Length) {
	if w == nil {
		return 0
	}
	for _, l := range w.Layers {
		if slices.ContainsFunc(l.names(), func(name string) bool { return strings.HasPrefix(name, "petals") }) {
			t += l.Card.Caliper
		}
	}
	return t
}

// Closures are the ways to hold a box closed.
var Closures = []string{"magnet", "dot", "restick", "brad", "button", "clip", "ribbon", "tuck", "seal"}

// Meets reports whether the closure has two halves that come to lie on each other.
func (c *Closure) Meets() bool { _, ok := fasteners.Chosen(c.Kind); return ok }
