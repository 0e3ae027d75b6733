package least

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"brevium/core/layout"
)

// Result is the best that was found, and what no arrangement can go below.
type Result struct {
	layout.Layout
	Count  int   // sheets that are bought: offcuts are in hand
	Price  int64 // of the sheets that are bought
	Least  int64 // of what the task aims at, in its measure
	Bound  int64 // no arrangement has less
	Proved bool
	Short  []layout.Piece // what there is no sheet left for
}

// Progress tells how far the work is. Better is set when something better was found.
type Progress struct {
	Done, Of int
	Better   *Result
}

// Watch is told now and then, and at each better answer; the work ends when it says false.
type Watch func(Progress) bool

// Solve looks for the least. It refuses only pins that can't be; pieces no sheet takes
// are told in TooBig, and those there are not enough sheets for in Short.
func Solve(t Task, watch Watch) (Result, error) {
	if watch == nil {
		watch = func(Progress) bool { return true }
	}
	j, err := t.join()
	if err != nil {
		return Result{}, err
	}
	s := &solving{Task: j.Task, runs: j, watch: watch}
	p := j.problem()
	s.leaveOut(p)
	frames, err := p.frames()
	if err != nil {
		return Result{}, err
	}
	s.problem, s.search = p, newSearch(p)
	s.search.tick = func() bool { return s.tell(false) }
	s.run(frames)
	r := s.result()
	for _, sheet := range r.Sheets {
		if err := sheet.Check(t.Longest); err != nil {
			return Result{}, fmt.Errorf("nothing was laid out because of a mistake in Brevium: %w", err)
		}
	}
	r.TooBig, r.Short = j.told(s.tooBig), j.told(s.short())
	r.Proved = r.Proved && len(r.Short) == 0
	return r, nil
}

// Check says why a task can't be begun: a run that is none, or pins that can't be.
func (t Task) Check() error {
	j, err := t.join()
	if err != nil {
		return err
	}
	s, p := &solving{Task: j.Task, runs: j}, j.problem()
	s.leaveOut(p)
	_, err = p.frames()
	return err
}

// solving is one call.
type solving struct {
	Task
	runs    joined
	watch   Watch
	stop    bool
	tooBig  []lack
	lacking []lack // of what has its spot, and no sheet left
	*problem
	search *search
	best   *state
	bound  int64
	aside  int // work that is left beside what is being done
}

// run goes from what is quick to what is thorough, and stops where less can't be.
func (s *solving) run(frames []*tree) {
	s.best = s.begin(frames)
	s.tell(true)
	s.bound = s.problem.below()
	if s.proved() {
		s.tidy()
		return
	}
	if s.problem.small() {
		if st, ok := s.problem.exactly(); ok {
			s.bound = st.cost
			s.take(st)
			s.tidy()
			return
		}
	}
	if len(frames) == 0 && s.total >= batch*len(s.kinds) {
		s.byPatterns()
	}
	if !s.proved() && !s.stop {
		s.better()
	}
	s.tidy()
}

func (s *solving) proved() bool { return len(s.best.out) == 0 && s.best.cost <= s.bound }

// begin lays everything by rules, each order and each fit, and keeps the best.
func (s *solving) begin(frames []*tree) (best *state) {
	s.search.steady = true
	defer func() { s.search.steady = false }()
	for _, order := range s.search.orders {
		for fit := range 2 {
			st := s.search.first(frames)
			s.search.order, s.search.fit = order, fit
			s.search.lay(st)
			if best == nil || st.lessThan(best) {
				best = st
			}
			if s.problem.work < s.Work-s.Work/8 {
				return best // there is more to gain by what comes after
			}
		}
	}
	return best
}

// first has everything out but what is pinned.
func (s *search) first(frames []*tree) *state {
	st := &state{opens: make([]int, len(s.sizes))}
	for _, t := range frames {
		st.trees = append(st.trees, t)
		st.opens[t.size]++
		st.cost += s.sizes[t.size].cost
	}
	for k, kind := range s.kinds {
		for range kind.n {
			st.out = append(st.out, int32(k))
		}
		st.area += kind.area * int64(kind.n)
	}
	s.limit = dear
	clear(s.own)
	return st
}

func (s *state) lessThan(o *state) bool {
	return cmp.Or(cmp.Compare(s.area, o.area), cmp.Compare(s.cost, o.cost), cmp.Compare(len(s.trees), len(o.trees))) < 0
}

