package export

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/assembly"
	"brevium/core/bench"
	"brevium/core/costs"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/readings"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/core/words"
	"brevium/draw"
	"brevium/draw/solid"
	"brevium/export/drawings"
)

// Part is a part of the project sheet that may be left out.
type Part struct{ ID, Title string }

// Parts lists them, in their order on paper.
var Parts = []Part{{"notes", "Your notes"}, {"materials", "Materials"}, {"cost", "What it costs"},
	{"cuts", "Cut list"}, {"layout", "Sheets"},
	{"cards", "Score cards"}, {"steps", "Steps with pictures"}, {"glue", "Glue map"}, {"cautions", "Cautions"},
	{"templates", "Templates, true to size"}}

// Options are what is wanted of a file.
type Options struct {
	Paper Format   // none: the one for the box's unit
	Parts []string // of the project sheet, by their names; empty for all but notes and what it costs
	Both  bool     // every length in both units
	Shop  request.Workshop
	Pace  bench.Pace

	Printer  Printer // that templates are corrected for
	American bool    // spelt as in America; else as in Britain
}

func (o Options) has(part string) bool {
	if len(o.Parts) == 0 {
		return part != "cost" && part != "notes"
	}
	return slices.Contains(o.Parts, part)
}

// project is a project sheet being written.
type project struct {
	*paper
	sets.Job
	Options
}

// Project writes the project sheet as PDF: what is needed, what is cut, and every step with
// its pictures.
func Project(j sets.Job, o Options) ([]byte, error) {
	if o.Both {
		j = j.InBoth()
	}
	p := project{newPaper(called(j), o.Paper.W, o.Paper.H, 14, j.Warning()), j, o}
	p.foot, p.spell, p.printer = called(j), spelling(j, o.American), o.Printer
	p.turn()
	p.head()
	for _, part := range []struct {
		id    string
		write func()
	}{{"materials", p.materials}, {"cost", p.cost}, {"cuts", p.cutList}, {"layout", p.layout}, {"cards", p.cards},
		{"steps", p.steps}, {"glue", p.glueMap}, {"cautions", p.cautions},
		{"templates", func() { p.pdf.SetError(p.paper.templates(drawings.Drawings(j))) }}} {
		if p.has(part.id) {
			part.write()
		}
	}
	return p.bytes()
}

// called is the name that stands on paper.
func called(j sets.Job) string {
	if words.Visible(j.Name) {
		return j.Name
	}
	return "A box without a name"
}

// say writes a length, in both units where that is wanted.
func (p project) say(of *plan.Plan, l measure.Length) string {
	if p.Both {
		return of.SayBoth(l)
	}
	return of.Say(l)
}

func (p project) dims(of *plan.Plan, d assembly.Dims) string {
	return p.say(of, d.Length) + " × " + p.say(of, d.Width) + " × " + p.say(of, d.Depth)
}

// boxes does something for each box, under its name when there are several.
func (p project) boxes(do func(of *plan.Plan, name string)) {
	for i, of := range p.Plans {
		name := ""
		if len(p.Names) > 0 {
			name = p.Names[i]
		}
		do(of, name)
	}
}

