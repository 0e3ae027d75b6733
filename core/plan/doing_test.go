package plan

import (
	"fmt"
	"regexp"
	"slices"
	"strings"
	"testing"

	"brevium/core/assembly"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/dress"
	"brevium/core/fold"
	"brevium/core/sheet"
	"brevium/core/shop"
	"brevium/core/style"
	"brevium/core/words"
)

// doer is a pair of hands that knows nothing of styles. It has card, flat pieces, glue and faces; it
// does each step as it is told and lit, and says where a step is impossible, missing, double or out
// of order, and what at the end is not the plan's box.
type doer struct {
	p      *Plan
	faults []string
	done   map[string]bool // what was done, in a word or two: "score base 0", "fold base/left"
	spread map[string]string
	backed map[string]bool
	put    []string // the parts in their places
	filled bool
	wet    bool
	text   string // all that was said
}

// do does the steps and gives what was wrong with them.
func do(p *Plan, steps []bench.Step) []string {
	d := &doer{p: p, done: map[string]bool{}, spread: map[string]string{}, backed: map[string]bool{}}
	for _, s := range steps {
		d.step(s)
	}
	d.end()
	return d.faults
}

func (d *doer) wrong(format string, args ...any) {
	d.faults = append(d.faults, fmt.Sprintf(format, args...))
}

// once does something that can be done only once.
func (d *doer) once(format string, args ...any) {
	what := fmt.Sprintf(format, args...)
	if d.done[what] {
		d.wrong("double: %s", what)
	}
	d.done[what] = true
}

// need wants something done before.
func (d *doer) need(now, format string, args ...any) {
	if what := fmt.Sprintf(format, args...); !d.done[what] {
		d.wrong("out of order: %s, but not yet %s", now, what)
	}
}

func (d *doer) step(s bench.Step) {
	d.once("step %s", s.ID)
	d.text += strings.ToLower(strings.Join(s.Says, " ")) + " "
	for _, says := range s.Says {
		if m := odd.FindString(says); m != "" {
			d.wrong("badly said: %q in %q", m, says)
		}
	}
	switch s.Title {
	case "Trim":
		for _, f := range s.Frames {
			d.once("sheet %v cut %d", f.At, f.N)
		}
	case "Score":
		d.need(s.ID, "sheet 0 cut %d", max(0, -1))
		for i, f := range s.Frames {
			d.once("score %s %d", f.Piece, i)
		}
		d.once("scored %s", s.Piece)
	case "Cut", "Mitre":
		d.cut(s)
	case "Fold and burnish":
		d.once("burnished")
		for _, f := range s.Frames {
			d.need(s.ID, "scored %s", f.Piece)
		}
	case "Closures":
		for _, f := range s.Frames {
			if f.Look == bench.Marked {
				d.once("mark %s %d", f.Piece, f.N)
			}
		}
	case "Dress while flat", bench.DressStanding:
		d.once("dressed")
		for _, p := range d.p.Box.Pieces() {
			for i := range bench.CutsOf(p) {
				if p.Part == sheet.Layer {
					d.need(s.ID, "cut %s %d", p.Name, i)
				}
			}
		}
		if d.filled {
			d.wrong("out of order: layers go on a filled box")
		}
	case "Fold it dry":
		d.once("folded dry")
	case "Stick", bench.StickOuter, bench.FormOn, "Fold to shape":
		d.stick(s)
	case "Dry-fit":
		d.once("tried on")
		for _, lid := range d.outer() {
			if d.done["stuck "+lid] && len(d.p.Box.Piece(lid).Glues) > 0 {
				d.wrong("out of order: the %s is stuck before it is tried on", lid)
			}
		}
	case "Put together":
		d.together(s)
	case "Let it dry":
		d.once("dried")
	case "Fill":
		d.fill()
	case "Close":
		d.close(s)
	}
}

// odd is what no sentence has.
var odd = regexp.MustCompile(`%!|  |\b(the the|a a|of of|to to|on on|and and|'s's)\b|\ba [aeio]|\.\.|\b0 in\b|; then ;|, \.|^[a-z]| and \.`)

func (d *doer) outer() (names []string) {
	for _, part := range d.p.Box.Parts {
		if part.When == sheet.Close && len(d.p.Box.Clears) > 0 && part.Piece.Part == sheet.Box {
			names = append(names, part.Name)
		}
	}
	return names
}

