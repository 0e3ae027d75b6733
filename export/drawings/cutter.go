package drawings

import (
	"fmt"
	"math"
	"strings"
)

// unitsAMM is how fine G-code is: thousandths of a millimetre.
const unitsAMM = 1000

// mostHPGL is the largest number that older readers of HPGL take.
const mostHPGL = 32767

// hpglUnit is how many units a millimetre has: a hundred, or as many as keep every number of the
// sheet small enough.
func (d Drawing) hpglUnit() int { return max(1, min(100, int(mostHPGL/max(d.W, d.H)))) }

// HPGL writes strokes for a machine that reads HPGL. Its unit is set to a hundredth of a
// millimetre (IP, SC), a little coarser on sheets over 327 mm; y runs up from the lower left corner of the sheet. SP1 is the scoring
// tool, SP2 the knife.
func HPGL(d Drawing, strokes []Stroke) []byte {
	var b strings.Builder
	fmt.Fprintf(&b, "IN;\r\nCO \"%s\";\r\n", comment(d.Says))
	fmt.Fprintf(&b, "CO \"SHEET %s %s\";\r\n", mm(d.W), mm(d.H))
	// 4000 of the machine's own units are 100 mm.
	unit := d.hpglUnit()
	fmt.Fprintf(&b, "IP0,0,4000,4000;SC0,%d,0,%[1]d;\r\n", 100*unit)
	at := func(p Point) string {
		return fmt.Sprintf("%d,%d", int64(math.Round(p.X*float64(unit))), int64(math.Round((d.H-p.Y)*float64(unit))))
	}
	tool := Tool(0)
	for _, s := range strokes {
		if s.Tool != tool {
			tool = s.Tool
			fmt.Fprintf(&b, "PU;SP%d;\r\n", tool)
		}
		fmt.Fprintf(&b, "PU%s;PD", at(s.Points[0]))
		for i, p := range s.Points[1:] {
			if i > 0 {
				b.WriteByte(',')
			}
			b.WriteString(at(p))
		}
		b.WriteString(";\r\n")
	}
	b.WriteString("PU0,0;SP0;\r\n")
	return []byte(b.String())
}

// GCode writes strokes as plain G-code: millimetres, absolute, y up from the lower left corner.
// T1 is the scoring tool, T2 the knife; Z 3 is up, Z 0 is down.
func GCode(d Drawing, strokes []Stroke) []byte {
	var b strings.Builder
	fmt.Fprintf(&b, "(%s)\r\n(SHEET %s %s)\r\nG21\r\nG90\r\nG0 Z3\r\n", comment(d.Says), mm(d.W), mm(d.H))
	at := func(p Point) string {
		y := d.H - p.Y
		return fmt.Sprintf("X%s Y%s", mm(math.Round(p.X*unitsAMM)/unitsAMM), mm(math.Round(y*unitsAMM)/unitsAMM))
	}
	tool := Tool(0)
	for _, s := range strokes {
		if s.Tool != tool {
			tool = s.Tool
			fmt.Fprintf(&b, "T%d M6\r\nF%d\r\n", tool, map[Tool]int{Scorer: 2400, Knife: 1500}[tool])
		}
		fmt.Fprintf(&b, "G0 %s\r\nG1 Z0\r\n", at(s.Points[0]))
		for _, p := range s.Points[1:] {
			fmt.Fprintf(&b, "G1 %s\r\n", at(p))
		}
		b.WriteString("G0 Z3\r\n")
	}
	b.WriteString("G0 X0 Y0\r\nM2\r\n")
	return []byte(b.String())
}

// comment is a text that no machine takes for a command.
func comment(s string) string {
	return strings.Map(func(r rune) rune {
		switch {
		case r < ' ' || r > '~':
			return '?'
		case strings.ContainsRune(`"();`, r):
			return -1
		}
		return r
	}, strings.NewReplacer("×", "x", "⁄", "/", "–", "-", "’", "'").Replace(s))
}
