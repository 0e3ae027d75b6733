package pen

import (
	"fmt"
	"html"
	"regexp"
	"strconv"
	"strings"
)

// Picture is a drawing: its shapes, from the first drawn to the last. A page writes it as SVG, a PDF draws its shapes.
type Picture struct {
	W, H  float64 // in CSS pixels
	class string
	says  string
	In    []*Shape
}

// Shape is one of a picture: an element of SVG, with what lies in it.
type Shape struct {
	Name  string // such as line, rect, path, text, g
	attrs []any  // names and values in turn: a float64, an int, a string, a Path or a Turn
	Says  string // of a text, and of a title
	In    []*Shape
}

// Whole is a picture as one shape, in which all others lie.
func (p Picture) Whole() *Shape {
	return &Shape{Name: "svg", attrs: []any{"class", "drawing " + p.class}, In: p.In}
}

// Path is a line: from point to point, several of them, closed or not.
type Path []Seg

// Seg is how a path goes on: M begins anew at a point, L is a straight line to it, A an arc to it, larger than half
// round, and Z goes back to where it began.
type Seg struct {
	Do   byte
	X, Y float64
	R    float64 // of an arc
}

// Ring is a closed line through points.
func Ring(points [][2]float64) (p Path) {
	for i, at := range points {
		p = append(p, Seg{Do: "LM"[btoi(i == 0)], X: at[0], Y: at[1]})
	}
	return append(p, Seg{Do: 'Z'})
}

func btoi(is bool) int {
	if is {
		return 1
	}
	return 0
}

func (p Path) String() string {
	var b strings.Builder
	for _, s := range p {
		b.WriteByte(s.Do)
		switch s.Do {
		case 'Z':
			continue
		case 'A':
			b.WriteString(Px(s.R) + " " + Px(s.R) + " 0 1 1 ")
		}
		b.WriteString(Px(s.X) + " " + Px(s.Y))
	}
	return b.String()
}

// Turn is a turn by degrees about a point.
type Turn struct{ By, X, Y float64 }

// Turned turns by degrees about a point.
func Turned(by, x, y float64) Turn { return Turn{by, x, y} }

func (t Turn) String() string {
	if t.By == 0 {
		return ""
	}
	return "rotate(" + Px(t.By) + " " + Px(t.X) + " " + Px(t.Y) + ")"
}

// of gives what a shape is given under a name, nil for nothing.
func (s *Shape) of(name string) any {
	for i := 0; i+1 < len(s.attrs); i += 2 {
		if s.attrs[i] == name {
			return s.attrs[i+1]
		}
	}
	return nil
}

// Num is a number of a shape, such as its x; 0 where it has none.
func (s *Shape) Num(name string) float64 {
	switch v := s.of(name).(type) {
	case float64:
		return v
	case int:
		return float64(v)
	case string:
		n, _ := strconv.ParseFloat(v, 64)
		return n
	}
	return 0
}

// Text is what a shape is given in words, such as its class.
func (s *Shape) Text(name string) string { return written(s.of(name)) }

// Path is where it goes, of a shape that is a line.
func (s *Shape) Path() Path { p, _ := s.of("d").(Path); return p }

// Turn is how it is turned.
func (s *Shape) Turn() Turn { t, _ := s.of("transform").(Turn); return t }

func written(value any) string {
	switch v := value.(type) {
	case float64:
		return Px(v)
	case int:
		return strconv.Itoa(v)
	case string:
		return v
	case fmt.Stringer:
		return v.String()
	}
	return ""
}

// Span is a part of a text: the figures of a fraction are set small, one raised and one lowered.
type Span struct {
	Says  string
	Small bool
	Dy    float64 // how far below what was before it, as a part of its own size
}

var fraction = regexp.MustCompile(`(\d+)⁄(\d+)`)
var mixed = regexp.MustCompile(`(\d) (\d+⁄)`)

// Spans are the parts of a text; a whole number stands close to the fraction behind it.
func Spans(says string) (out []Span) {
	says = mixed.ReplaceAllString(says, "$1\u2009$2")
	for {
		at := fraction.FindStringSubmatchIndex(says)
		if at == nil {
			return append(out, Span{Says: says})
		}
		out = append(out, Span{Says: says[:at[0]]}, Span{says[at[2]:at[3]], true, -.45}, Span{"⁄", false, .32},
			Span{says[at[4]:at[5]], true, .1}, Span{"\u200b", false, -.07})
		says = says[at[1]:]
	}
}

// write writes a shape as SVG.
func (s *Shape) write(b *strings.Builder) {
	b.WriteString("<" + s.Name)
	for i := 0; i+1 < len(s.attrs); i += 2 {
		if value := written(s.attrs[i+1]); value != "" {
			b.WriteString(" " + s.attrs[i].(string) + `="` + html.EscapeString(value) + `"`)
		}
	}
	if s.Says == "" && len(s.In) == 0 && s.Name != "g" {
		b.WriteString("/>")
		return
	}
	b.WriteString(">")
	if s.Name == "text" {
		writeSpans(b, s.Says)
	} else {
		b.WriteString(html.EscapeString(s.Says))
	}
	for _, in := range s.In {
		in.write(b)
	}
	b.WriteString("</" + s.Name + ">")
}

func writeSpans(b *strings.Builder, says string) {
	for _, part := range Spans(says) {
		text := html.EscapeString(part.Says)
		switch dy := strings.Replace(Px(part.Dy), "0.", ".", 1); {
		case part.Small:
			b.WriteString(`<tspan class="fr" dy="` + dy + `em">` + text + "</tspan>")
		case part.Dy != 0:
			b.WriteString(`<tspan dy="` + dy + `em">` + text + "</tspan>")
		default:
			b.WriteString(text)
		}
	}
}

// SVG writes a picture for a page: its size, what it shows in words, its patterns. No picture is "".
func (p Picture) SVG() string {
	if p.class == "" {
		return ""
	}
	var b strings.Builder
	for _, s := range p.In {
		s.write(&b)
	}
	// Patterns are found by name through the whole page: they go only into
	// pictures that use them, which are never hidden ones.
	body, defs := b.String(), ""
	if strings.Contains(body, `"glued"`) || strings.Contains(body, `"away"`) || strings.Contains(body, `#p-ball`) {
		defs = patterns
	}
	// A picture with parts to take hold of is a group of them, not one image.
	role := "img"
	if strings.Contains(body, `tabindex="0"`) || strings.Contains(body, "<a ") {
		role = "group"
	}
	return fmt.Sprintf(`<svg xmlns="http://www.w3.org/2000/svg" class="drawing %s" viewBox="0 0 %s %s" `+
		`role="%s" aria-label="%s">%s%s</svg>`, p.class, Px(p.W), Px(p.H), role, html.EscapeString(p.says), defs, body)
}
