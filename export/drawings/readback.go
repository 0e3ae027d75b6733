package drawings

import (
	"bytes"
	"encoding/xml"
	"fmt"
	"math"
	"strconv"
	"strings"
)

// A file is read again before it leaves: a line of it that is not the drawing's, one that is
// missing, and any that lies off its sheet would spoil good card, so then there is no file.

// verified reads a file back and compares it with the drawing it was made from; strokes are what
// a machine's file was made from.
func (d Drawing) verified(as string, data []byte, strokes []Stroke) error {
	if err := d.Check(); err != nil {
		return err
	}
	var want, got []Path
	var err error
	off := 2e-6
	switch as {
	case "svg":
		got, err = svgLines(data)
		want = d.inOrder()
	case "dxf":
		got = dxfLines(data, d.H)
		want = d.inOrder()
	case "hpgl":
		got, err = hpglLines(string(data), d.H)
		want, off = ofStrokes(strokes), 0.51/float64(d.hpglUnit())
	case "gcode":
		got, err = gcodeLines(string(data), d.H)
		want, off = ofStrokes(strokes), 0.51/unitsAMM
	}
	if err != nil {
		return fmt.Errorf("the %s file of %s can't be read back. It was not made: %w", as, d.Name, err)
	}
	if len(want) != len(got) {
		return fmt.Errorf("the %s file of %s has %d lines, not %d. It was not made", as, d.Name, len(got), len(want))
	}
	for i := range want {
		if !want[i].like(got[i], off) {
			return fmt.Errorf("line %d of the %s file of %s is not in the plan. The file was not made", i+1, as, d.Name)
		}
	}
	return nil
}

// Check refuses a drawing of which anything that is cut or scored lies off its sheet.
func (d Drawing) Check() error {
	const hair = 0.01
	for _, p := range d.Paths {
		for _, q := range p.Points {
			r := p.Round / 2
			if p.Kind == Name || p.Kind == Mark || p.Kind == GlueIn || p.Kind == GlueOut ||
				q.X-r > -hair && q.Y-r > -hair && q.X+r < d.W+hair && q.Y+r < d.H+hair {
				continue
			}
			return fmt.Errorf("a line of the %s lies off %s, %.1f mm from the left and %.1f mm down. The file was not made",
				p.Piece, d.Name, q.X, q.Y)
		}
	}
	return nil
}

// inOrder lists the lines of a drawing as files have them: by kind.
func (d Drawing) inOrder() (out []Path) {
	for _, k := range Kinds {
		for _, p := range d.Paths {
			if p.Kind == k && k != Name {
				out = append(out, p)
			}
		}
	}
	return out
}

func ofStrokes(strokes []Stroke) (out []Path) {
	for _, s := range strokes {
		out = append(out, Path{Kind: map[Tool]Kind{Scorer: Valley, Knife: Cut}[s.Tool], Points: s.Points})
	}
	return out
}

func (p Path) like(o Path, off float64) bool {
	if p.Kind != o.Kind || p.Closed != o.Closed || math.Abs(p.Round-o.Round) > off || len(p.Points) != len(o.Points) {
		return false
	}
	for i, q := range p.Points {
		if math.Abs(q.X-o.Points[i].X) > off || math.Abs(q.Y-o.Points[i].Y) > off {
			return false
		}
	}
	return true
}

func svgLines(data []byte) (out []Path, err error) {
	dec := xml.NewDecoder(bytes.NewReader(data))
	kind := Name
	for {
		token, err := dec.Token()
		if token == nil {
			return out, nil
		}
		if err != nil {
			return nil, err
		}
		t, ok := token.(xml.StartElement)
		if !ok {
			continue
		}
		switch t.Name.Local {
		case "g":
			kind = Kind(attr(t, "id"))
		case "circle":
			n, err := floats(attr(t, "cx") + " " + attr(t, "cy") + " " + attr(t, "r"))
			if err != nil || len(n) != 3 {
				return nil, fmt.Errorf("a circle %v", n)
			}
			out = append(out, Path{Kind: kind, Points: []Point{{n[0], n[1]}}, Round: 2 * n[2]})
		case "path":
			d, closed := strings.CutSuffix(attr(t, "d"), "Z")
			n, err := floats(strings.NewReplacer("M", " ", "L", " ").Replace(d))
			if err != nil || strings.Count(d, "M") != 1 || len(n) != 2*strings.Count(d, "L")+2 {
				return nil, fmt.Errorf("a path %.40q", d)
			}
			out = append(out, Path{Kind: kind, Points: pairs(n), Closed: closed})
		}
	}
}

func floats(s string) (out []float64, err error) {
	for _, f := range strings.FieldsFunc(s, func(r rune) bool { return r == ' ' || r == ',' }) {
		v, err := strconv.ParseFloat(f, 64)
		if err != nil {
			return nil, err
		}
		out = append(out, v)
	}
	return out, nil
}

