package questions

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"brevium/core/brief"
	"brevium/core/dress"
	"brevium/core/measure"
	"brevium/core/readings"
	"brevium/core/style"
	"brevium/core/wish"
	"brevium/core/words"
	"brevium/web/desk"
)

// Section is one kind of thing that dresses a box.
type Section struct {
	ID, Title, Says string
	Groups          []desk.Group
	Adds            []Adding
	Open            bool
}

// Adding is a button that puts another thing on.
type Adding struct{ Act, Says string }

// cardsOf are the cards for something of the decoration: the usual one, those of the
// scheme, and all of the shop.
func (f Form) cardsOf(path string) desk.Field {
	choices := []style.Choice{{ID: "", Label: "from the colours"}, {ID: "main", Label: "main card"}, {ID: "second",
		Label: "second card"},
		{ID: "accent", Label: "accent"}, {ID: "plain", Label: "plain card"}}
	return f.Pick(path, append(choices, f.cardChoices(f.b.Get(path))...))
}

// bare is a field whose choices need no help.
func bare(fd desk.Field) desk.Field {
	fd.Help = ""
	return fd
}

// choices makes choices of names and labels in turn.
func choices(pairs ...string) (out []style.Choice) {
	for i := 0; i+1 < len(pairs); i += 2 {
		out = append(out, style.Choice{ID: pairs[i], Label: pairs[i+1]})
	}
	return out
}

// named makes choices that are called what they are.
func namedChoices(first string, of ...string) []style.Choice {
	var out []style.Choice
	if first != "" {
		out = append(out, style.Choice{Label: first})
	}
	for _, s := range of {
		out = append(out, style.Choice{ID: s, Label: s})
	}
	return out
}

// where are the panels of a layer in one choice; what was pointed at is another.
var where = choices("outside", "all except the underside", "all", "every panel", "sides", "all around", "front",
	"front only",
	"top", "the top", "lid", "the lid", "inside", "the inside")

// DressSections are the questions of the decoration.
func (f Form) DressSections() []Section {
	eighth := "1/8"
	switch f.p.Units {
	case measure.Millimetres:
		eighth = "3"
	case measure.Centimetres:
		eighth = "0.3"
	}
	out := []Section{
		{ID: "layers", Title: "Layers", Adds: []Adding{{"add-dress:layers", "Add a layer"},
			{"add-dress:mat", "Add card under paper"}}},
		{ID: "liners", Title: "Inside", Adds: []Adding{{"add-dress:liners", "Add a liner"}}},
		{ID: "round", Title: "Band and ribbon", Groups: f.roundGroups()},
		{ID: "toppers", Title: "Toppers and bow", Adds: []Adding{{"add-dress:toppers", "Add a topper"}}},
		{ID: "windows", Title: "Windows and grips", Adds: []Adding{{"add-dress:windows", "Add a window"},
			{"add-dress:grips", "Add a notch or pull tab"}}},
		{ID: "finish", Title: "Finishing", Adds: []Adding{{"add-dress:finishes", "Add a finish"}}},
		{ID: "holds", Title: "Closure and handle", Groups: f.holdGroups()},
	}
	for i, l := range f.b.Dress.Layers {
		p := "dress.layers.@" + l.ID + "."
		out[0].Groups = append(out[0].Groups, desk.Group{ID: "layer-" + l.ID, Title: fmt.Sprintf("Layer %d", i+1),
			Remove: "remove-dress:layers." + l.ID, MoreSays: "Border, corners, run, motif",
			Fields: []desk.Field{bare(f.Pick(p+"on", pointed(where, string(l.On)))), f.cardsOf(p + "stock"), f.Open(p+"border",
				eighth)},
			More: []desk.Field{f.Open(p+"top", "as the border"), f.Open(p+"bottom", "as the border"),
				f.Pick(p+"corners", choices("", "as the panel's", "round", "cut round")), f.Ask(p + "run"), f.Ask(p + "inside"),
				f.Open(p+"motif.x", "none"), f.Open(p+"motif.y", "none")}})
	}
	for i, l := range f.b.Dress.Liners {
		p := "dress.liners.@" + l.ID + "."
		out[1].Groups = append(out[1].Groups, desk.Group{ID: "liner-" + l.ID, Title: fmt.Sprintf("Liner %d", i+1),
			Remove: "remove-dress:liners." + l.ID, MoreSays: "Size, number, words",
			Fields: []desk.Field{f.Pick(p+"in", choices("floor", "the floor", "walls", "the walls", "tabs",
				"the walls with tabs",
				"lid", "the lid", "all", "all of it")), f.cardsOf(p + "stock")},
			More: []desk.Field{f.Open(p+"less", eighth), f.Open(p+"layers", "1"), f.Open(p+"words", "none")}})
	}
	out[3].Groups = f.topperGroups(eighth)
	out[4].Groups = f.cutGroups()
	out[5].Groups = f.finishGroups()
	for i := range out {
		for _, g := range out[i].Groups {
			for _, fd := range slices.Concat(g.Fields, g.More) {
				out[i].Open = out[i].Open || fd.Problem != nil
			}
		}
		if n := f.counted(out[i].ID); n > 0 {
			out[i].Says, out[i].Open = strconv.Itoa(n), true
		}
	}
	return out
}

