package bench

import (
	"slices"

	"brevium/core/words"
)

// Inked edges, stamps, lettering, stickers: what makes a box look finished has its own moment, for
// ink must dry before a finger or a fold touches it, and a sticker on a score lifts.

// What the steps are called in which a box is finished, by their moment.
const (
	FinishUnscored = "Finish before scoring"
	FinishFlat     = "Finish while flat"
	FinishUnstuck  = "Finish before sticking"
	FinishLast     = "Finish"
)

// DryMinutes is from when on a wait is a pause, in which other work is done.
const DryMinutes = 5

// Finish is one thing that is done to the look of a box.
type Finish struct {
	Title   string
	Says    string
	Piece   string   // that it is done on
	Faces   []string // of it; none for all of it
	Minutes float64  // for one box
	Dry     int      // minutes it must be left alone
}

// finish tells what is inked, stamped, lettered and stuck on, a step for each moment.
func (w Work) finish() (out []Step) {
	for _, title := range []string{FinishUnscored, FinishFlat, FinishUnstuck, FinishLast} {
		s := Step{ID: "finish:" + title, Title: title}
		dry := 0
		for _, f := range w.Dressing.Finishes {
			if f.Title != title {
				continue
			}
			if !slices.Contains(s.Says, f.Says) {
				s.Says = append(s.Says, f.Says)
			}
			s.Frames = append(s.Frames, w.finishFrame(f))
			s.Minutes += f.Minutes * float64(w.Copies)
			dry = max(dry, f.Dry)
		}
		if dry > 0 {
			s.Says = append(s.Says, "Leave it to dry, untouched, for "+plural(dry, "minute")+".")
			s.Waits = []Wait{{"Let it dry", dry * 60}}
		}
		out = append(out, s)
	}
	return out
}

func (w Work) finishFrame(f Finish) Frame {
	says := words.Capital(f.Says)
	if n := len(w.course); f.Title == FinishLast && n > 0 {
		return Frame{Says: says, Look: Standing, Piece: f.Piece, Lit: f.Faces, At: float64(n), Parts: w.shown(n), Late: true}
	}
	return Frame{Says: says, Look: Finished, Piece: f.Piece, Lit: f.Faces, Uncut: f.Title == FinishUnscored}
}
