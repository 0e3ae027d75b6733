package box

import (
	"fmt"
	"strings"

	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/sheet"
)

// scoreList makes a box of what a person was given: cut sizes, scores and
// squares cut away. It builds what the numbers say, right or wrong, and leaves
// it to the proof to tell what cannot be.
var scoreList = &Style{
	ID: "score-list", Title: "Scores from elsewhere", Level: 2, Typed: true,
	About: "Type the sizes and scores that someone gave you, and see what box they make.",
	Build: buildScoreList,
}

// mostTyped is how many pieces a list may have.
const mostTyped = 6

// typed is a piece as it was typed: segments between scores, left to right and
// top to bottom, and the cells cut away by column and row from 0.
type typed struct {
	field, name, is string
	cols, rows      []Length
	away            map[[2]int]bool
}

func (p typed) wide() Length { return sum(p.cols) }
func (p typed) high() Length { return sum(p.rows) }

func sum(l []Length) (s Length) {
	for _, x := range l {
		s += x
	}
	return s
}

// Roles are what a typed piece may be.
var Roles = []Choice{
	{ID: "tray", Label: "A tray"}, {ID: "lid", Label: "A lid over the tray"}, {ID: "tube", Label: "A tube or sleeve"}, {ID: "liner", Label: "A liner in the tray"},
}

func buildScoreList(j *Job) *Box {
	pieces, ok := j.readTyped()
	if !ok {
		return nil
	}
	by := map[string]*typed{}
	for i := range pieces {
		p := &pieces[i]
		if by[p.is] != nil && p.is != "liner" {
			j.Problem(p.field+"is", fmt.Sprintf("There are two pieces that are %s.", strings.ToLower(label(p.is))), "Say what each of them is, or make them projects of their own.")
			return nil
		}
		by[p.is] = p
	}
	switch {
	case by["tray"] != nil:
		return j.typedTray(pieces, by)
	case by["tube"] != nil && by["lid"] == nil && by["liner"] == nil:
		return j.typedTube(by["tube"])
	}
	j.Problem(pieces[0].field+"is", "A lid or a liner needs the tray it belongs to.", "Add the tray's cut size and scores, or call this piece a tray.")
	return nil
}

func label(role string) string {
	for _, r := range Roles {
		if r.ID == role {
			return r.Label
		}
	}
	return role
}

// readTyped reads every piece, or notes what can't be read.
func (j *Job) readTyped() ([]typed, bool) {
	before := len(j.Problems)
	if len(j.Typed) == 0 {
		j.Problem("box.pieces", "No piece is listed yet.", "Add the first piece: its cut size and its scores.")
	}
	if len(j.Typed) > mostTyped {
		j.Problem("box.pieces", fmt.Sprintf("%d pieces are too many for one box.", len(j.Typed)), fmt.Sprintf("List at most %d.", mostTyped))
		return nil, false
	}
	var out []typed
	names := map[string]bool{}
	for i, t := range j.Typed {
		p := typed{field: fmt.Sprintf("box.pieces.%d.", i), is: strings.TrimSpace(string(t.Is))}
		p.name = j.Name(p.field+"name", t.Name, "A piece")
		if names[p.name] {
			j.Problem(p.field+"name", fmt.Sprintf("Two pieces are called %q.", p.name), "Give each its own name.")
		}
		names[p.name] = true
		if label(p.is) == p.is {
			j.Problem(p.field+"is", fmt.Sprintf("A piece can't be %q.", p.is), "Choose tray, lid, tube or liner.")
		}
		w, okW := j.Length(p.field+"width", t.Width, "The width")
		h, okH := j.Length(p.field+"height", t.Height, "The height")
		if !okW || !okH {
			continue
		}
		p.cols = j.segments(p.field+"across", t.Across, w, "wide")
		p.rows = j.segments(p.field+"down", t.Down, h, "high")
		p.away = j.cells(p.field+"away", t.Away, len(p.cols), len(p.rows))
		out = append(out, p)
	}
	return out, len(j.Problems) == before
}

// segments reads a list of scores and gives the distances between them.
func (j *Job) segments(field string, list brief.Text, size Length, way string) []Length {
	scores, ok := j.Lengths(field, list, size)
	if !ok {
		return []Length{size}
	}
	var out []Length
	last := Length(0)
	for i, at := range append(scores, size) {
		switch gap := at - last; {
		case i < len(scores) && (at >= size || at <= 0):
			j.Problem(field, fmt.Sprintf("A score at %s lies beyond the piece, which is %s %s.", j.Say(at), j.Say(size), way), "Check the cut size, and from which edge the score was measured.")
			return []Length{size}
		case gap < measure.Millimetre:
			j.Problem(field, fmt.Sprintf("Between %s and %s there is no card to fold.", j.Say(last), j.Say(at)), "Check the scores: each is measured from the same edge.")
			return []Length{size}
		}
		out = append(out, at-last)
		last = at
	}
	return out
}

// cells reads which squares are cut away: "corners", or places as column-row
// from the top left, such as 1-1.
func (j *Job) cells(field string, list brief.Text, cols, rows int) map[[2]int]bool {
	away := map[[2]int]bool{}
	for _, word := range strings.FieldsFunc(strings.ToLower(string(list)), func(r rune) bool { return r == ',' || r == ';' || r == ' ' }) {
		var c, r int
		switch n, err := fmt.Sscanf(word, "%d-%d", &c, &r); {
		case word == "none" || word == "and":
		case word == "corners":
			for _, at := range [][2]int{{0, 0}, {cols - 1, 0}, {0, rows - 1}, {cols - 1, rows - 1}} {
				away[at] = true
			}
		case err != nil || n != 2:
			j.Problem(field, fmt.Sprintf("%q is no square of this piece.", word), "Write corners, or squares as column-row from the top left, such as 1-1, 3-1.")
		case c < 1 || c > cols || r < 1 || r > rows:
			j.Problem(field, fmt.Sprintf("There is no square %s: the scores make %d columns and %d rows.", word, cols, rows), "Count columns from the left and rows from the top.")
		default:
			away[[2]int{c - 1, r - 1}] = true
		}
	}
	return away
}

