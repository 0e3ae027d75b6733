package machine

import (
	"bytes"
	"encoding/xml"
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"
)

// square is a job: a score across, a hole, a rim.
const square = `IN;CO "test";CO "SHEET 100 80";IP0,0,4000,4000;SC0,100000,0,100000;
SP1;PU10000,40000;PD90000,40000;SP2;PU30000,30000;PD40000,30000,40000,35000,30000,35000,30000,30000;
PU10000,10000;PD90000,10000,90000,70000,10000,70000,10000,10000;PU0,0;SP0;`

const squareG = "(test)\n(SHEET 100 80)\nG21\nG90\nG0 Z3\nT1 M6\nF2400\nG0 X10 Y40\nG1 Z0\nG1 X90 Y40\nG0 Z3\nT2 M6\nG0 X30 Y30\n" +
	"G1 Z0\nG1 X40\nG1 Y35\nG1 X30\nG1 Y30\nG0 Z3\nG0 X10 Y10\nG1 Z0\nG1 X90 Y10\nG1 X90 Y70\nG1 X10 Y70\nG1 X10 Y10\nG0 Z3\nM2\n"

func read(t *testing.T, job string) Program {
	t.Helper()
	p, err := ReadHPGL([]byte(job))
	if strings.HasPrefix(job, "(") {
		p, err = ReadGCode([]byte(job))
	}
	if err != nil {
		t.Fatal(err)
	}
	return p
}

// Both notations of a job are the same strokes, whatever units and ways of counting they use.
func TestReaders(t *testing.T) {
	want := read(t, square)
	if len(want.Strokes) != 3 || want.Strokes[0].Tool != Scorer || want.Strokes[2].Long() != 280 || want.W != 100 || want.Name != "test" {
		t.Fatalf("%+v", want)
	}
	inches := strings.NewReplacer("G21", "G20", "X10 Y40", "X.3937007874 Y1.5748031496", "X90 Y40", "X3.5433070866 Y1.5748031496").
		Replace(squareG[:strings.Index(squareG, "T2")]) + "M2\n"
	for name, job := range map[string]string{"G-code": squareG, "inches": inches,
		"semicolons": strings.ReplaceAll(squareG, "\n", " ; (as it is\n"),
		"own units":  `SP1;PU400,1600;PD3600,1600;`,
		"relative":   `SP1;PA400,1600;PR;PD3200,0;PU;`,
		"small, one": `sp1;pu400,1600;pd2000,1600,3600,1600`} {
		got := read(t, job)
		a, b := want.Strokes[0].Points, got.Strokes[0].Points
		if a[0].from(b[0]) > 1e-6 || a[1].from(b[len(b)-1]) > 1e-6 || got.Strokes[0].Tool != Scorer {
			t.Errorf("%s: %v, not %v", name, b, a)
		}
	}
}

func TestJobsThatAreRefused(t *testing.T) {
	bed := Bed{330, 450}
	for _, c := range []struct{ job, why string }{
		{`SP1;PU0,0;PD99999999,0;`, "a place on the bed"}, {`SP1;PU1;`, "two numbers"}, {`PD4,4;`, "no tool"},
		{`SP1;PD4,4,8,8;AA1,1,9;`, "doesn't know it"},
		{`SC1,1,2,3;`, "no pair is alike"}, {`IP0,0,0,9;`, "lie apart"}, {`SP1;PUx,y;`, "isn't a number"},
		{"(no end\n", "without its end"}, {"(a)\nG2 X1 Y1\n", "doesn't know G2"}, {"(a)\nX1\n", "without G0"}, {"(a)\nG1 Z0\n", "no tool"},
		{"(a)\nG0 Xnan\n", "a letter and a number"}, {"(a)\nQ1\n", "doesn't know Q"}, {"(a)\nG0 X1e9\n", "know E"},
	} {
		_, err := ReadHPGL([]byte(c.job))
		if strings.HasPrefix(c.job, "(") {
			_, err = ReadGCode([]byte(c.job))
		}
		if err == nil || !strings.Contains(err.Error(), c.why) {
			t.Errorf("%q: %v, not %q", c.job, err, c.why)
		}
	}
	rim := `PU400,400;PD3600,400,3600,2800,400,2800,400,400;`
	for _, c := range []struct{ job, why string }{
		{``, "nothing to score"},
		{`SP1;PU0,0;PD4000,0;` + strings.ReplaceAll(rim, "3600", "36000"), "leaves the sheet"},
		{`CO "SHEET 500 500";SP1;PU0,0;PD4000,0;`, "cut it smaller first"},
		{`CO "SHEET 50 50";SP1;PU0,0;PD4000,0;`, "leaves the sheet"},
		{`SP2;` + rim + `SP1;PU0,0;PD4000,0;`, "Score first"},
		{`SP2;` + rim + `PU1200,1200;PD1600,1200;`, "Cut everything inside"},
		{`SP2;PU400,400;PD3600,400,3600,2800;PU3600,2800;PD400,2800,400,400;PU1200,1200;PD1600,1200;`, "Cut everything inside"},
		{`CO "SHEET 90 70";SP2;PU3600,2000;PD2000,2000,2000,2800;PU2800,2400;PD3000,2400;`, "Cut everything inside"},
		{`CO "SHEET 90 70";SP2;PU0,1000;PD3600,1000;PU1200,400;PD1200,600,1300,600,1300,400,1200,400;`, "Cut everything inside"},
		{`SP3;PU0,0;PD4,4;`, "asks for tool 3"},
		{`CO "NOT PROVED, don't cut this: it is too large";SP1;PU0,0;PD4000,0;`, "must not be cut"},
	} {
		if why := strings.Join(read(t, c.job).Check(bed), " "); !strings.Contains(why, c.why) {
			t.Errorf("%q: %q, not %q", c.job, why, c.why)
		}
	}
}