func pairs(n []float64) (out []Point) {
	for i := 1; i < len(n); i += 2 {
		out = append(out, Point{n[i-1], n[i]})
	}
	return out
}

func dxfLines(data []byte, high float64) (out []Path) {
	lines := strings.Split(strings.ReplaceAll(string(data), "\r\n", "\n"), "\n")
	kinds := map[string]Kind{}
	for k, l := range layers {
		kinds[l.name] = k
	}
	var now *Path
	end := func() {
		if now != nil && now.Kind != Name {
			out = append(out, *now)
		}
		now = nil
	}
	entities, vertex, x := false, false, 0.0
	for i := 0; i+1 < len(lines); i += 2 {
		code, value := strings.TrimSpace(lines[i]), lines[i+1]
		if code == "2" && value == "ENTITIES" {
			entities = true
		}
		if !entities {
			continue
		}
		v, _ := strconv.ParseFloat(value, 64)
		switch {
		case code == "0":
			if vertex = value == "VERTEX"; vertex {
				continue
			}
			if end(); value == "LINE" || value == "CIRCLE" || value == "POLYLINE" || value == "TEXT" {
				now = &Path{Kind: Name}
			}
			vertex = value == "LINE" || value == "CIRCLE"
		case now == nil:
		case code == "8" && len(now.Points) == 0:
			if k, ok := kinds[value]; ok {
				now.Kind = k
			}
		case code == "70":
			now.Closed = v == 1
		case code == "40" && len(now.Points) == 1:
			now.Round = 2 * v
		case code == "10" || code == "11":
			x = v
		case (code == "20" || code == "21") && vertex:
			now.Points = append(now.Points, Point{x, high - v})
		}
	}
	end()
	return out
}

// hpglLines reads what this package writes of it.
func hpglLines(text string, high float64) (out []Path, err error) {
	per := 0.0
	kind := Kind("")
	for _, word := range strings.FieldsFunc(text, func(r rune) bool { return r == ';' || r == '\r' || r == '\n' }) {
		if len(word) < 2 || strings.HasPrefix(word, "CO") {
			continue
		}
		n, err := floats(word[2:])
		if err != nil {
			return nil, err
		}
		for i := range n {
			if n[i] < 0 || n[i] > mostHPGL {
				return nil, fmt.Errorf("the number %g", n[i])
			}
		}
		switch word[:2] {
		case "SC":
			per = n[1] / 100
		case "SP":
			kind = map[float64]Kind{1: Valley, 2: Cut}[n[0]]
		case "PU":
			if len(n) == 2 {
				out = append(out, Path{Kind: kind, Points: []Point{{n[0] / per, high - n[1]/per}}})
			}
		case "PD":
			for _, q := range pairs(n) {
				last := &out[len(out)-1]
				last.Points = append(last.Points, Point{q.X / per, high - q.Y/per})
			}
		}
	}
	if len(out) > 0 {
		out = out[:len(out)-1] // the tool goes home
	}
	return out, nil
}

// gcodeLines reads what this package writes of it.
func gcodeLines(text string, high float64) (out []Path, err error) {
	kind := Kind("")
	for line := range strings.SplitSeq(text, "\r\n") {
		words := strings.Fields(line)
		if len(words) < 2 {
			continue
		}
		switch {
		case words[1] == "M6":
			kind = map[string]Kind{"T1": Valley, "T2": Cut}[words[0]]
		case len(words) == 3 && words[1][0] == 'X' && words[2][0] == 'Y':
			n, err := floats(words[1][1:] + " " + words[2][1:])
			if err != nil {
				return nil, err
			}
			if at := (Point{n[0], high - n[1]}); words[0] == "G0" {
				out = append(out, Path{Kind: kind, Points: []Point{at}})
			} else {
				last := &out[len(out)-1]
				last.Points = append(last.Points, at)
			}
		}
	}
	if len(out) > 0 {
		out = out[:len(out)-1] // the tool goes home
	}
	return out, nil
}

func attr(t xml.StartElement, name string) string {
	for _, a := range t.Attr {
		if a.Name.Local == name {
			return a.Value
		}
	}
	return ""
}

// Write writes a drawing, or a machine's strokes of it, and reads it again.
func (d Drawing) Write(as string, strokes []Stroke) (data []byte, err error) {
	switch as {
	case "svg":
		data = d.SVG()
	case "dxf":
		data = d.DXF()
	case "hpgl":
		data = HPGL(d, strokes)
	case "gcode":
		data = GCode(d, strokes)
	}
	if err := d.verified(as, data, strokes); err != nil {
		return nil, err
	}
	return data, nil
}
