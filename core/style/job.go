package style

import (
	"fmt"
	"strings"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/shop"
)

func dims(length, width, depth Length) Dims { return Dims{Length: length, Width: width, Depth: depth} }

const (
	mm        = measure.Millimetre
	flatAbove = fold.Flat
)

// Job is what a style works from. It is read from the document once, before.
type Job struct {
	*brief.Report
	Card     shop.Card
	Adhesive shop.Adhesive
	Slack    Length
	Plain    bool                    // plain numbers instead of the card's thickness
	Given    *Dims                   // score to score, to the letter
	Need     Dims                    // clear room the contents want
	Needs    []Dims                  // clear room each small box wants, where there are several
	Taken    *Dims                   // what the style takes of a size, measured; nil when not known yet
	Proud    Length                  // how far the contents stand above the rim
	Beside   Length                  // what of the need is clear room on each side of them
	Around   Length                  // the finger room asked for, for remedies
	Above    Length                  // and the room above
	Stand    func(*Box) []fold.Block // what goes in, with room round it, where it stands; nil when it wants a block
	Guilty   Blame
	Poor     bool // nothing could be measured for another arrangement: one guess will do
	Answers  Answers
	Scores   []Scored // pieces from a list of scores
	Stated   *Dims    // and the finished size it claims; 0 is not said

	style   *Style
	settled map[string]Length
	notes   []assembly.Note
	shaped  bool // its room is no block
	found   *Box // a box that was built to be measured, and may be the one
}

// Knows takes over what was found out on the way with another job of the same
// answers.
func (j *Job) Knows(o *Job) {
	if j.Taken == nil {
		j.Taken, j.found, j.shaped = o.Taken, o.found, o.shaped
	}
}

// Blame names the field that asked for each dimension.
type Blame struct{ Length, Width, Depth string }

// Answers are a style's questions answered: choices by name, lengths in their
// own right. What is left open is not in them.
type Answers struct {
	Choice map[string]string
	Length map[string]Length
}

// ReadAnswers reads the answers to a style's questions, or notes what is wrong
// with them.
func ReadAnswers(r *brief.Reader, s *Style, options brief.Options) Answers {
	a := Answers{map[string]string{}, map[string]Length{}}
	for id, text := range brief.Sorted(options) {
		field, answer := "box.options."+id, strings.TrimSpace(string(text))
		q, known := s.Ask(id)
		switch {
		case !known:
			r.Problem(field, fmt.Sprintf("%s has no question called %q.", s.Title, id), "Leave it out.", field, "")
		case answer == "":
		case len(q.Choices) == 0:
			if l, ok := r.Length(field, text, q.Label); ok {
				a.Length[id] = l
			}
		default:
			var ids []string
			for _, c := range q.Choices {
				ids = append(ids, c.ID)
				if c.ID == answer {
					a.Choice[id] = answer
				}
			}
			if a.Choice[id] == "" {
				r.Problem(field, fmt.Sprintf("%s can't be %q.", q.Label, answer), "Choose "+either(ids)+".", field, q.Default)
			}
		}
	}
	a.warnIdle(r.Report, s)
	return a
}

// warnIdle says which answers nobody asked for: their question makes no sense
// beside the others.
func (a Answers) warnIdle(r *brief.Report, s *Style) {
	for _, q := range s.Asks {
		_, length := a.Length[q.ID]
		if choice := a.Choice[q.ID]; !length && (choice == "" || choice == q.Default) || a.asks(s, q) {
			continue
		}
		because := "which is not so here"
		if rule, _, ok := strings.Cut(q.When+q.Unless, "="); ok {
			if of, known := s.Ask(rule); known {
				because = fmt.Sprintf("and “%s” is answered otherwise", of.Label)
			}
		}
		r.Warn(brief.Warning{Code: "idle-option", Text: fmt.Sprintf("“%s” does nothing here: it belongs to another answer, %s.",
			q.Label, because),
			Fix: "Clear it, or change the other answer.", Set: map[string]string{"box.options." + q.ID: ""}})
	}
}

// asks says whether a question makes sense beside the answers given.
func (a Answers) asks(s *Style, q Question) bool {
	holds := func(rule string) bool {
		id, choice, _ := strings.Cut(rule, "=")
		of, _ := s.Ask(id)
		given := a.Choice[id]
		if given == "" {
			given = of.Default
		}
		for _, one := range strings.Split(choice, "|") {
			if given == one {
				return true
			}
		}
		return false
	}
	return (q.When == "" || holds(q.When)) && (q.Unless == "" || !holds(q.Unless))
}

// Scored is a piece as it was typed: segments between scores, left to right and
// top to bottom, and the cells cut away by column and row from 0.
type Scored struct {
	Field, Name, Is, Walls, Tabs string
	Cols, Rows                   []Length
	Away                         map[[2]int]bool
}

func either(words []string) string {
	if len(words) < 2 {
		return strings.Join(words, "")
	}
	return strings.Join(words[:len(words)-1], ", ") + " or " + words[len(words)-1]
}

// T is the caliper of the card.
func (j *Job) T() Length { return j.Card.Caliper }

// Mark is what the tools can measure.
func (j *Job) Mark() Length { return j.Step.Size }

// Wide is how wide what sticks a tab wants it, on the marks.
func (j *Job) Wide() Length { return j.Adhesive.Width.Up(j.Mark()) }

// Size gives the size to build, score to score: the given one to the letter,
// or the needed room and what the style takes from it, snapped up.
func (j *Job) Size() Dims {
	if j.Given != nil {
		return *j.Given
	}
	up := func(need, taken Length) Length { return max(j.Mark(), (need + taken).Up(j.Mark())) }
	return dims(up(j.Need.Length, j.Taken.Length), up(j.Need.Width, j.Taken.Width), up(j.Need.Depth, j.Taken.Depth))
}

// Clearance is how much larger a lid's panel is than what it goes over, over the
// whole width; layers is how many full faces of card lie inside its walls.
func (j *Job) Clearance(layers int) Length {
	return shop.Clearance(j.T(), layers, 0, j.Slack, j.Mark())
}

// Gain is how much longer a panel is that bends round others: what the card
// takes or, in plain numbers, one mark of the tools, if that is a millimetre.
func (j *Job) Gain(takes Length) Length {
	if j.Plain {
		return Length(mm).Up(j.Mark())
	}
	return takes.Up(j.Mark())
}

// Sliver is the least the tools can take off to clear a thickness of card;
// nothing in plain numbers.
func (j *Job) Sliver() Length {
	if j.Plain {
		return 0
	}
	return j.T().Up(j.Mark())
}

// note says what the plan did to a number, and why.
func (j *Job) note(code, piece, field string, figure Length, text string) {
	if figure != 0 {
		j.notes = append(j.notes, assembly.Note{Code: code, Piece: piece, Field: field, Figure: figure, Text: text})
	}
}
