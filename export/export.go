// Package export writes what leaves the page: files that are printed, cut and handed on. All
// of them come from the plan, true to size, and say in words when its proof does not hold.
package export

import (
	"archive/zip"
	"bytes"
	"fmt"
	"slices"
	"strings"

	"brevium/core/sets"
	"brevium/core/words"
	"brevium/export/drawings"
)

// File is a file that was written.
type File struct {
	Name, Type string // its type is a media type
	Data       []byte
}

// written are the kinds of file, by the names the command line has for them.
var written = map[string]struct{ ext, media string }{
	"pdf": {"pdf", "application/pdf"}, "slip": {"pdf", "application/pdf"}, "templates": {"pdf", "application/pdf"},
	"svg": {"svg", "image/svg+xml"}, "dxf": {"dxf", "application/dxf"}, "hpgl": {"hpgl", "application/vnd.hp-hpgl"},
	"gcode": {"gcode", "text/x-gcode"}, "zip": {"zip", "application/zip"},
}

// As lists the kinds of file that can be written.
var As = []string{"pdf", "slip", "templates", "svg", "dxf", "hpgl", "gcode", "zip"}

// What picks one thing of a job for a file that holds one: a piece by its name, or a sheet
// counted from 1. Neither is everything: all sheets side by side.
type What struct {
	Piece string
	Sheet int
}

// Write writes one file of a job.
func Write(j sets.Job, as string, w What, o Options) (File, error) {
	t, ok := written[as]
	if !ok {
		return File{}, fmt.Errorf("there is no %q; choose %s", as, strings.Join(As, ", "))
	}
	if o.Paper == (Format{}) {
		o.Paper = PaperFor("", j)
	}
	name := drawings.PlainName(called(j))
	if name == "" {
		name = "box"
	}
	f := File{Type: t.media}
	err := drawings.TrueToNets(j)
	if err != nil {
		return f, err
	}
	switch as {
	case "pdf":
		f.Data, err = Project(j, o)
	case "slip":
		f.Data, err = Slip(j, o.American)
		name += "-slip"
	case "templates":
		f.Data, err = Templates(j, w, o)
		if name += "-templates"; w.Piece != "" {
			name += "-" + drawings.PlainName(w.Piece)
		}
	case "zip":
		o.Printer = Printer{} // it is handed on, to be printed anywhere
		f.Data, err = Zip(j, o)
	case "hpgl", "gcode":
		n := max(1, w.Sheet)
		var strokes []drawings.Stroke
		var d drawings.Drawing
		if strokes, d, err = drawings.Strokes(j, n-1); err == nil {
			f.Data, err = d.Write(as, strokes)
		}
		name += fmt.Sprintf("-sheet-%d", n)
	default:
		var d drawings.Drawing
		if d, err = drawingOf(j, w); err == nil {
			f.Data, err = d.Write(as, nil)
			name += "-" + drawings.PlainName(d.Name)
		}
	}
	f.Name = name + "." + t.ext
	return f, err
}

// drawingOf draws a piece, a sheet or everything.
func drawingOf(j sets.Job, w What) (drawings.Drawing, error) {
	switch {
	case w.Piece != "":
		for _, d := range drawings.Drawings(j) {
			if d.Name == w.Piece || strings.TrimSuffix(d.Name, drawings.Mirrored) == w.Piece {
				return d, nil
			}
		}
		// A piece made of two is its halves, side by side.
		halves := slices.DeleteFunc(drawings.Drawings(j), func(d drawings.Drawing) bool { return !strings.HasPrefix(d.Name, w.Piece+", ") })
		if len(halves) > 0 {
			return besideEachOther(drawings.Drawing{Name: w.Piece, Warn: j.Warning(),
				Says: words.Capital(w.Piece) + ": what it is made of, inside face up"},
				halves), nil
		}
		return drawings.Drawing{}, fmt.Errorf("there is no piece %q", w.Piece)
	case w.Sheet > 0:
		d, ok := drawings.OfSheet(j, w.Sheet-1)
		if !ok {
			return d, fmt.Errorf("there is no sheet %d", w.Sheet)
		}
		return d, nil
	}
	return sideBySide(j), nil
}

