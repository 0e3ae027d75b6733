package main

import (
	"bytes"
	"context"
	"database/sql"
	"fmt"
	"io"
	"log/slog"
	"mime/multipart"
	"net"
	"net/http"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"brevium/core/brief"
	"brevium/desktop"
	"brevium/store"
)

// opened is a Brevium that its maker opened, and the pages that her browser was shown.
type opened struct {
	*own
	t     *testing.T
	pages chan string
	ended chan error
}

func openOf(t *testing.T, ctx context.Context, database string, port int) *opened {
	t.Helper()
	o := &opened{t: t, pages: make(chan string, 9), ended: make(chan error, 1)}
	o.own = &own{database: database, log: slog.New(slog.DiscardHandler), port: port,
		openPage: func(at string) error { o.pages <- at; return nil }}
	go func() { o.ended <- o.run(ctx) }()
	return o
}

// page is what her browser is shown next, and what stands there.
func (o *opened) page() (address, text string) {
	o.t.Helper()
	select {
	case address = <-o.pages:
	case err := <-o.ended:
		o.t.Fatalf("it ended with no page: %v", err)
	case <-time.After(20 * time.Second):
		o.t.Fatal("no page was opened")
	}
	r, err := http.Get(address)
	if err != nil {
		o.t.Fatal(err)
	}
	defer r.Body.Close()
	all, err := io.ReadAll(r.Body)
	if err != nil {
		o.t.Fatal(err)
	}
	return address, strings.Join(strings.Fields(string(all)), " ")
}

func (o *opened) ends() {
	o.t.Helper()
	select {
	case err := <-o.ended:
		if err != nil {
			o.t.Errorf("it ended with %v", err)
		}
	case <-time.After(20 * time.Second):
		o.t.Fatal("it did not end")
	}
}

func press(t *testing.T, address string, pairs ...string) {
	t.Helper()
	v := url.Values{}
	for i := 0; i+1 < len(pairs); i += 2 {
		v.Set(pairs[i], pairs[i+1])
	}
	r, err := http.PostForm(address, v)
	if err != nil {
		t.Fatal(err)
	}
	r.Body.Close()
	if r.StatusCode >= 400 {
		t.Errorf("%s: %s", address, r.Status)
	}
}

// give chooses a file on the page that says why Brevium can't start.
func give(t *testing.T, address string, data []byte) {
	t.Helper()
	var body bytes.Buffer
	form := multipart.NewWriter(&body)
	part, _ := form.CreateFormFile("copy", "backup.db")
	part.Write(data)
	form.Close()
	r, err := http.Post(address, form.FormDataContentType(), &body)
	if err != nil {
		t.Fatal(err)
	}
	r.Body.Close()
	if r.StatusCode != http.StatusOK {
		t.Errorf("a file is sent: %s", r.Status)
	}
}

func origin(address string) string {
	return address[:len("http://")+strings.Index(address[len("http://"):], "/")]
}

// freePort is one that nobody listens at now.
func freePort(t *testing.T) int {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	defer l.Close()
	return l.Addr().(*net.TCPAddr).Port
}

// Opened a second time, Brevium shows the first. A port that another program has is passed by, and told. It closes by its
// button, and what was kept stays.
func TestOpenedTwice(t *testing.T) {
	database, port := filepath.Join(t.TempDir(), "boxes.db"), freePort(t)
	other, err := net.Listen("tcp", fmt.Sprintf("127.0.0.1:%d", port))
	if err != nil {
		t.Skip(err)
	}
	defer other.Close()
	one := openOf(t, t.Context(), database, port)
	at, text := one.page()
	if !strings.HasSuffix(at, "?said=moved") || origin(at+"/") == "http://"+other.Addr().String() {
		t.Errorf("it is at %s", at)
	}
	if !strings.Contains(text, "rogram") && !strings.Contains(text, "Welcome") {
		t.Errorf("it says %.300s", text)
	}
	two := openOf(t, t.Context(), database, port)
	again, _ := two.page()
	if again != origin(at) {
		t.Errorf("the second shows %s, the first is at %s", again, at)
	}
	two.ends()
	press(t, origin(at)+"/projects", "from", "")
	press(t, origin(at)+"/close")
	one.ends()
	s, err := store.Open(t.Context(), database)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	if n, err := s.Shelf.Count(t.Context(), false); err != nil || n != 1 {
		t.Errorf("%d boxes are kept (%v)", n, err)
	}
}

// A newer Brevium that is opened over a running older one has that close first, with all it kept.
func TestOpenedOverAnOlder(t *testing.T) {
	database := filepath.Join(t.TempDir(), "boxes.db")
	claim, err := desktop.TakeUp(database)
	if err != nil {
		t.Fatal(err)
	}
	asked := make(chan bool, 1)
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	older := &http.Server{Handler: http.HandlerFunc(func(_ http.ResponseWriter, r *http.Request) {
		if r.URL.Path == "/close" {
			asked <- true
			time.AfterFunc(200*time.Millisecond, func() { claim.LetGo() }) // it keeps what it has in hand
		}
	})}
	go older.Serve(l)
	defer older.Close()
	if err := claim.Tell(desktop.Running{Address: "http://" + l.Addr().String(), Build: "an older one"}); err != nil {
		t.Fatal(err)
	}
	o := openOf(t, t.Context(), database, freePort(t))
	at, text := o.page()
	if len(asked) != 1 || !strings.Contains(text, "Welcome") {
		t.Errorf("asked %d times; %s says %.300s", len(asked), at, text)
	}
	press(t, origin(at+"/")+"/close")
	o.ends()
}

