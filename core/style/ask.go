package style

import (
	"cmp"
	"fmt"
	"strings"

	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/words"
)

// Choice answers a question of the style with one of its choices.
func (j *Spec) Choice(id string) string {
	if c := j.Answers.Choice[id]; c != "" {
		return c
	}
	q, _ := j.style.Ask(id)
	return q.Default
}

// ChoiceOf answers the questions of a style before its box is built.
func (j *Spec) ChoiceOf(s *Style) func(id string) string {
	asked := *j
	asked.style = s
	return asked.Choice
}

// Is reports whether a question is answered so.
func (j *Spec) Is(id, choice string) bool { return j.Choice(id) == choice }

// Asked reports whether a length among the questions was typed.
func (j *Spec) Asked(id string) bool { _, ok := j.Answers.Length[id]; return ok }

// Bound is the least or the most a length may be, with the reason, and what would move it, by one in so many: a
// dimension of the box (length, width or depth), or another question.
type Bound struct {
	At  Length
	Why string // "tape needs that to hold"
	Dim string
	Ask string
	In  Length
	For string // the dimension that asks for so much, when it is another
}

// Free is no bound.
var Free = Bound{}

// Measure answers a question with the typed length or the style's own answer,
// kept between its bounds, and says so when what was typed is not.
func (j *Spec) Measure(id string, answer Length, least, most Bound) Length {
	q, _ := j.style.Ask(id)
	field := "box.options." + id
	if most.Why == "" && most.At == 0 {
		most.At = measure.Max
	}
	lo, hi := least.At.Up(j.Mark()), most.At.Down(j.Mark())
	typed, asked := j.Answers.Length[id]
	if half := j.Mark() / 2; lo > hi { // the middle of two marks can still be found
		lo, hi = least.At.Up(half), most.At.Down(half)
	}
	// Between two marks there may be what is typed, given with the size, or punched.
	if lo > hi && (asked || least.At == most.At || punched[id] != "") {
		lo, hi = least.At, most.At
	}
	switch {
	case lo > hi:
		j.noRoom(q, least, most)
	case asked && (typed < least.At || typed > most.At):
		says, near, bound := "less than", lo, least
		if typed > most.At {
			says, near, bound = "more than", hi, most
		}
		fix := fmt.Sprintf("Make it between %s and %s.", j.Say(lo), j.Say(hi))
		switch {
		case lo == hi:
			fix = fmt.Sprintf("Make it %s.", j.Say(lo))
		case hi >= measure.Max:
			fix = fmt.Sprintf("Make it %s or more.", j.Say(lo))
		case lo <= 0:
			fix = fmt.Sprintf("Make it %s or less.", j.Say(hi))
		}
		set := near.Exact(j.Units)
		if near <= 0 {
			set, fix = "", "Leave it open."
		}
		j.Problem(field, fmt.Sprintf("%s: %s is %s %s, and %s.", q.Label, j.Say(typed), says, j.Say(max(near, 0)), bound.Why),
			fix, field, set)
	case asked:
		answer = typed
	case punched[id] != "": // of a size the maker owns a punch for, if there is one that will do
		answer = min(max(j.Tools.Owned(punched[id], answer, least.At, most.At), lo), hi)
	case answer < least.At || answer > most.At:
		answer = min(max(answer, lo), hi)
	}
	j.settled[id] = answer
	return answer
}

// punched are the questions whose answer is the size of a punch.
var punched = map[string]string{"hole": "hole", "notch-width": "notch"}

// round cuts the outer corners of a flap to quarter rounds: of the corner punch the
// maker owns that comes nearest, if one does.
func (j *Spec) round(p *net.Piece, name, wall string, relief, radius Length) {
	own := j.Tools.Owned("corner", radius, radius/2, radius*3/2)
	if _, owned, _ := j.Tools.Reaches("corner", own, 0); owned {
		p.Tips = append(p.Tips, fmt.Sprintf("round the corners of the %s with your %s corner punch.", words.Plain(name),
			own.Exact(measure.Inches)))
	} else {
		p.Tips = append(p.Tips, fmt.Sprintf("round the corners of the %s. Draw round a coin or lid %s across at "+
			"each corner, and cut along the line.", words.Plain(name), j.Say(2*own)))
	}
	p.Round(name, wall, relief, own)
}

