package fold_test

import (
	"fmt"

	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
)

// A piece of card 0.3 mm thick is folded by its creases; half way up, a wall leans out.
func ExampleUp() {
	const cm = 10 * measure.Millimetre
	p := net.Grid("tray", net.Cols(2*cm, 5*cm, 2*cm), net.Rows(4*cm), "left base right")
	p.Root = "base"
	p.FoldUp("left", "right")
	p.Find()
	for _, part := range []float64{0, 0.5, 1} {
		b := fold.Up(p, 0.3, func(string) float64 { return part })
		lo, hi := fold.Extent(b)
		fmt.Printf("%.1f mm wide, %.1f mm high\n", hi.X-lo.X, hi.Z-lo.Z)
	}
	// Output:
	// 90.0 mm wide, 0.3 mm high
	// 78.5 mm wide, 14.4 mm high
	// 50.3 mm wide, 20.1 mm high
}
