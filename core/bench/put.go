package bench

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/net"
	"brevium/core/words"
)

// Folded pieces come together, the box is filled and closed.

// shown gives the parts that are in their places when so many steps of the course are
// done: the first, and those put there.
func (w Work) shown(n int) (parts []string) {
	put := map[string]bool{}
	for i, d := range w.course {
		if len(d.Faces) == 0 && d.Part != "" && i >= n {
			put[d.Part] = true // still to come
		}
	}
	for _, d := range w.course {
		if d.Part != "" && !put[d.Part] && !slices.Contains(parts, d.Part) {
			parts = append(parts, d.Part)
		}
	}
	return parts
}

// moment is the box with what is done in one step of its course.
func (w Work) moment(i int) Frame {
	d := w.course[i]
	f := Frame{Says: d.Says, Look: Standing, At: float64(i + 1), Parts: w.shown(i + 1), Lit: d.Faces}
	if d.Piece != nil {
		f.Piece = d.Piece.Name
	}
	return f
}

// together puts the folded pieces in their places, each where it goes.
func (w Work) together() Step {
	s := Step{ID: "together", Title: "Put together"}
	for i, d := range w.course {
		if d.Does == "put" {
			f := w.moment(i)
			f.Empty = true
			s.Frames = append(s.Frames, f)
			s.Says = append(s.Says, d.Says)
			s.Minutes += 0.75 * float64(w.Copies)
		}
	}
	more := append(w.errands(s.Title), w.Dressing.Before...)
	s.Says = append(s.Says, more...)
	s.Minutes += 0.75 * float64(w.Copies*len(more))
	if i := slices.IndexFunc(w.course, func(d Done) bool { return d.Does == "fill" }); i >= 0 {
		for _, says := range more {
			s.Frames = append(s.Frames, Frame{Says: says, Look: Standing, At: float64(i), Parts: w.shown(i), Empty: true})
		}
	}
	if w.joined() && w.Sticks.ID != "tape" {
		s.Waits = []Wait{{"Hold each", w.Sticks.Press}}
	}
	return s
}

// errands are what is done beside folding and sticking in the step of a title.
func (w Work) errands(title string) (says []string) {
	for _, e := range w.Box.Errands {
		if e.Title == title {
			says = append(says, e.Says)
		}
	}
	return says
}

// fit tries what goes over something, before it is stuck.
func (w Work) fit() Step {
	s := Step{ID: "fit", Title: "Dry-fit"}
	for _, l := range w.lids {
		if p := w.piece(l); p != nil && w.sticksNow(p) {
			s.Says = append(s.Says, fmt.Sprintf("Fold the %s up without sticking it. Hold its corners and try it on: it should slide down by "+
				"itself or with a light push. Only then stick it.", words.Plain(l)))
		} else {
			s.Says = append(s.Says, fmt.Sprintf("Try the %s on: it should slide down by itself or with a light push.", words.Plain(l)))
		}
		s.Minutes += 0.25 * float64(w.Copies)
	}
	for i, d := range w.course {
		if d.Does == "close" && slices.Contains(w.lids, d.Part) {
			s.Frames = append(s.Frames, Frame{Says: fmt.Sprintf("With the %s on, still empty.", words.Plain(d.Part)),
				Look: Standing, At: float64(i + 1), Parts: w.shown(i + 1), Empty: true})
		}
	}
	return s
}

// drying leaves what is glued alone before it is filled.
func (w Work) drying() Step {
	s := Step{ID: "drying", Title: "Let it dry"}
	if !w.wet() {
		return s
	}
	s.Says = []string{"Let wet glue dry under a weight before filling."}
	s.Waits = []Wait{{"Let it dry", w.Sticks.Dry}}
	if i := slices.IndexFunc(w.course, func(d Done) bool { return d.Does == "fill" }); i >= 0 {
		s.Frames = []Frame{{Says: s.Says[0], Look: Standing, At: float64(i), Parts: w.shown(i), Empty: true}}
	}
	return s
}

