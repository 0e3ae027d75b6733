package bench

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/sheet"
	"brevium/core/words"
)

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

// folds gives the steps of the course that fold a piece up.
func (w Work) folds(p *sheet.Piece) (at []int) {
	for i, d := range w.Course {
		if d.Does == "fold" && d.Piece == p {
			at = append(at, i)
		}
	}
	return at
}

// dry folds every piece up before anything is stuck.
func (w Work) dry() Step {
	s := Step{ID: "dry", Title: "Fold it dry"}
	for _, p := range w.Pieces {
		at := w.folds(p)
		if len(at) == 0 || len(p.Glues) == 0 {
			continue
		}
		last := w.Course[at[len(at)-1]]
		s.Frames = append(s.Frames, Frame{Says: fmt.Sprintf("The %s as it should stand, held together by hand.", words.Plain(p.Name)),
			Look: Standing, Piece: p.Name, At: float64(at[len(at)-1] + 1), Parts: []string{last.Part}, Empty: true})
		s.Minutes += 0.5 * float64(w.Copies)
	}
	if len(s.Frames) > 0 {
		s.Says = []string{"Try every fold before anything is stuck: fold each piece up, hold it, look at its corners, and open it again."}
	}
	return s
}

// stick folds each piece up and sticks it, as its order says.
func (w Work) stick() (out []Step) {
	for _, p := range w.Pieces {
		s := Step{ID: "stick:" + p.Name, Title: "Stick", Piece: p.Name, Count: p.Count * w.Copies, Says: sticking(p, w.Sticks),
			Minutes: 0.75 * float64(len(p.Glues)*p.Count*w.Copies)}
		if len(p.Glues) > 0 {
			s.Cautions = Take(w.Cautions...)
			if w.Sticks.ID != "tape" {
				s.Cautions = append(s.Cautions, Take(glueCare)...)
				s.Waits = append(s.Waits, Wait{"Hold each", w.Sticks.Press})
			}
			if w.Sticks.Hold != "" {
				s.Says = append(s.Says, w.Sticks.Hold)
			}
			s.Says = append(s.Says, w.knowHow(p)...)
		}
		for _, look := range []Look{GlueOut, GlueIn} {
			if slices.ContainsFunc(p.Glues, func(g sheet.Glue) bool { return g.Outside == (look == GlueIn) }) {
				s.Frames = append(s.Frames, Frame{Says: fmt.Sprintf("The %s seen from its %s: it is stuck where the dots are.",
					words.Plain(p.Name), look.Side()), Look: look, Piece: p.Name})
			}
		}
		for _, i := range w.folds(p) {
			d := w.Course[i]
			s.Frames = append(s.Frames, Frame{Says: d.Says, Look: Standing, Piece: p.Name, At: float64(i) + 0.55,
				Parts: []string{d.Part}, Lit: d.Faces, Empty: true})
		}
		if n := len(s.Frames); n > 0 && s.Frames[n-1].Look == Standing {
			done := s.Frames[n-1]
			done.Says, done.At, done.Lit = fmt.Sprintf("So the %s stands.", words.Plain(p.Name)), done.At+0.45, nil
			s.Frames = append(s.Frames, done)
		}
		out = append(out, s)
	}
	return out
}

// knowHow is the small knowledge that helps with sticking a piece.
func (w Work) knowHow(p *sheet.Piece) (says []string) {
	if w.Deep {
		says = append(says, "A ruler or a stick inside presses what your fingers can't reach.")
	}
	if w.Sticks.ID != "tape" && slices.ContainsFunc(p.Glues, func(g sheet.Glue) bool { return p.RoleOf(g.Face) != "tab" }) {
		says = append(says, "Pegs along the rim hold it while it dries.")
	}
	flaps := 0
	for _, g := range p.Glues {
		if g.Lapped && strings.HasSuffix(g.Face, "flap") {
			flaps++
		}
	}
	if flaps >= 3 { // all four close one end, three of them on another
		says = append(says, "Stand two flaps up and leave two down: they then come in the right order.")
	}
	return says
}

// shown gives the parts that are in their places when so many steps of the course are
// done: the first, and those put there.
func (w Work) shown(n int) (parts []string) {
	put := map[string]bool{}
	for i, d := range w.Course {
		if len(d.Faces) == 0 && d.Part != "" && i >= n {
			put[d.Part] = true // still to come
		}
	}
	for _, d := range w.Course {
		if d.Part != "" && !put[d.Part] && !slices.Contains(parts, d.Part) {
			parts = append(parts, d.Part)
		}
	}
	return parts
}

