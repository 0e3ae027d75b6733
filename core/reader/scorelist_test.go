package reader_test

import (
	"fmt"
	"maps"
	"math/rand/v2"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/internal/tried"
)

// listed is a brief of typed pieces: name, what it is, width, height, scores
// across and down, squares away.
func listOf(pieces ...[7]string) brief.Brief {
	b := brief.New("in")
	b.Contents, b.Box, b.Card.Sheet, b.Card.Join = nil, brief.Box{Style: "score-list"}, "a3", "yes"
	for _, p := range pieces {
		b.Box.Pieces = append(b.Box.Pieces, brief.Scored{Name: brief.Text(p[0]), Is: brief.Text(p[1]),
			Width: brief.Text(p[2]), Height: brief.Text(p[3]), Across: brief.Text(p[4]), Down: brief.Text(p[5]),
			Away: brief.Text(p[6])})
	}
	return b
}

// What a list of scores may have wrong, each found and told by name.
func TestScoreList(t *testing.T) {
	base := [7]string{"base", "tray", "9", "7 1/2", "2, 7", "2 and 5 1/2", ""}
	lid := [7]string{"lid", "lid", "6 9/16", "5 1/16", "3/4 both", "3/4; 4 5/16", ""}
	tube := [7]string{"tube", "tube", "270 mm", "230 mm", "90 mm, 130 mm, 220 mm, 260 mm", "15 mm, 55 mm, 175 mm, 215 mm", ""}
	with := func(p [7]string, i int, text string) [7]string { p[i] = text; return p }
	cases := []struct {
		name   string
		pieces [][7]string
		stated string
		wrong  string // a check that fails, a problem or a warning; "" when all is well
	}{
		{"the worked tray and lid", [][7]string{base, lid}, "5 x 3 1/2 x 2", ""},
		{"the worked carton", [][7]string{tube}, "90 mm x 40 mm x 120 mm", ""},
		{"its seam at the left", [][7]string{with(tube, 4, "10 mm, 100 mm, 140 mm, 230 mm")}, "", ""},
		{"a sleeve round the tray", [][7]string{base, {"sleeve", "tube", "5", "11 1/2", "",
			"3 9/16, 5 5/8, 9 3/16, 11 1/4 - no", ""}}, "", "not a length"},
		{"a sleeve, written well", [][7]string{base, {"sleeve", "tube", "11 5/8", "5",
			"3 9/16, 5 5/8, 9 3/16, 11 1/4", "", ""}}, "", "needs 25/64 in"},
		{"opposite walls unequal", [][7]string{with(tube, 4, "90 mm, 130 mm, 218 mm, 258 mm")}, "",
			"opposite walls match: 90 mm and 88 mm"},
		{"no seam", [][7]string{with(with(tube, 2, "260 mm"), 4, "90 mm, 130 mm, 220 mm")}, "", "no clear seam"},
		{"a score beyond the sheet", [][7]string{with(base, 4, "2, 9 1/2")}, "", "is off the piece, which is 9 in wide"},
		{"two scores in one place", [][7]string{with(base, 4, "2, 2 1/64, 7")}, "", "no card to fold"},
		{"a lid that will not go on", [][7]string{base, with(with(lid, 2, "6 1/2"), 3, "5")}, "", "lid clears base"},
		{"a lid that will be tight", [][7]string{with(base, 5, "2, 5 1/2"),
			with(with(lid, 2, "6 17/32"), 3, "5 1/32")}, "", "With this card it needs 1/16 in"},
		{"another finished size", [][7]string{base, lid}, "5 x 4 x 2",
			"finished size matches: these scores give 5 in × 3 1/2 in × 2 in"},
		{"stated by its inside", [][7]string{base}, "4 31/32 x 3 7/16 x 1 15/16", ""},
		{"a liner that goes in", [][7]string{base, {"floor", "liner", "3 3/8", "4 7/8", "", "", ""}}, "", ""},
		{"a liner that can't go in", [][7]string{base, {"floor", "liner", "5", "3 1/2", "", "", ""}}, "", "floor goes in"},
		{"walls of two heights", [][7]string{with(base, 4, "2, 7 1/4")}, "", "different heights: the right is 1 3/4 in"},
		{"a corner cut away", [][7]string{with(base, 6, "1-1")}, "", ""},
		{"all corners cut away", [][7]string{with(base, 6, "corners"), lid}, "", ""},
		{"a wall cut away", [][7]string{with(base, 6, "2-1")}, "", "is the back of the base"},
		{"a flap of a tube cut away", [][7]string{with(with(with(tube, 3, "200 mm"), 5, "40 mm, 160 mm"), 6, "3-1 3-3")}, "", ""},
		{"the same, typed the other way round", [][7]string{{"tube", "tube", "200 mm", "270 mm",
			"40 mm, 160 mm", "90 mm, 130 mm, 220 mm, 260 mm", "1-3 3-3"}}, "90 mm x 40 mm x 120 mm", ""},
		{"no such square", [][7]string{with(base, 6, "4-1")}, "", "There is no square 4-1"},
		{"a square that is none", [][7]string{with(base, 6, "top left")}, "", `"top" isn't a square`},
		{"three scores", [][7]string{with(base, 4, "2, 5, 7")}, "", "3 scores across and 2 down"},
		{"a lid alone", [][7]string{lid}, "", "needs the tray"},
		{"two trays", [][7]string{base, with(base, 0, "other")}, "", "Two pieces are both a tray"},
		{"one name twice", [][7]string{base, with(lid, 0, "base")}, "", "Two pieces are called"},
		{"nothing", nil, "", "There are no pieces"},
		{"what it is, unknown", [][7]string{with(base, 1, "hat")}, "", `can't be "hat"`},
		{"any wall may carry the seam", [][7]string{{"drawer", "tray", "8", "5", "1, 7", "1, 4", ""},
			{"sleeve", "", "6", "8 3/4", "", "3 1/16, 4 1/8, 7 3/16, 8 1/4", ""}}, "", ""},
		{"the seam at a side", [][7]string{{"drawer", "tray", "8", "5", "1, 7", "1, 4", ""},
			{"sleeve", "", "6", "8 3/4", "", "1 1/16, 4 1/8, 5 3/16, 8 1/4", ""}}, "", ""},
		{"a lid much too loose", [][7]string{{"base", "", "9", "7 1/2", "2, 7", "2, 5 1/2", ""},
			{"lid", "", "7", "5 1/2", "3/4 both", "3/4 both", ""}},
			"", "1/2 in larger than what it covers, 7/16 in more than it needs"},
		{"a lid deeper than its base", [][7]string{base, {"lid", "lid", "9 9/16", "8 1/16", "2 1/4 both", "2 1/4 both", ""}},
			"", "is 2 1/4 in deep, but what it covers is only 2 in"},
		{"a sleeve longer than its drawer", [][7]string{{"drawer", "tray", "8", "5", "1, 7", "1, 4", ""},
			{"sleeve", "tube", "7", "8 3/4", "", "3 1/16, 4 1/8, 7 3/16, 8 1/4", ""}}, "",
			"is 7 in long, but what slides in it is only 6 in"},
		{"a strip with a flap", [][7]string{{"box", "", "12", "12", "2 1/2, 9 1/2", "1, 4, 6 1/2, 9 1/2", ""}}, "7 x 3 x 2 1/2",
			"longer than the wall"},
		{"a strip, its corners away", [][7]string{{"box", "strip", "12", "12", "2 1/2, 9 1/2", "1, 4, 6 1/2, 9 1/2",
			"1-1 3-1 1-2 3-2"}}, "", "longer than the wall"},
		{"a strip upside down", [][7]string{{"box", "strip", "12", "12", "2 1/2, 9 1/2", "2 1/2, 5 1/2, 8, 11", "1-5 3-5"}}, "",
			"longer than the wall"},
		{"a strip, its sides from front and back", [][7]string{{"box", "strip", "11", "14", "2, 9", "1, 3 1/16, 8 1/16, 10 1/16",
			"1-1 3-1"}}, "", "different heights: the front is 3 15/16 in"},
		{"a hinged box", [][7]string{{"box", "", "11", "11", "1, 10", "1, 5, 6, 10", ""}}, "9 x 4 x 1", "no wider than its base"},
		{"a hinged box, typed the other way round", [][7]string{{"box", "hinged", "11", "11", "1, 5, 6, 10", "1, 10", ""}}, "",
			"no wider than its base"},
		{"a pinwheel", [][7]string{{"tray", "tray", "200 mm", "160 mm", "40 mm both", "40 mm both", ""}},
			"120 mm x 80 mm x 40 mm", ""},
		{"a gable cap on its tray", [][7]string{{"tray", "tray", "161 mm", "161 mm", "40 mm both", "40 mm both", ""},
			{"cap", "cap", "342 mm", "90 mm", "83 mm, 166 mm, 249 mm, 332 mm", "12 mm, 66 mm", ""}}, "", ""},
		{"a gable that can't close", [][7]string{{"cap", "cap", "342 mm", "90 mm", "83 mm, 166 mm, 249 mm, 332 mm",
			"12 mm, 50 mm", ""}}, "", "don't meet over a width"},
		{"a pinch-top tube", [][7]string{{"tube", "pinch", "290 mm", "200 mm", "70 mm, 140 mm, 210 mm, 280 mm", "155 mm", ""}},
			"", ""},
		{"a cover under a tray", [][7]string{base, {"cover", "", "6", "7 9/16", "", "2 and 5 9/16", ""}}, "", ""},
		{"a band round a tray", [][7]string{base, {"band", "band", "2", "11 7/8", "", "3 9/16, 5 5/8, 9 3/16, 11 1/4", ""}}, "",
			""},
		{"a loose panel", [][7]string{base, {"tag", "panel", "3", "2", "", "", ""}}, "", ""},
		{"tabs too long for their wall", [][7]string{{"tray", "tray", "120 mm", "180 mm", "45 mm, 75 mm", "45 mm, 135 mm", ""}},
			"", "longer than the wall"},
		{"too many rows", [][7]string{with(tube, 5, "10 mm, 20 mm, 30 mm, 40 mm, 50 mm")}, "", "too many to tell"},
	}
	for _, c := range cases {
		b := listOf(c.pieces...)
		if d := strings.Split(c.stated, " x "); len(d) == 3 {
			b.Box.Stated = &brief.Size{Length: brief.Text(d[0]), Width: brief.Text(d[1]), Depth: brief.Text(d[2])}
		}
		p := advice.Make(b, request.Default)
		var wrong []string
		for _, pr := range p.Problems {
			wrong = append(wrong, pr.Text)
		}
		for _, ch := range p.Checks {
			if !ch.Holds {
				wrong = append(wrong, ch.Name+": "+ch.Figure)
			}
		}
		for _, w := range p.Warnings {
			if w.Code != "untrimmed" && w.Code != "off-the-marks" && w.Code != "tall" && w.Code != "two-units" {
				wrong = append(wrong, w.Text)
			}
		}
		got := strings.Join(wrong, "; ")
		if !strings.Contains(got, c.wrong) || c.wrong == "" && got != "" {
			t.Errorf("%s: %q, want %q", c.name, got, c.wrong)
		}
	}
}

