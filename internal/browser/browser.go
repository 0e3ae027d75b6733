// Package browser drives a headless Chromium over Brevium's own pages, for
// tests and for the pictures in docs.
package browser

import (
	"context"
	"fmt"
	"io"
	"log"
	"log/slog"
	"net"
	"net/http"
	"net/http/httptest"
	"net/netip"
	"os"
	"os/exec"
	"path/filepath"
	"time"

	"github.com/chromedp/chromedp"

	"brevium/core/request"
	"brevium/gate"
	"brevium/machine"
	"brevium/store"
	"brevium/web"
	"brevium/web/desk"
)

// machinePace is how fast the cutting machine beside the pages runs: a sheet in a second or two.
const machinePace = 60

// Database is the name of the file that Serve keeps projects in.
const Database = "test.db"

// Find gives the browser's path: Debian's without a window first, which does the same for less.
func Find() (string, error) {
	for _, name := range []string{"chromium-headless-shell", "chromium", "chromium-browser", "google-chrome"} {
		if path, err := exec.LookPath(name); err == nil {
			return path, nil
		}
	}
	return "", fmt.Errorf("no Chromium is installed; ./check installs it")
}

// Start opens a browser of the given size in a fresh profile. The context is
// ended, and the profile removed, by stop.
func Start(parent context.Context, width, height int, more ...chromedp.ExecAllocatorOption) (ctx context.Context, stop func(), err error) {
	path, err := Find()
	if err != nil {
		return nil, nil, err
	}
	dir, err := os.MkdirTemp("", "brevium-browser-")
	if err != nil {
		return nil, nil, err
	}
	options := append(chromedp.DefaultExecAllocatorOptions[:],
		chromedp.ExecPath(path), chromedp.UserDataDir(dir), chromedp.WindowSize(width, height),
		chromedp.NoSandbox, chromedp.DisableGPU, chromedp.NoFirstRun,
		chromedp.Flag("disable-quic", true), chromedp.Flag("disable-background-networking", true),
		chromedp.Flag("disable-component-update", true), chromedp.Flag("disable-sync", true),
		chromedp.Flag("hide-scrollbars", true),
	)
	alloc, endAlloc := chromedp.NewExecAllocator(parent, append(options, more...)...)
	ctx, end := chromedp.NewContext(alloc)
	return ctx, func() { end(); endAlloc(); os.RemoveAll(dir) }, nil
}

// Serve runs the application on a free port over a store in dir. What lies
// between may be put in the way of every request.
func Serve(ctx context.Context, dir string, fill func(context.Context, *store.Store) error,
	between ...func(http.Handler) http.Handler) (address string, stop func(), err error) {
	return serve(ctx, dir, fill, nil, between)
}

// ServeHome runs the application as on its maker's own computer. The home's gate leads to the same pages; where home has
// none yet it is given one that listens at a loopback address of its own, since a test's machine may be in no network.
func ServeHome(ctx context.Context, dir string, fill func(context.Context, *store.Store) error, home *desk.Home) (
	address string, stop func(), err error) {
	if home.Gate == nil {
		home.Gate = gate.New(filepath.Join(dir, "house.pem"))
		home.Gate.Addresses = func() []netip.Addr { return []netip.Addr{netip.MustParseAddr("127.0.0.2")} }
	}
	if home.Close == nil {
		home.Close = func() {}
	}
	return serve(ctx, dir, fill, home, nil)
}

func serve(ctx context.Context, dir string, fill func(context.Context, *store.Store) error, home *desk.Home,
	between []func(http.Handler) http.Handler) (address string, stop func(), err error) {
	s, err := store.Open(ctx, filepath.Join(dir, Database))
	if err != nil {
		return "", nil, err
	}
	if fill != nil {
		if err := fill(ctx, s); err != nil {
			return "", nil, err
		}
	}
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return "", nil, err
	}
	address = "http://" + l.Addr().String()
	if home != nil {
		home.Address = address
	}
	cutter := httptest.NewServer(machine.New(machine.Bed{W: 330, H: 450}, machinePace, time.Now).Handler())
	handler, err := web.New(s, request.Default, slog.New(slog.DiscardHandler), desk.Beside{Machine: &machine.Client{Base: cutter.URL},
		Hosts: []string{"127.0.0.1"}, Home: home})
	if err != nil {
		return "", nil, err
	}
	for _, put := range between {
		handler = put(handler)
	}
	made := func() *http.Server {
		server := &http.Server{Handler: handler, ErrorLog: log.New(io.Discard, "", 0)}
		desk.Timeouts(server)
		return server
	}
	server := made()
	stop = func() { server.Close(); cutter.Close(); s.Close() }
	if home != nil {
		home.Gate.Leads(made)
		stop = func() { home.Gate.Close(); server.Close(); cutter.Close(); s.Close() }
	}
	go server.Serve(l)
	return address, stop, nil
}
