package machine

import (
	"fmt"
	"math"
	"slices"
	"sort"
	"sync"
	"time"
)

// Speeds are how fast the machine goes, in millimetres a second, and how long it takes to
// change a tool and to set it down, in seconds.
type Speeds struct{ Score, Cut, Travel, Change, Dip float64 }

// Usual is a small machine for the kitchen table.
var Usual = Speeds{Score: 40, Cut: 25, Travel: 120, Change: 4, Dip: 0.15}

// Phase is what the machine is doing.
type Phase string

const (
	Empty    Phase = "empty"
	Ready    Phase = "ready"
	Running  Phase = "running"
	Paused   Phase = "paused"
	Jammed   Phase = "jammed"
	Out      Phase = "out"
	Finished Phase = "finished"
)

// leg is a straight piece of the whole way: in the air, or with a tool down.
type leg struct {
	tool     int
	down     bool
	from, to Point
	stroke   int
	end      float64 // when it ends, in seconds from the beginning
}

// Machine is the simulated machine. It is safe for concurrent use.
type Machine struct {
	bed    Bed
	speeds Speeds
	pace   float64 // how many of its seconds pass in one of ours
	now    func() time.Time

	mu      sync.Mutex
	phase   Phase
	program Program
	legs    []leg
	done    float64 // seconds of its own that are run
	since   time.Time
	says    string
}

// New is a machine with an empty bed; it runs pace times as fast as a real one would.
func New(bed Bed, pace float64, now func() time.Time) *Machine {
	return &Machine{bed: bed, speeds: Usual, pace: pace, now: now, phase: Empty}
}

// legsOf is the way of a program, with the time that each piece of it takes.
func (s Speeds) legsOf(p Program) (out []leg) {
	at, t, tool := Point{}, 0.0, 0
	for i, st := range p.Strokes {
		if st.Tool != tool {
			tool = st.Tool
			t += s.Change
		}
		t += at.from(st.Points[0])/s.Travel + s.Dip
		out = append(out, leg{tool, false, at, st.Points[0], i, t})
		speed := map[bool]float64{true: s.Score, false: s.Cut}[tool == Scorer]
		for k := 1; k < len(st.Points); k++ {
			t += st.Points[k].from(st.Points[k-1]) / speed
			out = append(out, leg{tool, true, st.Points[k-1], st.Points[k], i, t})
		}
		at = st.Points[len(st.Points)-1]
	}
	return out
}

// Refused is why a job is not taken, or a button does nothing now.
type Refused struct {
	Why []string `json:"problems"`
}

func (r *Refused) Error() string { return r.Why[0] }

func refused(format string, args ...any) error {
	return &Refused{[]string{fmt.Sprintf(format, args...)}}
}

// Load takes a job, when the machine is free and nothing is wrong with it.
func (m *Machine) Load(p Program) error {
	if m.busy() {
		return onIt
	}
	if why := p.Check(m.bed); len(why) > 0 { // which may take a while: the machine answers meanwhile
		return &Refused{why}
	}
	legs := m.speeds.legsOf(p)
	m.mu.Lock()
	defer m.mu.Unlock()
	m.tick()
	if m.working() {
		return onIt
	}
	m.program, m.legs, m.done, m.phase, m.says = p, legs, 0, Ready, ""
	return nil
}

var onIt = refused("The machine is busy. Let the job finish, or stop it.")

func (m *Machine) busy() bool {
	m.mu.Lock()
	defer m.mu.Unlock()
	m.tick()
	return m.working()
}

func (m *Machine) working() bool { return m.phase != Empty && m.phase != Ready && m.phase != Finished }

// tick lets the time pass that has gone by.
func (m *Machine) tick() {
	now := m.now()
	if m.phase == Running {
		m.done += now.Sub(m.since).Seconds() * m.pace
		if all := m.all(); m.done >= all {
			m.done, m.phase = all, Finished
		}
	}
	m.since = now
}

func (m *Machine) all() float64 {
	if len(m.legs) == 0 {
		return 0
	}
	return m.legs[len(m.legs)-1].end
}