var numberIn = regexp.MustCompile(`\d+`)

// typedLists are lists in millimetres that make a box. What is free in each harms nothing when it is
// moved by a step: how far a seam laps, a flap, an end or a roof reaches, how much smaller a liner is;
// what is another box and no worse one, as long as no size is stated, is loose.
var typedLists = []struct {
	name, free, loose string
	pieces            [][7]string
}{
	{"tray and lid", "", "", [][7]string{{"base", "tray", "230 mm", "190 mm", "50, 180", "50, 140", ""},
		{"lid", "lid", "163 mm", "123 mm", "16, 147", "16, 107", ""}}},
	{"carton", "tube width; tube height", "", [][7]string{{"tube", "tube", "270 mm", "230 mm", "90, 130, 220, 260", "15, 55, 175, 215", ""}}},
	{"drawer", "sleeve width; sleeve height", "", [][7]string{{"drawer", "tray", "200 mm", "130 mm", "25, 175", "25, 105", ""},
		{"sleeve", "tube", "150 mm", "230 mm", "", "81, 108, 189, 216", ""}}},
	{"strip", "box down 26; box down 24", "", [][7]string{{"box", "strip", "280 mm", "380 mm", "50, 230", "25, 76, 203, 253", "1-1 3-1"}}},
	{"hinged", "", "", [][7]string{{"box", "hinged", "280 mm", "281 mm", "25, 255", "25, 129, 154, 256", ""}}},
	{"cap", "cap width; cap height; cap down", "", [][7]string{{"tray", "tray", "161 mm", "161 mm", "40, 121", "40, 121", ""},
		{"cap", "cap", "342 mm", "90 mm", "83, 166, 249, 332", "12, 66", ""}}},
	{"pinch", "tube width; tube height", "tube down 15", [][7]string{{"tube", "pinch", "290 mm", "200 mm", "70, 140, 210, 280", "155", ""}}},
	{"pinwheel", "", "", [][7]string{{"tray", "tray", "200 mm", "160 mm", "40, 160", "40, 120", ""}}},
	{"liner", "floor width 8; floor height 12", "", [][7]string{{"base", "tray", "230 mm", "190 mm", "50, 180", "50, 140", ""},
		{"floor", "liner", "88 mm", "128 mm", "", "", ""}}},
	{"cover", "cover width; cover height; cover down 50, 142; cover down 51, 143", "", [][7]string{
		{"base", "tray", "230 mm", "190 mm", "50, 180", "50, 140", ""}, {"cover", "wrapper", "150 mm", "193 mm", "", "51, 142", ""}}},
}

