package shop

import (
	"fmt"
	"strconv"
	"strings"

	"brevium/core/brief"
	"brevium/core/document"
	"brevium/core/measure"
)

// Shop is a document that was read: what a plan works with.
type Shop struct {
	Shelf
	Tools    Tools
	Said     brief.Tools // the tools as they were typed, to write into a document
	habits   map[string]string
	learnt   map[Key]Learnt
	offcuts  []Kept
	Troubled map[string]string // cards that can't be used, and why
	Stocks   map[string]brief.Stock
	Writes   map[string][]string // of each card, the fields and texts that describe it in a document
	Currency string
	Prices   map[string]Price
	Seen     map[string]bool
}

// Default is the shop Brevium comes with.
var Default = func() Shop {
	s, r := Read(Shipped())
	if len(r.Problems) > 0 {
		panic(r.Problems[0].Text)
	}
	return *s
}()

// Kept is an offcut that was read.
type Kept struct {
	ID, Card, From string
	Width, Height  Length
}

// Read reads a shop. What can't be read is noted at its field, and left out.
func Read(d Document) (*Shop, *brief.Report) {
	r := readerIn(d.Units())
	s := &Shop{Shelf: Shelf{Sheets: Sheets}, Currency: strings.TrimSpace(string(d.Currency)), Said: d.Tools,
		habits: map[string]string{}, Troubled: map[string]string{}, Stocks: map[string]brief.Stock{},
		Writes: map[string][]string{}, Seen: map[string]bool{}}
	names := map[string]string{}
	for _, stock := range d.Cards {
		s.Stocks[stock.ID], s.Writes[stock.ID] = stock, written(stock)
		prefix := "cards.@" + stock.ID + "."
		c, ok := ReadStock(r, prefix, stock)
		if other := names[strings.ToLower(c.Title)]; other != "" && c.Title != "" {
			r.Problem(prefix+"title", fmt.Sprintf("Two cards are called “%s”.", c.Title), "Give one of them another name.")
			ok = false
		}
		names[strings.ToLower(c.Title)] = stock.ID
		if ok {
			s.Cards = append(s.Cards, c)
		} else {
			s.Troubled[stock.ID] = r.Problems[len(r.Problems)-1].Text
		}
	}
	s.Tools = ReadTools(r, &d.Tools)
	if tape := d.Tools.Tape; tape != "" {
		ReadTape(r, tape)
	}
	for id, choice := range brief.Sorted(d.Habits) {
		if h, ok := FindHabit(id); ok && h.Has(string(choice)) {
			s.habits[id] = string(choice)
		} else {
			r.Problem("habits."+id, fmt.Sprintf("There is no habit called %q.", choice), "Choose one of those "+
				"shown.", "habits."+id, "")
		}
	}
	s.readOffcuts(r, d)
	s.Prices = readPrices(r, d)
	s.learnt = LearnAll(records(r, d), func(k Key) bool { return d.Aside[k.String()] == "yes" })
	for id, yes := range d.Seen {
		s.Seen[id] = yes == "yes"
	}
	return s, r.Report
}

// Units is the unit that a bare number of the shop takes.
func (d *Document) Units() measure.Unit {
	if u := measure.Unit(d.Habits["units"]); u == measure.Millimetres || u == measure.Centimetres {
		return u
	}
	return measure.Inches
}

// readerIn begins to read what is of no box, in a unit.
func readerIn(u measure.Unit) *brief.Reader {
	step := brief.Text(measure.DefaultStep(u).String())
	return brief.NewReader(&brief.Brief{Units: brief.Text(u), Tools: brief.Tools{Step: step}})
}

// written gives the fields of a document that describe a card, and their texts, in pairs.
func written(s brief.Stock) (out []string) {
	for _, name := range brief.Of("card.own") {
		if text := document.Get(&s, name); text != "" {
			out = append(out, "card.own.@"+s.ID+"."+name, text)
		}
	}
	return out
}

// ReadTape reads how wide the tape is.
func ReadTape(r *brief.Reader, text brief.Text) Length {
	l, ok := r.Length("tools.tape", text)
	if ok && (l < 3*measure.Millimetre || l > 50*measure.Millimetre) {
		r.Problem("tools.tape", "Tape is not "+r.Say(l)+" wide.", "Usual is "+r.Units.Either("1/4, 3/8 or 1/2 in.", "6, 10 or 12 mm."),
			"tools.tape", "")
	}
	return l
}

func (s *Shop) readOffcuts(r *brief.Reader, d Document) {
	for _, o := range d.Offcuts {
		prefix := "offcuts.@" + o.ID + "."
		w, okW := r.Length(prefix+"width", o.Width, "The offcut's width")
		h, okH := r.Length(prefix+"height", o.Height, "The offcut's height")
		if !okW || !okH {
			continue
		}
		if w > mostSheet || h > mostSheet {
			r.Problem(prefix+"width", "That is too big for an offcut.", "Measure it again.")
			continue
		}
		s.offcuts = append(s.offcuts, Kept{o.ID, string(o.Card), string(o.From), w, h})
	}
}

func records(r *brief.Reader, d Document) (out []Record) {
	for i, f := range d.Fits {
		prefix := "fits." + strconv.Itoa(i) + "."
		n, err := strconv.Atoi(string(f.Layers))
		usual, okU := r.LengthOrNone(prefix+"usual", f.Usual, "The slack")
		had, err2 := measure.Parse(strings.TrimPrefix(string(f.Had), "-"), r.Units)
		if strings.HasPrefix(string(f.Had), "-") {
			had = -had
		}
		if err != nil || !okU || err2 != nil {
			continue
		}
		rec := Record{Key: Key{string(f.Card), string(f.Walls), n}, Usual: usual, Had: had, Verdict: string(f.Verdict)}
		if f.Gap != "" {
			gap, ok := r.LengthOrNone(prefix+"gap", f.Gap, "The gap")
			if !ok {
				continue
			}
			rec.Gap, rec.Measured = gap, true
		}
		out = append(out, rec)
	}
	return out
}
