package schedule

import (
	"cmp"
	"math"
	"slices"
)

// state is a course of the work as far as it has come.
type state struct {
	day, at int // now
	stage   int // that is set up in this sitting, -1 for none
	late    int
	spent   int
	left    int
	ready   []moment // of each order: when its next work may begin
	steps   []int    // of each group: how far it has come
	before  *state
	did     []item
}

type moment struct{ day, at int }

func (m moment) compare(o moment) int {
	return cmp.Or(cmp.Compare(m.day, o.day), cmp.Compare(m.at, o.at))
}

func (r *run) begin() *state { return &state{stage: -1, ready: make([]moment, len(r.Orders))} }

// do adds a work of an order to a course, and tells where it comes if anybody asks.
func (r *run) do(s *state, it item, tell func(Chunk)) {
	w := r.Orders[it.order].Work[it.n]
	rest, setup := r.took[it.order][it.n], r.setup(w.Stage)
	by := r.by[it.order]
	if it.pause && s.at > 0 {
		s.day, s.at, s.stage = s.day+1, 0, -1
	}
	for rest > 0 {
		if s.day >= len(r.free) {
			s.late, s.left, s.at = s.late+rest, s.left+rest, s.at+rest
			break
		}
		if s.at >= r.free[s.day] {
			s.day, s.at, s.stage = s.day+1, 0, -1
			continue
		}
		begin, idle := moment{s.day, s.at}, 0
		if ready := s.ready[it.order]; ready.compare(begin) > 0 {
			if ready.day > s.day { // it waits till another day
				s.day, s.at, s.stage = s.day+1, 0, -1
				continue
			}
			idle = ready.at - s.at
		}
		set := setup
		if s.stage == w.Stage {
			set = 0
		}
		idle = max(0, idle-set) // one sets up while one waits
		room := r.free[s.day] - s.at - idle - set
		if room <= 0 {
			s.day, s.at, s.stage = s.day+1, 0, -1
			continue
		}
		m := min(rest, room)
		c := Chunk{Day: s.day, At: s.at + idle, Order: it.order, Stage: w.Stage, Setup: set, Minutes: m, Idle: idle}
		s.at += idle + set + m
		s.spent, s.stage, rest = s.spent+idle+set+m, w.Stage, rest-m
		s.late += after(by, c, r.waitAfter(it))
		if tell != nil {
			tell(c)
		}
	}
	s.ready[it.order] = moment{s.day, s.at + w.Wait}
	if it.n == len(r.Orders[it.order].Work)-1 {
		s.ready[it.order] = moment{} // nothing of it waits any more
	}
}

// waitAfter is the wait after a work where that is the last before what is filled last.
func (r *run) waitAfter(it item) int {
	o := r.Orders[it.order]
	if o.Last == nil || it.n < len(o.Work)-1 {
		return 0
	}
	return o.Work[it.n].Wait
}

// after is how many minutes of a chunk are done after a date.
func after(by deadline, c Chunk, wait int) int {
	end := c.At + c.Setup + c.Minutes
	switch {
	case c.Day > by.day:
		return c.Minutes
	case c.Day < by.day || by.at == math.MaxInt:
		return 0
	}
	return min(c.Minutes, max(0, end+wait-by.at))
}

// follow does a course of the work as it is given.
func (r *run) follow(course []item, l *last) Result {
	s := r.begin()
	var chunks []Chunk
	for _, it := range course {
		r.do(s, it, func(c Chunk) {
			if n := len(chunks) - 1; n >= 0 && c.Idle+c.Setup == 0 && chunks[n].Order == c.Order && chunks[n].Stage == c.Stage &&
				chunks[n].Day == c.Day {
				chunks[n].Minutes += c.Minutes
				return
			}
			chunks = append(chunks, c)
		})
	}
	res := Result{Chunks: append(chunks, l.chunks...), Late: s.late + l.late, Left: s.left + l.left, Spent: s.spent + l.spent,
		End: r.gone(s), course: course}
	slices.SortStableFunc(res.Chunks, func(a, b Chunk) int { return moment{a.Day, a.At}.compare(moment{b.Day, b.At}) })
	return res
}

// gone is how many minutes of sittings a state has used or let pass.
func (r *run) gone(s *state) (sum int) {
	for _, m := range r.free[:min(s.day, len(r.free))] {
		sum += m
	}
	return sum + s.at
}

func (r *run) simple(l *last) Result {
	var course []item
	for _, i := range r.byDate(false) {
		for n := range r.Orders[i].Work {
			course = append(course, item{order: i, n: n})
		}
	}
	return r.follow(course, l)
}

// group is the orders of one date: their works by stage.
type group struct {
	stages [][]item
	left   []int // the stage that each of them is
}

// few is how many states of the work are looked through one by one: how far each order has come.
const few = 1500

// singles gives every order by itself, where there are so few that all courses can be gone through.
func (r *run) singles() (out []group, ok bool) {
	states := 1
	for i, o := range r.Orders {
		if len(o.Work) == 0 {
			continue
		}
		var g group
		for n, w := range o.Work {
			g.left, g.stages = append(g.left, w.Stage), append(g.stages, []item{{order: i, n: n}})
		}
		if states *= len(o.Work) + 1; states > r.few {
			return nil, false
		}
		out = append(out, g)
	}
	return out, true
}

