package export

import (
	"maps"
	"strconv"
	"strings"

	"brevium/draw/pen"
)

// painter puts one of our pictures on paper: the same drawing as on the page, shape by shape.
type painter struct {
	*paper
	x, y, k float64 // where it begins and how many millimetres a pixel is
	line    []element
	looks   []style // of the elements in the line, with what they take from those they lie in
}

// picture paints a picture into a place, as large as goes.
func (p *paper) picture(of pen.Picture, x, y, w, h float64) {
	pt := &painter{paper: p, k: min(w/of.W, h/of.H), y: y}
	pt.x = x + (w-of.W*pt.k)/2
	pt.all(of.Whole())
}

// taken are what an element takes from those it lies in.
var taken = []string{"font-size", "font-weight", "color", "visibility", "stroke", "fill", "opacity"}

// own are what an attribute may say in place of a rule, which then gives way.
var own = []string{"fill", "stroke", "stroke-width", "fill-opacity", "visibility"}

// all paints a shape and what lies in it.
func (p *painter) all(s *pen.Shape) {
	p.line = append(p.line, element{s.Name, strings.Fields(s.Text("class"))})
	look := p.lookOf(s)
	p.looks = append(p.looks, look)
	switch unseen := look["visibility"] == "hidden"; {
	case unseen, s.Name == "defs", s.Name == "title", s.Name == "animate":
	default:
		p.one(s, look)
		for _, in := range s.In {
			p.all(in)
		}
	}
	p.line, p.looks = p.line[:len(p.line)-1], p.looks[:len(p.looks)-1]
}

func (p *painter) one(s *pen.Shape, look style) {
	switch s.Name {
	case "line":
		p.shape(look, pen.Path{{Do: 'M', X: s.Num("x1"), Y: s.Num("y1")}, {Do: 'L', X: s.Num("x2"), Y: s.Num("y2")}})
	case "rect":
		x, y, w, h := s.Num("x"), s.Num("y"), s.Num("width"), s.Num("height")
		p.shape(look, pen.Ring([][2]float64{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}}))
	case "circle":
		p.round(look, s.Num("cx"), s.Num("cy"), s.Num("r"), s.Num("r"), 0)
	case "ellipse":
		p.round(look, s.Num("cx"), s.Num("cy"), s.Num("rx"), s.Num("ry"), s.Turn().By)
	case "path":
		p.shape(look, s.Path())
	case "text":
		p.write(s, look)
	}
}

func (p *painter) lookOf(s *pen.Shape) style {
	var key strings.Builder
	for _, e := range p.line {
		key.WriteString(e.tag + "." + strings.Join(e.classes, ".") + " ")
	}
	of, ok := p.known[key.String()]
	if !ok {
		of = styleOf(p.line)
		p.known[key.String()] = of
	}
	look := style{}
	if n := len(p.looks); n > 0 {
		for _, name := range taken {
			if v := p.looks[n-1][name]; v != "" {
				look[name] = v
			}
		}
	}
	for _, name := range own {
		if v := s.Text(name); v != "" {
			look[name] = v
		}
	}
	maps.Copy(look, of)
	return look
}

func fontSize(look style) float64 {
	v, err := strconv.ParseFloat(strings.TrimSuffix(look["font-size"], "px"), 64)
	if err != nil {
		return 13
	}
	return v
}

