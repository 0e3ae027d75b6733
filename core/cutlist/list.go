// Package cutlist is any list of pieces to be cut from any sheets: read as JSON or as
// CSV, refused at its line with the remedy, laid by least, and told as JSON.
package cutlist

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"brevium/core/brief"
	"brevium/core/document"
	"brevium/core/layout"
	"brevium/core/least"
	"brevium/core/measure"
	"brevium/core/words"
)

// List is a list as it is typed. Lengths without a unit are in Units, inches unless it is mm.
type List struct {
	Name    brief.Text `json:"name,omitempty"`
	Units   brief.Text `json:"units,omitempty"`
	Sheets  []Sheet    `json:"sheets"`
	Pieces  []Piece    `json:"pieces"`
	Pins    []Pin      `json:"pins,omitempty"`
	Longest brief.Text `json:"longest-cut,omitempty"`
	Margin  brief.Text `json:"margin,omitempty"` // of every sheet that has none of its own
	Aim     brief.Text `json:"aim,omitempty"`    // sheets, cost or card
	Tie     brief.Text `json:"among-equals,omitempty"`
	Work    brief.Text `json:"work,omitempty"` // quick or deep
	Seed    uint64     `json:"seed,omitempty"`
}

// Sheet is a size of sheet, or an offcut. Without a count there is always one more.
type Sheet struct {
	ID     string      `json:"id,omitempty"`
	Name   brief.Text  `json:"name"`
	Width  brief.Text  `json:"width"`
	Height brief.Text  `json:"height"`
	Price  brief.Text  `json:"price,omitempty"`
	Count  brief.Whole `json:"count,omitempty"`
	Stock  brief.Text  `json:"stock,omitempty"`
	Margin brief.Text  `json:"margin,omitempty"`
	Offcut brief.Flag  `json:"offcut,omitempty"`
}

// Piece is a piece to be cut. It may be turned unless that is said not to be so.
type Piece struct {
	ID     string      `json:"id,omitempty"`
	Name   brief.Text  `json:"name"`
	Width  brief.Text  `json:"width"`
	Height brief.Text  `json:"height"`
	Count  brief.Whole `json:"count,omitempty"`
	Turn   brief.Flag  `json:"turn,omitempty"`
	Stock  brief.Texts `json:"stock,omitempty"` // or several
	Run    brief.Text  `json:"run,omitempty"`
}

// Pin holds a copy of a piece on a sheet, both told by their names or numbers from 1.
type Pin struct {
	ID     string      `json:"id,omitempty"`
	Piece  brief.Text  `json:"piece"`
	Sheet  brief.Whole `json:"sheet"`
	Size   brief.Text  `json:"size,omitempty"`
	X      brief.Text  `json:"x"`
	Y      brief.Text  `json:"y"`
	Turned brief.Flag  `json:"turned,omitempty"`
}

// What a list may hold.
const (
	MostSheets = 60
	MostLines  = 600
	MostPieces = 6000
	MostPins   = 400
	Limit      = 1 << 20
	leastSide  = measure.Millimetre
	mostSide   = measure.Max
	mostText   = 200
)

