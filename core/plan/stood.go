package plan

import (
	"fmt"
	"slices"

	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/fold"
	"brevium/core/style"
)

// How the things stand in the box: where the maker put them, or in the middle of its
// room, and as bodies that it must clear.

// blocks sets the contents in the box: their shapes in the middle of its room.
func (m *making) blocks(l contents.Load, b *style.Box) (out []fold.Block) {
	at := b.Lo.Add(b.Hi).Times(0.5).Sub(fold.Vec{X: l.Need.Length.MM() / 2, Y: l.Need.Width.MM() / 2})
	for _, u := range l.Units() {
		thing, high := l.Things[u.Thing], u.At.Height
		if m.Kind.Lifts != nil {
			high = m.Kind.Lifts(l, u.Layer, m.spec.As("insert"))
		}
		lo := fold.Vec{X: at.X + u.At.Length.MM(), Y: at.Y + u.At.Width.MM(), Z: b.Lo.Z + high.MM()}
		block := fold.Block{Name: thing.Name, Lo: lo, Hi: lo.Add(fold.Vec{X: u.Size.Length.MM(),
			Y: u.Size.Width.MM(), Z: u.Size.Height.MM()})}
		switch {
		case thing.Shape == "ball":
			block.Shape = fold.Ball
		case u.Lying && u.Size.Length >= u.Size.Width:
			block.Shape = fold.LyingX
		case u.Lying:
			block.Shape = fold.LyingY
		case thing.Shape == "cylinder":
			block.Shape = fold.Upright
			if thing.NeckHeight > 0 {
				block.Neck, block.Shoulder = thing.NeckDiameter.MM()/2, block.Hi.Z-thing.NeckHeight.MM()
			}
		}
		out = append(out, block)
	}
	return out
}

// grown sets the contents in the box, each larger by the room it wants on every side and above.
func (m *making) grown(l contents.Load, b *style.Box) []fold.Block {
	out := m.blocks(l, b)
	side, over := (l.Room.Around + l.Room.Padding).MM(), l.Room.Above.MM()
	for i := range out {
		out[i].Lo = out[i].Lo.Sub(fold.Vec{X: side, Y: side})
		out[i].Hi = out[i].Hi.Add(fold.Vec{X: side, Y: side, Z: over})
		if out[i].Shape == fold.Ball { // it stays one
			out[i].Hi.Z += side - over
			out[i].Lo.Z -= side
		}
	}
	return out
}

// byHand sets stacks where the maker put them.
func (m *making) byHand(l contents.Load) contents.Load {
	at, ok := PlacesOf(m.Brief.Arrange.Places, l)
	if !ok {
		m.Warn(brief.Warning{Code: "by-hand-gone",
			Text: "The things have changed since you arranged them, so you see the best arrangement.",
			Fix:  "Arrange them again, or let Brevium choose.", Set: brief.To("act", "choose-for-me")})
		return l
	}
	out := l
	out.Stacks = slices.Clone(l.Stacks)
	for i, k := range at {
		p, st := m.Places[k], &out.Stacks[i]
		if p.Turned {
			st.Each.Length, st.Each.Width = st.Each.Width, st.Each.Length
		}
		st.At.Length, st.At.Width = p.X, p.Y
	}
	if a, b, ok := out.Overlap(); ok {
		m.Problem("arrange", fmt.Sprintf("You arranged %s and %s in the same place.",
			out.Things[a].Name, out.Things[b].Name),
			"Move one of them, or let Brevium choose.", "act", "choose-for-me")
	}
	return out.Settle()
}

// PlacesOf finds the place of each stack: those of a thing go to its stacks in
// turn. Places that don't say whose they are go to the stacks as they come.
func PlacesOf(places []brief.StackAt, l contents.Load) (at []int, ok bool) {
	if len(places) != len(l.Stacks) {
		return nil, false
	}
	used := make([]bool, len(places))
	for _, st := range l.Stacks {
		k := 0
		for ; k < len(places); k++ {
			if !used[k] && (places[k].Thing == "" || places[k].Thing == l.Things[st.Thing].ID) {
				break
			}
		}
		if k == len(places) {
			return nil, false
		}
		used[k] = true
		at = append(at, k)
	}
	return at, true
}
