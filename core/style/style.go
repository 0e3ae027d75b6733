// Package style turns a job into a box. A style is a recipe a maker could read,
// one file each: what it asks, the net, the joins, the order of folding. What a
// box measures is nobody's to state: it is folded and measured (see assembly).
package style

import (
	"slices"
	"strings"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/shop"
)

type (
	Length = measure.Length
	Dims   = assembly.Dims
	Box    = assembly.Box
)

// Style is a family of boxes.
type Style struct {
	ID, Title string
	About     string                                        // what it is good for
	Level     int                                           // 1 easy to make, 3 asks for practice
	Tall      bool                                          // suits tall things
	Tray      bool                                          // what it holds stands in a tray with four walls of its own
	Typed     bool                                          // made of a list of scores; not one to choose for a size
	Rooms     func(choice func(id string) string) []float64 // its small boxes, each by the part of the things it takes
	Apart     []string                                      // its pieces that may be of another card than the rest
	Asks      []Question
	Build     func(*Spec) *Box
}

// Question is a question a style asks: of choices, or for a length.
type Question struct {
	ID, Label, Help string
	Choices         []Choice // none for a length
	Default         string   // of a choice
	When            string   // "question=choice": it makes sense then
	Unless          string   // "question=choice": it makes none then
	More            bool     // few makers change it
	For             Role     // what it is for, where other rooms ask for it
	Remedies        []Remedy // answers that serve a need
}

// Choice is one answer, with the reason for taking it.
type Choice struct{ ID, Label, Why string }

// length is a question for a length, which makes sense where a rule says so.
func length(id, label, when, help string) Question {
	return Question{ID: id, Label: label, When: when, Help: help}
}

// more is a length that few makers change.
func more(id, label, when, help string) Question {
	return Question{ID: id, Label: label, When: when, Help: help, More: true}
}

// choose is a question of choices: each its name, its label and why, parted by bars; the first is the default.
func choose(id, label, when string, choices ...string) Question {
	q := Question{ID: id, Label: label, When: when}
	for _, c := range choices {
		part := strings.SplitN(c, " | ", 3)
		q.Choices = append(q.Choices, Choice{part[0], part[1], part[2]})
	}
	q.Default = q.Choices[0].ID
	return q
}

func (q Question) unless(rule string) Question { q.Unless = rule; return q }

// seldom puts a question under More: few makers change it for one box.
func (q Question) seldom() Question { q.More = true; return q }

// Styles is the registry, in the order a gallery shows them.
var Styles = []*Style{trayLid, flapBox, hingedLid, sleeveDrawer, carton, pinchTop, gableCap, wrapCover,
	foldFlat, pleatPouch, chamferFoot, bookWrap, cornerShells, wovenBasket, archedBox, crossFold, stripColumn}

// Register adds a style that is not chosen for a size to those that are found.
func Register(s *Style) { others = append(others, s) }

var others []*Style

// Find gives a style by name.
func Find(id string) *Style {
	for _, s := range slices.Concat(Styles, others) {
		if s.ID == id {
			return s
		}
	}
	return nil
}

// Ask gives a style's question by name.
func (s *Style) Ask(id string) (Question, bool) {
	for _, q := range s.Asks {
		if q.ID == id {
			return q, true
		}
	}
	return Question{}, false
}

// mostTries is how often a box is made larger until its contents go in.
const mostTries = 16

// Make builds the box of a style, folded and, unless it is a draft, measured. What the card takes from a size is
// measured on a first box of about that size, and the box that results is measured again.
func Make(j *Spec, s *Style, draft bool) *Box {
	j.style = s
	if j.Taken == nil && (j.Given == nil || draft) && !measureTaken(j) {
		return nil
	}
	sketch := draft && !j.shaped
	if j.shaped && j.Taken != nil { // another arrangement begins from what the card takes
		before := *j.Taken
		defer func() { j.Taken = &before }()
	}
	for range mostTries {
		b := j.found
		if b == nil || sketch || b.Size != j.Size() {
			if b = build(j); b == nil || sketch {
				return sketched(j, b)
			}
			b.Find()
		}
		j.found, j.settled = nil, b.Settled
		stands := b.Assemble(j.T(), assembly.Closed)
		b.MeasureRoom(stands, j.Need)
		b.Line(j.Lined[0], j.Lined[1], j.Lined[2])
		if j.Given != nil || !tooSmall(j, b, stands) {
			if !draft {
				b.MeasureRest(stands, j.T())
			}
			return checked(j, b)
		}
	}
	j.Problem(j.SizeField("length"), "This kind of box can't be made large enough for your things.",
		"Choose another box.")
	return nil
}

// build builds once, or notes the problems.
func build(j *Spec) *Box {
	j.settled, j.notes, j.over = map[string]Length{}, &[]assembly.Note{}, map[string]shop.Over{}
	before := len(j.Problems)
	b := j.style.Build(j)
	if len(j.Problems) > before || b == nil {
		return nil
	}
	b.Style, b.Settled, b.Notes, b.Plain = j.style.ID, j.settled, *j.notes, j.Plain || b.Plain
	for i, c := range b.Clears {
		o, fits := j.over[c.Outer]
		b.Clears[i].Skin, b.Clears[i].Layers, b.Clears[i].Fits = o.Outside+o.Lining, o.Layers, fits
	}
	j.Stamp(b)
	b.Count()
	return b
}

