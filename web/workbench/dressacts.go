package workbench

import (
	"context"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/document"
	"brevium/core/plan"
	"brevium/core/readings"
	"brevium/web/desk"
)

// What the buttons of the Dressing stage do.

// dressAs dresses the whole box in one of the usual ways.
func dressAs(_ context.Context, c *pressed) error {
	bare := c.Doc.Clone()
	bare.Dress = bare.Dress.Bare()
	for _, l := range advice.LevelsOf(plan.Make(bare, c.shop), c.Doc, c.shop, plan.Make) {
		if l.ID == c.Arg {
			c.Doc.Dress = l.Dress
		}
	}
	return nil
}

// pointPanel puts a layer on a panel or takes it off again: what other panels have goes
// on it too.
func pointPanel(_ context.Context, c *pressed) error {
	p := plan.Make(c.Doc, c.shop)
	c.Focus = "panel-" + strings.ReplaceAll(c.Arg, "/", "-")
	if !p.OK() { // which panels the layers are on is read off the plan
		c.Notice = "Fix the red fields first. Then choose the panel again."
		return nil
	}
	covers := map[string][]string{}
	dressed := false
	if p.Dressed != nil {
		for _, l := range p.Dressed.Laid {
			for _, ref := range l.On {
				part, face, _ := strings.Cut(ref, "/")
				ref = readings.PanelRef(part, face)
				if strings.HasPrefix(l.Entry, "layers.") && !slices.Contains(covers[l.Entry], ref) {
					covers[l.Entry] = append(covers[l.Entry], ref)
					dressed = dressed || ref == c.Arg
				}
			}
		}
	}
	layers := slices.Clone(c.Doc.Dress.Layers)
	if !dressed && len(layers) == 0 {
		layers = []brief.Layer{{ID: desk.NewMark(), On: brief.Text(c.Arg)}}
	} else {
		for i := range layers {
			on := covers[fmt.Sprintf("layers.%d", i)]
			if dressed {
				on = slices.DeleteFunc(on, func(ref string) bool { return ref == c.Arg })
			} else {
				on = append(on, c.Arg)
			}
			layers[i].On = brief.Text(strings.Join(on, ", "))
		}
		layers = slices.DeleteFunc(layers, func(l brief.Layer) bool { return l.On == "" })
	}
	c.Doc.Dress.Layers = layers
	return nil
}

// addDress puts another thing on, with what is usual of it.
func addDress(_ context.Context, c *pressed) error {
	d, id := &c.Doc.Dress, desk.NewMark()
	switch c.Arg {
	case "layers":
		d.Layers = append(slices.Clone(d.Layers), brief.Layer{ID: id, On: "outside"})
	case "mat": // a card layer under a paper layer, in one
		d.Layers = append(slices.Clone(d.Layers), brief.Layer{ID: id, On: "outside", Stock: "accent"},
			brief.Layer{ID: desk.NewMark(), On: "outside", Stock: "second"})
		c.Arg = "layers"
	case "liners":
		d.Liners = append(slices.Clone(d.Liners), brief.Liner{ID: id, In: "floor"})
	case "windows":
		d.Windows = append(slices.Clone(d.Windows), brief.Opening{ID: id, On: "top"})
	case "grips":
		d.Grips = append(slices.Clone(d.Grips), brief.Grip{ID: id, Kind: "notch", On: "front"})
	case "toppers":
		d.Toppers = append(slices.Clone(d.Toppers), brief.Topper{ID: id, Shape: "rounded"})
	case "finishes":
		d.Finishes = append(slices.Clone(d.Finishes), brief.Finish{ID: id, Kind: "ink", On: "outside"})
	}
	for _, first := range []string{"on", "in", "shape"} {
		if path := "dress." + c.Arg + ".@" + id + "." + first; c.Doc.Has(path) && (first != "on" || c.Arg != "toppers") {
			c.Focus = desk.FieldMark(path)
			break
		}
	}
	return nil
}

// removeDress takes a thing off.
func removeDress(_ context.Context, c *pressed) error {
	list, id, _ := strings.Cut(c.Arg, ".")
	if _, was := document.Remove(&c.Doc, "dress."+list+".@"+id); !was {
		c.Notice = "That was already removed in another window."
	}
	return nil
}

// takeScheme tries another small scheme of cards.
func takeScheme(_ context.Context, c *pressed) error {
	n, err := strconv.Atoi(c.Arg)
	suits := advice.Schemes(plan.Make(c.Doc, c.shop), c.shop)
	if err == nil && n >= 0 && n < len(suits) {
		c.Doc.Dress.Scheme = suits[n].Scheme
	}
	return nil
}
