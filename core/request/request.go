// Package request is the door: a brief is read here once, with the maker's shop laid under what it leaves open, and
// everything that can't be read is noted. No room after it sees a text.
package request

import (
	"fmt"
	"strconv"
	"strings"

	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/insert"
	"brevium/core/measure"
	"brevium/core/reader"
	"brevium/core/shop"
	"brevium/core/style"
	"brevium/core/wish"
)

// MostCopies is how many of one box a plan lays out, MostPieces how many pieces of them all.
const (
	MostCopies = 200
	MostPieces = 6000
)

// Request is a brief that was read: numbers, and things that there are. It is made once, at the door, with
// everything that can't be read noted; no room after it sees a text.
type Request struct {
	*brief.Report
	Brief   brief.Brief
	Name    string
	Copies  int
	Way     string // the arrangement that was picked
	Places  []Spot // or was made by hand
	Cutting Cutting
	Wish    *wish.Wish
	Used    []Used // of the shop, and not said by the document
	Cards
	Bench
	Fit
	Goes
	Recipe
}

// Cards is what it is cut from.
type Cards struct {
	Card      shop.Card
	Sheet     shop.Sheet
	Stocks    map[string]shop.Card // of parts that have another card
	Dressing  map[string]shop.Card // of what goes on, in and round it, by their names
	Layer     shop.Card            // of the layers that are only counted
	Comes     func(shop.Card) []shop.Sheet
	Kept      func() []shop.Kept // offcuts, of whatever card
	Least     bool               // the sheet that needs least card is taken
	Join      bool               // a piece too large is made of two halves
	KeepGrain bool
}

// Bench is how it is made here.
type Bench struct {
	Adhesive shop.Adhesive
	Tools    shop.Tools
	Plain    bool   // plain numbers, without allowances for the card
	Standing bool   // layers go on when all stands
	Forms    bool   // straps, sleeves and covers are formed on the box itself
	Burnish  string // after or before cutting
	First    string // which way is scored first
}

// Fit is how what goes over something fits.
type Fit struct {
	Slack     measure.Length // beyond the card, and what it would be if nothing were learnt
	Usual     measure.Length
	Learnt    *shop.Learnt
	FitKey    shop.Key
	Chosen    string         // where the clearance comes from, when that was left to the plan
	Outside   int            // layers on the walls a lid goes over, and inside the lid's
	Inside    int            // of a card of their own
	Skin      measure.Length // how thick planned layers lie on those walls
	Deep      int            // and how many
	Floor     int            // liners on the floor
	Underside bool           // the underside is dressed too
}

// Goes is what goes in, and how.
type Goes struct {
	Things   []contents.Thing
	Room     contents.Room
	Kind     *insert.Kind
	Dividers measure.Length // their height; 0 leaves it to the things
	Cells    [2]int         // compartments of a given size with nothing in it
}

// Recipe is what box is made.
type Recipe struct {
	Style   *style.Style
	Answers style.Answers
	Given   *style.Dims // score to score, to the letter
	Scores  []style.Scored
	Stated  *style.Dims
}

// Spot is where a stack was put by hand.
type Spot struct {
	X, Y   measure.Length
	Turned bool
}

// door is a brief while it is read.
type door struct {
	*Request
	r *brief.Reader
	w Workshop
}

// Read reads a brief with a workshop.
func Read(b brief.Brief, w Workshop) *Request {
	d := &door{r: brief.NewReader(&b), w: w}
	d.Request = &Request{Report: d.r.Report, Brief: b, Way: string(b.Arrange.Way)}
	d.read()
	return d.Request
}

func (d *door) read() {
	d.Name, d.Join = d.r.Name("name", d.Brief.Name, "The box"), d.Brief.Card.Join == "yes"
	d.Copies, _ = d.r.Count("copies", d.Brief.Copies, MostCopies)
	if d.oneOf("tools.house", string(d.Brief.Tools.House), "yes", "no") == "no" {
		d.w.Shop = d.w.Bare()
	}
	d.readShop()
	if d.Style = style.Find(string(d.Brief.Box.Style)); d.Style == nil {
		d.Problem("box.style", fmt.Sprintf("Brevium doesn't know the box %q.", d.Brief.Box.Style), "Choose one of "+
			"the boxes shown.",
			"box.style", "tray-lid")
		return
	}
	d.Answers = style.ReadAnswers(d.r, d.Style, d.Brief.Box.Options)
	d.readHabits()
	d.readSlack()
	if d.Style.Typed {
		d.Scores, d.Stated = reader.Read(d.r, &d.Brief)
	}
	d.readSize()
}

func (d *door) readShop() {
	d.Kept = d.w.Offcuts
	d.readTools()
	d.readCards()
	d.readDress()
	d.readCutting()
	var ok bool
	if d.Slack, ok = shop.Slack[string(d.Brief.Tools.Fit)]; !ok {
		d.r.Problem("tools.fit", fmt.Sprintf("A lid can't fit %q.", d.Brief.Tools.Fit), "Choose snug, easy or loose.", "tools.fit",
			"snug")
	}
	switch d.habit("allowances", string(d.Brief.Tools.Allowances)) {
	case "", "card":
	case "plain":
		d.Plain = true
	default:
		d.r.Problem("tools.allowances", fmt.Sprintf("Allowances can't be %q.", d.Brief.Tools.Allowances), "Choose card or plain.",
			"tools.allowances", "card")
	}
}

