// Package sets makes several boxes that belong together: a plan of each, what follows from the box before it, whether
// they go together, one layout for all; and the job, which is all that is made at the bench in one go.
package sets

import (
	"context"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"brevium/core/advice"
	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/cutting"
	"brevium/core/fold"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
)

// Kind is a way in which several boxes belong together.
type Kind struct{ ID, Title, Why string }

// SetKinds lists them; the first is the default.
var Kinds = []Kind{
	{"companions", "Companions", "Several boxes side by side, each its own size."},
	{"stack", "A stack", "Each stands on the one before it, and is no larger."},
	{"nest", "A nest", "Each fits inside the next, with its lid on."},
	{"cluster", "A cluster", "The others are stuck to the sides of the first, which can still be opened."},
}

// Set is several boxes that belong together: a plan for each, what is to be said of them all, and one layout.
type Set struct {
	*brief.Report
	Brief   brief.Brief
	Kind    string
	Names   []string
	Members []brief.Brief // each box as a document of its own, with what follows from the others
	Plans   []*plan.Plan
	Checks  []fold.Check // of how they belong together
	Layouts []Laid
	Places  []fold.Vec // where each stands when they are together, in millimetres
	Cost    int64

	sticks []stuck // of a cluster: how each box is stuck to the first

	step measure.Length
	Sets int // how many of the set are made
}

// Laid is what is cut from one kind of sheet of one card.
type Laid struct {
	cutting.Cut
	Of *plan.Plan // a box of it
}

// Make plans every box of a set, and the set.
func Make(b brief.Brief, w request.Workshop) *Set {
	return makeSet(b, func(_ int, m brief.Brief) *plan.Plan { return advice.Make(m, w) })
}

// MakeFor is Make for one who looks at the nth box: remedies are looked for only there.
func MakeFor(b brief.Brief, n int, w request.Workshop) *Set {
	return makeSet(b, func(i int, m brief.Brief) *plan.Plan {
		if i == n {
			return advice.Make(m, w)
		}
		return advice.Warned(plan.Make(m, w), w)
	})
}

// SoonFor is MakeFor without what must be searched for; it reports whether there was nothing to search.
func SoonFor(b brief.Brief, n int, w request.Workshop) (s *Set, whole bool) {
	s = makeSet(b, func(i int, m brief.Brief) (p *plan.Plan) {
		if p = plan.Make(m, w); i != n {
			return advice.Warned(p, w)
		}
		p, whole = advice.Soon(p, w)
		return p
	})
	return s, whole
}

// Member gives the nth box of a set as a document of its own, with what follows from the boxes before it.
func Member(b brief.Brief, n int, w request.Workshop) brief.Brief {
	b.Several.Boxes = b.Several.Boxes[:n+1]
	s := begun(b)
	for i := range n + 1 {
		m := s.member(i)
		if i == n {
			return m
		}
		p := &plan.Plan{Table: cutting.Table{Request: &request.Request{Report: &brief.Report{}}}}
		if s.follows(i + 1) {
			p = plan.Make(m, w)
		}
		s.Names, s.Plans = append(s.Names, string(m.Name)), append(s.Plans, p)
	}
	return b
}

// begun reads what is said of a set as a whole.
func begun(b brief.Brief) *Set {
	r := brief.NewReader(&b)
	s := &Set{Report: r.Report, Brief: b, Kind: string(b.Several.Kind)}
	if s.Kind == "" {
		s.Kind = Kinds[0].ID
	}
	if !slices.ContainsFunc(Kinds, func(k Kind) bool { return k.ID == s.Kind }) {
		r.Problem("set.kind", fmt.Sprintf("A set can't be %q.", s.Kind), "Choose companions, stack, nest or cluster.",
			"set.kind", Kinds[0].ID)
		s.Kind = Kinds[0].ID
	}
	if b.Several.Step != "" && s.Kind == "stack" {
		s.step, _ = r.Length("set.step", b.Several.Step)
	}
	if s.Sets, _ = r.Count("copies", b.Copies, request.MostCopies); b.Several.Copies != "" {
		s.Sets, _ = r.Count("set.copies", b.Several.Copies, request.MostCopies)
	}
	return s
}

// makeSet plans the boxes side by side; one that follows from the box before it is planned after that.
func makeSet(b brief.Brief, planned func(i int, m brief.Brief) *plan.Plan) *Set {
	s := begun(b)
	n := len(b.Several.Boxes)
	s.Members, s.Names, s.Plans = make([]brief.Brief, n), make([]string, n), make([]*plan.Plan, n)
	var begins []int
	for i := range b.Several.Boxes {
		if !s.follows(i) {
			begins = append(begins, i)
		}
	}
	advice.Together(context.Background(), len(begins), func(k int) {
		for i := begins[k]; i == begins[k] || i < len(s.Plans) && s.follows(i); i++ {
			m := s.member(i)
			s.Members[i], s.Names[i] = m, string(m.Name)
			if n, err := strconv.Atoi(strings.TrimSpace(string(m.Copies))); err == nil && s.Sets > 0 {
				m.Copies = brief.Whole(strconv.Itoa(n * s.Sets))
			}
			s.Plans[i] = planned(i, m)
		}
	})
	if !s.OK() {
		return s
	}
	s.stand()
	s.loads()
	s.belong()
	s.lay()
	return s
}

