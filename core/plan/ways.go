package plan

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/cutting"
	"brevium/core/fold"
	"brevium/core/insert"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/style"
)

// Way is an arrangement with what its box costs: the sheets for one box, the
// card of its pieces in square millimetres, and a reason in words.
type Way struct {
	contents.Load
	Sheets int
	TooBig int // pieces that no sheet of the chosen size takes
	Area   float64
	Cost   float64
	Reason string
}

// Of the arrangements, so many are drafted as boxes and ranked, the cheapest by a rough reckoning first: fewer of
// many things, and where only a remedy is looked for.
const (
	tried  = 12
	hasty  = 4
	drafts = 900 // things placed, in all drafts
)

// likeliest is how many arrangements of these things are drafted.
func (m *making) likeliest() int {
	most := tried
	if m.hasty {
		most = hasty
	}
	things := 0
	for _, t := range m.Things {
		things += t.Count
	}
	return min(most, max(3, drafts/max(things, 1)))
}

// begin settles what is left to the plan before anything is arranged, and what the style works from.
// The request is read by others too, so what is settled is written to a copy.
func (m *making) begin() {
	asked := *m.Request
	m.Request = &asked
	m.chooseClearance()
	m.again()
}

// again begins anew, when layers turned out thicker than they were taken to be.
func (m *making) again() {
	asked := *m.Request
	asked.Room, m.Rooms = m.room, nil
	m.Table = cutting.NewTable(&asked)
	m.spec = m.Request.Spec()
	if m.taken != nil && m.spec.Given == nil {
		taken := *m.taken
		m.spec.Taken = &taken
	}
}

// run reads how the things are to lie, ranks the ways, and builds the box of the pinned one or the best.
func (m *making) run() *style.Box {
	if len(m.Things) == 0 {
		if m.hasty {
			m.spec.Taken = &style.Dims{} // the pieces alone are wanted, not what goes in
		}
		return m.inserted(m.spec, style.Make(m.spec, m.Style, m.hasty), contents.Load{}, m.hasty)
	}
	if m.Style.Rooms != nil {
		return m.inRooms()
	}
	m.prepare()
	if m.pick != nil { // it was laid out before
		return m.finish(*m.pick)
	}
	ways := m.ways(0)
	if len(ways) == 0 {
		return nil
	}
	chosen := ways[0]
	if !m.hasty || m.Way == "" { // of a draft whose arrangement is picked no other is wanted
		m.Ways = m.rank(ways, m.likeliest())
	}
	if m.noneLies() && !m.hasty && m.spec.Given == nil {
		ways = m.ways(2 * tried)
		m.Ways = m.rank(ways, 2*tried)
	}
	if len(m.Ways) > 0 {
		chosen = m.Ways[0].Load
	}
	if m.Way != "" {
		i := slices.IndexFunc(ways, func(l contents.Load) bool { return l.ID == m.Way })
		if i >= 0 {
			chosen = ways[i]
		} else {
			m.Warn(brief.Warning{Code: "pin-gone", Text: "Your arrangement no longer suits these things, so you see " +
				"the best one.",
				Fix: "Pick another, or let Brevium choose.", Set: brief.To("act", "choose-for-me")})
		}
	}
	if len(m.Places) > 0 {
		chosen = m.byHand(chosen)
	}
	if len(m.Problems) > 0 {
		return nil
	}
	return m.finish(chosen)
}

// finish builds the box of the arrangement that was chosen.
func (m *making) finish(chosen contents.Load) *style.Box {
	m.Load = chosen
	b := m.build(m.spec, chosen, m.hasty)
	m.taken = m.spec.Taken
	return b
}

// prepare settles what room the things want.
func (m *making) prepare() {
	t := m.spec.As("insert").T()
	if m.Kind.Room != nil {
		m.Kind.Room(&m.Room, m.Things, m.spec.As("insert"))
	}
	if m.Kind.Divides {
		m.Room.Below += t // things may stand on a partition's foot
	}
	m.spec.Proud, m.spec.Beside = m.Room.Proud, m.Room.Around+m.Room.Padding
	m.spec.Around, m.spec.Above = m.Room.Around, m.Room.Above
}