// take keeps a state if it is better.
func (s *solving) take(st *state) {
	if s.best == nil || st.lessThan(s.best) {
		kept := &state{}
		st.copyTo(kept)
		s.best = kept
		s.tell(true)
	}
}

// tell reports, and notes when it is told to stop.
func (s *solving) tell(better bool) bool {
	if s.stop {
		return false
	}
	at := Progress{Done: max(0, s.Work-max(0, s.problem.work)-s.aside), Of: s.Work}
	if better {
		r := s.result()
		at.Better = &r
	}
	if !s.watch(at) {
		s.stop, s.problem.work = true, 0
	}
	return !s.stop
}

// together is how many sheets are improved at once: of more, those that are filled
// least and others by chance, for a part of the work.
const (
	together = 40
	fewer    = 10 // of a batch, every other time
	partly   = 200_000
	batch    = 3 // copies of a kind, in the mean
)

// better improves what was found, a part of it at a time where there is much.
func (s *solving) better() {
	for s.problem.work > 0 && !s.proved() && !s.stop {
		part, rest := s.some()
		s.search.limit = dear
		had := s.problem.work
		share := had
		if len(rest.trees) > 0 {
			share = min(had, partly)
		}
		s.problem.work, s.aside = share, had-share
		least := s.bound - rest.cost
		s.search.improve(part, least, func(st *state) bool {
			whole := &state{}
			rest.copyTo(whole)
			whole.join(st)
			s.take(whole)
			return !s.stop
		})
		s.problem.work, s.aside = had-(share-max(0, s.problem.work)), 0
		if s.stop {
			s.problem.work = 0
		}
		if !s.tell(false) {
			return
		}
	}
}

// some parts the best into sheets to improve and the rest.
func (s *solving) some() (part, rest *state) {
	part, rest = &state{opens: make([]int, len(s.sizes))}, &state{opens: make([]int, len(s.sizes))}
	order := make([]int, len(s.best.trees))
	for i := range order {
		order[i] = i
	}
	most := together
	if s.total >= batch*len(s.kinds) && s.search.r.IntN(2) == 0 {
		most = fewer
	}
	if len(order) > most*3/2 {
		s.search.r.Shuffle(len(order), func(i, j int) { order[i], order[j] = order[j], order[i] })
		slices.SortStableFunc(order[:len(order)/2], func(a, b int) int {
			return cmp.Compare(s.share(s.best.trees[a]), s.share(s.best.trees[b]))
		})
	}
	for i, b := range order {
		to, t := rest, s.best.trees[b]
		if i < most || len(order) <= most*3/2 {
			to = part
		}
		to.trees, to.cost = append(to.trees, t), to.cost+s.sizes[t.size].cost
		to.opens[t.size]++
	}
	part.out, part.area = slices.Clone(s.best.out), s.best.area
	return part, rest
}

func (s *solving) share(t *tree) float64 { return float64(t.used) / float64(s.sizes[t.size].area) }

// join adds the sheets of another state.
func (s *state) join(o *state) {
	s.trees, s.out = append(s.trees, o.trees...), append(s.out, o.out...)
	s.cost, s.area = s.cost+o.cost, s.area+o.area
	for i, n := range o.opens {
		s.opens[i] += n
	}
}

// result tells the best so far.
func (s *solving) result() Result {
	r := Result{Least: s.best.cost, Bound: s.bound, Proved: s.proved()}
	r.Sheets = s.problem.sheets(s.best)
	s.runs.part(r.Sheets)
	area, used := 0.0, 0.0
	for i, n := range s.best.opens {
		on := s.Task.Sheets[i]
		area += float64(n) * on.W.MM() * on.H.MM()
		if on.Offcut {
			continue
		}
		r.Count, r.Price = r.Count+n, r.Price+int64(n)*on.Price
	}
	for _, sheet := range r.Sheets {
		for _, p := range sheet.Placed {
			used += p.Rect.Area()
		}
	}
	if area > 0 {
		r.Used = used / area
	}
	if s.Aim == Sheets {
		r.Layout.Bound = int(s.bound)
	} else {
		r.Layout.Bound = s.problem.count()
	}
	return r
}

// ceil is the whole number at or above, but for what rounding adds.
func ceil(x float64) int64 { return int64(math.Ceil(x - 1e-7)) }