// sideBySide draws every piece once, side by side, a little apart.
func sideBySide(j sets.Job) drawings.Drawing {
	return besideEachOther(drawings.Drawing{Name: "pieces", Warn: j.Warning(),
		Says: called(j) + ": every piece once, inside face up"}, drawings.Drawings(j))
}

func besideEachOther(out drawings.Drawing, all []drawings.Drawing) drawings.Drawing {
	const apart = 10
	for _, d := range all {
		if out.W > 0 {
			out.W += apart
		}
		x := out.W
		drawings.Move(d.Paths, func(q drawings.Point) drawings.Point { return drawings.Point{X: q.X + x, Y: q.Y} })
		out.Paths = append(out.Paths, d.Paths...)
		out.W, out.H = out.W+d.W, max(out.H, d.H)
	}
	return out
}

// Templates writes every piece true to size as PDF, or one, or a sheet with its pieces.
func Templates(j sets.Job, w What, o Options) ([]byte, error) {
	p := newPaper(called(j)+": templates", o.Paper.W, o.Paper.H, tileMargin, "")
	p.spell, p.printer = spelling(j, o.American), o.Printer
	all := drawings.Drawings(j)
	if w != (What{}) {
		d, err := drawingOf(j, w)
		if err != nil {
			return nil, err
		}
		all = []drawings.Drawing{d}
	}
	if err := p.templates(all); err != nil {
		return nil, err
	}
	return p.bytes()
}

// mostSheets is how many sheets a zip holds drawings of: those that are alike are one.
const mostSheets = 40

// Zip writes everything: the project sheet, the slip, templates, each piece and each sheet as
// SVG and DXF, the machine's files where the proof holds, and the document.
func Zip(j sets.Job, o Options) ([]byte, error) {
	var b bytes.Buffer
	z := zip.NewWriter(&b)
	names := map[string]int{}
	add := func(name string, data []byte, err error) error {
		if err != nil {
			return err
		}
		if names[name]++; names[name] > 1 { // two pieces whose names differ in signs alone
			dot := strings.LastIndexByte(name, '.')
			name = fmt.Sprintf("%s-%d%s", name[:dot], names[name], name[dot:])
		}
		w, err := z.Create(name)
		if err == nil {
			_, err = w.Write(data)
		}
		return err
	}
	if warn := j.Warning(); warn != "" {
		if err := add("DO-NOT-CUT.txt", []byte(warn+"\n"), nil); err != nil {
			return nil, err
		}
	}
	for _, as := range []string{"pdf", "slip", "templates"} {
		f, err := Write(j, as, What{}, o)
		if err := add(f.Name, f.Data, err); err != nil {
			return nil, err
		}
	}
	document := j.Plans[0].Brief
	if j.Set != nil {
		document = j.Set.Brief
	}
	if err := add("box.brevium.json", document.Encode(), nil); err != nil {
		return nil, err
	}
	if err := addDrawings(j, add); err != nil {
		return nil, err
	}
	if err := z.Close(); err != nil {
		return nil, err
	}
	return b.Bytes(), nil
}

// addDrawings adds every piece, sheet and machine file there is.
func addDrawings(j sets.Job, add func(string, []byte, error) error) (err error) {
	put := func(folder string, d drawings.Drawing, strokes []drawings.Stroke, kinds ...string) {
		for _, as := range kinds {
			if err == nil {
				data, failed := d.Write(as, strokes)
				err = add(fmt.Sprintf("%s/%s.%s", folder, drawings.PlainName(d.Name), as), data, failed)
			}
		}
	}
	for _, d := range drawings.Drawings(j) {
		put("pieces", d, nil, "svg", "dxf")
	}
	for i, s := range j.Steps {
		if s.Title != "Trim" || i >= mostSheets || len(s.Frames) == 0 || err != nil {
			continue
		}
		n := int(s.Frames[0].At)
		d, ok := drawings.OfSheet(j, n)
		if !ok {
			continue
		}
		put("sheets", d, nil, "svg", "dxf")
		if d.Warn != "" {
			continue
		}
		put("machine", d, d.Strokes(), "hpgl", "gcode")
	}
	return err
}
