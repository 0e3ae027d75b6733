package export

import (
	"encoding/xml"
	"fmt"
	"maps"
	"strconv"
	"strings"
)

// painter puts one of our pictures on paper: the same drawing as on the page, line by line.
type painter struct {
	*paper
	x, y, k float64 // where it begins and how many millimetres a pixel is
	line    []element
	looks   []style // of the elements in the line, with what they take from those they lie in
	skip    int     // within what is only defined, or said
	texts   []run
	at      text
}

// run is a part of a text: its letters, how large, how far below the line before it.
type run struct {
	says     string
	size, dy float64
}

type text struct {
	x, y   float64
	anchor string
	look   style
	turn   float64 // about cx, cy
	cx, cy float64
}

// picture paints an SVG of ours into a place, as large as goes, and says how large that is.
func (p *paper) picture(svg string, x, y, w, h float64) (wide, high float64, err error) {
	pt := &painter{paper: p, x: x, y: y}
	dec := xml.NewDecoder(strings.NewReader(svg))
	for {
		token, err := dec.Token()
		if token == nil {
			break
		}
		if err != nil {
			return 0, 0, err
		}
		switch t := token.(type) {
		case xml.StartElement:
			if t.Name.Local == "svg" {
				var vw, vh float64
				if _, err := fmt.Sscanf(attr(t, "viewBox"), "0 0 %g %g", &vw, &vh); err != nil {
					return 0, 0, fmt.Errorf("a picture without its size: %w", err)
				}
				pt.k = min(w/vw, h/vh)
				wide, high = vw*pt.k, vh*pt.k
				pt.x += (w - wide) / 2
			}
			pt.start(t)
		case xml.EndElement:
			pt.end(t)
		case xml.CharData:
			if pt.skip == 0 && len(pt.texts) > 0 {
				pt.texts[len(pt.texts)-1].says += string(t)
			}
		}
	}
	return wide, high, nil
}

func attr(t xml.StartElement, name string) string {
	for _, a := range t.Attr {
		if a.Name.Local == name {
			return a.Value
		}
	}
	return ""
}

// taken are what an element takes from those it lies in.
var taken = []string{"font-size", "font-weight", "color", "visibility", "stroke", "fill", "opacity"}

// own are what an attribute may say in place of a rule, which then gives way.
var own = []string{"fill", "stroke", "stroke-width", "fill-opacity", "visibility"}

func (p *painter) start(t xml.StartElement) {
	e := element{t.Name.Local, strings.Fields(attr(t, "class"))}
	p.line = append(p.line, e)
	look := p.lookOf(t)
	p.looks = append(p.looks, look)
	if p.skip > 0 || e.tag == "defs" || e.tag == "title" || e.tag == "animate" || look["visibility"] == "hidden" {
		p.skip++
		return
	}
	n := func(name string) float64 { v, _ := strconv.ParseFloat(attr(t, name), 64); return v }
	switch e.tag {
	case "line":
		p.shape(look, fmt.Sprintf("M%g %gL%g %g", n("x1"), n("y1"), n("x2"), n("y2")))
	case "rect":
		x, y, w, h := n("x"), n("y"), n("width"), n("height")
		p.shape(look, fmt.Sprintf("M%g %gL%g %gL%g %gL%g %gZ", x, y, x+w, y, x+w, y+h, x, y+h))
	case "circle":
		p.round(look, n("cx"), n("cy"), n("r"), n("r"), 0)
	case "ellipse":
		angle, _, _ := turned(attr(t, "transform"))
		p.round(look, n("cx"), n("cy"), n("rx"), n("ry"), angle)
	case "path":
		p.shape(look, attr(t, "d"))
	case "text":
		p.at = text{x: n("x"), y: n("y"), anchor: attr(t, "text-anchor"), look: look}
		p.at.turn, p.at.cx, p.at.cy = turned(attr(t, "transform"))
		p.texts = []run{{size: fontSize(look)}}
	case "tspan":
		em := fontSize(p.at.look)
		dy, _ := strconv.ParseFloat(strings.TrimSuffix(attr(t, "dy"), "em"), 64)
		size := em
		if len(e.classes) > 0 && e.classes[0] == "fr" {
			size = 0.72 * em
		}
		p.texts = append(p.texts, run{size: size, dy: dy * size})
	}
}

func (p *painter) lookOf(t xml.StartElement) style {
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
		if v := attr(t, name); v != "" {
			look[name] = v
		}
	}
	maps.Copy(look, of)
	return look
}

func (p *painter) end(t xml.EndElement) {
	if p.skip > 0 {
		p.skip--
	} else if t.Name.Local == "text" {
		p.write()
		p.texts = nil
	} else if t.Name.Local == "tspan" && len(p.texts) > 0 {
		p.texts = append(p.texts, run{size: fontSize(p.at.look)})
	}
	p.line, p.looks = p.line[:len(p.line)-1], p.looks[:len(p.looks)-1]
}