// What the formats say of units and tools: IN begins anew, DF gives the unit up, SC names the
// corners wherever IP puts them, a tool that is changed while it is down goes on from there.
func TestUnitsAndTools(t *testing.T) {
	for job, want := range map[string]Point{
		`IP0,0,4000,4000;SC0,100,0,100;SP1;PU0,0;PD50,20;`:               {50, 20},
		`SC0,100,0,100;IP0,0,2000,8000;SP1;PU0,0;PD50,20;`:               {25, 40},
		`IP400,0,4400,4000;SC0,100,0,100;SP1;PU0,0;PD50,20;`:             {60, 20},
		`SC0,100,0,100;IN;SP1;PU0,0;PD400,800;`:                          {10, 20},
		`SC0,100,0,100;DF;SP1;PU0,0;PD400,800;`:                          {10, 20},
		`IP0,0,2000,2000;DF;SC0,100,0,100;SP1;PU0,0;PD50,20;`:            {25, 10},
		`IP0,0,2000,2000;IN;SC0,100,0,100;SP1;PU0,0;PD50,20;`:            {50, 20},
		`SC0,100,0,100;SC;SP1;PU0,0;PD400,800;`:                          {10, 20},
		"(a)\nG0 X1 Y1\nT1 M6\nG1 Z0\nG1 X5\nT2 M6\nG1 X10 Y20\nG0 Z3\n": {10, 20},
	} {
		p := read(t, job)
		last := p.Strokes[len(p.Strokes)-1]
		if got := last.Points[len(last.Points)-1]; got.from(want) > 1e-9 {
			t.Errorf("%q ends at %v, not %v", job, got, want)
		}
		if strings.HasPrefix(job, "(") && (len(p.Strokes) != 2 || last.Tool != Knife || last.Points[0] != (Point{5, 1})) {
			t.Errorf("%q: %v", job, p.Strokes)
		}
	}
}

// What is cut as it should be is taken: slits before rims, a rim after another that shares a cut
// with it, halves of a sheet one after the other.
func TestGoodOrders(t *testing.T) {
	for _, job := range []string{
		`CO "SHEET 90 70";SP2;PU1200,1200;PD1600,1200;PU400,400;PD3600,400,3600,2800,400,2800,400,400;`,
		`CO "SHEET 90 70";SP2;PU0,1000;PD3600,1000;PU1200,1000;PD1200,0;PU2400,1000;PD2400,2800;`,
		`CO "SHEET 90 70";SP2;PU400,400;PD1600,400,1600,1600,400,1600,400,400;PU1600,400;PD2800,400,2800,1600,1600,1600;` +
			`PU2900,500;PD3100,500;`,
	} {
		if why := read(t, job).Check(Bed{330, 450}); len(why) > 0 {
			t.Errorf("%q: %v", job, why)
		}
	}
}

