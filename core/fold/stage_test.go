package fold

import "brevium/core/net"

// Stage says how far a face is folded when the whole is folded by t, from 0
// to 1, in the order of the recipe. A face named twice is folded half each time.
func Stage(p *net.Piece, t float64) func(string) float64 {
	n := float64(len(p.Order))
	at, times := map[string]float64{}, map[string]float64{}
	for i, group := range p.Order {
		for _, name := range group.Faces {
			at[name] += min(1, max(0, t*n-float64(i)))
			times[name]++
		}
	}
	return func(name string) float64 {
		if times[name] > 0 {
			return at[name] / times[name]
		}
		return t
	}
}