// cut makes the lit cuts; they end at scores, which must be there.
func (d *doer) cut(s bench.Step) {
	p := d.p.Box.Piece(s.Piece)
	if p == nil {
		d.wrong("impossible: there is no %s to cut", s.Piece)
		return
	}
	if _, spare := d.p.spare(p); len(p.Passes)+len(p.Slanted) > 0 && spare == 0 {
		d.need(s.ID, "scored %s", p.Name)
	}
	all := bench.CutsOf(p)
	for _, f := range s.Frames {
		if f.N >= len(all) && len(p.Tips) == 0 {
			d.wrong("impossible: cut %d of the %s", f.N, p.Name)
		}
		d.once("cut %s %d", p.Name, f.N)
	}
	for _, says := range s.Says {
		if strings.Contains(says, "always cut the same corner") && !alikeRound(p) {
			d.wrong("impossible: the corners of the %s are not all cut alike", p.Name)
		}
	}
}

// alikeRound reports whether a piece, turned a quarter, has its slits where they were: from which edge
// they start and how far they are from the corner before it.
func alikeRound(p *sheet.Piece) bool {
	seen := map[string][]string{}
	for _, l := range p.Outline() {
		if l.Kind != sheet.Cut {
			continue
		}
		for _, at := range []sheet.Point{l.A, l.B} {
			w, h := p.Width, p.Height
			switch {
			case at.Y == 0:
				seen["top"] = append(seen["top"], fmt.Sprint(at.X < w/2))
			case at.X == w:
				seen["right"] = append(seen["right"], fmt.Sprint(at.Y < h/2))
			case at.Y == h:
				seen["bottom"] = append(seen["bottom"], fmt.Sprint(at.X > w/2))
			case at.X == 0:
				seen["left"] = append(seen["left"], fmt.Sprint(at.Y > h/2))
			}
		}
	}
	return len(seen) == 4 && slices.Equal(seen["top"], seen["right"]) && slices.Equal(seen["top"], seen["bottom"]) &&
		slices.Equal(seen["top"], seen["left"])
}

var (
	putsOn = regexp.MustCompile(`^(.+): put (.+) on the (inside|outside) of the (.+), near the edge\.$`)
	backs  = regexp.MustCompile(`^(.+): put tape on the (.+) too, and leave its backing on`)
	peels  = regexp.MustCompile(`peel the backing off the tape on the ([^.]+)\.`)
	glues  = regexp.MustCompile(`Put glue on the ([^.]+)\.`)
	order  = regexp.MustCompile(`old up in this order: ([^.]+)\.|old up the ([^.]+)\.`)
	sticks = regexp.MustCompile(`(?i)stick the (.+?) of the (.+?) on the (.+?) of the (.+?)(?:;|\.$)`)
)

// facesOf finds the faces that a phrase names: by their names, by what there is of a kind, or by what
// the names of a kind begin with.
func facesOf(p *sheet.Piece, phrase string) (out []string) {
	if before, after, ok := strings.Cut(strings.ReplaceAll(phrase, ", the ", " and the "), " and the "); ok {
		return append(facesOf(p, before), facesOf(p, after)...)
	}
	items := strings.Split(strings.ReplaceAll(phrase, " and ", ", "), ", ")
	kind := func(prefix, role string) (found []string) {
		for _, f := range p.Faces {
			if r := p.RoleOf(f.Name); r != "" && !f.Waste && (r == role || r+"s" == role) && strings.HasPrefix(plainly(f.Name), prefix) {
				found = append(found, f.Name)
			}
		}
		return found
	}
	exact := func(name string) (found []string) {
		for _, f := range p.Faces {
			if !f.Waste && plainly(f.Name) == name {
				found = append(found, f.Name)
			}
		}
		return found
	}
	last := items[len(items)-1]
	if role, theirs := strings.CutPrefix(last, "their "); theirs {
		for _, item := range items[:len(items)-1] {
			out = append(out, exact(item)...)
		}
		for _, f := range kind("", role) {
			if slices.ContainsFunc(p.Face(f).Edges, func(e sheet.Edge) bool {
				return e.Kind == sheet.Score && e.Beyond != nil && slices.Contains(out, e.Beyond.Name)
			}) {
				out = append(out, f)
			}
		}
		return out
	}
	for i := strings.IndexByte(last, ' '); i > 0 && i < len(last); {
		if role := last[i+1:]; len(kind("", role)) > 0 && len(kind("", last)) == 0 && len(exact(last)) == 0 {
			for _, prefix := range append(slices.Clone(items[:len(items)-1]), last[:i]) {
				out = append(out, kind(prefix+" ", role)...)
			}
			return out
		}
		j := strings.IndexByte(last[i+1:], ' ')
		if j < 0 {
			break
		}
		i += 1 + j
	}
	for _, item := range items {
		switch found := exact(item); {
		case item == "floor" && len(found) == 0:
			out = append(out, p.Root)
		case item == "feet":
			out = append(out, kind("", "foot")...)
		case len(kind("", item)) > 0:
			out = append(out, kind("", item)...)
		case len(found) > 0:
			out = append(out, found...)
		}
	}
	return slices.Compact(out)
}

