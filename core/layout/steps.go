package layout

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/measure"
)

// Step is a cut as it is told at the trimmer: where the stop stands, whether it was
// moved for it, what lies against it and what is put aside.
type Step struct {
	Cut
	Moved bool
	Kept  string // the piece that is free, if that lies against the stop
	Freed string // the piece that is free beyond it
	Says  string
}

// ByHand tells a cut to one who has no trimmer: where its line is drawn, and what comes of it.
func (s Step) ByHand(say func(Length) string) string {
	from, near := "top", "upper"
	if s.Down {
		from, near = "left", "left"
	}
	part := "sheet"
	if _, what, ok := strings.Cut(s.Says, "part of "); ok {
		size, _, _ := strings.Cut(what, " against it")
		part = "part of " + size
	}
	out := fmt.Sprintf("mark %s from the %s edge of the %s at both ends, draw a line, and cut along it", say(s.At), from, part)
	switch {
	case s.Kept != "" && s.Freed != "":
		return out + fmt.Sprintf(": the %s part is the %s, and the %s is left.", near, s.Kept, s.Freed)
	case s.Kept != "":
		return out + fmt.Sprintf(": the %s part is the %s.", near, s.Kept)
	case s.Freed != "":
		return out + fmt.Sprintf("; what is left is the %s.", s.Freed)
	}
	return out + fmt.Sprintf("; keep the %s part.", near)
}

// Steps tells the cuts of a sheet in their order, lengths said by say.
func (s Sheet) Steps(say func(Length) string) []Step {
	piece := map[Rect]string{}
	for _, p := range s.Placed {
		piece[p.Rect] = p.Piece
	}
	out := make([]Step, len(s.Cuts))
	var stop Length
	for i, c := range s.Cuts {
		st := Step{Cut: c, Moved: c.At != stop}
		stop = c.At
		a, b := c.Parts()
		st.Kept, st.Freed = piece[a], piece[b]
		side := "top"
		if c.Down {
			side = "left"
		}
		st.Says = "Leave the trimmer set"
		if st.Moved {
			st.Says = "Set " + say(c.At)
		}
		part := "sheet"
		if c.In != (Rect{W: s.W, H: s.H}) {
			part = fmt.Sprintf("part of %s × %s", say(c.In.W), say(c.In.H))
		}
		st.Says += fmt.Sprintf(", the %s of the %s against it, and cut", side, part)
		near, far := "left", "right"
		if !c.Down {
			near, far = "upper", "lower"
		}
		switch {
		case st.Kept != "" && st.Freed != "":
			st.Says += fmt.Sprintf(": that is the %s, and the %s is left.", st.Kept, st.Freed)
		case st.Kept != "":
			st.Says += fmt.Sprintf(": that is the %s.", st.Kept)
		case st.Freed != "":
			st.Says += fmt.Sprintf("; what is left is the %s.", st.Freed)
		case !s.holds(a):
			st.Says += fmt.Sprintf("; throw away the %s part.", near)
		case !s.holds(b):
			st.Says += fmt.Sprintf("; keep the %s part.", near)
		default:
			st.Says += fmt.Sprintf("; keep the %s part, and the %s one for later.", near, far)
		}
		out[i] = st
	}
	return out
}

// holds reports whether a piece comes out of a part.
func (s Sheet) holds(part Rect) bool {
	return slices.ContainsFunc(s.Placed, func(p Placed) bool {
		r := p.Rect
		return r.X >= part.X && r.Y >= part.Y && r.X+r.W <= part.X+part.W && r.Y+r.H <= part.Y+part.H
	})
}

// Check makes the cuts of a sheet one after another, and looks for every piece among what they leave: within the
// sheet, clear of the others, and no cut longer than the trimmer's (0 for any).
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
