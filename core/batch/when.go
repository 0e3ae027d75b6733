package batch

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"brevium/core/brief"
	"brevium/core/measure"
)

// Day is a day of the calendar, without an hour.
type Day struct{ time.Time }

// DayForm is how days are written in documents.
const DayForm = "2006-01-02"

func (d Day) String() string { return d.Format(DayForm) }

// Says writes a day for people: Thu 4 Mar 2027.
func (d Day) Says() string { return d.Format("Mon 2 Jan 2006") }

// Plus is the day so many days later.
func (d Day) Plus(n int) Day { return Day{d.AddDate(0, 0, n)} }

// Since is how many days a day comes after another.
func (d Day) Since(o Day) int { return int(math.Round(d.Sub(o.Time).Hours() / 24)) }

// DayOf is the day of a time, where that is.
func DayOf(t time.Time) Day {
	return Day{time.Date(t.Year(), t.Month(), t.Day(), 0, 0, 0, 0, time.UTC)}
}

// Moment is when a batch is looked at: a day, how many minutes of it have gone, and where clocks are set by.
type Moment struct {
	Day
	Gone int
	Zone *time.Location // nil where clocks are never put forward or back
}

// Now is the moment of a time.
func Now(t time.Time) Moment { return Moment{DayOf(t), t.Hour()*60 + t.Minute(), t.Location()} }

// Begins is the moment at which a day begins.
func (d Day) Begins() Moment { return Moment{Day: d} }

// clock is what clocks say on a day, in minutes after its midnight, so many minutes after they said something.
func (m Moment) clock(d Day, from, after int) int {
	if !m.leaps(d) {
		return from + after
	}
	return m.says(d, m.passed(d, from)+after)
}

// between is how many minutes go by on a day while clocks go from one minute to another.
func (m Moment) between(d Day, from, to int) int {
	if !m.leaps(d) {
		return to - from
	}
	return m.passed(d, to) - m.passed(d, from)
}

func (m Moment) midnight(d Day) time.Time {
	return time.Date(d.Year(), d.Month(), d.Time.Day(), 0, 0, 0, 0, m.Zone)
}

// leaps reports whether clocks are put forward or back on a day.
func (m Moment) leaps(d Day) bool {
	return m.Zone != nil && m.midnight(d.Plus(1)).Sub(m.midnight(d)) != 24*time.Hour
}

// says is what clocks say so many minutes after midnight.
func (m Moment) says(d Day, after int) int {
	at := m.midnight(d).Add(time.Duration(after) * time.Minute)
	return DayOf(at).Since(d)*24*60 + at.Hour()*60 + at.Minute()
}

// passed is how many minutes after midnight clocks first say something, or leap over it.
func (m Moment) passed(d Day, minute int) (after int) {
	for m.says(d, after) < minute {
		after++
	}
	return after
}

// ParseDay reads a day: 2027-03-06, or 6 March 2027. What could be two days is refused.
func ParseDay(text string) (Day, error) {
	s := strings.Join(strings.Fields(text), " ")
	for _, form := range []string{DayForm, "2 Jan 2006", "2 January 2006"} {
		if t, err := time.Parse(form, s); err == nil {
			if t.Year() < 2000 || t.Year() > 2200 {
				return Day{}, fmt.Errorf("%s is too far away", s)
			}
			return Day{t}, nil
		}
	}
	if _, err := time.Parse(DayForm[:7], s[:min(7, len(s))]); err == nil && len(s) == len(DayForm) {
		return Day{}, fmt.Errorf("there is no %s in the calendar", s)
	}
	return Day{}, fmt.Errorf("%q isn't a day. Write it like 2027-03-06 or 6 March 2027", text)
}

// Time is what one has of a day: so many minutes, from an hour on.
type Time struct{ From, Minutes int } // minutes after midnight

// The most and what is usual: in the evening, at a weekend in the morning.
const (
	mostHours = 16
	evening   = 19 * 60
	morning   = 10 * 60
)

