package drawings

import (
	"fmt"
	"strings"
)

// layers are the DXF layers of the kinds of line: their names, colours (numbers of the format's
// own palette, nearest to those on the pages) and line types.
var layers = map[Kind]struct {
	name   string
	colour int
	dashes string
}{
	Cut: {"CUT", 7, "CONTINUOUS"}, Hole: {"HOLE", 7, "CONTINUOUS"}, Valley: {"SCORE_VALLEY", 34, "DASHED"},
	Mountain: {"SCORE_MOUNTAIN", 34, "DOTTED"}, Bend: {"BEND", 34, "CONTINUOUS"}, GlueIn: {"GLUE_INSIDE", 134, "CONTINUOUS"},
	GlueOut: {"GLUE_OUTSIDE", 134, "CONTINUOUS"}, Mark: {"MARK", 14, "CONTINUOUS"}, Name: {"NAME", 8, "CONTINUOUS"},
}

// dxf writes groups: a code, and a value on the next line.
type dxf struct{ strings.Builder }

func (b *dxf) put(pairs ...any) {
	for i := 0; i+1 < len(pairs); i += 2 {
		if v, ok := pairs[i+1].(float64); ok {
			fmt.Fprintf(b, "%3d\r\n%s\r\n", pairs[i], mm(v))
			continue
		}
		fmt.Fprintf(b, "%3d\r\n%v\r\n", pairs[i], pairs[i+1])
	}
}

// ascii writes letters beyond ASCII as the format has them.
func ascii(s string) string {
	var b strings.Builder
	for _, r := range s {
		switch {
		case r < ' ' || r == 0x7f:
			b.WriteByte(' ')
		case r < 0x7f:
			b.WriteRune(r)
		default:
			fmt.Fprintf(&b, `\U+%04X`, r)
		}
	}
	return b.String()
}

// DXF writes a drawing as R12 text in millimetres, a layer for each kind of line; up is up, as
// the format has it.
func (d Drawing) DXF() []byte {
	b := &dxf{}
	b.put(999, ascii(d.Says))
	if d.Warn != "" {
		b.put(999, ascii(d.Warn))
	}
	b.put(0, "SECTION", 2, "HEADER", 9, "$ACADVER", 1, "AC1009", 9, "$INSUNITS", 70, 4, 9, "$MEASUREMENT", 70, 1,
		9, "$EXTMIN", 10, 0.0, 20, 0.0, 9, "$EXTMAX", 10, d.W, 20, d.H, 9, "$LIMMIN", 10, 0.0, 20, 0.0, 9, "$LIMMAX", 10, d.W, 20,
		d.H, 0, "ENDSEC")
	b.put(0, "SECTION", 2, "TABLES", 0, "TABLE", 2, "LTYPE", 70, 3)
	for _, t := range []struct {
		name, says string
		on, off    float64
	}{{"CONTINUOUS", "", 0, 0}, {"DASHED", "_ _ _", 4, 1.2}, {"DOTTED", ". . .", 0, 1.4}} {
		b.put(0, "LTYPE", 2, t.name, 70, 0, 3, t.says, 72, 65)
		if t.off == 0 {
			b.put(73, 0, 40, 0.0)
		} else {
			b.put(73, 2, 40, t.on+t.off, 49, t.on, 49, -t.off)
		}
	}
	b.put(0, "ENDTAB", 0, "TABLE", 2, "LAYER", 70, len(Kinds)+1, 0, "LAYER", 2, "0", 70, 0, 62, 7, 6, "CONTINUOUS")
	for _, k := range Kinds {
		l := layers[k]
		b.put(0, "LAYER", 2, l.name, 70, 0, 62, l.colour, 6, l.dashes)
	}
	b.put(0, "ENDTAB", 0, "ENDSEC", 0, "SECTION", 2, "ENTITIES")
	for _, k := range Kinds {
		for _, p := range d.Paths {
			if p.Kind == k {
				d.entity(b, p)
			}
		}
	}
	if d.Warn != "" {
		b.put(0, "TEXT", 8, "0", 62, 1, 10, 3.0, 20, d.H-6, 40, 4.0, 1, ascii(d.Warn))
	}
	b.put(0, "ENDSEC", 0, "EOF")
	return []byte(b.String())
}

func (d Drawing) entity(b *dxf, p Path) {
	layer, first := layers[p.Kind].name, p.Points[0]
	switch {
	case p.Kind == Name:
		b.put(0, "TEXT", 8, layer, 10, first.X, 20, d.H-first.Y, 40, 3.0, 1, ascii(p.Text))
	case p.Round > 0:
		b.put(0, "CIRCLE", 8, layer, 10, first.X, 20, d.H-first.Y, 40, p.Round/2)
	case len(p.Points) == 2:
		b.put(0, "LINE", 8, layer, 10, first.X, 20, d.H-first.Y, 11, p.Points[1].X, 21, d.H-p.Points[1].Y)
	default:
		closed := 0
		if p.Closed {
			closed = 1
		}
		b.put(0, "POLYLINE", 8, layer, 66, 1, 10, 0.0, 20, 0.0, 70, closed)
		for _, q := range p.Points {
			b.put(0, "VERTEX", 8, layer, 10, q.X, 20, d.H-q.Y)
		}
		b.put(0, "SEQEND", 8, layer)
	}
}
