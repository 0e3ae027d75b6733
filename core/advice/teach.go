package advice

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/core/words"
)

// A list of scores that can't be is told like a teacher tells it: which number is wrong, what it should be,
// and what then comes right. Each number is tried a mark and more either way, from its other edge, and as
// its neighbours have it; scores are left out and put in, and the two sides exchanged. Each try is folded.

const (
	teachMarks = 6   // how many marks either way a number is tried
	teachTries = 420 // lists folded, at most
	teachTells = 3   // suspects told
)

// telling are the warnings that speak of a wrong number in a list.
var telling = []string{"uneven-walls", "short-lid", "long-lid", "tight-lid", "loose-lid", "uneven-lid", "loose-cover", "deep-lid",
	"long-sleeve", "long-flap", "short-flap", "long-tabs"}

// Suspect is a number of a list that may be wrong, and what it should be.
type Suspect struct {
	Field string        `json:"field"` // "box.pieces.0.down"
	Text  string        `json:"text"`  // which number, what it should be, and what then comes right
	Set   brief.Changes `json:"set"`
	rank  rank
}

// rank orders suspects: what is left wrong, what kind of slip it is, by how much.
type rank struct {
	ills, kind int
	by         measure.Length
}

func (a rank) compare(b rank) int {
	return cmp.Or(cmp.Compare(a.ills, b.ills), cmp.Compare(a.kind, b.kind), cmp.Compare(a.by, b.by))
}

// Suspects finds the smallest changes of one number that make a list of scores right; none where nothing is
// wrong, or nothing small helps.
func Suspects(p *plan.Plan, w request.Workshop) []Suspect {
	if p.Style == nil || !p.Style.Typed {
		return nil
	}
	now := plan.Proof(p.Brief, w)
	if ills(now) == 0 || unreadable(p) {
		return nil
	}
	t := teacher{plan: p, w: w, now: now, best: ills(now), seen: map[string]bool{}}
	for _, s := range p.Scores {
		t.read(s)
	}
	slices.SortStableFunc(t.slips, func(a, b slip) int { return cmp.Or(cmp.Compare(a.kind, b.kind), cmp.Compare(a.by, b.by)) })
	for _, s := range t.slips[:min(len(t.slips), teachTries)] {
		if n := len(t.found); n > 0 && t.best == 0 && cmp.Or(cmp.Compare(s.kind, t.found[n-1].rank.kind),
			cmp.Compare(s.by, t.found[n-1].rank.by)) > 0 {
			break // nothing that follows is smaller
		}
		t.try(s)
	}
	slices.SortStableFunc(t.found, func(a, b Suspect) int { return a.rank.compare(b.rank) })
	return t.found[:min(len(t.found), teachTells)]
}

// unreadable reports whether a number of the list can't be read, which is told by itself.
func unreadable(p *plan.Plan) bool {
	return len(p.Scores) == 0 || len(p.Scores) < len(p.Brief.Box.Pieces) ||
		slices.ContainsFunc(p.Scores, func(s style.Scored) bool { return !s.Read })
}

// slip is one way a list may have been mistyped: the fields as they should then be.
type slip struct {
	kind int // 0 a number a little off, 1 as its neighbours have it, 2 left out or put in, 3 exchanged
	by   measure.Length
	says string
	set  brief.Changes
	at   string
}

type teacher struct {
	plan  *plan.Plan
	w     request.Workshop
	now   *plan.Plan
	best  int
	slips []slip
	seen  map[string]bool
	found []Suspect
}

// add notes a slip once.
func (t *teacher) add(s slip) {
	key := ""
	for field, text := range s.set.All() {
		key += field + "=" + text + ";"
	}
	if !t.seen[key] {
		t.seen[key] = true
		t.slips = append(t.slips, s)
	}
}

// side is one way of a piece: its cut size and its scores.
type side struct {
	size, list string // their fields
	way        string // as one says where a score is
	cut        measure.Length
	at         []measure.Length
}

