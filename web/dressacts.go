package web

import (
	"context"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/readings"
)

// What the buttons of the Dressing stage do.

// dressAs dresses the whole box in one of the usual ways.
func (s *Server) dressAs(_ context.Context, c changing) error {
	bare := c.brief.Clone()
	bare.Dress = bare.Dress.Bare()
	for _, l := range advice.LevelsOf(plan.Make(bare, s.workshop()), c.brief, s.workshop()) {
		if l.ID == c.arg {
			c.brief.Dress = l.Dress
		}
	}
	return nil
}

// pointPanel puts a layer on a panel or takes it off again: what other panels have goes
// on it too.
func (s *Server) pointPanel(_ context.Context, c changing) error {
	p := plan.Make(c.brief, s.workshop())
	c.focus = "panel-" + strings.ReplaceAll(c.arg, "/", "-")
	if !p.OK() { // which panels the layers are on is read off the plan
		c.notice = "First mend what is wrong: then point at a panel again."
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
					dressed = dressed || ref == c.arg
				}
			}
		}
	}
	layers := slices.Clone(c.brief.Dress.Layers)
	if !dressed && len(layers) == 0 {
		layers = []brief.Layer{{ID: newMark(), On: brief.Text(c.arg)}}
	} else {
		for i := range layers {
			on := covers[fmt.Sprintf("layers.%d", i)]
			if dressed {
				on = slices.DeleteFunc(on, func(ref string) bool { return ref == c.arg })
			} else {
				on = append(on, c.arg)
			}
			layers[i].On = brief.Text(strings.Join(on, ", "))
		}
		layers = slices.DeleteFunc(layers, func(l brief.Layer) bool { return l.On == "" })
	}
	c.brief.Dress.Layers = layers
	return nil
}

// addDress puts another thing on, with what is usual of it.
func (s *Server) addDress(_ context.Context, c changing) error {
	d, id := &c.brief.Dress, newMark()
	switch c.arg {
	case "layers":
		d.Layers = append(slices.Clone(d.Layers), brief.Layer{ID: id, On: "outside"})
	case "mat": // a card layer under a paper layer, in one
		d.Layers = append(slices.Clone(d.Layers), brief.Layer{ID: id, On: "outside", Stock: "accent"},
			brief.Layer{ID: newMark(), On: "outside", Stock: "second"})
		c.arg = "layers"
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
		if path := "dress." + c.arg + ".@" + id + "." + first; c.brief.Has(path) && (first != "on" || c.arg != "toppers") {
			c.focus = fieldMark(path)
			break
		}
	}
	return nil
}

// removeDress takes a thing off.
func (s *Server) removeDress(_ context.Context, c changing) error {
	d := &c.brief.Dress
	list, id, _ := strings.Cut(c.arg, ".")
	switch list {
	case "layers":
		d.Layers = without(c, d.Layers, id, func(x brief.Layer) string { return x.ID })
	case "liners":
		d.Liners = without(c, d.Liners, id, func(x brief.Liner) string { return x.ID })
	case "windows":
		d.Windows = without(c, d.Windows, id, func(x brief.Opening) string { return x.ID })
	case "grips":
		d.Grips = without(c, d.Grips, id, func(x brief.Grip) string { return x.ID })
	case "toppers":
		d.Toppers = without(c, d.Toppers, id, func(x brief.Topper) string { return x.ID })
	case "finishes":
		d.Finishes = without(c, d.Finishes, id, func(x brief.Finish) string { return x.ID })
	}
	return nil
}

// without takes one out of a list, and says so when another window did already.
func without[T any](c changing, list []T, id string, mark func(T) string) []T {
	i := slices.IndexFunc(list, func(x T) bool { return mark(x) == id })
	if i < 0 {
		c.notice = "That was taken off already, in another window."
		return list
	}
	if list = slices.Delete(slices.Clone(list), i, i+1); len(list) == 0 {
		return nil
	}
	return list
}

// takeScheme tries another small scheme of cards.
func (s *Server) takeScheme(_ context.Context, c changing) error {
	n, err := strconv.Atoi(c.arg)
	suits := advice.Schemes(plan.Make(c.brief, s.workshop()), s.workshop())
	if err == nil && n >= 0 && n < len(suits) {
		c.brief.Dress.Scheme = suits[n].Scheme
	}
	return nil
}
