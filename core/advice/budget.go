package advice

import (
	"sync/atomic"

	"brevium/core/plan"
)

// Searches beside the plan itself have a budget of work, so that no document
// can make one long. It counts what is built, not time, so the same document
// gets the same answer on any machine.
const (
	compared    = 5000  // by Compare, in things placed and pieces cut
	counted     = 40000 // by HowMany, likewise, for all kinds of thing together
	countedEach = 20000 // but for each so much at least
	remedied    = 4000  // by the search for what makes a piece fit its sheet
)

type budget struct{ left atomic.Int64 }

func work(units int) *budget {
	b := &budget{}
	b.left.Store(int64(units))
	return b
}

// Spend takes from what is left and reports whether there was enough.
func (b *budget) Spend(units int) bool { return b.left.Add(-int64(units)) >= 0 }

// Over reports whether more was asked for than there was.
func (b *budget) Over() bool { return b.left.Load() < 0 }

// affords reports whether there is work left to look for a remedy by planning the box
// once more, so many times as dear as for its sizes alone.
func (a *adviser) affords(dear int) bool { return a.work.Spend(dear * effort(a.Plan)) }

// effort is about how much work planning a box again takes.
func effort(p *plan.Plan) int {
	n := 20
	for _, t := range p.Things {
		n += t.Count
		if p.Kind != nil && p.Kind.ID == "platform" {
			n += 3 * t.Count // each has its hole
		}
	}
	if p.Box != nil {
		for _, piece := range p.Box.Pieces() {
			n += 4 * piece.Count
		}
	}
	return n
}
