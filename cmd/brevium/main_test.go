package main

import (
	"encoding/json"
	"io"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/alexedwards/argon2id"

	"brevium/desktop"
	"brevium/store"
)

// runPlan runs the command plan on a document and gives its exit code and output.
func runPlan(t *testing.T, doc string) (int, string) { return runOn(t, "plan", doc) }

// runOn runs a command on a document.
func runOn(t *testing.T, command, doc string) (int, string) {
	t.Helper()
	file := filepath.Join(t.TempDir(), "box.json")
	if err := os.WriteFile(file, []byte(doc), 0o600); err != nil {
		t.Fatal(err)
	}
	old := os.Stdout
	r, w, err := os.Pipe()
	if err != nil {
		t.Fatal(err)
	}
	os.Stdout = w
	out := make(chan string)
	go func() { data, _ := io.ReadAll(r); out <- string(data) }()
	exit := run([]string{command, file})
	os.Stdout = old
	w.Close()
	return exit, <-out
}

func TestPlanExitCodes(t *testing.T) {
	cases := []struct {
		name, doc string
		exit      int
	}{
		{"a plan that holds", `{"brevium":1,"size":{"length":"5 in","width":"3 1/2 in","depth":"2 in"}}`, 0},
		{"larger than its sheet", `{"brevium":1,"size":{"length":"8 in","width":"8 in","depth":"2 in"},
			"card":{"stock":"cover-216","sheet":"8.5x11"}}`, 1},
		{"impossible", `{"brevium":1,"size":{"length":"5 3/","width":"-1","depth":"1/0"}}`, 1},
		{"nothing goes in", `{"brevium":1}`, 1},
		{"a style of its own", `{"brevium":1,"size":{"length":"90 mm","width":"70 mm","depth":"60 mm"},
			"box":{"style":"gable-cap","options":{"gussets":"pinched"}},"card":{"stock":"kraft-300","sheet":"a3"}}`, 0},
		{"an option of another style", `{"brevium":1,"size":{"length":"5 in","width":"4 in","depth":"2 in"},
			"box":{"style":"flap-box","options":{"roof":"2 in"}}}`, 1},
		{"a list of scores", `{"brevium":1,"box":{"style":"score-list",
			"pieces":[{"name":"base","is":"tray","width":"9 in","height":7.5,"across":"2, 7","down":"2, 5.5"}]}}`, 0},
		{"a list that can't be", `{"brevium":1,"box":{"style":"score-list",
			"pieces":[{"name":"tube","is":"tube","width":"10 in","height":"4 in","across":"3, 5, 7 1/2, 9 1/2"}]}}`, 1},
		{"a list without pieces", `{"brevium":1,"box":{"style":"score-list"}}`, 1},
		{"no document", `hello`, 2},
		{"empty", ``, 2},
		{"an unknown field", `{"brevium":1,"glitter":true}`, 2},
		{"a later format", `{"brevium":7}`, 2},
	}
	for _, c := range cases {
		exit, out := runPlan(t, c.doc)
		if exit != c.exit {
			t.Errorf("%s: exit %d, want %d", c.name, exit, c.exit)
		}
		var p struct {
			Problems []struct{ Field, Text, Fix string }
			Proof    struct{ Holds bool }
		}
		if c.exit == 2 {
			if out != "" {
				t.Errorf("%s: printed %q", c.name, out)
			}
			continue
		}
		if err := json.Unmarshal([]byte(out), &p); err != nil || p.Proof.Holds != (c.exit == 0) {
			t.Errorf("%s: %v, holds %v", c.name, err, p.Proof.Holds)
		}
		if c.name == "impossible" && len(p.Problems) != 3 {
			t.Errorf("problems %+v", p.Problems)
		}
	}
	if exit := run([]string{"plan", filepath.Join(t.TempDir(), "none.json")}); exit != 2 {
		t.Errorf("a missing file: exit %d", exit)
	}
	if exit := run([]string{"frobnicate"}); exit != 2 {
		t.Errorf("an unknown command: exit %d", exit)
	}
}

