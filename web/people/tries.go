package people

import (
	"net/http"
	"net/netip"
	"sync"
	"time"

	lru "github.com/hashicorp/golang-lru/v2"
	"github.com/labstack/echo/v5"
	"golang.org/x/time/rate"
)

// From one address the passphrase may be tried so often at once, then every so often, and one try at a time. How many are
// tried by all together is bounded by what a try costs, which is done in a place of its own: whoever tries from ever other
// addresses slows the others down, and locks nobody out.
const (
	TriesOne      = 6
	triesEvery    = 10 * time.Second
	mostAddresses = 10_000 // that are remembered, those that tried last
)

// Throttle turns away who tries too often.
func (s *Room) Throttle() echo.MiddlewareFunc {
	t := newTries()
	return func(next echo.HandlerFunc) echo.HandlerFunc {
		return func(c *echo.Context) error {
			done, ok := t.begin(c.RealIP())
			if !ok {
				c.Response().Header().Set("Retry-After", "60")
				return s.EnterWith(c, http.StatusTooManyRequests, "Too many tries. Wait a minute, then type the passphrase again.")
			}
			defer done()
			return next(c)
		}
	}
}

// tries counts how often the passphrase was tried from each address.
type tries struct {
	sync.Mutex
	of *lru.Cache[string, *trying]
}

// trying is an address that tries.
type trying struct {
	*rate.Limiter
	busy bool
}

func newTries() *tries {
	of, err := lru.New[string, *trying](mostAddresses)
	if err != nil {
		panic(err) // of a size that is none
	}
	return &tries{of: of}
}

// begin begins a try, unless there were too many from where it comes; done ends it.
func (t *tries) begin(address string) (done func(), ok bool) {
	t.Lock()
	defer t.Unlock()
	from := network(address)
	one, known := t.of.Get(from)
	if !known {
		one = &trying{Limiter: rate.NewLimiter(rate.Every(triesEvery), TriesOne)}
		t.of.Add(from, one)
	}
	if one.busy || !one.Allow() {
		return nil, false
	}
	one.busy = true
	return func() { t.Lock(); one.busy = false; t.Unlock() }, true
}

// network is what one household has of addresses: of the long ones, which come by the billion, their first half.
func network(address string) string {
	ip, err := netip.ParseAddr(address)
	if err != nil || ip.Unmap().Is4() {
		return address
	}
	half, err := ip.WithZone("").Prefix(64)
	if err != nil {
		return address
	}
	return half.String()
}
