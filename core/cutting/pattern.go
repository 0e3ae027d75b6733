package cutting

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/dress"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/style"
	"brevium/core/words"
)

// Which way the pattern of printed card runs on the standing box.

// Edges are the edges of a piece as it is drawn, a quarter turn each time.
var Edges = []string{"top", "right", "bottom", "left"}

// grows gives the edge of a piece, as it is drawn, at which the top of its pattern must
// lie for the front to stand upright, or the largest panel where there is no front: in
// quarter turns from the top. Layers are drawn as they stand.
func (t *Table) grows(piece *net.Piece) int {
	if !t.CardOf(piece.Stock).Directed() || piece.Part != net.Box {
		return 0
	}
	best, area := 0, 0.0
	for _, u := range t.usual[piece.Name] {
		size := u.Area
		if u.Looks == "front" {
			size *= 100
		}
		if size > area {
			best, area = u.Up, size
		}
	}
	return best
}

// sample tells how the panels stand of a box of this style with these answers, of a size that suits it: which way a
// piece must lie is a matter of its style, and must be known of drafts too, which are not folded.
func (t *Table) sample() map[string][]dress.Stands {
	for _, side := range []measure.Length{90, 60, 140} {
		job := t.Spec()
		size := side * measure.Millimetre
		job.Report = &brief.Report{Units: t.Units, Step: t.Step}
		job.Given = &style.Dims{Length: size, Width: size, Depth: size / 2}
		job.Answers.Length = nil
		if b := style.Make(job, t.Style, false); b != nil {
			return dress.Upright(b, t.Card.Caliper)
		}
	}
	return map[string][]dress.Stands{}
}

// upright lays a piece on its sheet so that its pattern grows as it should.
func (t *Table) upright(l layout.Piece, piece *net.Piece) layout.Piece {
	if odd := t.grows(piece)%2 == 1; l.Upright && odd {
		l.Upright, l.Across = false, true
	}
	return l
}

// PatternTop names the edge of a piece, as it is drawn, at which the top of its pattern
// lies; "" where the card has none.
func (t *Table) PatternTop(piece *net.Piece) string {
	if !t.CardOf(piece.Stock).Directed() {
		return ""
	}
	return Edges[t.grows(piece)]
}

// PatternSays tells it, with how the pattern then stands on each panel, of which it is known how they
// stand (dress.Upright of the folded box).
func (t *Table) PatternSays(piece *net.Piece, panels map[string][]dress.Stands) string {
	top := t.PatternTop(piece)
	if top == "" {
		return ""
	}
	says := fmt.Sprintf("The top of the pattern is at the %s edge in the drawing.", top)
	how := map[int][]string{}
	for _, u := range panels[piece.Name] {
		turn := (u.Up - t.grows(piece) + 4) % 4
		if turn == 3 {
			turn = 1
		}
		how[turn] = append(how[turn], words.Plain(u.Face))
	}
	var parts []string
	for turn, text := range []string{"", "on its side on the", "upside down on the"} {
		if names := how[turn]; turn > 0 && len(names) > 0 {
			slices.Sort(names)
			parts = append(parts, text+" "+strings.Join(slices.Compact(names), ", "))
		}
	}
	if len(parts) > 0 {
		says += " The pattern is then " + strings.Join(parts, ", and ") + ". Cover it where it matters."
	}
	return says
}

// strips lays layers that are cut as a run in place of the single ones, and those that
// are cut round a motif where that is.
func (t *Table) strips(all []layout.Piece, copies int) []layout.Piece {
	if t.Dressed == nil {
		return all
	}
	for _, r := range t.Dressed.Runs {
		for _, c := range r.Cuts {
			for i := range all {
				if all[i].Name == c.Piece.Name {
					all[i].Count -= copies
				}
			}
		}
		for n, part := range t.RunParts(r) {
			all = append(all, layout.Piece{Name: runName(r, n), W: part.W, H: r.H, Count: copies, Upright: r.Card.Directed(),
				Stock: r.Card.ID})
		}
	}
	all = slices.DeleteFunc(all, func(l layout.Piece) bool { return l.Count <= 0 })
	for _, m := range t.Dressed.Motifs {
		for i := range all {
			if all[i].Name == m.Piece {
				one := all[i]
				one.Count, one.At, one.Upright = copies, &layout.Spot{X: m.X, Y: m.Y}, true
				all[i].Count -= copies
				all = append(all, one)
				break
			}
		}
	}
	return slices.DeleteFunc(all, func(l layout.Piece) bool { return l.Count <= 0 })
}

// RunParts are the parts that the strip of a run is cut in, for the sheet it comes off.
func (t *Table) RunParts(r dress.Run) []dress.RunPart {
	on := t.SheetOf(r.Card)
	most := max(on.Width, on.Height)
	if r.Card.Directed() {
		most = on.Width
	}
	return r.On(most, t.Step.Size)
}

// runName is what the nth part of a run is called on the sheets.
func runName(r dress.Run, n int) string {
	if n == 0 {
		return r.Name
	}
	return fmt.Sprintf("%s, part %d", r.Name, n+1)
}

// RunCalled finds a part of a run by its name on the sheets.
func (t *Table) RunCalled(name string) (r dress.Run, part dress.RunPart, ok bool) {
	if t.Dressed == nil {
		return r, part, false
	}
	for _, r := range t.Dressed.Runs {
		for n, part := range t.RunParts(r) {
			if runName(r, n) == name {
				return r, part, true
			}
		}
	}
	return r, part, false
}

// IsDressing reports whether a piece is of the dressing, and not of the box itself.
func (t *Table) IsDressing(piece *net.Piece) bool {
	return t.Dressed != nil && slices.ContainsFunc(t.Dressed.Laid, func(l dress.Laid) bool { return l.Piece == piece })
}
