package bench

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/fasteners"
	"brevium/core/net"
	"brevium/core/words"
)

// Side is where something is put on a piece: the face, and which side of it looks up then; Through
// where it goes through the card.
type Side struct {
	Face    string
	Outside bool
	Through bool
}

// putOn tells what is stuck on or pierced while the piece is still flat: on which face, which side
// of it, and where.
func (w Work) putOn(p *net.Piece) (says []string) {
	for i, m := range p.Marks {
		at := fmt.Sprintf("%s from the left and %s from the top of the %s, inside up", w.Say(m.At.X), w.Say(m.At.Y), words.Plain(p.Name))
		with, _ := fasteners.Called(m.What)
		side := Side{Through: with.Through}
		if of := w.sides[p]; i < len(of) {
			side = of[i]
		}
		on := words.Plain(p.Name)
		if side.Face != "" && len(p.Kept()) > 1 {
			on = words.Plain(side.Face)
		}
		does := fmt.Sprintf("Stick a %s on the inside of the %s", m.What, on)
		switch {
		case side.Through:
			does = fmt.Sprintf("Pierce the %s for the %s", on, m.What)
		case side.Outside:
			does = fmt.Sprintf("Stick a %s on the outside of the %s, with nothing over it", m.What, on)
		}
		says = append(says, fmt.Sprintf("%s: %s.", does, at))
	}
	return says
}

// sticking tells the order of folding up and what is stuck behind what.
// What is stuck only when the box is filled has tape with its backing on, and glue not yet.
func (w Work) sticking(p *net.Piece, late map[string]bool) (says []string) {
	sticks := w.Sticks
	var faces, tabs, on, wait []string
	for _, g := range p.Glues {
		if late[g.Face] {
			if sticks.Taped(p, g.Face) && !slices.Contains(wait, g.Face) {
				wait = append(wait, g.Face)
			}
			continue
		}
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
			if w.inner[p][f] != (side == "inside") {
				continue
			}
			what := sticks.with(p, f)
			if on[what] == nil {
				with = append(with, what)
			}
			on[what] = append(on[what], f)
		}
		for _, what := range with {
			says = append(says, fmt.Sprintf("%s: put %s on the %s of the %s, near the edge.", words.Capital(p.Name), what, side,
				p.Names(on[what])))
		}
	}
	if len(wait) > 0 {
		says = append(says, fmt.Sprintf("%s: put tape on the %s too. Leave its backing on until the box is filled.",
			words.Capital(p.Name), p.Names(wait)))
	}
	for _, g := range p.Glues {
		if f, on := p.Face(g.Face), p.Face(g.On); g.Lapped && f != nil && on != nil && f.Area() > on.Area() {
			says = append(says, fmt.Sprintf("%s: the %s is longer than the %s it lies on. Put nothing where it "+
				"sticks out: it would show.",
				words.Capital(p.Name), words.Plain(g.Face), words.Plain(g.On)))
		}
	}
	if order := foldingUp(p); order != "" {
		if len(faces) == 0 {
			order = words.Capital(p.Name) + ": " + words.Small(order)
		}
		switch {
		case len(tabs) > 0:
			order += fmt.Sprintf(" Set the %s on the tabs edge to edge at the corners, then press.", p.Names(on))
		case len(faces) > 0:
			order += " Set edges level before they touch, then press along the whole length."
		}
		says = append(says, order)
	}
	return says
}

