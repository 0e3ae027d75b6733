package bench

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/measure"
	"brevium/core/sheet"
	"brevium/core/shop"
	"brevium/core/words"
)

// Step is one thing to do at the bench.
type Step struct {
	Title    string
	Says     []string
	Cautions []Caution
}

// Work is what the steps are read from.
type Work struct {
	Pieces   []*sheet.Piece
	Cards    []ScoreCard
	From     string // how many sheets of what
	Sticks   Sticks
	Tape     Tape
	Tools    shop.Tools
	Burnish  string   // before the cuts, or after
	Spacers  []string // strips for the fence, and what they are cut from
	Copies   int
	Lids     []string // pieces that go over another, last
	Together []string // how folded pieces are stuck to each other
	Closing  []string // how the box is closed
	Trims    []string // what thick card wants trimmed by eye
	Cautions []string // what is stuck on or tied round it asks for
	Contents []string // what goes in, in words
	Inside   []string // pieces that stand inside
	Joints   []string // pieces cut in two, in words
	Dress    []string // what is stuck on while all is flat
	Care     []string // what the contents ask for, said when they go in
	Say      func(Length) string
}

// Steps writes the order of work: trim, score, cut, fold, stick, dry-fit, fill.
func Steps(w Work) []Step {
	trim := Step{Title: "Trim", Says: []string{
		fmt.Sprintf("From %s, cut the pieces in the order shown under Sheets.", w.From)}, Cautions: Take(bladeCare)}
	trim.Says = append(append(trim.Says, w.Tape.Across...), w.Spacers...)
	if w.Copies > 1 {
		trim.Says = append(trim.Says, fmt.Sprintf("Make %d of everything: set the trimmer once for each size.", w.Copies))
	}
	score := Step{Title: "Score", Says: []string{"Inside face up."}}
	if w.Tools.FromRight {
		score.Says = append(score.Says, "Your board is numbered from the right: its fence is at the right hand.")
	}
	for _, c := range w.Cards {
		score.Says = append(score.Says, words.Capital(c.Piece)+": "+strings.Join(c.Says, " "))
	}
	score.Says = append(append([]string(nil), w.Joints...), score.Says...)
	cut := Step{Title: "Cut", Cautions: Take(scissorsCare)}
	fold := Step{Title: "Fold and burnish", Says: append([]string{
		"Fold along every score and press it sharp with the bone folder, card face against clean paper."}, w.Trims...)}
	stick := Step{Title: "Stick", Cautions: Take(w.Cautions...)}
	if w.Sticks.ID != "tape" {
		stick.Cautions = append(stick.Cautions, Take(glueCare)...)
	}
	for _, p := range w.Pieces {
		for _, tip := range p.Tips {
			cut.Says = append(cut.Says, words.Capital(p.Name)+": "+tip)
		}
		if s := cuts(p, w.Say, w.Tools); s != "" {
			cut.Says = append(cut.Says, s)
		}
		stick.Says = append(stick.Says, putOn(p, w.Say)...)
		stick.Says = append(stick.Says, sticking(p, w.Sticks)...)
	}
	stick.Says = append(stick.Says, w.Together...)
	if len(stick.Says) > 0 && w.Sticks.Hold != "" {
		stick.Says = append(stick.Says, w.Sticks.Hold)
	}
	fit := Step{Title: "Dry-fit and close"}
	for _, l := range w.Lids {
		fit.Says = append(fit.Says, fmt.Sprintf("Try the %s before the last tab is pressed down: it should slide on by its own "+
			"weight, or with a light push.", l))
	}
	fit.Says = append(fit.Says, "Let wet glue dry under a weight before filling.")
	if w.Sticks.ID == "tape" {
		fit.Says = fit.Says[:len(fit.Says)-1]
	}
	if len(w.Inside) > 0 {
		fit.Says = append(fit.Says, "Set in the "+strings.Join(w.Inside, ", the ")+".")
	}
	fill := Step{Cautions: Take(w.Care...), Title: "Fill", Says: []string{"Fill it last, when every tab holds."}}
	if len(w.Contents) > 0 {
		fill.Says = []string{"When every tab holds, put in " + strings.Join(w.Contents, ", ") + "."}
	}
	steps := []Step{trim, score}
	order := []Step{cut, fold}
	if w.Burnish == "before" {
		order = []Step{fold, cut}
	}
	order = append(order, Step{Title: "Dress while flat", Says: w.Dress})
	for _, s := range append(order, stick, fit, fill, Step{Title: "Close", Says: w.Closing}) {
		if len(s.Says) > 0 {
			steps = append(steps, s)
		}
	}
	return steps
}

