package solid

import (
	"fmt"
	"strings"

	"brevium/core/assembly"
	"brevium/core/fold"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/draw/pen"
)

// the moments of a moving picture, and how long the closed and the opened box
// stay, in moments
const moments, stay = 9, 3

// small is how many things and faces of dividers a small picture still shows.
const small = 120

// inside reports whether what goes in is shown: of very much the eye tells nothing
// at this size, in any of the moments.
func inside(p *plan.Plan) Extent {
	n := len(p.Blocks)
	for _, piece := range p.Box.Pieces() {
		if piece.Part == net.Insert {
			n += len(piece.Faces) * piece.Count
			for _, f := range piece.Faces {
				n += len(f.Holes) * 4
			}
		}
	}
	return n <= small
}

// Moving draws the box being made, from flat to closed and opened again, as
// pictures that follow each other. It needs no script, and stands still where
// motion is not shown.
func Moving(p *plan.Plan, w, h float64) string {
	poses := make([]assembly.Pose, 0, moments+1)
	for i := range moments {
		poses = append(poses, assembly.Pose{Fold: float64(i) / (moments - 1)})
	}
	poses = append(poses, assembly.Pose{Fold: 1, Lift: 0.6})
	long := make([]int, len(poses))
	all := 0
	for i := range long {
		long[i] = 1
		if i == moments-1 || i == len(poses)-1 {
			long[i] = stay
		}
		all += long[i]
	}
	c := &pen.Canvas{}
	cuts, what := fold.Cuts{}, inside(p)
	at := 0
	for i, pose := range poses {
		values, times := []string{"hidden"}, []string{"0"}
		if i == 0 {
			values, times = nil, nil
		}
		values, times = append(values, "visible"), append(times, fmt.Sprintf("%.4f", float64(at)/float64(all)))
		if at += long[i]; at < all {
			values, times = append(values, "hidden"), append(times, fmt.Sprintf("%.4f", float64(at)/float64(all)))
		}
		seen := "hidden"
		if i == len(poses)-1 {
			seen = "visible"
		}
		c.Group("visibility", seen)
		c.Tag("animate", "attributeName", "visibility", "dur", fmt.Sprintf("%.1fs", float64(all)*0.42),
			"repeatCount", "indefinite",
			"calcMode", "discrete", "values", strings.Join(values, ";"), "keyTimes", strings.Join(times, ";"))
		scene := sceneOf(p, pose, DefaultView, what, cuts)
		scene.Paint(c, DefaultView, w, h, MostSeen/(moments+1))
		c.End()
	}
	return c.Picture("folded", w, h, p.Style.Title+", folding").SVG()
}
