package style

import (
	"fmt"
	"slices"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/shop"
)

func dims(length, width, depth Length) Dims { return Dims{Length: length, Width: width, Depth: depth} }

const (
	mm        = measure.Millimetre
	flatAbove = fold.Flat
)

// Spec is what a style works from. It is read from the document once, before.
type Spec struct {
	*brief.Report
	Card     shop.Card
	Stocks   map[string]shop.Card // of parts that have another card: by their name, or what they are
	Adhesive shop.Adhesive
	Tools    shop.Tools
	Plain    bool // plain numbers instead of the card's thickness
	Answers  Answers
	Scores   []Scored // pieces from a list of scores
	Stated   *Dims    // and the finished size it claims; 0 is not said
	Given    *Dims    // score to score, to the letter
	Poor     bool     // nothing could be measured for another arrangement: one guess will do
	Ease
	Holds
	building
}

// Ease is what goes over something must leave room for.
type Ease struct {
	Slack   Length // in all, on top of the card's thickness
	Usual   Length // what it would be if nothing were learnt
	Outside Length // what is stuck on each wall that a lid goes over
	Skin    Length // layers that are planned on what something closes over
	Papers  Length // and on the petals of an insert
	Lining  Length // and inside each wall of the lid
}

// Holds is the room that what goes in wants.
type Holds struct {
	Need   Dims                    // clear room the contents want
	Needs  []Dims                  // clear room each small box wants, where there are several
	Proud  Length                  // how far the contents stand above the rim
	Beside Length                  // what of the need is clear room on each side of them
	Around Length                  // the finger room asked for, for remedies
	Above  Length                  // and the room above
	Lined  [3]Length               // what liners take of the room: on the floor, on each wall, under the cover
	Stand  func(*Box) []fold.Block // what goes in, with room round it, where it stands; nil when it wants a block
	Guilty Blame
	Taken  *Dims // what the style takes of a size, measured; nil when not known yet
}

// building is what is found out while the box is built.
type building struct {
	style   *Style
	settled map[string]Length
	notes   *[]assembly.Note
	over    map[string]shop.Over // what goes over something, by the thickness of it all
	shaped  bool                 // its room is no block
	found   *Box                 // a box that was built to be measured, and may be the one
}

// Knows takes over what another spec with the same answers found out.
func (j *Spec) Knows(o *Spec) {
	if j.Taken == nil {
		j.Taken, j.found, j.shaped = o.Taken, o.found, o.shaped
	}
}

// Blame names the field that asked for each dimension.
type Blame struct{ Length, Width, Depth string }

// Scored is a piece as it was typed: segments between scores, left to right and
// top to bottom, and the cells cut away by column and row from 0.
type Scored struct {
	Field, Name, Is, Walls, Tabs string
	Cols, Rows                   []Length
	At                           [2][]Length // its scores across and down, as they were typed
	Read                         bool        // all of them could be read
	Away                         map[[2]int]bool
}

// Wide is how wide it is cut, from edge to edge.
func (p Scored) Wide() Length { return sum(p.Cols) }

// High is how high it is cut.
func (p Scored) High() Length { return sum(p.Rows) }

func sum(all []Length) (whole Length) {
	for _, l := range all {
		whole += l
	}
	return whole
}

// T is the caliper of the card.
func (j *Spec) T() Length { return j.Card.Caliper }

// Mark is what the tools can measure.
func (j *Spec) Mark() Length { return j.Step.Size }

// Groove is what the scoring board sets directly: walls are that high, where it is left to the style.
func (j *Spec) Groove() Length {
	if g := j.Tools.Groove(j.Mark()); g%j.Mark() == 0 {
		return g
	}
	return j.Mark()
}

// Wide is how wide what sticks a tab wants it, on the marks.
func (j *Spec) Wide() Length { return j.Adhesive.Width.Up(j.Mark()) }

// Size gives the size to build, score to score: the given one to the letter,
// or the needed room and what the style takes from it, snapped up.
func (j *Spec) Size() Dims {
	if j.Given != nil {
		return *j.Given
	}
	up := func(need, taken, step Length) Length { return max(step, (need + taken).Up(step)) }
	return dims(up(j.Need.Length, j.Taken.Length, j.Mark()), up(j.Need.Width, j.Taken.Width, j.Mark()),
		up(j.Need.Depth, j.Taken.Depth, j.Groove()))
}

