package main

import (
	"context"
	"errors"
	"io"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"brevium/core/brief"
	"brevium/store"
)

// Reading a project ends when it is told to, though nothing comes from the
// input.
func TestPlanStops(t *testing.T) {
	ctx, stop := context.WithCancel(t.Context())
	in, _ := io.Pipe()
	time.AfterFunc(20*time.Millisecond, stop)
	if _, err := input(ctx, "-", in, 1<<20); !errors.Is(err, context.Canceled) {
		t.Errorf("it read on: %v", err)
	}
}

// A server that is stopped lets a page come to its end, and leaves one that
// does not.
func TestServerStops(t *testing.T) {
	asking, letGo := context.WithCancel(t.Context())
	begun, told := make(chan bool), make(chan bool, 1)
	s := httptest.NewUnstartedServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		begun <- true
		<-asking.Done() // as a search does that looks whether anyone waits
		told <- true
	}))
	s.Start()
	go http.Get(s.URL)
	<-begun
	stop(s.Config, letGo)
	select {
	case <-told:
	default:
		t.Error("a slow page was not told that the server stops")
	}
}

// A copy is made and put back by the commands.
func TestBackupAndRestore(t *testing.T) {
	dir := t.TempDir()
	db, copied := filepath.Join(dir, "own.db"), filepath.Join(dir, "copy.db")
	s, err := store.Open(t.Context(), db)
	if err != nil {
		t.Fatal(err)
	}
	s.Boxes.Create(t.Context(), brief.New("in"), "new")
	s.Close()
	for _, step := range []struct {
		args []string
		exit int
	}{
		{[]string{"backup", "--db", db, copied}, 0}, {[]string{"backup", "--db", db, copied}, 2},
		{[]string{"backup", "--db", db, ""}, 2},
		{[]string{"backup", "--db", db, "file:x"}, 2}, {[]string{"backup", "--db", filepath.Join(dir, "none.db"), "x"}, 2},
		{[]string{"restore", "--db", db, copied}, 0}, {[]string{"restore", "--db", db, filepath.Join(dir, "nothing")}, 2},
	} {
		if exit := run(step.args); exit != step.exit {
			t.Errorf("%v: exit %d, want %d", step.args, exit, step.exit)
		}
	}
	left, err := os.ReadDir(dir)
	kept := 0
	for _, f := range left {
		if strings.HasPrefix(f.Name(), "own.db.before-restore-") {
			kept++
		}
	}
	if err != nil || kept != 1 {
		t.Errorf("what was there is kept %d times: %v", kept, left)
	}
}
