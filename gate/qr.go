package gate

import (
	"fmt"
	"strings"

	"rsc.io/qr"
)

// Code draws an address as a code that a phone's camera reads: one path of black squares on a white ground, with the
// quiet margin that cameras want.
func Code(address string) (string, error) {
	code, err := qr.Encode(address, qr.M)
	if err != nil {
		return "", err
	}
	const margin = 4
	var path strings.Builder
	for y := range code.Size {
		for x := 0; x < code.Size; x++ {
			from := x
			for x < code.Size && code.Black(x, y) {
				x++
			}
			if x > from {
				fmt.Fprintf(&path, "M%d %dh%dv1h-%dz", from+margin, y+margin, x-from, x-from)
			}
		}
	}
	size := code.Size + 2*margin
	return fmt.Sprintf(`<svg class="code-square" viewBox="0 0 %d %d" role="img" aria-label="Code for the camera of a phone" `+
		`shape-rendering="crispEdges"><path class="code-ground" d="M0 0h%dv%dH0z"/><path class="code-ink" d="%s"/></svg>`,
		size, size, size, size, path.String()), nil
}