// groups gathers the orders by the day their work must be done, the nearest first.
func (r *run) groups() (out []group) {
	order := r.byDate(false)
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(r.by[a].day, r.by[b].day) })
	day := 0
	for k, i := range order {
		if k == 0 || r.by[i].day != day {
			day, out = r.by[i].day, append(out, group{})
		}
		g := &out[len(out)-1]
		for n, w := range r.Orders[i].Work {
			at, known := slices.BinarySearch(g.left, w.Stage)
			if !known {
				g.left, g.stages = slices.Insert(g.left, at, w.Stage), slices.Insert(g.stages, at, nil)
			}
			g.stages[at] = append(g.stages[at], item{order: i, n: n})
		}
	}
	return out
}

// dues reports whether a later group may be taken on: none before it may be less far.
func dues(groups []group, s *state, k int) bool {
	next := groups[k].left[s.steps[k]]
	for i := range k {
		if s.steps[i] < len(groups[i].left) && groups[i].left[s.steps[i]] <= next {
			return false
		}
	}
	return true
}

// The most courses that are kept: of those that came equally far, and in all on each level,
// by how much there is to look through.
const (
	mostAlike = 6
	effort    = 24_000
	allAlike  = 30 // where every order is by itself
)

// search looks for the best course of the work.
func (r *run) search(l *last) (Result, bool) {
	groups, all := r.singles()
	if !all {
		groups = r.groups()
	}
	if len(groups) == 0 {
		return r.follow(nil, l), true
	}
	levels := 0
	for _, g := range groups {
		levels += len(g.left)
	}
	width, most, exact := max(8, effort/(max(1, levels)*len(groups))), mostAlike, all
	if all {
		width, most = few*allAlike, allAlike
	}
	first := r.begin()
	first.steps = make([]int, len(groups))
	level := []*state{first}
	for range levels {
		var next []*state
		alike, keys := map[string][]*state{}, []string(nil) // keys in the order in which they came up
		for _, s := range level {
			for k, g := range groups {
				if s.steps[k] >= len(g.left) || !all && !dues(groups, s, k) {
					continue
				}
				n := s.then(k)
				n.did = g.stages[s.steps[k]]
				for _, it := range n.did {
					r.do(n, it, nil)
				}
				key := n.key()
				if alike[key] == nil {
					keys = append(keys, key)
				}
				kept, full := keep(alike[key], n, most)
				alike[key], exact = kept, exact && !full
			}
		}
		for _, key := range keys {
			next = append(next, alike[key]...)
		}
		slices.SortStableFunc(next, func(a, b *state) int { return a.compare(b) })
		if len(next) > width {
			next, exact = next[:width], false
		}
		level = next
	}
	var course []item
	for s := level[0]; s != nil; s = s.before {
		course = append(slices.Clone(s.did), course...)
	}
	return r.follow(course, l), exact
}

func (s *state) then(k int) *state {
	n := *s
	n.ready, n.steps, n.before = slices.Clone(s.ready), slices.Clone(s.steps), s
	n.steps[k]++
	return &n
}

// key is the same for courses that came equally far and are set up for the same.
func (s *state) key() string {
	b := make([]byte, 0, len(s.steps)+1)
	for _, n := range s.steps {
		b = append(b, byte(n))
	}
	return string(append(b, byte(s.stage+1)))
}

// compare puts courses in an order that hangs on nothing but themselves.
func (s *state) compare(o *state) int {
	return cmp.Or(cmp.Compare(s.late, o.late), moment{s.day, s.at}.compare(moment{o.day, o.at}), cmp.Compare(s.spent, o.spent),
		slices.Compare(o.steps, s.steps), cmp.Compare(s.stage, o.stage), slices.CompareFunc(s.ready, o.ready, moment.compare))
}

// beats reports whether whatever comes after a course can as well come after another.
func (s *state) beats(o *state) bool {
	now := moment{s.day, s.at}
	if s.late > o.late || now.compare(moment{o.day, o.at}) > 0 {
		return false
	}
	for i := range s.ready {
		// What may begin before now may begin now.
		if s.ready[i].compare(o.ready[i]) > 0 && s.ready[i].compare(now) > 0 {
			return false
		}
	}
	return true
}

// keep adds a course to those that came equally far, unless one of them beats it, and says
// whether one had to be given up.
func keep(all []*state, n *state, most int) (kept []*state, full bool) {
	for _, s := range all {
		if s.beats(n) {
			return all, false
		}
	}
	all = slices.DeleteFunc(all, func(s *state) bool { return n.beats(s) })
	if len(all) < most {
		return append(all, n), false
	}
	worst := 0
	for i, s := range all {
		if s.compare(all[worst]) > 0 {
			worst = i
		}
	}
	if n.compare(all[worst]) < 0 {
		all[worst] = n
	}
	return all, true
}