// read lists the slips of one piece.
func (t *teacher) read(p style.Scored) {
	sides := [2]side{{size: p.Field + "width", list: p.Field + "across", way: "across", cut: p.Wide(), at: p.At[0]},
		{size: p.Field + "height", list: p.Field + "down", way: "down", cut: p.High(), at: p.At[1]}}
	name := words.Plain(p.Name)
	for k, s := range sides {
		t.numbers(name, s, sides[1-k])
	}
	t.both(name, sides)
	exchange := func(a, b string) brief.Changes { return brief.To(a, t.plan.Brief.Get(b), b, t.plan.Brief.Get(a)) }
	if len(sides[0].at) != len(sides[1].at) {
		t.add(slip{kind: 3, by: 1, at: sides[0].list, says: fmt.Sprintf("The scores across and down are swapped in "+
			"the %s", name),
			set: exchange(sides[0].list, sides[1].list)})
	}
	t.add(slip{kind: 3, by: 2, at: sides[0].size, says: fmt.Sprintf("The width and height of the %s are swapped", name),
		set: exchange(sides[0].size, sides[1].size)})
}

// both lists cut sizes that are too large or too small by as much both ways, as a lid's without its clearance.
func (t *teacher) both(name string, sides [2]side) {
	mark := max(t.plan.Step.Size, measure.Millimetre/2)
	for k := measure.Length(-teachMarks); k <= teachMarks; k++ {
		w, h := sides[0].cut+k*mark, sides[1].cut+k*mark
		if k == 0 || w <= 0 || h <= 0 {
			continue
		}
		say := t.plan.Say
		set := brief.To(sides[0].size, w.Exact(t.plan.Units), sides[1].size, h.Exact(t.plan.Units))
		t.add(slip{kind: 1, by: 2 * (k * mark).Abs(), at: sides[0].size, set: set, says: fmt.Sprintf(
			"The %s, %s × %s, should be %s × %s", name, say(sides[0].cut),
			say(sides[1].cut), say(w), say(h))})
	}
}

// numbers lists the slips of one side of a piece.
func (t *teacher) numbers(name string, s, other side) {
	mark := max(t.plan.Step.Size, measure.Millimetre/2)
	near := func(v measure.Length) (out []measure.Length) {
		for k := measure.Length(1); k <= teachMarks; k++ {
			out = append(out, v-k*mark, v+k*mark)
		}
		return out
	}
	for _, v := range near(s.cut) {
		t.cut(name, s, v, 0)
	}
	var parts []measure.Length // distances between scores, both ways
	for _, of := range []side{s, other} {
		last := measure.Length(0)
		for _, at := range append(slices.Clone(of.at), of.cut) {
			parts, last = append(parts, at-last), at
		}
	}
	if n := len(s.at); n > 0 {
		for _, part := range parts {
			t.cut(name, s, s.at[n-1]+part, 1)
		}
	}
	for i, at := range s.at {
		for _, v := range near(at) {
			t.score(name, s, i, v, 0)
		}
		t.score(name, s, i, s.cut-at, 1)
		before, after := measure.Length(0), s.cut
		if i > 0 {
			before = s.at[i-1]
		}
		if i+1 < len(s.at) {
			after = s.at[i+1]
		}
		for _, part := range parts {
			t.score(name, s, i, before+part, 1)
			t.score(name, s, i, after-part, 1)
		}
		left := slices.Delete(slices.Clone(s.at), i, i+1)
		t.add(slip{kind: 2, by: at, at: s.list, set: brief.To(s.list, t.listed(left)),
			says: fmt.Sprintf("Leave out the score %[2]s at %[3]s in the %[1]s", name, s.way, t.plan.Say(at))})
	}
	for i := 0; i <= len(s.at); i++ {
		before := measure.Length(0)
		if i > 0 {
			before = s.at[i-1]
		}
		for _, part := range parts {
			t.missing(name, s, before+part)
		}
	}
	for _, at := range s.at {
		t.missing(name, s, s.cut-at)
	}
}

func (t *teacher) cut(name string, s side, v measure.Length, kind int) {
	if v <= 0 || v == s.cut || len(s.at) > 0 && v <= s.at[len(s.at)-1] {
		return
	}
	what := map[string]string{"across": "width", "down": "height"}[s.way]
	t.add(slip{kind: kind, by: (v - s.cut).Abs(), at: s.size, set: brief.To(s.size, v.Exact(t.plan.Units)),
		says: fmt.Sprintf("The %s of the %s, %s, should be %s", what, name, t.plan.Say(s.cut), t.plan.Say(v))})
}

