package plan

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"brevium/core/assembly"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/style"
	"brevium/core/words"
)

// SetKind is a way in which several boxes belong together.
type SetKind struct{ ID, Title, Why string }

// SetKinds lists them; the first is the default.
var SetKinds = []SetKind{
	{"companions", "Companions", "Several boxes side by side, each as it likes."},
	{"stack", "A stack", "Each stands on the one before it, and is no larger."},
	{"nest", "A nest", "Each goes into the next, with its lid on."},
	{"cluster", "A cluster", "The others stuck to the sides of the first, whose opening stays free."},
}

// Set is several boxes that belong together: a plan for each, what is to be said of
// them all, and one layout.
type Set struct {
	*brief.Report
	Brief   brief.Brief
	Kind    string
	Names   []string
	Members []brief.Brief // each box as a document of its own, with what follows from the others
	Plans   []*Plan
	Checks  []fold.Check // of how they belong together
	Layouts []Laid
	Places  []fold.Vec // where each stands when they are together, in millimetres
	Cost    int64
}

// Laid is what is cut from one kind of sheet of one card.
type Laid struct {
	layout.Layout
	Of *Plan // whose card and sheet it is
}

// MakeSet plans every box of a set, and the set.
func MakeSet(b brief.Brief, w Workshop) *Set {
	r := brief.NewReader(&b)
	s := &Set{Report: r.Report, Brief: b, Kind: string(b.Several.Kind)}
	if s.Kind == "" {
		s.Kind = SetKinds[0].ID
	}
	if !slices.ContainsFunc(SetKinds, func(k SetKind) bool { return k.ID == s.Kind }) {
		r.Problem("set.kind", fmt.Sprintf("A set can't be %q.", s.Kind), "Choose companions, stack, nest or cluster.", "set.kind",
			SetKinds[0].ID)
		s.Kind = SetKinds[0].ID
	}
	var step measure.Length
	if b.Several.Step != "" && s.Kind == "stack" {
		step, _ = r.Length("set.step", b.Several.Step)
	}
	sets := s.sets(r)
	for i := range b.Several.Boxes {
		m := b.Member(i)
		s.derive(&m, i, step)
		s.Members = append(s.Members, m)
		if n, err := strconv.Atoi(strings.TrimSpace(string(m.Copies))); err == nil && sets > 0 {
			m.Copies = brief.Whole(strconv.Itoa(n * sets))
		}
		s.Names, s.Plans = append(s.Names, string(m.Name)), append(s.Plans, Make(m, w))
	}
	if !s.OK() {
		return s
	}
	s.stand()
	s.belong()
	s.lay()
	return s
}

// sets is how many of the set are made.
func (s *Set) sets(r *brief.Reader) int {
	if s.Brief.Several.Copies != "" {
		n, _ := r.Count("set.copies", s.Brief.Several.Copies, MostCopies)
		return n
	}
	n, _ := r.Count("copies", s.Brief.Copies, MostCopies)
	return n
}

// derive gives a box that has neither size nor contents of its own what follows
// from the one before it: a step smaller, or round it.
func (s *Set) derive(m *brief.Brief, i int, step measure.Length) {
	if i == 0 || s.Brief.Several.Boxes[i].Own() || !s.Plans[i-1].OK() {
		return
	}
	before := s.Plans[i-1]
	text := func(l measure.Length) brief.Text { return brief.Text(l.Exact(before.Units)) }
	switch {
	case s.Kind == "stack" && step > 0:
		d := before.Box.Size
		m.Contents, m.Arrange = nil, brief.Arrange{}
		m.Size = &brief.Size{Length: text(d.Length - step), Width: text(d.Width - step), Depth: text(d.Depth)}
	case s.Kind == "nest":
		o := before.Box.Outside
		m.Size, m.Arrange = nil, brief.Arrange{}
		m.Contents = []brief.Item{{ID: "1", Name: brief.Text("the " + s.Names[i-1]), Shape: "block", Length: text(o.Length),
			Width: text(o.Width), Height: text(o.Depth), Count: "1", Upright: "yes"}}
		m.Room = brief.Room{Around: text(nestRoom.Up(before.Step.Size)), Padding: "0", Below: "0",
			Above: text(nestRoom.Up(before.Step.Size))}
	}
}

// nestRoom is the air round a box in the next one, on each side.
const nestRoom = measure.Millimetre