// cuts tells what is slit and what is cut away of a piece.
func cuts(p *sheet.Piece, say func(Length) string, tools shop.Tools) string {
	away, trims := 0, 0
	for _, f := range p.Faces {
		switch {
		case f.Trim:
			trims++
		case f.Waste:
			away++
		}
	}
	var parts []string
	parts = append(parts, openings(p, say, tools)...)
	if p.Shaped() {
		parts = append(parts, "cut it to the shape that is drawn")
		away = 0
	}
	away -= len(p.Slots) + len(p.Punches) + len(p.Notches) + len(p.Windows)
	if n := len(p.Slits); n > 0 {
		parts = append(parts, fmt.Sprintf("make %s from the edge to the score, no further (%s)",
			plural(n, "slit"), slitPlaces(p, say)))
	}
	if away > 0 {
		parts = append(parts, fmt.Sprintf("cut away the %s marked on the drawing", plural(away, "part")))
	}
	if trims > 0 {
		shape := "trim what is marked to its shape (%s to come off)"
		if p.Has("tab") {
			shape = "trim the tabs to their shape and mitre their ends (%s to come off)"
		}
		parts = append(parts, fmt.Sprintf(shape, plural(trims, "sliver")))
	}
	if len(parts) == 0 {
		return ""
	}
	return words.Capital(p.Name) + ": " + strings.Join(parts, "; ") + "."
}

// openings tells slots, holes and notches with their places.
func openings(p *sheet.Piece, say func(Length) string, tools shop.Tools) (parts []string) {
	for _, fromBottom := range []bool{false, true} {
		var at []string
		var one sheet.Slot
		for _, s := range p.Slots {
			if s.FromBottom == fromBottom {
				at, one = append(at, say(s.X)), s
			}
		}
		edge := map[bool]string{false: "top", true: "bottom"}[fromBottom]
		if len(at) > 0 {
			parts = append(parts, fmt.Sprintf("cut %s %s deep from the %s edge, the card's thickness and a hair wide, at %s from "+
				"the left", plural(len(at), "slot"), say(one.Depth), edge, strings.Join(at, ", ")))
		}
	}
	for _, w := range p.Windows {
		parts = append(parts, fmt.Sprintf("cut a window %s × %s, its corner %s from the left and %s from the top",
			say(w.Hi.X-w.Lo.X), say(w.Hi.Y-w.Lo.Y), say(w.Lo.X), say(w.Lo.Y)))
	}
	for _, h := range p.Punches {
		with := punches(p, h, tools, say)
		s := fmt.Sprintf("%s a round hole %s across, its middle %s from the left and %s from the top%s",
			map[bool]string{true: "punch", false: "cut"}[with != ""], say(h.Diameter), say(h.Mid.X), say(h.Mid.Y), with)
		if h.Scoop > 0 {
			s += fmt.Sprintf(", with a finger scoop %s deep on the slant", say(h.Scoop))
		}
		parts = append(parts, s)
	}
	if n := len(p.Notches); n > 0 {
		by := ""
		if _, owned, _ := tools.Reaches("notch", p.Notches[0].Diameter, 0); owned {
			by = ", with your notch punch"
		}
		parts = append(parts, fmt.Sprintf("cut %s %s across in the middle of the edge%s",
			plural(n, "half-round notch"), say(p.Notches[0].Diameter), by))
	}
	return parts
}

// punches tells with which punch a hole is made, or what does it where the hand punch
// doesn't reach; "" when there is none of its size.
func punches(p *sheet.Piece, h sheet.Punch, tools shop.Tools, say func(Length) string) string {
	in := min(h.Mid.X, h.Mid.Y, p.Width-h.Mid.X, p.Height-h.Mid.Y)
	for _, kind := range []string{"hole", "circle"} {
		if punch, owned, reaches := tools.Reaches(kind, h.Diameter, in); owned && reaches {
			return fmt.Sprintf(", with your %s %s", punch.Size.Exact(measure.Inches),
				map[string]string{"hole": "punch", "circle": "circle cutter"}[kind])
		} else if owned {
			return fmt.Sprintf(": that is %s in and your punch reaches %s, so use a screw punch, or an awl and a round file",
				say(in), say(punch.Reach))
		}
	}
	return ""
}

// slitPlaces tells where slits run: along which scores, from which edges.
func slitPlaces(p *sheet.Piece, say func(Length) string) string {
	type place struct {
		at, deep Length
		level    bool
	}
	edges := map[place][]string{}
	var order []place
	var free []string
	for _, s := range p.Slits {
		if !onPass(p, s) {
			free = append(free, fmt.Sprintf("from %s left, %s down to %s left, %s down", say(s.A.X), say(s.A.Y), say(s.B.X),
				say(s.B.Y)))
			continue
		}
		at, size, near, far := s.A.X, p.Width, "left", "right"
		level := s.A.Y == s.B.Y
		if level {
			at, size, near, far = s.A.Y, p.Height, "top", "bottom"
		}
		edge := near
		if 2*at > size {
			at, edge = size-at, far
		}
		k := place{at, (s.A.X - s.B.X).Abs() + (s.A.Y - s.B.Y).Abs(), level}
		if edges[k] == nil {
			order = append(order, k)
		}
		if !slices.Contains(edges[k], edge) {
			edges[k] = append(edges[k], edge)
		}
	}
	var out []string
	for _, k := range order {
		from := "the " + edges[k][0] + " edge"
		if len(edges[k]) > 1 {
			slices.Sort(edges[k])
			if k.level {
				slices.Reverse(edges[k])
			}
			from = "the " + strings.Join(edges[k], " and ") + " edges"
		}
		out = append(out, fmt.Sprintf("along the score %s from %s, %s deep", say(k.at), from, say(k.deep)))
	}
	return strings.Join(append(out, free...), "; ")
}