// Every number of typed lists, with a stated size and without, is moved by one step and by three, or
// dropped: what makes a worse box, or another than the stated one, is noticed by a check, a problem or
// a warning.
func TestTypedWrongIsNoticed(t *testing.T) {
	tried := 0
	for _, list := range typedLists {
		plan := func(pieces [][7]string, stated *brief.Size) *plan.Plan {
			b := listOf(pieces...)
			b.Set("units", "mm")
			b.Set("tools.step", "1 mm")
			b.Box.Stated = stated
			return advice.Make(b, request.Default)
		}
		good := plan(list.pieces, nil)
		if !good.Holds() {
			t.Fatal(list.name, good.Problems, good.Checks)
		}
		in := func(l measure.Length) brief.Text { return brief.Text(l.Exact(measure.Millimetres)) }
		size := good.Box.Size
		for _, stated := range []*brief.Size{nil, {Length: in(size.Length), Width: in(size.Width), Depth: in(size.Depth)}} {
			free := list.free
			if stated == nil && list.loose != "" {
				free += "; " + list.loose
			}
			for what, bad := range mistyped(list.pieces, 1, -1, 3, -3) {
				tried++
				p := plan(bad, stated)
				told := !p.Holds() || slices.ContainsFunc(p.Warnings, func(w brief.Warning) bool {
					return !slices.ContainsFunc(good.Warnings, func(o brief.Warning) bool { return o.Text == w.Text })
				})
				harmless := slices.ContainsFunc(strings.Split(free, "; "), func(f string) bool { return f != "" && strings.HasPrefix(what, f) })
				if !told && !harmless {
					t.Errorf("%s, its size stated: %v: not noticed: %s", list.name, stated != nil, what)
				}
			}
		}
	}
	if tried < 800 {
		t.Errorf("only %d tried", tried)
	}
	t.Logf("%d tried", tried)
}

