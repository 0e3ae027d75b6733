package bench

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/words"
)

// What a maker is told is proved, as the box is: she cuts by the score card, the words and the lit cuts, not by the
// net that was folded. So the net is laid out once more from nothing but the card's own numbers, the slits as they
// are told and the openings' sizes and places, and must come out as the net that was proved: every crease told,
// each the way it folds, no score over card that stays whole, every slit and opening, and no other.

// ToldRight is the check that score cards and cuts tell the nets that were proved. Pieces without
// a card are only cut.
func ToldRight(pieces []*net.Piece, cards []ScoreCard, cuts func(*net.Piece) []Cuts, say func(Length) string) fold.Check {
	c := fold.Check{Name: "score cards and cuts match the drawings", Holds: true}
	scores, slits := 0, 0
	var faults []string
	for _, p := range pieces {
		t := toldNet{Piece: p, say: say}
		if i := slices.IndexFunc(cards, func(c ScoreCard) bool { return c.Piece == p.Name }); i >= 0 {
			t.card(cards[i])
		} else {
			t.w, t.h = p.Width, p.Height
		}
		t.cuts(cuts(p))
		for _, f := range t.faults() {
			faults = append(faults, p.Name+": "+f)
		}
		scores, slits = scores+len(t.scores), slits+len(t.slits)
	}
	c.Figure = fmt.Sprintf("%d scores and %d slits of %s", scores, slits, plural(len(pieces), "piece"))
	if len(faults) > 0 {
		c.Holds, c.Figure = false, strings.Join(faults[:min(3, len(faults))], "; ")
	}
	return c
}

// toldNet is a piece as it is told.
type toldNet struct {
	*net.Piece
	say    func(Length) string
	w, h   Length
	scores []net.Line // with the way they fold
	slants []net.Line
	slits  []net.Line
	away   []*net.Face
	wrong  []string
}

// card takes up what a score card says.
func (t *toldNet) card(c ScoreCard) {
	t.w, t.h = c.W, c.H
	for _, turn := range c.Turns {
		for _, m := range turn.At {
			l := net.Line{Kind: net.Score, Fold: map[bool]net.Fold{true: net.Mountain}[m.Mountain]}
			if got := m.Groove - m.Spacer; !m.Ruler && got != m.At { // what the board does with it
				t.wrong = append(t.wrong, fmt.Sprintf("the score %s from the %s edge is set in the wrong groove", t.say(m.At), turn.Edge))
			}
			from, to := m.From, m.To
			switch turn.Edge {
			case "left", "right":
				if to == 0 {
					to = t.h
				}
				x := map[bool]Length{true: m.At, false: t.w - m.At}[turn.Edge == "left"]
				l.A, l.B = net.Point{X: x, Y: from}, net.Point{X: x, Y: to}
			default:
				if to == 0 {
					to = t.w
				}
				y := map[bool]Length{true: m.At, false: t.h - m.At}[turn.Edge == "top"]
				l.A, l.B = net.Point{X: from, Y: y}, net.Point{X: to, Y: y}
			}
			t.scores = append(t.scores, l)
		}
	}
	for _, s := range c.Slants {
		t.slants = append(t.slants, s.Line)
	}
}

// cuts takes up what is lit and told as cut, place by place: slits by the words that tell them.
func (t *toldNet) cuts(all []Cuts) {
	for _, c := range all {
		for _, l := range c.Slits {
			t.slits = append(t.slits, slitOf(t.Piece, l).line(t.w, t.h))
		}
		t.away = append(t.away, c.Away...)
	}
}

