package drawings

import (
	"encoding/xml"
	"slices"
	"testing"

	"brevium/core/layout"
	"brevium/core/sets"
	styles "brevium/core/style"
	"brevium/internal/drawn"
)

// A drawing in SVG, read with an XML parser: real millimetres, groups by name, every line.
func TestSVGTrueToSize(t *testing.T) {
	type group struct {
		ID    string `xml:"id,attr"`
		Paths []struct {
			D string `xml:"d,attr"`
		} `xml:"path"`
		Circles []struct {
			X float64 `xml:"cx,attr"`
			Y float64 `xml:"cy,attr"`
			R float64 `xml:"r,attr"`
		} `xml:"circle"`
	}
	everyPiece(t, func(name string, _ sets.Job, d Drawing) {
		var svg struct {
			Width   string  `xml:"width,attr"`
			ViewBox string  `xml:"viewBox,attr"`
			Groups  []group `xml:"g"`
		}
		if err := xml.Unmarshal(d.SVG(), &svg); err != nil {
			t.Fatalf("%s: %v", name, err)
		}
		if svg.Width != mm(d.W)+"mm" || svg.ViewBox != "0 0 "+mm(d.W)+" "+mm(d.H) {
			t.Errorf("%s: %s wide, view %s", name, svg.Width, svg.ViewBox)
		}
		var got []drawn.Line
		rounds := 0
		for _, g := range svg.Groups {
			if !slices.Contains(Kinds, Kind(g.ID)) {
				t.Errorf("%s: a group %q", name, g.ID)
			}
			for _, p := range g.Paths {
				got = append(got, drawn.Segments(t, p.D)...)
			}
			rounds += len(g.Circles)
		}
		if missing := drawn.AllFound(straight(d), got, drawn.Near); len(missing) > 0 || len(got) != len(straight(d)) {
			t.Errorf("%s: %d of %d lines, without %v", name, len(got), len(straight(d)), missing)
		}
		want := 0
		for _, p := range d.Paths {
			if p.Round > 0 {
				want++
			}
		}
		if rounds != want {
			t.Errorf("%s: %d rounds, not %d", name, rounds, want)
		}
	})
}

// A drawing in DXF, read with a reader that is not ours: R12, millimetres, layers by kind.
func TestDXFTrueToSize(t *testing.T) {
	var files [][]byte
	everyPiece(t, func(_ string, _ sets.Job, d Drawing) { files = append(files, d.DXF()) })
	read := drawn.ReadDXF(t, files...) // in one go: the reader takes longer to begin than to read
	n := 0
	everyPiece(t, func(name string, _ sets.Job, d Drawing) {
		got := read[n]
		n++
		if got.Version != "AC1009" || got.Units != 4 || len(got.Errors) > 0 {
			t.Fatalf("%s: %s, units %d, %v", name, got.Version, got.Units, got.Errors)
		}
		for layer, kind := range map[string][]Kind{"CUT": {Cut}, "HOLE": {Hole}, "SCORE_VALLEY": {Valley},
			"SCORE_MOUNTAIN": {Mountain}, "BEND": {Bend}} {
			if !slices.Contains(got.Layers, layer) {
				t.Errorf("%s: no layer %s in %v", name, layer, got.Layers)
			}
			var lines []drawn.Line
			for _, l := range got.Lines {
				if l[0] == layer { // up is up there
					lines = append(lines, drawn.Line{l[1].(float64), d.H - l[2].(float64), l[3].(float64), d.H - l[4].(float64)})
				}
			}
			of := d
			of.Paths = slices.DeleteFunc(slices.Clone(d.Paths), func(p Path) bool { return !slices.Contains(kind, p.Kind) })
			if missing := drawn.AllFound(straight(of), lines, drawn.Near); len(missing) > 0 || len(lines) != len(straight(of)) {
				t.Errorf("%s, %s: %d of %d lines, without %v", name, layer, len(lines), len(straight(of)), missing)
			}
		}
	})
}

// Of every family each piece lies on its sheet as the plan says, and nothing of it beside.
func TestSheetsHoldTheirPieces(t *testing.T) {
	for _, s := range styles.Styles {
		if s.ID == "score-list" {
			continue
		}
		depth := map[bool]string{true: "60 mm", false: "34 mm"}[s.ID == "arched-box"]
		j := drawn.Job(t, s.ID, "70 mm", "70 mm", depth)
		for n := range j.Cuts[0].Sheets {
			d, _ := OfSheet(j, n)
			placed := j.Cuts[0].Sheets[n].Placed
			for _, p := range d.Paths {
				for _, q := range p.Points {
					in := slices.ContainsFunc(placed, func(it layout.Placed) bool {
						r := it.Rect
						return q.X > r.X.MM()-drawn.Near && q.Y > r.Y.MM()-drawn.Near && q.X < (r.X+r.W).MM()+drawn.Near && q.Y < (r.Y+r.H).MM()+drawn.Near
					})
					if !in {
						t.Fatalf("%s, sheet %d: %v of the %s lies beside every piece", s.ID, n+1, q, p.Piece)
					}
				}
			}
		}
	}
}
