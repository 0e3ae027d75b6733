package desk

import (
	"context"
	"errors"
	"net"
	"net/http"
	"os"
	"slices"
	"strings"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/desktop"
	"brevium/gate"
)

// Home is where Brevium runs when its maker started it for herself: her computer, and the gate through which she may
// let phones in. A server for others has none.
type Home struct {
	Computer desktop.Computer
	Gate     *gate.Gate
	Close    func() // ends this Brevium once the answer is on its way
	Address  string // where its pages are on this computer
}

// AtHome reports whether a request comes from the maker's own computer, where that is the one Brevium runs on.
func (s *Desk) AtHome(c *echo.Context) bool {
	return s.Home != nil && !s.guarded && !gate.Through(c.Request().Context())
}

// Asked reports whether whoever makes a request is asked who it is.
func (s *Desk) Asked(r *http.Request) bool { return s.guarded || gate.Through(r.Context()) }

// homeOnly turns away from what is the computer's own whoever doesn't sit at it.
func (s *Desk) homeOnly(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		if s.letsIn(c).Home && gate.Through(c.Request().Context()) {
			return echo.NewHTTPError(http.StatusForbidden, "This is only possible on the computer that Brevium runs on.")
		}
		return next(c)
	}
}

// throughGate reports whether a request through the gate names this computer as it came to it: by the address it asked
// at, or by its own name.
func throughGate(r *http.Request, host string) bool {
	at, ok := r.Context().Value(http.LocalAddrContextKey).(net.Addr)
	if !ok || !gate.Through(r.Context()) {
		return false
	}
	own, _, err := net.SplitHostPort(at.String())
	if err != nil {
		return false
	}
	name, _ := os.Hostname()
	name = strings.ToLower(name)
	return host == own || name != "" && slices.Contains([]string{name, name + ".local"}, host)
}

// listening is the address at which phones in the network reach Brevium, for the top of the page; "" while none can.
func (s *Desk) listening(c *echo.Context) string {
	if !s.AtHome(c) {
		return ""
	}
	return s.Home.Gate.State().First()
}

// ClockSays tells whoever sits at her own computer that its clock is wrong, where that is plain; "" where it isn't.
func (s *Desk) ClockSays(c *echo.Context) string {
	now := s.Clock()
	if !s.AtHome(c) || !s.Home.Computer.ClockWrong(now) {
		return ""
	}
	return "This computer's clock says " + now.Format("2 January 2006") + ", which can't be right. Backups, the logbook and " +
		"dates to make things by go by it. Set the clock, then reload this page."
}

// WithTime gives something longer than a request has, and ends it when the request's asker leaves for good.
func WithTime(ctx context.Context, long time.Duration) (context.Context, context.CancelFunc) {
	out, cancel := context.WithTimeout(context.WithoutCancel(ctx), long)
	stop := context.AfterFunc(ctx, func() {
		if !errors.Is(ctx.Err(), context.DeadlineExceeded) {
			cancel()
		}
	})
	return out, func() { stop(); cancel() }
}