// faults compares the piece as it is told with the piece that was proved.
func (t *toldNet) faults() []string {
	out := slices.Clone(t.wrong)
	note := func(format string, args ...any) { out = append(out, fmt.Sprintf(format, args...)) }
	if t.w != t.Width || t.h != t.Height {
		note("the score card says %s × %s and the drawing %s × %s", t.say(t.w), t.say(t.h), t.say(t.Width), t.say(t.Height))
	}
	var drawn []net.Line // everything along which a score may run
	for _, l := range t.Outline() {
		drawn = append(drawn, l)
		var by []net.Line
		switch {
		case l.Kind == net.Score:
			by = slices.Concat(t.scores, t.slants)
		case l.Kind == net.Bend:
			by = t.slants
		default:
			continue
		}
		if !covered(l, by, func(o net.Line) bool { return o.Kind == l.Kind && (o.Fold == l.Fold || l.Kind == net.Bend) }) {
			note("the %s from %s is not as it is drawn", words.Plain(l.Kind.String()), t.fromTo(l))
		}
	}
	for _, s := range t.scores {
		if at, ok := t.acrossCard(s, drawn); ok {
			note("the score card scores a face that stays flat, at %s across, %s down", t.say(at.X), t.say(at.Y))
		}
	}
	for _, s := range t.slants {
		if !covered(s, drawn, func(o net.Line) bool { return o.Kind == s.Kind && o.Fold == s.Fold || s.Kind == net.Bend }) {
			note("the score card has a line from %s that the drawing doesn't", t.fromTo(s))
		}
	}
	out = append(out, t.slitFaults()...)
	return append(out, t.openingFaults()...)
}

func (t *toldNet) fromTo(l net.Line) string {
	return fmt.Sprintf("%s, %s to %s, %s", t.say(l.A.X), t.say(l.A.Y), t.say(l.B.X), t.say(l.B.Y))
}

// covered reports whether other lines lie along all of a line; what is left between two may be a
// hair, where a root was rounded.
func covered(l net.Line, by []net.Line, may func(net.Line) bool) bool {
	var spans [][2]float64
	for _, o := range by {
		if !may(o) {
			continue
		}
		if from, to, ok := shared(l, o); ok {
			spans = append(spans, [2]float64{from, to})
		}
	}
	slices.SortFunc(spans, func(a, b [2]float64) int {
		if a[0] < b[0] {
			return -1
		}
		return 1
	})
	const hair = 1e-3
	reach := 0.0
	for _, s := range spans {
		if s[0] > reach+hair {
			return false
		}
		reach = max(reach, s[1])
	}
	return reach >= 1-hair
}

// offLine is how far apart, in millimetres, two lines may lie and still be one: less than any tool shows, and more
// than finding a crossing moves it.
const offLine = 0.01

// shared is the part of a line, from 0 to 1, along which another lies.
func shared(l, o net.Line) (from, to float64, ok bool) {
	ux, uy := (l.B.X - l.A.X).MM(), (l.B.Y - l.A.Y).MM()
	long := math.Hypot(ux, uy)
	if long == 0 {
		return 0, 0, false
	}
	ux, uy = ux/long, uy/long
	at := func(q net.Point) (along, beside float64) {
		x, y := (q.X - l.A.X).MM(), (q.Y - l.A.Y).MM()
		return (x*ux + y*uy) / long, math.Abs(x*uy - y*ux)
	}
	a, offA := at(o.A)
	b, offB := at(o.B)
	if a > b {
		a, b = b, a
	}
	from, to = max(a, 0), min(b, 1)
	return from, to, offA < offLine && offB < offLine && to > from
}

// acrossCard finds a place where a score that is told would run over card that stays in one piece.
func (t *toldNet) acrossCard(s net.Line, drawn []net.Line) (at net.Point, found bool) {
	ends := []float64{0, 1}
	for _, o := range drawn {
		if from, to, ok := shared(s, o); ok {
			ends = append(ends, from, to)
		} else if k, ok := crosses(s, o); ok {
			ends = append(ends, k)
		}
	}
	slices.Sort(ends)
	for i := 1; i < len(ends); i++ {
		if ends[i]-ends[i-1] < 1e-3 {
			continue
		}
		k := (ends[i] + ends[i-1]) / 2
		mid := net.Point{X: s.A.X + measure.FromMM((s.B.X-s.A.X).MM()*k), Y: s.A.Y + measure.FromMM((s.B.Y-s.A.Y).MM()*k)}
		along := slices.ContainsFunc(drawn, func(o net.Line) bool {
			from, to, ok := shared(s, o)
			return ok && from <= k && to >= k
		})
		if !along && slices.ContainsFunc(t.Kept(), func(f *net.Face) bool { return holds(f, mid) }) {
			return mid, true
		}
	}
	return at, false
}

