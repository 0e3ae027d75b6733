package web

import (
	"context"
	"errors"
	"fmt"
	"runtime"

	"brevium/core/plan"
	"brevium/store"
)

// searches makes a place for each long search that may run at once: as many as
// the machine has cores, so that short pages never wait behind them for long.
func searches() chan struct{} { return make(chan struct{}, max(1, runtime.NumCPU()/2)) }

// turn waits for a place for a long search, or until its asker has left.
func (s *Server) turn(ctx context.Context) (done func(), err error) {
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

// lastThatWorks plans the newest state before a project's own that gives a
// plan, of a set for one of its boxes; nil when none does.
func (s *Server) lastThatWorks(ctx context.Context, project string, from int64, box string) (*plan.Plan, error) {
	trail, err := s.store.Trail(ctx, from, back)
	if err != nil {
		return nil, err
	}
	for _, id := range trail {
		if works, known := s.fates.of(fmt.Sprint(id)); known && !works {
			continue
		}
		rev, err := s.store.Boxes.Revision(ctx, project, id)
		if broken := new(store.Broken); errors.As(err, &broken) {
			continue
		}
		if err != nil {
			return nil, err
		}
		if box != "" && rev.Doc.Several.At(box) < 0 {
			continue
		}
		p := s.make(rev.Doc, box).plan
		if box == "" {
			s.fates.note(fmt.Sprint(id), p.OK())
		}
		if p.OK() {
			return p, nil
		}
	}
	return nil, nil
}