func plainly(s string) string { return strings.ReplaceAll(s, "-", " ") }

// stick puts on what sticks, folds what is lit, in the order that is told.
func (d *doer) stick(s bench.Step) {
	p := d.p.Box.Piece(s.Piece)
	if p == nil {
		d.wrong("impossible: there is no %s to stick", s.Piece)
		return
	}
	if _, spare := d.p.spare(p); spare > 0 { // it is scored and trimmed where it turns
		if !strings.Contains(strings.Join(s.Says, " "), "pinch it at every edge") {
			d.wrong("impossible: the %s is longer than what it goes round, and nobody says so", p.Name)
		}
		d.once("scored %s", p.Name)
		for i, c := range bench.CutsOf(p) {
			if c.Trim {
				d.once("cut %s %d", p.Name, i)
			}
		}
	}
	for i := range bench.CutsOf(p) {
		d.need(s.ID, "cut %s %d", p.Name, i)
	}
	for i := range p.Marks {
		d.need(s.ID, "mark %s %d", p.Name, i)
	}
	if d.p.Dressed != nil && len(d.p.Dressed.Flat) > 0 && !d.p.Standing {
		d.need(s.ID, "dressed")
	}
	if s.Title == bench.StickOuter {
		d.need(s.ID, "tried on")
	}
	var told []string
	for _, says := range s.Says {
		if m := putsOn.FindStringSubmatch(says); m != nil {
			d.wet = d.wet || strings.Contains(m[2], "glue")
			faces := facesOf(p, m[4])
			if len(faces) == 0 {
				d.wrong("impossible: the %s has no %s", p.Name, m[4])
			}
			for _, f := range faces {
				d.once("put %s on %s/%s", "something", p.Name, f)
				d.spread[p.Name+"/"+f] = m[3]
			}
		}
		if m := backs.FindStringSubmatch(says); m != nil {
			for _, f := range facesOf(p, m[2]) {
				d.backed[p.Name+"/"+f] = true
			}
		}
		if m := order.FindStringSubmatch(says); m != nil {
			told = append(told, strings.Split(m[1]+m[2], "; then ")...)
		}
	}
	n := 0
	for _, f := range s.Frames {
		if f.Look != bench.Standing || len(f.Lit) == 0 {
			continue
		}
		for _, face := range f.Lit {
			d.done[fmt.Sprintf("fold %s/%s", f.Parts[0], face)] = true
		}
		if n < len(told) && f.Parts[0] == s.Frames[len(s.Frames)-1].Parts[0] {
			if of := facesOf(p, told[n]); len(of) > 0 && !sameNames(of, f.Lit) && told[n] == p.Names(f.Lit) {
				d.wrong("impossible to tell: %q of the %s is %v, and %v is lit", told[n], p.Name, of, f.Lit)
			}
		}
		n++
	}
	d.once("stuck %s", p.Name)
}

func sameNames(a, b []string) bool {
	a, b = slices.Clone(a), slices.Clone(b)
	slices.Sort(a)
	slices.Sort(b)
	return slices.Equal(slices.Compact(a), slices.Compact(b))
}

