package gate

import (
	"crypto"
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/tls"
	"crypto/x509"
	"crypto/x509/pkix"
	"encoding/pem"
	"errors"
	"fmt"
	"io/fs"
	"math/big"
	"net"
	"os"
	"sync"
	"time"
)

// House is the certificate of this maker's house: made once, kept in a file for her alone, and able to vouch for
// nothing but addresses of private networks. With it are signed the certificates that phones are shown, one for each
// address of this computer, made when first asked for.
type House struct {
	file string

	mu    sync.Mutex
	self  *x509.Certificate
	key   crypto.Signer
	shown map[string]*tls.Certificate
}

// How long certificates hold. The house's own doesn't depend on what this computer takes for today, and phones accept
// no other for longer than 398 days.
var (
	houseFrom  = time.Date(2020, 1, 1, 0, 0, 0, 0, time.UTC)
	houseUntil = time.Date(2049, 12, 31, 0, 0, 0, 0, time.UTC)
)

const shownFor = 390 * 24 * time.Hour

// networks are the private ones, and this computer itself.
var networks = func() (out []*net.IPNet) {
	for _, n := range []string{"10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "127.0.0.0/8", "fc00::/7", "::1/128"} {
		_, ip, err := net.ParseCIDR(n)
		if err != nil {
			panic(err)
		}
		out = append(out, ip)
	}
	return out
}()

// open reads the house's certificate, or makes it.
func (h *House) open() error {
	h.mu.Lock()
	defer h.mu.Unlock()
	if h.self != nil {
		return nil
	}
	text, err := os.ReadFile(h.file)
	if errors.Is(err, fs.ErrNotExist) {
		text, err = h.make()
	}
	if err != nil {
		return fmt.Errorf("the certificate of your house can't be kept: %w", err)
	}
	pair, err := tls.X509KeyPair(text, text)
	if err != nil {
		return fmt.Errorf("the certificate of your house is damaged; delete %s and install the new one on your phone: %w",
			h.file, err)
	}
	h.self, h.key, h.shown = pair.Leaf, pair.PrivateKey.(crypto.Signer), map[string]*tls.Certificate{}
	return nil
}

func (h *House) make() ([]byte, error) {
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		return nil, err
	}
	of := &x509.Certificate{SerialNumber: serial(), Subject: pkix.Name{CommonName: "Brevium at home"},
		NotBefore: houseFrom, NotAfter: houseUntil, IsCA: true, BasicConstraintsValid: true, MaxPathLenZero: true,
		KeyUsage: x509.KeyUsageCertSign, PermittedDNSDomainsCritical: true, PermittedIPRanges: networks,
		PermittedDNSDomains: []string{"local"}}
	der, err := x509.CreateCertificate(rand.Reader, of, of, key.Public(), key)
	if err != nil {
		return nil, err
	}
	secret, err := x509.MarshalPKCS8PrivateKey(key)
	if err != nil {
		return nil, err
	}
	text := append(asPEM("CERTIFICATE", der), asPEM("PRIVATE KEY", secret)...)
	return text, os.WriteFile(h.file, text, 0o600)
}

// certificate is what a phone is shown: for the address at which it asks.
func (h *House) certificate(hello *tls.ClientHelloInfo) (*tls.Certificate, error) {
	host, _, err := net.SplitHostPort(hello.Conn.LocalAddr().String())
	if err != nil {
		return nil, err
	}
	h.mu.Lock()
	defer h.mu.Unlock()
	if c := h.shown[host]; c != nil && time.Now().Before(c.Leaf.NotAfter) && time.Now().After(c.Leaf.NotBefore) {
		return c, nil
	}
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		return nil, err
	}
	of := &x509.Certificate{SerialNumber: serial(), Subject: pkix.Name{CommonName: host},
		NotBefore: time.Now().Add(-48 * time.Hour), NotAfter: time.Now().Add(shownFor), IPAddresses: []net.IP{net.ParseIP(host)},
		KeyUsage: x509.KeyUsageDigitalSignature, ExtKeyUsage: []x509.ExtKeyUsage{x509.ExtKeyUsageServerAuth}}
	der, err := x509.CreateCertificate(rand.Reader, of, h.self, key.Public(), h.key)
	if err != nil {
		return nil, err
	}
	leaf, err := x509.ParseCertificate(der)
	if err != nil {
		return nil, err
	}
	c := &tls.Certificate{Certificate: [][]byte{der, h.self.Raw}, PrivateKey: key, Leaf: leaf}
	h.shown[host] = c
	return c, nil
}

// authority is the house's certificate without its key, as phones take it in.
func (h *House) authority() []byte { return asPEM("CERTIFICATE", h.self.Raw) }

func asPEM(kind string, of []byte) []byte {
	return pem.EncodeToMemory(&pem.Block{Type: kind, Bytes: of})
}

func serial() *big.Int {
	n, err := rand.Int(rand.Reader, new(big.Int).Lsh(big.NewInt(1), 120))
	if err != nil {
		panic(err) // there is no chance in this machine
	}
	return n
}
