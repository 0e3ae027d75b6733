package export

import (
	"fmt"
	"math"
	"slices"

	"brevium/export/drawings"
)

// Templates larger than a page: tiles that overlap, laid cross on cross.

// tiling is a drawing cut up for several pages: all tiles are alike, so that none holds only a
// sliver of the piece.
type tiling struct {
	drawings.Drawing
	nx, ny     int
	wide, high float64
}

// tilingOf cuts a drawing up for pages so large.
func tilingOf(d drawings.Drawing, wide, high float64) tiling {
	t := tiling{Drawing: d, nx: tilesOf(d.W, wide), ny: tilesOf(d.H, high)}
	each := func(size float64, n int) float64 { return (size + float64(n-1)*tileOverlap) / float64(n) }
	t.wide, t.high = each(d.W, t.nx), each(d.H, t.ny)
	return t
}

// tilesOf is how many pages a length takes, each lying over the one before.
func tilesOf(size, page float64) int {
	if size <= page+1e-9 {
		return 1
	}
	return 1 + int(math.Ceil((size-page)/(page-tileOverlap)-1e-9))
}

// corner is where a tile begins on the piece.
func (t tiling) corner(x, y int) drawings.Point {
	return drawings.Point{X: float64(x) * (t.wide - tileOverlap), Y: float64(y) * (t.high - tileOverlap)}
}

// needed reports whether anything of the piece lies on a tile.
func (t tiling) needed(x, y int) bool {
	if x < 0 || y < 0 || x >= t.nx || y >= t.ny {
		return false
	}
	lo := t.corner(x, y)
	for _, path := range t.Paths {
		if path.Kind != drawings.Name && len(drawings.Within(path, lo, drawings.Point{X: lo.X + t.wide, Y: lo.Y + t.high})) > 0 {
			return true
		}
	}
	return false
}

// tiled sets a drawing on as many pages as it needs, lying or turned.
func (p *paper) tiled(d drawings.Drawing) {
	wide := p.w - 2*tileMargin
	p.font(true, 10)
	title := p.wrap(d.Says+" · page A1 of A1", wide)
	high := p.tileRoom(d, len(title))
	t := tilingOf(d, wide, high)
	if other := tilingOf(d.Turned(), wide, high); other.nx*other.ny < t.nx*t.ny {
		t = other
	}
	p.namesOffJoins(&t)
	for y := range t.ny {
		for x := range t.nx {
			if t.needed(x, y) {
				p.tile(t, x, y, float64(len(title)))
			}
		}
	}
}

// namesOffJoins moves names that would lie on the line where pages overlap beside it.
func (p *paper) namesOffJoins(t *tiling) {
	t.Paths = slices.Clone(t.Paths)
	for i, path := range t.Paths {
		if path.Kind != drawings.Name {
			continue
		}
		p.font(false, 8)
		at, half := path.Points[0], p.wide(path.Text)/2+crossArm+1
		for x := 1; x < t.nx; x++ {
			if join := t.corner(x, 0).X + tileOverlap/2; math.Abs(at.X-join) < half {
				at.X = join - half
			}
		}
		for y := 1; y < t.ny; y++ {
			if join := t.corner(0, y).Y + tileOverlap/2; math.Abs(at.Y-join) < crossArm+2 {
				at.Y = join - crossArm - 2
			}
		}
		t.Paths[i].Points = []drawings.Point{at}
	}
}

func (p *paper) tile(t tiling, x, y int, titles float64) {
	p.templatePage(t.Warn, func(top float64) {
		p.font(true, 10)
		last := drawings.Point{X: float64(t.nx), Y: float64(t.ny)}
		p.titled(p.wrap(fmt.Sprintf("%s · page %s of %s", t.Says, tileName(x, y), tileName(int(last.X)-1, int(last.Y)-1)),
			p.w-2*tileMargin), tileMargin, top)
		left, above := tileMargin, top+titleLine*titles
		at := t.corner(x, y)
		p.within("Figure", t.Says+", true to size", func() {
			p.pdf.ClipRect(left-0.5, above-0.5, t.wide+1, t.high+1, false)
			p.drawing(t.Drawing, left-at.X, above-at.Y)
			p.pdf.ClipEnd()
		})
		p.artifact(func() { p.joins(t, left, above, x, y) })
	})
}

// tileName names a page by its row and column: A1, A2, B1.
func tileName(x, y int) string {
	row := string(rune('A' + y%26))
	if y >= 26 {
		row = string(rune('A'+y/26-1)) + row
	}
	return fmt.Sprintf("%s%d", row, x+1)
}

// joins marks where a neighbouring page lies over this one: a dotted line in the middle of what
// both show, with a cross at either end. A cross stands at one point of the piece on both pages.
func (p *paper) joins(t tiling, left, top float64, x, y int) {
	pdf := p.pdf
	pdf.SetDrawColor(101, 91, 78)
	pdf.SetLineWidth(0.15)
	pdf.SetLineCapStyle("butt")
	edge := func(x1, y1, x2, y2 float64, to string) {
		pdf.SetDashPattern([]float64{0.6, 1.6}, 0)
		pdf.Line(x1, y1, x2, y2)
		pdf.SetDashPattern(nil, 0)
		for _, at := range []drawings.Point{{X: x1, Y: y1}, {X: x2, Y: y2}} {
			pdf.Line(at.X-crossArm, at.Y, at.X+crossArm, at.Y)
			pdf.Line(at.X, at.Y-crossArm, at.X, at.Y+crossArm)
		}
		p.font(false, 7)
		pdf.SetTextColor(101, 91, 78)
		p.put((x1+x2)/2+1, (y1+y2)/2-1, to)
	}
	const in, inset = tileOverlap / 2, tileOverlap
	for _, s := range []struct {
		x, y    int
		at      float64
		upright bool
	}{{x - 1, y, left + in, true}, {x + 1, y, left + t.wide - in, true}, {x, y - 1, top + in, false},
		{x, y + 1, top + t.high - in, false}} {
		switch {
		case !t.needed(s.x, s.y):
		case s.upright:
			edge(s.at, top+inset, s.at, top+t.high-inset, tileName(s.x, s.y))
		default:
			edge(left+inset, s.at, left+t.wide-inset, s.at, tileName(s.x, s.y))
		}
	}
	pdf.SetDashPattern(nil, 0)
}

// crossArm is how far a cross reaches from its middle.
const crossArm = 3.0
