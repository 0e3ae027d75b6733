// Package pen is what pictures are drawn with: shapes, texts that keep apart, the patterns of card. A picture is written
// as an SVG whose looks come from draw.css, so one drawing serves the page, the dark setting, print and a file of its own.
package pen

import (
	_ "embed"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"
)

// CSS is the style sheet of the drawings.
//
//go:embed draw.css
var CSS string

// Canvas gathers shapes. Coordinates are CSS pixels.
type Canvas struct {
	all    Shape    // what is drawn lies in it
	open   []*Shape // those that are begun and not ended, from the outermost
	Labels Labels
	Marks  []Area // numbers of cuts
}

// Tag draws a shape; attrs are names and values in turn.
func (c *Canvas) Tag(name string, attrs ...any) *Shape {
	in, s := &c.all, &Shape{Name: name, attrs: attrs}
	if n := len(c.open); n > 0 {
		in = c.open[n-1]
	}
	in.In = append(in.In, s)
	return s
}

// Start begins a shape that others lie in; call End when they do.
func (c *Canvas) Start(name string, attrs ...any) { c.open = append(c.open, c.Tag(name, attrs...)) }

// Group begins a group of shapes.
func (c *Canvas) Group(attrs ...any) { c.Start("g", attrs...) }

// End ends what was begun last.
func (c *Canvas) End() { c.open = c.open[:len(c.open)-1] }

// Text writes a text; class, anchor and place as given.
func (c *Canvas) Text(x, y float64, class, anchor, s string, more ...any) {
	c.Tag("text", append([]any{"x", x, "y", y, "class", class, "text-anchor", anchor}, more...)...).Says = s
}

// Line draws a line between two points.
func (c *Canvas) Line(class string, x1, y1, x2, y2 float64, more ...any) {
	c.Tag("line", append([]any{"class", class, "x1", x1, "y1", y1, "x2", x2, "y2", y2}, more...)...)
}

// Rect draws an upright rectangle from its upper left corner.
func (c *Canvas) Rect(class string, x, y, w, h float64, more ...any) {
	c.Tag("rect", append([]any{"class", class, "x", x, "y", y, "width", w, "height", h}, more...)...)
}

// Title says what the shape that was begun is, under the pointer.
func (c *Canvas) Title(s string) { c.Tag("title").Says = s }

// Px writes a coordinate to a hundredth.
func Px(v float64) string {
	s := strconv.FormatFloat(v, 'f', 2, 64)
	s = strings.TrimRight(strings.TrimRight(s, "0"), ".")
	if s == "-0" || s == "" {
		return "0"
	}
	return s
}

// Tenth rounds a coordinate: enough for what is not measured.
func Tenth(v float64) float64 { return math.Round(v*10) / 10 }

// Picture ends a drawing: how large it is, and what it shows in words.
func (c *Canvas) Picture(class string, w, h float64, says string) Picture {
	return Picture{w, h, class, says, c.all.In}
}

// File makes a picture that stands alone, with the styles it needs inside.
func File(svg string) []byte {
	style := cssFor(func(class string) bool { return strings.Contains(svg, class) })
	return []byte(strings.Replace(svg, ">", "><style>"+style+"</style>", 1))
}

// rules are those of the drawings' style, each with the classes it is about.
var rules = sync.OnceValue(func() (out []rule) {
	text := comment.ReplaceAllString(CSS, "")
	for _, r := range strings.SplitAfter(text, "}") {
		if head, _, ok := strings.Cut(r, "{"); ok {
			about := named.FindAllString(head, -1)
			out = append(out, rule{strings.TrimSpace(r), slices.DeleteFunc(about, func(c string) bool { return c == ".drawing" })})
		}
	}
	return out
})

type rule struct {
	text  string
	about []string
}

var (
	comment = regexp.MustCompile(`(?s)/\*.*?\*/`)
	named   = regexp.MustCompile(`\.[a-z][a-z0-9-]*`)
)

// cssFor gives the rules that what has these classes needs, with whatever is about no class of a picture's own.
func cssFor(has func(class string) bool) string {
	var out strings.Builder
	for _, r := range rules() {
		if len(r.about) == 0 || slices.ContainsFunc(r.about, func(c string) bool { return has(c[1:]) }) {
			out.WriteString(r.text)
		}
	}
	return out.String()
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

// Wide is about how wide a text is set.
func Wide(s string, size float64) float64 {
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