func (p project) head() {
	p.heading(1, called(p.Job))
	const pic = 58.0
	top := p.y
	right := p.w - p.margin - pic
	p.boxes(func(of *plan.Plan, name string) {
		says := of.Style.Title
		if name != "" {
			says = words.Capital(name) + ": " + words.Small(says)
		}
		if of.Copies > 1 {
			says += fmt.Sprintf(", %d of them", of.Copies)
		}
		lines := []string{says + ".", "Outside " + p.dims(of, of.Box.Outside) + ".", "Inside " + p.dims(of, of.Box.Inside) + "."}
		if of.Box.Clearance > 0 {
			lines = append(lines, "Clearance "+p.say(of, of.Box.Clearance)+".")
		}
		for _, l := range lines {
			p.linesIn("P", "text", "", 10, l, p.margin, right-p.margin-4)
		}
		p.y += 1.5
	})
	if p.Set == nil {
		p.figure(draw.Made(p.Plans[0], 1, 320, 250), "The finished box, open.", right, top, pic, pic*250/320)
	} else {
		p.figure(solid.SetFolded(p.Set, float64(len(p.Set.Course())), solid.DefaultView, 320, 250), "The boxes of the set, together.",
			right, top, pic, pic*250/320)
	}
	p.y = max(p.y, top+pic*250/320+3)
	if p.Holds() {
		checks := 0
		for _, of := range p.Plans {
			checks += len(of.Checks)
		}
		p.para(fmt.Sprintf("Folded on screen: all %d checks passed. Measure your own card before you cut your last "+
			"good sheet.", checks))
	}
	if bad := UnprintableOf(p.Job); len(bad) > 0 {
		p.para(fmt.Sprintf("Your printout has %[2]c in place of letters it can't print: %[1]s. Write them in by hand.",
			words.List(bad), missing))
	}
	if notes := strings.TrimSpace(string(p.Plans[0].Brief.Notes)); notes != "" && p.Set == nil && p.has("notes") {
		p.para(notes)
	}
}

func (p project) materials() {
	p.heading(2, "Materials")
	all := readings.Supplies(p.Plans[0])
	if p.Set != nil {
		all = p.Set.Supplies()
	}
	for _, s := range all {
		p.item(words.Capital(s) + ".")
	}
}

func (p project) cost() {
	c := costs.Reckon(p.Job, p.Shop, p.Pace)
	p.heading(2, "What it costs")
	rows := [][]string{}
	coins := func(n int64) string { return strings.TrimSpace(p.Shop.Currency + " " + words.Coins(n)) }
	add := func(l costs.CostLine) {
		row := []string{l.What, l.Amount, "not known", l.Packs}
		if l.Known {
			row[2] = coins(l.All)
		}
		rows = append(rows, row)
	}
	for _, l := range append(slices.Clone(c.Parts), c.Rest...) {
		add(l)
	}
	widths := []float64{0.36, 0.34, 0.15, 0.15}
	p.table([]string{"for", "amount", "used", "to buy"}, widths, rows)
	rows = nil
	for _, l := range c.Cards {
		add(l)
	}
	if len(rows) > 0 {
		p.table([]string{"card", "sheets", "cost", "to buy"}, widths, rows)
	}
	p.para(fmt.Sprintf("Material for one box: %s. Time: about %.0f minutes.", c.Said(c.One(), coins), c.Minutes/float64(c.Boxes)))
	if c.Ask > 0 {
		p.para(fmt.Sprintf("With your hourly rate and margin, ask %s for one.", c.Said(c.Ask, coins)))
	}
}

func (p project) cutList() {
	p.heading(2, "Cut list")
	var rows [][]string
	p.boxes(func(of *plan.Plan, name string) {
		for _, piece := range of.Box.Pieces() {
			for _, cut := range of.Blanks(piece, of.Copies) {
				what := words.Plain(cut.Name)
				if name != "" {
					what = name + ": " + what
				}
				rows = append(rows, []string{words.Capital(what), fmt.Sprint(cut.Count), p.say(of, cut.W) + " × " + p.say(of, cut.H),
					of.CardOf(piece.Stock).Title})
			}
		}
	})
	p.table([]string{"piece", "how many", "cut size", "of"}, []float64{0.28, 0.12, 0.3, 0.3}, rows)
}

func (p project) layout() {
	p.room(80)
	p.heading(2, "From the sheets")
	var all []pictured
	for _, s := range p.Steps {
		if s.Title != "Trim" || len(s.Frames) == 0 {
			continue
		}
		n := int(s.Frames[0].At)
		of, c, ok := p.Job.Sheet(n)
		if !ok {
			continue
		}
		svg := draw.CutSheet(of, draw.CutLook{N: n, W: 330, H: 300, Card: c.Card, Step: p.Plans[0].Step})
		says := fmt.Sprintf("Sheet %d: %s, %s", n+1, c.Sheet.Title, c.Card.Title)
		if s.Count > 1 {
			says += fmt.Sprintf(", and %d more alike", s.Count-1)
		}
		all = append(all, pictured{svg, says + "."})
	}
	p.row(all, 2, 0.8)
}

