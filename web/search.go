package web

import (
	"context"
	"errors"
	"runtime"
	"sync"

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

// fates remembers which revisions gave a plan, so that the last that did is
// found again without planning all since. A revision never changes.
type fates struct {
	sync.Mutex
	works map[int64]bool
}

// mostFates bounds what is remembered.
const mostFates = 10_000

func (f *fates) of(revision int64) (works, known bool) {
	f.Lock()
	defer f.Unlock()
	works, known = f.works[revision]
	return works, known
}

func (f *fates) forget() {
	f.Lock()
	defer f.Unlock()
	f.works = nil
}

func (f *fates) note(revision int64, works bool) {
	f.Lock()
	defer f.Unlock()
	if f.works == nil || len(f.works) >= mostFates {
		f.works = map[int64]bool{}
	}
	f.works[revision] = works
}

// lastThatWorks plans the newest state before a project's own that gives a
// plan, of a set for one of its boxes; nil when none does.
func (s *Server) lastThatWorks(ctx context.Context, project string, from int64, box string) (*plan.Plan, error) {
	trail, err := s.store.Trail(ctx, from, back)
	if err != nil {
		return nil, err
	}
	for _, id := range trail {
		if works, known := s.fates.of(id); known && !works {
			continue
		}
		rev, err := s.store.Revision(ctx, project, id)
		if broken := new(store.Broken); errors.As(err, &broken) {
			continue
		}
		if err != nil {
			return nil, err
		}
		if box != "" && rev.Brief.Several.At(box) < 0 {
			continue
		}
		p := s.make(rev.Brief, box).plan
		if box == "" {
			s.fates.note(id, p.OK())
		}
		if p.OK() {
			return p, nil
		}
	}
	return nil, nil
}
