package least

import (
	"math"
	"slices"
)

// Where a piece goes: the place on the sheets that are open where it leaves least beside
// it, or a sheet that is opened for it.

// spot is where a piece could go.
type spot struct {
	tree, rest int
	w, h       int64
	down       bool
}

// lay lays what is out, as far as there is room.
func (s *search) lay(st *state) {
	slices.SortFunc(st.out, func(a, b int32) int { return int(s.order[a]) - int(s.order[b]) })
	left := st.out[:0]
	last, stuck := int32(-1), false
	for _, k := range st.out {
		if k == last && stuck {
			left = append(left, k)
			continue
		}
		at, ok := s.find(st, k)
		if !ok {
			at, ok = s.opened(st, k)
		}
		if last, stuck = k, !ok; stuck {
			left = append(left, k)
			continue
		}
		t := s.mine(st, at.tree)
		t.place(t.rests[at.rest], k, at.w, at.h, at.down)
		t.used += s.kinds[k].area
		st.area -= s.kinds[k].area
	}
	st.out = left
}

// find looks for the best place for a kind on the sheets that are open.
func (s *search) find(st *state, k int32) (at spot, ok bool) {
	kind := &s.kinds[k]
	best := math.Inf(1)
	for b, t := range st.trees {
		if !kind.on[t.size] || s.sizes[t.size].area-t.used < kind.area {
			continue
		}
		s.work -= len(t.rests)
		for i, rest := range t.rests {
			f := &t.nodes[rest]
			for _, way := range kind.ways {
				if way[0] > f.w || way[1] > f.h {
					continue
				}
				v := s.beside(f.w-way[0], f.h-way[1], f, way)
				if v < best && s.r.Uint32()&127 != 0 {
					if down, goes := s.cutFirst(t, f, way); goes {
						best, at, ok = v, spot{b, i, way[0], way[1], down}, true
					}
				}
			}
		}
	}
	return at, ok
}

// beside is how badly a piece would lie in a rest.
func (s *search) beside(dw, dh int64, f *node, way [2]int64) float64 {
	switch s.fit {
	case 0:
		return float64(min(dw, dh))
	case 1:
		return float64((f.w*f.h - way[0]*way[1]) >> s.shift)
	}
	return float64(max(dw, dh))
}

// cutFirst chooses the way to cut a piece off a rest: the one that leaves the larger
// rests, as long as the trimmer reaches across.
func (s *search) cutFirst(t *tree, f *node, way [2]int64) (down, goes bool) {
	dw, dh := float64(f.w-way[0]), float64(f.h-way[1])
	beside, below := float64(dw*float64(f.h)), float64(float64(way[0])*dh)
	right, under := float64(dw*float64(way[1])), float64(float64(f.w)*dh)
	down = float64(beside*beside)+float64(below*below) > float64(right*right)+float64(under*under)
	if s.r.Uint32()&15 == 0 {
		down = !down
	}
	if s.reach == 0 {
		return down, true
	}
	m := 2 * int64(s.Sheets[t.size].Margin) / s.unit
	whole := s.sizes[t.size]
	goes = s.reaches(f, way, down, m, whole)
	if !goes {
		down = !down
		goes = s.reaches(f, way, down, m, whole)
	}
	return down, goes
}

func (s *search) reaches(f *node, way [2]int64, down bool, m int64, whole size) bool {
	toX, toY := way[0] < f.w || m > 0, way[1] < f.h || m > 0
	if down {
		return s.goes(f.h+m, toX) && s.goes(min(way[0]+m, whole.w+m), toY)
	}
	return s.goes(f.w+m, toY) && s.goes(min(way[1]+m, whole.h+m), toX)
}

// opened opens a sheet for a kind, if one may be.
func (s *search) opened(st *state, k int32) (at spot, ok bool) {
	best := math.Inf(1)
	size := 0
	for i, in := range s.sizes {
		if !s.kinds[k].on[i] || in.count != Unlimited && st.opens[i] >= in.count || st.cost+in.cost >= s.limit {
			continue
		}
		// What costs most for its area is put off; once all is laid chance lets others in.
		v := float64(in.cost) / float64(in.area)
		if !s.steady {
			v = float64(v * (1 + float64(s.r.Uint32()&255)/256))
		}
		if v < best {
			best, size, ok = v, i, true
		}
	}
	if !ok {
		return at, false
	}
	s.open(st, size)
	b := len(st.trees) - 1
	for _, way := range s.kinds[k].ways {
		f := &st.trees[b].nodes[0]
		if way[0] > f.w || way[1] > f.h {
			continue
		}
		if down, goes := s.cutFirst(st.trees[b], f, way); goes {
			return spot{b, 0, way[0], way[1], down}, true
		}
	}
	return at, false
}

func (s *search) open(st *state, size int) {
	t := newTree(size, s.sizes[size].w, s.sizes[size].h)
	s.own[t] = true
	st.trees = append(st.trees, t)
	st.opens[size]++
	st.cost += s.sizes[size].cost
}