// holds reports whether a place lies on a face, and in no hole of it.
func holds(f *net.Face, at net.Point) bool {
	return net.Inside(f.Points, at) &&
		!slices.ContainsFunc(f.Holes, func(h []net.Point) bool { return net.Inside(h, at) })
}

// crosses gives where, from 0 to 1, a line is crossed by another.
func crosses(s, o net.Line) (float64, bool) {
	ux, uy := (s.B.X - s.A.X).MM(), (s.B.Y - s.A.Y).MM()
	vx, vy := (o.B.X - o.A.X).MM(), (o.B.Y - o.A.Y).MM()
	cross := ux*vy - uy*vx
	if math.Abs(cross) < 1e-9 {
		return 0, false
	}
	wx, wy := (o.A.X - s.A.X).MM(), (o.A.Y - s.A.Y).MM()
	k, n := (wx*vy-wy*vx)/cross, (wx*uy-wy*ux)/cross
	return k, k > 0 && k < 1 && n >= -1e-9 && n <= 1+1e-9
}

// slitFaults compares the slits: each cut between two faces that stay is told, and no other is;
// all that is cut away is lit once.
func (t *toldNet) slitFaults() (out []string) {
	var drawn []net.Line
	for _, f := range t.Faces {
		for _, e := range f.Edges {
			if e.Kind != net.Cut || e.Beyond == nil {
				continue
			}
			if drawn = append(drawn, e.Line); f.Waste || e.Beyond.Waste { // what goes is lit whole
				continue
			}
			if !covered(e.Line, t.slits, func(net.Line) bool { return true }) {
				out = append(out, fmt.Sprintf("no step has the slit from %s", t.fromTo(e.Line)))
			}
		}
	}
	for _, s := range t.slits {
		if !covered(s, drawn, func(net.Line) bool { return true }) {
			out = append(out, fmt.Sprintf("the steps have a slit from %s that the drawing doesn't", t.fromTo(s)))
		}
	}
	lit := map[*net.Face]int{}
	for _, f := range t.away {
		lit[f]++
	}
	for _, f := range t.Faces[len(t.Kept()):] {
		if lit[f] != 1 {
			lo, _ := f.Bounds()
			out = append(out, fmt.Sprintf("the part cut away at %s across, %s down is marked %d times", t.say(lo.X), t.say(lo.Y), lit[f]))
		}
	}
	return out
}

// openingFaults compares the sizes and places that openings are told with what is drawn.
func (t *toldNet) openingFaults() (out []string) {
	told := 0
	note := func(what string, lo, hi net.Point) {
		out = append(out, fmt.Sprintf("the %s at %s across, %s down is not so in the drawing", what, t.say((lo.X+hi.X)/2), t.say((lo.Y+hi.Y)/2)))
	}
	open := t.Faces[len(t.Kept()):]
	box := func(what string, lo, hi net.Point, slack Length) {
		told++
		if !slices.ContainsFunc(open, func(f *net.Face) bool {
			a, b := f.Bounds()
			return same(a, lo, slack) && same(b, hi, slack)
		}) {
			note(what, lo, hi)
		}
	}
	for _, w := range t.Windows {
		box("window", w.Lo, w.Hi, 0)
	}
	for _, s := range t.Slots {
		l := s.X - s.Width/2
		lo, hi := net.Point{X: l}, net.Point{X: l + s.Width, Y: s.Depth}
		if s.FromBottom {
			lo.Y, hi.Y = t.Height-s.Depth, t.Height
		}
		box("slot", lo, hi, 0)
	}
	for _, h := range t.Punches {
		told++
		if !t.Proved(h) {
			note("round hole", h.Mid, h.Mid)
		}
	}
	holes := 0
	for _, f := range open {
		if punchedOut(f) {
			holes++
		}
	}
	if inside := len(t.Windows) + len(t.Punches); inside < holes && !t.Shaped() {
		out = append(out, fmt.Sprintf("the drawing has %d openings and the steps %d", holes, inside))
	}
	return out
}

func same(a, b net.Point, slack Length) bool {
	return (a.X-b.X).Abs() <= slack && (a.Y-b.Y).Abs() <= slack
}