// mistyped gives lists with one number wrong each, by what is wrong.
func mistyped(pieces [][7]string, steps ...int) map[string][][7]string {
	out := map[string][][7]string{}
	for i, piece := range pieces {
		for k, field := range []string{2: "width", 3: "height", 4: "across", 5: "down"} {
			for _, at := range numberIn.FindAllStringIndex(piece[k], -1) {
				n, err := strconv.Atoi(piece[k][at[0]:at[1]])
				if err != nil || k < 2 {
					continue
				}
				for _, by := range steps {
					bad := slices.Clone(pieces)
					bad[i][k] = piece[k][:at[0]] + strconv.Itoa(n+by) + piece[k][at[1]:]
					out[fmt.Sprintf("%s %s %s", piece[0], field, bad[i][k])] = bad
				}
				if k > 3 {
					bad := slices.Clone(pieces)
					bad[i][k] = strings.Trim(piece[k][:at[0]]+piece[k][at[1]:], ", ")
					out[fmt.Sprintf("%s %s dropped from %s", piece[0], field, piece[k])] = bad
				}
			}
		}
	}
	return out
}

// asList writes the pieces of a plan that lists know as a list of scores: cut sizes, scores, and the squares
// that are cut away where that is said.
func asList(made *plan.Plan, roles map[string]string, away bool) brief.Brief {
	list := listOf()
	list.Units, list.Tools, list.Box.Stated = made.Brief.Units, made.Brief.Tools, made.Brief.Size
	for _, p := range made.Box.Pieces() {
		role, known := roles[p.Name]
		if !known {
			continue
		}
		s := brief.Scored{Name: brief.Text(p.Name), Is: brief.Text(role),
			Width:  brief.Text(p.Width.Exact(made.Units)),
			Height: brief.Text(p.Height.Exact(made.Units))}
		s.Across, s.Down = passes(p, true), passes(p, false)
		if away {
			s.Away = cutAway(p)
		}
		list.Box.Pieces = append(list.Box.Pieces, s)
	}
	return list
}