// hostile jobs are as large as a job may be, of what takes a reader long.
var hostile = map[string]func() string{
	"comments": func() string { return strings.Repeat("()", MostBytes/2) },
	"open":     func() string { return strings.Repeat("(", MostBytes) },
	"closed": func() string {
		var b strings.Builder
		b.WriteString("SP2;")
		for i := range 90_000 {
			fmt.Fprintf(&b, "PU%d,%d;PD%d,%[2]d,%[3]d,%[4]d,%[1]d,%[2]d;", i%300*30, i/300*30, i%300*30+20, i/300*30+20)
		}
		return b.String()
	},
	"labels": func() string { return strings.Repeat(`CO "SHEET NaN NaN";`, MostBytes/20) },
}

func TestHostileJobs(t *testing.T) {
	for name, job := range hostile {
		m, _ := clocked()
		p, err := ReadGCode([]byte(job()))
		if name == "closed" || name == "labels" {
			p, err = ReadHPGL([]byte(job()))
		}
		if err == nil {
			err = m.Load(p)
		}
		if (err == nil) != (name == "closed") {
			t.Errorf("%s: %v", name, err)
		}
		w := httptest.NewRecorder()
		m.Handler().ServeHTTP(w, httptest.NewRequest("GET", "/state", nil))
		if !strings.Contains(w.Body.String(), `"phase"`) {
			t.Errorf("%s: the state is %q", name, w.Body)
		}
	}
}

func BenchmarkHostile(b *testing.B) {
	for name, job := range hostile {
		data := []byte(job())
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				if p, err := ReadHPGL(data); err == nil {
					p.Check(Bed{330, 450})
				}
				if p, err := ReadGCode(data); err == nil {
					p.Check(Bed{330, 450})
				}
			}
		})
	}
}

// clocked is a machine whose time a test moves.
func clocked() (*Machine, *time.Time) {
	now := time.Unix(1_800_000_000, 0)
	return New(Bed{330, 450}, 1, func() time.Time { return now }), &now
}

// However often a job is paused, jams or wears out its blade, and whenever: it goes on where it
// stopped, takes no longer than without, and what is drawn in the end is the job.
func TestFaultsLoseNothing(t *testing.T) {
	r := rand.New(rand.NewPCG(13, 131))
	for range 40 {
		m, now := clocked()
		if err := m.Load(read(t, square)); err != nil {
			t.Fatal(err)
		}
		whole := m.State().Left
		if err := m.Do("start"); err != nil {
			t.Fatal(err)
		}
		ran, stops := 0.0, 0
		for m.State().Phase == Running {
			step := r.Float64() * whole / 4
			*now = now.Add(time.Duration(step * float64(time.Second)))
			before := m.State()
			if ran += step; before.Phase != Running {
				break
			}
			if err := m.Do([]string{"pause", "jam", "out"}[r.IntN(3)]); err != nil {
				t.Fatal(err)
			}
			stops++
			*now = now.Add(time.Hour) // nothing goes on meanwhile
			if s := m.State(); s.Seconds != before.Seconds || s.At != before.At || s.Says == "" {
				t.Fatalf("stopped it went from %+v to %+v", before, s)
			}
			if err := m.Do("resume"); err != nil {
				t.Fatal(err)
			}
		}
		s := m.State()
		if s.Phase != Finished || s.Stroke != 3 || math.Abs(s.Seconds-whole) > 1e-6 || ran < whole-1e-6 {
			t.Fatalf("%d stops: %+v after %.1f of %.1f s", stops, s, ran, whole)
		}
		drawn := m.Drawn()
		for i, st := range read(t, square).Strokes {
			if len(drawn) != 3 || drawn[i].Tool != st.Tool || math.Abs(drawn[i].Long()-st.Long()) > 1e-6 {
				t.Fatalf("%d stops: drawn %v", stops, drawn)
			}
		}
	}
}

// What is drawn grows and never goes back; half way along a cut half of it is there.
func TestDrawsAsItRuns(t *testing.T) {
	m, now := clocked()
	m.Load(read(t, square))
	m.Do("start")
	last := 0.0
	for m.State().Phase == Running {
		*now = now.Add(300 * time.Millisecond)
		long := 0.0
		for _, s := range m.Drawn() {
			long += s.Long()
		}
		if long < last {
			t.Fatalf("%.2f mm are drawn, after %.2f", long, last)
		}
		last = long
		if err := xml.Unmarshal([]byte(m.Picture()), new(struct{})); err != nil {
			t.Fatal(err)
		}
	}
	if want := 80.0 + 30 + 280; math.Abs(last-want) > 1e-6 {
		t.Errorf("%.2f mm are drawn in the end, not %.2f", last, want)
	}
	if s := m.State(); s.Works != last || s.Travel <= 0 {
		t.Errorf("%+v", s)
	}
}

