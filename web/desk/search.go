package desk

import (
	"context"
	"runtime"
)

// searches makes a place for each long search that may run at once: as many as
// the machine has cores, so that short pages never wait behind them for long.
func searches() chan struct{} { return make(chan struct{}, max(1, runtime.NumCPU()/2)) }

// Turn waits for a place for a long search, or until its asker has left.
func (s *Desk) Turn(ctx context.Context) (done func(), err error) {
	select {
	case s.hard <- struct{}{}:
		return func() { <-s.hard }, nil
	case <-ctx.Done():
		return nil, ctx.Err()
	}
}

// mostFates is of how many revisions it is remembered whether they gave a plan, so that the last that did is found
// again without planning all since. A revision never changes.
const mostFates = 10_000