func (t *teacher) score(name string, s side, i int, v measure.Length, kind int) {
	if v <= 0 || v >= s.cut || slices.Contains(s.at, v) {
		return
	}
	list := slices.Clone(s.at)
	list[i] = v
	slices.Sort(list)
	t.add(slip{kind: kind, by: (v - s.at[i]).Abs(), at: s.list, set: brief.To(s.list, t.listed(list)),
		says: fmt.Sprintf("In the %s, the score %s at %s should be at %s", name, s.way, t.plan.Say(s.at[i]), t.plan.Say(v))})
}

func (t *teacher) missing(name string, s side, v measure.Length) {
	if v <= 0 || v >= s.cut || slices.Contains(s.at, v) {
		return
	}
	list := append(slices.Clone(s.at), v)
	slices.Sort(list)
	t.add(slip{kind: 2, by: v, at: s.list, set: brief.To(s.list, t.listed(list)),
		says: fmt.Sprintf("In the %s, a score %s is missing at %s", name, s.way, t.plan.Say(v))})
}

func (t *teacher) listed(at []measure.Length) string {
	var out []string
	for _, l := range at {
		out = append(out, l.Exact(t.plan.Units))
	}
	return strings.Join(out, ", ")
}

// try folds a list with a slip put right, and keeps it where it leaves less wrong than there was.
func (t *teacher) try(s slip) {
	q := plan.Proof(t.plan.With(s.set), t.w)
	left := ills(q)
	if left > t.best || left >= ills(t.now) || t.brings(q) {
		return
	}
	t.best = left
	text := s.says + "."
	if right := t.right(q); right != "" {
		text = s.says + ". Then " + right + "."
	}
	t.found = append(t.found, Suspect{Field: s.at, Text: text, Set: s.set, rank: rank{left, s.kind, s.by}})
}

// brings reports whether a change raises a new warning about a number: it then only moves the slip.
func (t *teacher) brings(q *plan.Plan) bool {
	return t.now.Box != nil && slices.ContainsFunc(q.Warnings, func(w brief.Warning) bool {
		return slices.Contains(telling, w.Code) && !slices.ContainsFunc(t.now.Warnings, func(o brief.Warning) bool { return o.Code == w.Code })
	})
}

// right tells what a change puts right: the first thing that was wrong and no longer is.
func (t *teacher) right(q *plan.Plan) string {
	if len(t.now.Problems) > 0 {
		return "the list makes a box"
	}
	for _, c := range t.now.Checks {
		if !c.Holds && !slices.ContainsFunc(q.Checks, func(o fold.Check) bool { return o.Name == c.Name && !o.Holds }) {
			if piece, what, of := strings.Cut(c.Name, ": "); of {
				return fmt.Sprintf("%s in the %s", what, words.Plain(piece))
			}
			if over, under, of := strings.Cut(c.Name, " clears "); of {
				return fmt.Sprintf("the %s clears the %s", words.Plain(over), words.Plain(under))
			}
			return words.Small(c.Name)
		}
	}
	for _, w := range t.now.Warnings {
		if says := putRight[w.Code]; says != "" && !slices.ContainsFunc(q.Warnings, func(o brief.Warning) bool { return o.Text == w.Text }) {
			return says
		}
	}
	return ""
}

// putRight is what is so once a warning is gone.
var putRight = map[string]string{"uneven-walls": "the walls are of one height", "short-lid": "the lid closes",
	"long-lid": "the lid meets the front", "tight-lid": "the lid goes on", "loose-lid": "the lid fits",
	"uneven-lid":  "the lid is larger by as much both ways",
	"loose-cover": "the cover fits", "deep-lid": "the lid rests on the rim", "long-sleeve": "sleeve and drawer are as long",
	"long-flap": "the flaps lie within the walls", "short-flap": "the flaps meet", "long-tabs": "the tabs don't lap"}

// ills weighs what is wrong with a list: problems most, then checks that fail, then warnings about a number.
func ills(p *plan.Plan) (n int) {
	if p.Box == nil {
		return 10000 + len(p.Problems)
	}
	for _, c := range p.Checks {
		if !c.Holds {
			n += 100
		}
	}
	for _, w := range p.Warnings {
		if slices.Contains(telling, w.Code) {
			n++
		}
	}
	return n
}