// measureTaken builds a box of about the size and measures what its card takes from it. A box refused only for
// being too small is tried again a little larger. One refused because of a typed length is measured without it, so
// that the bounds told are those of the box it would be.
func measureTaken(j *Spec) bool {
	if j.Given != nil {
		b := build(j)
		return b != nil && take(j, b)
	}
	trials := []Answers{j.Answers, {Choice: j.Answers.Choice}}
	if j.Poor {
		trials = nil
	}
	for _, answers := range trials {
		for _, guess := range []Length{3, 8} {
			trial := *j
			trial.Report, trial.Answers = &brief.Report{Units: j.Units, Step: j.Step}, answers
			trial.Taken = new(dims(guess*j.T(), guess*j.T(), guess*j.T()))
			b := build(&trial)
			if b == nil {
				continue
			}
			if !take(j, b) {
				return false
			}
			if answers.Length == nil && j.Answers.Length != nil {
				j.found = nil
				return build(j) != nil
			}
			return true
		}
	}
	j.Taken = new(dims(8*j.T(), 8*j.T(), 8*j.T()))
	b := build(j)
	j.Taken = nil
	return b != nil && take(j, b)
}

// Inside measures the inside of a style at the size that is given, or notes why there is none.
func Inside(j *Spec, s *Style) (Dims, bool) {
	j.style = s
	if !measureTaken(j) {
		return Dims{}, false
	}
	return dims(j.Given.Length-j.Taken.Length, j.Given.Width-j.Taken.Width, j.Given.Depth-j.Taken.Depth), true
}

// take measures what the card of a box takes from its size.
func take(j *Spec, b *Box) bool {
	b.Find()
	b.MeasureRoom(b.Assemble(j.T(), assembly.Closed), j.Need)
	j.found, j.shaped = b, b.Shaped
	in := b.Inside
	if b.Shaped {
		in = b.Whole()
	}
	floor, wall, cover := j.Lined[0], j.Lined[1], j.Lined[2]
	j.Taken = new(dims(b.Size.Length-in.Length+2*wall, b.Size.Width-in.Width+2*wall, b.Size.Depth-in.Depth+floor+cover))
	return suitsProud(j, b)
}

// sketched gives a draft the inside that its size is taken to have.
func sketched(j *Spec, b *Box) *Box {
	if b == nil {
		return nil
	}
	b.Inside = dims(b.Size.Length-j.Taken.Length, b.Size.Width-j.Taken.Width, b.Size.Depth-j.Taken.Depth)
	half := fold.Vec{X: b.Inside.Length.MM() / 2, Y: b.Inside.Width.MM() / 2}
	b.Lo = fold.Vec{X: -half.X, Y: -half.Y, Z: (j.T()/2 + j.Lined[0]).MM()}
	b.Hi = fold.Vec{X: half.X, Y: half.Y, Z: b.Lo.Z + b.Inside.Depth.MM()}
	return b
}

// IsShaped reports whether the room of the style's box is no block, as far as is known.
func (j *Spec) IsShaped() bool { return j.shaped }

// Measured gives the box of a given size whose room is no block, when it was measured; else nil.
func (j *Spec) Measured() *Box {
	if j.Given == nil || !j.shaped {
		return nil
	}
	return j.found
}

// Insides gives the room in each small box of a style, once it is measured.
func (j *Spec) Insides() (out []Dims) {
	if j.found == nil {
		return nil
	}
	for _, r := range j.found.Rooms {
		out = append(out, r.Box.Inside)
	}
	return out
}

// tooSmall reports whether the contents would not go in, and asks for more. In a room
// that is no block each thing is looked at where it stands.
func tooSmall(j *Spec, b *Box, stands assembly.Standing) bool {
	in, more := b.Inside, Dims{}
	if b.Shaped && j.Stand != nil {
		in, more = b.Whole(), stands.Short(j.Stand(b))
	}
	small := false
	for i, need := range j.Needs { // every small box must be large enough for its own
		if i > 0 && i < len(b.Rooms) {
			short := func(need, in Length) Length { return max(0, need-in) }
			r := b.Rooms[i].Box.Inside
			more = dims(max(more.Length, short(need.Length, r.Length)), max(more.Width, short(need.Width, r.Width)),
				max(more.Depth, short(need.Depth, r.Depth)))
		}
	}
	for _, d := range []struct{ need, inside, more, size, taken *Length }{
		{&j.Need.Length, &in.Length, &more.Length, &b.Size.Length, &j.Taken.Length},
		{&j.Need.Width, &in.Width, &more.Width, &b.Size.Width, &j.Taken.Width},
		{&j.Need.Depth, &in.Depth, &more.Depth, &b.Size.Depth, &j.Taken.Depth},
	} {
		if short := max(*d.need-*d.inside, *d.more); short > measure.Millimetre/100 {
			*d.taken = max(*d.taken, *d.size-*d.need) + short // a style may have made it larger than asked
			small = true
		}
	}
	return small
}

// checked refuses what the folded box can't have.
func checked(j *Spec, b *Box) *Box {
	before := len(j.Problems)
	pair(j, b)
	if !suitsProud(j, b) || len(j.Problems) > before {
		return nil
	}
	return b
}

// suitsProud refuses things that stand proud under a level top.
func suitsProud(j *Spec, b *Box) bool {
	if j.Proud == 0 || b.Above != flatAbove && !b.Vault {
		return true
	}
	j.Problem("room.proud", "This box closes flat, so nothing can stick out above its walls.",
		"Let nothing stick out, or choose an open tray or a box with a roof.", "room.proud", "0")
	return false
}

// box begins a box whose contents stand in a piece.
func (j *Spec) box(size Dims, holder *net.Piece) *Box {
	b := &Box{Size: size, Strength: 2}
	b.Add(holder)
	return b
}