// noneLies reports whether no box that was drafted lies on its sheets.
func (m *making) noneLies() bool { return len(m.Ways) > 0 && m.Ways[0].TooBig > 0 }

// ways lists the arrangements the request allows, those that fit a given size
// first: the likeliest are laid out or, of so many, those that are turned too.
func (m *making) ways(most int) []contents.Load {
	q := contents.Request{Things: m.Things, Room: m.Room, Divided: m.Kind.Divides, Slotted: m.Kind.Straight,
		Caliper: m.spec.As("insert").T(), Most: cmp.Or(most, m.likeliest()), Pin: m.Way, Turned: most > 0}
	if m.spec.Given != nil {
		in, ok := style.Inside(m.spec, m.Style)
		if !ok {
			return nil
		}
		q.Inside = &contents.Size{Length: in.Length, Width: in.Width, Height: in.Depth}
	}
	return m.clearing(contents.Arrangements(q))
}

// rank drafts the box of each of the likeliest ways, so many, and sorts them by what the maker pays.
func (m *making) rank(ways []contents.Load, most int) []Way {
	var out []Way
	poor := false
	for i, l := range ways[:min(most, len(ways))] {
		if i >= max(hasty, most-tried) && m.spec.IsShaped() {
			break // each is built and tried on: dear
		}
		scratch := *m.spec
		scratch.Report, scratch.Poor = &brief.Report{Units: m.Units, Step: m.Step}, poor
		b := m.build(&scratch, l, true)
		m.spec.Knows(&scratch)
		poor = m.spec.Taken == nil
		if b == nil {
			continue
		}
		w := Way{Load: l}
		w.Sheets, w.TooBig = m.needs(b)
		for _, p := range b.Pieces() {
			w.Area += p.Width.MM() * p.Height.MM() * float64(p.Count)
		}
		w.Cost = w.Area * (1 + 0.12*unpleasing(l.Need) + 0.06*float64(l.Layers-1))
		out = append(out, w)
	}
	slices.SortStableFunc(out, Better)
	if len(out) > 0 && out[0].TooBig == 0 {
		out = slices.DeleteFunc(out, func(w Way) bool { return w.TooBig > 0 })
	}
	for i := range out {
		out[i].Reason = reason(out, i)
	}
	return out
}

// needs gives how many sheets a box takes, and how many of its pieces none does.
func (m *making) needs(b *style.Box) (sheets, tooBig int) {
	pieces := m.ToLay(b, 1)
	if m.sizes {
		for _, p := range pieces {
			if on := m.SheetOf(m.CardOf(p.Stock)); !p.Lies(on.Width, on.Height) {
				tooBig++
			}
		}
		return 1, tooBig
	}
	for _, of := range cutting.ByCard(pieces) {
		on := m.SheetOf(m.CardOf(of[0].Stock))
		n, big := layout.Count(of, on.Width, on.Height)
		sheets, tooBig = sheets+n, tooBig+big
	}
	return sheets, tooBig
}

// Better orders ways: every piece on a sheet, fewer sheets, then less card, dearer by up to a part for
// an ungainly shape and for layers that must be lifted off to reach the next.
func Better(a, b Way) int {
	return cmp.Or(cmp.Compare(a.TooBig, b.TooBig), cmp.Compare(a.Sheets, b.Sheets), cmp.Compare(a.Cost, b.Cost),
		cmp.Compare(a.ID, b.ID))
}

// unpleasing is 0 for a top between a square and two to one, and grows to 1.
func unpleasing(s contents.Size) float64 {
	ratio := s.Length.MM() / max(s.Width.MM(), 1)
	if ratio < 1 {
		ratio = 1 / max(ratio, 1e-3)
	}
	flat := s.Height.MM() / max(min(s.Length.MM(), s.Width.MM()), 1)
	return min(1, max(0, (ratio-2)/3)+max(0, (flat-1.2)/2))
}

