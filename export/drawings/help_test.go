package drawings

import (
	"testing"

	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/sets"
	"brevium/internal/drawn"
)

// straight gives the straight lines of a drawing, of kinds that are cut or scored.
func straight(d Drawing) (out []drawn.Line) {
	for _, p := range d.Paths {
		if p.Kind == Name || p.Round > 0 {
			continue
		}
		n := len(p.Points)
		if !p.Closed {
			n--
		}
		for i := range n {
			a, b := p.Points[i], p.Points[(i+1)%len(p.Points)]
			out = append(out, drawn.Line{a.X, a.Y, b.X, b.Y})
		}
	}
	return out
}

// everyPiece goes over the pieces of boxes with all kinds of line: holes, slots, slants, bends,
// mirror images, layers cut to a shape.
func everyPiece(t testing.TB, do func(name string, j sets.Job, d Drawing)) {
	for _, j := range []sets.Job{drawn.Job(t, "tray-lid", "90 mm", "70 mm", "40 mm"), drawn.Job(t, "gable-cap", "80 mm", "60 mm", "50 mm"),
		drawn.Job(t, "pinch-top", "60 mm", "44 mm", "80 mm", "box.options.closure", "ribbon"),
		drawn.Job(t, "arched-box", "80 mm", "60 mm", "70 mm"), drawn.Job(t, "corner-shells", "70 mm", "70 mm", "25 mm"),
		drawn.Job(t, "pleat-pouch", "90 mm", "24 mm", "50 mm")} {
		piecesOf(j, func(p *plan.Plan, _ string, piece *net.Piece) {
			do(p.Style.ID+" "+piece.Name, j, OfPiece(j, p, piece, false))
		})
	}
}