// typedTray makes a tray with what goes over, round and into it.
func (j *Job) typedTray(pieces []typed, by map[string]*typed) *Box {
	t := j.T()
	base, size, walls, ok := j.openNet(by["tray"])
	if !ok {
		return nil
	}
	b := &Box{Size: size, Holder: base.Name, Rim: size.Depth, Strength: 1 + layers(walls), OpenTop: true,
		Inside: size.less(takes(walls, t)), Outside: Dims{size.Length + t, size.Width + t, size.Depth + t/2}, Pieces: []*sheet.Piece{base}}
	if p := by["lid"]; p != nil {
		lid, over, lidWalls, ok := j.openNet(p)
		if !ok {
			return nil
		}
		b.Pieces, b.Lids, b.OpenTop = append(b.Pieces, lid), []Lid{{lid.Name, base.Name}}, false
		b.Outside = Dims{over.Length + t, over.Width + t, max(size.Depth, over.Depth) + t + t/2}
		j.saysClearance(b, p, min(over.Length-size.Length, over.Width-size.Width), layers(lidWalls))
	}
	if p := by["tube"]; p != nil {
		sleeve, around, ok := j.sleeveNet(p)
		if !ok {
			return nil
		}
		b.Pieces, b.Slides, b.OpenTop = append(b.Pieces, sleeve), []Slide{{base.Name, sleeve.Name}}, false
		b.Outside = Dims{max(around.Length, size.Length) + t, around.Width + t, around.Depth + t}
		j.saysClearance(b, p, min(around.Width-size.Width, around.Depth-size.Depth), 0)
	}
	for i := range pieces {
		if pieces[i].is == "liner" {
			j.typedLiner(b, &pieces[i])
		}
	}
	j.claimStated(b)
	return b
}

// saysClearance notes how much larger a piece is than what it goes over, and
// warns when this card wants more.
func (j *Job) saysClearance(b *Box, p *typed, c Length, n int) {
	b.Clearance = c
	if need := j.Clearance(n); c < need {
		j.Warn(brief.Warning{Code: "tight-lid", Text: fmt.Sprintf("The %s is %s larger than what it goes over; this card wants %s.", p.name, j.Say(max(c, 0)), j.Say(need)),
			Fix: "Move its scores out, cut it larger, or take thinner card."})
	}
}

// typedLiner lays a liner on the tray's floor, or says that it can't go in.
func (j *Job) typedLiner(b *Box, p *typed) {
	w, h := p.wide(), p.high()
	if (w > h) != (b.Inside.Length > b.Inside.Width) {
		w, h = h, w
	}
	fits := w <= b.Inside.Length && h <= b.Inside.Width
	c := fold.Check{Name: p.name + " goes in", Holds: fits, Figure: fmt.Sprintf("%s × %s on a floor of %s × %s", j.Say(w), j.Say(h), j.Say(b.Inside.Length.Down(j.Step.Size)), j.Say(b.Inside.Width.Down(j.Step.Size)))}
	if !fits {
		c.Figure += ": it can't go in"
	} else {
		b.Seats = append(b.Seats, Seat{Piece: p.name, Face: "liner", On: b.Holder, OnFace: b.Pieces[0].Root, Lapped: true})
	}
	b.Claims = append(b.Claims, c)
	piece := sheet.Grid(p.name, sheet.Cols(w), sheet.Rows(h), "liner")
	piece.Part, piece.Root = sheet.Liner, "liner"
	b.Pieces = append(b.Pieces, piece)
	b.Mounts = append(b.Mounts, Mount{Piece: p.name, Face: "liner", On: b.Holder, OnFace: b.Pieces[0].Root, Out: -j.T()})
}

// claimStated compares the size that was stated with what the numbers give:
// it may have meant the outside, the inside or from score to score.
func (j *Job) claimStated(b *Box) {
	if j.Stated == nil {
		return
	}
	before := len(j.Problems)
	read := func(dim string, text brief.Text) Length {
		if strings.TrimSpace(string(text)) == "" {
			return 0 // not said
		}
		l, _ := j.LengthOrNone("box.stated."+dim, text, "The stated "+dim)
		return l
	}
	l, w, d := read("length", j.Stated.Length), read("width", j.Stated.Width), read("depth", j.Stated.Depth)
	if len(j.Problems) > before || l == 0 && w == 0 && d == 0 {
		return
	}
	near := func(a, of Length) bool { return a == 0 || (a-of).Abs() < max(j.Step.Size, measure.Millimetre) }
	c := fold.Check{Name: "the finished size is as stated"}
	for _, of := range []struct {
		word string
		Dims
	}{{"from score to score", b.Size}, {"outside", b.Outside}, {"inside", b.Inside}} {
		if (near(l, of.Length) && near(w, of.Width) || near(l, of.Width) && near(w, of.Length)) && near(d, of.Depth) {
			c.Holds, c.Figure = true, of.word
			break
		}
	}
	if !c.Holds {
		c.Figure = fmt.Sprintf("these scores give %s × %s × %s from score to score", j.Say(b.Size.Length), j.Say(b.Size.Width), j.Say(b.Size.Depth))
	}
	b.Claims = append(b.Claims, c)
}
