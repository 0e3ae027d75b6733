package plan

import (
	"fmt"

	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/style"
	"brevium/core/words"
)

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
	m.Chosen = fmt.Sprintf("Chosen for you: %s, with %s that no groove sets.", words.Small(says), words.Count(least, "score"))
	if least == 0 {
		m.Chosen = fmt.Sprintf("Chosen for you: %s; every score lies in a groove.", words.Small(says))
	}
}

// oddWith counts the scores no groove sets with other answers, -1 when no such box
// can be.
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