// OK says whether there is a box of every member.
func (s *Set) OK() bool {
	return len(s.Problems) == 0 && !slices.ContainsFunc(s.Plans, func(p *Plan) bool { return !p.OK() })
}

// Holds says whether every check holds, of each box and of the set.
func (s *Set) Holds() bool {
	return s.OK() && assembly.Said(s.Checks) == "" && !slices.ContainsFunc(s.Plans, func(p *Plan) bool { return !p.Holds() })
}

func (s *Set) check(holds bool, name, figure string) {
	unit := s.Plans[0].Step.Unit
	s.Checks = append(s.Checks, fold.Check{Name: name, Holds: holds, Figure: inUnit(figure, unit)})
}

// stand finds where each box stands when they are together.
func (s *Set) stand() {
	z, x := 0.0, 0.0
	for i, p := range s.Plans {
		o := p.Box.Outside
		at := fold.Vec{}
		switch s.Kind {
		case "stack":
			at.Z = z
			z += o.Depth.MM() + 0.1
		case "nest":
			at.Z = z
		case "cluster":
			at = s.beside(i)
		default:
			if i > 0 {
				x += (s.Plans[i-1].Box.Outside.Length+o.Length).MM()/2 + 18
			}
			at.X = x
		}
		s.Places = append(s.Places, at)
	}
	if s.Kind == "nest" { // each stands on the floor of the next
		for i := len(s.Plans) - 2; i >= 0; i-- {
			out := s.Plans[i+1].Box
			s.Places[i].Z = s.Places[i+1].Z + out.Foot + out.Lo.Z
		}
	}
}

// sidesOf are the sides of the first box that others are stuck to, in turn.
var sidesOf = []string{"left", "right", "front", "back"}

// beside is where a box stands at a side of the first.
func (s *Set) beside(i int) fold.Vec {
	if i == 0 {
		return fold.Vec{}
	}
	a, o := s.Plans[0].Box.Outside, s.Plans[i].Box.Outside
	x, y := (a.Length+o.Length).MM()/2, (a.Width+o.Width).MM()/2
	return map[string]fold.Vec{"left": {X: -x}, "right": {X: x}, "front": {Y: -y}, "back": {Y: y}}[sidesOf[(i-1)%4]]
}

// belong checks that the boxes go together as the set says.
func (s *Set) belong() {
	for i := 1; i < len(s.Plans); i++ {
		switch s.Kind {
		case "stack":
			s.stacked(i)
		case "nest":
			s.nested(i)
		case "cluster":
			s.clustered(i)
		}
	}
}

func (s *Set) stacked(i int) {
	low, up := s.Plans[i-1], s.Plans[i]
	x, y := (low.Box.Outside.Length-up.Box.Outside.Length).MM()/2, (low.Box.Outside.Width-up.Box.Outside.Width).MM()/2
	level := low.Box.Above == fold.Flat
	figure := fmt.Sprintf("%.1f mm and %.1f mm inside its edges", max(0, x), max(0, y))
	switch {
	case !level:
		figure = fmt.Sprintf("the %s has no level top to stand on", s.Names[i-1])
	case min(x, y) < -0.05:
		figure = fmt.Sprintf("it stands out by %.1f mm on either side", -min(x, y))
	}
	s.check(level && min(x, y) >= -0.05, fmt.Sprintf("the %s stands on the %s", s.Names[i], s.Names[i-1]), figure)
	if a, b := low.Load.Grams(), up.Load.Grams(); b > a && a > 0 {
		s.Warn(brief.Warning{Code: "heavy-on-top", Text: fmt.Sprintf("The %s holds %.0f g and stands on the %s, which holds %.0f g.",
			s.Names[i], b, s.Names[i-1], a), Fix: "Put the heaviest lowest: change what goes in which."})
	}
}

func (s *Set) nested(i int) {
	in, out := s.Plans[i-1].Box.Outside, s.Plans[i].Box.Inside
	x, y, z := (out.Length - in.Length).MM(), (out.Width - in.Width).MM(), (out.Depth - in.Depth).MM()
	holds := min(x, y, z) >= 0.05 && s.Plans[i].Box.Above == fold.Flat
	figure := fmt.Sprintf("%.1f mm, %.1f mm and %.1f mm of air", max(0, x), max(0, y), max(0, z))
	if min(x, y, z) < 0.05 {
		figure = fmt.Sprintf("%.1f mm are missing", 0.05-min(x, y, z))
	}
	s.check(holds, fmt.Sprintf("the %s goes into the %s with its lid on", s.Names[i-1], s.Names[i]), figure)
}

