package boxes

import (
	"html/template"
	"sync"

	"brevium/core/advice"
	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/draw/solid"
)

// example is a finished box to open and change.
type example struct {
	ID, Label string
	name      brief.Text
	things    []string // the usual things that go in
	count     brief.Text
	dress     brief.Dress
	set       []string // fields with what is written there
}

// first is the box of the first lesson: small enough for one sheet.
const first = "first"

var examples = []example{
	{ID: "jar", Label: "A jar", name: "Honey jar", things: []string{"honey jar"}, count: "1"},
	{ID: "treats", Label: "Treats with dividers", name: "Shortbread for six", things: []string{"shortbread round"}, count: "12",
		set: []string{"arrange.compartments", "slotted", "contents.0.stack", "2"}},
	{ID: "cards", Label: "Note cards with a band", name: "Note cards", things: []string{"greeting card"}, count: "8",
		dress: brief.Dress{Layers: []brief.Layer{{ID: "1", On: "top"}}}, set: []string{"dress.band.way", "across"}},
}

// begun are the marks of all that a box can be begun from.
var begun = func() []string {
	out := []string{first}
	for _, e := range examples {
		out = append(out, e.ID)
	}
	return out
}()

// Examples are the boxes of the first page to open, by their marks.
func (v *homePage) Examples() []style.Choice {
	out := make([]style.Choice, len(examples))
	for i, e := range examples {
		out[i] = style.Choice{ID: e.ID, Label: e.Label}
	}
	return out
}

// exampleOf makes the box that goes by a mark, in a unit and with what this shop has.
func exampleOf(id, units string, w request.Workshop, usual func(name string) (brief.Item, bool)) brief.Brief {
	b := brief.Blank(units)
	if id == first {
		b.Name = "My first box"
		b.Size = &brief.Size{Length: "2 3/4 in", Width: "2 in", Depth: "1 1/4 in"}
		if units != "in" {
			b.Size = &brief.Size{Length: "70 mm", Width: "50 mm", Depth: "32 mm"}
		}
		return w.Begin(b)
	}
	for _, e := range examples {
		if e.ID != id {
			continue
		}
		b.Name, b.Dress = e.name, e.dress
		b = b.Clone() // the example's own layers are shared between requests
		for _, name := range e.things {
			if item, ok := usual(name); ok {
				item.ID, item.Count = "1", brief.Whole(e.count)
				b.Contents = append(b.Contents, item)
			}
		}
		b = w.Begin(b)
		for i := 0; i+1 < len(e.set); i += 2 {
			b.Set(e.set[i], e.set[i+1])
		}
		return b
	}
	return b
}

// picture is the one of the first page: a box with what is in it, its lid lifted.
var picture = sync.OnceValue(func() template.HTML {
	b := brief.New("mm")
	b.Contents = []brief.Item{{ID: "1", Name: "jar", Shape: "cylinder", Diameter: "54 mm", Height: "48 mm", Count: "3"}}
	b.Dress = brief.Dress{Layers: []brief.Layer{{ID: "1", On: "outside", Stock: "second"}}}
	b.Card.Sheet = "a3"
	if p := advice.Make(b, request.Default); p.OK() {
		return folded(p)
	}
	b.Dress = brief.Dress{}
	return folded(plan.Make(b, request.Default))
})

func folded(p *plan.Plan) template.HTML {
	if !p.OK() {
		return ""
	}
	return template.HTML(solid.Folded(p, assembly.Pose{Fold: 1, Lift: 1}, solid.DefaultView, 360, 230).SVG())
}

// Picture is the picture of the first page.
func (v *homePage) Picture() template.HTML { return picture() }

// Welcome reports whether this is the first page itself: all boxes, from the newest.
func (v *homePage) Welcome() bool {
	return v.Look == "" && v.Want.Folder == "" && !v.Want.Archived && !v.Want.Starting && v.Pages.Here == 1
}
