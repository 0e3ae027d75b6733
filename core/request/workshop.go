package request

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/shop"
	"brevium/core/style"
	"brevium/core/words"
)

// Workshop is what the maker has to work with.
type Workshop struct {
	shop.Shop
	Only *shop.Sheet // while a remedy is looked for: the sheet that was chosen
}

// SheetsOf lists what a card comes in.
func (w Workshop) SheetsOf(c shop.Card) []shop.Sheet {
	if w.Only != nil {
		return []shop.Sheet{*w.Only}
	}
	return w.Comes(c)
}

// Default is the workshop of a maker who has said nothing about it.
var Default = Workshop{Shop: shop.Default}

// Begin lays a brief that was filled in for the maker on this shelf: what it would
// be cut from and is not here gives way to the first that is, and what the house
// has its habits in follows them.
func (w Workshop) Begin(b brief.Brief) brief.Brief {
	offered := w.Offered()
	if c, ok := w.Card(string(b.Card.Stock)); (!ok || c.Retired) && len(offered) > 0 {
		b.Card.Stock = brief.Text(offered[0].ID)
	}
	if c, ok := w.Card(string(b.Card.Stock)); ok {
		sheets := w.Comes(c)
		if !slices.ContainsFunc(sheets, func(s shop.Sheet) bool { return s.ID == string(b.Card.Sheet) }) {
			b.Card.Sheet = brief.Text(sheets[0].ID)
		}
	}
	if step, err := measure.ParseStep(w.Habits["step"], measure.Unit(b.Units)); err == nil && step.Unit.Metric() == measure.Unit(b.Units).Metric() {
		b.Tools.Step = brief.Text(step.String())
	}
	if fit := w.Habits["fit"]; fit != "" {
		b.Tools.Fit = brief.Text(fit)
	}
	return b
}

// Used is something of the shop that a plan was made with and the document does not
// say: in words, and the fields that would write it into the document.
type Used struct {
	Kind string // habit, learnt, tools or card
	Says string
	Set  brief.Changes
}

// Written gives a document with all that its plan took from the shop written into it, so that
// it plans alike with another; only, where it is not nil, says which fields.
func (q *Request) Written(b brief.Brief, only func(path string) bool) brief.Brief {
	b = b.Clone()
	for _, u := range q.Used {
		for path, text := range u.Set.All() {
			if only != nil && !only(path) {
				continue
			}
			if id, ok := strings.CutPrefix(path, "card.own.@"); ok {
				id, _, _ = strings.Cut(id, ".")
				if !slices.ContainsFunc(b.Card.Own, func(s brief.Stock) bool { return s.ID == id }) {
					b.Card.Own = append(b.Card.Own, brief.Stock{ID: id})
				}
			}
			b.Set(path, text)
		}
	}
	return b
}

// use notes that something of the shop was used.
func (q *Request) use(kind, says string, set ...string) {
	q.Used = append(q.Used, Used{kind, says, brief.To(set...)})
}

// habit gives what the document says of something or, where it leaves it open, what
// the house does.
func (q *Request) habit(w Workshop, id string, said string) string {
	if said != "" || w.Habits[id] == "" {
		return said
	}
	h, _ := shop.FindHabit(id)
	q.use("habit", fmt.Sprintf("%s: %s", h.Label, labelOf(h, w.Habits[id])), h.Path, w.Habits[id])
	return w.Habits[id]
}

func labelOf(h shop.Habit, choice string) string {
	for _, c := range h.Choices {
		if c.ID == choice {
			return strings.ToLower(c.Label)
		}
	}
	return choice
}

// readHabits answers what the document leaves open of a style's questions as the
// house does.
func (q *Request) readHabits(w Workshop) {
	for _, h := range shop.Habits {
		id, option := strings.CutPrefix(h.Path, "box.options.")
		if choice := w.Habits[h.ID]; option && choice != "" {
			if took, ok := q.Answers.Follow(q.Style, id, choice); ok {
				q.use("habit", fmt.Sprintf("%s: %s", h.Label, labelOf(h, choice)), h.Path, took)
			}
		}
	}
}

