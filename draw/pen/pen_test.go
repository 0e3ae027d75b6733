package pen

import (
	"encoding/xml"
	"math/rand/v2"
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
			at, ok := c.Label(text, "flag-text", 13, spots...)
			if !ok {
				continue
			}
			own := at.Extent(text, 13)
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
