// Package store keeps documents and the history of their changes in SQLite: one table of documents and one of
// revisions, for every kind (Kept). What can be worked out from them is kept only where lists need it, and made
// anew when it is stale.
//
// What a call says is kept is on the disk: commits are synchronous, and changes
// that come together share one (writer.go).
package store

import (
	"crypto/rand"
	"encoding/base32"
	"errors"
	"fmt"
	"strings"
)

var (
	// ErrNone says that there is no such document, revision or row.
	ErrNone = errors.New("it doesn't exist")
	// ErrMoved says that the document has changed since the revision that a change was made on.
	ErrMoved = errors.New("this was changed elsewhere meanwhile")
	// ErrArrived says that this very act was done before.
	ErrArrived = errors.New("this has arrived before")
)

// NewID makes an identity that no other has.
func NewID() string {
	var b [10]byte
	rand.Read(b[:])
	return strings.ToLower(base32.StdEncoding.EncodeToString(b[:]))
}

// Say is what to tell of a trouble with the database file.
func Say(err error) (text string, ok bool) {
	t := new(Trouble)
	if errors.As(err, &t) {
		return t.Text, true
	}
	return full, noRoom(err) // on whichever disk
}

// Trouble is something wrong with the database file: what, and what to do.
type Trouble struct {
	Text string
	Err  error
}

func (t *Trouble) Error() string { return fmt.Sprintf("%s (%v)", t.Text, t.Err) }
func (t *Trouble) Unwrap() error { return t.Err }