// moment is the box with what is done in one step of its course.
func (w Work) moment(i int) Frame {
	d := w.Course[i]
	f := Frame{Says: d.Says, Look: Standing, At: float64(i + 1), Parts: w.shown(i + 1), Lit: d.Faces}
	if d.Piece != nil {
		f.Piece = d.Piece.Name
	}
	return f
}

// together puts the folded pieces in their places.
func (w Work) together() Step {
	s := Step{ID: "together", Title: "Put together", Says: slices.Clone(w.Together)}
	for i, d := range w.Course {
		if d.Does == "put" {
			f := w.moment(i)
			f.Empty = true
			s.Frames = append(s.Frames, f)
			s.Minutes += 0.75 * float64(w.Copies)
		}
	}
	if len(w.Inside) > 0 {
		s.Says = append(s.Says, "Set in the "+strings.Join(w.Inside, ", the ")+".")
	}
	if len(w.Together) > 0 && w.Sticks.ID != "tape" {
		s.Waits = []Wait{{"Hold each", w.Sticks.Press}}
	}
	if len(s.Says) == 0 && len(s.Frames) > 0 {
		s.Says = []string{"Put the parts in their places."}
	}
	return s
}

// fit tries what goes over something.
func (w Work) fit() Step {
	s := Step{ID: "fit", Title: "Dry-fit"}
	for _, l := range w.Lids {
		s.Says = append(s.Says, fmt.Sprintf("Try the %s before the last tab is pressed down: it should slide on by its own "+
			"weight, or with a light push.", l))
		s.Minutes += 0.25 * float64(w.Copies)
	}
	for i, d := range w.Course {
		if d.Does == "close" && slices.Contains(w.Lids, d.Part) {
			s.Frames = append(s.Frames, Frame{Says: fmt.Sprintf("With the %s on, still empty.", words.Plain(d.Part)),
				Look: Standing, At: float64(i + 1), Parts: w.shown(i + 1), Empty: true})
		}
	}
	return s
}

// drying leaves what is glued alone before it is filled.
func (w Work) drying() Step {
	s := Step{ID: "drying", Title: "Let it dry"}
	if w.Sticks.ID == "tape" || !w.sticks() {
		return s
	}
	s.Says = []string{"Let wet glue dry under a weight before filling."}
	s.Waits = []Wait{{"Let it dry", w.Sticks.Dry}}
	if i := slices.IndexFunc(w.Course, func(d Done) bool { return d.Does == "fill" }); i >= 0 {
		s.Frames = []Frame{{Says: s.Says[0], Look: Standing, At: float64(i), Parts: w.shown(i), Empty: true}}
	}
	return s
}

// sticks says whether anything is stuck at all.
func (w Work) sticks() bool {
	return len(w.Together) > 0 || slices.ContainsFunc(w.Pieces, func(p *sheet.Piece) bool { return len(p.Glues) > 0 })
}

func (w Work) fill() Step {
	s := Step{ID: "fill", Cautions: Take(w.Care...), Title: "Fill", Says: []string{"Fill it last, when every tab holds."},
		Minutes: 0.5 * float64(w.Copies)}
	if len(w.Contents) > 0 {
		s.Says = []string{"When every tab holds, put in " + strings.Join(w.Contents, ", ") + "."}
	}
	if i := slices.IndexFunc(w.Course, func(d Done) bool { return d.Does == "fill" }); i >= 0 {
		s.Frames = []Frame{w.moment(i)}
	}
	return s
}

// close closes the filled box, and puts on what goes on or round it last.
func (w Work) close() Step {
	s := Step{ID: "close", Title: "Close", Says: append(slices.Clone(w.Closing), w.Last...),
		Minutes: 0.25 * float64(len(w.Closing)+len(w.Last)) * float64(w.Copies)}
	for i, d := range w.Course {
		if d.Does == "close" {
			s.Frames = append(s.Frames, w.moment(i))
		}
	}
	if n := len(w.Course); len(w.Last) > 0 && n > 0 {
		s.Frames = append(s.Frames, Frame{Says: strings.Join(w.Last, " "), Look: Standing, At: float64(n),
			Parts: w.shown(n), Late: true})
		if w.Busy {
			s.Says = append(s.Says, "A busy paper hides a lap; lay it at the back or below where it doesn't.")
		}
	}
	return s
}