func (p project) cards() {
	p.heading(2, "Score cards")
	p.para("Inside face up. A length is measured from the edge against the fence.")
	p.boxes(func(of *plan.Plan, name string) {
		for _, c := range of.Guide.Cards {
			title := words.Capital(words.Plain(c.Piece))
			if name != "" {
				title = words.Capital(name) + ": " + words.Plain(c.Piece)
			}
			if c.Count > 1 {
				title += fmt.Sprintf(" × %d", c.Count)
			}
			p.room(64)
			p.heading(3, title)
			for _, s := range c.Says {
				p.para(s)
			}
			var lays []pictured
			for i, t := range c.Turns {
				lays = append(lays, pictured{draw.Board(of, c, i), fmt.Sprintf("%s edge to the fence", words.Capital(t.Edge))})
			}
			p.row(lays, 4, 0.95)
		}
	})
}

func (p project) steps() {
	p.heading(2, "Steps")
	for i, s := range p.Job.Steps {
		title := fmt.Sprintf("%d. %s", i+1, s.Title)
		if s.Piece != "" {
			title += ": " + words.Plain(s.Piece)
		}
		if s.Count > 1 {
			title += fmt.Sprintf(" × %d", s.Count)
		}
		p.heading(3, title)
		if s.Title == "Score" && p.has("cards") {
			p.para("Follow its score card.")
		} else {
			for _, says := range s.Says {
				p.para(says)
			}
		}
		again := i > 0 && p.Job.Steps[i-1].Title == s.Title // what held for the step before holds for this
		for _, c := range s.Cautions {
			if !again || !slices.Contains(p.Job.Steps[i-1].Cautions, c) {
				p.caution(c.Text)
			}
		}
		p.row(p.frames(s), 5, 0.82)
		if s.Check != "" && (!again || p.Job.Steps[i-1].Check != s.Check) {
			p.paraAt(9, "Check: "+words.Small(s.Check)+" "+fails(s))
		}
	}
}

// frames are the pictures of a step; the cuts of a sheet and what stands on the score card
// are drawn there.
func (p project) frames(s bench.Step) (out []pictured) {
	if s.Title == "Trim" && p.has("layout") || s.Title == "Score" && p.has("cards") {
		return nil
	}
	for _, f := range s.Frames {
		out = append(out, pictured{draw.Step(p.Job, f, 300, 246), f.Says})
	}
	return out
}

func fails(s bench.Step) string {
	var out []string
	for _, f := range s.Fails {
		out = append(out, f.When+": "+f.Do)
	}
	return strings.Join(out, " ")
}

func (p project) glueMap() {
	var all []pictured
	p.boxes(func(of *plan.Plan, name string) {
		for _, g := range of.GlueMap() {
			says := words.Capital(strings.TrimPrefix(name+": "+g.Says, ": "))
			all = append(all, pictured{draw.Glue(of, g, 330, 270), says})
		}
	})
	if len(all) == 0 {
		return
	}
	p.room(80) // with its first pictures
	p.heading(2, "Glue map")
	p.para(p.Plans[0].Glue().Said())
	p.row(all, 3, 0.82)
}

func (p project) cautions() {
	var all []string
	for _, s := range p.Job.Steps {
		for _, c := range s.Cautions {
			if !slices.Contains(all, c.Text) {
				all = append(all, c.Text)
			}
		}
	}
	p.boxes(func(of *plan.Plan, _ string) {
		for _, w := range of.Warnings {
			if says := strings.TrimSpace(w.Text + " " + w.Fix); !slices.Contains(all, says) {
				all = append(all, says)
			}
		}
	})
	p.heading(2, "Cautions and warnings")
	for _, s := range all {
		p.item(s)
	}
	p.para("Follow the instructions on your tools, glue and card, and your local rules.")
}
