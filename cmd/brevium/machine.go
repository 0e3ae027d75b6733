package main

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"net"
	"net/http"
	"net/url"
	"time"

	"github.com/spf13/cobra"

	"brevium/machine"
)

// bed is how large a sheet the simulated machine takes, in millimetres, and pace how much faster
// it runs than a real one, so that nobody waits for it.
var bed = machine.Bed{W: 330, H: 450}

const machinePace = 8

func machineCommand() *cobra.Command {
	var address string
	c := &cobra.Command{
		Use: "machine", Short: "Run the simulated cutting machine by itself", Args: cobra.NoArgs,
		Long: "Run the simulated cutting machine by itself; “brevium demo” starts one too.\n\nIt reads HPGL and plain G-code over " +
			"HTTP. docs/machine.md describes how, so that a real machine can replace it.",
		RunE: func(c *cobra.Command, _ []string) error {
			cutter, stop, err := startMachine(address)
			if err != nil {
				return err
			}
			defer stop()
			fmt.Printf("The cutting machine is at %s\nStop it with Ctrl C.\n", cutter.Base)
			<-c.Context().Done()
			return nil
		},
	}
	c.Flags().StringVar(&address, "listen", "127.0.0.1:8418", "address and port to listen on; port 0 takes a free one")
	return c
}

// startMachine runs a simulated machine at an address of this machine alone.
func startMachine(address string) (*machine.Client, func(), error) {
	if _, own, err := hostOf(address); err != nil || !own {
		return nil, nil, cmp.Or(err, fmt.Errorf("it won't listen on %q: other machines could reach it; use 127.0.0.1", address))
	}
	l, err := net.Listen("tcp", address)
	if err != nil {
		return nil, nil, fmt.Errorf("the cutting machine can't listen on %s: %w; choose another with --listen", address, err)
	}
	server := &http.Server{Handler: machine.New(bed, machinePace, time.Now).Handler(), ReadHeaderTimeout: 5 * time.Second,
		ReadTimeout: 15 * time.Second, WriteTimeout: 15 * time.Second, MaxHeaderBytes: 16 << 10}
	go server.Serve(l)
	stop := func() {
		ctx, cancel := context.WithTimeout(context.Background(), grace)
		defer cancel()
		if server.Shutdown(ctx) != nil {
			server.Close()
		}
	}
	return &machine.Client{Base: "http://" + l.Addr().String()}, stop, nil
}

// machineAt is the machine at an address that was given; nil when none was.
func machineAt(address string) (*machine.Client, error) {
	if address == "" {
		return nil, nil
	}
	u, err := url.Parse(address)
	if err != nil || u.Scheme != "http" && u.Scheme != "https" || u.Host == "" {
		return nil, errors.New("--machine takes an address such as http://127.0.0.1:8418")
	}
	return &machine.Client{Base: address}, nil
}
