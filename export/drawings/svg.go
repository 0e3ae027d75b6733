package drawings

import (
	"bytes"
	"fmt"
	"html"
	"strconv"
	"strings"
)

// mm writes millimetres to the nanometre, no longer than need be.
func mm(v float64) string {
	s := strconv.FormatFloat(v, 'f', 6, 64)
	s = strings.TrimRight(strings.TrimRight(s, "0"), ".")
	if s == "-0" {
		return "0"
	}
	return s
}

// lineCodes are how kinds of line are drawn in a file of their own: they differ in dash and
// width too, so that they are told apart without colour.
var lineCodes = map[Kind]string{
	Cut:      `fill="none" stroke="#2a2520" stroke-width="0.3"`,
	Hole:     `fill="none" stroke="#2a2520" stroke-width="0.3"`,
	Valley:   `fill="none" stroke="#7b4b2a" stroke-width="0.3" stroke-dasharray="4 1.2"`,
	Mountain: `fill="none" stroke="#7b4b2a" stroke-width="0.5" stroke-linecap="round" stroke-dasharray="0 1.4"`,
	Bend:     `fill="none" stroke="#7b4b2a" stroke-width="0.12"`,
	GlueIn:   `fill="#2f6f73" stroke="none"`,
	GlueOut:  `fill="none" stroke="#2f6f73" stroke-width="0.2"`,
	Mark:     `fill="none" stroke="#9c3520" stroke-width="0.3"`,
	Name:     `fill="#655b4e" font-family="sans-serif" font-size="3.2" text-anchor="middle"`,
}

// SVG writes a drawing in real millimetres, a group for each kind of line.
func (d Drawing) SVG() []byte {
	var b strings.Builder
	fmt.Fprintf(&b, `<?xml version="1.0" encoding="UTF-8"?>`+"\n"+`<svg xmlns="http://www.w3.org/2000/svg" width="%smm" height="%smm" `+
		`viewBox="0 0 %[1]s %[2]s">`+"\n", mm(d.W), mm(d.H))
	fmt.Fprintf(&b, "<title>%s</title>\n", html.EscapeString(d.Says))
	if d.Warn != "" {
		fmt.Fprintf(&b, "<desc>%s</desc>\n", html.EscapeString(d.Warn))
	}
	for _, kind := range Kinds {
		d.group(&b, kind)
	}
	if d.Warn != "" {
		fmt.Fprintf(&b, `<g id="warning" fill="#9c3520" font-family="sans-serif" font-size="4"><text x="3" y="6">%s</text></g>`+"\n",
			html.EscapeString(d.Warn))
	}
	b.WriteString("</svg>\n")
	return []byte(b.String())
}

// Seen makes a drawing's lines as wide as they are well seen on a screen, however small it is
// shown there.
func Seen(svg []byte) []byte {
	return bytes.Replace(svg, []byte("<title>"), []byte("<style>path,circle{vector-effect:non-scaling-stroke;stroke-width:1.3px}"+
		"#valley-scores path{stroke-dasharray:6 2.5}#mountain-scores path{stroke-width:2.4px;stroke-dasharray:0 5}"+
		"#names{display:none}</style><title>"), 1)
}

func (d Drawing) group(b *strings.Builder, kind Kind) {
	some := false
	for _, p := range d.Paths {
		if p.Kind != kind {
			continue
		}
		if !some {
			fmt.Fprintf(b, "<g id=\"%s\" %s>\n", kind, lineCodes[kind])
			some = true
		}
		name := html.EscapeString(p.Piece)
		switch {
		case kind == Name:
			fmt.Fprintf(b, "<text x=\"%s\" y=\"%s\" data-piece=\"%s\">%s</text>\n", mm(p.Points[0].X), mm(p.Points[0].Y), name,
				html.EscapeString(p.Text))
		case p.Round > 0:
			fmt.Fprintf(b, "<circle cx=\"%s\" cy=\"%s\" r=\"%s\" data-piece=\"%s\"/>\n", mm(p.Points[0].X), mm(p.Points[0].Y),
				mm(p.Round/2), name)
		default:
			fmt.Fprintf(b, "<path d=\"%s\" data-piece=\"%s\"/>\n", pathOf(p), name)
		}
	}
	if some {
		b.WriteString("</g>\n")
	}
}

func pathOf(p Path) string {
	var b strings.Builder
	for i, q := range p.Points {
		b.WriteString(map[bool]string{true: "M", false: "L"}[i == 0] + mm(q.X) + " " + mm(q.Y))
	}
	if p.Closed {
		b.WriteString("Z")
	}
	return b.String()
}
