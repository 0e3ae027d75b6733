// Package box turns a job into a box: pieces with their recipe, how they go
// together, and the sizes that come of it. Each style is one file; the
// registry at the end of this one lists them.
package box

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/fit"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/sheet"
	"brevium/core/stock"
)

type Length = measure.Length

// Dims is a size: left to right, front to back, up.
type Dims struct{ Length, Width, Depth Length }

// Style is a family of boxes.
type Style struct {
	ID, Title string
	About     string // what it is good for
	Level     int    // 1 easy to make, 3 asks for practice
	Typed     bool   // made of a list of scores; not one to choose for a size
	Suits     Suits
	Options   []Option
	Build     func(*Job) *Box
}

// Suits is what makers look for in a style.
type Suits struct {
	Clean bool // neither tab nor seam shows on top, front and sides
	Flat  bool // with its seam stuck it still stores flat
	Tall  bool // takes tall things
	Book  bool // opens like a book, nothing comes off
}

// Option is a question a style asks.
type Option struct {
	ID, Label, Help string
	Choices         []Choice // none for a length
	Default         string   // of a choice
	When            string   // "option=choice": the question makes sense then
	Unless          string   // "option=choice": it makes none then
}

// Choice is one answer, with the reason for taking it.
type Choice struct{ ID, Label, Why string }

// Box is what a style makes of a job.
type Box struct {
	Style           *Style
	Size            Dims // score to score
	Inside, Outside Dims
	Clearance       Length
	Pieces          []*sheet.Piece
	Holder          string // the piece the contents stand in
	Lids            []Lid
	Slides          []Slide           // pieces that are pushed into others
	Caps            []Cap             // lids that hang on their base
	Mounts          []Mount           // pieces that lie along a face of another
	Opens           []string          // faces that open the box
	Seals           []string          // faces of the holder that close it for good, once it is filled
	Hinged          string            // the piece they are of, when not the holder
	OpenBy          float64           // how far they open, of how far they fold; 0 is 0.62
	Peaked          bool              // a roof closes it, no level face
	Seams           string            // which seams and raw edges a viewer sees
	Supplies        []string          // what it takes beside card and glue
	Cautions        []string          // what they ask for
	Claims          []fold.Check      // what a list of scores claims, checked
	Floor           Length            // what lies on the floor under the contents, of the box's own card
	OpenTop         bool              // nothing closes it above
	Stands          []Stand           // where pieces that go inside stand
	Seats           []Seat            // which of them are stuck to what
	Rim             Length            // how high the holder's walls are above its floor's middle
	Strength        int               // 1 torn open once, 2 a season, 3 kept for years
	Settled         map[string]Length // what each length among the options came to
}

// Lid says that a piece goes upside down over another.
type Lid struct{ Piece, Over string }

// Cap says that the faces of a piece whose names begin so close over the rest,
// with clearance on the sides named.
type Cap struct {
	Piece, Faces string
	Sides        []string
}

// Slide says that a piece is pushed into another, along the X axis.
type Slide struct{ Piece, Into string }

// Mount says that a face of a piece lies along a face of another, both drawn
// the same way up: their middles together, but for so much to the right, down
// and outwards as the other is drawn.
type Mount struct {
	Piece, Face, On, OnFace string
	Right, Down, Out        Length
	Closes                  string   // put on last, and taken off "up" or to the "side"
	Clears                  []string // the sides on which it must stay clear of the other
}

// Stand is one copy of a piece inside the box: lying with the middle of its
// root face at At, or stood on its lower edge there, then turned about the
// upright.
type Stand struct {
	Piece   string
	At      fold.Vec // of the root face's middle, or of the middle of the lower edge
	Upright bool
	Quarter bool // turned to run from front to back
}

// Seat says that a face of an inside piece is stuck to a face of another piece.
type Seat struct {
	Piece, Face, On, OnFace string
	Lapped                  bool // only a part of it lies there
}

// Piece finds a piece by name.
func (b *Box) Piece(name string) *sheet.Piece {
	for _, p := range b.Pieces {
		if p.Name == name {
			return p
		}
	}
	return nil
}

// Job is what a style works from.
type Job struct {
	*brief.Reader
	Card     stock.Card
	Adhesive fit.Adhesive
	Slack    Length
	Given    *Dims  // score to score, to the letter
	Need     Dims   // clear room the contents want
	Proud    Length // how far the contents stand above the rim
	Beside   Length // what of the need is clear room on each side of them
	Options  map[string]brief.Text
	Typed    []brief.Scored // pieces from a list of scores
	Stated   *brief.Size    // and the finished size it claims
	claims   []fold.Check
	style    *Style
	settled  map[string]Length
}

