package dress

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/net"
	"brevium/core/words"
)

// Finish is what is inked, sponged, stamped, embossed, lettered or stuck on; When is its moment,
// Minutes and Dry how long it takes on one box, and must then be left alone.
type Finish struct {
	Entry, Kind, On, What string
	When                  string
	Count, Minutes, Dry   int
	Said                  bool // how many minutes is the maker's own figure
}

// Finishing is a finish on one piece of the box.
type Finishing struct {
	Finish
	Says  string
	Piece *net.Piece
	Faces []string // of it; none for all of it
	Takes float64  // minutes
}

// Moments are when a finish can be done: before its piece is scored, while all is flat, when layers
// are on and nothing is stuck, and on the closed box.
var Moments = []string{"scoring", "flat", "sticking", "last"}

// kindOf is what is usual of a finish.
type kindOf struct {
	when       string
	minutes    float64 // on a panel
	each       float64 // and for each, where it is counted
	dry        int
	does, with string // does: what is done with what, on what
	counted    bool
}

var finishKinds = map[string]kindOf{
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
func Counted(kind string) bool { return finishKinds[kind].counted }

// usually is what a finish is done with where nothing is said.
var usually = map[string]string{"ink": "the ink pad", "sponge": "ink", "stamp": "the stamp", "emboss": "the pattern", "punched": "a shape",
	"sticker": "a sticker", "letter": "the words"}

const mostFinish = 240

func (k *reading) finish(f brief.Finish) Finish {
	out := Finish{Entry: k.entry, Kind: k.one("kind", f.Kind, FinishKinds...), On: strings.TrimSpace(string(f.On)),
		What: strings.TrimSpace(string(f.What))}
	of := finishKinds[out.Kind]
	choices := append([]string{of.when}, slices.DeleteFunc(slices.Clone(Moments), func(s string) bool { return s == of.when })...)
	out.When = k.one("when", f.When, choices...)
	out.Count, out.Said = k.count("count", f.Count, 1, 99), strings.TrimSpace(string(f.Minutes)) != ""
	out.Minutes, out.Dry = k.count("minutes", f.Minutes, 0, mostFinish), k.count("dry", f.Dry, of.dry, 24*60)
	if out.On == "" {
		out.On = "outside"
	}
	return out
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
			k.wrong("on", "There is no visible panel here to finish.", "Name one of "+k.offers()+".", "dress."+f.Entry+".on", "outside")
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
func finishPanels(k *work, f Finish, all []*Panel) {
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
func finished(k *work, f Finish, piece *net.Piece, faces []string, panels int, called string) {
	of := finishKinds[f.Kind]
	what := f.What
	if what == "" {
		what = usually[f.Kind]
	}
	if f.Kind == "letter" && f.What != "" {
		what = "“" + f.What + "”"
	}
	onto := called
	if panels > 1 && (of.counted || f.Kind == "letter") {
		onto = "each of " + called
	}
	says := fmt.Sprintf(of.does, what, onto) + "."
	switch {
	case of.counted && f.Count == 2:
		says = fmt.Sprintf(of.does, what, onto) + ", twice."
	case of.counted && f.Count > 2:
		says = fmt.Sprintf(of.does, what, onto) + fmt.Sprintf(", %d times.", f.Count)
	}
	if f.When == "scoring" && len(faces) > 0 && len(piece.Passes)+len(piece.Slanted) > 0 {
		says += fmt.Sprintf(" The %s isn't scored yet. Find the panel on the score card, mark its corners "+
			"in pencil on the outside, and work there.",
			words.Plain(piece.Name))
	}
	out := Finishing{Finish: f, Says: says, Piece: piece, Faces: faces}
	out.Takes = of.minutes*float64(panels) + of.each*float64(panels*f.Count)
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
func finishSupplies(k *work, f Finish, of kindOf, panels int) {
	s := Supply{What: of.with, Count: 1, Tool: true}
	switch f.Kind {
	case "ink", "sponge":
		s = Supply{What: "ink", Count: panels}
	case "stamp":
		s = Supply{What: "ink", Count: panels * f.Count}
	case "sticker":
		s = Supply{What: "sticker", Count: panels * f.Count}
	}
	s.Text = cmp.Or(of.with, "stickers")
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
