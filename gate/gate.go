// Package gate lets phones and tablets in the same home network reach Brevium. Brevium itself answers to its own
// computer alone. When its maker opens the gate, it answers at the computer's addresses in private networks too, until
// she closes it or Brevium ends; nothing else is changed or started anew. What comes through the gate is marked
// (Through), so that whoever serves it can ask who it is.
package gate

import (
	"context"
	"errors"
	"fmt"
	"net"
	"net/http"
	"net/netip"
	"slices"
	"strconv"
	"sync"
	"time"

	"crypto/tls"
)

// Port is where the gate is, or the first free one after it.
const Port = 8419

// Gate is closed until it is opened. It may be used by many at once.
type Gate struct {
	// Addresses lists where it may listen, the likeliest first: this machine's in private networks, unless a test
	// says otherwise.
	Addresses func() []netip.Addr
	Invites   Invites
	house     *House
	server    func() *http.Server // made anew each time it is opened

	mu   sync.Mutex
	open *opened
}

// opened is a gate while it is open.
type opened struct {
	server *http.Server
	secure bool
	port   int
	at     map[netip.Addr]net.Listener
	since  time.Time
	stop   chan struct{}
}

// New gives a gate that is closed. The house's certificate, where it is asked for, is kept in a file.
func New(certificate string) *Gate {
	return &Gate{Addresses: Private, Invites: Invites{now: time.Now}, house: &House{file: certificate}}
}

// Leads says what serves those who come through: it is asked for at each opening.
func (g *Gate) Leads(server func() *http.Server) { g.server = server }

type throughKey struct{}

// Through reports whether a request came through the gate.
func Through(ctx context.Context) bool { return ctx.Value(throughKey{}) != nil }

// ErrNowhere says that this computer is in no network at home.
var ErrNowhere = errors.New("this computer is in no home network; connect it, then try again")

// Open opens the gate, over HTTPS where it is to be secure. Opened otherwise before, it is closed first.
func (g *Gate) Open(secure bool) error {
	g.Close()
	g.mu.Lock()
	defer g.mu.Unlock()
	o := &opened{server: g.server(), secure: secure, at: map[netip.Addr]net.Listener{}, since: time.Now(),
		stop: make(chan struct{})}
	o.server.ConnContext = func(ctx context.Context, _ net.Conn) context.Context {
		return context.WithValue(ctx, throughKey{}, true)
	}
	if secure {
		if err := g.house.open(); err != nil {
			return err
		}
		o.server.TLSConfig = &tls.Config{MinVersion: tls.VersionTLS12, GetCertificate: g.house.certificate}
	}
	if err := o.listen(g.Addresses()); err != nil {
		return err
	}
	g.open = o
	go g.follow(o)
	return nil
}

// listen begins to listen at addresses it doesn't listen at yet, at one port, and ends where the machine no longer is.
func (o *opened) listen(at []netip.Addr) error {
	if len(at) == 0 && len(o.at) == 0 {
		return ErrNowhere
	}
	for a, l := range o.at {
		if !slices.Contains(at, a) {
			l.Close()
			delete(o.at, a)
		}
	}
	var last error
	for _, a := range at {
		if o.at[a] != nil {
			continue
		}
		l, err := o.listenAt(a)
		if err != nil {
			last = err
			continue
		}
		o.at[a] = l
		go func() {
			if o.secure {
				_ = o.server.ServeTLS(l, "", "")
			} else {
				_ = o.server.Serve(l)
			}
		}()
	}
	if len(o.at) == 0 {
		return fmt.Errorf("this computer doesn't let Brevium listen in the network: %w", last)
	}
	return nil
}

// listenAt listens at an address, for those of private networks alone.
func (o *opened) listenAt(a netip.Addr) (net.Listener, error) {
	first, tries := o.port, 1
	if first == 0 {
		first, tries = Port, 20
	}
	var last error
	for port := first; port < first+tries; port++ {
		l, err := net.Listen("tcp", net.JoinHostPort(a.String(), strconv.Itoa(port)))
		if err == nil {
			o.port = port
			return private{l}, nil
		}
		last = err
	}
	return nil, last
}

// follow keeps to the addresses of the machine, which a laptop carries from network to network.
func (g *Gate) follow(o *opened) {
	for {
		select {
		case <-o.stop:
			return
		case <-time.After(5 * time.Second):
		}
		g.mu.Lock()
		if g.open == o {
			_ = o.listen(g.Addresses()) // where it is in no network for now, it waits for one
		}
		g.mu.Unlock()
	}
}

// Close closes the gate: nobody comes in, and those who were talking are cut off.
func (g *Gate) Close() {
	g.mu.Lock()
	o := g.open
	g.open = nil
	if o != nil {
		for _, l := range o.at { // the server may not have taken them up yet
			l.Close()
		}
	}
	g.mu.Unlock()
	g.Invites.forget()
	if o != nil {
		close(o.stop)
		o.server.Close()
	}
}

// State is how the gate stands.
type State struct {
	Open, Secure bool
	Addresses    []string // like http://192.168.1.20:8419, the likeliest first
	Since        time.Time
}

// First is the address to type on a phone, "" when there is none.
func (s State) First() string {
	if len(s.Addresses) == 0 {
		return ""
	}
	return s.Addresses[0]
}

// State tells how the gate stands now.
func (g *Gate) State() State {
	g.mu.Lock()
	defer g.mu.Unlock()
	o := g.open
	if o == nil {
		return State{}
	}
	s := State{Open: true, Secure: o.secure, Since: o.since}
	scheme := map[bool]string{true: "https", false: "http"}[o.secure]
	for _, a := range g.Addresses() {
		if o.at[a] != nil {
			s.Addresses = append(s.Addresses, scheme+"://"+net.JoinHostPort(a.String(), strconv.Itoa(o.port)))
		}
	}
	return s
}

// Authority is the certificate by which a phone knows this house, as a file to install.
func (g *Gate) Authority() ([]byte, error) {
	if err := g.house.open(); err != nil {
		return nil, err
	}
	return g.house.authority(), nil
}
