// Package tried makes boxes to try things on: random ones, of a size, of what goes in, dressed; and says what is wrong
// with what came of them. Only tests import it.
package tried

import (
	"encoding/json"
	"flag"
	"fmt"
	"math/rand/v2"
	"regexp"
	"slices"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/assembly"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/core/style"
)

func StepOf(p *plan.Plan, id string) bench.Step {
	s, _ := sets.JobOf(p).Step(id)
	return s
}

// Dressed lays the dressing of a text in JSON on a brief.
func Dressed(b brief.Brief, dress string) brief.Brief {
	b = b.Clone()
	if err := json.Unmarshal([]byte(dress), &b.Dress); err != nil {
		panic(err)
	}
	return b
}

// Metric is a brief of a style and a size in whole millimetres, on A3.
func Metric(styleID string, l, w, d int, options ...string) brief.Brief {
	mm := func(n int) string { return fmt.Sprintf("%d mm", n) }
	return Sized(mm(l), mm(w), mm(d), append([]string{"units", "mm", "tools.step", "1 mm", "card.sheet", "a3", "box.style",
		styleID}, options...)...)
}

// Taken is a brief after clicks on what mends it: the problems' own changes, or
// the first remedy that makes it fit.
func Taken(b brief.Brief, set brief.Changes) brief.Brief {
	b = b.Clone()
	for field, text := range set.All() {
		b.Set(field, text)
	}
	return b
}

// Suit makes a random size one that the style can have: an arch is half as high as
// it is wide, and more.
func Suit(b *brief.Brief, s *style.Style) {
	if s.ID == "arched-box" {
		l, _ := measure.Parse(string(b.Size.Length), measure.Millimetres)
		d, _ := measure.Parse(string(b.Size.Depth), measure.Millimetres)
		b.Size.Depth = brief.Text((d + l/2).Exact(measure.Millimetres))
	}
}

// Proved proves the box of a plan again, after a test has spoilt it.
func Proved(p *plan.Plan) string {
	return assembly.Said(p.Box.Prove(assembly.Means{T: p.Card.Caliper, Width: p.Adhesive.Width, Proud: p.Room.Proud},
		p.Blocks))
}

// Stated plans a size to the letter that holds a block of some size, with no
// room at all round it.
func Stated(b brief.Brief, d style.Dims) *plan.Plan {
	text := func(l measure.Length) brief.Text { return brief.Text(l.Exact(measure.Millimetres)) }
	b.Contents = []brief.Item{{Name: "block", Shape: "block", Length: text(d.Length), Width: text(d.Width),
		Height: text(d.Depth), Count: "1", Upright: "yes"}}
	b.Room = brief.Room{Around: "0", Between: "0", Padding: "0", Below: "0", Above: "0"}
	b.Arrange = brief.Arrange{}
	return advice.Make(b, request.Default)
}

// Said is what keeps a plan from holding, but for sheets that are too small.
func Said(p *plan.Plan) string {
	var out []string
	for _, pr := range p.Problems {
		out = append(out, pr.Text)
	}
	for _, c := range p.Checks {
		if !c.Holds && !strings.HasPrefix(c.Name, "every piece fits") {
			out = append(out, c.Name+": "+c.Figure)
		}
	}
	return strings.Join(out, "; ")
}

// Sized is a brief of given size on 0.27 mm card, snug, in sixteenths.
func Sized(l, w, d string, options ...string) brief.Brief {
	b := brief.New("in")
	b.Contents = nil
	b.Size = &brief.Size{Length: brief.Text(l), Width: brief.Text(w), Depth: brief.Text(d)}
	for i := 0; i+1 < len(options); i += 2 {
		b.Set(options[i], options[i+1])
	}
	return b
}

// Random gives any brief a maker might ask for, in either unit.
func Random(r *rand.Rand) brief.Brief {
	units := []string{"in", "mm"}[r.IntN(2)]
	b := brief.New(units)
	pick := func(words ...string) brief.Text { return brief.Text(words[r.IntN(len(words))]) }
	// Half of all sizes are near the least there may be, where boxes begin to be
	// refused.
	length := func(low, high float64) brief.Text {
		share := r.Float64()
		if r.IntN(2) == 0 {
			share *= share * share
		}
		mm := low + share*(high-low)
		if units == "in" {
			return brief.Text(measure.FromMM(mm).Near(measure.Inch / 32).Exact("in"))
		}
		return brief.Text(measure.FromMM(mm).Near(measure.Millimetre / 2).Exact("mm"))
	}
	b.Tools = brief.Tools{Step: pick("1/8 in", "1/16 in", "1/32 in", "1 mm", "0.5 mm"),
		Fit: pick("snug", "easy", "loose"), Adhesive: pick("", "tape", "glue")}
	b.Card = brief.Card{Stock: brief.Text(request.Default.Cards[r.IntN(len(request.Default.Cards))].ID), Sheet: "a3"}
	if r.IntN(2) == 0 {
		b.Contents, b.Size = nil, &brief.Size{Length: length(24, 160), Width: length(8, 140), Depth: length(10, 70)}
	} else {
		b.Contents = []brief.Item{{Name: "thing", Shape: pick("block", "ball", "cylinder"),
			Length: length(10, 120), Width: length(10, 90), Height: length(2, 40),
			Diameter: length(10, 45), Count: brief.Whole(fmt.Sprint(1 + r.IntN(6)))}}
	}
	set := func(id string, words ...string) { b.Set("box.options."+id, string(pick(words...))) }
	set("tabs", "", "full", "half", "narrow")
	set("lid", "", "short", "full")
	set("clearance", "grow-lid", "trim-base", "shift-scores")
	if r.IntN(3) == 0 {
		b.Set("box.options.lid-height", string(length(12, 40)))
	}
	return b
}