// follows reports whether a box follows from the one before it, having neither size nor contents of its own.
func (s *Set) follows(i int) bool {
	return i > 0 && !s.Brief.Several.Boxes[i].Own() && (s.Kind == "nest" || s.Kind == "stack" && s.step > 0)
}

// member gives a box as a document of its own, with what follows from the one before
// it: a step smaller, or round it.
func (s *Set) member(i int) brief.Brief {
	m := s.Brief.Member(i)
	if !s.follows(i) || !s.Plans[i-1].OK() {
		return m
	}
	before := s.Plans[i-1]
	text := func(l measure.Length) brief.Text { return brief.Text(l.Exact(before.Units)) }
	switch {
	case s.Kind == "stack":
		d := before.Box.Size
		m.Contents, m.Arrange = nil, brief.Arrange{}
		m.Size = &brief.Size{Length: text(d.Length - s.step), Width: text(d.Width - s.step), Depth: text(d.Depth)}
	default:
		o := before.Box.Outside
		m.Size, m.Arrange = nil, brief.Arrange{}
		m.Contents = []brief.Item{{ID: "1", Name: brief.Text("the " + s.Names[i-1]), Shape: "block", Length: text(o.Length),
			Width: text(o.Width), Height: text(o.Depth), Count: "1", Upright: "yes"}}
		m.Room = brief.Room{Around: text(nestRoom.Up(before.Step.Size)), Padding: "0", Below: "0",
			Above: text(nestRoom.Up(before.Step.Size))}
	}
	return m
}

// nestRoom is the air round a box in the next one, on each side.
const nestRoom = measure.Millimetre

// OK reports whether there is a box of every member.
func (s *Set) OK() bool {
	return len(s.Problems) == 0 && !slices.ContainsFunc(s.Plans, func(p *plan.Plan) bool { return !p.OK() })
}

// Holds reports whether every check holds, of each box and of the set.
func (s *Set) Holds() bool {
	return s.OK() && assembly.Said(s.Checks) == "" && !slices.ContainsFunc(s.Plans, func(p *plan.Plan) bool { return !p.Holds() })
}

// lay lays all pieces out together, by card and sheet.
func (s *Set) lay() {
	type kind struct{ card, sheet string }
	pieces := map[kind][]layout.Piece{}
	var order []kind
	of := map[kind]Laid{}
	for i, p := range s.Plans {
		for n, all := range cutting.ByCard(p.ToLay(p.Box, p.Copies)) {
			cut := p.Cuts[n]
			k := kind{cut.Card.ID, cut.Sheet.ID}
			if of[k].Of == nil {
				of[k], order = Laid{cutting.Cut{Card: cut.Card, Sheet: cut.Sheet}, p}, append(order, k)
			}
			for _, piece := range all {
				piece.Name = s.Names[i] + ": " + piece.Name
				pieces[k] = append(pieces[k], piece)
			}
		}
	}
	for _, k := range order {
		l := of[k]
		l.Layout = layout.Fit(pieces[k], l.Sheet.Width, l.Sheet.Height)
		l.Cut.Proved = len(l.TooBig) == 0 && len(l.Sheets) <= l.Bound
		for i := range l.Layout.Sheets {
			l.Layout.Sheets[i].Stock, l.Layout.Sheets[i].Title = l.Card.ID, l.Sheet.Title
		}
		s.Layouts, s.Cost = append(s.Layouts, l), s.Cost+l.Card.Cost(l.Sheet, len(l.Sheets))
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

// Tasks are what of all boxes of a set is to be cut, a card each.
func (s *Set) Tasks() []cutting.Task {
	return cutting.Together(plan.Tables(s.Plans), s.Names, s.Plans[0].Cutting)
}

// Asked reports whether the set's document says how its sheets are to be cut, and it can be.
func (s *Set) Asked() bool {
	return s.OK() && s.Plans[0].Cutting.Asked && !slices.ContainsFunc(s.Layouts, func(l Laid) bool { return len(l.TooBig) > 0 })
}

// CutAsAsked lays the sheets of a set as its document asks.
func (s *Set) CutAsAsked() *Set {
	if !s.Asked() {
		return s
	}
	return s.Cut(cutting.Search(s.Tasks(), nil))
}

// Cut is the set, cut as was found.
func (s *Set) Cut(found []cutting.Found) *Set {
	of := map[string]*plan.Plan{}
	for _, l := range s.Layouts {
		of[l.Card.ID] = l.Of
	}
	cut := *s
	cut.Layouts, cut.Cost = nil, 0
	for _, c := range cutting.Cuts(found) {
		cut.Layouts, cut.Cost = append(cut.Layouts, Laid{c, of[c.Card.ID]}), cut.Cost+c.Cost()
	}
	return &cut
}

// Proved reports whether no arrangement of all boxes takes less.
func (s *Set) Proved() bool {
	return !slices.ContainsFunc(s.Layouts, func(l Laid) bool { return !l.Cut.Proved })
}
