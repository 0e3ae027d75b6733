package least_test

import (
	"fmt"

	"brevium/core/layout"
	"brevium/core/least"
	"brevium/core/measure"
)

// Twelve squares of a quarter of the sheet want three sheets, and less can't be done.
func ExampleSolve() {
	const mm = measure.Millimetre
	r, err := least.Solve(least.Task{
		Sheets: []least.Size{{Name: "30 × 30 cm", W: 300 * mm, H: 300 * mm, Count: least.Unlimited}},
		Pieces: []least.Piece{{Piece: layout.Piece{Name: "lid", W: 150 * mm, H: 150 * mm, Count: 12}}},
		Work:   least.Quick,
	}, nil)
	fmt.Println(len(r.Sheets), "sheets; proved:", r.Proved, err)
	// Output: 3 sheets; proved: true <nil>
}