// What keeps it from starting is a page that says so, with what can be done: a newer form, a damaged file, a folder that
// may not be written to. A backup that opens is offered, and what was there stays beside it.
func TestTroubleAtStart(t *testing.T) {
	for _, c := range []struct {
		name, says string
		sent       bool
		spoil      func(t *testing.T, file string)
	}{
		{"newer", "newer Brevium", false, func(t *testing.T, file string) {
			db, err := sql.Open("sqlite", file)
			if err != nil {
				t.Fatal(err)
			}
			defer db.Close()
			if _, err := db.Exec(`INSERT INTO goose_db_version (version_id, is_applied) VALUES (9999, 1)`); err != nil {
				t.Fatal(err)
			}
		}},
		{"damaged", "damaged", true, func(t *testing.T, file string) {
			if err := os.WriteFile(file, []byte(strings.Repeat("not a database ", 999)), 0o600); err != nil {
				t.Fatal(err)
			}
		}},
	} {
		t.Run(c.name, func(t *testing.T) {
			file := filepath.Join(t.TempDir(), "boxes.db")
			s, err := store.Open(t.Context(), file)
			if err != nil {
				t.Fatal(err)
			}
			if _, err := s.Boxes.Create(t.Context(), brief.New("in"), "new"); err != nil {
				t.Fatal(err)
			}
			if err := s.Backup(t.Context(), file+".daily-2026-11-30"); err != nil {
				t.Fatal(err)
			}
			s.Close()
			c.spoil(t, file)
			spoilt, _ := os.ReadFile(file)
			o := openOf(t, t.Context(), file, freePort(t))
			at, text := o.page()
			if !strings.Contains(text, "Brevium can't start") || !strings.Contains(text, c.says) ||
				!strings.Contains(text, "Open this one") {
				t.Fatalf("it says %.900s", text)
			}
			give(t, at, spoilt[:100])
			for again := 0; !strings.Contains(text, "was not opened: it is damaged or isn"); again++ {
				time.Sleep(50 * time.Millisecond)
				if r, err := http.Get(at); err == nil {
					all, _ := io.ReadAll(r.Body)
					r.Body.Close()
					text = string(all)
				}
				if again > 200 {
					t.Fatalf("after a file that is no backup: %.900s", text)
				}
			}
			backup := file + ".daily-2026-11-30"
			if !c.sent {
				press(t, at, "do", filepath.Base(backup))
			} else if data, err := os.ReadFile(backup); err != nil {
				t.Fatal(err)
			} else {
				give(t, at, data)
			}
			at, text = o.page()
			if !strings.Contains(text, "1 box") {
				t.Errorf("the backup shows %.600s", text)
			}
			press(t, origin(at+"/")+"/close")
			o.ends()
			if kept, _ := filepath.Glob(file + ".before-restore-*"); len(kept) == 0 {
				t.Error("what was there is gone")
			} else if data, err := os.ReadFile(kept[0]); err != nil || len(data) != len(spoilt) {
				t.Errorf("of what was there %d bytes are kept of %d (%v)", len(data), len(spoilt), err)
			}
		})
	}
	t.Run("closed", func(t *testing.T) {
		dir := filepath.Join(t.TempDir(), "file")
		if err := os.WriteFile(dir, nil, 0o600); err != nil { // no folder, whoever asks
			t.Fatal(err)
		}
		o := openOf(t, t.Context(), filepath.Join(dir, "boxes.db"), freePort(t))
		at, text := o.page()
		if !strings.Contains(text, "Brevium can't start") {
			t.Errorf("it says %.600s", text)
		}
		press(t, at, "do", "close")
		o.ends()
	})
}

// Where her folder may not be written to, with boxes in it or none, the page says so and what to do; once it may, trying
// again opens them.
func TestNoPermissionAtStart(t *testing.T) {
	disk := t.TempDir()
	mount := func(how ...string) {
		t.Helper()
		if out, err := exec.Command("mount", append(how, disk)...).CombinedOutput(); err != nil {
			t.Skipf("there is no disk to lock: %s", out)
		}
	}
	mount("-t", "tmpfs", "-o", "size=9m", "tmpfs")
	defer exec.Command("umount", "-l", disk).Run()
	for _, boxes := range []int{0, 1} {
		file := filepath.Join(disk, fmt.Sprint("boxes", boxes), "boxes.db")
		if boxes > 0 {
			s, err := store.Open(t.Context(), file)
			if err != nil {
				t.Fatal(err)
			}
			if _, err := s.Boxes.Create(t.Context(), brief.New("in"), "new"); err != nil {
				t.Fatal(err)
			}
			s.Close()
		}
		mount("-o", "remount,ro")
		o := openOf(t, t.Context(), file, freePort(t))
		at, text := o.page()
		for _, says := range []string{"may not write", filepath.Dir(file), "Try again"} {
			if !strings.Contains(text, says) {
				t.Errorf("with %d boxes it doesn't say %q: %.900s", boxes, says, text)
			}
		}
		mount("-o", "remount,rw")
		press(t, at, "do", "again")
		at, text = o.page()
		if want := map[int]string{0: "Welcome", 1: "1 box"}[boxes]; !strings.Contains(text, want) {
			t.Errorf("with %d boxes, once it may: %.600s", boxes, text)
		}
		press(t, origin(at+"/")+"/close")
		o.ends()
	}
}