// wet reports whether anything is stuck with wet glue before the box is filled.
func (w Work) wet() bool {
	if w.Sticks.ID == "tape" {
		return false
	}
	late := w.late()
	return w.joined() && w.Sticks.ID != "both" || slices.ContainsFunc(w.pieces, func(p *net.Piece) bool {
		return slices.ContainsFunc(p.Glues, func(g net.Glue) bool { return !late[p][g.Face] && !w.Sticks.Taped(p, g.Face) })
	})
}

func (w Work) fill() Step {
	holds := "tab"
	if !w.joined() && !slices.ContainsFunc(w.pieces, func(p *net.Piece) bool { return len(p.Glues) > 0 }) {
		holds = "fold"
	}
	s := Step{ID: "fill", Cautions: Take(w.Care...), Title: "Fill", Says: []string{"Fill it last, when " +
		"every " + holds + " holds firmly."},
		Minutes: 0.5 * float64(w.Copies)}
	if len(w.Contents) > 0 {
		s.Says = []string{"When every " + holds + " holds firmly, put in " + strings.Join(w.Contents, ", ") + "."}
	}
	if i := slices.IndexFunc(w.course, func(d Done) bool { return d.Does == "fill" }); i >= 0 {
		s.Frames = []Frame{w.moment(i)}
	}
	return s
}

// close closes the filled box, and puts on what goes on or round it last.
func (w Work) close() Step {
	s := Step{ID: "close", Title: "Close"}
	n := 0
	for i, d := range w.course {
		if d.Does != "close" {
			continue
		}
		n++
		f := w.moment(i)
		if peel := w.peel(d); peel != "" {
			f.Says = peel + " " + f.Says
		}
		s.Says, s.Frames = append(s.Says, f.Says), append(s.Frames, f)
	}
	says := append(w.errands(s.Title), w.Dressing.Last...)
	s.Says = append(s.Says, says...)
	s.Minutes = 0.25 * float64(n+len(says)) * float64(w.Copies)
	if n := len(w.course); n > 0 {
		for _, says := range w.errands(s.Title) {
			s.Frames = append(s.Frames, Frame{Says: says, Look: Standing, At: float64(n), Parts: w.shown(n)})
		}
	}
	if n := len(w.course); len(w.Dressing.Last) > 0 && n > 0 {
		s.Frames = append(s.Frames, Frame{Says: strings.Join(w.Dressing.Last, " "), Look: Standing, At: float64(n),
			Parts: w.shown(n), Late: true})
		if w.Dressing.Busy {
			s.Says = append(s.Says, "A busy pattern hides the lap. On plain paper, put the lap at the back or below.")
		}
	}
	return s
}

// peel says what makes faces stick that are stuck for good when the box is filled: tape has its backing until then.
func (w Work) peel(d Done) string {
	var taped, glued []string
	for _, g := range d.Glues {
		on := &glued
		if w.Sticks.Taped(d.Piece, g.Face) {
			on = &taped
		}
		if !slices.Contains(*on, g.Face) {
			*on = append(*on, g.Face)
		}
	}
	var says []string
	if len(taped) > 0 {
		says = append(says, fmt.Sprintf("Peel the backing off the tape on the %s.", d.Piece.Names(taped)))
	}
	if len(glued) > 0 {
		says = append(says, fmt.Sprintf("Put glue on the %s.", d.Piece.Names(glued)))
	}
	return strings.Join(says, " ")
}

// late gives, of each piece, the faces that are stuck only when the box is filled.
func (w Work) late() map[*net.Piece]map[string]bool {
	out := map[*net.Piece]map[string]bool{}
	for _, d := range w.course {
		for _, g := range d.Glues {
			if d.Does == "close" {
				if out[d.Piece] == nil {
					out[d.Piece] = map[string]bool{}
				}
				out[d.Piece][g.Face] = true
			}
		}
	}
	return out
}

// sticksNow reports whether anything of a piece is stuck while it is folded up.
func (w Work) sticksNow(p *net.Piece) bool {
	late := w.late()[p]
	return slices.ContainsFunc(p.Glues, func(g net.Glue) bool { return !late[g.Face] })
}
