// Package draw makes pictures of a plan. Every picture is an SVG whose looks
// come from draw.css, so one drawing serves the page, the dark setting, print
// and a file of its own.
package draw

import (
	_ "embed"
	"fmt"
	"html"
	"math"
	"regexp"
	"strconv"
	"strings"
)

// CSS is the style sheet of the drawings.
//
//go:embed draw.css
var CSS string

// canvas writes SVG. Coordinates are CSS pixels.
type canvas struct {
	strings.Builder
	labels labels
	marks  []area // numbers of cuts
}

// tag writes an element without content; attrs are names and values in turn.
func (c *canvas) tag(name string, attrs ...any) {
	c.start(name, attrs)
	c.WriteString("/>")
}

func (c *canvas) start(name string, attrs []any) {
	c.WriteString("<" + name)
	for i := 0; i+1 < len(attrs); i += 2 {
		value := ""
		switch v := attrs[i+1].(type) {
		case float64:
			value = px(v)
		case int:
			value = strconv.Itoa(v)
		case string:
			value = html.EscapeString(v)
		}
		if value == "" {
			continue
		}
		fmt.Fprintf(c, ` %s="%s"`, attrs[i], value)
	}
}

// group opens a <g>; call end to close it.
func (c *canvas) group(attrs ...any) { c.start("g", attrs); c.WriteString(">") }
func (c *canvas) end()               { c.WriteString("</g>") }

// text writes a text; class, anchor and place as given.
func (c *canvas) text(x, y float64, class, anchor, s string, more ...any) {
	c.start("text", append([]any{"x", x, "y", y, "class", class, "text-anchor", anchor}, more...))
	c.WriteString(">" + setFractions(s) + "</text>")
}

var fraction = regexp.MustCompile(`(\d+)⁄(\d+)`)
var mixed = regexp.MustCompile(`(\d) (\d+⁄)`)

// setFractions escapes a text and sets its fractions small, the upper figure
// raised; a whole number before one stands close to it.
func setFractions(s string) string {
	s = html.EscapeString(s)
	s = mixed.ReplaceAllString(s, "$1\u2009$2")
	return fraction.ReplaceAllString(s, `<tspan class="fr" dy="-.45em">$1</tspan><tspan dy=".32em">⁄</tspan>`+
		`<tspan class="fr" dy=".1em">$2</tspan><tspan dy="-.07em">&#8203;</tspan>`)
}

func (c *canvas) line(class string, x1, y1, x2, y2 float64, more ...any) {
	c.tag("line", append([]any{"class", class, "x1", x1, "y1", y1, "x2", x2, "y2", y2}, more...)...)
}

func (c *canvas) rect(class string, x, y, w, h float64, more ...any) {
	c.tag("rect", append([]any{"class", class, "x", x, "y", y, "width", w, "height", h}, more...)...)
}

func (c *canvas) title(s string) {
	c.WriteString("<title>" + html.EscapeString(s) + "</title>")
}

// px writes a coordinate to a hundredth.
func px(v float64) string {
	s := strconv.FormatFloat(v, 'f', 2, 64)
	s = strings.TrimRight(strings.TrimRight(s, "0"), ".")
	if s == "-0" || s == "" {
		return "0"
	}
	return s
}

// tenth writes a coordinate to a tenth: enough for what is not measured.
func tenth(v float64) string {
	if v = math.Round(v*10) / 10; v == 0 {
		return "0"
	}
	return strconv.FormatFloat(v, 'f', -1, 64)
}

// picture wraps a drawing: its size, what it shows in words, its patterns.
func picture(class string, w, h float64, says string, c *canvas) string {
	// Patterns are found by name through the whole page: they go only into
	// pictures that use them, which are never hidden ones.
	defs := ""
	if body := c.String(); strings.Contains(body, `"glued"`) || strings.Contains(body, `"away"`) ||
		strings.Contains(body, `#p-ball`) {
		defs = patterns
	}
	// A picture with parts to take hold of is a group of them, not one image.
	role := "img"
	if strings.Contains(c.String(), `tabindex="0"`) || strings.Contains(c.String(), "<a ") {
		role = "group"
	}
	return fmt.Sprintf(`<svg xmlns="http://www.w3.org/2000/svg" class="drawing %s" viewBox="0 0 %s %s" `+
		`role="%s" aria-label="%s">%s%s</svg>`,
		class, px(w), px(h), role, html.EscapeString(says), defs, c.String())
}

// File makes a picture that stands alone, with its styles inside.
func File(svg string) []byte {
	return []byte(strings.Replace(svg, ">", "><style>"+CSS+"</style>", 1))
}

// patterns are the fills that tell glue and card cut away without colour, and a
// ball from a disc.
const patterns = `<defs>` +
	`<pattern id="p-glue" width="7" height="7" patternUnits="userSpaceOnUse">` +
	`<circle class="p-glue" cx="2" cy="2" r="1.1"/><circle class="p-glue" cx="5.5" cy="5.5" r="1.1"/></pattern>` +
	`<pattern id="p-away" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">` +
	`<path class="p-away" d="M0 0V9M0 0H9"/></pattern>` +
	`<radialGradient id="p-ball" cx=".36" cy=".3" r=".8"><stop offset="0" stop-color="#e6cfa6"/><stop offset=".5" stop-color="#c9a36b"/>` +
	`<stop offset="1" stop-color="#8f6d3d"/></radialGradient>` +
	`</defs>`

// wide is about how wide a text is set.
func wide(s string, size float64) float64 {
	small := 0
	for _, f := range fraction.FindAllString(s, -1) {
		small += len([]rune(f))
	}
	broad := 0 // letters as broad as they are high
	for _, r := range s {
		if r >= 0x1100 {
			broad++
		}
	}
	return (float64(len([]rune(s))) - 0.3*float64(small) + 0.7*float64(broad)) * size * 0.58
}
