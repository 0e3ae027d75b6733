package pen

// Spread sets labels side by side along a line: in their order, none on another, between low and high, and as near as
// may be to where each is wanted (the sum of the squares of how far they move is least, before the ends of the line
// push them back). Want are their middles, size how much of the line each takes. It reports whether they fit.
func Spread(want, size []float64, low, high float64) (at []float64, ok bool) {
	// A block is a run of labels that touch: its first, and where that would stand if the block were alone.
	type block struct {
		first, n  int
		sum, long float64
	}
	var blocks []block
	for i := range want {
		// What it wants of the first of its block, which it stands half its size behind.
		b := block{i, 1, want[i] - size[i]/2, size[i]}
		for len(blocks) > 0 {
			last := blocks[len(blocks)-1]
			if last.sum/float64(last.n)+last.long <= b.sum/float64(b.n) {
				break
			}
			b = block{last.first, last.n + b.n, last.sum + b.sum - last.long*float64(b.n), last.long + b.long}
			blocks = blocks[:len(blocks)-1]
		}
		blocks = append(blocks, b)
	}
	edge := make([]float64, len(want))
	from := low
	for _, b := range blocks {
		start := max(from, b.sum/float64(b.n))
		for i := b.first; i < b.first+b.n; i++ {
			edge[i] = start
			start += size[i]
		}
		from = start
	}
	at, to := make([]float64, len(want)), high
	for i := len(want) - 1; i >= 0; i-- {
		edge[i] = min(edge[i], to-size[i])
		at[i], to = edge[i]+size[i]/2, edge[i]
	}
	return at, to >= low-1e-9
}