// together puts each part where it is told to go: what is stuck on what must lie on it.
func (d *doer) together(s bench.Step) {
	for _, f := range s.Frames {
		for _, part := range f.Parts {
			if !slices.Contains(d.put, part) {
				d.put = append(d.put, part)
			}
		}
		d.ready(s.ID, f)
	}
	for _, says := range s.Says {
		d.wet = d.wet || strings.HasPrefix(says, "Stick") && d.p.Adhesive.ID == "glue"
		for _, m := range sticks.FindAllStringSubmatch(says, -1) {
			a, b := d.named(m[2]), d.named(m[4])
			if a == nil || b == nil {
				d.wrong("impossible: %q and %q are not both there", m[2], m[4])
			} else if fa, fb := facesOf(a, m[1]), facesOf(b, m[3]); len(fa) == 0 || len(fb) == 0 || !d.touch(a, fa, b, fb) {
				d.wrong("impossible: the %s of the %s does not lie on the %s of the %s", m[1], m[2], m[3], m[4])
			}
		}
	}
}

// ready wants every piece that stands in a picture folded up before.
func (d *doer) ready(now string, f bench.Frame) {
	for _, name := range f.Parts {
		part := d.p.Box.Part(name)
		if part != nil && part.Piece != nil && d.p.Box.Piece(part.Piece.Name) == part.Piece && folds0(part.Piece) {
			d.need(now, "stuck %s", part.Piece.Name)
		}
	}
}

// folds0 reports whether any of a piece is folded before it is closed.
func folds0(p *sheet.Piece) bool {
	return slices.ContainsFunc(p.Order, func(m sheet.Move) bool { return m.When == sheet.Make })
}

func (d *doer) named(name string) *sheet.Piece {
	for _, p := range d.p.Box.Pieces() {
		if words.Plain(p.Name) == name {
			return p
		}
	}
	return nil
}

// touch reports whether each face lies on one of the others in the closed box.
func (d *doer) touch(a *sheet.Piece, fa []string, b *sheet.Piece, fb []string) bool {
	all := d.p.Box.Assemble(d.p.Card.Caliper, assembly.Closed)
	for _, x := range all.Bodies {
		if x.Piece != a {
			continue
		}
		for _, y := range all.Bodies {
			if y.Piece != b || y == x {
				continue
			}
			for _, f := range x.Faces {
				for _, g := range y.Faces {
					if slices.Contains(fa, f.Name) && slices.Contains(fb, g.Name) && abs(g.Middle().Sub(f.Middle()).Dot(f.In)) < 3 {
						return true
					}
				}
			}
		}
	}
	return false
}

func abs(f float64) float64 { return max(f, -f) }

// fill puts the contents in: all that is stuck before must hold, all parts that stay be there.
func (d *doer) fill() {
	d.once("filled")
	d.filled = true
	if first := d.p.Box.Parts[0]; first.Piece != nil && d.p.Box.Piece(first.Piece.Name) == first.Piece && folds0(first.Piece) {
		d.need("fill", "stuck %s", first.Piece.Name)
	}
	for _, part := range d.p.Box.Parts[1:] {
		if part.Piece != nil && !part.Rides && !part.Loose && part.When != sheet.Close && len(part.At) > 0 && !slices.Contains(d.put, part.Name) {
			d.wrong("out of order: filled before the %s is in its place", part.Name)
		}
	}
	if d.wet {
		d.need("fill", "dried")
	}
}

// close folds and puts on the rest, what waited with its backing on is peeled and stuck.
func (d *doer) close(s bench.Step) {
	d.need(s.ID, "filled")
	for _, f := range s.Frames {
		for _, part := range f.Parts {
			if !slices.Contains(d.put, part) {
				d.put = append(d.put, part)
			}
		}
		d.ready(s.ID, f)
		p := d.p.Box.Piece(f.Piece)
		for _, face := range f.Lit {
			d.done[fmt.Sprintf("fold %s/%s", d.partOf(f, face), face)] = true
		}
		if p == nil {
			continue
		}
		for _, m := range peels.FindAllStringSubmatch(f.Says, -1) {
			for _, face := range facesOf(p, m[1]) {
				if !d.backed[p.Name+"/"+face] {
					d.wrong("impossible: no backing on the %s of the %s", face, p.Name)
				}
				delete(d.backed, p.Name+"/"+face)
				d.spread[p.Name+"/"+face] = "late"
			}
		}
		for _, m := range glues.FindAllStringSubmatch(f.Says, -1) {
			for _, face := range facesOf(p, m[1]) {
				d.spread[p.Name+"/"+face] = "late"
			}
		}
	}
	d.once("closed")
}

