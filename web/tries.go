package web

import (
	"sync"

	"golang.org/x/time/rate"
)

// tries counts how often the passphrase was tried: by everybody, and by each address.
type tries struct {
	sync.Mutex
	all *rate.Limiter
	of  map[string]*rate.Limiter
}

// mostAddresses bounds how many addresses are remembered.
const mostAddresses = 10_000

func (t *tries) allow(address string) bool {
	t.Lock()
	defer t.Unlock()
	one := t.of[address]
	if one == nil {
		if len(t.of) >= mostAddresses {
			clear(t.of)
		}
		one = rate.NewLimiter(rate.Every(triesEvery), triesOne)
		t.of[address] = one
	}
	return one.Allow() && t.all.Allow()
}