// counted is how many things of a section there are.
func (f Form) counted(id string) (n int) {
	d := f.b.Dress
	is := func(yes bool) int {
		if yes {
			return 1
		}
		return 0
	}
	switch id {
	case "layers":
		return len(d.Layers)
	case "liners":
		return len(d.Liners)
	case "round":
		return is(d.Band != brief.Belt{}) + is(d.Ribbon != brief.Ribbon{})
	case "toppers":
		return len(d.Toppers) + is(d.Bow != brief.Bow{})
	case "windows":
		return len(d.Windows) + len(d.Grips)
	case "finish":
		return len(d.Finishes)
	}
	return is(d.Closure.Kind != "") + is(d.Handle.Kind != "")
}

// pointed adds to some choices what a field holds beside them: panels pointed at.
func pointed(of []style.Choice, now string) []style.Choice {
	if now == "" || slices.ContainsFunc(of, func(c style.Choice) bool { return c.ID == now }) {
		return of
	}
	return append(slices.Clone(of), style.Choice{ID: now, Label: "as chosen: " + words.Cut(strings.ReplaceAll(now,
		"/", " "), 60)})
}

// panelChoices are the panels of the box on the table, with what is usual first.
func (f Form) panelChoices(usual, now string) []style.Choice {
	out := []style.Choice{{ID: "", Label: usual}}
	if f.Shown != nil && f.Shown.Box != nil {
		panels := dress.Panels(f.Shown.Box, f.Shown.Card.Caliper)
		for _, p := range panels {
			if ref := readings.PanelRef(p.Part, p.Name); p.Nth == 0 && p.Shows {
				out = append(out, style.Choice{ID: ref, Label: words.Plain(p.Part + ", " + p.Name)})
			}
		}
	}
	return pointed(out, now)
}

func (f Form) on(path, usual string) desk.Field {
	return f.Pick(path, f.panelChoices(usual, f.b.Get(path)))
}

