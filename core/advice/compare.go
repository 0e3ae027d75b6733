package advice

import (
	"cmp"
	"context"
	"fmt"
	"runtime"
	"runtime/debug"
	"slices"
	"sync"
	"sync/atomic"

	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/cutting"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/shop"
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
	Why      string        // it can't be made so: what is in the way; "" where it can
	Set      brief.Changes // the fields that take it
}

// perStyle is how many arrangements of each style are compared.
const perStyle = 5

// Compare plans every style with its best arrangements, the best first. It stops when the context is cancelled or
// its work runs out, and reports whether it looked at all of them.
func Compare(ctx context.Context, b brief.Brief, w request.Workshop) (rows []Row, whole bool) {
	if b = b.Clone(); len(b.Contents) > 0 {
		b.Size = nil
	}
	each := Each(ctx, b, w)
	found := make([][]Row, len(each))
	left := work(compared)
	Together(ctx, len(each), func(i int) {
		first := each[i].Plan
		for k, way := range first.Ways[:min(perStyle, len(first.Ways))] {
			p := first
			if k > 0 {
				if ctx.Err() != nil || !left.Spend(effort(first)) {
					return
				}
				p = first.Lying(way, w)
			}
			if p.OK() {
				found[i] = append(found[i], rowOf(p))
			}
		}
	})
	rows = slices.Concat(found...)
	slices.SortStableFunc(rows, func(a, b Row) int {
		if (a.Why == "") != (b.Why == "") { // what can't be made comes last
			return cmp.Compare(min(1, len(a.Why)), min(1, len(b.Why)))
		}
		return cmp.Or(cmp.Compare(a.Sheets, b.Sheets), cmp.Compare(a.Area, b.Area))
	})
	return rows, ctx.Err() == nil && !left.Over()
}

// Shown is a style as it would be for a project.
type Shown struct {
	Style *style.Style
	Plan  *plan.Plan
}

// Each plans every style for the brief's contents or size: the project's own with its options, the others with
// their defaults. Which way the contents lie is left to each.
func Each(ctx context.Context, b brief.Brief, w request.Workshop) []Shown {
	b = ownSize(b, w)
	out := make([]Shown, len(style.Styles))
	for i, s := range style.Styles {
		out[i] = Shown{s, &plan.Plan{Table: cutting.Table{Request: &request.Request{Report: &brief.Report{}}}}}
	}
	Together(ctx, len(out), func(i int) {
		out[i] = Shown{style.Styles[i], one(b, style.Styles[i], w)}
	})
	return out
}

// One plans one style as Each does.
func One(b brief.Brief, s *style.Style, w request.Workshop) *plan.Plan {
	return one(ownSize(b, w), s, w)
}

// ownSize gives a list of scores the size its numbers come to, so that other styles can be shown at it.
func ownSize(b brief.Brief, w request.Workshop) brief.Brief {
	if s := style.Find(string(b.Box.Style)); s != nil && s.Typed && b.Size == nil && len(b.Contents) == 0 {
		if p := plan.Make(b, w); p.OK() {
			b.Size = sizeOf(p.Box.Size, p.Units)
		}
	}
	return b
}

// sizeOf writes a size as a document has it.
func sizeOf(d style.Dims, units measure.Unit) *brief.Size {
	size := func(l measure.Length) brief.Text { return brief.Text(l.Exact(units)) }
	return &brief.Size{Length: size(d.Length), Width: size(d.Width), Depth: size(d.Depth)}
}

func one(b brief.Brief, s *style.Style, w request.Workshop) *plan.Plan {
	b = b.Clone()
	if b.Box.Style != brief.Text(s.ID) {
		b.Box = brief.Box{Style: brief.Text(s.ID)}
	}
	b.Arrange.Way, b.Arrange.Places = "", nil
	b.Dress = b.Dress.Bare() // panels of other styles have other names
	return plan.Make(b, w)
}

// Together does n independent pieces of work, as many at once as the machine has cores; once the context is
// cancelled it begins no more. A panic in one of them is the caller's, who may be one of many that a server serves.
func Together(ctx context.Context, n int, do func(int)) {
	var wait sync.WaitGroup
	var next atomic.Int64
	var failed atomic.Pointer[string]
	for range min(n, runtime.GOMAXPROCS(0)) {
		wait.Go(func() {
			defer func() {
				if r := recover(); r != nil {
					failed.Store(new(fmt.Sprintf("%v\n%s", r, debug.Stack())))
				}
			}()
			for i := int(next.Add(1)) - 1; i < n && ctx.Err() == nil; i = int(next.Add(1)) - 1 {
				do(i)
			}
		})
	}
	wait.Wait()
	if what := failed.Load(); what != nil {
		panic(*what)
	}
}

func rowOf(p *plan.Plan) Row {
	r := Row{Style: p.Style, Load: p.Load, Sheets: len(p.Layout.Sheets) + len(p.Layout.TooBig),
		Waste: 1 - p.Layout.Used, Proved: p.Holds(), Strength: p.Box.Strength,
		Set: brief.To("box.style", p.Style.ID, "arrange.way", p.Load.ID)}
	for _, piece := range p.Box.Pieces() {
		r.Area += piece.Width.MM() * piece.Height.MM() * float64(piece.Count)
		r.Scores += len(piece.Passes) * piece.Count
		for _, l := range piece.Outline() {
			if l.Kind == net.Cut {
				r.Cuts += piece.Count
			}
		}
	}
	r.Minutes = p.Minutes()
	switch {
	case len(p.Layout.TooBig) > 0:
		big := p.Layout.TooBig[0]
		on := p.SheetOf(p.CardOf(big.Stock))
		r.Why = fmt.Sprintf("The %[2]s (%[3]s × %[4]s) is too big for %[1]s.", on.Title, big.Name, p.Say(big.W), p.Say(big.H))
		if over, near := plan.NearestSheet(big, []shop.Sheet{on}); over > 0 {
			r.Why = fmt.Sprintf("%s is %s too small for the %s.", near.Title, p.Say(over), big.Name)
		}
	case !r.Proved:
		for _, c := range p.Checks {
			if !c.Holds {
				r.Why = c.Fault()
				break
			}
		}
	}
	return r
}
