package draw

import (
	"fmt"
	"slices"

	"brevium/core/measure"
	"brevium/core/net"
	"brevium/draw/pen"
)

// rulers lies a ruler along the top edge and one along the left edge, numbered
// in the unit of the figures beside them, which they name.
func (f flat) rulers() {
	w, h := f.piece.Width.MM()*f.k, f.piece.Height.MM()*f.k
	f.Rect("ruler", f.x, f.y-rulerHigh-2, w, rulerHigh)
	f.Rect("ruler", f.x-rulerWide-2, f.y, rulerWide, h)
	f.Label(string(f.p.Step.Unit), "ruler-text", pen.At(f.x-5, f.y-8, "end", false))
	step, number := ticksAt(f.k, f.p.Step.Unit)
	for i := 0; ; i++ {
		at := step * measure.Length(i)
		if at > max(f.piece.Width, f.piece.Height) {
			break
		}
		d := at.MM() * f.k
		long, label := 5.0, ""
		if at%number == 0 {
			if long = 9; at > 0 {
				label = rulerNumber(at, f.p.Step.Unit)
			}
		}
		if at <= f.piece.Width {
			f.Line("tick", f.x+d, f.y-2, f.x+d, f.y-2-long)
			if label != "" && d < w-8 && !f.crossed(at, true, pen.Wide(label, pen.SizeOf("ruler-text"))/2) {
				f.Label(label, "ruler-text", pen.At(f.x+d, f.y-13, "middle", false))
			}
		}
		if at <= f.piece.Height {
			f.Line("tick", f.x-2, f.y+d, f.x-2-long, f.y+d)
			if label != "" && d < h-4 && !f.crossed(at, false, 5) {
				f.Label(label, "ruler-text", pen.At(f.x-12, f.y+d+3.5, "end", false))
			}
		}
	}
}

// crossed reports whether the leader of a score's figure comes nearer than so many
// pixels to a mark: its number would be struck through.
func (f flat) crossed(at measure.Length, alongWidth bool, near float64) bool {
	return slices.ContainsFunc(f.piece.Passes, func(p net.Pass) bool {
		return p.AlongWidth == alongWidth && (p.At-at).Abs().MM()*f.k < near
	})
}

// ticksAt picks marks that stand at least 4 pixels apart and numbers at least 24, at so
// many pixels a millimetre.
func ticksAt(k float64, unit measure.Unit) (step, number measure.Length) {
	marks := []measure.Length{measure.Inch / 16, measure.Inch / 8, measure.Inch / 4, measure.Inch / 2, measure.Inch,
		2 * measure.Inch}
	numbers := []measure.Length{measure.Inch, 2 * measure.Inch, 4 * measure.Inch}
	if unit.Metric() {
		mm := measure.Millimetre
		marks = []measure.Length{mm, 2 * mm, 5 * mm, 10 * mm, 20 * mm}
		numbers = []measure.Length{10 * mm, 20 * mm, 50 * mm, 100 * mm}
	}
	pick := func(from []measure.Length, apart float64) measure.Length {
		for _, l := range from {
			if l.MM()*k >= apart {
				return l
			}
		}
		return from[len(from)-1]
	}
	return pick(marks, 4), pick(numbers, 24)
}

func rulerNumber(l measure.Length, u measure.Unit) string {
	if u == measure.Inches {
		return fmt.Sprint(int64(l / measure.Inch))
	}
	return fmt.Sprint(int64(l / u.Size()))
}
