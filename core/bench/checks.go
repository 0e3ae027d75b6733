package bench

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/fasteners"
	"brevium/core/net"
)

// What must be so when a step is done, and what helps where it isn't.

// check is what must be so when steps of a title are done, and what helps where it isn't.
type check struct {
	says  string
	fails []Remedy
}

var checks = map[string]check{
	"Trim": {"Each piece measures what its score card says at both ends, and its corners are square.", []Remedy{
		{"A hair too large", "trim it now: every score is measured from its edges."},
		{"Too small, or out of square", "cut a new one, and keep the short one for a smaller piece."}}},
	"Join": {"Both edges run straight across the joint, with no gap.", []Remedy{
		{"They are askew", "lift the strip at once and line both halves up along a ruler. If it is taped, slit the tape and cut a new strip."},
		{"A gap shows", "trim both edges square and join them again. The piece is now shorter by what you trimmed."}}},
	"Score": {"Each score is an even groove, as far from its edge at one end as at the other.", []Remedy{
		{"A score runs askew", "the edge was off the fence: set it again and score over it, a little deeper."},
		{"One is in the wrong place", "press it flat from the other side, or cut a new piece if it would show."}}},
	"Fold and burnish": {"Each fold lies flat on itself without force.", []Remedy{
		{"The card cracks on the fold", "score it again, wider, and fold slowly. A layer hides the crack."},
		{"It springs back", "burnish it again over a hard edge, and leave it under a weight."}}},
	"Cut": {"Each cut stops at its score, and the marked parts are gone.", []Remedy{
		{"A slit stops short", "open it to the score with the tip of the knife, or the wall won't stand."},
		{"Cut past the score", "a strip of tape on the inside holds it."},
		{"The wrong corner is off", "tape it back from the inside, or cut a new piece if it would show."},
		{"A ridge stays at the edge", "cut beside the score, on the waste side, not down its groove."}}},
	"Mitre": {"Each tab is slightly narrower at its free end.", []Remedy{
		{"A tab catches", "take a little more off its end, on the slant."}}},
	"Fold to shape": {"It keeps the shape in the picture on its own or with one finger.", []Remedy{
		{"It springs open", "fold it right over and burnish the folds again."}}},
	"Closures": {"The two halves meet when you fold the piece the way it will close.", nil},
	"Decorate while flat": {"Every border is even, and nothing reaches over a score.", []Remedy{
		{"A layer is askew", "lift it at once with the back of a knife and place it again."},
		{"It reaches over a fold", "trim it back to the border; it would lift there."}}},
	"Stick": {"Edges are level, corners are square, and nothing has slid while you pressed.", []Remedy{
		{"It slid", "push wet glue back into place within half a minute. Slit tape with a knife and stick it again."},
		{"A tab lifts", "press it with a ruler from inside, and add more near its edge."},
		{"Glue has come out", "let it go rubbery and roll it off; don't wipe."}}},
	"Put together": {"Each part sits level in its place without force.", []Remedy{
		{"It won't go in", "look for a tab that sticks up inside, or trim a sliver off the part's edge."},
		{"It is loose", "put a strip of card or a dot behind it."}}},
	"Let it dry": {"Nothing gives when you press it lightly.", []Remedy{
		{"It still slides", "leave it longer, under a weight."}}},
	"Fill": {"Everything is in and the lid or flap still closes without force.", []Remedy{
		{"It stands too high", "take out tissue or shred from below, or lay it another way."},
		{"It rattles", "fill the space with tissue or shred."}}},
	FinishUnscored: {"The print is inside its panel and the right way up. It doesn't smear when you touch it.", smudged},
	FinishFlat:     {"It doesn't smear when you touch it, and the other side is clean.", smudged},
	FinishUnstuck:  {"It sits straight and away from the folds. It doesn't smear when you touch it.", smudged},
	FinishLast:     {"It sits straight, and its edge doesn't lift under your finger.", nil},
	"Close": {"It is closed all around and stays closed when you turn it over.", []Remedy{
		{"It springs open", "burnish the last fold again, or hold it with a dot."},
		{"A flap bows", "trim a sliver off its free edge."}}},
}

var smudged = []Remedy{
	{"The ink has smeared", "let it dry, then cover it with a label or a punched shape, or ink it darker."},
	{"The ink shows on the inside", "cover it with a liner. Use less ink next time."}}

// checked adds to a step its check, and what to do when that fails.
func (s Step) checked(w Work) Step {
	c := checks[strings.NewReplacer(StickOuter, "Stick", FormOn, "Stick", DressStanding, "Decorate while flat").Replace(s.Title)]
	s.Check, s.Fails = c.says, c.fails
	switch p := w.piece(s.Piece); {
	case s.Title == "Cut" && p != nil && len(p.Slits) > 0:
		s.Check = fmt.Sprintf("Every slit ends at its score, and every marked part is gone: count %s.", plural(len(p.Slits), "slit"))
	case s.Title == "Closures":
		s.closureFails(w)
	case s.Title == "Fold it dry":
		s.dryChecks(w)
	case s.Title == "Dry-fit":
		s.fitChecks()
	}
	return s
}

func (w Work) piece(name string) *net.Piece {
	for _, p := range w.pieces {
		if p.Name == name {
			return p
		}
	}
	return nil
}

// closureFails helps with what is stuck on, and with what only goes through a mark.
func (s *Step) closureFails(w Work) {
	has := func(is func(fasteners.Kind) bool) bool {
		return slices.ContainsFunc(w.pieces, func(p *net.Piece) bool {
			return slices.ContainsFunc(p.Marks, func(m net.Mark) bool {
				k, ok := fasteners.Called(m.What)
				return ok && is(k)
			})
		})
	}
	if has(func(k fasteners.Kind) bool { return k.Hidden }) {
		s.Fails = append(s.Fails, Remedy{"They push apart", "turn one of them over before it is covered."})
	}
	if has(func(k fasteners.Kind) bool { return !k.Through }) {
		s.Fails = append(s.Fails, Remedy{"They don't meet",
			"lift one while the tape is fresh, close the box, and let it find its place."})
	}
	if has(func(k fasteners.Kind) bool { return k.Through }) {
		s.Fails = append(s.Fails, Remedy{"The marks are off", "close the box, empty, and prick through the upper mark into what lies below."})
	}
}

func (s *Step) dryChecks(w Work) {
	tabs := false
	for _, p := range w.pieces {
		tabs = tabs || p.Has("tab")
	}
	s.Check = "The edges meet all the way along."
	if tabs {
		s.Check = "The walls meet at the corner; the tab stops short of the rim."
	}
	s.Fails = []Remedy{{"Too tight", "trim a sliver off the end of the tab and off what is folded inside."},
		{"A gap at the corner", "fold that score again, right over. If the gap stays, trim the end of the tab."},
		{"Opposite walls are unequal", "a score is off: measure both from their edges before you stick anything."}}
}

func (s *Step) fitChecks() {
	s.Check = "It slides on by its own weight or with a light push, and comes off again."
	s.Fails = []Remedy{
		{"It won't go on", "press in any wall that leans out. If that doesn't help, open the last corner of the " +
			"outer piece and trim its tab. Next time, choose a looser fit under Card & fit."},
		{"It falls off", "stick a layer inside its wall. Next time, choose a tighter fit."},
		{"Layers scrape", "they are on the wrong wall or stick up too far. Trim their upper edge."}}
}