// Form states the document to the engine that reads, keeps and merges it. How many lines a list may have is told with
// the other problems.
var Form = document.New(document.Form[List]{
	Name: "list", Limit: Limit,
	Lists: []document.List{{Path: "sheets", What: "sheets"}, {Path: "pieces", What: "pieces"}, {Path: "pins", What: "pins"}},
	Table: []document.Field{
		{Path: "name", Kind: document.Words, Label: "name"},
		{Path: "units", Label: "numbers without a unit are"},
		{Path: "aim", Label: "aim for"},
		{Path: "among-equals", Label: "if equal, prefer"},
		{Path: "longest-cut", Kind: document.Distance, Label: "longest cut"},
		{Path: "margin", Kind: document.Distance, Label: "margin"},
		{Path: "work", Label: "how long to search"},
		{Path: "sheets.*.name", Kind: document.Words, Label: "name"},
		{Path: "sheets.*.width", Kind: document.Distance, Label: "width"},
		{Path: "sheets.*.height", Kind: document.Distance, Label: "height"},
		{Path: "sheets.*.price", Kind: document.Words, Label: "price"},
		{Path: "sheets.*.count", Kind: document.Number, Label: "in hand"},
		{Path: "sheets.*.stock", Kind: document.Words, Label: "stock"},
		{Path: "sheets.*.margin", Kind: document.Distance, Label: "margin"},
		{Path: "sheets.*.offcut", Label: "offcut"},
		{Path: "pieces.*.name", Kind: document.Words, Label: "name"},
		{Path: "pieces.*.width", Kind: document.Distance, Label: "width"},
		{Path: "pieces.*.height", Kind: document.Distance, Label: "height"},
		{Path: "pieces.*.count", Kind: document.Number, Label: "how many"},
		{Path: "pieces.*.stock", Kind: document.Words, Label: "stock"},
		{Path: "pieces.*.run", Kind: document.Words, Label: "run"},
		{Path: "pieces.*.turn", Label: "may turn"},
		{Path: "pins.*.piece", Kind: document.Words, Label: "piece held in its place"},
		{Path: "pins.*.sheet", Kind: document.Number, Label: "on sheet"},
		{Path: "pins.*.size", Kind: document.Words, Label: "which is"},
		{Path: "pins.*.x", Kind: document.Distance, Label: "from the left of the sheet"},
		{Path: "pins.*.y", Kind: document.Distance, Label: "from the top of the sheet"},
		{Path: "pins.*.turned", Label: "turned"},
	},
})

// Decode reads a list from JSON, and refuses what is none.
func Decode(data []byte) (List, error) { return Form.Decode(data) }

// Bare is the unit that a bare number takes.
func (l *List) Bare() measure.Unit {
	if l.Units == "mm" {
		return measure.Millimetres
	}
	return measure.Inches
}

// reading turns a list into a task.
type reading struct {
	List
	*brief.Reader
	task least.Task
}

// Read reads a list into what is to be done. What can't be is told at its field, such as pieces.2.width.
func Read(l List) (least.Task, *brief.Report) {
	if l.Units == "" {
		l.Units = "in"
	}
	marks := map[bool]brief.Text{true: "1 mm", false: "1/16 in"}[l.Units == "mm"]
	r := &reading{List: l, Reader: brief.NewReader(&brief.Brief{Units: l.Units, Tools: brief.Tools{Step: marks}})}
	r.ask()
	margin := r.length("margin", l.Margin, 0, 50*measure.Millimetre, r.usualMargin())
	switch {
	case len(l.Sheets) == 0:
		r.Problem("sheets", "There is no sheet to cut from.", "Write a size, such as 12 x 12 in.")
	case len(l.Sheets) > MostSheets:
		r.Problem("sheets", fmt.Sprintf("%d sheet sizes are too many.", len(l.Sheets)),
			fmt.Sprintf("List up to %d.", MostSheets))
	case len(l.Pieces) == 0:
		r.Problem("pieces", "There is nothing to cut.", "Add a piece with its width and height.")
	case len(l.Pieces) > MostLines:
		r.Problem("pieces", fmt.Sprintf("%d lines of pieces are too many at once.", len(l.Pieces)),
			fmt.Sprintf("List up to %d lines. Put pieces of the same size on one line.", MostLines))
	default:
		for i, s := range l.Sheets {
			r.sheet(i, s, margin)
		}
		if r.pieces(); len(r.task.Pieces) == 0 {
			r.Problem("pieces", "There is nothing to cut.", "Add a piece with its width and height.")
		}
		r.pins()
	}
	return r.task, r.Report
}

// usualMargin says how wide a margin usually is.
func (r *reading) usualMargin() string {
	return "Most printers need a margin of " + r.Report.Units.Either("1/8 to 1/4 in.", "3 to 6 mm.")
}