// Beyond this machine Brevium is served only where a passphrase is set, and then it is asked.
func TestListening(t *testing.T) {
	file := filepath.Join(t.TempDir(), "x.db")
	s, err := store.Open(t.Context(), file)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	beyond := []string{"0.0.0.0:80", ":8417", "192.0.2.1:80", "[::]:80", "example:80"}
	check := func(set bool) {
		t.Helper()
		for _, a := range []string{"127.0.0.1:0", "localhost:80", "[::1]:8417", "127.9.9.9:1"} {
			if _, guarded, err := listening(t.Context(), s, a, nil); err != nil || guarded {
				t.Errorf("%s: %v %v", a, guarded, err)
			}
		}
		for _, a := range beyond {
			hosts, guarded, err := listening(t.Context(), s, a, []string{"shed.local"})
			if set && (err != nil || !guarded || !slices.Contains(hosts, "shed.local") || len(hosts) < 5) ||
				!set && (err == nil || !strings.Contains(err.Error(), "passphrase")) {
				t.Errorf("%s: %v %v %v", a, hosts, guarded, err)
			}
		}
	}
	check(false)
	if _, _, err := startMachine("0.0.0.0:0"); err == nil || !strings.Contains(err.Error(), "other machines") {
		t.Errorf("the machine listens beyond: %v", err)
	}
	if _, _, err := listening(t.Context(), s, "nonsense", nil); err == nil {
		t.Error("an address without a port was taken")
	}
	say := func(said string, more ...string) error {
		c := passphraseCommand()
		c.SetIn(strings.NewReader(said))
		c.SetOut(io.Discard)
		c.SetArgs(append([]string{"--db", file}, more...))
		return c.ExecuteContext(t.Context())
	}
	for _, bad := range []string{"", "short\n", strings.Repeat("x", 201) + "\n"} {
		if say(bad) == nil {
			t.Errorf("%.20q was taken for a passphrase", bad)
		}
	}
	check(false)
	if err := say("four kraft paper tags\n"); err != nil {
		t.Fatal(err)
	}
	hash, _ := s.Setting(t.Context(), store.Passphrase)
	if ok, err := argon2id.ComparePasswordAndHash("four kraft paper tags", hash); !ok || err != nil || strings.Contains(hash, "kraft") {
		t.Error(hash, err)
	}
	check(true)
	if err := say("", "--forget"); err != nil {
		t.Fatal(err)
	}
	check(false)
}

func TestOwnDatabase(t *testing.T) {
	t.Setenv("XDG_DATA_HOME", "/somewhere/data")
	if got, err := desktop.Database(); err != nil || got != "/somewhere/data/brevium/brevium.db" {
		t.Error(got, err)
	}
	t.Setenv("XDG_DATA_HOME", "")
	t.Setenv("HOME", "/home/tansy")
	if got, err := desktop.Database(); err != nil || got != "/home/tansy/.local/share/brevium/brevium.db" {
		t.Error(got, err)
	}
}

// How many fit, as a command: in a size, without one, and where nothing is to be counted.
func TestMost(t *testing.T) {
	const tin = `{"id":"tin","name":"tin","shape":"cylinder","diameter":"40 mm","height":"30 mm","count":%}`
	for _, c := range []struct {
		doc, want string
		exit      int
	}{
		{`{"brevium":1,"units":"mm","contents":[` + strings.Replace(tin, "%", "2", 1) + `],"card":{"sheet":"8x8"}}`,
			`{"thing":"tin","size":null,"sheet":`, 0},
		{`{"brevium":1,"units":"mm","contents":[` + strings.Replace(tin, "%", "9", 1) + `],"card":{"sheet":"a4"},
			"size":{"length":"130 mm","width":"90 mm","depth":"35 mm"}}`, `{"thing":"tin","size":6,"sheet":`, 1},
		{`{"brevium":1,"size":{"length":"5 in","width":"3 1/2 in","depth":"2 in"}}`, `{"thing":null,"size":null,"sheet":0}`, 0},
		{`hello`, "", 2},
	} {
		if exit, out := runOn(t, "most", c.doc); exit != c.exit || !strings.HasPrefix(out, c.want) {
			t.Errorf("exit %d, %s for %s", exit, out, c.doc)
		}
	}
}