func (f Form) topperGroups(eighth string) (out []desk.Group) {
	for i, t := range f.b.Dress.Toppers {
		p := "dress.toppers.@" + t.ID + "."
		on := f.panelChoices("the top, or the largest panel", "")
		on = append(on, choices("band", "the band", "hanging", "hanging by a string")...)
		out = append(out, desk.Group{ID: "topper-" + t.ID, Title: fmt.Sprintf("Topper %d", i+1),
			Remove:   "remove-dress:toppers." + t.ID,
			MoreSays: "Layers, border, cards, ink",
			Fields: []desk.Field{f.Pick(p+"shape", namedChoices("", wish.Shapes...)), f.Pick(p+"on", pointed(on, string(t.On))),
				f.Open(p+"words", "none"), f.Open(p+"width", "automatic"), f.Open(p+"height", "automatic")},
			More: []desk.Field{f.Open(p+"right", "0"), f.Open(p+"down", "0"), f.Open(p+"layers", "2"),
				f.Open(p+"border", eighth), f.Ask(p + "raised"), f.Open(p+"stock", "accent, plain"), f.Open(p+"ink", "#2a2520")}})
	}
	bow := desk.Group{Title: "Paper bow", ID: "bow", Fields: []desk.Field{f.Open("dress.bow.loops", "none")},
		MoreSays: "Size, tiers, tails, curls"}
	bow.More = []desk.Field{f.Open("dress.bow.size", ""), f.Open("dress.bow.width", ""), f.Open("dress.bow.tiers", "1"),
		f.Ask("dress.bow.tails"), f.Open("dress.bow.curls", "none"), f.Open("dress.bow.rod", "6 mm"), f.Open("dress.bow.curl", "three turns"),
		f.cardsOf("dress.bow.stock")}
	return append(out, bow)
}

func (f Form) cutGroups() (out []desk.Group) {
	for i, w := range f.b.Dress.Windows {
		p := "dress.windows.@" + w.ID + "."
		out = append(out, desk.Group{ID: "window-" + w.ID, Title: fmt.Sprintf("Window %d", i+1),
			Remove:   "remove-dress:windows." + w.ID,
			MoreSays: "Film and frame",
			Fields: []desk.Field{f.on(p+"on", "choose a panel"), f.Pick(p+"shape", namedChoices("", "square", "rounded", "round")),
				f.Open(p+"width", "half of it"), f.Open(p+"height", "half of it")},
			More: []desk.Field{f.Pick(p+"film", choices("", "film behind it", "no", "left open")), f.Open(p+"lap", ""),
				f.Open(p+"right", "0"), f.Open(p+"down", "0"),
				f.Open(p+"frame", "none"), f.cardsOf(p + "stock")}})
	}
	for i, g := range f.b.Dress.Grips {
		p := "dress.grips.@" + g.ID + "."
		out = append(out, desk.Group{ID: "grip-" + g.ID, Title: fmt.Sprintf("Grip %d", i+1), Remove: "remove-dress:grips." + g.ID,
			Fields: []desk.Field{f.Pick(p+"kind", choices("notch", "a thumb notch", "pull", "a pull tab")),
				f.on(p+"on", "choose a panel"), f.Open(p+"width", "")}})
	}
	return out
}

// finishGroups ask for what is inked, stamped, lettered and stuck on.
func (f Form) finishGroups() (out []desk.Group) {
	for i, fin := range f.b.Dress.Finishes {
		p := "dress.finishes.@" + fin.ID + "."
		on := append(slices.Clone(where[:1]), f.panelChoices("", "")[1:]...)
		if f.Shown != nil && f.Shown.Dressed != nil {
			for _, l := range f.Shown.Dressed.Laid {
				name := words.Plain(l.Piece.Name)
				if !slices.ContainsFunc(on, func(c style.Choice) bool { return c.ID == name }) {
					on = append(on, style.Choice{ID: name, Label: "the " + name})
				}
			}
		}
		g := desk.Group{ID: "finish-" + fin.ID, Title: fmt.Sprintf("Finish %d", i+1),
			Remove: "remove-dress:finishes." + fin.ID, MoreSays: "When, how long, drying",
			Fields: []desk.Field{f.Pick(p+"kind", choices("ink", "inked edges", "sponge", "sponged edges", "stamp", "stamped", "emboss",
				"embossed", "punched", "die-cut or punched pieces", "sticker", "stickers", "letter", "lettering")),
				f.Pick(p+"on", pointed(on, string(fin.On))), f.Open(p+"what", "any way")},
			More: []desk.Field{f.Pick(p+"when", choices("", "the usual time", "scoring", "before scoring", "flat",
				"while all is flat", "sticking", "after the layers, before sticking", "last", "on the closed box")),
				f.Open(p+"minutes", "the usual time"), f.Open(p+"dry", "the usual time")}}
		if wish.Counted(string(fin.Kind)) {
			g.Fields = append(g.Fields, f.Open(p+"count", "1"))
		}
		out = append(out, g)
	}
	return out
}

