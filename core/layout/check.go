package layout

import "fmt"

// Check makes the cuts of a sheet one after another, and looks for every piece among
// what they leave: within the sheet, clear of the others, and no cut longer than the
// trimmer's (0 for any).
func (s Sheet) Check(longest Length) error {
	heap := map[Rect]bool{{0, 0, s.W, s.H}: true}
	for i, c := range s.Cuts {
		if side := map[bool]Length{true: c.In.W, false: c.In.H}[c.Down]; !heap[c.In] || c.At <= 0 || c.At >= side {
			return fmt.Errorf("cut %d goes across card that is not there", i+1)
		}
		if longest > 0 && c.Long() > longest {
			return fmt.Errorf("cut %d is longer than the trimmer cuts", i+1)
		}
		delete(heap, c.In)
		a, b := c.Parts()
		heap[a], heap[b] = true, true
	}
	for _, p := range s.Placed {
		if !heap[p.Rect] {
			return fmt.Errorf("the cuts never free %s", p.Piece)
		}
		heap[p.Rect] = false // no other lies there
	}
	for _, o := range s.Offcuts {
		within := false
		for part, left := range heap {
			within = within || left && o.X >= part.X && o.Y >= part.Y && o.X+o.W <= part.X+part.W && o.Y+o.H <= part.Y+part.H
		}
		if !within {
			return fmt.Errorf("an offcut is told where a piece lies")
		}
	}
	return nil
}