// onPass says whether a slit runs along a score.
func onPass(p *sheet.Piece, s sheet.Line) bool {
	return slices.ContainsFunc(p.Passes, func(q sheet.Pass) bool {
		return q.AlongWidth && s.A.X == q.At && s.B.X == q.At || !q.AlongWidth && s.A.Y == q.At && s.B.Y == q.At
	})
}

// putOn tells what is stuck on while the piece is still flat.
func putOn(p *sheet.Piece, say func(Length) string) (says []string) {
	for _, m := range p.Marks {
		does := fmt.Sprintf("stick the %s on", m.What)
		if m.What == "brad" || m.What == "ribbon" {
			does = fmt.Sprintf("mark where the %s goes through,", m.What)
		}
		says = append(says, fmt.Sprintf("%s, still flat: %s %s from the left and %s from the top.", words.Capital(p.Name), does,
			say(m.At.X), say(m.At.Y)))
	}
	return says
}

// sticking tells the order of folding up and what is stuck behind what.
func sticking(p *sheet.Piece, sticks Sticks) (says []string) {
	var faces, tabs, on []string
	for _, g := range p.Glues {
		if !slices.Contains(faces, g.Face) {
			faces = append(faces, g.Face)
		}
		if p.RoleOf(g.Face) == "tab" && !slices.Contains(on, g.On) {
			tabs, on = append(tabs, g.Face), append(on, g.On)
		}
	}
	for _, side := range []string{"outside", "inside"} {
		on := map[string][]string{}
		var with []string
		for _, f := range faces {
			if over(p, f) != (side == "inside") {
				continue
			}
			w := sticks.with(p, f)
			if on[w] == nil {
				with = append(with, w)
			}
			on[w] = append(on[w], f)
		}
		for _, w := range with {
			says = append(says, fmt.Sprintf("%s: put %s on the %s of the %s, near the edge.", words.Capital(p.Name), w, side,
				p.Names(on[w])))
		}
	}
	for _, g := range p.Glues {
		if f, on := p.Face(g.Face), p.Face(g.On); g.Lapped && f != nil && on != nil && f.Area() > on.Area() {
			says = append(says, fmt.Sprintf("%s: the %s is longer than the %s it lies on; put nothing where it stands out, it would show.",
				words.Capital(p.Name), words.Plain(g.Face), words.Plain(g.On)))
		}
	}
	var folds []string
	for _, m := range p.Order {
		if m.When == sheet.Make {
			folds = append(folds, p.Says(m))
		}
	}
	if len(folds) == 0 {
		return says
	}
	order := fmt.Sprintf("Fold up in this order: %s.", strings.Join(folds, "; then "))
	if len(folds) == 1 && len(faces) == 0 && p.Order[0].Told != "" {
		order = words.Capital(folds[0]) + "."
	}
	if len(faces) == 0 {
		order = words.Capital(p.Name) + ": " + words.Small(order)
	}
	switch {
	case len(tabs) > 0:
		order += fmt.Sprintf(" Set the %s on the tabs edge to edge at the corners, then press.", p.Names(on))
	case len(faces) > 0:
		order += " Set edges level before they touch, then press along the whole length."
	}
	return append(says, order)
}

// over says whether a face is stuck on the outside of another.
func over(p *sheet.Piece, face string) bool {
	return slices.ContainsFunc(p.Glues, func(g sheet.Glue) bool { return g.Face == face && g.Outside })
}

func plural(n int, what string) string {
	if n == 1 {
		return "one " + what
	}
	if strings.HasSuffix(what, "ch") {
		what += "e"
	}
	return fmt.Sprintf("%d %ss", n, what)
}

// Minutes reckons the work for so many boxes: minutes for a trim, a score, a
// fold, a cut by hand and a glued tab, as an unhurried maker takes them.
func Minutes(pieces []*sheet.Piece, trims, copies int) int {
	total := 0.5 * float64(trims)
	for _, p := range pieces {
		hand := 0.3*float64(len(p.Slits)) + 0.75*float64(len(p.Glues)) + 0.4*float64(len(p.Passes))
		for _, f := range p.Faces {
			if f.Waste {
				hand += 0.25
			}
		}
		total += hand * float64(p.Count*copies)
	}
	return max(1, int(total+0.5))
}