// partOf finds the part of a standing picture that a lit face is of.
func (d *doer) partOf(f bench.Frame, face string) string {
	for _, part := range d.p.Box.Parts {
		if part.Piece != nil && part.Piece.Name == f.Piece && !d.done["fold "+part.Name+"/"+face] {
			return part.Name
		}
	}
	return f.Piece
}

// end looks at what is there: it must be the plan's box, with nothing left over.
func (d *doer) end() {
	for i, c := range d.p.sheetsToCut() {
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
		if part.Rides && p.Part == sheet.Layer {
			if d.must("dressed"); !strings.Contains(text, strings.ToLower(words.Plain(p.Name))) {
				d.wrong("missing: nothing is told of the %s", p.Name)
			}
		}
		if part.Rides || part.Loose || p.Part != sheet.Box || p.Shaped() {
			return
		}
		glued = glued || len(p.Glues) > 0
		if !top && len(part.At) > 0 && !slices.Contains(d.put, path) {
			d.wrong("missing: the %s is put nowhere", path)
		}
		if slices.ContainsFunc(p.Order, func(m sheet.Move) bool { return m.When == sheet.Close }) {
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
func (p *Plan) sheetsToCut() map[int][]struct{} {
	out := map[int][]struct{}{}
	for _, s := range alike(p.Cuts, p.Say) {
		out[s.N] = make([]struct{}, len(s.Cuts))
	}
	return out
}

// creased gives the faces that hang on another by a score that is turned.
func creased(p *sheet.Piece) (out []string) {
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
			if e.Kind == sheet.Score && e.Turn != 0 {
				out = append(out, e.Beyond.Name)
			}
		}
	}
	return out
}

// stuckRight wants on every face that is stuck what sticks, on the side where the other comes.
func (d *doer) stuckRight(p *sheet.Piece, faces []*fold.Placed) {
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
		if s.What == "ribbon" && !strings.Contains(text, "thread") && slices.ContainsFunc(d.p.Box.Pieces(), func(p *sheet.Piece) bool {
			return p.Part == sheet.Box && len(p.Punches) > 0
		}) {
			d.wrong("missing: the ribbon is threaded through no hole")
		}
		told := false
		for _, word := range strings.Fields(strings.ReplaceAll(s.What, "pads", "")) {
			told = told || len(word) > 2 && strings.Contains(text, strings.TrimSuffix(word, "s"))
		}
		k, _ := shop.PriceOf(s.What)
		told = told || slices.ContainsFunc(k.Of, func(w string) bool { return strings.Contains(text, w) })
		if !told && !s.Tool {
			d.wrong("missing: nothing is done with the %s", s.What)
		}
	}
}

// doings are boxes of all styles, with every closure, insert, handle, dressing and school: a few of
// them, and all with -long.
func doings(each func(name string, b brief.Brief)) {
	dressings := []string{`{}`, `{"layers": [{"on": "all"}, {"on": "outside"}]}`, `{"liners": [{"in": "all"}]}`, `{"band": {"way": "across"}}`,
		`{"band": {"way": "level", "form": "wrapped", "stuck": true}}`, `{"ribbon": {"way": "cross"}}`, `{"bow": {"loops": 6}}`,
		`{"toppers": [{"shape": "round", "words": "for you", "raised": true}]}`, `{"windows": [{"on": "top", "frame": "5 mm"}]}`,
		`{"finishes": [{"kind": "stamp"}, {"kind": "ink"}, {"kind": "sticker"}]}`, `{"grips": [{"kind": "pull", "on": "top"}]}`}
	for _, k := range []string{"strip", "swing", "ribbon", "cord"} {
		dressings = append(dressings, `{"handle": {"kind": "`+k+`"}}`)
	}
	for _, k := range dress.Closures {
		dressings = append(dressings, `{"closure": {"kind": "`+k+`"}}`)
	}
	schools := [][2]string{{"", ""}, {"tools.adhesive", "glue"}, {"tools.adhesive", "both"}, {"tools.burnish", "before"},
		{"tools.dressing", "standing"}, {"tools.scoring", "ruler"}, {"tools.cutting", "scissors"}, {"tools.wraps", "formed"}}
	n := 0
	for _, s := range style.Styles {
		if s.ID == "score-list" {
			continue
		}
		answers := [][2]string{{"", ""}}
		for _, q := range s.Asks {
			for _, c := range q.Choices {
				answers = append(answers, [2]string{"box.options." + q.ID, c.ID})
			}
		}
		for i, a := range answers {
			for j, dressing := range dressings {
				for k, school := range schools {
					n++
					if !*long && (i+j*3+k*5)%41 != n%41 && i+j+k > 0 || *long && (i+j+k)%3 > 0 {
						continue
					}
					b := metric(s.ID, 96, 70, 44, "card.join", "yes")
					switch s.ID {
					case "corner-shells":
						b.Size.Length = "70 mm"
					case "arched-box":
						b.Size.Depth = "96 mm"
					}
					b = dressed(b, dressing)
					for _, set := range [][2]string{a, school} {
						if set[0] != "" {
							b.Set(set[0], set[1])
						}
					}
					each(strings.Join([]string{s.ID, a[0], a[1], dressing, school[1]}, " "), b)
				}
			}
		}
	}
}

