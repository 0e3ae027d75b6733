package gate

import (
	"net"
	"net/netip"
	"slices"
)

// Private lists this machine's addresses in private networks, the one it speaks to others from first.
func Private() (out []netip.Addr) {
	all, err := net.InterfaceAddrs()
	if err != nil {
		return nil
	}
	for _, a := range all {
		n, ok := a.(*net.IPNet)
		if !ok {
			continue
		}
		if ip, ok := netip.AddrFromSlice(n.IP); ok && ip.Unmap().IsPrivate() {
			out = append(out, ip.Unmap())
		}
	}
	likely := speaksFrom()
	slices.SortStableFunc(out, func(a, b netip.Addr) int { return rank(a, likely) - rank(b, likely) })
	return out
}

func rank(a, likely netip.Addr) int {
	switch {
	case a == likely:
		return 0
	case a.Is4():
		return 1
	}
	return 2
}

// speaksFrom is the address from which this machine would speak to the world. Nothing is sent to find it.
func speaksFrom() netip.Addr {
	c, err := net.Dial("udp4", "192.0.2.1:9") // an address for examples: nobody's
	if err != nil {
		return netip.Addr{}
	}
	defer c.Close()
	at, _ := netip.ParseAddrPort(c.LocalAddr().String())
	return at.Addr()
}

// private hears those in private networks alone: others are hung up on before they say a word.
type private struct{ net.Listener }

func (p private) Accept() (net.Conn, error) {
	for {
		c, err := p.Listener.Accept()
		if err != nil || near(c.RemoteAddr()) {
			return c, err
		}
		c.Close()
	}
}

// near reports whether an address is of a private network, or of this machine.
func near(a net.Addr) bool {
	at, err := netip.ParseAddrPort(a.String())
	if err != nil {
		return false
	}
	ip := at.Addr().Unmap()
	return ip.IsPrivate() || ip.IsLoopback() || ip.IsLinkLocalUnicast()
}