// readSize reads the size that was given to the letter, and what goes in.
func (d *door) readSize() {
	if s := d.Brief.Size; s != nil {
		l, _ := d.r.Length("size.length", s.Length)
		w, _ := d.r.Length("size.width", s.Width)
		h, _ := d.r.Length("size.depth", s.Depth)
		d.Given = &style.Dims{Length: l, Width: w, Depth: h}
	}
	if len(d.Brief.Contents) == 0 && (d.Brief.Size != nil || d.Style.Typed) {
		d.readKind()
		switch kept := d.Kind != nil && d.Kind.ID != "none"; {
		case kept && d.Style.Rooms != nil:
			d.RoomsEnough()
		case kept && (!d.Kind.Alone || d.Style.Typed):
			d.r.Problem("arrange.compartments", fmt.Sprintf("%s are made to fit your things, and nothing goes in "+
				"yet.", d.Kind.Title),
				"Say what goes in, or choose no compartments.", "arrange.compartments", "none")
		}
		if d.Brief.Arrange.Dividers != "" && d.Kind != nil && d.Kind.Divides {
			d.Dividers, _ = d.r.Length("arrange.dividers", d.Brief.Arrange.Dividers)
		}
		d.Cells = readCells(d.r, d.Brief.Arrange.Cells)
		return
	}
	things, ok := contents.Read(&d.Brief, d.r)
	if !ok {
		return
	}
	d.Things = things
	d.readArrange()
}

// RoomsEnough refuses compartments in a style of several small boxes.
func (q *Request) RoomsEnough() {
	q.Problem("arrange.compartments", "Each small box of this style is a compartment already.", "Choose no compartments.",
		"arrange.compartments", "none")
}

// mostCells is how many compartments there may be in a row.
const mostCells = 12

// readCells reads how many compartments a size has across and deep: two each way when nothing is said.
func readCells(r *brief.Reader, text brief.Text) [2]int {
	out := [2]int{2, 2}
	said := strings.TrimSpace(string(text))
	if said == "" {
		return out
	}
	across, deep, two := strings.Cut(strings.NewReplacer("×", "x", " by ", "x", "X", "x").Replace(said), "x")
	n, err := strconv.Atoi(strings.TrimSpace(across))
	m, err2 := strconv.Atoi(strings.TrimSpace(deep))
	if !two || err != nil || err2 != nil || n < 1 || m < 1 || n > mostCells || m > mostCells || n*m < 2 {
		r.Problem("arrange.cells", fmt.Sprintf("“%s” isn't a number of compartments.", said),
			fmt.Sprintf("Write it like 3 x 2 for three across and two deep. There can be up to %d each way.", mostCells),
			"arrange.cells", "2 x 2")
		return out
	}
	return [2]int{n, m}
}

// Dividing is the dividers of an empty box, so many compartments each way.
func (q *Request) Dividing(in style.Dims) (l contents.Load) {
	l.Need = contents.Size{Length: in.Length, Width: in.Width, Height: in.Depth}
	for i := 1; i < q.Cells[0]; i++ {
		l.Across = append(l.Across, in.Length*measure.Length(i)/measure.Length(q.Cells[0]))
	}
	for i := 1; i < q.Cells[1]; i++ {
		l.Along = append(l.Along, in.Width*measure.Length(i)/measure.Length(q.Cells[1]))
	}
	return l
}

// readKind finds the kind of compartment, nil with a problem noted where there is none such.
func (d *door) readKind() {
	kind := string(d.Brief.Arrange.Compartments)
	if kind == "" {
		kind = insert.Kinds[0].ID
	}
	if d.Kind = insert.Find(kind); d.Kind == nil {
		var ids []string
		for _, k := range insert.Kinds {
			ids = append(ids, k.ID)
		}
		d.r.Problem("arrange.compartments", fmt.Sprintf("Compartments can't be %q.", kind),
			"Choose one of "+strings.Join(ids, ", ")+".", "arrange.compartments", "none")
	}
}

func (d *door) readArrange() {
	if d.readKind(); d.Kind == nil {
		return
	}
	if d.Kind.Suits != nil {
		if why := d.Kind.Suits(d.Things); why != "" {
			d.r.Problem("arrange.compartments", why, "Choose another kind of compartment, or none.", "arrange.compartments", "none")
		}
	}
	if d.Brief.Arrange.Dividers != "" {
		d.Dividers, _ = d.r.Length("arrange.dividers", d.Brief.Arrange.Dividers)
	}
	d.Room = contents.ReadRoom(&d.Brief, d.r, d.Things, d.Kind.Divides)
	for i, p := range d.Brief.Arrange.Places {
		field := fmt.Sprintf("arrange.places.%d.", i)
		x, _ := d.r.LengthOrNone(field+"x", p.X)
		y, _ := d.r.LengthOrNone(field+"y", p.Y)
		d.Places = append(d.Places, Spot{x, y, d.r.Flag(field+"turned", p.Turned, false)})
	}
}

// Mass is how many grams all that goes in weighs, as far as that is known.
func (q *Request) Mass() (sum float64) {
	for _, t := range q.Things {
		sum += t.Grams * float64(t.Count)
	}
	return sum
}

// Spec is what a style works from.
func (q *Request) Spec() *style.Spec {
	return &style.Spec{Report: q.Report, Card: q.Card, Stocks: q.Stocks, Adhesive: q.Adhesive, Tools: q.Tools, Plain: q.Plain,
		Given: q.Given, Answers: q.Answers, Scores: q.Scores, Stated: q.Stated, Holds: style.Holds{Lined: q.lined()},
		Ease: style.Ease{Slack: q.Slack, Usual: q.Usual, Outside: max(measure.Length(q.Outside)*q.Layer.Caliper, q.Skin),
			Skin: q.Skin, Papers: q.Wish.Papers(), Lining: measure.Length(q.Inside) * q.Layer.Caliper}}
}