// cutAway names the squares of a piece that are no card.
func cutAway(p *net.Piece) brief.Text {
	edges := func(across bool, size measure.Length) []measure.Length {
		return append(append([]measure.Length{0}, scoresOf(p, across)...), size)
	}
	var out []string
	xs, ys := edges(true, p.Width), edges(false, p.Height)
	for r := range len(ys) - 1 {
		for c := range len(xs) - 1 {
			mid := net.Point{X: (xs[c] + xs[c+1]) / 2, Y: (ys[r] + ys[r+1]) / 2}
			if !slices.ContainsFunc(p.Kept(), func(f *net.Face) bool { return net.Inside(f.Points, mid) }) {
				out = append(out, fmt.Sprintf("%d-%d", c+1, r+1))
			}
		}
	}
	return brief.Text(strings.Join(out, " "))
}

// What a style cuts, read back as a list of scores, is the same box: of every style that a list can say, with
// every answer that changes how many rows and columns there are.
func TestScoreListReadsWhatStylesCut(t *testing.T) {
	r := rand.New(rand.NewPCG(8, 8))
	tray := map[string]string{"base": "tray", "drawer": "tray", "tray": "tray", "lid": "lid", "sleeve": "tube", "cap": "cap",
		"base cover": "wrapper"}
	styles := []struct {
		id    string
		asks  map[string][]string
		roles map[string]string
	}{
		{"tray-lid", map[string][]string{"walls": {"single", "rolled", "pinwheel"}, "lid": {"full", "short", "none"}}, tray},
		{"sleeve-drawer", map[string][]string{"walls": {"single", "rolled"}}, tray},
		{"carton", map[string][]string{"top": {"tuck", "glued", "ledge"}, "bottom": {"tuck", "glued", "ledge"}},
			map[string]string{"carton": "tube"}},
		{"gable-cap", map[string][]string{"gussets": {"scored"}}, tray},
		{"pinch-top", nil, map[string]string{"tube": "pinch"}},
		{"flap-box", map[string][]string{"sides": {"from-walls", "from-base"}, "dust": {"yes", "no"}, "closure": {"dot", "tuck"}},
			map[string]string{"box": "strip"}},
		{"hinged-lid", nil, map[string]string{"box": "hinged"}},
		{"wrap-cover", nil, tray},
	}
	for n := range tried.Boxes(3000) {
		s := styles[n%len(styles)]
		mm := func(lo, hi int) string { return fmt.Sprintf("%d mm", lo+r.IntN(hi-lo)) }
		b := tried.Sized(mm(80, 130), mm(50, 80), mm(24, 38), "units", "mm", "tools.step", "1 mm", "card.sheet", "600 x 600 mm",
			"box.style", s.id, "card.join", "yes")
		if s.id == "carton" || s.id == "pinch-top" {
			b.Set("size.depth", mm(60, 120))
		}
		if s.id == "hinged-lid" { // else lid and base are scored apart
			b.Set("tools.allowances", "plain")
		}
		for _, ask := range slices.Sorted(maps.Keys(s.asks)) {
			b.Set("box.options."+ask, s.asks[ask][r.IntN(len(s.asks[ask]))])
		}
		made := advice.Make(b, request.Default)
		if !made.Holds() {
			continue // a size that this style does without
		}
		for _, away := range []bool{false, true} {
			list := asList(made, s.roles, away)
			got := advice.Make(list, request.Default)
			if !got.Holds() || got.Box.Size != made.Box.Size {
				t.Errorf("%s %v, squares away %v: %v instead of %v: %v %s\n%s", s.id, b.Box.Options, away, got.OK(), made.Box.Size,
					got.Problems, tried.Said(got), list.Encode())
			}
		}
	}
}

