package desk

import (
	"context"
	"crypto/sha256"
	"fmt"
	"slices"
	"strings"
	"time"

	"brevium/core/batch"
	"brevium/core/bench"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/style"
	"brevium/core/words"
	"brevium/store"
)

// FieldMark is the mark in the page of a field.
func FieldMark(path string) string {
	return "f-" + strings.NewReplacer(".", "-", "@", "").Replace(path)
}

// NewMark is a short identity for a thing or a piece of one project.
func NewMark() string { return store.NewID()[:8] }

// Sum tells what is written from all else that is.
func Sum(data []byte) string { return fmt.Sprintf("%x", sha256.Sum256(data)) }

// Today is the day it is.
func (s *Desk) Today() batch.Day { return batch.DayOf(s.Clock()) }

// Clock writes minutes after midnight.
func Clock(m int) string { return fmt.Sprintf("%d:%02d", m/60%24, m%60) }

// MostListed is how many batches or lists of pieces a page lists.
const MostListed = 50

func IsThickness(path string) bool {
	return strings.HasSuffix(path, ".caliper") || strings.HasSuffix(path, ".ten")
}

// Plainly writes a fraction as it can be typed again.
func Plainly(s string) string { return strings.ReplaceAll(s, "⁄", "/") }

// Pace is how fast this maker works, as far as that was recorded.
func (s *Desk) Pace(ctx context.Context) (bench.Pace, error) {
	times, err := s.Store.Log.Times(ctx)
	return bench.PaceOf(times), err
}

const Nameless = "A box without a name"

// DaySaid writes a day of the record for people.
func DaySaid(day string) string {
	if d, err := batch.ParseDay(day); err == nil {
		return d.Format("2 Jan 2006")
	}
	return day
}

func SizeSaid(show func(measure.Length) measure.Shown, d style.Dims) string {
	l, w, h := show(d.Length), show(d.Width), show(d.Depth)
	return fmt.Sprintf("%s × %s × %s", Plainly(l.Text), Plainly(w.Text), Plainly(h.Text+" "+string(h.Unit)))
}

// ScoresSaid lists the scores of a piece one way.
func ScoresSaid(p *plan.Plan, piece *net.Piece, across bool) string {
	var out []string
	for _, pass := range scoresOf(piece, across) {
		if at := Plainly(p.Step.Show(pass.At).Text); !slices.Contains(out, at) {
			out = append(out, at)
		}
	}
	return strings.Join(out, ", ")
}

func ago(t time.Time) string {
	switch d := time.Since(t); {
	case d < -time.Minute: // a clock was wrong
		return t.Format("2 Jan 2006")
	case d < time.Minute:
		return "just now"
	case d < time.Hour:
		return fmt.Sprintf("%d min ago", int(d.Minutes()))
	case d < 24*time.Hour:
		return fmt.Sprintf("%d h ago", int(d.Hours()))
	default:
		return t.Format("2 Jan 2006")
	}
}

// minutesSaid writes minutes, whole or not, for people.
func minutesSaid(m any) string {
	switch m := m.(type) {
	case int:
		return batch.MinutesSaid(m)
	case float64:
		return batch.MinutesSaid(int(m + 0.5))
	}
	return fmt.Sprint(m)
}

// scoresOf gives a piece's passes along the width, or down the height.
func scoresOf(p *net.Piece, alongWidth bool) (out []net.Pass) {
	for _, s := range p.Passes {
		if s.AlongWidth == alongWidth && !slices.ContainsFunc(out, func(o net.Pass) bool { return o.Name == s.Name }) {
			out = append(out, s)
		}
	}
	return out
}

// Area writes an area, given in square millimetres, in the maker's unit.
func Area(mm2 float64, u measure.Unit) string {
	if u == measure.Inches {
		return fmt.Sprintf("%.0f sq in", mm2/(25.4*25.4))
	}
	return fmt.Sprintf("%.0f cm²", mm2/100)
}

func PlainCount(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}

// Said are answers with their labels, in pairs.
func Said(of ...string) (out []style.Choice) {
	for i := 0; i+1 < len(of); i += 2 {
		out = append(out, style.Choice{ID: of[i], Label: of[i+1]})
	}
	return out
}

// Called is a name, or what to say where there is none.
func Called(name, otherwise string) string {
	if words.Visible(name) {
		return name
	}
	return otherwise
}

// Thick says how thick card is: in inches in thousandths, as it is sold there.
func Thick(caliper measure.Length, u measure.Unit) string {
	if u == measure.Inches {
		return fmt.Sprintf("%.0f thousandths of an inch thick", caliper.MM()/25.4*1000)
	}
	return strings.TrimSuffix(caliper.Exact(measure.Millimetres), " mm") + " mm thick"
}
