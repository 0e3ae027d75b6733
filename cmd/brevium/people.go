package main

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"os"
	"strings"
	"time"

	"github.com/spf13/cobra"
	"golang.org/x/term"

	"brevium/store"
	"brevium/web/people"
)

func passphraseCommand() *cobra.Command {
	var database string
	var forget bool
	c := &cobra.Command{
		Use: "passphrase", Short: "Set the passphrase that others must enter", Args: cobra.NoArgs,
		Long: "Set the passphrase for when Brevium listens beyond this computer.\n\nIt is typed twice, or read as one line from " +
			"standard input. Everybody who had signed in must\nenter the new one.",
		RunE: func(c *cobra.Command, _ []string) error {
			database, err := orOwn(database)
			if err != nil {
				return err
			}
			s, err := store.Open(c.Context(), database)
			if err != nil {
				return err
			}
			defer s.Close()
			hash := ""
			if !forget {
				if hash, err = askPassphrase(c); err != nil {
					return err
				}
			}
			if err := errors.Join(s.Set(c.Context(), store.Passphrase, hash), s.EndAll(c.Context())); err != nil {
				return err
			}
			if forget {
				fmt.Fprintln(c.OutOrStdout(), "The passphrase is removed. Brevium listens on this computer only.")
			} else {
				fmt.Fprintln(c.OutOrStdout(), "The passphrase is set.")
			}
			return nil
		},
	}
	databaseFlag(c, &database)
	c.Flags().BoolVar(&forget, "forget", false, "remove the passphrase")
	return c
}

// askPassphrase reads a passphrase and gives it as argon2id writes it.
func askPassphrase(c *cobra.Command) (string, error) {
	said, err := "", error(nil)
	if in, ok := c.InOrStdin().(*os.File); ok && term.IsTerminal(int(in.Fd())) {
		if said, err = typed(c, in, "Passphrase: "); err != nil {
			return "", err
		}
		again, err := typed(c, in, "Once more:  ")
		if err != nil {
			return "", err
		}
		if said != again {
			return "", errors.New("these two differ; nothing was set")
		}
	} else if said, err = bufio.NewReader(c.InOrStdin()).ReadString('\n'); err != nil && said == "" {
		return "", errors.New("no passphrase was given; nothing was set")
	}
	said = strings.TrimRight(said, "\r\n")
	return people.Hash(said)
}

func typed(c *cobra.Command, in *os.File, ask string) (string, error) {
	fmt.Fprint(c.ErrOrStderr(), ask)
	said, err := term.ReadPassword(int(in.Fd()))
	fmt.Fprintln(c.ErrOrStderr())
	return string(said), err
}

// hostOf gives the host of an address, and whether this machine alone can reach it.
func hostOf(address string) (host string, own bool, err error) {
	host, _, err = net.SplitHostPort(address)
	if err != nil {
		return "", false, fmt.Errorf("%q isn't an address to listen on; write it like 127.0.0.1:8417", address)
	}
	ip := net.ParseIP(host)
	return host, host == "localhost" || ip != nil && ip.IsLoopback(), nil
}

// listening says where to listen: who may ask, under which names, and whether the passphrase is
// asked. Beyond this machine there must be one.
func listening(ctx context.Context, s *store.Store, address string, more []string) (hosts []string, guarded bool, err error) {
	host, own, err := hostOf(address)
	if err != nil {
		return nil, false, err
	}
	hosts = append([]string{"127.0.0.1", "localhost", "::1"}, more...)
	if own {
		return append(hosts, host), false, nil
	}
	hash, err := s.Setting(ctx, store.Passphrase)
	if err != nil {
		return nil, false, err
	}
	if hash == "" {
		return nil, false, fmt.Errorf("it won't listen on %q: other machines could reach it and there is no passphrase yet; set one with "+
			"“brevium passphrase”, or use 127.0.0.1", address)
	}
	if ip := net.ParseIP(host); host != "" && (ip == nil || !ip.IsUnspecified()) {
		return append(hosts, host), true, nil
	}
	return append(hosts, ownNames()...), true, nil
}

// ownNames are the names and addresses this machine goes by.
func ownNames() (out []string) {
	if name, err := os.Hostname(); err == nil {
		out = append(out, name, name+".local")
	}
	addresses, err := net.InterfaceAddrs()
	if err != nil {
		return out
	}
	for _, a := range addresses {
		if n, ok := a.(*net.IPNet); ok {
			out = append(out, n.IP.String())
		}
	}
	return out
}

// copying keeps copies of the database as long as Brevium runs, or until it is stopped.
func copying(ctx context.Context, s *store.Store, log *slog.Logger) (stop func()) {
	ctx, end := context.WithCancel(ctx)
	stopped := make(chan struct{})
	go func() { defer close(stopped); daily(ctx, s, log) }()
	return func() { end(); <-stopped }
}

// lookEvery is how often it is looked whether a copy is due.
const lookEvery = 5 * time.Minute

// daily copies the database once a day, beside itself and where its maker wants a copy; a stick is looked for again and
// again.
func daily(ctx context.Context, s *store.Store, log *slog.Logger) {
	for {
		if made, err := s.DailyElsewhere(ctx, false); err != nil && ctx.Err() == nil {
			log.Warn("no backup elsewhere", "err", err)
		} else if made {
			log.Info("a backup elsewhere is made")
		}
		if made, err := s.Daily(ctx); err != nil && ctx.Err() == nil {
			log.Warn("today's backup was not made", "err", err)
		} else if made {
			log.Info("today's backup is made")
		}
		select {
		case <-time.After(lookEvery):
		case <-ctx.Done():
			return
		}
	}
}