// ink sets colours and line, and says what is to be done: F, D, FD or nothing. What is filled
// with a pattern takes its colour, lighter.
func (p *painter) ink(look style) string {
	does, alpha := "", 1.0
	if o, err := strconv.ParseFloat(look["opacity"], 64); err == nil {
		alpha = o
	}
	fill := look["fill"]
	switch {
	case fill == "url(#p-glue)":
		fill, alpha = "#2f6f73", 0.3
	case fill == "url(#p-away)":
		fill, alpha = "#8d8377", 0.3
	case fill == "url(#p-ball)":
		fill = "#c9a36b"
	case strings.HasPrefix(fill, "url("):
		fill = "none"
	case fill == "":
		fill = "#000000"
	}
	if c, ok := colour(fill); ok {
		does = "F"
		p.pdf.SetFillColor(c[0], c[1], c[2])
		if o, err := strconv.ParseFloat(look["fill-opacity"], 64); err == nil {
			alpha *= o
		}
	}
	if c, ok := colour(look["stroke"]); ok {
		does += "D"
		p.pdf.SetDrawColor(c[0], c[1], c[2])
		wide := 1.0
		if w, err := strconv.ParseFloat(strings.TrimSuffix(look["stroke-width"], "px"), 64); err == nil {
			wide = w
		}
		p.pdf.SetLineWidth(max(wide*p.k, 0.05))
		var dashes []float64
		for f := range strings.FieldsSeq(look["stroke-dasharray"]) {
			if d, err := strconv.ParseFloat(f, 64); err == nil {
				dashes = append(dashes, d*p.k)
			}
		}
		p.pdf.SetDashPattern(dashes, 0)
		p.pdf.SetLineCapStyle(map[bool]string{true: "round", false: "butt"}[look["stroke-linecap"] == "round"])
	}
	p.pdf.SetAlpha(alpha, "Normal")
	return does
}

// colour reads "#rrggbb", "#rgb" and the colour of the ink.
func colour(s string) (c [3]int, ok bool) {
	if s == "currentColor" {
		s = "#2a2520"
	}
	s, ok = strings.CutPrefix(s, "#")
	if len(s) == 3 {
		s = s[:1] + s[:1] + s[1:2] + s[1:2] + s[2:] + s[2:]
	}
	if !ok || len(s) < 6 {
		return c, false
	}
	n, err := strconv.ParseUint(s[:6], 16, 32)
	return [3]int{int(n >> 16), int(n >> 8 & 255), int(n & 255)}, err == nil
}

func (p *painter) px(x, y float64) (float64, float64) { return p.x + x*p.k, p.y + y*p.k }

func (p *painter) round(look style, cx, cy, rx, ry, turn float64) {
	if does := p.ink(look); does != "" {
		x, y := p.px(cx, cy)
		p.pdf.Ellipse(x, y, rx*p.k, ry*p.k, -turn, does)
	}
}

// shape draws a line. Only small marks have arcs: a straight line stands for them.
func (p *painter) shape(look style, path pen.Path) {
	does := p.ink(look)
	if does == "" {
		return
	}
	begins := 0
	for _, s := range path {
		switch x, y := p.px(s.X, s.Y); s.Do {
		case 'M':
			begins++
			p.pdf.MoveTo(x, y)
		case 'L', 'A':
			p.pdf.LineTo(x, y)
		case 'Z':
			p.pdf.ClosePath()
		}
	}
	if begins > 1 && does != "D" {
		does += "*" // what lies within is a hole
	}
	p.pdf.DrawPath(does)
}

// write sets a text, figures of fractions small.
func (p *painter) write(s *pen.Shape, look style) {
	strong, em, pt := look["font-weight"] == "650", fontSize(look), p.k*72/25.4
	size := func(part pen.Span) float64 {
		if part.Small {
			return 0.72 * em
		}
		return em
	}
	parts, total := pen.Spans(s.Says), 0.0
	for _, part := range parts {
		p.font(strong, size(part)*pt)
		total += p.wide(part.Says)
	}
	x, y := p.px(s.Num("x"), s.Num("y"))
	if turn := s.Turn(); turn.By != 0 {
		p.pdf.TransformBegin()
		cx, cy := p.px(turn.X, turn.Y)
		p.pdf.TransformRotate(-turn.By, cx, cy)
		defer p.pdf.TransformEnd()
	}
	switch s.Text("text-anchor") {
	case "middle":
		x -= total / 2
	case "end":
		x -= total
	}
	c, ok := colour(look["fill"])
	if !ok {
		c, _ = colour("currentColor")
	}
	p.pdf.SetAlpha(1, "Normal")
	p.pdf.SetTextColor(c[0], c[1], c[2])
	for _, part := range parts {
		if y += part.Dy * size(part) * p.k; part.Says == "" {
			continue
		}
		p.font(strong, size(part)*pt)
		p.put(x, y, part.Says)
		x += p.wide(part.Says)
	}
}
