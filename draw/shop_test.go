package draw

import (
	"encoding/xml"
	"fmt"
	"math"
	"math/rand/v2"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/readings"
	"brevium/core/request"
	"brevium/core/shop"
)

var sectionRect = regexp.MustCompile(`<rect class="section-(card|gap)" x="([\d.]+)" y="([\d.-]+)" width="([\d.]+)" height="([\d.-]+)"`)

// The corner is drawn to one scale: every thickness as wide as it is, side by side, the
// gap between base and lid, names beside them and on no other; and the same in words.
func TestSectionToScale(t *testing.T) {
	r := rand.New(rand.NewPCG(31, 32))
	for n := range 60 {
		b := brief.New("mm")
		b.Contents, b.Size = nil, &brief.Size{Length: "100 mm", Width: "80 mm", Depth: "36 mm"}
		b.Card.Stock = brief.Text(request.Default.Cards[n%len(request.Default.Cards)].ID)
		b.Card.Sheet = "a3"
		b.Set("card.stocks.lid", request.Default.Cards[r.IntN(len(request.Default.Cards))].ID)
		b.Set("dress.outside", fmt.Sprint(r.IntN(4)))
		b.Set("dress.inside", fmt.Sprint(r.IntN(3)))
		b.Set("box.options.lid-walls", []string{"single", "rolled", "pinwheel"}[r.IntN(3)])
		b.Set("box.options.walls", []string{"single", "rolled"}[r.IntN(2)])
		p := plan.Make(b, request.Default)
		if !p.OK() || len(readings.Sections(p)) != 1 {
			t.Fatalf("%v %d sections", p.Problems, len(readings.Sections(p)))
		}
		s := readings.Sections(p)[0]
		svg := Section(p, s, 690, 330)
		if err := xml.Unmarshal([]byte(svg), new(any)); err != nil {
			t.Fatal(err)
		}
		var widths, lefts []float64
		for _, m := range sectionRect.FindAllStringSubmatch(svg, -1) {
			x, _ := strconv.ParseFloat(m[2], 64)
			w, _ := strconv.ParseFloat(m[4], 64)
			high, _ := strconv.ParseFloat(m[5], 64)
			if high <= 0 {
				t.Fatalf("something is %v high: %s", high, m[0])
			}
			if x > 12 { // the floor and the top of the lid begin at the edge
				widths, lefts = append(widths, w), append(lefts, x)
			}
		}
		if len(widths) != len(s.Skins) {
			t.Fatalf("%d are drawn of %d", len(widths), len(s.Skins))
		}
		k := widths[0] / s.Skins[0].Thick.MM()
		for i, skin := range s.Skins {
			if math.Abs(widths[i]-max(1, skin.Thick.MM()*k)) > 0.03 || i > 0 && math.Abs(lefts[i-1]+widths[i-1]-lefts[i]) > 0.03 {
				t.Fatalf("%s is %v wide at %v, of %v a millimetre", skin.What, widths[i], lefts[i], k)
			}
			if says := fmt.Sprintf("%s %.2f mm", skin.What, skin.Thick.MM()); !strings.Contains(SectionSays(s, p.Step.Unit), says) {
				t.Fatalf("%q does not say %q", SectionSays(s, p.Step.Unit), says)
			}
		}
	}
}

// Every picture of the shop is a picture, whatever is in the shop: cards of any colour,
// pattern and thickness, tools or none, offcuts long and short.
func TestShopPictures(t *testing.T) {
	r := rand.New(rand.NewPCG(33, 34))
	whole := func(svg string) {
		t.Helper()
		if err := xml.Unmarshal([]byte(svg), new(any)); err != nil || strings.Contains(svg, "NaN") || strings.Contains(svg, `"-`) &&
			strings.Contains(svg, `width="-`) {
			t.Fatalf("%v: %.300s", err, svg)
		}
	}
	mm := func(most int) measure.Length { return measure.Length(1+r.IntN(most)) * measure.Millimetre }
	seen := map[string]string{}
	for range 200 {
		card := request.Default.Cards[r.IntN(len(request.Default.Cards))]
		card.Pattern, card.Ink = append(shop.Motifs, "")[r.IntN(5)], "#123456"
		card.Grain, card.Caliper, card.Repeat = []string{"", "long", "short"}[r.IntN(3)], mm(2), mm(90)
		svg := Swatch(card, 132, 92)
		whole(svg)
		key := fmt.Sprint(card.ID, card.Pattern, card.Grain, card.Caliper, card.Repeat)
		if was, ok := seen[key]; ok && was != svg {
			t.Fatal("a swatch is another the second time")
		}
		seen[key] = svg
		tools := shop.Tools{FromRight: r.IntN(2) == 0}
		for range r.IntN(3) {
			tools.Grooves = append(tools.Grooves, mm(30)/8)
			tools.Punches = append(tools.Punches, shop.Punch{Kind: shop.PunchKinds[r.IntN(4)], Size: mm(60)})
		}
		if r.IntN(2) == 0 {
			tools.Board, tools.Cuts = mm(900), mm(900)
		}
		whole(Tools(tools, []measure.Unit{measure.Inches, measure.Millimetres}[r.IntN(2)], 690, 460))
		var kept []shop.Kept
		for range r.IntN(9) {
			kept = append(kept, shop.Kept{Card: card.ID, Width: mm(400), Height: mm(400)})
		}
		whole(Offcuts(kept, func(string) shop.Card { return card }, func(k shop.Kept) string { return "<left>" }, 690, 560))
		low, high := -mm(1), mm(2)
		whole(Learnt(shop.Slack["snug"], shop.Learnt{More: (low + high) / 2, Low: low, High: high, Records: 3}, measure.Millimetres, 420, 56))
	}
}

// However many and large, punches are drawn beside each other and whole, under the trimmer.
func TestPunchesStandApart(t *testing.T) {
	r := rand.New(rand.NewPCG(51, 52))
	ring := regexp.MustCompile(`class="mark" cx="([\d.]+)" cy="([\d.]+)" r="([\d.]+)"`)
	for range 100 {
		var tools shop.Tools
		for range 1 + r.IntN(16) {
			tools.Punches = append(tools.Punches, shop.Punch{Kind: []string{"hole", "circle"}[r.IntN(2)],
				Size: measure.Length(1+r.IntN(200)) * measure.Millimetre})
		}
		svg := Tools(tools, measure.Millimetres, 690, 460)
		var high float64
		fmt.Sscanf(svg[strings.Index(svg, `viewBox="0 0 690 `)+17:], "%f", &high)
		var all [][3]float64
		for _, m := range ring.FindAllStringSubmatch(svg, -1) {
			var at [3]float64
			for i := range at {
				at[i], _ = strconv.ParseFloat(m[i+1], 64)
			}
			x, y, rad := at[0], at[1], at[2]
			if x-rad < 0 || x+rad > 690 || y-rad < 266 || y+rad+18 > high {
				t.Fatalf("%v lies out of 690 x %v", at, high)
			}
			for _, o := range all {
				if math.Hypot(x-o[0], y-o[1]) < rad+o[2] {
					t.Fatalf("%v lies on %v", at, o)
				}
			}
			all = append(all, at)
		}
		if len(all) != len(tools.Punches) {
			t.Fatalf("%d are drawn of %d", len(all), len(tools.Punches))
		}
	}
}