// ask reads how it is to be looked for.
func (r *reading) ask() {
	r.task.Longest = r.length("longest-cut", r.Longest, 10*measure.Millimetre, mostSide, "A trimmer cuts 12 in or 31 cm.")
	r.task.Aim = least.Aim(r.choice("aim", r.Aim, "sheets", "cost", "card"))
	r.task.Tie = least.Tie(r.choice("among-equals", r.Tie, "offcut", "stops"))
	r.task.Work = []int{least.Quick, least.Deep}[r.choice("work", r.Work, "quick", "deep")]
	r.task.Seed = r.Seed
}

func (r *reading) choice(field string, text brief.Text, of ...string) int {
	if text == "" {
		return 0
	}
	i := slices.Index(of, strings.ToLower(strings.TrimSpace(string(text))))
	if i < 0 {
		r.Problem(field, fmt.Sprintf("%q isn't one of the choices.", text), "Write "+strings.Join(of, " or ")+".")
		return 0
	}
	return i
}

// length reads a length between two, 0 when nothing is written.
func (r *reading) length(field string, text brief.Text, low, most measure.Length, fix string) measure.Length {
	if strings.TrimSpace(string(text)) == "" {
		return 0
	}
	l, err := measure.Parse(string(text), r.Report.Units)
	if err != nil {
		r.Problem(field, fmt.Sprintf("%s.", err), fix)
		return 0
	}
	if l < low || l > most {
		r.Problem(field, fmt.Sprintf("%s doesn't work here. Write a length from %s to %s.", text, r.Say(low), r.Say(most)), fix)
		return 0
	}
	return l
}

// side is a length that must be there.
func (r *reading) side(field, of string, text brief.Text) measure.Length {
	if strings.TrimSpace(string(text)) == "" {
		r.Problem(field, of+" has no "+field[strings.LastIndexByte(field, '.')+1:]+".", "Write it like 7 1/2 in.")
		return 0
	}
	return r.length(field, text, leastSide, mostSide, "Fix it, or remove the line.")
}

func (r *reading) count(field string, text brief.Whole, none, most int) int {
	if text == "" {
		return none
	}
	n, err := strconv.Atoi(strings.TrimSpace(string(text)))
	if err != nil || n < 0 || n > most {
		r.Problem(field, fmt.Sprintf("%q isn't a number from 0 to %d.", text, most), "Write how many.")
		return none
	}
	return n
}

func (r *reading) sheet(i int, s Sheet, margin measure.Length) {
	at := func(f string) string { return fmt.Sprintf("sheets.%d.%s", i, f) }
	name := named(s.Name, "sheet", i)
	r.short(at("name"), s.Name)
	size := least.Size{Name: name, Stock: string(s.Stock), W: r.side(at("width"), name, s.Width),
		H: r.side(at("height"), name, s.Height), Count: r.count(at("count"), s.Count, least.Unlimited, 1_000_000), Margin: margin,
		Offcut: s.Offcut == "yes"}
	if s.Margin != "" {
		size.Margin = r.length(at("margin"), s.Margin, 0, 50*measure.Millimetre, r.usualMargin())
	}
	if size.W > 0 && size.H > 0 && 2*size.Margin >= min(size.W, size.H) {
		r.Problem(at("margin"), "This margin leaves nothing of "+name+".", "Write a smaller margin.")
	}
	if size.Offcut && size.Count == least.Unlimited {
		size.Count = 1
	}
	if text := strings.TrimSpace(string(s.Price)); text != "" {
		n, err := strconv.ParseFloat(strings.ReplaceAll(text, ",", "."), 64)
		if err != nil || n < 0 || n > 10_000 || math.IsNaN(n) {
			r.Problem(at("price"), fmt.Sprintf("%q isn't a price of a sheet.", text), "Write a number, such as 0.40.")
		} else {
			size.Price = int64(math.Round(n * 100))
		}
	} else if r.task.Aim == least.Cost && !size.Offcut {
		r.Problem(at("price"), name+" has no price, so Brevium can't find the lowest cost.", "Write its price, or "+
			"aim for fewest sheets.",
			"aim", "sheets")
	}
	r.task.Sheets = append(r.task.Sheets, size)
}

func named(name brief.Text, what string, i int) string {
	if text := strings.TrimSpace(string(name)); text != "" {
		return text
	}
	return fmt.Sprintf("%s %d", words.Capital(what), i+1)
}

