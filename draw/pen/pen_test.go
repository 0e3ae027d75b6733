package pen

import (
	"encoding/xml"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
)

// Of many texts at many places those that are written lie on no other, level or turned, and each lies where it was wanted.
func TestLabelsKeepOff(t *testing.T) {
	r := rand.New(rand.NewPCG(27, 3))
	for range 200 {
		c := &Canvas{}
		for n := range 40 {
			var spots []Spot
			for range 1 + r.IntN(4) {
				spots = append(spots, At(r.Float64()*300, r.Float64()*200, []string{"start", "middle", "end"}[r.IntN(3)], r.IntN(2) == 0))
			}
			text := strings.Repeat("8", 1+n%6)
			before := len(c.Labels.Taken)
			at, ok := c.Label(text, "flag-text", spots...)
			if !ok {
				continue
			}
			own := at.Extent(text, SizeOf("flag-text"))
			for _, other := range c.Labels.Taken[:before] {
				if own.Meets(other) {
					t.Fatalf("%q at %v lies on another at %v", text, at, other)
				}
			}
			if s := c.all.In[len(c.all.In)-1]; s.Num("x") != at.X || s.Turn() != (Turn{}) != at.Upward {
				t.Fatalf("%q is written as %v, not at %v", text, s, at)
			}
		}
	}
}

// Labels that are spread keep their order and apart, within the line where they have room on it, and move as little
// as they can.
func TestSpread(t *testing.T) {
	r := rand.New(rand.NewPCG(29, 1))
	for range 2000 {
		n := 1 + r.IntN(7)
		want, size, total := make([]float64, n), make([]float64, n), 0.0
		for i := range n {
			want[i], size[i] = r.Float64()*100, 1+r.Float64()*20
			total += size[i]
		}
		slices.Sort(want)
		at, ok := Spread(want, size, -10, 110)
		if ok != (total <= 120) {
			t.Fatalf("%v of 120: %v", total, ok)
		}
		for i := range at {
			if ok && (at[i]-size[i]/2 < -10-1e-6 || at[i]+size[i]/2 > 110+1e-6) {
				t.Fatalf("%v lies past the ends: %v", at[i], at)
			}
			if i > 0 && at[i]-at[i-1] < (size[i]+size[i-1])/2-1e-6 {
				t.Fatalf("%v lie on each other: %v", at, size)
			}
		}
		// No other places at which none lies on another move them less.
		other := slices.Clone(want)
		for i := range other {
			other[i] += r.NormFloat64() * 3
		}
		slices.Sort(other)
		free, _ := Spread(want, size, -1e9, 1e9)
		if other, _ := Spread(other, size, -1e9, 1e9); moved(want, other) < moved(want, free)-1e-6 {
			t.Fatalf("%v move less than %v", other, free)
		}
	}
}

func moved(want, at []float64) (sum float64) {
	for i := range want {
		sum += (at[i] - want[i]) * (at[i] - want[i])
	}
	return sum
}

// Whatever is written on a picture, it is one well-formed element.
func FuzzPicture(f *testing.F) {
	f.Add("a tray", `<b>"&'`, "12 ³⁄₁₆")
	f.Fuzz(func(t *testing.T, says, title, text string) {
		says, title, text = clean(says), clean(title), clean(text)
		c := &Canvas{}
		c.Group("class", title, "data-link", says)
		c.Title(title)
		c.Text(1, 2, "strong", "middle", text)
		c.End()
		svg := c.Picture("flat", 10, 20, says).SVG()
		if err := xml.Unmarshal([]byte(svg), new(any)); err != nil {
			t.Errorf("%v: %s", err, svg)
		}
	})
}

// clean leaves out what no XML may hold; a document has none of it (core/document).
func clean(s string) string {
	return strings.Map(func(r rune) rune {
		if r == '\t' || r == '\n' || r == '\r' || r >= ' ' && r != 0xFFFD && r != 0xFFFE && r != 0xFFFF {
			return r
		}
		return -1
	}, s)
}
