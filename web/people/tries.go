package people

import (
	"net/http"
	"sync"
	"time"

	"github.com/labstack/echo/v5"
	"golang.org/x/time/rate"
)

// The passphrase may be tried so often: by everybody together, and by one address.
const (
	TriesAll, TriesOne = 30, 6
	triesEvery         = 10 * time.Second
)

// Throttle turns away who tries too often.
func (s *Room) Throttle() echo.MiddlewareFunc {
	t := &tries{all: rate.NewLimiter(rate.Every(triesEvery/4), TriesAll), of: map[string]*rate.Limiter{}}
	return func(next echo.HandlerFunc) echo.HandlerFunc {
		return func(c *echo.Context) error {
			if !t.allow(c.RealIP()) {
				c.Response().Header().Set("Retry-After", "60")
				return s.EnterWith(c, http.StatusTooManyRequests, "Too many tries. Wait a minute, then type the passphrase again.")
			}
			return next(c)
		}
	}
}

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
		one = rate.NewLimiter(rate.Every(triesEvery), TriesOne)
		t.of[address] = one
	}
	return one.Allow() && t.all.Allow()
}
