package least

import (
	"cmp"
	"math"
	"slices"

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

// cover is the least that sheets can cost that are together worth what the pieces are,
// when each can be worth so much and no more. Whole numbers throughout.
func (p *problem) cover(worth, most []int64) int64 {
	want := int64(0)
	for k, kind := range p.kinds {
		want += worth[k] * int64(kind.all())
	}
	var sizes []int
	for i, m := range most {
		if m > 0 {
			sizes = append(sizes, i)
		}
	}
	// The cheapest for what it can be worth comes first.
	slices.SortStableFunc(sizes, func(a, b int) int {
		return cmp.Compare(float64(p.sizes[a].cost)/float64(most[a]), float64(p.sizes[b].cost)/float64(most[b]))
	})
	c := &covering{p: p, most: most, sizes: sizes, best: dear, looks: 2000}
	c.look(0, want, 0)
	if c.looks < 0 {
		return c.coarse(want)
	}
	return c.best
}

// covering is the search for it.
type covering struct {
	p     *problem
	most  []int64
	sizes []int
	best  int64
	looks int
}

// look takes as many of a size as there are, then one less, and so on, as long as it can pay.
func (c *covering) look(i int, want, cost int64) {
	if c.looks--; want <= 0 {
		c.best = min(c.best, cost)
		return
	}
	if i == len(c.sizes) || c.looks < 0 {
		return
	}
	s := c.p.sizes[c.sizes[i]]
	m := c.most[c.sizes[i]]
	n := (want + m - 1) / m
	if s.count != Unlimited {
		n = min(n, int64(s.count))
	}
	for ; n >= 0; n-- {
		left := want - n*m
		spent := cost + n*s.cost
		if left > 0 && i+1 < len(c.sizes) {
			next := c.sizes[i+1]
			if float64(spent)+float64(left)*float64(c.p.sizes[next].cost)/float64(c.most[next]) >= float64(c.best)-1e-6 {
				return // less of this size is dearer still
			}
		}
		if c.look(i+1, left, spent); c.looks < 0 || s.cost == 0 {
			return // what is free is taken
		}
	}
}

// coarse is the cost when a part of a sheet can be bought, up to what prices add up to.
func (c *covering) coarse(want int64) int64 {
	step := int64(0) // all costs are multiples of it
	for _, i := range c.sizes {
		for a, b := step, c.p.sizes[i].cost; ; a, b = b, a%b {
			if b == 0 {
				step = a
				break
			}
		}
	}
	cost := 0.0
	for _, i := range c.sizes {
		s, n := c.p.sizes[i], float64(want)/float64(c.most[i])
		if s.count != Unlimited {
			n = min(n, float64(s.count))
		}
		cost += n * float64(s.cost)
		if want -= int64(n * float64(c.most[i])); want <= 0 {
			break
		}
	}
	step = max(step, 1)
	return int64(math.Ceil(cost*(1-1e-9)/float64(step)-1e-9)) * step
}
