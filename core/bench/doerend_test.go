package bench_test

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/assembly"
	"brevium/core/bench"
	"brevium/core/fold"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/shop"
	"brevium/core/words"
)

// end looks at what is there: it must be the plan's box, with nothing left over.
func (d *doer) end() {
	for i, c := range sheetsToCut(d.p) {
		for n := range c {
			d.must("sheet %d cut %d", i, n)
		}
	}
	text := d.text
	all := d.p.Box.Assemble(d.p.Card.Caliper, assembly.Closed)
	lids := d.outer()
	glued := false
	d.everyPart("", &d.p.Box.Tree, func(path string, part *assembly.Part, top bool) {
		p := part.Piece
		if p == nil || d.p.Box.Piece(p.Name) != p {
			return
		}
		if len(p.Passes)+len(p.Slanted) > 0 {
			d.must("scored %s", p.Name)
			d.must("burnished")
		}
		for i := range bench.CutsOf(p) {
			d.must("cut %s %d", p.Name, i)
		}
		for i := range p.Marks {
			d.must("mark %s %d", p.Name, i)
		}
		if part.Rides && p.Part == net.Layer {
			if d.must("dressed"); !strings.Contains(text, strings.ToLower(words.Plain(p.Name))) {
				d.wrong("missing: nothing is told of the %s", p.Name)
			}
		}
		if part.Rides || part.Loose || p.Part != net.Box || p.Shaped() {
			return
		}
		glued = glued || len(p.Glues) > 0
		if !top && len(part.At) > 0 && !slices.Contains(d.put, path) {
			d.wrong("missing: the %s is put nowhere", path)
		}
		if slices.ContainsFunc(p.Order, func(m net.Move) bool { return m.When == net.Close }) {
			d.must("closed")
		}
		for _, face := range creased(p) {
			d.must("fold %s/%s", path, face)
		}
		if body := all.Of(path); body != nil {
			d.stuckRight(p, body.Faces)
		}
	})
	if glued {
		d.must("folded dry")
	}
	if len(lids) > 0 {
		d.must("tried on")
	}
	if d.wet {
		d.must("dried")
	} else if d.done["dried"] {
		d.wrong("double: nothing wet is there to dry")
	}
	d.must("filled")
	for face := range d.backed {
		d.wrong("missing: the backing is never taken off the %s", face)
	}
	d.used(text)
}

// everyPart visits the parts of a tree and of the small boxes in it, each with its path; top is what a
// tree begins with, which the others are put on.
func (d *doer) everyPart(path string, tree *assembly.Tree, visit func(path string, part *assembly.Part, top bool)) {
	for i, part := range tree.Parts {
		visit(path+part.Name, part, i == 0)
		if part.Within != nil {
			d.everyPart(path+part.Name+"/", part.Within, visit)
		}
	}
}

func (d *doer) must(format string, args ...any) {
	if what := fmt.Sprintf(format, args...); !d.done[what] {
		d.wrong("missing: %s", what)
	}
}

// sheetsToCut gives the cuts of each different sheet.
func sheetsToCut(p *plan.Plan) map[int][]struct{} {
	out := map[int][]struct{}{}
	for _, s := range plan.Alike(p.Cuts, p.Say) {
		out[s.N] = make([]struct{}, len(s.Cuts))
	}
	return out
}

// creased gives the faces that hang on another by a score that is turned.
func creased(p *net.Piece) (out []string) {
	seen, next := map[string]bool{p.Root: true}, []string{p.Root}
	for len(next) > 0 {
		at := p.Face(next[0])
		next = next[1:]
		if at == nil {
			continue
		}
		for _, e := range at.Edges {
			if e.Beyond == nil || e.Beyond.Waste || e.Kind.Open() || seen[e.Beyond.Name] {
				continue
			}
			seen[e.Beyond.Name] = true
			next = append(next, e.Beyond.Name)
			if e.Kind == net.Score && e.Turn != 0 {
				out = append(out, e.Beyond.Name)
			}
		}
	}
	return out
}

// stuckRight wants on every face that is stuck what sticks, on the side where the other comes.
func (d *doer) stuckRight(p *net.Piece, faces []*fold.Placed) {
	of := func(name string) *fold.Placed {
		for _, f := range faces {
			if f.Name == name {
				return f
			}
		}
		return nil
	}
	for _, g := range p.Glues {
		side, ok := d.spread[p.Name+"/"+g.Face]
		f, on := of(g.Face), of(g.On)
		if !ok {
			d.wrong("missing: nothing sticks the %s of the %s", g.Face, p.Name)
			continue
		}
		if side == "late" || f == nil || on == nil {
			continue
		}
		lies := "inside"
		if on.Middle().Sub(f.Middle()).Dot(f.In) < 0 {
			lies = "outside"
		}
		if lies != side {
			d.wrong("impossible: the %s of the %s is stuck by its %s, and the %s lies on its %s", g.Face, p.Name, side, g.On, lies)
		}
	}
}

// used wants every supply named in some step.
func (d *doer) used(text string) {
	all := slices.Clone(d.p.Box.Supplies)
	if d.p.Dressed != nil {
		all = append(all, d.p.Dressed.Supplies...)
	}
	for _, s := range all {
		if s.What == "ribbon" && !strings.Contains(text, "thread") && slices.ContainsFunc(d.p.Box.Pieces(), func(p *net.Piece) bool {
			return p.Part == net.Box && len(p.Punches) > 0
		}) {
			d.wrong("missing: the ribbon is threaded through no hole")
		}
		told := false
		for word := range strings.FieldsSeq(strings.ReplaceAll(s.What, "pads", "")) {
			told = told || len(word) > 2 && strings.Contains(text, strings.TrimSuffix(word, "s"))
		}
		k, _ := shop.PriceOf(s.What)
		told = told || slices.ContainsFunc(k.Of, func(w string) bool { return strings.Contains(text, w) })
		if !told && !s.Tool {
			d.wrong("missing: nothing is done with the %s", s.What)
		}
	}
}
