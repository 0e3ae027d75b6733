package batch

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"
	"time"

	"brevium/core/brief"
	"brevium/core/request"
)

// What has gone by of today is no time to work in, nor is an hour that clocks leap over.
func TestHoursThereAre(t *testing.T) {
	zone, err := time.LoadLocation("Europe/Vienna")
	if err != nil {
		t.Skip(err)
	}
	for _, c := range []struct {
		now           string // a Thursday, in winter
		hours         string
		from, minutes int
	}{
		{"2027-02-18 00:00", "19:00-21:00", 19 * 60, 120}, {"2027-02-18 18:59", "19:00-21:00", 19 * 60, 120},
		{"2027-02-18 19:30", "19:00-21:00", 19*60 + 30, 90}, {"2027-02-18 21:00", "19:00-21:00", 21 * 60, 0},
		{"2027-02-18 23:59", "19:00-21:00", 21 * 60, 0}, {"2027-02-18 12:00", "2", 19 * 60, 120},
		{"2027-02-18 20:00", "2", 20 * 60, 120}, {"2027-02-18 23:30", "2", 23*60 + 30, 30}, {"2027-02-18 10:00", "none", 19 * 60, 0},
		// Clocks go forward at two on 28 March, and back at three on 31 October; both are Sundays.
		{"2027-03-28 00:00", "1:00-4:00", 60, 120}, {"2027-03-28 00:00", "2:30-4:00", 150, 60}, {"2027-03-28 00:00", "19:00-21:00", 1140, 120},
		{"2027-10-31 00:00", "1:00-4:00", 60, 240}, {"2027-10-31 00:00", "3", 600, 180},
	} {
		at, _ := time.ParseInLocation("2006-01-02 15:04", c.now, zone)
		d := Document{Orders: orders(1, "2027-12-01"), Hours: map[string]brief.Text{DayOf(at).String(): brief.Text(c.hours), "sat": "1"}}
		b := Read(d, Now(at), request.Default)
		if got := b.Calendar.Of(DayOf(at)); got.Minutes != c.minutes || got.Minutes > 0 && got.From != c.from {
			t.Errorf("%s, %s: %d from %d, want %d from %d", c.now, c.hours, got.Minutes, got.From, c.minutes, c.from)
		}
		s := Sitting{Day: DayOf(at), Begins: c.from, now: b.Now}
		if strings.HasPrefix(c.hours, "1:00-4:00") && s.Clock(c.minutes) != 240 {
			t.Errorf("%s: after %d minutes clocks say %d", c.now, c.minutes, s.Clock(c.minutes))
		}
	}
}

// Eleven hours of work in two hours of one date is ready on no day, and late, wherever that is told.
func TestNoDayForIt(t *testing.T) {
	d := Document{Orders: orders(40, "2027-02-25", "2027-03-06"), Hours: map[string]brief.Text{"2027-02-20": "2"}}
	b := made(t, d)
	s := b.Share(noPace)
	for _, o := range b.Orders {
		if _, ready := s.Ready[o.ID]; ready && s.Unmade[o.ID] > 0 || !ready && s.Unmade[o.ID] == 0 {
			t.Errorf("order %s: ready %v, %d minutes without a day", o.ID, ready, s.Unmade[o.ID])
		}
	}
	if s.Fits || len(s.Unmade) == 0 || s.Left == 0 {
		t.Errorf("%+v", s.Unmade)
	}
	out, fits := JSON(d, today.Begins(), request.Default, noPace)
	var told jsonBatch
	if err := json.Unmarshal(out, &told); err != nil || fits || told.Fits {
		t.Fatal(err, fits)
	}
	for _, o := range told.Orders {
		if unmade := s.Unmade[o.ID]; unmade > 0 && (!o.Late || o.Ready != "" || o.Unmade != unmade) {
			t.Errorf("%+v", o)
		}
	}
}

// “Longer days” fits when it is pressed, also where hours end shortly before midnight: nobody gets more than there is.
func TestLongerDaysFit(t *testing.T) {
	offered := 0
	for n := range 12 {
		for _, hours := range []string{"22:00-23:30", "20:30-22:00", "1", "15", "0:30-16:00"} {
			d := Document{Orders: orders(4+2*n, "2027-02-24", "2027-02-27"), Hours: map[string]brief.Text{"sat": brief.Text(hours),
				"tue": brief.Text(hours), "wed": "30 min"}}
			b := made(t, d)
			if b.Share(noPace).Fits {
				continue
			}
			for _, g := range b.Gives(noPace) {
				if g.Kind != "hours" {
					continue
				}
				offered++
				g.Take(&d)
				again := made(t, d)
				if !again.Share(noPace).Fits {
					t.Errorf("%d of each in %s: %q: it does not fit in %v", 4+2*n, hours, g.Text, d.Hours)
				}
				for name, text := range d.Hours {
					if at, err := ParseTime(string(text)); err != nil || at.From+at.Minutes > 24*60 {
						t.Errorf("%s: %q: %v", name, text, err)
					}
				}
			}
		}
	}
	if offered < 5 {
		t.Errorf("longer days are offered %d times", offered)
	}
	if got := fmt.Sprint(Time{22 * 60, 90}.longer(60).text(), " ", Time{-1, 60}.longer(30).text()); got != "22:00-24:00 90 min" {
		t.Error(got)
	}
}
