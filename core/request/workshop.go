package request

import (
	"cmp"
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

// Begin fits a brief that was filled in for the maker to this workshop: a card or sheet that is not here becomes
// the first that is, and marks and fit are those of the house.
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
	units := measure.Unit(b.Units)
	if step, err := measure.ParseStep(w.Habit("step"), units); err == nil && step.Unit.Metric() == units.Metric() {
		b.Tools.Step = brief.Text(step.String())
	}
	if fit := w.Habit("fit"); fit != "" {
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
func (d *door) use(kind, says string, set ...string) {
	d.Used = append(d.Used, Used{kind, says, brief.To(set...)})
}

// habit gives what the document says of something or, where it leaves it open, what the house does.
func (d *door) habit(id string, said string) string {
	if said != "" {
		return said
	}
	does := d.w.Habit(id)
	if does == "" {
		return said
	}
	h, _ := shop.FindHabit(id)
	d.use("habit", fmt.Sprintf("%s: %s", h.Label, labelOf(h, does)), h.Path, does)
	return does
}

func labelOf(h shop.Habit, choice string) string {
	for _, c := range h.Choices {
		if c.ID == choice {
			return strings.ToLower(c.Label)
		}
	}
	return choice
}

// readHabits answers what the document leaves open of a style's questions as the house does.
func (d *door) readHabits() {
	for _, by := range []struct {
		habit string
		role  style.Role
	}{{"clearance", style.Clearance}, {"walls", style.Walls}, {"tabs", style.Tabs}, {"gussets", style.Gussets}} {
		q, asks := d.Style.For(by.role)
		if choice := d.w.Habit(by.habit); asks && choice != "" {
			if took, ok := d.Answers.Follow(d.Style, q, choice); ok {
				h, _ := shop.FindHabit(by.habit)
				d.use("habit", fmt.Sprintf("%s: %s", h.Label, labelOf(h, choice)), "box.options."+q.ID, took)
			}
		}
	}
}

// readTools reads what is scored, cut and stuck with: of the document or, where it says nothing, of the shop.
func (d *door) readTools() {
	said := d.Brief.Tools
	d.Tools = shop.ReadTools(d.r, &said)
	mine, house := &d.Tools, d.w.Tools
	var set []string
	if said.Grooves == "" && len(house.Grooves) > 0 {
		mine.Grooves, set = house.Grooves, append(set, "tools.grooves", string(d.w.Said.Grooves))
	}
	if said.Board == "" && house.Board > 0 {
		mine.Board, set = house.Board, append(set, "tools.board", string(d.w.Said.Board))
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
		mine.Reads, set = house.Reads, append(set, "tools.trimmer.reads", string(d.w.Said.Trimmer.Reads))
	}
	if said.Trimmer.Cuts == "" && house.Cuts > 0 {
		mine.Cuts, set = house.Cuts, append(set, "tools.trimmer.cuts", string(d.w.Said.Trimmer.Cuts))
	}
	if said.Punches == "" && len(house.Punches) > 0 {
		mine.Punches, set = house.Punches, append(set, "tools.punches", string(d.w.Said.Punches))
	}
	tape := said.Tape
	if tape == "" && d.w.Said.Tape != "" {
		tape, set = d.w.Said.Tape, append(set, "tools.tape", string(d.w.Said.Tape))
	}
	if len(set) > 0 {
		var what []string
		for i := 0; i < len(set); i += 2 {
			f, _ := brief.FieldAt(set[i])
			what = append(what, f.Label)
		}
		d.use("tools", "Your tools: "+strings.Join(what, ", "), set...)
	}
	if mine.Reads > 0 { // what is cut is cut by the trimmer's marks
		unit := measure.Millimetres
		if mine.Reads%(measure.Inch/64) == 0 {
			unit = measure.Inches
		}
		d.Step = measure.Step{Size: mine.Reads, Unit: unit}.In(d.Units)
	}
	d.readAdhesive(tape)
	d.Burnish = d.oneOf("tools.burnish", d.habit("burnish", string(said.Burnish)), "after", "before")
	d.Standing = d.oneOf("tools.dressing", d.habit("dressing", string(said.Dressing)), "flat", "standing") == "standing"
	d.Forms = d.oneOf("tools.wraps", d.habit("wraps", string(said.Wraps)), "scored", "formed") == "formed"
	d.First = d.oneOf("tools.first", d.habit("first", string(said.First)), "drawn", "short", "long")
}

func (d *door) oneOf(field, said string, choices ...string) string {
	if said == "" {
		return choices[0]
	}
	if !slices.Contains(choices, said) {
		f, _ := brief.FieldAt(field)
		d.r.Problem(field, fmt.Sprintf("%s can't be %q.", f.Title(), said), "Choose "+words.Either(choices)+".",
			field, "")
	}
	return said
}

func (d *door) readAdhesive(tape brief.Text) {
	d.Adhesive = shop.Adhesives[0]
	said := d.habit("adhesive", string(d.Brief.Tools.Adhesive))
	known := said == ""
	for _, a := range shop.Adhesives {
		if a.ID == said {
			d.Adhesive, known = a, true
		}
	}
	if !known {
		d.r.Problem("tools.adhesive", fmt.Sprintf("Brevium doesn't know %q as a glue or tape.", said),
			"Choose tape, glue or both.", "tools.adhesive", "tape")
	}
	if tape != "" {
		l := shop.ReadTape(d.r, tape) // read even where only glue is used: what is wrong with it is told
		if l > 0 && d.Adhesive.ID != "glue" {
			d.Adhesive.Seam = l
		}
		if l > 0 && d.Adhesive.ID == "tape" {
			d.Adhesive.Width = l
		}
	}
}

// readDress reads what is stuck on, as far as sizes hang on it.
func (d *door) readDress() {
	count := func(field string, text brief.Whole) (n int) {
		if strings.TrimSpace(string(text)) == "" || text == "0" {
			return 0
		}
		n, _ = d.r.Count(field, text, MostLayers)
		return n
	}
	d.Outside, d.Inside = count("dress.outside", d.Brief.Dress.Outside), count("dress.inside", d.Brief.Dress.Inside)
	d.Floor = count("dress.floor", d.Brief.Dress.Floor)
	d.Underside = d.r.Flag("dress.underside", brief.Flag(d.habit("underside", string(d.Brief.Dress.Underside))), false)
	d.Layer = d.Card
	if c, ok := d.Stocks["layer"]; ok {
		d.Layer = c
	}
	d.readWish()
}

const MostLayers = 4

// readSlack reads the ease of a lid: what was typed, or what its fit asks for and
// what was learnt of this card here.
func (d *door) readSlack() {
	d.Usual = d.Slack
	d.FitKey = shop.Key{Card: d.OuterCard().ID, Walls: d.outerWalls(), Layers: max(d.Outside, d.Deep) + d.Inside}
	if d.Brief.Tools.Slack != "" {
		if l, ok := d.r.LengthOrNone("tools.slack", d.Brief.Tools.Slack); ok {
			if d.Slack = l; l > 10*measure.Millimetre {
				d.r.Problem("tools.slack", "No lid needs "+d.r.Say(l)+" of room.", fmt.Sprintf("Snug is %s, easy %s, loose %s.",
					shop.Slack["snug"].Fine(d.Units), shop.Slack["easy"].Fine(d.Units), shop.Slack["loose"].Fine(d.Units)), "tools.slack", "")
			}
		}
		return
	}
	if l, ok := d.w.Fit(d.FitKey); ok && !l.Aside && l.More != 0 {
		d.Learnt, d.Slack = &l, max(0, d.Slack+l.More)
		d.use("learnt", fmt.Sprintf("Lids of %s, %s walls: %s of room instead of %s (%s)", d.OuterCard().Title,
			d.FitKey.Walls, d.Slack.Fine(d.Units), d.Usual.Fine(d.Units), words.Count(l.Records, "record")), "tools.slack",
			strconv.FormatFloat(d.Slack.MM(), 'f', -1, 64)+" mm")
	}
}

// OuterCard is the card of what goes over the box: the part of this style that does.
func (q *Request) OuterCard() shop.Card {
	for _, part := range style.Overs {
		if c, ok := q.Stocks[part]; ok && slices.Contains(q.Style.Apart, part) {
			return c
		}
	}
	return q.Card
}

// outerWalls is how the walls are made of what goes over the box.
func (q *Request) outerWalls() string {
	if walls, asks := q.Style.For(style.OuterWalls); asks {
		return cmp.Or(q.Answers.Choice[walls.ID], walls.Default)
	}
	return "single"
}
