package style

import "brevium/core/brief"

// Role is what a question is for, where other rooms ask for it: they know no question by its name.
type Role int

const (
	Clearance  Role = iota + 1 // where the clearance of what goes over comes from
	OuterWalls                 // how the walls are made of what goes over the box
	Closing                    // what holds it closed
	Walls                      // how the walls of what things stand in are made
	Tabs                       // how corner squares become tabs
	Gussets                    // how gussets are creased
)

// LeftToPlan is the answer that leaves it to the plan where the clearance comes from.
const LeftToPlan = "choose"

// Need is what another answer could do for a box.
type Need int

const (
	Stiffer   Need = iota + 1 // walls that bear more
	Slighter                  // less card
	Uncracked                 // heavy card is scored and not pinched
)

// Remedy is an answer that serves a need.
type Remedy struct {
	For    Need
	From   string // the answer it is given in place of; "" for any other
	To     string
	Says   string
	Clears []string // questions that are then left open
}

// For gives the question of a role.
func (s *Style) For(r Role) (Question, bool) {
	for _, q := range s.Asks {
		if q.For == r {
			return q, true
		}
	}
	return Question{}, false
}

// Remedies lists what other answers than those given would serve a need.
func (s *Style) Remedies(n Need, given Answers) (out []brief.Fix) {
	for _, q := range s.Asks {
		for _, r := range q.Remedies {
			now := given.Choice[q.ID]
			if r.For != n || r.From != "" && now != r.From || now == r.To {
				continue
			}
			set := brief.To("box.options."+q.ID, r.To)
			for _, id := range r.Clears {
				set = set.And(brief.Change{Field: "box.options." + id})
			}
			out = append(out, brief.Fix{Text: r.Says, Set: set})
		}
	}
	return out
}

// as says what a question is for.
func (q Question) as(r Role) Question { q.For = r; return q }

// remedied adds an answer that serves a need.
func (q Question) remedied(r Remedy) Question { q.Remedies = append(q.Remedies, r); return q }

// rolledWalls is the remedy of walls that may be rolled, shortLid of a lid that may be shorter.
var (
	rolledWalls = Remedy{For: Stiffer, To: "rolled", Says: "Roll its walls."}
	shortLid    = Remedy{For: Slighter, From: "full", To: "short", Says: "A short lid instead of a full one.",
		Clears: []string{"lid-height", "reveal"}}
)

// Overs are the names of parts that go over something, which "lid" means too.
var Overs = []string{"lid", "sleeve", "cap", "shell"}
