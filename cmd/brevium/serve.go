package main

import (
	"context"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"time"

	"github.com/spf13/cobra"

	"brevium/core/request"
	"brevium/demo"
	"brevium/desktop"
	"brevium/gate"
	"brevium/machine"
	"brevium/store"
	"brevium/web"
	"brevium/web/desk"
)

// databaseVariable names the environment variable for the database's place.
const databaseVariable = "BREVIUM_DB"

func serveCommand() *cobra.Command {
	var address, database, cutter string
	var names []string
	c := &cobra.Command{
		Use: "serve", Short: "Open your own boxes in a browser on this computer", Args: cobra.NoArgs,
		Long: "Open your own boxes in a browser.\n\nBy default only this computer can reach them. With --listen 0.0.0.0:8417, phones and " +
			"tablets in the\nsame network can too, once “brevium passphrase” has set a passphrase. The traffic is not encrypted: use\n" +
			"it at home, or behind a proxy that encrypts.",
		RunE: func(c *cobra.Command, _ []string) error {
			database, err := orOwn(database)
			if err != nil {
				return err
			}
			machine, err := machineAt(cutter)
			if err != nil {
				return err
			}
			return serve(c.Context(), address, database, names, machine, nil)
		},
	}
	listenFlag(c, &address)
	databaseFlag(c, &database)
	c.Flags().StringVar(&cutter, "machine", "", "address of a cutting machine, such as http://127.0.0.1:8418")
	c.Flags().StringSliceVar(&names, "name", nil, "another name of this computer in the network, such as shed.local")
	return c
}

func demoCommand() *cobra.Command {
	var address string
	c := &cobra.Command{
		Use: "demo", Short: "Open made-up boxes, in a database that is deleted when you stop", Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			dir, err := os.MkdirTemp("", "brevium-demo-")
			if err != nil {
				return err
			}
			defer os.RemoveAll(dir)
			cutter, stop, err := startMachine("127.0.0.1:0")
			if err != nil {
				return err
			}
			defer stop()
			return serve(c.Context(), address, filepath.Join(dir, "demo.db"), nil, cutter, demo.Fill)
		},
	}
	listenFlag(c, &address)
	return c
}

func backupCommand() *cobra.Command {
	var database string
	c := &cobra.Command{
		Use: "backup FILE", Short: "Copy the whole database to a new file", Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			database, err := orOwn(database)
			if err != nil {
				return err
			}
			if _, err := os.Stat(database); err != nil {
				return fmt.Errorf("there is no database at %s yet", database)
			}
			s, err := store.Open(c.Context(), database)
			if err != nil {
				return err
			}
			defer s.Close()
			return s.Backup(c.Context(), args[0])
		},
	}
	databaseFlag(c, &database)
	return c
}

func restoreCommand() *cobra.Command {
	var database string
	var passphrase bool
	c := &cobra.Command{
		Use: "restore FILE", Short: "Put a copy that backup made in the database's place", Args: cobra.ExactArgs(1),
		Long: "Put a copy that backup made in the database's place.\n\nThe copy is read whole first. What was there is kept " +
			"beside it, with its log.\nThe passphrase stays that of the database there was, unless you ask for the copy's.\n" +
			"Stop Brevium before.",
		RunE: func(c *cobra.Command, args []string) error {
			database, err := orOwn(database)
			if err != nil {
				return err
			}
			kept, err := store.Restore(c.Context(), args[0], database, passphrase)
			if err != nil {
				return err
			}
			fmt.Fprintf(c.OutOrStdout(), "%s is in place at %s\n", args[0], database)
			if kept != "" {
				fmt.Fprintf(c.OutOrStdout(), "What was there is kept as %s\n", kept)
			}
			return nil
		},
	}
	c.Flags().BoolVar(&passphrase, "passphrase", false, "take the copy's passphrase too")
	databaseFlag(c, &database)
	return c
}