func reason(ways []Way, i int) string {
	w := ways[i]
	least, one := math.Inf(1), 0
	for _, o := range ways {
		least = min(least, o.Area)
		if o.Layers == 1 {
			one++
		}
	}
	var says []string
	switch {
	case w.TooBig > 0:
		says = append(says, "a piece is larger than the sheet")
	case w.Area < least*1.005:
		says = append(says, "the least card")
	default:
		says = append(says, fmt.Sprintf("%.0f %% more card than the least", 100*(w.Area/least-1)))
	}
	if w.Layers == 1 && one < len(ways) {
		says = append(says, "everything within reach")
	} else if w.Layers > 1 {
		says = append(says, "the upper ones come off first")
	}
	if unpleasing(w.Need) == 0 {
		says = append(says, "a pleasing shape")
	} else if unpleasing(w.Need) > 0.5 {
		says = append(says, "an ungainly shape")
	}
	return strings.Join(says, ", ")
}

// build makes the box round an arrangement, its inserts with it; a draft has no faces found yet.
func (m *making) build(job *style.Spec, l contents.Load, draft bool) *style.Box {
	if m.allProud(job, l) {
		return nil
	}
	job.Need = style.Dims{Length: l.Need.Length, Width: l.Need.Width, Depth: l.Need.Height}
	if m.Kind.Needs != nil {
		job.Need = m.Kind.Needs(job.Need, l, job.As("insert"))
	}
	job.Guilty = m.guilty(l)
	if job.Stand = nil; m.Kind.Needs == nil && !m.Kind.Divides {
		job.Stand = func(b *style.Box) []fold.Block { return m.grown(l, b) }
	}
	return m.inserted(job, style.Make(job, m.Style, draft), l, draft)
}

// inserted puts the compartments into a box; nil when they can't be.
func (m *making) inserted(job *style.Spec, b *style.Box, l contents.Load, draft bool) *style.Box {
	if b == nil || m.Kind == nil {
		return b
	}
	if len(m.Things) == 0 && m.Kind.Divides {
		l = m.Dividing(b.Inside)
	}
	before := len(job.Problems)
	m.Kind.Build(insert.New(job.As("insert"), b, l, m.Dividers))
	job.Stamp(b)
	b.Count()
	if len(job.Problems) > before {
		return nil
	}
	if !draft {
		b.FindInserts()
	}
	return b
}

// clearing keeps, of the ways to lie in a given box whose room is no block, those
// that clear its slopes, if there are any.
func (m *making) clearing(ways []contents.Load) []contents.Load {
	b := m.spec.Measured()
	if b == nil {
		return ways
	}
	stands := b.Assemble(m.spec.T(), assembly.Closed)
	clear := slices.DeleteFunc(slices.Clone(ways), func(l contents.Load) bool {
		return len(l.Stacks) == 0 || stands.Short(m.blocks(l, b)) != style.Dims{}
	})
	if len(clear) == 0 {
		return ways
	}
	return clear
}

// allProud reports whether all that goes in would stand above the walls, and notes it: there would be none.
func (m *making) allProud(job *style.Spec, loads ...contents.Load) bool {
	if job.Given != nil || job.Proud == 0 || slices.ContainsFunc(loads, func(l contents.Load) bool { return l.Need.Height > 0 }) {
		return false
	}
	job.Problem("room.proud", fmt.Sprintf("Nothing would be left inside: your things are no taller than the %s that "+
		"should stick out.", job.Say(job.Proud)), "Let less of it stick out.", "room.proud", "0")
	return true
}

// guilty names the fields that ask for each dimension of a load.
func (m *making) guilty(l contents.Load) style.Blame {
	field := func(way func(contents.Size) measure.Length) string {
		thing, measure := l.Guilty(way)
		return fmt.Sprintf("contents.%d.%s", thing, measure)
	}
	return style.Blame{
		Length: field(func(s contents.Size) measure.Length { return s.Length }),
		Width:  field(func(s contents.Size) measure.Length { return s.Width }),
		Depth:  field(func(s contents.Size) measure.Length { return s.Height }),
	}
}