// passes lists the scores one way as a person would pass them on.
func passes(p *net.Piece, across bool) brief.Text {
	var words []string
	for _, l := range scoresOf(p, across) {
		words = append(words, l.Exact(measure.Millimetres))
	}
	return brief.Text(strings.Join(words, ", "))
}

// scoresOf gives the places of a piece's scores one way, from its edge.
func scoresOf(p *net.Piece, across bool) (at []measure.Length) {
	for _, s := range p.Passes {
		whole := p.Height
		if !across {
			whole = p.Width
		}
		if s.AlongWidth == across && s.To-s.From > whole/4 { // short ones, of gussets, are told by themselves
			at = append(at, s.At)
		}
	}
	slices.Sort(at)
	at = slices.Compact(at)
	for i := 1; i < len(at); i++ { // a lid's sides are scored a hair further out: the base's are passed on
		if at[i]-at[i-1] < 2*measure.Millimetre {
			if at[i] < p.Width/2 {
				i--
			}
			at = slices.Delete(at, i, i+1)
		}
	}
	return at
}

// Whatever is typed, nothing panics, and what can't be is told.
func FuzzScoreList(f *testing.F) {
	f.Add("9", "7 1/2", "2, 7", "2, 5 1/2", "corners", "tray")
	f.Add("270 mm", "230 mm", "90,130,220,260", "15 mm both", "1-1 5-5", "tube")
	f.Fuzz(func(t *testing.T, w, h, across, down, away, is string) {
		p := advice.Make(listOf([7]string{"it", is, w, h, across, down, away}), request.Default)
		if !p.OK() && len(p.Problems) == 0 {
			t.Error("no box and no reason")
		}
	})
}

// A typed piece larger than every sheet is refused at its own longer side.
func TestTypedPieceTooLarge(t *testing.T) {
	for want, size := range map[string][4]string{"box.pieces.1.width": {"99 in", "7 1/2 in", "1 in, 98 in", "1 in, 6 1/2 in"},
		"box.pieces.1.height": {"7 1/2 in", "99 in", "1 in, 6 1/2 in", "1 in, 98 in"}} {
		b := listOf([7]string{"slip", "panel", "3 in", "2 in"}, [7]string{"base", "tray", size[0], size[1], size[2], size[3]})
		b.Card.Join = "no"
		p := advice.Make(b, request.Default)
		if p.OK() || p.Problems[0].Field != want {
			t.Errorf("%+v, want it at %s", p.Problems, want)
			continue
		}
		if again := advice.Make(tried.Taken(b, p.Problems[0].Set), request.Default); !again.OK() {
			t.Errorf("its mend: %+v", again.Problems)
		}
	}
}