// T is the caliper of the card.
func (j *Job) T() Length { return j.Card.Caliper }

// Size gives the size to build, score to score: the given one to the letter,
// or the needed room and what the card takes from it, snapped up.
func (j *Job) Size(taken Dims) Dims {
	if j.Given != nil {
		return *j.Given
	}
	up := func(need, taken Length) Length { return (need + taken).Up(j.Step.Size) }
	return Dims{
		up(j.Need.Length, taken.Length), up(j.Need.Width, taken.Width), up(j.Need.Depth, taken.Depth),
	}
}

// SizeField names the field to blame for a dimension: the size typed, or the
// thing that asked for it.
func (j *Job) SizeField(dim string) string {
	if j.Given != nil {
		return "size." + dim
	}
	if dim == "depth" {
		dim = "height"
	}
	return "contents.0." + dim
}

// Choice answers a question of the style with one of its choices.
func (j *Job) Choice(id string) string {
	o := j.option(id)
	answer := strings.TrimSpace(string(j.Options[id]))
	if answer == "" {
		return o.Default
	}
	var known []string
	for _, c := range o.Choices {
		if c.ID == answer {
			return answer
		}
		known = append(known, c.ID)
	}
	j.Problem("box.options."+id, fmt.Sprintf("%s can't be %q.", o.Label, answer), "Choose "+either(known)+".")
	return o.Default
}

// Asked says whether an option has been answered.
func (j *Job) Asked(id string) bool { return strings.TrimSpace(string(j.Options[id])) != "" }

// Measure answers a question of the style with a length: the typed one, or
// the style's own suggestion.
func (j *Job) Measure(id string, otherwise Length) Length {
	if !j.Asked(id) {
		return otherwise
	}
	if l, ok := j.Length("box.options."+id, j.Options[id], j.option(id).Label); ok {
		return l
	}
	return otherwise
}

// claim notes a check of what was typed.
func (j *Job) claim(c fold.Check) { j.claims = append(j.claims, c) }

// settle notes what an option that may be left open came to.
func (j *Job) settle(id string, l Length) { j.settled[id] = l }

func (j *Job) option(id string) Option {
	for _, o := range j.style.Options {
		if o.ID == id {
			return o
		}
	}
	return Option{ID: id, Label: id}
}

// Clearance is fit.Clearance for this job.
func (j *Job) Clearance(layersInLid int) Length {
	return fit.Clearance(j.T(), layersInLid, 0, j.Slack, j.Step.Size)
}

func either(words []string) string {
	if len(words) < 2 {
		return strings.Join(words, "")
	}
	return strings.Join(words[:len(words)-1], ", ") + " or " + words[len(words)-1]
}

// Styles is the registry, in the order a gallery shows them.
var Styles = []*Style{trayLid, flapBox, hingedLid, sleeveDrawer, carton, pinchTop, gableCap, wrapCover}

// Find gives a style by name.
func Find(id string) *Style {
	for _, s := range append(Styles, scoreList) {
		if s.ID == id {
			return s
		}
	}
	return nil
}

// Make builds the box a style makes of a job, with its faces found, or notes
// the problems.
func Make(j *Job, style *Style) *Box {
	b := Draft(j, style)
	if b != nil {
		b.Find()
	}
	return b
}

// Find finds the faces of every piece.
func (b *Box) Find() {
	for _, p := range b.Pieces {
		p.Find()
	}
}

// Draft is Make without the faces: enough to know sizes and sheets by.
func Draft(j *Job, style *Style) *Box {
	j.style, j.settled, j.claims = style, map[string]Length{}, nil
	for _, id := range slices.Sorted(maps.Keys(j.Options)) {
		if j.option(id).Label == id {
			j.Problem("box.options."+id, fmt.Sprintf("%s has no question called %q.", style.Title, id), "Leave it out.")
		}
	}
	before := len(j.Problems)
	b := style.Build(j)
	if len(j.Problems) == before && b != nil && j.Proud > 0 && !b.OpenTop && !b.Peaked {
		j.Problem("room.proud", "This box closes flat over what is in it, so nothing can stand proud of its walls.", "Let nothing stand proud, or choose an open tray or a box with a roof.")
	}
	if len(j.Problems) > before || b == nil {
		return nil
	}
	b.Style, b.Settled, b.Claims = style, j.settled, append(b.Claims, j.claims...)
	return b
}