// Buttons do something only when they can, and say so.
func TestButtons(t *testing.T) {
	m, _ := clocked()
	for _, b := range []string{"start", "pause", "resume", "jam", "out", "stop", "dance"} {
		if no := new(Refused); !errors.As(m.Do(b), &no) || len(no.Why) != 1 {
			t.Errorf("%s did something on an empty machine", b)
		}
	}
	m.Load(read(t, square))
	m.Do("start")
	if err := m.Load(read(t, square)); err == nil {
		t.Error("a job was taken while another runs")
	}
	if err := m.Do("stop"); err != nil || m.State().Phase != Empty || m.State().Strokes != 0 {
		t.Errorf("%v %+v", err, m.State())
	}
}

// Over HTTP, as docs/machine.md has it.
func TestInterface(t *testing.T) {
	m, now := clocked()
	server := httptest.NewServer(m.Handler())
	defer server.Close()
	c := &Client{Base: server.URL}
	ctx := t.Context()
	if _, err := c.Send(ctx, HPGLType, []byte(`SP2;PD0,0;ZZ;`)); err == nil || !strings.Contains(err.Error(), "can't be read") {
		t.Errorf("%v", err)
	}
	if _, err := c.Send(ctx, "text/plain", []byte(square)); err == nil || !strings.Contains(err.Error(), GCodeType) {
		t.Errorf("%v", err)
	}
	if _, err := c.Send(ctx, HPGLType, bytes.Repeat([]byte("IN;"), MostBytes/3+10)); err == nil || !strings.Contains(err.Error(), "8 MB") {
		t.Errorf("%v", err)
	}
	for kind, job := range map[string]string{HPGLType: square, GCodeType: squareG} {
		s, err := c.Send(ctx, kind, []byte(job))
		if err != nil || s.Phase != Ready || s.Strokes != 3 {
			t.Fatalf("%s: %+v %v", kind, s, err)
		}
	}
	if s, err := c.Press(ctx, "start"); err != nil || s.Phase != Running {
		t.Fatalf("%+v %v", s, err)
	}
	*now = now.Add(6 * time.Second)
	if s, err := c.State(ctx); err != nil || s.Seconds != 6 {
		t.Errorf("%+v %v", s, err)
	}
	if svg, err := c.Picture(ctx); err != nil || !bytes.Contains(svg, []byte("tool")) {
		t.Errorf("%.80s %v", svg, err)
	}
	if _, err := c.Press(ctx, "resume"); err == nil || !strings.Contains(err.Error(), "running") {
		t.Errorf("%v", err)
	}
	r, _ := http.NewRequest("POST", server.URL+"/stop", nil)
	r.Header.Set("Origin", "http://elsewhere.test")
	if a, err := http.DefaultClient.Do(r); err != nil || a.StatusCode != http.StatusForbidden {
		t.Errorf("a page from elsewhere pressed a button: %v", err)
	}
	server.Close()
	if _, err := c.State(ctx); err == nil || !strings.Contains(err.Error(), "is it switched on?") {
		t.Errorf("%v", err)
	}
}

func FuzzJobs(f *testing.F) {
	f.Add(square)
	f.Add(squareG)
	f.Add(`SP1;PD;PD1,1;PR1,1;SC;IP1,2,3,4;CO"x"`)
	f.Fuzz(func(t *testing.T, job string) {
		for _, read := range []func([]byte) (Program, error){ReadHPGL, ReadGCode} {
			p, err := read([]byte(job))
			if err != nil || len(p.Check(Bed{330, 450})) > 0 {
				continue
			}
			m, now := clocked()
			if err := m.Load(p); err != nil {
				t.Fatal(err)
			}
			m.Do("start")
			*now = now.Add(1000 * time.Hour)
			if s := m.State(); s.Phase != Finished || s.Stroke != len(p.Strokes) {
				t.Fatalf("%+v", s)
			}
		}
	})
}