// clustered checks that a box at a side of the first leaves what opens it free, and
// can be opened itself.
func (s *Set) clustered(i int) {
	side := sidesOf[(i-1)%4]
	name := fmt.Sprintf("the %s at its %s leaves the %s free to open", s.Names[i], side, s.Names[0])
	if i > len(sidesOf) {
		s.check(false, name, "a box has four sides")
		return
	}
	first, other := s.Plans[0].Box, s.Plans[i].Box
	low, far := first.OpensFrom(s.Plans[0].Card.Caliper, side)
	high := other.Outside.Depth.MM()
	wall := map[bool]measure.Length{true: first.Outside.Width, false: first.Outside.Length}[side == "left" || side == "right"]
	long := map[bool]measure.Length{true: other.Outside.Width, false: other.Outside.Length}[side == "left" || side == "right"]
	switch {
	case far:
		s.check(false, name, "it is drawn off to that side")
	case high > low+0.05:
		s.check(false, name, fmt.Sprintf("it is %.1f mm high, and what opens begins at %.1f mm", high, low))
	case long > wall:
		s.check(false, name, fmt.Sprintf("it is %.1f mm longer than that side", (long-wall).MM()))
	default:
		s.check(true, name, fmt.Sprintf("%.1f mm below what opens", min(low-high, 999)))
	}
	back := map[string]string{"left": "right", "right": "left", "front": "back", "back": "front"}[side]
	if lid, drawn := other.OpensFrom(s.Plans[i].Card.Caliper, back); drawn || lid < high-0.05 && other.Covers(s.Plans[i].Card.Caliper, back) {
		s.check(false, fmt.Sprintf("the %s can be opened beside the %s", s.Names[i], s.Names[0]),
			"its lid goes over the wall that is stuck: make it an open tray, or one that opens another way")
	}
}

// lay lays all pieces out together, by card and sheet.
func (s *Set) lay() {
	type kind struct{ card, sheet string }
	pieces := map[kind][]layout.Piece{}
	var order []kind
	of := map[kind]*Plan{}
	for i, p := range s.Plans {
		k := kind{p.Card.ID, p.Sheet.ID}
		if of[k] == nil {
			of[k], order = p, append(order, k)
		}
		for _, piece := range p.toLay(p.Box, p.Copies) {
			piece.Name = s.Names[i] + ": " + piece.Name
			pieces[k] = append(pieces[k], piece)
		}
	}
	for _, k := range order {
		p := of[k]
		l := Laid{layout.Fit(pieces[k], p.Sheet.Width, p.Sheet.Height), p}
		s.Layouts, s.Cost = append(s.Layouts, l), s.Cost+p.Card.Cost(p.Sheet, len(l.Sheets))
	}
}

// Sheets is how many sheets all of it takes.
func (s *Set) Sheets() (n int) {
	for _, l := range s.Layouts {
		n += len(l.Sheets)
	}
	return n
}

// Alone is how many sheets the boxes would take if each were laid out by itself.
func (s *Set) Alone() (n int) {
	for _, p := range s.Plans {
		n += len(p.Layout.Sheets)
	}
	return n
}

// Cards are the score cards of all boxes, each piece under the name of its box.
func (s *Set) Cards() (out []bench.ScoreCard) {
	for i, p := range s.Plans {
		for _, c := range p.Cards {
			c.Piece = s.Names[i] + ": " + c.Piece
			out = append(out, c)
		}
	}
	return out
}

// Steps is the work on all boxes at once: all are cut, then all bases are scored,
// all lids, and so on, and last they are put together.
func (s *Set) Steps() (out []bench.Step) {
	for _, title := range titles {
		step := bench.Step{Title: title}
		most := 0
		var each [][]string
		for _, p := range s.Plans {
			i := slices.IndexFunc(p.Steps, func(o bench.Step) bool { return o.Title == title })
			if i < 0 {
				each = append(each, nil)
				continue
			}
			if !strings.Contains(step.Caution, p.Steps[i].Caution) {
				step.Caution = strings.TrimSpace(step.Caution + " " + p.Steps[i].Caution)
			}
			each, most = append(each, p.Steps[i].Says), max(most, len(p.Steps[i].Says))
		}
		for k := range most {
			step.Says = append(step.Says, s.each(each, k)...)
		}
		if title == "Trim" {
			step.Says = []string{fmt.Sprintf("From %d %s, cut the pieces of all %d boxes together, in the order shown under Sheets.",
				s.Sheets(), map[bool]string{true: "sheet", false: "sheets"}[s.Sheets() == 1], len(s.Plans))}
		}
		if len(step.Says) > 0 {
			out = append(out, step)
		}
	}
	if last := s.together(); last != "" {
		out = append(out, bench.Step{Title: "Put them together", Says: []string{last}})
	}
	return out
}

