package main

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"os"
	"path/filepath"
	"strings"
	"time"

	"brevium/core/words"
	"brevium/desktop"
	"brevium/store"
	"brevium/web"
	"brevium/web/desk"
)

// Brevium as its maker starts it: by opening the program. It serves her own boxes and opens them in her browser. Started
// again, it opens those of the first; and nobody looks at a terminal, so what goes wrong is a page.

// usualPort is where Brevium is; where another program is there, the next free one is taken.
const usualPort = 8417

// patience is how long one Brevium waits for another to say where it is, or to end.
const patience = 10 * time.Second

// own is a Brevium that its maker opened.
type own struct {
	database string
	quietly  bool // started at login: no page is opened
	log      *slog.Logger
	openPage func(address string) error
	port     int
}

func openOwn(ctx context.Context, database string, quietly bool) error {
	o := &own{database: database, quietly: quietly, log: slog.New(slog.NewTextHandler(os.Stderr, nil)),
		openPage: desktop.OpenPage, port: usualPort}
	if os.Getenv("BREVIUM_BROWSER") == "none" { // for tests, and for who opens pages another way
		o.openPage = func(string) error { return nil }
	}
	return o.run(ctx)
}

func (o *own) run(ctx context.Context) error {
	for {
		again, err := o.once(ctx)
		if !again {
			return err
		}
	}
}

// once serves until it is closed. Where it can't start it shows why, and gives whether to try again.
func (o *own) once(ctx context.Context) (again bool, err error) {
	claim, first, err := o.claim(ctx)
	if first != "" {
		fmt.Println("Brevium is running already, at", first)
		return false, o.show(first)
	}
	if err != nil {
		return o.troubled(ctx, err)
	}
	defer claim.LetGo()
	s, err := store.Open(ctx, o.database)
	if err != nil {
		return o.troubled(ctx, err)
	}
	defer s.Close()
	listener, moved, err := listenNear(o.port)
	if err != nil {
		return o.troubled(ctx, err)
	}
	defer copying(ctx, s, o.log)()
	return false, serveOn(ctx, listener, s, o.log, desk.Beside{Hosts: ownHosts}, func(at string) error {
		if err := claim.Tell(desktop.Running{Address: at, Build: desk.Build()}); err != nil {
			return err
		}
		fmt.Printf("Brevium is at %s\nIts boxes are in %s\n", at, o.database)
		if o.quietly {
			return nil
		}
		return o.show(at + map[bool]string{true: "/?said=moved"}[moved])
	})
}

// claim takes the boxes up for this program. Where another Brevium has them, it gives that one's address; but an older
// or newer one is asked to end first: the program was replaced while it ran.
func (o *own) claim(ctx context.Context) (c *desktop.Claim, first string, err error) {
	if err := os.MkdirAll(filepath.Dir(o.database), 0o700); err != nil {
		return nil, "", fmt.Errorf("can't make the folder for your boxes: %w", err)
	}
	c, err = desktop.TakeUp(o.database)
	if !errors.Is(err, desktop.ErrRunning) {
		return c, "", err
	}
	wait, cancel := context.WithTimeout(ctx, patience)
	defer cancel()
	r, err := desktop.First(wait, o.database)
	if err != nil {
		return nil, "", err
	}
	if r.Build == desk.Build() {
		return nil, r.Address, nil
	}
	if err := r.AskToClose(wait); err == nil {
		if c, err = desktop.TakeUpAfter(wait, o.database); err == nil {
			return c, "", nil
		}
	}
	return nil, "", errors.New("another version of Brevium is still running and doesn't close; close it (or restart the " +
		"computer), then try again")
}

// listenNear listens on this computer alone, at a port or the first free one after it.
func listenNear(port int) (l net.Listener, moved bool, err error) {
	for p := port; p < port+20; p++ {
		if l, err = net.Listen("tcp", fmt.Sprintf("127.0.0.1:%d", p)); err == nil {
			return l, p != port, nil
		}
	}
	if l, err = net.Listen("tcp", "127.0.0.1:0"); err != nil {
		err = fmt.Errorf("this computer lets no program show pages, not even to itself; a security program may forbid it: %w", err)
	}
	return l, true, err
}

// ownHosts are the names under which this computer asks itself.
var ownHosts = []string{"127.0.0.1", "localhost", "::1"}

// show opens a page in her browser. Where there is none, a window says where the page is.
func (o *own) show(address string) error {
	if err := o.openPage(address); err != nil {
		o.log.Warn("no browser opened", "err", err)
		desktop.Say("Brevium is running. Open your browser and type this address: " + address)
	}
	return nil
}

// troubled shows why Brevium can't start, and does what she chooses.
func (o *own) troubled(ctx context.Context, why error) (again bool, err error) {
	o.log.Error("Brevium can't start", "err", why)
	problem := ""
	for {
		t := &web.Trouble{Text: o.troubleSays(why), Problem: problem, TakesBackup: store.ABackupHelps(why)}
		if t.TakesBackup {
			for _, c := range store.CopiesBeside(o.database) {
				if store.Readable(ctx, filepath.Join(filepath.Dir(o.database), c.Name)) == nil {
					t.Copies = append(t.Copies, c)
				}
			}
		}
		chosen, err := o.choice(ctx, t)
		if err != nil {
			desktop.Say(t.Text)
			return false, why
		}
		if chosen.Backup != "" {
			if err = o.openBackup(ctx, chosen); err != nil {
				o.log.Warn("a backup was not opened", "err", err)
				says, ok := store.Say(err)
				if problem = says; !ok {
					problem = "That backup was not opened: " + strings.TrimSuffix(err.Error(), ".") + "."
				}
				continue
			}
		}
		o.quietly = !chosen.Again && o.quietly
		return !chosen.Close, nil
	}
}

// choice shows the page that says why Brevium can't start, until something is chosen on it.
func (o *own) choice(ctx context.Context, t *web.Trouble) (web.Choice, error) {
	handler, err := t.Handler(ownHosts...)
	if err != nil {
		return web.Choice{}, err
	}
	listener, _, err := listenNear(o.port)
	if err != nil {
		return web.Choice{}, err
	}
	server := served(handler, o.log, context.WithoutCancel(ctx))
	go server.Serve(listener)
	defer stop(server, func() {})
	if t.Problem == "" { // else the page is open already, and loads itself again
		_ = o.show("http://" + listener.Addr().String())
	}
	select {
	case <-ctx.Done():
		return web.Choice{Close: true}, nil
	case chosen := <-t.Chosen():
		return chosen, nil
	}
}

// openBackup puts a backup in the place of what is there, which stays beside it.
func (o *own) openBackup(ctx context.Context, chosen web.Choice) error {
	from := chosen.Backup
	if chosen.Sent {
		defer os.Remove(from)
	} else {
		from = filepath.Join(filepath.Dir(o.database), from)
	}
	if err := store.Readable(ctx, from); err != nil {
		return err
	}
	_, err := store.Restore(ctx, from, o.database, !chosen.Sent) // a file from elsewhere says nothing of who may come in
	return err
}

// troubleSays is what keeps Brevium from starting, in the maker's words.
func (o *own) troubleSays(err error) string {
	if text, ok := store.SayAtStart(err, o.database); ok {
		return text
	}
	return strings.TrimSuffix(words.Capital(err.Error()), ".") + "."
}