func WantProblem(t *testing.T, b brief.Brief, field, text string) {
	t.Helper()
	p := advice.Make(b, request.Default)
	for _, pr := range p.Problems {
		if pr.Field == field && pr.Text != "" && pr.Fix != "" {
			if p.OK() || p.Holds() || p.Box != nil {
				t.Errorf("%s = %q has a problem and a plan all the same", field, text)
			}
			return
		}
	}
	t.Errorf("%s = %q gives %+v", field, text, p.Problems)
}

// Second is a box of the second set, of a size in millimetres, with options.
func Second(t *testing.T, id, size, options string) *plan.Plan {
	t.Helper()
	d := strings.Split(size, " ")
	b := Sized(d[0]+" mm", d[1]+" mm", d[2]+" mm", "units", "mm", "tools.step", "1 mm", "card.sheet", "a3", "card.join", "yes",
		"box.style", id)
	for o := range strings.SplitSeq(options, ",") {
		if field, answer, ok := strings.Cut(o, "="); strings.Contains(field, ".") {
			b.Set(field, answer)
		} else if ok {
			b.Set("box.options."+field, answer)
		}
	}
	p := advice.Make(b, request.Default)
	if !p.Holds() {
		t.Fatal(id, size, options, p.Problems, Said(p))
	}
	return p
}

// ASet is a set of trays with lids in millimetres: the first of a size, the others
// as they say.
func ASet(kind, step string, boxes ...brief.Member) brief.Brief {
	b := Sized("120 mm", "100 mm", "40 mm", "units", "mm", "tools.step", "1 mm", "card.sheet", "a3", "card.join", "yes")
	all := append([]brief.Member{{ID: "1", Name: "first"}}, boxes...)
	b.Several = &brief.Set{Kind: brief.Text(kind), Step: brief.Text(step), Boxes: all}
	return b
}

func Warned(p *plan.Plan, code string) string {
	i := slices.IndexFunc(p.Warnings, func(w brief.Warning) bool { return w.Code == code })
	if i < 0 {
		return ""
	}
	return p.Warnings[i].Text
}

// Long asks for as many boxes a style as were ever tried: ./check makes do with
// a sixtieth of them (docs/map.md says when to ask for all).
var Long = flag.Bool("long", false, "plan thousands of boxes a style")

// Fewer is half of that, for what is planned of every style.
func Fewer(most int) int {
	if *Long {
		return most
	}
	return most / 120
}

// Unmended plans a brief without a search for remedies.
func Unmended(b brief.Brief) *plan.Plan { return plan.Make(b, request.Default) }

// Combinations is how many ways a style's choices may be answered.
func Combinations(style *style.Style) int {
	n := 1
	for _, o := range style.Asks {
		n *= max(1, len(o.Choices))
	}
	return n
}

// Answer gives the choices their answers in the nth combination.
func Answer(b *brief.Brief, style *style.Style, n int) {
	for _, o := range style.Asks {
		if k := len(o.Choices); k > 0 {
			b.Set("box.options."+o.ID, o.Choices[n%k].ID)
			n /= k
		}
	}
}

// Many is 24 kinds of thing.
func Many() brief.Brief {
	b := brief.New("mm")
	b.Card.Sheet, b.Contents = "a3", nil
	for i := range 24 {
		b.Contents = append(b.Contents, brief.Item{Name: brief.Text(fmt.Sprint("thing ", i)),
			Shape:  []brief.Text{"block", "ball", "cylinder"}[i%3],
			Length: brief.Text(fmt.Sprint(14+i, " mm")), Width: "12 mm", Height: "10 mm",
			Diameter: brief.Text(fmt.Sprint(12+i/2, " mm")), Count: "1"})
	}
	return b
}

// Tell writes a piece as makers do: size, scores across, scores down.
func Tell(p *net.Piece) string {
	var across, down []string
	for _, s := range p.Passes {
		at := strings.TrimSuffix(s.At.Exact(measure.Inches), " in")
		if s.AlongWidth {
			across = append(across, at)
		} else {
			down = append(down, at)
		}
	}
	return fmt.Sprintf("%s x %s: %s; %s", strings.TrimSuffix(p.Width.Exact("in"), " in"), p.Height.Exact("in"),
		strings.Join(across, ", "), strings.Join(down, ", "))
}

// Boxes is how many random boxes a test plans.
func Boxes(most int) int {
	if *Long {
		return most
	}
	return most / 60
}

// Badly finds what no sentence at the bench should hold: marks of a program,
// words twice, blanks astray, names of faces as the code writes them.
var Badly = regexp.MustCompile(`%!|\bthe the\b|  | [.,;]|\.\.|;\.|,\.|<nil>|\bmap\[` +
	`|\b[a-z]+-(left|right|back|front|tab|top|bottom|roll|wrap|flap|wing|seal|dust|gusset|roof)\b`)

// Weighing is a box round a block of 100 g, from sheets that are large enough, with things set.
func Weighing(length int, set ...string) brief.Brief {
	b := brief.New("mm")
	b.Card.Sheet = "1000 x 1000 mm"
	b.Contents = []brief.Item{{ID: "1", Name: "jar", Shape: "block", Length: brief.Text(fmt.Sprint(length)), Width: "60",
		Height: "40", Count: "1", Mass: "100 g"}}
	for i := 0; i < len(set); i += 2 {
		b.Set(set[i], set[i+1])
	}
	return b
}
