package layout

import "brevium/core/measure"

// Told is a sheet as programs read it, lengths as texts: its pieces, its cuts in their order, and what is left.
type Told struct {
	Name    string       `json:"name,omitempty"`
	Stock   string       `json:"stock,omitempty"`
	Offcut  bool         `json:"offcut,omitempty"`
	Width   string       `json:"width"`
	Height  string       `json:"height"`
	Placed  []ToldPlaced `json:"placed"`
	Cuts    []ToldCut    `json:"cuts"`
	Offcuts []ToldRect   `json:"offcuts"`
}

// ToldPlaced is a piece where it lies.
type ToldPlaced struct {
	Piece  string `json:"piece"`
	X      string `json:"x"`
	Y      string `json:"y"`
	Width  string `json:"width,omitempty"`
	Height string `json:"height,omitempty"`
	Turned bool   `json:"turned"`
	Pinned bool   `json:"pinned,omitempty"`
}

// ToldRect is a part of a sheet.
type ToldRect struct {
	X      string `json:"x"`
	Y      string `json:"y"`
	Width  string `json:"width"`
	Height string `json:"height"`
}

// ToldCut goes right across a part, so far along its width or its height.
type ToldCut struct {
	Along string   `json:"along"`
	At    string   `json:"at"`
	In    ToldRect `json:"in"`
}

// Tell tells a sheet in a unit: of a list, which has no plan to look them up in, with the sizes of its pieces.
func (s Sheet) Tell(u measure.Unit, sized bool) Told {
	rect := func(r Rect) ToldRect { return ToldRect{r.X.Exact(u), r.Y.Exact(u), r.W.Exact(u), r.H.Exact(u)} }
	out := Told{Stock: s.Stock, Offcut: s.Offcut, Width: s.W.Exact(u), Height: s.H.Exact(u),
		Placed: []ToldPlaced{}, Cuts: []ToldCut{}, Offcuts: []ToldRect{}}
	for _, p := range s.Placed {
		t := ToldPlaced{Piece: p.Piece, X: p.Rect.X.Exact(u), Y: p.Rect.Y.Exact(u), Turned: p.Turned}
		if sized {
			t.Width, t.Height, t.Pinned = p.Rect.W.Exact(u), p.Rect.H.Exact(u), p.Pinned
		}
		out.Placed = append(out.Placed, t)
	}
	for _, c := range s.Cuts {
		out.Cuts = append(out.Cuts, ToldCut{map[bool]string{true: "width", false: "height"}[c.Down], c.At.Exact(u), rect(c.In)})
	}
	for _, o := range s.Offcuts {
		out.Offcuts = append(out.Offcuts, rect(o))
	}
	return out
}