// roundGroups ask for what goes round the box.
func (f Form) roundGroups() []desk.Group {
	ways := choices("", "none", "across", "over top and front", "along", "over top and sides", "level", "around the sides",
		"cross", "crosswise")
	band := desk.Group{Title: "Paper band", ID: "band", Fields: []desk.Field{f.Pick("dress.band.way", ways)},
		MoreSays: "Lap, notch, second band"}
	if f.b.Dress.Band != (brief.Belt{}) {
		band.Fields = append(band.Fields, f.Open("dress.band.width", ""), f.cardsOf("dress.band.stock"))
		band.More = []desk.Field{f.Pick("dress.band.form", choices("", "as in Supplies",
			"scored", "scored first", "wrapped", "formed on the box")),
			f.Open("dress.band.lap", ""),
			f.Pick("dress.band.seam", choices("", "below", "above", "on top, under a topper")),
			f.Pick("dress.band.lap-at", choices("", "at an edge", "middle", "in the middle")), f.Ask("dress.band.stuck"), f.Ask("dress.band.notch"),
			f.Open("dress.band.second", "none"), f.cardsOf("dress.band.over")}
	}
	ribbon := desk.Group{Title: "Ribbon", ID: "ribbon", MoreSays: "Loops, tails, reel",
		Fields: []desk.Field{f.Pick("dress.ribbon.way",
			append(slices.Clone(ways), choices("holes", "through holes", "under", "from under a strip")...))}}
	if f.b.Dress.Ribbon != (brief.Ribbon{}) {
		ribbon.Fields = append(ribbon.Fields, f.Pick("dress.ribbon.what", namedChoices("", "ribbon", "twine", "lace")),
			f.Open("dress.ribbon.width", ""), f.Pick("dress.ribbon.bow", choices("single", "a bow", "double", "a double bow",
				"knot", "a knot", "none", "no bow")))
		ribbon.More = []desk.Field{f.Open("dress.ribbon.turns", "1"), f.Open("dress.ribbon.loops", ""),
			f.Open("dress.ribbon.tails", ""), f.Ask("dress.ribbon.stuck"), f.Open("dress.ribbon.reel", "not counted")}
	}
	return []desk.Group{band, ribbon}
}

// holdGroups ask for what holds the box closed, and what it is carried by.
func (f Form) holdGroups() []desk.Group {
	closes := choices("", "the usual way for this box", "magnet", "a pair of magnets", "dot", "a hook dot", "restick",
		"a removable glue dot", "brad", "a brad", "button", "buttons and string", "clip", "a clip", "ribbon",
		"a ribbon through holes", "tuck", "tucking it in", "seal", "a seal of paper")
	closure := desk.Group{Title: "Held closed by", ID: "closure", Fields: []desk.Field{f.Pick("dress.closure.kind", closes)}}
	if f.b.Dress.Closure.Kind != "" {
		closure.Fields = append(closure.Fields, f.on("dress.closure.on", "where it closes in front"),
			f.Open("dress.closure.width", ""))
	}
	handle := desk.Group{Title: "Handle", ID: "handle", Fields: []desk.Field{f.Pick("dress.handle.kind", choices("", "none", "strip",
		"a strip, stuck", "swing", "a strip on brads (swings)", "ribbon", "ribbon through holes", "cord",
		"cord through holes"))}}
	switch f.b.Dress.Handle.Kind {
	case "strip", "swing":
		handle.Fields = append(handle.Fields, f.Open("dress.handle.width", ""), f.cardsOf("dress.handle.stock"))
	case "ribbon", "cord":
		handle.Fields = append(handle.Fields, f.Open("dress.handle.height", ""))
	}
	return []desk.Group{closure, handle}
}