// inserts are boxes with things in them, kept apart in every way.
func inserts(each func(name string, b brief.Brief)) {
	for _, family := range []string{"tray-lid", "sleeve-drawer", "hinged-lid"} {
		for _, apart := range []string{"platform", "grid", "trays", "dividers", "cradle", "none"} {
			for _, adhesive := range []string{"tape", "glue"} {
				b := brief.New("mm")
				b.Contents = []brief.Item{{ID: "1", Name: "thumb pot", Shape: "cylinder", Diameter: "44 mm", Height: "30 mm", Count: "2"}}
				b.Box = brief.Box{Style: brief.Text(family)}
				for path, text := range map[string]string{"card.sheet": "a3", "tools.step": "1 mm", "arrange.compartments": apart,
					"tools.adhesive": adhesive} {
					b.Set(path, text)
				}
				each(family+" "+apart+" "+adhesive, b)
			}
		}
	}
}

// What is dropped, done twice or put off to the end, the reader of steps misses: it is not blind.
func TestStepsDoneWrongAreMissed(t *testing.T) {
	tried := 0
	for _, family := range []string{"tray-lid", "gable-cap", "sleeve-drawer", "pinch-top", "carton", "wrap-cover"} {
		p := Make(dressed(metric(family, 96, 70, 44, "card.join", "yes", "tools.adhesive", "glue"), `{"layers": [{"on": "outside"}]}`), Default)
		if faults := do(p, p.Steps); !p.Holds() || len(faults) > 0 {
			t.Fatalf("%s: %v %v", family, p.Problems, faults)
		}
		for i, s := range p.Steps {
			without := slices.Delete(slices.Clone(p.Steps), i, i+1)
			spoilt := map[string][]bench.Step{"dropped": without, "twice": slices.Insert(slices.Clone(p.Steps), i, s)}
			if s.Title == "Score" || s.Title == "Cut" || strings.HasPrefix(s.Title, "Stick") || s.Title == "Fill" {
				spoilt["last"] = append(slices.Clone(without), s)
			}
			for how, steps := range spoilt {
				if tried++; len(do(p, steps)) == 0 {
					t.Errorf("%s: %s %s goes unnoticed", family, s.ID, how)
				}
			}
			for n, f := range s.Frames {
				if f.Look != bench.Cutting && f.Look != bench.OnSheet && f.Look != bench.Marked {
					continue
				}
				bad := slices.Clone(p.Steps)
				bad[i].Frames = slices.Delete(slices.Clone(s.Frames), n, n+1)
				if tried++; len(do(p, bad)) == 0 {
					t.Errorf("%s: %s without picture %d goes unnoticed", family, s.ID, n)
				}
			}
		}
	}
	t.Logf("%d tried", tried)
}

// All styles with every answer, closure, handle, dressing and school: whoever does what the steps
// say and light ends with the plan's box.
func TestStepsCanBeDone(t *testing.T) {
	made, all := 0, map[string]int{}
	each := func(name string, b brief.Brief) {
		p := Make(b, Default)
		if !p.Holds() {
			return
		}
		made++
		for _, fault := range do(p, p.Steps) {
			if all[fault]++; all[fault] == 1 {
				t.Errorf("%s: %s", name, fault)
			}
		}
	}
	doings(each)
	inserts(each)
	t.Logf("%d boxes made", made)
	if made < 100 {
		t.Errorf("only %d boxes could be made", made)
	}
}
