package gate

import (
	"crypto/rand"
	"errors"
	"sync"
	"time"
)

// Lasts is how long an invitation lasts.
const Lasts = 10 * time.Minute

// Why an invitation lets nobody in.
var (
	ErrUsed    = errors.New("this code has let a phone in already")
	ErrLate    = errors.New("this code is older than ten minutes")
	ErrUnknown = errors.New("this code isn't one of this Brevium's")
)

// Invites are the codes that let a phone in, each once. They are of this run of the program; how long they last is
// measured by a clock that nobody sets.
type Invites struct {
	now func() time.Time

	mu   sync.Mutex
	made map[string]invite
}

type invite struct {
	at   time.Time
	used bool
}

// most is how many codes are remembered, so that it can be said of one why it no longer holds.
const most = 200

// New makes a code.
func (v *Invites) New() string {
	v.mu.Lock()
	defer v.mu.Unlock()
	if v.made == nil {
		v.made = map[string]invite{}
	}
	for code, i := range v.made {
		if len(v.made) >= most || v.now().Sub(i.at) > 24*time.Hour {
			delete(v.made, code)
		}
	}
	code := rand.Text()
	v.made[code] = invite{at: v.now()}
	return code
}

// Good says why a code lets nobody in; nil when it would.
func (v *Invites) Good(code string) error { return v.take(code, false) }

// Take uses a code up.
func (v *Invites) Take(code string) error { return v.take(code, true) }

func (v *Invites) take(code string, use bool) error {
	v.mu.Lock()
	defer v.mu.Unlock()
	i, ok := v.made[code]
	switch {
	case !ok:
		return ErrUnknown
	case i.used:
		return ErrUsed
	case v.now().Sub(i.at) > Lasts:
		return ErrLate
	}
	i.used = use
	v.made[code] = i
	return nil
}

// forget drops all codes: the gate they were for is closed.
func (v *Invites) forget() {
	v.mu.Lock()
	defer v.mu.Unlock()
	v.made = nil
}
