package desktop

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"os"
	"time"

	"github.com/gofrs/flock"
)

// Running says of the Brevium that serves a database where its pages are, and which Brevium it is.
type Running struct {
	Address string `json:"address"`
	Build   string `json:"build"`
}

// Claim is held by the one Brevium that serves a database. The system lets it go when the program ends, however it does.
type Claim struct {
	lock *flock.Flock
	file string
}

// ErrRunning says that another Brevium serves the database.
var ErrRunning = errors.New("another Brevium is serving these boxes")

// TakeUp claims a database for this program; ErrRunning when another has it.
func TakeUp(database string) (*Claim, error) {
	lock := flock.New(database + ".lock")
	got, err := lock.TryLock()
	if err != nil {
		return nil, err
	}
	if !got {
		return nil, ErrRunning
	}
	c := &Claim{lock, database + ".running"}
	return c, removed(c.file) // of one that ended without a word
}

// TakeUpAfter is that, once another has let go of it: before the context ends.
func TakeUpAfter(ctx context.Context, database string) (*Claim, error) {
	for {
		c, err := TakeUp(database)
		if !errors.Is(err, ErrRunning) {
			return c, err
		}
		select {
		case <-ctx.Done():
			return nil, err
		case <-time.After(50 * time.Millisecond):
		}
	}
}

// Tell notes where this program's pages are, for whoever starts a second one.
func (c *Claim) Tell(r Running) error {
	text, err := json.Marshal(r)
	if err != nil {
		return err
	}
	return written(c.file, string(text), 0o600)
}

// LetGo ends the claim.
func (c *Claim) LetGo() error { return errors.Join(removed(c.file), c.lock.Close()) }

// First is the Brevium that serves a database. One that is still starting says so within the context's time.
func First(ctx context.Context, database string) (Running, error) {
	for {
		text, err := os.ReadFile(database + ".running")
		if err == nil {
			var r Running
			if err = json.Unmarshal(text, &r); err == nil {
				return r, nil
			}
		}
		select {
		case <-ctx.Done():
			return Running{}, fmt.Errorf("%w, and doesn't say where: %w", ErrRunning, err)
		case <-time.After(50 * time.Millisecond):
		}
	}
}

// AskToClose asks a running Brevium to close: what it is keeping, it keeps first.
func (r Running) AskToClose(ctx context.Context) error {
	ask, err := http.NewRequestWithContext(ctx, http.MethodPost, r.Address+"/close", bytes.NewReader(nil))
	if err != nil {
		return err
	}
	ask.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	answer, err := http.DefaultClient.Do(ask)
	if err != nil {
		return err
	}
	answer.Body.Close()
	if answer.StatusCode >= 300 {
		return fmt.Errorf("it answered %s", answer.Status)
	}
	return nil
}