// readTools reads what is scored, cut and stuck with: of the document or, where it
// says nothing, of the shop.
func (q *Request) readTools(b brief.Brief, r *brief.Reader, w Workshop) {
	said := b.Tools
	q.Tools = shop.ReadTools(r, &said)
	mine, house := &q.Tools, w.Tools
	var set []string
	if said.Grooves == "" && len(house.Grooves) > 0 {
		mine.Grooves, set = house.Grooves, append(set, "tools.grooves", string(w.Said.Grooves))
	}
	if said.Board == "" && house.Board > 0 {
		mine.Board, set = house.Board, append(set, "tools.board", string(w.Said.Board))
	}
	if said.Numbers == "" && house.FromRight {
		mine.FromRight, set = true, append(set, "tools.numbers", "right")
	}
	for _, t := range []struct {
		mine        *bool
		house       bool
		said        brief.Text
		path, other string
	}{{&mine.Ruler, house.Ruler, said.Scoring, "tools.scoring", "ruler"}, {&mine.Scissors, house.Scissors, said.Cutting, "tools.cutting",
		"scissors"}, {&mine.NoFolder, house.NoFolder, said.Folder, "tools.folder", "none"}} {
		if t.said == "" && t.house {
			*t.mine, set = true, append(set, t.path, t.other)
		}
	}
	if said.Trimmer.Reads == "" && house.Reads > 0 {
		mine.Reads, set = house.Reads, append(set, "tools.trimmer.reads", string(w.Said.Trimmer.Reads))
	}
	if said.Trimmer.Cuts == "" && house.Cuts > 0 {
		mine.Cuts, set = house.Cuts, append(set, "tools.trimmer.cuts", string(w.Said.Trimmer.Cuts))
	}
	if said.Punches == "" && len(house.Punches) > 0 {
		mine.Punches, set = house.Punches, append(set, "tools.punches", string(w.Said.Punches))
	}
	tape := said.Tape
	if tape == "" && w.Said.Tape != "" {
		tape, set = w.Said.Tape, append(set, "tools.tape", string(w.Said.Tape))
	}
	if len(set) > 0 {
		var what []string
		for i := 0; i < len(set); i += 2 {
			f, _ := brief.FieldAt(set[i])
			what = append(what, f.Label)
		}
		q.use("tools", "The tools of the shop: "+strings.Join(what, ", "), set...)
	}
	if mine.Reads > 0 { // what is cut is cut by the trimmer's marks
		unit := measure.Millimetres
		if mine.Reads%(measure.Inch/64) == 0 {
			unit = measure.Inches
		}
		q.Step = measure.Step{Size: mine.Reads, Unit: unit}.In(q.Units)
	}
	q.readAdhesive(b, r, w, tape)
	q.Burnish = q.oneOf(r, "tools.burnish", q.habit(w, "burnish", string(said.Burnish)), "after", "before")
	q.Standing = q.oneOf(r, "tools.dressing", q.habit(w, "dressing", string(said.Dressing)), "flat", "standing") == "standing"
	q.Forms = q.oneOf(r, "tools.wraps", q.habit(w, "wraps", string(said.Wraps)), "scored", "formed") == "formed"
	q.First = q.oneOf(r, "tools.first", q.habit(w, "first", string(said.First)), "drawn", "short", "long")
}

func (q *Request) oneOf(r *brief.Reader, field, said string, choices ...string) string {
	if said == "" {
		return choices[0]
	}
	if !slices.Contains(choices, said) {
		f, _ := brief.FieldAt(field)
		r.Problem(field, fmt.Sprintf("%s can't be %q.", f.Title(), said), "Choose "+words.Either(choices)+".",
			field, "")
	}
	return said
}

