package least

import (
	"brevium/core/layout"
)

// below is what no arrangement costs less than, as far as areas, stretched areas and
// pieces that can't share a sheet tell.
func (p *problem) below() int64 {
	if p.total == 0 {
		return 0
	}
	bound := int64(0)
	worth, most := make([]int64, len(p.kinds)), make([]int64, len(p.sizes))
	for k, kind := range p.kinds {
		worth[k] = kind.area
	}
	for i, s := range p.sizes {
		most[i] = s.area
	}
	if bound = p.cover(worth, most); bound >= dear {
		return 0 // there is not enough card
	}
	if at := p.cheapestSize(); at >= 0 {
		bound = max(bound, p.sizes[at].cost*int64(p.enclosed()))
	}
	return bound
}

// cheapestSize is the cheapest size, if nothing is free.
func (p *problem) cheapestSize() int {
	best := -1
	for i, s := range p.sizes {
		if best < 0 || s.cost < p.sizes[best].cost {
			best = i
		}
	}
	if best >= 0 && p.sizes[best].cost == 0 {
		return -1
	}
	return best
}

// enclosed is how many sheets are wanted at least, were all as large as the largest.
func (p *problem) enclosed() int {
	var all size
	for _, s := range p.sizes {
		all.w, all.h = max(all.w, s.w), max(all.h, s.h)
	}
	n := int(ceil(p.stretched(all)))
	pieces := make([]layout.Piece, 0, len(p.kinds))
	for _, k := range p.kinds {
		pieces = append(pieces, layout.Piece{W: Length(k.w), H: Length(k.h), Count: k.all(), At: k.at,
			Upright: len(k.ways) == 1 && k.ways[0][0] == k.w, Across: len(k.ways) == 1 && k.ways[0][0] != k.w})
	}
	return max(n, layout.Bound(pieces, Length(all.w), Length(all.h)))
}

// count is the least number of sheets, whatever they cost.
func (p *problem) count() int {
	for _, s := range p.Sheets {
		if s.Offcut {
			return 0
		}
	}
	return p.enclosed()
}
