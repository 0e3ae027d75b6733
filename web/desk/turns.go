package desk

import (
	"context"
	"sync"
)

// turns lets those who change one box or shop go one after the other, so that none loses its try again and
// again to quicker ones. The store still refuses what another program changed in between.
type turns struct {
	mu   sync.Mutex
	here map[string]*turn
}

// turn is the place of one box: who holds it, and how many hold it or wait.
type turn struct {
	place chan struct{}
	many  int
}

// take waits for its turn with a box and returns what ends it; it fails when the request is given up before.
func (t *turns) take(ctx context.Context, id string) (end func(), err error) {
	t.mu.Lock()
	if t.here == nil {
		t.here = map[string]*turn{}
	}
	own := t.here[id]
	if own == nil {
		own = &turn{place: make(chan struct{}, 1)}
		t.here[id] = own
	}
	own.many++
	t.mu.Unlock()
	leave := func() {
		t.mu.Lock()
		defer t.mu.Unlock()
		if own.many--; own.many == 0 {
			delete(t.here, id)
		}
	}
	select {
	case own.place <- struct{}{}:
		return func() { <-own.place; leave() }, nil
	case <-ctx.Done():
		leave()
		return nil, ctx.Err()
	}
}
