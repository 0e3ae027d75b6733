package advice

import (
	"context"
	"slices"
	"strconv"

	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
)

// HowMany is the other way round, for each kind of thing by itself: how many the box takes in its size, and
// how many go in a box that comes off one sheet. Nothing is reckoned twice: each number is planned, and it
// counts when its proof holds.
type HowMany struct {
	Thing   string // its name
	InBox   int    // in the size that stands
	Sized   bool   // there is such a size
	Lying   string // how so many lie
	OnSheet int    // of each card, one sheet
	More    bool   // the search stopped short: perhaps more
}

// past is how many numbers are tried beyond one that fails: more things may lie better than one fewer.
const past = 16

// Count tells how many of each kind of thing the box holds at its size, and how many go into a box that is cut
// from one sheet of each of its cards. It reports false when its work ran out, or the context was cancelled,
// before it had looked at all of them.
func Count(ctx context.Context, p *plan.Plan, w request.Workshop) (out []HowMany, whole bool) {
	b := p.Brief.Clone()
	b.Size = sizeOf(p.Box.Size, p.Units)
	out = make([]HowMany, len(p.Load.Things))
	short := make([]bool, len(out))
	Together(ctx, len(out), func(i int) { // each has work of its own: who is first takes nothing from the others
		left := work(max(countedEach, counted/len(out)))
		out[i] = most(ctx, b, w, i, p, left)
		short[i] = left.Over()
	})
	return out, ctx.Err() == nil && !slices.Contains(short, true)
}

// Most answers for one kind of thing of a brief, in its own size where it has one.
func Most(ctx context.Context, b brief.Brief, w request.Workshop, thing int) HowMany {
	return most(ctx, b, w, thing, nil, work(counted))
}

func most(ctx context.Context, b brief.Brief, w request.Workshop, thing int, like *plan.Plan, left *budget) (h HowMany) {
	b = b.Clone()
	h.Sized = b.Size != nil && len(b.Contents) > 0
	if thing >= len(b.Contents) {
		return h
	}
	b.Contents, b.Copies = b.Contents[thing:thing+1], "1"
	b.Arrange.Way, b.Arrange.Places = "", nil
	so := func(n int) *plan.Plan {
		b.Contents[0].Count = brief.Whole(strconv.Itoa(n))
		if like != nil {
			return like.Like(b, w)
		}
		return plan.Make(b, w)
	}
	first := so(1)
	if len(first.Things) == 0 {
		return h
	}
	h.Thing = first.Things[0].Name
	search := func(top int, holds func(*plan.Plan) bool) (most int, more bool) {
		return highest(top, func(n int) fate {
			if ctx.Err() != nil || !left.Spend(10+n) {
				return unknown
			}
			q := so(n)
			return fateOf(q, holds(q))
		})
	}
	if h.Sized && first.Box != nil {
		h.InBox, h.More = search(atMost(first), func(q *plan.Plan) bool {
			if q.Holds() {
				h.Lying = q.Load.Says
			}
			return q.Holds()
		})
	}
	b.Size = nil
	var more bool
	h.OnSheet, more = search(contents.MostThings, func(q *plan.Plan) bool { return q.Holds() && oneSheet(q) })
	h.More = h.More || more
	return h
}

// oneSheet reports whether the box comes off one sheet of each of its cards.
func oneSheet(p *plan.Plan) bool {
	for _, c := range p.Cuts {
		if len(c.Sheets) > 1 || len(c.TooBig) > 0 {
			return false
		}
	}
	return true
}

// atMost is a number of the plan's one thing that its box, or its small boxes together, can't hold more than:
// as many as go in without any room round them.
func atMost(p *plan.Plan) (n int) {
	boxes := []*style.Box{p.Box}
	for i, r := range p.Rooms {
		boxes = append(boxes[:i], r.Box)
	}
	room := contents.Room{Between: p.Room.Between, Proud: p.Room.Proud}
	for _, b := range boxes {
		d := b.Whole()
		most, _ := contents.Capacity(p.Things[0], room, contents.Size{Length: d.Length, Width: d.Width, Height: d.Depth})
		n += most
	}
	return min(n, contents.MostThings)
}

// fate is what becomes of a number of things: not known because work ran out, no box for some other reason, too
// many, or a box that holds.
type fate int

const (
	unknown fate = iota
	fails
	tooMany
	holding
)

// fateOf tells too many from other failures. A piece larger than its sheet means too many, since more things never
// make it smaller.
func fateOf(p *plan.Plan, holds bool) fate {
	switch {
	case holds:
		return holding
	case p.Refused != nil || len(p.Layout.TooBig) > 0:
		return tooMany
	}
	return fails
}

// highest finds the highest number that holds, at most so high: from the lowest in leaps that double, then by
// halves, then some numbers further on. An answer that is not sure, for want of work, ends it; more says so.
func highest(top int, try func(n int) fate) (most int, more bool) {
	most, more = lowest(top, try)
	if most == 0 || more {
		return most, more
	}
	above := top + 1
	for n := min(2*most, top); n > most; {
		switch try(n) {
		case unknown:
			return most, true
		case holding:
			most = n
		default:
			above = n
		}
		if n = min(2*most, top); n >= above {
			n = most + (above-most)/2
		}
	}
	for n, until := most+1, most+past; n <= min(until, top); n++ {
		switch try(n) {
		case unknown:
			return most, true
		case holding:
			most, until = n, n+past
		}
	}
	return most, false
}

// lowest is the lowest number that holds: one, mostly, but a few flat things may make no wall high enough, or only
// one as high as they stand. After some it goes in leaps of an eighth.
func lowest(top int, try func(n int) fate) (least int, more bool) {
	const closely = 32
	for n := 1; n <= top; n += 1 + max(0, n-closely)/8 {
		switch got := try(n); {
		case got == unknown:
			return 0, true
		case got == tooMany && n > closely:
			return 0, false
		case got == holding:
			return n, false
		}
	}
	return 0, false
}