func fontSize(look style) float64 {
	v, err := strconv.ParseFloat(strings.TrimSuffix(look["font-size"], "px"), 64)
	if err != nil {
		return 13
	}
	return v
}

// turned reads "rotate(-90 x y)": the angle, and about what.
func turned(transform string) (angle, x, y float64) {
	fmt.Sscanf(transform, "rotate(%g %g %g)", &angle, &x, &y)
	return angle, x, y
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

// shape draws a path of straight lines and curves.
func (p *painter) shape(look style, d string) {
	does := p.ink(look)
	if does == "" {
		return
	}
	scan := numbers{d: d}
	var x, y, x0, y0 float64
	for scan.next() {
		rel := scan.letter >= 'a'
		to := func(ax, ay float64) (float64, float64) {
			if rel {
				return x + ax, y + ay
			}
			return ax, ay
		}
		n := scan.n
		fx, fy := p.px(x, y)
		switch scan.letter &^ 0x20 {
		case 'M':
			x, y = to(n[0], n[1])
			x0, y0 = x, y
			p.pdf.MoveTo(p.px(x, y))
		case 'L':
			x, y = to(n[0], n[1])
			p.pdf.LineTo(p.px(x, y))
		case 'H':
			if x += n[0]; !rel {
				x = n[0]
			}
			p.pdf.LineTo(p.px(x, y))
		case 'V':
			if y += n[0]; !rel {
				y = n[0]
			}
			p.pdf.LineTo(p.px(x, y))
		case 'Q':
			cx, cy := to(n[0], n[1])
			x, y = to(n[2], n[3])
			ax, ay := p.px(cx, cy)
			bx, by := p.px(x, y)
			p.quad(fx, fy, ax, ay, bx, by)
		case 'A': // only small marks have arcs
			x, y = to(n[5], n[6])
			p.pdf.LineTo(p.px(x, y))
		case 'Z':
			x, y = x0, y0
			p.pdf.ClosePath()
		}
	}
	if strings.Count(d, "M") > 1 {
		does = strings.Replace(does, "F", "F*", 1)
	}
	p.pdf.DrawPath(does)
}

// numbers reads the commands of a path one by one.
type numbers struct {
	d      string
	letter byte
	n      [7]float64
}

var takes = map[byte]int{'M': 2, 'L': 2, 'H': 1, 'V': 1, 'Q': 4, 'A': 7, 'Z': 0}

func (s *numbers) next() bool {
	s.d = strings.TrimLeft(s.d, " ,")
	if s.d == "" {
		return false
	}
	if c := s.d[0]; c >= 'A' {
		s.letter, s.d = c, s.d[1:]
	} else if s.letter&^0x20 == 'M' {
		s.letter-- // more points after the first are lines to them
	}
	want, ok := takes[s.letter&^0x20]
	for i := range want {
		s.d = strings.TrimLeft(s.d, " ,")
		end := 0
		for end < len(s.d) && (s.d[end] >= '0' && s.d[end] <= '9' || s.d[end] == '.' || s.d[end] == '-' && end == 0) {
			end++
		}
		v, err := strconv.ParseFloat(s.d[:end], 64)
		if err != nil {
			return false
		}
		s.n[i], s.d = v, s.d[end:]
	}
	return ok
}

// write sets the text that was gathered.
func (p *painter) write() {
	strong := p.at.look["font-weight"] == "650"
	pt := p.k * 72 / 25.4
	total := 0.0
	for i := range p.texts {
		p.font(strong, p.texts[i].size*pt)
		total += p.wide(p.texts[i].says)
	}
	x, y := p.px(p.at.x, p.at.y)
	if p.at.turn != 0 {
		p.pdf.TransformBegin()
		cx, cy := p.px(p.at.cx, p.at.cy)
		p.pdf.TransformRotate(-p.at.turn, cx, cy)
		defer p.pdf.TransformEnd()
	}
	switch p.at.anchor {
	case "middle":
		x -= total / 2
	case "end":
		x -= total
	}
	fill := p.at.look["fill"]
	c, ok := colour(fill)
	if !ok {
		c, _ = colour("currentColor")
	}
	p.pdf.SetAlpha(1, "Normal")
	p.pdf.SetTextColor(c[0], c[1], c[2])
	dy := 0.0
	for _, r := range p.texts {
		dy += r.dy * p.k
		if r.says == "" {
			continue
		}
		p.font(strong, r.size*pt)
		p.put(x, y+dy, r.says)
		x += p.wide(r.says)
	}
}
