package batch

import (
	"fmt"
	"slices"

	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/schedule"
	"brevium/core/words"
)

// Give is one thing that could give where the work does not fit the time: each was tried, and with it all fits.
type Give struct {
	Kind string // hands, hours, fewer, simpler or later
	Text string
	// What one press would change.
	Order *Ordered
	Count int
	Dates []Date
	Hands int
	Hours int // minutes more on every day that has any
}

// Date is another day for an order.
type Date struct {
	Order *Ordered
	By    Day
}

// mostHands is how many pairs of hands are considered at the most.
const mostHands = 8

// Gives looks for what would make a batch fit that does not, each by itself. It takes longer than sharing out does.
func (b *Batch) Gives(pace bench.Pace) []Give {
	return b.table(pace).gives(pace)
}

func (t *table) gives(pace bench.Pace) (out []Give) {
	fits := schedule.Fits
	for n := t.Hands + 1; n <= mostHands; n++ {
		p := t.p
		if p.Hands = n; fits(p) {
			out = append(out, Give{Kind: "hands", Hands: n,
				Text: fmt.Sprintf("Get help: %d people at the table finish in time.", n)})
			break
		}
	}
	for more := 30; more <= 240; more += 30 {
		p := t.p
		p.Days = t.days(t.Calendar.longer(more), len(p.Days))
		if fits(p) {
			out = append(out, Give{Kind: "hours", Hours: more,
				Text: fmt.Sprintf("Work longer: add %s to every working day.", MinutesSaid(more))})
			break
		}
	}
	if g, ok := t.fewer(fits); ok {
		out = append(out, g)
	}
	if g, ok := t.simpler(pace, fits); ok {
		out = append(out, g)
	}
	if g, ok := t.later(fits); ok {
		out = append(out, g)
	}
	return out
}

// days are the minutes of work that a calendar has for each of so many days.
func (t *table) days(c Calendar, many int) (out []int) {
	for i := range many {
		out = append(out, workable(c.Of(t.first.Plus(i)).Minutes))
	}
	return out
}

// scaled is the problem with so many of an order.
func (t *table) scaled(i, n int) schedule.Problem {
	p := t.p
	p.Orders = slices.Clone(p.Orders)
	o, of := p.Orders[i], t.on[i].Copy
	o.Work = slices.Clone(o.Work)
	part := func(m int) int { return (m*n + of - 1) / of }
	for k := range o.Work {
		o.Work[k].Minutes = part(o.Work[k].Minutes)
	}
	if o.Last != nil {
		last := *o.Last
		last.Minutes = part(last.Minutes)
		o.Last = &last
	}
	p.Orders[i] = o
	return p
}

// fewer finds the order of which the fewest boxes have to be dropped for the rest to be ready.
func (t *table) fewer(fits func(schedule.Problem) bool) (best Give, ok bool) {
	least := 0
	for i, o := range t.on {
		if !fits(t.scaled(i, 0)) {
			continue
		}
		lo, hi := 0, o.Copy // lo fits, hi does not
		for hi-lo > 1 {
			if n := (lo + hi) / 2; fits(t.scaled(i, n)) {
				lo = n
			} else {
				hi = n
			}
		}
		if less := o.Copy - lo; !ok || less < least {
			least, ok = less, true
			best = Give{Kind: "fewer", Order: o, Count: lo, Text: fmt.Sprintf("Make fewer: %d of %s instead "+
				"of %d.", lo, o.Called(),
				o.Copy)}
			if lo == 0 {
				best.Text = "Leave out " + o.Called() + "."
			}
		}
	}
	return best, ok
}

// simpler leaves off the layers and liners of all boxes, which are what takes time.
func (t *table) simpler(pace bench.Pace, fits func(schedule.Problem) bool) (Give, bool) {
	p := t.p
	p.Orders = slices.Clone(p.Orders)
	some := false
	for i, o := range t.on {
		if len(o.Brief.Dress.Layers)+len(o.Brief.Dress.Liners) == 0 || o.Brief.Several != nil {
			continue
		}
		bare := o.Brief.Clone()
		bare.Dress.Layers, bare.Dress.Liners = nil, nil
		m := Plan(bare, t.shop)
		if !m.OK() {
			continue
		}
		plain := *o
		plain.Made, plain.Brief = m, bare
		p.Orders[i], some = t.order(&plain, pace), true
	}
	if !some || !fits(p) {
		return Give{}, false
	}
	return Give{Kind: "simpler", Text: "Make them simpler: leave out the layers and liners."}, true
}

// later says by when the orders that are late could be ready: one after the other by their dates, so
// that the nearest waits least.
func (t *table) later(fits func(schedule.Problem) bool) (Give, bool) {
	res := schedule.Simple(t.p)
	p := t.p
	p.Orders = slices.Clone(p.Orders)
	ready := map[int]int{}
	for _, c := range res.Chunks {
		ready[c.Order] = max(ready[c.Order], c.Day)
	}
	g := Give{Kind: "later"}
	var says []string
	for i, o := range t.on {
		if ready[i] <= p.Orders[i].By {
			continue
		}
		p.Orders[i].By = ready[i]
		day := t.first.Plus(ready[i])
		g.Dates = append(g.Dates, Date{o, day})
		says = append(says, fmt.Sprintf("%s by %s instead of %s", o.Called(), day.Says(), o.Due.Says()))
	}
	if res.Left > 0 || len(says) == 0 || !fits(p) {
		return g, false
	}
	g.Text = "Deliver later: " + words.List(says) + "."
	return g, true
}

// MinutesSaid writes minutes for people.
func MinutesSaid(m int) string {
	switch {
	case m < 60:
		return fmt.Sprintf("%d min", m)
	case m%60 == 0:
		return fmt.Sprintf("%d h", m/60)
	}
	return fmt.Sprintf("%d h %d min", m/60, m%60)
}

// Take writes what a give would change into the document.
func (g Give) Take(d *Document) {
	switch g.Kind {
	case "hands":
		d.Hands = brief.Whole(fmt.Sprint(g.Hands))
	case "hours":
		for name, text := range d.Hours {
			if t, err := ParseTime(string(text)); err == nil && t.Minutes > 0 {
				d.Hours[name] = brief.Text(t.longer(g.Hours).text())
			}
		}
	case "simpler":
		for i := range d.Orders {
			if b, err := brief.Decode(d.Orders[i].Box); err == nil && b.Several == nil {
				b.Dress.Layers, b.Dress.Liners = nil, nil
				d.Orders[i].Box = b.Encode()
			}
		}
	case "later":
		for _, to := range g.Dates {
			if i := d.Of(to.Order.ID); i >= 0 {
				d.Orders[i].By = brief.Text(to.By.String())
			}
		}
	case "fewer":
		if i := d.Of(g.Order.ID); i >= 0 && g.Count > 0 {
			d.Orders[i].Count = brief.Whole(fmt.Sprint(g.Count))
		} else if i >= 0 {
			d.Orders = slices.Delete(d.Orders, i, i+1)
		}
	}
}