// noSmaller says why a part that was to be cut smaller is not, where the size is what the contents need.
func (j *Spec) noSmaller(part string) string {
	if j.Given != nil {
		return ""
	}
	return fmt.Sprintf(" The %s keeps its size, to hold your things.", part)
}

// As is the job for a part that may be of another card.
func (j *Spec) As(part string) *Spec {
	if len(j.Stocks) == 0 {
		return j
	}
	as := *j
	as.Card = j.cardOf(part, "")
	return &as
}

// Parts are the names by which a box of this style may have parts of another card.
func (s *Style) Parts() []string {
	return append(slices.Clone(s.Apart), "band", "insert", "liner", "layer")
}

// cardOf finds the card of a piece: by its name, by what it is; else it is the box's
// own. Pieces of a box within were stamped when that was made.
func (j *Spec) cardOf(name string, part net.Part) shop.Card {
	var keys []string
	if j.style != nil && slices.Contains(j.style.Apart, name) {
		if keys = append(keys, name); slices.Contains(Overs, name) {
			keys = append(keys, "lid")
		}
	}
	if name == "band" || name == "insert" || name == "liner" {
		keys = append(keys, name)
	}
	if part == net.Insert || part == net.Liner {
		keys = append(keys, string(part))
	}
	for _, k := range keys {
		if c, ok := j.Stocks[k]; ok {
			return c
		}
	}
	return j.Card
}

// Stamp notes on each piece which card it is cut from, where that is not the box's.
func (j *Spec) Stamp(b *Box) {
	if len(j.Stocks) == 0 {
		return
	}
	for _, p := range b.Pieces() {
		if c := j.cardOf(p.Name, p.Part); c.ID != j.Card.ID {
			p.Stock, p.Caliper = c.ID, c.Caliper
		}
	}
}

// Over is how much larger a panel is than the one it goes over, over the whole width; layers is how many full faces
// of card lie inside its walls. It notes what layers and what was learnt have to do with it.
func (j *Spec) Over(inner, outer string, layers int) Length {
	o := shop.Over{Inner: j.As(inner).T(), Outer: j.As(outer).T(), Layers: layers, Outside: j.Outside, Lining: j.Lining}
	j.over[outer] = o
	c := o.Clearance(j.Slack, j.Mark())
	if j.style.Typed {
		return c // what it should be; it is as it was typed
	}
	name, _ := assembly.Ref(outer)
	bare := o
	bare.Outside, bare.Lining = 0, 0
	if by := c - bare.Clearance(j.Slack, j.Mark()); o.Outside+o.Lining > 0 {
		says := fmt.Sprintf("The layers on the walls need room, so the %s is %s larger.", name, j.Say(by))
		if by == 0 {
			says = "The layers on the walls fit without a larger " + name + "."
		}
		j.note("layers", name, "", c, says)
	}
	if by := c - o.Clearance(j.Usual, j.Mark()); j.Slack != j.Usual {
		says := fmt.Sprintf("Without your records it would be %s.", j.Say(c-by))
		if by == 0 {
			says = "On these marks that makes no difference."
		}
		j.note("learnt", name, "", c, fmt.Sprintf("Your records say lids of this card need %s of room, not %s. %s",
			j.Slack.Fine(j.Step.Unit), j.Usual.Fine(j.Step.Unit), says))
	}
	return c
}

// Gain is how much longer a panel is that bends round others: what the card
// takes or, in plain numbers, one mark of the tools, if that is a millimetre.
func (j *Spec) Gain(takes Length) Length {
	if j.Plain {
		return shop.PlainGain(j.Mark())
	}
	return takes.Up(j.Mark())
}

// Sliver is the least the tools can take off to clear a thickness of card; nothing in plain numbers.
func (j *Spec) Sliver() Length {
	if j.Plain {
		return 0
	}
	return j.T().Up(j.Mark())
}

// note says what the plan did to a number, and why.
func (j *Spec) note(code, piece, field string, figure Length, text string) {
	if figure != 0 {
		*j.notes = append(*j.notes, assembly.Note{Code: code, Piece: piece, Field: field, Figure: figure, Text: text})
	}
}
