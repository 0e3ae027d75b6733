package dress

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"brevium/core/brief"
	"brevium/core/net"
	"brevium/core/wish"
	"brevium/core/words"
)

// Finishing is a finish on one piece of the box.
type Finishing struct {
	wish.Finish
	Says  string
	Piece *net.Piece
	Faces []string // of it; none for all of it
	Takes float64  // minutes
}

// finishes finds what each finish is done on: a piece of the dressing by its name, or what lies
// outermost on the panels, when it is there already.
func finishes(k *work) {
	for _, f := range k.Finish {
		k.entry = f.Entry
		if piece := dressing(k, f.On); piece != nil {
			finished(k, f, piece, nil, 1, "the "+words.Plain(piece.Name))
			continue
		}
		all, ok := k.resolve("on", f.On)
		if !ok {
			continue
		}
		if len(all) == 0 {
			k.wrong("on", "There is no visible panel here to finish.", "Choose one of "+k.offers()+".", "dress."+f.Entry+".on", "outside")
			continue
		}
		finishPanels(k, f, all)
	}
}

// dressing finds a piece of the dressing by its name.
func dressing(k *work, name string) *net.Piece {
	for _, l := range k.out.Laid {
		if strings.EqualFold(words.Plain(l.Piece.Name), words.Plain(name)) {
			return l.Piece
		}
	}
	return nil
}

// finishPanels gathers panels by the piece that the finish comes on: while all is still in pieces a
// layer lies by itself.
func finishPanels(k *work, f wish.Finish, all []*Panel) {
	type spot struct {
		piece *net.Piece
		layer bool
	}
	var order []spot
	on := map[spot][]*Panel{}
	for _, p := range all {
		at := spot{piece: piece(k, p)}
		for _, l := range k.out.Laid {
			if l.Piece.Part == net.Layer && slices.Contains(l.On, p.Ref()) && f.When != "last" {
				at = spot{l.Piece, true}
			}
		}
		if on[at] == nil {
			order = append(order, at)
		}
		on[at] = append(on[at], p)
	}
	for _, at := range order {
		var faces []string
		for _, p := range first(on[at]) {
			if !at.layer && !slices.Contains(faces, p.Name) {
				faces = append(faces, p.Name)
			}
		}
		called := "the " + k.called(on[at])
		if at.layer {
			called = "the layer for the " + k.called(on[at])
			if f.When == "sticking" {
				called = "the layer on the " + k.called(on[at])
			}
		}
		finished(k, f, at.piece, faces, len(on[at]), called)
	}
}

// finished notes one finish on so many panels of a piece, and what it takes.
func finished(k *work, f wish.Finish, piece *net.Piece, faces []string, panels int, called string) {
	of := wish.Finishings[f.Kind]
	what := f.What
	if what == "" {
		what = wish.Usually[f.Kind]
	}
	if f.Kind == "letter" && f.What != "" {
		what = "“" + f.What + "”"
	}
	onto := called
	if panels > 1 && (of.Counted || f.Kind == "letter") {
		onto = "each of " + called
	}
	says := fmt.Sprintf(of.Does, what, onto) + "."
	switch {
	case of.Counted && f.Count == 2:
		says = fmt.Sprintf(of.Does, what, onto) + ", twice."
	case of.Counted && f.Count > 2:
		says = fmt.Sprintf(of.Does, what, onto) + fmt.Sprintf(", %d times.", f.Count)
	}
	if f.When == "scoring" && len(faces) > 0 && len(piece.Passes)+len(piece.Slanted) > 0 {
		says += fmt.Sprintf(" The %s isn't scored yet. Find the panel on the score card, mark its corners "+
			"in pencil on the outside, and work there.", words.Plain(piece.Name))
	}
	out := Finishing{Finish: f, Says: says, Piece: piece, Faces: faces}
	out.Takes = of.Minutes*float64(panels) + of.Each*float64(panels*f.Count)
	if f.Said {
		out.Takes = float64(f.Minutes) // for all of it: said with the first piece
		if slices.ContainsFunc(k.out.Finishes, func(o Finishing) bool { return o.Entry == f.Entry }) {
			out.Takes = 0
		}
	}
	k.out.Finishes = append(k.out.Finishes, out)
	finishSupplies(k, f, of, panels)
}

// finishSupplies notes what is used up, and what is only used.
func finishSupplies(k *work, f wish.Finish, of wish.KindOf, panels int) {
	s := Supply{What: of.With, Count: 1, Tool: true}
	switch f.Kind {
	case "ink", "sponge":
		s = Supply{What: "ink", Count: panels}
	case "stamp":
		s = Supply{What: "ink", Count: panels * f.Count}
	case "sticker":
		s = Supply{What: "sticker", Count: panels * f.Count}
	}
	s.Text = cmp.Or(of.With, "stickers")
	if f.What != "" && f.Kind != "letter" {
		s.Text += " (" + words.Cut(f.What, 40) + ")"
	}
	s.Text += ", for the finish"
	if i := slices.IndexFunc(k.out.Supplies, func(o Supply) bool { return o.Text == s.Text }); i >= 0 {
		if !s.Tool {
			k.out.Supplies[i].Count += s.Count
		}
		return
	}
	k.out.Supplies = append(k.out.Supplies, s)
}

// Contrast is how much lighter one colour is than another, from 1 to 21, as readers
// see it (the relative luminance of WCAG 2).
func Contrast(a, b string) float64 {
	x, y := luminance(a), luminance(b)
	return (max(x, y) + 0.05) / (min(x, y) + 0.05)
}

func luminance(colour string) float64 {
	rgb, err := strconv.ParseUint(strings.TrimPrefix(colour, "#"), 16, 32)
	if err != nil {
		return 0.5
	}
	part := func(shift uint) float64 {
		v := float64(rgb>>shift&255) / 255
		if v <= 0.04045 {
			return v / 12.92
		}
		return math.Pow((v+0.055)/1.055, 2.4)
	}
	return 0.2126*part(16) + 0.7152*part(8) + 0.0722*part(0)
}

// darkInk is what words are lettered in where nothing else is said.
const darkInk = "#2a2520"

// contrast checks that words can be read on their card.
func contrast(k *work, text, ink, card string) {
	if ink == "" {
		ink = darkInk
	}
	ratio := Contrast(ink, card)
	if ratio >= 3 {
		return
	}
	w := brief.Warning{Code: "faint-words", Fix: "Choose a lighter card or another ink.",
		Text: fmt.Sprintf("“%s” is hard to read on this card: the contrast is only %.1f to 1.", words.Cut(text, 30), ratio)}
	for _, other := range []struct{ ink, name string }{{darkInk, "dark ink"}, {"#ffffff", "white"}} {
		if Contrast(other.ink, card) >= 4.5 && strings.HasPrefix(k.entry, "toppers") {
			w.Fix, w.Set = "Use "+other.name+".", brief.To("dress."+k.entry+".ink", other.ink)
			break
		}
	}
	k.Warn(w)
}
