package shop

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"brevium/core/brief"
	"brevium/core/measure"
)

// What is bought beside card has a price for a pack; work has one for an hour.

// By says what a pack is counted in.
type By string

const (
	ByLength By = "length" // millimetres
	ByVolume By = "ml"
	ByCount  By = "count"
	AnHour   By = "hour"
	Percent  By = "percent"
)

// PriceKind is something that has a price.
type PriceKind struct {
	ID, Label string
	By        By
	Like      string   // how it is typed
	Of        []string // words by which a supply of it is known
}

// PriceKinds lists them; wage and margin are the last.
var PriceKinds = []PriceKind{
	{"dot", "Hook dots, glue dots", ByCount, "2.20 for 24", []string{"dot"}},
	{"tape", "Double-sided tape", ByLength, "2.40 for 10 m", []string{"tape"}},
	{"glue", "Wet glue", ByVolume, "2.80 for 100 ml", []string{"glue"}},
	{"magnet", "Disc magnets", ByCount, "4.50 for 20", []string{"magnet"}},
	{"brad", "Brads", ByCount, "1.90 for 50", []string{"brad", "fastener"}},
	{"ribbon", "Ribbon", ByLength, "3.20 for 5 m", []string{"ribbon"}},
	{"string", "String, cord", ByLength, "2.00 for 50 m", []string{"string", "cord", "jute", "twine", "rope"}},
	{"foam", "Foam pads", ByCount, "1.80 for 100", []string{"foam"}},
	{"film", "Film for windows", ByCount, "3.00 for 20", []string{"film"}},
	{"clip", "Clips, pegs", ByCount, "1.50 for 25", []string{"clip", "peg"}},
	{"button", "Buttons", ByCount, "2.00 for 30", []string{"button"}},
	{"ink", "Ink, by the panel or edge", ByCount, "6.00 for 200", []string{"ink"}},
	{"sticker", "Stickers", ByCount, "2.50 for 40", []string{"sticker"}},
	{"wage", "An hour of your work", AnHour, "14.00", nil},
	{"margin", "Margin over costs and work", Percent, "25", nil},
}

// Price is what so much of something costs.
type Price struct {
	Coins  int64 // hundredths of a coin for the pack, or an hour; of the margin, hundredths of a percent
	Amount float64
}

// PriceOf finds the kind of a supply by its words.
func PriceOf(what string) (PriceKind, bool) {
	what = strings.ToLower(what)
	for _, k := range PriceKinds {
		for _, word := range k.Of {
			if strings.Contains(what, word) {
				return k, true
			}
		}
	}
	return PriceKind{}, false
}

func priceKind(id string) (PriceKind, bool) {
	for _, k := range PriceKinds {
		if k.ID == id {
			return k, true
		}
	}
	return PriceKind{}, false
}

// ParsePrice reads "2.40 for 10 m", "4.50 for 20" or, of wage and margin, a number alone.
func ParsePrice(k PriceKind, text string, unit measure.Unit) (p Price, err error) {
	bad := fmt.Errorf("%q isn't a price. Write it like %s", strings.TrimSpace(text), k.Like)
	coins, amount, pack := strings.Cut(strings.ToLower(text), "for")
	number := strings.TrimSuffix(strings.TrimSpace(strings.ReplaceAll(coins, ",", ".")), "%")
	v, err := strconv.ParseFloat(strings.TrimSpace(number), 64)
	if err != nil || math.IsNaN(v) || v < 0 || v > 100_000 || pack != (k.Of != nil) {
		return p, bad
	}
	p.Coins = int64(math.Round(v * 100))
	if !pack {
		return p, nil
	}
	amount = strings.TrimSpace(amount)
	switch k.By {
	case ByLength:
		p.Amount, err = longReel(amount, unit)
	default:
		p.Amount, err = strconv.ParseFloat(strings.TrimSpace(strings.TrimSuffix(amount, "ml")), 64)
	}
	if err != nil || !(p.Amount > 0) || p.Amount > 1e8 {
		return Price{}, bad
	}
	return p, nil
}

// longReel reads how long a reel is, in millimetres: metres, yards and feet beside what is measured otherwise.
func longReel(text string, unit measure.Unit) (float64, error) {
	for _, u := range []struct {
		name string
		mm   float64
	}{{"yd", 914.4}, {"ft", 304.8}, {" m", 1000}} {
		if n, ok := strings.CutSuffix(text, u.name); ok {
			v, err := strconv.ParseFloat(strings.TrimSpace(n), 64)
			return v * u.mm, err
		}
	}
	if n, ok := strings.CutSuffix(text, "m"); ok {
		if v, err := strconv.ParseFloat(n, 64); err == nil {
			return v * 1000, nil
		}
	}
	l, err := measure.Parse(text, unit)
	return l.MM(), err
}

func readPrices(r *brief.Reader, d Document) map[string]Price {
	out := map[string]Price{}
	for id, text := range brief.Sorted(d.Prices) {
		k, ok := priceKind(id)
		if !ok {
			r.Problem("prices."+id, fmt.Sprintf("There is no price of %q.", id), "Remove it.", "prices."+id,
				"")
			continue
		}
		if strings.TrimSpace(string(text)) == "" {
			continue
		}
		p, err := ParsePrice(k, string(text), r.Units)
		if err != nil {
			r.Problem("prices."+id, err.Error()+".", "Leave it empty if it is not known.", "prices."+id, "")
			continue
		}
		out[id] = p
	}
	return out
}

// Packs is how many packs so much takes.
func (p Price) Packs(amount float64) int { return int(math.Ceil(amount/p.Amount - 1e-9)) }

// Share is what so much of a pack costs.
func (p Price) Share(amount float64) int64 {
	return int64(math.Round(float64(p.Coins) * amount / p.Amount))
}