// orOwn gives the database named, or the user's own.
func orOwn(database string) (string, error) {
	if database != "" {
		return database, nil
	}
	return desktop.Database()
}

func listenFlag(c *cobra.Command, address *string) {
	c.Flags().StringVar(address, "listen", "127.0.0.1:8417", "address and port to listen on; port 0 takes a free one")
}

func databaseFlag(c *cobra.Command, database *string) {
	c.Flags().StringVar(database, "db", os.Getenv(databaseVariable),
		"database file; also "+databaseVariable+"; by default in your data directory")
}

func serve(ctx context.Context, address, database string, names []string, cutter *machine.Client,
	fill func(context.Context, *store.Store) error) error {
	s, err := store.Open(ctx, database)
	if err != nil {
		return err
	}
	defer s.Close()
	hosts, guarded, err := listening(ctx, s, address, names)
	if err != nil {
		return err
	}
	log := slog.New(slog.NewTextHandler(os.Stderr, nil))
	if fill != nil {
		if err := fill(ctx, s); err != nil {
			return err
		}
	} else {
		defer copying(ctx, s, log)()
	}
	listener, err := net.Listen("tcp", address)
	if err != nil {
		return fmt.Errorf("can't listen on %s: %w; choose another with --listen", address, err)
	}
	return serveOn(ctx, listener, s, log, desk.Beside{Machine: cutter, Hosts: hosts, Guarded: guarded}, func(at string) error {
		fmt.Printf("Brevium is at %s\nIts boxes are in %s\n", at, database)
		if cutter != nil {
			fmt.Printf("Its cutting machine is at %s\n", cutter.Base)
		}
		fmt.Println("Stop it with Ctrl C.")
		return nil
	})
}

// serveOn serves the pages of a store until it is told to end, by a signal or on a page, and tells when they are there.
// Where nobody is asked who it is, this is its maker's own computer, and she may open the gate to her phone.
func serveOn(ctx context.Context, listener net.Listener, s *store.Store, log *slog.Logger, beside desk.Beside,
	told func(address string) error) error {
	ctx, end := context.WithCancel(ctx)
	defer end()
	asking, letGo := context.WithCancel(context.WithoutCancel(ctx))
	defer letGo()
	address := "http://" + listener.Addr().String()
	if !beside.Guarded {
		home := &desk.Home{Computer: desktop.This, Gate: gate.New(filepath.Join(filepath.Dir(s.File()), "house.pem")),
			Close: end, Address: address}
		defer home.Gate.Close()
		beside.Home = home
	}
	handler, err := web.New(s, request.Default, log, beside)
	if err != nil {
		return err
	}
	server := func() *http.Server { return served(handler, log, asking) }
	if beside.Home != nil {
		beside.Home.Gate.Leads(server)
	}
	desk.Ease()
	local := server()
	done := make(chan error, 1)
	go func() { done <- local.Serve(listener) }()
	if err := told(address); err != nil {
		return err
	}
	select {
	case err := <-done:
		return err
	case <-ctx.Done():
	}
	stop(local, letGo)
	return nil
}

// served is a server of the pages, whose requests end when asking does.
func served(pages http.Handler, log *slog.Logger, asking context.Context) *http.Server {
	server := &http.Server{Handler: pages, ErrorLog: slog.NewLogLogger(log.Handler(), slog.LevelWarn),
		BaseContext: func(net.Listener) context.Context { return asking }}
	desk.Timeouts(server)
	return server
}

// grace is how long pages may take to come to their end by themselves when the
// server stops; those that take longer are told that nobody waits any more.
const grace = 2 * time.Second

func stop(server *http.Server, letGo func()) {
	for _, end := range []func(){letGo, func() { server.Close() }} {
		wait, cancel := context.WithTimeout(context.Background(), grace)
		err := server.Shutdown(wait)
		cancel()
		if err == nil {
			return
		}
		end()
	}
}