// each gives the kth sentence of a step for every box that has one; once, when it
// is the same for all.
func (s *Set) each(says [][]string, k int) (out []string) {
	same := true
	for _, of := range says {
		same = same && k < len(of) && of[k] == says[0][min(k, len(says[0])-1)]
	}
	for i, of := range says {
		switch {
		case k >= len(of):
		case same && of[k] == "Inside face up.":
			return []string{of[k]}
		case same:
			return []string{fmt.Sprintf("All %d: %s", len(says), words.Small(of[k]))}
		default:
			out = append(out, words.Capital(s.Names[i])+": "+words.Small(of[k]))
		}
	}
	return out
}

// titles are the steps of the work, in turn.
var titles = []string{"Trim", "Score", "Cut", "Fold and burnish", "Stick", "Dry-fit and close", "Fill", "Close"}

// together tells how the boxes come to each other.
func (s *Set) together() string {
	var says []string
	for i := 1; i < len(s.Names); i++ {
		switch s.Kind {
		case "stack":
			says = append(says, fmt.Sprintf("Set the %s on the %s and hold it with a dot, a ribbon or a little tape.", s.Names[i],
				s.Names[i-1]))
		case "nest":
			says = append(says, fmt.Sprintf("Put the %s, with its lid on, into the %s.", s.Names[i-1], s.Names[i]))
		case "cluster":
			says = append(says, fmt.Sprintf("Stick the %s to the %s of the %s, level with the table.", s.Names[i],
				sidesOf[(i-1)%4], s.Names[0]))
		}
	}
	return strings.Join(says, " ")
}

// Course tells how the boxes come together, a step for each but the first.
func (s *Set) Course() (out []string) {
	for i := 1; i < len(s.Names); i++ {
		out = append(out, map[string]string{
			"stack":      fmt.Sprintf("Set the %s on the %s.", s.Names[i], s.Names[i-1]),
			"nest":       fmt.Sprintf("Put all so far into the %s.", s.Names[i]),
			"cluster":    fmt.Sprintf("Stick the %s to the %s of the %s.", s.Names[i], sidesOf[(i-1)%4], s.Names[0]),
			"companions": fmt.Sprintf("Set the %s beside them.", s.Names[i]),
		}[s.Kind])
	}
	return out
}

// Standing gives every box closed, when so many steps of the course are done: those
// that have not come yet stand in a row beside the first.
func (s *Set) Standing(done float64) (out []assembly.Standing) {
	x := 0.0
	for i, p := range s.Plans {
		o := p.Box.Outside
		if i > 0 {
			x += (s.Plans[i-1].Box.Outside.Length+o.Length).MM()/2 + 18
		}
		st := p.Box.Assemble(p.Card.Caliper, assembly.Closed)
		come := min(1, max(0, done-float64(i-1)))
		if s.Kind == "nest" && i == 0 {
			come = min(1, done)
		}
		at := s.Places[i].Times(come).Add(fold.Vec{X: x}.Times(1 - come))
		at.Z += p.Box.Foot
		if i > 0 { // over what is between
			at.Z += 4 * come * (1 - come) * o.Depth.MM()
		}
		for _, b := range st.Bodies {
			b.Move(at)
		}
		out = append(out, st)
	}
	return out
}

// Outside is how large the set is when it is together.
func (s *Set) Outside() style.Dims {
	var all []*fold.Body
	for _, st := range s.Standing(float64(len(s.Plans))) {
		all = append(all, st.Bodies...)
	}
	lo, hi := fold.Extent(all...)
	size := hi.Sub(lo)
	return style.Dims{Length: measure.FromMM(size.X), Width: measure.FromMM(size.Y), Depth: measure.FromMM(size.Z)}
}
