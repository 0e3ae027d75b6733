package sheets

import (
	"fmt"
	"html/template"
	"slices"

	"brevium/core/brief"
	"brevium/core/cutting"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/request"
	"brevium/draw"
	"brevium/web/desk"
)

// CutView is the sheets of something as a page shows them.
type CutView struct {
	Kinds    []cutKind
	Count    int // sheets that are bought
	Offcuts  int
	Bound    int
	Proved   bool
	Used     float64
	Waste    string
	Price    int64
	Largest  string // offcut
	Settings int
	Cuts     int
	Hidden   int // kinds that are not drawn
	Left     []string
	Found    string // what was found that is less
	Live     string // where a search goes on, "" when there is nothing to look for
	Key      string
	Hands    bool
}

// cutKind is sheets that are cut alike.
type cutKind struct {
	N     int
	Title string
	Alike int
	Says  string
	SVG   template.HTML
	Steps []layout.Step
}

// Holds is what can be done with a piece that is held.
func (CutView) Holds() []holding { return holdings }

const MostDrawn = 18

// CutViewOf makes the view of what is cut. Hands says that pieces can be held; of the pins
// the last is that of the piece in hand.
func CutViewOf(cuts []cutting.Cut, step measure.Step, hands bool, pins ...request.Pin) CutView {
	v := CutView{Hands: hands}
	var held *request.Pin
	if n := len(pins); n > 0 {
		held = &pins[n-1]
	}
	known := map[string]int{}
	say := (&brief.Report{Step: step}).Say
	n := 0
	var one layout.Layout // all of them
	for _, c := range cuts {
		for _, p := range c.TooBig {
			v.Left = append(v.Left, fmt.Sprintf("%d of %s (%s × %s)", p.Count, p.Name, say(p.W), say(p.H)))
		}
		if v.Price += c.Cost(); c.Offcut {
			v.Offcuts += len(c.Sheets)
		} else {
			v.Count += len(c.Sheets)
		}
		for _, s := range c.Sheets {
			one.Sheets = append(one.Sheets, s)
			mark := c.Mark(s)
			for _, p := range s.Placed { // copies are told apart only by where a hand put them
				if p.Pinned {
					mark += fmt.Sprint(n)
				}
			}
			if at, ok := known[mark]; ok && at < len(v.Kinds) {
				v.Kinds[at].Alike++
			} else if known[mark] = len(v.Kinds); len(v.Kinds) < MostDrawn {
				v.Kinds = append(v.Kinds, kindOf(c, s, n, step, hands, len(cuts) > 1, held))
			} else {
				v.Hidden++
			}
			n++
		}
	}
	v.Settings = one.Settings()
	v.measure(one.Sheets, step)
	return v
}

// measure tells what the sheets come to: how much of them is used, their cuts, the largest offcut.
func (v *CutView) measure(all []layout.Sheet, step measure.Step) {
	largest, used, whole := layout.Rect{}, 0.0, 0.0
	for _, s := range all {
		whole, v.Cuts = whole+s.W.MM()*s.H.MM(), v.Cuts+len(s.Cuts)
		for _, p := range s.Placed {
			used += p.Rect.Area()
		}
		for _, o := range s.Offcuts {
			if o.Area() > largest.Area() {
				largest = o
			}
		}
	}
	if whole > 0 {
		v.Used, v.Waste = used/whole, desk.Area(whole-used, step.Unit)
	}
	if largest.W > 0 {
		v.Largest = step.Show(largest.W).Text + " × " + step.Show(largest.H).Text + " " + string(step.Unit)
	}
}

func kindOf(c cutting.Cut, s layout.Sheet, n int, step measure.Step, hands, several bool, held *request.Pin) cutKind {
	say := (&brief.Report{Step: step}).Say
	k := cutKind{N: n, Alike: 1, Title: fmt.Sprintf("Sheet %d", n+1), Steps: s.Steps(say)}
	k.Says = c.Sheet.Title
	if several && c.Card.Title != "" {
		k.Says += ", " + c.Card.Title
	}
	look := draw.CutLook{N: n, W: 330, H: 400, Card: c.Card, Step: step, Hands: hands}
	if held != nil && slices.ContainsFunc(s.Placed, func(p layout.Placed) bool { return p.Pinned && p.Piece == held.Piece }) {
		look.Held = &held.At
	}
	k.SVG = template.HTML(draw.CutSheet(s, look).SVG())
	return k
}

// BoundOf is how many sheets are wanted at least, and whether what was found is proved.
func BoundOf(found []cutting.Found) (bound int, proved bool) {
	proved = true
	for _, f := range found {
		bound, proved = bound+f.Layout.Bound, proved && f.Proved()
	}
	return bound, proved
}

// holding is what can be done with a piece that is held.
type holding struct{ How, Says string }

var holdings = []holding{{"here", "Pin it here"}, {"left", "←"}, {"right", "→"}, {"up", "↑"}, {"down", "↓"},
	{"turn", "Turn it"}, {"free", "Unpin it"}}
