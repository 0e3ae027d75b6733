package plan

import (
	"fmt"
	"slices"

	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/dress"
	"brevium/core/measure"
	"brevium/core/style"
	"brevium/core/words"
)

// dress puts on, in and round the box what is asked for. How thick layers lie under a lid is guessed before the box
// is built; where the folded box says otherwise it is built again.
func (m *making) dress() bool {
	if m.Wish.Empty() {
		return true
	}
	warnings, tucks := len(m.Warnings), []string(nil)
	if q, asks := m.Style.For(style.Closing); asks && slices.ContainsFunc(q.Choices, func(c style.Choice) bool { return c.ID == "tuck" }) {
		tucks = []string{"box.options." + q.ID, "tuck"}
	}
	for try := 0; ; try++ {
		m.Dressed = dress.On(m.Box, m.Wish, dress.Means{Report: m.Report, T: m.Card.Caliper, Card: m.CardOf,
			Sticks: m.Adhesive, Tools: m.Tools, Ease: m.Slack, Plain: m.Plain, Mass: m.Mass(), Tucks: tucks})
		skin := measure.Length(0)
		for _, sides := range m.Dressed.Skins {
			skin = max(skin, slices.Max(append(sides, 0)))
		}
		m.placeMotifs()
		if len(m.Problems) > 0 {
			m.Dressed, m.Box = nil, nil
			return false
		}
		if skin == m.Skin || try > 0 {
			break
		}
		m.Skin, m.Warnings = skin, m.Warnings[:warnings]
		m.again()
		if m.Box = m.run(); m.Box == nil {
			return false
		}
		m.Warnings = m.Warnings[:min(warnings, len(m.Warnings))]
	}
	for i := range m.Box.Clears {
		m.Box.Clears[i].Under = m.Dressed.Skins[i]
	}
	return true
}

// placeMotifs refuses a motif so near the edge of its sheet that what is cut round it would hang over.
func (m *making) placeMotifs() {
	for _, f := range m.Dressed.Motifs {
		on := m.SheetOf(f.Card)
		x, y := f.X+f.W-on.Width, f.Y+f.H-on.Height
		if over := max(-f.X, -f.Y, x, y); over > 0 {
			m.Problem("dress."+f.Entry+".motif.x",
				fmt.Sprintf("Cut around that motif, the %s would hang %s over the edge of its sheet.",
					f.Piece, m.Say(over)), "Choose a spot further from the edges.", "dress."+f.Entry+".motif.x", "",
				"dress."+f.Entry+".motif.y", "")
		}
	}
}

// Odd counts the scores of a plan that no groove sets.
func (p *Plan) Odd() (n int) {
	for _, c := range p.Guide.Cards {
		n += c.Odd()
	}
	return n
}

// chooseClearance picks, where the house leaves it to the plan, where the clearance
// comes from: the school that leaves fewest scores no groove sets.
func (m *making) chooseClearance() {
	q, asks := m.Style.For(style.Clearance)
	if !asks || m.Answers.Choice[q.ID] != style.LeftToPlan {
		return
	}
	best, least, says := "", 0, ""
	for _, c := range q.Choices {
		if c.ID == style.LeftToPlan {
			continue
		}
		answers := m.Answers.With(q.ID, c.ID)
		n := m.oddWith(answers)
		if n >= 0 && (best == "" || n < least) {
			best, least, says = c.ID, n, c.Label
		}
	}
	if best == "" { // none can be: the first says why
		m.Answers = m.Answers.With(q.ID, q.Default)
		return
	}
	m.Answers = m.Answers.With(q.ID, best)
	m.Chosen = fmt.Sprintf("Chosen for you: %s, with %s between grooves.", words.Small(says), words.Count(least, "score"))
	if least == 0 {
		m.Chosen = fmt.Sprintf("Chosen for you: %s. Every score lies in a groove.", words.Small(says))
	}
}

// oddWith counts the scores no groove sets with other answers, -1 when no such box can be.
func (m *making) oddWith(answers style.Answers) (n int) {
	q := *m.Request
	q.Report, q.Answers = &brief.Report{Units: m.Units, Step: m.Step}, answers
	trial := newMaking(&q, m.w, m.taken)
	if trial.hasty = true; !trial.found() || len(trial.Problems) > 0 {
		return -1
	}
	for _, piece := range trial.Box.Pieces() {
		n += bench.ScoreCardOf(piece, m.Say, m.Step.Size, m.Tools, m.First).Odd()
	}
	return n
}
