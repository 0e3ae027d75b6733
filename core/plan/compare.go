package plan

import (
	"cmp"
	"context"
	"runtime"
	"slices"
	"strconv"
	"sync"
	"sync/atomic"

	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/measure"
	"brevium/core/sheet"
	"brevium/core/style"
)

// Row is one style with one arrangement, as the comparison shows it.
type Row struct {
	Style    *style.Style
	Load     contents.Load
	Sheets   int
	Area     float64 // of the pieces, in square millimetres
	Waste    float64 // share of the sheets that is no piece
	Cuts     int
	Scores   int
	Minutes  int
	Strength int
	Proved   bool
	Set      map[string]string // the fields that take it
}

// perStyle is how many arrangements of each style are compared.
const perStyle = 5

// Compare plans every style with its best arrangements, the best first. It
// stops when its asker has left or its work is done up, and says whether it
// came to the end.
func Compare(ctx context.Context, b brief.Brief, w Workshop) (rows []Row, whole bool) {
	if b = b.Clone(); len(b.Contents) > 0 {
		b.Size = nil
	}
	each := Each(ctx, b, w)
	found := make([][]Row, len(each))
	left := work(compared)
	together(ctx, len(each), func(i int) {
		first := each[i].Plan
		for k, way := range first.Ways[:min(perStyle, len(first.Ways))] {
			p := first
			if k > 0 {
				if ctx.Err() != nil || !left.spend(first.effort()) {
					return
				}
				asked := first.Brief.Clone()
				asked.Arrange.Way = brief.Text(way.ID)
				p = (&Plan{Request: Read(asked, w), what: pinned, taken: first.taken, pick: &way.Load}).build(w)
			}
			if p.OK() {
				found[i] = append(found[i], p.row())
			}
		}
	})
	rows = slices.Concat(found...)
	slices.SortStableFunc(rows, func(a, b Row) int {
		return cmp.Or(cmp.Compare(a.Sheets, b.Sheets), cmp.Compare(a.Area, b.Area))
	})
	return rows, ctx.Err() == nil && !left.over()
}

// Shown is a style as it would be for a project.
type Shown struct {
	Style *style.Style
	Plan  *Plan
}

// Each plans every style for the brief's contents or size: the project's own
// with its options, the others with their defaults. Which way the contents lie
// is left to each.
func Each(ctx context.Context, b brief.Brief, w Workshop) []Shown {
	b = ownSize(b, w)
	out := make([]Shown, len(style.Styles))
	for i, s := range style.Styles {
		out[i] = Shown{s, &Plan{Request: &Request{Report: &brief.Report{}}}}
	}
	together(ctx, len(out), func(i int) {
		out[i] = Shown{style.Styles[i], one(b, style.Styles[i], w)}
	})
	return out
}

// One plans one style as Each does.
func One(b brief.Brief, s *style.Style, w Workshop) *Plan { return one(ownSize(b, w), s, w) }

// ownSize gives a list of scores the size its numbers come to, so that other
// styles can be shown at it.
func ownSize(b brief.Brief, w Workshop) brief.Brief {
	if s := style.Find(string(b.Box.Style)); s != nil && s.Typed && b.Size == nil && len(b.Contents) == 0 {
		if p := Make(b, w); p.OK() {
			size := func(l measure.Length) brief.Text { return brief.Text(l.Exact(p.Units)) }
			b.Size = &brief.Size{Length: size(p.Box.Size.Length), Width: size(p.Box.Size.Width), Depth: size(p.Box.Size.Depth)}
		}
	}
	return b
}

func one(b brief.Brief, s *style.Style, w Workshop) *Plan {
	b = b.Clone()
	if b.Box.Style != brief.Text(s.ID) {
		b.Box = brief.Box{Style: brief.Text(s.ID)}
	}
	b.Arrange.Way, b.Arrange.Places = "", nil
	b.Dress = b.Dress.Bare() // panels of other styles have other names
	return build(Read(b, w), w, shown, nil)
}

// together does so many independent pieces of work, as many at once as the
// machine has cores, and begins no more when their asker has left.
func together(ctx context.Context, n int, do func(int)) {
	var wait sync.WaitGroup
	var next atomic.Int64
	for range min(n, runtime.GOMAXPROCS(0)) {
		wait.Go(func() {
			for i := int(next.Add(1)) - 1; i < n && ctx.Err() == nil; i = int(next.Add(1)) - 1 {
				do(i)
			}
		})
	}
	wait.Wait()
}

func (p *Plan) row() Row {
	r := Row{Style: p.Style, Load: p.Load, Sheets: len(p.Layout.Sheets) + len(p.Layout.TooBig),
		Waste: 1 - p.Layout.Used, Proved: p.Holds(), Strength: p.Box.Strength,
		Set: map[string]string{"box.style": p.Style.ID, "arrange.way": p.Load.ID}}
	for _, piece := range p.Box.Pieces() {
		r.Area += piece.Width.MM() * piece.Height.MM() * float64(piece.Count)
		r.Scores += len(piece.Passes) * piece.Count
		for _, l := range piece.Outline() {
			if l.Kind == sheet.Cut {
				r.Cuts += piece.Count
			}
		}
	}
	r.Minutes = p.Minutes()
	return r
}

// Minutes is about how long the bench work takes.
func (p *Plan) Minutes() int { return bench.Minutes(p.Steps) }

// HowMany is the other way round, for each kind of thing by itself: how many
// the box as it stands takes, and how many go in a box that comes off one
// sheet of the card. More says that the search for the latter stopped short.
type HowMany struct {
	Thing   string
	InBox   int
	Lying   string
	OnSheet int
	More    bool
}

// mostOnSheet bounds the search for how many one sheet will do for.
const mostOnSheet = 60

// HowMany answers for the plan's things, and says whether it came to the end
// before its work was done up or its asker had left.
func (p *Plan) HowMany(ctx context.Context, w Workshop) (out []HowMany, whole bool) {
	insides := []style.Dims{p.Box.Inside}
	for i, r := range p.Rooms {
		insides = append(insides[:i], r.Box.Inside)
	}
	out = make([]HowMany, len(p.Load.Things))
	left := work(counted)
	together(ctx, len(out), func(i int) {
		t := p.Load.Things[i]
		h := HowMany{Thing: t.Name}
		for _, in := range insides {
			n, lying := contents.Capacity(t, p.Load.Room, contents.Size{Length: in.Length, Width: in.Width, Height: in.Depth})
			h.InBox, h.Lying = h.InBox+n, cmp.Or(h.Lying, lying)
		}
		h.OnSheet, h.More = p.onOneSheet(ctx, w, i, left)
		out[i] = h
	})
	return out, ctx.Err() == nil && !left.over()
}

// onOneSheet counts up until the pieces need a second sheet. More things may
// lie better than one fewer, so it looks a little past the first miss.
func (p *Plan) onOneSheet(ctx context.Context, w Workshop, i int, left *budget) (most int, more bool) {
	b := p.Brief.Clone()
	b.Contents = b.Contents[i : i+1]
	b.Size, b.Arrange.Way, b.Arrange.Places = nil, "", nil
	for n, misses := 1, 0; misses < 4; n++ {
		if n > mostOnSheet || ctx.Err() != nil || !left.spend(10+n) {
			return most, true
		}
		b.Contents[0].Count = brief.Whole(strconv.Itoa(n))
		if got := sketch(b, w, false, p.taken); got != nil && len(got.Ways) > 0 && got.Ways[0].Sheets == 1 &&
			got.Ways[0].TooBig == 0 {
			most, misses = n, 0
		} else {
			misses++
		}
	}
	return most, false
}
