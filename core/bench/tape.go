package bench

import (
	"cmp"
	"fmt"
	"slices"

	"brevium/core/layout"
	"brevium/core/net"
	"brevium/core/words"
)

// What it is stuck with: which faces take tape and which glue, how much tape that
// is and in how many strips, and where one strip laid across saves several.

// Sticks is what a maker sticks with.
type Sticks struct {
	ID, Title, Hold string
	Press, Dry      int // seconds that each place is held, and that all of it dries
}

// Strip is the tape of one face.
type Strip struct {
	Piece, Face string
	Long        Length
	Count       int
}

// Tape is all the tape of a box.
type Tape struct {
	Strips []Strip
	Across []string // where one strip is laid over several pieces before they are cut apart
	Saved  int      // strips
}

// Long is how much tape there is in all.
func (t Tape) Long() (l Length) {
	for _, s := range t.Strips {
		l += s.Long * Length(s.Count)
	}
	return l
}

// Pieces is in how many strips it is cut.
func (t Tape) Pieces() (n int) {
	for _, s := range t.Strips {
		n += s.Count
	}
	return max(0, n-t.Saved)
}

// Taped reports whether a stuck face takes tape: all of them, none, or the long seams alone.
func (s Sticks) Taped(p *net.Piece, face string) bool {
	return s.ID == "tape" || s.ID == "both" && p.RoleOf(face) != "tab"
}

// with names what a face is stuck with.
func (s Sticks) with(p *net.Piece, face string) string {
	switch {
	case s.ID != "both":
		return s.Title
	case s.Taped(p, face):
		return "tape"
	}
	return "glue"
}

// TapeOf reckons the tape of pieces as they are laid on their sheets: each strip is as long as its face.
func TapeOf(s Sticks, pieces []*net.Piece, copies int, sheets []layout.Sheet) (t Tape) {
	for _, p := range pieces {
		seen := map[string]bool{}
		for _, g := range p.Glues {
			f := p.Face(g.Face)
			if f == nil || seen[g.Face] || !s.Taped(p, g.Face) {
				continue
			}
			seen[g.Face] = true
			lo, hi := f.Bounds()
			t.Strips = append(t.Strips, Strip{p.Name, g.Face, max(hi.X-lo.X, hi.Y-lo.Y), p.Count * copies})
			across := hi.Y-lo.Y >= p.Height*9/10
			if n := neighbours(p.Name, across, sheets); n > 1 && (across || hi.X-lo.X >= p.Width*9/10) {
				t.Across = append(t.Across, fmt.Sprintf("%s: %d of them lie side by side on the sheet. Lay one strip "+
					"of tape over the %s of all of them before you cut them "+
					"apart.", words.Capital(p.Name), n, words.Plain(g.Face)))
				t.Saved += p.Count*copies - (p.Count*copies+n-1)/n
			}
		}
	}
	return t
}

// neighbours counts how many copies of a piece lie in a row on a sheet, so that a
// strip runs on from one to the next: along the height of each, or along its width.
func neighbours(piece string, down bool, sheets []layout.Sheet) (most int) {
	for _, s := range sheets {
		var all []layout.Rect
		for _, p := range s.Placed {
			if p.Piece != piece {
				continue
			}
			r := p.Rect
			if down == p.Turned { // it runs along the other axis of the sheet
				r = layout.Rect{X: r.Y, Y: r.X, W: r.H, H: r.W}
			}
			all = append(all, r)
		}
		slices.SortFunc(all, func(a, b layout.Rect) int { return cmp.Or(cmp.Compare(a.X, b.X), cmp.Compare(a.Y, b.Y)) })
		run := 0
		for i, r := range all {
			if i > 0 && all[i-1].X == r.X && all[i-1].W == r.W && all[i-1].Y+all[i-1].H == r.Y {
				run++
			} else {
				run = 1
			}
			most = max(most, run)
		}
	}
	return most
}
