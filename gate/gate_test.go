package gate

import (
	"crypto/x509"
	"encoding/pem"
	"errors"
	"net"
	"net/http"
	"net/netip"
	"path/filepath"
	"strings"
	"testing"
	"time"
)

// A code lets one in, for ten minutes by a clock that nobody sets, and says why when it doesn't.
func TestInvites(t *testing.T) {
	at := time.Now()
	v := Invites{now: func() time.Time { return at }}
	is := func(code string, want error) {
		t.Helper()
		if err := v.Good(code); !errors.Is(err, want) {
			t.Errorf("%v, want %v", err, want)
		}
	}
	one, two := v.New(), v.New()
	is("made up", ErrUnknown)
	is(one, nil)
	if one == two || v.Take(one) != nil {
		t.Fatal("the first lets nobody in")
	}
	is(one, ErrUsed)
	at = at.Add(Lasts)
	is(two, nil)
	at = at.Add(time.Second)
	is(two, ErrLate)
	for range 2 * most {
		v.New()
	}
	if len(v.made) > most {
		t.Errorf("%d codes are remembered", len(v.made))
	}
	v.forget()
	is(two, ErrUnknown)
}

// Only those in private networks are heard.
func TestNear(t *testing.T) {
	for address, want := range map[string]bool{"192.168.1.9:1": true, "10.0.0.1:1": true, "[fd00::1]:1": true, "[fe80::1%lo]:1": true,
		"127.0.0.1:1": true, "203.0.113.7:1": false, "[2001:db8::1]:1": false} {
		at, err := net.ResolveTCPAddr("tcp", address)
		if err != nil {
			continue // this machine has no such network
		}
		if near(at) != want {
			t.Errorf("%s is near: %v", address, !want)
		}
	}
}

// The gate opens without a restart, follows the machine to another network, and closes wholly.
func TestGateOpensAndCloses(t *testing.T) {
	g := New(filepath.Join(t.TempDir(), "house.pem"))
	here := []netip.Addr{}
	g.Addresses = func() []netip.Addr { return here }
	g.Leads(func() *http.Server {
		return &http.Server{Handler: http.HandlerFunc(func(_ http.ResponseWriter, r *http.Request) {
			if !Through(r.Context()) {
				t.Error("what comes through the gate isn't marked")
			}
		})}
	})
	if err := g.Open(false); !errors.Is(err, ErrNowhere) {
		t.Errorf("in no network: %v", err)
	}
	here = []netip.Addr{netip.MustParseAddr("127.0.0.2")}
	if err := g.Open(false); err != nil {
		t.Fatal(err)
	}
	was := g.State().First()
	if r, err := http.Get(was); err != nil || r.StatusCode != http.StatusOK {
		t.Error(r, err)
	}
	here = []netip.Addr{netip.MustParseAddr("127.0.0.3")}
	if err := g.open.listen(here); err != nil {
		t.Fatal(err)
	}
	if now := g.State().First(); !strings.HasPrefix(now, "http://127.0.0.3:") {
		t.Errorf("it is at %q", now)
	}
	if heard(was) {
		t.Error("it still listens where the machine no longer is")
	}
	for again := range 200 { // closed also when it has only just been opened
		was := g.State().First()
		g.Close()
		if heard(was) || g.State().Open {
			t.Fatalf("it isn't closed, time %d", again)
		}
		if err := g.Open(false); err != nil {
			t.Fatal(err)
		}
	}
	g.Close()
}

func heard(address string) bool {
	c, err := net.Dial("tcp", strings.TrimPrefix(address, "http://"))
	if err == nil {
		c.Close()
	}
	return err == nil
}

// The house vouches for itself and for no other: its certificate is of no use for the names of the world, and is the same
// after a restart.
func TestHouse(t *testing.T) {
	file := filepath.Join(t.TempDir(), "house.pem")
	g := New(file)
	one, err := g.Authority()
	if err != nil {
		t.Fatal(err)
	}
	two, err := New(file).Authority()
	if err != nil || string(one) != string(two) {
		t.Error("it is another after a restart", err)
	}
	block, _ := pem.Decode(one)
	if block == nil {
		block = &pem.Block{Bytes: one}
	}
	c, err := x509.ParseCertificate(block.Bytes)
	if err != nil {
		t.Fatal(err)
	}
	if !c.IsCA || !c.PermittedDNSDomainsCritical || len(c.PermittedIPRanges)+len(c.PermittedDNSDomains) == 0 {
		t.Errorf("it vouches for anybody: %+v", c)
	}
	for _, r := range c.PermittedIPRanges {
		if r.Contains(net.ParseIP("203.0.113.7")) {
			t.Errorf("it vouches for %v", r)
		}
	}
}

// What a camera reads is the address, whatever its length.
func TestCode(t *testing.T) {
	for _, text := range []string{"http://10.0.0.1:8419/in/ABC", "https://[fd00::1234:5678:9abc:def0]:8419/in/" + strings.Repeat("Q", 40)} {
		svg, err := Code(text)
		if err != nil || !strings.Contains(string(svg), "code-ink") {
			t.Errorf("%s: %v", text, err)
		}
	}
}