// foldingUp tells in which order a piece is folded up, "" where nothing is.
func foldingUp(p *net.Piece) string {
	var folds []string
	for _, m := range p.Order {
		if m.When == net.Make {
			folds = append(folds, p.Says(m))
		}
	}
	order := fmt.Sprintf("Fold up in this order: %s.", strings.Join(folds, "; then "))
	switch {
	case len(folds) == 0:
		order = ""
	case len(folds) == 1 && p.Order[0].Told != "":
		order = words.Capital(folds[0]) + "."
	case len(folds) == 1:
		order = "Fold up the " + folds[0] + "."
	}
	return order
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
func (w Work) folds(p *net.Piece) (at []int) {
	for i, d := range w.course {
		if d.Does == "fold" && d.Piece == p {
			at = append(at, i)
		}
	}
	return at
}

// outer reports whether a piece goes over another and is tried on before it is stuck.
func (w Work) outer(p *net.Piece) bool { return slices.Contains(w.lids, p.Name) }

// dry folds every piece up before anything is stuck.
func (w Work) dry() Step {
	s := Step{ID: "dry", Title: "Fold it dry"}
	for _, p := range w.pieces {
		at := w.folds(p)
		if len(at) == 0 || len(p.Glues) == 0 || w.spare(p) > 0 {
			continue
		}
		last := w.course[at[len(at)-1]]
		s.Frames = append(s.Frames, Frame{Says: fmt.Sprintf("The %s as it should stand, held together by hand.", words.Plain(p.Name)),
			Look: Standing, Piece: p.Name, At: float64(at[len(at)-1] + 1), Parts: []string{last.Part}, Empty: true})
		s.Minutes += 0.5 * float64(w.Copies)
	}
	if len(s.Frames) > 0 {
		s.Says = []string{"Try every fold before you stick anything. Fold each piece up, hold it, check its corners, " +
			"and open it again."}
	}
	return s
}

// StickOuter is what the step is called in which what goes over something is stuck, when it has been tried on.
const StickOuter = "Stick what goes over"

// FormOn is what the step is called in which straps, sleeves and covers are wrapped round what they go
// round, and scored where they turn.
const FormOn = "Form on the box"

// spare is how much longer a piece is cut that is formed on the box; 0 for all others.
func (w Work) spare(p *net.Piece) Length {
	for _, c := range w.Cards {
		if c.Piece == p.Name {
			return c.Spare
		}
	}
	return 0
}

func (w Work) forming(p *net.Piece, spare Length) string {
	lap := ""
	if len(p.Tips) > 0 || slices.ContainsFunc(CutsOf(p), func(c Cuts) bool { return c.Trim }) {
		lap = " Snip the corners of its end."
	}
	return fmt.Sprintf("%s: wrap it loosely around the box and pinch it at every edge. Take it off, score straight "+
		"across at each pinch, and fold. Wrap it again and trim its end. It was cut %s too long.%s",
		words.Capital(words.Plain(p.Name)), w.Say(spare), lap)
}

// stick folds each piece up and sticks it, as its order says.
func (w Work) stick() (out []Step) {
	for _, p := range w.pieces {
		late := w.late()[p]
		s := Step{ID: "stick:" + p.Name, Title: "Stick", Piece: p.Name, Count: p.Count * w.Copies,
			Says: w.sticking(p, late), Minutes: (0.75*float64(len(p.Glues)) + 0.2*float64(len(w.folds(p)))) * float64(p.Count*w.Copies)}
		now := w.sticksNow(p)
		switch {
		case !now && len(late) == 0:
			s.Title = "Fold to shape"
		case w.outer(p):
			s.Title = StickOuter
		}
		if spare := w.spare(p); spare > 0 {
			s.Title = FormOn
			s.Says = append([]string{w.forming(p, spare)}, s.Says...)
			s.Minutes += float64(len(p.Passes)*p.Count*w.Copies) * 0.5
		}
		if now {
			s.Cautions = Take(w.Box.Cautions...)
			if slices.ContainsFunc(p.Glues, func(g net.Glue) bool { return !late[g.Face] && !w.Sticks.Taped(p, g.Face) }) {
				s.Cautions = append(s.Cautions, Take(glueCare)...)
				s.Waits = append(s.Waits, Wait{"Hold each", w.Sticks.Press})
			}
			if w.Sticks.Hold != "" {
				s.Says = append(s.Says, w.Sticks.Hold)
			}
			s.Says = append(s.Says, w.knowHow(p)...)
		}
		for _, look := range []Look{GlueOut, GlueIn} {
			if slices.ContainsFunc(p.Glues, func(g net.Glue) bool { return w.inner[p][g.Face] == (look == GlueIn) }) {
				s.Frames = append(s.Frames, Frame{Says: fmt.Sprintf("The %s seen from its %s. Stick it where the dots are.",
					words.Plain(p.Name), look.Side()), Look: look, Piece: p.Name})
			}
		}
		for _, i := range w.folds(p) {
			d := w.course[i]
			s.Frames = append(s.Frames, Frame{Says: d.Says, Look: Standing, Piece: p.Name, At: float64(i) + 0.55,
				Parts: []string{d.Part}, Lit: d.Faces, Empty: true})
		}
		if n := len(s.Frames); n > 0 && s.Frames[n-1].Look == Standing {
			done := s.Frames[n-1]
			done.Says, done.At, done.Lit = fmt.Sprintf("This is how the %s should "+
				"stand.", words.Plain(p.Name)), done.At+0.45, nil
			s.Frames = append(s.Frames, done)
		}
		out = append(out, s)
	}
	return out
}

// knowHow is the small knowledge that helps with sticking a piece.
func (w Work) knowHow(p *net.Piece) (says []string) {
	if w.deep() {
		says = append(says, "Use a ruler or stick inside to press where your fingers can't reach.")
	}
	if w.Sticks.ID != "tape" && slices.ContainsFunc(p.Glues, func(g net.Glue) bool { return p.RoleOf(g.Face) != "tab" }) {
		says = append(says, "Use pegs along the rim to hold it while it dries.")
	}
	flaps := 0
	for _, g := range p.Glues {
		if g.Lapped && strings.HasSuffix(g.Face, "flap") {
			flaps++
		}
	}
	if flaps >= 3 { // all four close one end, three of them on another
		says = append(says, "Stand two flaps up and leave two down, so they close in the right order.")
	}
	return says
}