// ParseTime reads how long one has: 2, 1 1/2, 1:30, 90 min, or from when to when, 19:00-21:00.
func ParseTime(text string) (Time, error) {
	s := strings.ToLower(strings.TrimSpace(text))
	how := fmt.Errorf("%q isn't a time. Write hours, like 1 1/2 or 90 min, or a start and an end, like 19:00-21:00", text)
	if s == "" || s == "none" || s == "no" {
		return Time{From: -1}, nil
	}
	if from, to, both := strings.Cut(strings.ReplaceAll(s, "–", "-"), "-"); both && from != "" && strings.Contains(s, ":") {
		a, okA := clock(from)
		b, okB := clock(to)
		if !okA || !okB || b <= a {
			return Time{}, how
		}
		return Time{a, b - a}, most(b-a, text)
	}
	if minutes, ok := clock(s); ok && strings.Contains(s, ":") {
		return Time{-1, minutes}, most(minutes, text)
	}
	per := 60.0
	for _, unit := range []struct {
		name string
		per  float64
	}{{"minutes", 1}, {"min", 1}, {"hours", 60}, {"hour", 60}, {"h", 60}} {
		if rest, ok := strings.CutSuffix(s, unit.name); ok {
			s, per = strings.TrimSpace(rest), unit.per
			break
		}
	}
	// A number is written like a length is.
	l, err := measure.Parse(s+" mm", measure.Millimetres)
	if err != nil || l < 0 {
		return Time{}, how
	}
	minutes := int(l.MM()*per + 0.5)
	return Time{-1, minutes}, most(minutes, text)
}

func most(minutes int, text string) error {
	if minutes > mostHours*60 {
		return fmt.Errorf("%q is too long for a day. Write up to %d hours", text, mostHours)
	}
	return nil
}

// clock reads 7:30 as minutes.
func clock(s string) (int, bool) {
	hour, minute, both := strings.Cut(strings.TrimSpace(s), ":")
	h, err := strconv.Atoi(hour)
	m := 0
	if both && err == nil {
		m, err = strconv.Atoi(minute)
	}
	return h*60 + m, err == nil && h >= 0 && h <= 24 && m >= 0 && m < 60
}

// Week are the days of the week as documents name them, from Monday on.
var Week = []string{"mon", "tue", "wed", "thu", "fri", "sat", "sun"}

// WeekSays are their names.
var WeekSays = []string{"Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"}

// Calendar is the time that one has: by the day of the week, and otherwise on some dates; of today what is left of it.
type Calendar struct {
	now  Moment
	week [7]Time
	on   map[string]Time
}

func (b *Batch) readHours() {
	b.Calendar = Calendar{now: b.Now, on: map[string]Time{}}
	some := false
	for name, text := range brief.Sorted(b.Doc.Hours) {
		t, err := ParseTime(string(text))
		if err != nil {
			b.problem("hours."+name, sentence(err), "Write how long you have that day, or leave it empty.")
			continue
		}
		some = some || t.Minutes > 0
		if i := slices.Index(Week, strings.ToLower(name)); i >= 0 {
			b.Calendar.week[i] = t
			continue
		}
		day, err := ParseDay(name)
		if err != nil {
			b.problem("hours."+name, "Which day are these hours for? "+sentence(err), "Choose a weekday or a date.")
			continue
		}
		b.Calendar.on[day.String()] = t
	}
	if !some && !b.wrong("hours") {
		b.problem("hours", "No day has any hours for this work.",
			"Write how many hours you have on at least one day of the week.")
	}
}

// Of is the time one has on a day, with the hour it begins at. What has gone by of today is gone, and so is an hour that
// clocks leap over.
func (c Calendar) Of(d Day) Time {
	t, ok := c.on[d.String()]
	n := (int(d.Weekday()) + 6) % 7
	if !ok {
		t = c.week[n]
	}
	gone := 0
	if d.Since(c.now.Day) == 0 {
		gone = c.now.Gone
	}
	if t.From >= 0 {
		end := t.From + t.Minutes
		t.From = min(end, max(t.From, gone))
		t.Minutes = c.now.between(d, t.From, end)
		return t
	}
	if t.From = evening; n >= 5 {
		t.From = morning
	}
	t.From = max(gone, min(t.From, 24*60-t.Minutes))
	t.Minutes = min(t.Minutes, max(0, 24*60-t.From))
	return t
}

// longer is the calendar with so many minutes more wherever there are any.
func (c Calendar) longer(more int) Calendar {
	out := Calendar{now: c.now, on: map[string]Time{}}
	for i, t := range c.week {
		out.week[i] = t.longer(more)
	}
	for day, t := range c.on {
		out.on[day] = t.longer(more)
	}
	return out
}

// longer is a time with so many minutes more, if it has any: no more than anybody works in a day, nor beyond midnight.
func (t Time) longer(more int) Time {
	if t.Minutes == 0 {
		return t
	}
	most := mostHours * 60
	if t.From >= 0 {
		most = min(most, 24*60-t.From)
	}
	t.Minutes = min(max(t.Minutes, most), t.Minutes+more)
	return t
}

// text writes a time as it is typed.
func (t Time) text() string {
	if t.From < 0 {
		return fmt.Sprintf("%d min", t.Minutes)
	}
	end := t.From + t.Minutes
	return fmt.Sprintf("%d:%02d-%d:%02d", t.From/60, t.From%60, end/60, end%60)
}