func (r *reading) short(field string, text brief.Text) {
	if len(text) > mostText {
		r.Problem(field, "This name is too long.", fmt.Sprintf("Use up to %d letters.", mostText))
	}
}

func (r *reading) pieces() {
	total := 0
	for i, p := range r.Pieces {
		if p.Name == "" && p.Width == "" && p.Height == "" {
			continue // a line that nobody has written on yet
		}
		at := func(f string) string { return fmt.Sprintf("pieces.%d.%s", i, f) }
		name := named(p.Name, "piece", i)
		r.short(at("name"), p.Name)
		n := r.count(at("count"), p.Count, 1, 100_000_000)
		if n == 0 {
			r.Problem(at("count"), ""+name+": you asked for none.", "Write how many, or remove the line.")
		}
		if total += n; total > MostPieces {
			r.Problem(at("count"), fmt.Sprintf("With %s this is more than %d pieces at once.", name, MostPieces),
				"Cut fewer at a time, and repeat the same sheets.")
			return
		}
		if p.Turn != "" && p.Turn != "yes" && p.Turn != "no" {
			r.Problem(at("turn"), fmt.Sprintf("May %[2]s be turned? %[1]q isn't yes or no.", p.Turn, name), "Write yes or no.")
		}
		piece := least.Piece{Piece: layout.Piece{Name: name, W: r.side(at("width"), name, p.Width),
			H: r.side(at("height"), name, p.Height), Count: n, Upright: p.Turn == "no"}, Run: string(p.Run)}
		for k, stock := range p.Stock.List() {
			if k == 0 {
				piece.Stock = stock
			} else {
				piece.Stocks = append(piece.Stocks, stock)
			}
		}
		if on := func(s least.Size) bool { return piece.On(s.Stock) }; !slices.ContainsFunc(r.task.Sheets, on) {
			if len(p.Stock.List()) > 0 {
				r.Problem(at("stock"), fmt.Sprintf("There is no sheet of %s for %s.", p.Stock, name), "Add a sheet "+
					"of that card.")
			} else { // of any
				for _, s := range r.task.Sheets {
					piece.Stocks = append(piece.Stocks, s.Stock)
				}
			}
		}
		r.task.Pieces = append(r.task.Pieces, piece)
	}
}

func (r *reading) pins() {
	if len(r.Pins) > MostPins {
		r.Problem("pins", "Too many pieces are pinned.", fmt.Sprintf("Pin up to %d.", MostPins))
		return
	}
	for i, p := range r.Pins {
		at := func(f string) string { return fmt.Sprintf("pins.%d.%s", i, f) }
		pin := least.Pin{Sheet: r.count(at("sheet"), p.Sheet, 1, MostPieces) - 1, Turned: p.Turned == "yes",
			At: layout.Spot{X: r.length(at("x"), p.X, 0, mostSide, "Write how far from the left."),
				Y: r.length(at("y"), p.Y, 0, mostSide, "Write how far from the top.")}}
		pin.Piece = slices.IndexFunc(r.task.Pieces, func(o least.Piece) bool { return o.Name == string(p.Piece) })
		if pin.Piece < 0 {
			r.Problem(at("piece"), fmt.Sprintf("%q is not on the list.", p.Piece), "Pin a piece by its name.")
		}
		if p.Size != "" {
			pin.Size = slices.IndexFunc(r.task.Sheets, func(s least.Size) bool { return s.Name == string(p.Size) })
		} else if pin.Piece >= 0 {
			pin.Size = slices.IndexFunc(r.task.Sheets, func(s least.Size) bool { return r.task.Pieces[pin.Piece].On(s.Stock) })
		}
		if pin.Size < 0 {
			r.Problem(at("size"), fmt.Sprintf("There is no sheet %q on the list.", p.Size), "Name the sheet it is pinned on.")
		}
		if pin.Sheet < 0 {
			r.Problem(at("sheet"), "Sheets are numbered from 1.", "Write 1 for the first.")
		}
		r.task.Pins = append(r.task.Pins, pin)
	}
}
