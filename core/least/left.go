package least

import "slices"

// What is not laid: no sheet takes it, or there is none left.

// leaveOut takes out what no sheet takes, and pins the copies that have their spot to sheets of their own.
func (s *solving) leaveOut(p *problem) {
	sheet, taken := 0, make([]int, len(p.sizes))
	seen := map[int]bool{}
	for _, pin := range p.Pins {
		if sheet = max(sheet, pin.Sheet+1); !seen[pin.Sheet] && pin.Size >= 0 && pin.Size < len(taken) {
			seen[pin.Sheet] = true
			taken[pin.Size]++
		}
	}
	var kinds []kind
	for _, k := range p.kinds {
		if !slices.Contains(k.on, true) || k.w <= 0 || k.h <= 0 {
			s.tooBig = append(s.tooBig, lacks(k.name)...)
			p.total -= k.n
			continue
		}
		for k.at != nil && len(k.name) > 0 {
			on := p.cheapest(k, taken)
			if on < 0 {
				s.lacking = append(s.lacking, lacks(k.name)...)
				p.total -= len(k.name)
				break
			}
			p.Pins = append(p.Pins, Pin{Piece: k.name[0], Sheet: sheet, Size: on, At: *k.at})
			sheet++
			taken[on]++
			k.pins, k.name, k.n = append(k.pins, k.name[0]), k.name[1:], k.n-1
		}
		if k.at != nil { // frames counts them again
			k.name, k.n, k.pins = k.pins, len(k.pins), nil
		}
		if k.n > 0 {
			kinds = append(kinds, k)
		}
	}
	p.kinds = kinds
}

// lack is so many of a piece that are not laid.
type lack struct{ piece, n int }

// lacks counts copies by the piece they are of.
func lacks(name []int) (out []lack) {
	for _, i := range name {
		if n := len(out); n > 0 && out[n-1].piece == i {
			out[n-1].n++
			continue
		}
		out = append(out, lack{i, 1})
	}
	return out
}

// cheapest is the cheapest size that a kind lies on and of which there is one left, -1 for none.
func (p *problem) cheapest(k kind, taken []int) int {
	on := -1
	for i, lies := range k.on {
		in := p.sizes[i]
		if lies && (in.count == Unlimited || taken[i] < in.count) && (on < 0 || in.cost < p.sizes[on].cost) {
			on = i
		}
	}
	return on
}

// short counts what there is no sheet left for.
func (s *solving) short() []lack {
	n := map[int32]int{}
	for _, k := range s.best.out {
		n[k]++
	}
	out := s.lacking
	for k, kind := range s.kinds {
		out = append(out, lacks(kind.name[len(kind.name)-n[int32(k)]:])...)
	}
	return out
}
