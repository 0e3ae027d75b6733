package wish

import (
	"slices"
	"strings"

	"brevium/core/brief"
)

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

// kindOf is what is usual of a finish.
type KindOf struct {
	when       string
	Minutes    float64 // on a panel
	Each       float64 // and for each, where it is counted
	dry        int
	Does, With string // does: what is done with what, on what
	Counted    bool
}