func (q *Request) readAdhesive(b brief.Brief, r *brief.Reader, w Workshop, tape brief.Text) {
	q.Adhesive = shop.Adhesives[0]
	said := q.habit(w, "adhesive", string(b.Tools.Adhesive))
	known := said == ""
	for _, a := range shop.Adhesives {
		if a.ID == said {
			q.Adhesive, known = a, true
		}
	}
	if !known {
		r.Problem("tools.adhesive", fmt.Sprintf("%q is not something Brevium sticks with.", said),
			"Choose tape, glue or both.", "tools.adhesive", "tape")
	}
	if tape != "" {
		l := shop.ReadTape(r, tape) // read even where only glue is used: what is wrong with it is told
		if l > 0 && q.Adhesive.ID != "glue" {
			q.Adhesive.Seam = l
		}
		if l > 0 && q.Adhesive.ID == "tape" {
			q.Adhesive.Width = l
		}
	}
}

// readDress reads what is stuck on, as far as sizes hang on it.
func (q *Request) readDress(b brief.Brief, r *brief.Reader, w Workshop) {
	count := func(field string, text brief.Whole) (n int) {
		if strings.TrimSpace(string(text)) == "" || text == "0" {
			return 0
		}
		n, _ = r.Count(field, text, MostLayers)
		return n
	}
	q.Outside, q.Inside = count("dress.outside", b.Dress.Outside), count("dress.inside", b.Dress.Inside)
	q.Floor = count("dress.floor", b.Dress.Floor)
	q.Underside = r.Flag("dress.underside", brief.Flag(q.habit(w, "underside", string(b.Dress.Underside))), false)
	q.Layer = q.Card
	if c, ok := q.Stocks["layer"]; ok {
		q.Layer = c
	}
	q.readWish(b, r, w)
}

const MostLayers = 4

// readSlack reads the ease of a lid: what was typed, or what its fit asks for and
// what was learnt of this card here.
func (q *Request) readSlack(b brief.Brief, r *brief.Reader, w Workshop) {
	q.Usual = q.Slack
	q.FitKey = shop.Key{Card: q.OuterCard().ID, Walls: q.outerWalls(), Layers: max(q.Outside, q.Deep) + q.Inside}
	if b.Tools.Slack != "" {
		if l, ok := r.LengthOrNone("tools.slack", b.Tools.Slack); ok {
			if q.Slack = l; l > 10*measure.Millimetre {
				r.Problem("tools.slack", "No lid wants "+r.Say(l)+" of ease.", "Snug is 0.5 mm, easy 1 mm, loose 1.6 mm.",
					"tools.slack", "")
			}
		}
		return
	}
	if l, ok := w.Learnt[q.FitKey]; ok && !l.Aside && l.More != 0 {
		q.Learnt, q.Slack = &l, max(0, q.Slack+l.More)
		q.use("learnt", fmt.Sprintf("Lids of %s, %s walls: %.2f mm of ease instead of %.2f mm (%s)", q.OuterCard().Title,
			q.FitKey.Walls, q.Slack.MM(), q.Usual.MM(), words.Count(l.Records, "record")), "tools.slack",
			strconv.FormatFloat(q.Slack.MM(), 'f', -1, 64)+" mm")
	}
}

// outerCard is the card of what goes over the box: the part of this style that does.
func (q *Request) OuterCard() shop.Card {
	for _, part := range []string{"lid", "sleeve", "cap", "shell"} {
		if c, ok := q.Stocks[part]; ok && slices.Contains(q.Style.Apart, part) {
			return c
		}
	}
	return q.Card
}

// outerWalls is how the walls are made of what goes over the box.
func (q *Request) outerWalls() string {
	if _, asks := q.Style.Ask("lid-walls"); asks {
		job := style.Job{Answers: q.Answers}
		return job.ChoiceOf(q.Style)("lid-walls")
	}
	return "single"
}