// Do presses a button: start, pause, resume, stop, or makes a trouble: jam, out.
func (m *Machine) Do(what string) error {
	m.mu.Lock()
	defer m.mu.Unlock()
	m.tick()
	from := map[string][]Phase{"start": {Ready, Finished}, "pause": {Running}, "resume": {Paused, Jammed, Out},
		"stop": {Ready, Running, Paused, Jammed, Out, Finished}, "jam": {Running}, "out": {Running}}
	allowed, known := from[what]
	if !known {
		return refused("There is no button %q: start, pause, resume, stop, jam and out.", what)
	}
	if slices.Contains(allowed, m.phase) {
		m.press(what)
		return nil
	}
	return refused("The machine is %s: %q does nothing now.", m.phase, what)
}

func (m *Machine) press(what string) {
	switch what {
	case "start":
		m.done, m.phase, m.says = 0, Running, ""
	case "resume":
		m.phase, m.says = Running, ""
	case "pause":
		m.phase, m.says = Paused, "Paused. The tool is up; nothing has moved."
	case "jam":
		m.phase, m.says = Jammed, "The card has jammed. Free it without shifting it, and resume: it goes on where it stopped."
	case "out":
		m.phase, m.says = Out, "The blade is worn out. Change it and resume: it goes on where it stopped."
	case "stop":
		m.program, m.legs, m.done, m.phase, m.says = Program{}, nil, 0, Empty, ""
	}
}

// State is what the machine tells of itself.
type State struct {
	Phase   Phase   `json:"phase"`
	Says    string  `json:"says,omitempty"`
	Job     string  `json:"job,omitempty"`
	Strokes int     `json:"strokes"`
	Stroke  int     `json:"stroke"` // how many are done
	Seconds float64 `json:"seconds"`
	Left    float64 `json:"left"`
	Travel  float64 `json:"travel_mm"` // with the tools up
	Works   float64 `json:"works_mm"`  // with one down
	Tool    int     `json:"tool"`
	At      Point   `json:"at"`
	W       float64 `json:"sheet_width,omitempty"`
	H       float64 `json:"sheet_height,omitempty"`
}

// State gives what the machine is doing now.
func (m *Machine) State() State {
	m.mu.Lock()
	defer m.mu.Unlock()
	m.tick()
	s := State{Phase: m.phase, Says: m.says, Job: m.program.Name, Strokes: len(m.program.Strokes), Seconds: m.done,
		Left: m.all() - m.done, W: m.program.W, H: m.program.H}
	for _, l := range m.legs {
		if l.down {
			s.Works += l.to.from(l.from)
		} else {
			s.Travel += l.to.from(l.from)
		}
	}
	n, part := m.where()
	if n < len(m.legs) {
		l := m.legs[n]
		s.Stroke, s.Tool = l.stroke, l.tool
		s.At = Point{l.from.X + part*(l.to.X-l.from.X), l.from.Y + part*(l.to.Y-l.from.Y)}
	} else if n > 0 {
		s.Stroke, s.At = len(m.program.Strokes), m.legs[n-1].to
	}
	return s
}

// where says in which leg the tool is, and how much of that is done.
func (m *Machine) where() (n int, part float64) {
	n = sort.Search(len(m.legs), func(i int) bool { return m.legs[i].end > m.done })
	if n == len(m.legs) {
		return n, 0
	}
	l, began := m.legs[n], 0.0
	if n > 0 {
		began = m.legs[n-1].end
	}
	speed := m.speeds.Travel
	if l.down {
		speed = map[bool]float64{true: m.speeds.Score, false: m.speeds.Cut}[l.tool == Scorer]
	}
	takes := l.to.from(l.from) / speed
	wait := l.end - began - takes // for a tool, and to set it down
	return n, math.Min(1, math.Max(0, (m.done-began-wait)/math.Max(takes, 1e-9)))
}

// Drawn is what the tools have drawn so far.
func (m *Machine) Drawn() (out []Stroke) {
	m.mu.Lock()
	defer m.mu.Unlock()
	m.tick()
	n, part := m.where()
	for i, l := range m.legs[:min(n+1, len(m.legs))] {
		to := l.to
		if i == n {
			to = Point{l.from.X + part*(l.to.X-l.from.X), l.from.Y + part*(l.to.Y-l.from.Y)}
		}
		switch {
		case !l.down:
		case len(out) == 0 || i > 0 && !m.legs[i-1].down:
			out = append(out, Stroke{l.tool, []Point{l.from, to}})
		default:
			last := &out[len(out)-1]
			last.Points = append(last.Points, to)
		}
	}
	return out
}