// noRoom says that a length can't be at all in a box of this size.
func (j *Spec) noRoom(q Question, least, most Bound) {
	dim := most.Dim
	if dim == "" {
		dim = least.Dim
	}
	short := (least.At.Up(j.Mark()) - most.At.Down(j.Mark())) * max(1, most.In)
	text := fmt.Sprintf("%s: it must be %s, because %s, and can be %s, because %s.",
		q.Label, j.Say(least.At.Up(j.Mark())), least.Why, j.Say(max(0, most.At.Down(j.Mark()))), most.Why)
	if by, asks := j.style.Ask(least.Ask); asks {
		j.Problem("box.options."+by.ID, text, by.Label+": leave it open.", "box.options."+by.ID, "")
		return
	}
	if by, asks := j.style.Ask(most.Ask); asks {
		larger := (j.settled[by.ID] + short).Up(j.Mark())
		j.Problem("box.options."+by.ID, text, fmt.Sprintf("%s: make it %s.", by.Label, j.Say(larger)), "box.options."+by.ID,
			larger.Exact(j.Units))
		return
	}
	j.tooSmallBy(dim, cmp.Or(least.For, most.For, dim), short, text)
}

// Want says that the box is too small in a dimension: have is there of what, and why wants so much.
func (j *Spec) Want(dim string, have, least Length, what, why string) {
	j.WantFor(dim, dim, have, least, what, why)
}

// WantFor is Want where another dimension asks for so much, and is to blame.
func (j *Spec) WantFor(guilty, dim string, have, least Length, what, why string) {
	if have < least {
		j.tooSmallBy(dim, guilty, least-have, fmt.Sprintf("%s is %s, but %s needs %s.", what, j.Say(max(have, 0)), why,
			j.Say(least.Up(j.Mark()))))
	}
}

// shorter names the shorter of the two sides of a floor.
func shorter(d Dims) string {
	if d.Length < d.Width {
		return "length"
	}
	return "width"
}

// shorterOf names the dimension of the shorter of two lengths.
func shorterOf(a string, la Length, b string, lb Length) string {
	if lb < la {
		return b
	}
	return a
}

var larger = map[string]string{"length": "longer", "width": "wider", "depth": "deeper"}

// tooSmallBy notes a dimension that must grow, with the change that does it, and blames what asks for it.
func (j *Spec) tooSmallBy(dim, guilty string, short Length, text string) {
	fix := fmt.Sprintf("Make the box %s %s", j.Say(short.Up(j.Mark())), larger[dim])
	if j.Adhesive.ID == "tape" {
		fix += ", or use wet glue, which holds on a narrower tab"
	}
	j.Problem(j.SizeField(guilty), text, fix+".", j.mends(dim, short)...)
}

// mends gives the field, and what to write in it, that make a dimension larger.
func (j *Spec) mends(dim string, by Length) []string {
	by = by.Up(j.Mark())
	switch {
	case j.Given != nil:
		size := map[string]Length{"length": j.Given.Length, "width": j.Given.Width, "depth": j.Given.Depth}[dim]
		return []string{"size." + dim, (size + by).Exact(j.Units)}
	case dim == "depth":
		return []string{"room.above", (j.Above + by).Up(j.Mark()).Exact(j.Units)}
	}
	return []string{"room.around", (j.Around + by/2).Up(j.Mark()).Exact(j.Units)}
}

// SizeField names the field to blame for a dimension: the size typed, or what asked for it.
func (j *Spec) SizeField(dim string) string {
	if j.Given != nil {
		return "size." + dim
	}
	return strings.TrimSpace(map[string]string{"length": j.Guilty.Length, "width": j.Guilty.Width,
		"depth": j.Guilty.Depth}[dim])
}

// seamWide is how wide a long seam is made, and seals its bound: where tape holds the
// seams and glue the corners, a seam wants more.
func (j *Spec) seamWide() Length { return max(j.Adhesive.Width, j.Adhesive.Seam).Up(j.Mark()) }

func (j *Spec) seals() Bound {
	b := j.sticks(0)
	b.At = max(b.At, j.Adhesive.Seam)
	return b
}

// sticks is the bound of what is stuck.
func (j *Spec) sticks(extra Length) Bound {
	return Bound{At: j.Adhesive.Width + extra, Why: j.Adhesive.Title + " needs that much to hold"}
}

// most is a bound from above.
func most(at Length, dim, why string) Bound { return Bound{At: at, Why: why, Dim: dim} }

// halfOf is most where a dimension moves the bound by half.
func halfOf(at Length, dim, why string) Bound { return Bound{At: at, Why: why, Dim: dim, In: 2} }

// mostOf is most where another question's length moves the bound.
func mostOf(at Length, ask string, in Length, why string) Bound {
	return Bound{At: at, Why: why, Ask: ask, In: in}
}
