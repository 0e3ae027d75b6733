package export

import (
	"bytes"
	"compress/gzip"
	"embed"
	"fmt"
	"io"
	"slices"
	"strings"
	"sync"
	"unicode"

	"github.com/go-text/typesetting/di"
	"github.com/go-text/typesetting/font"
	"github.com/go-text/typesetting/font/opentype"
	"github.com/go-text/typesetting/language"
	"github.com/go-text/typesetting/segmenter"
	"github.com/go-text/typesetting/shaping"
	"github.com/pdfcpu/pdfcpu/pkg/pdfcpu/types"
	"golang.org/x/image/math/fixed"

	"brevium/core/sets"
)

// Text in any script. Brevium's own fonts have the letters of its sentences; a word with any other
// letter, as names have, is set whole in a font of its script. Such words are shaped (letters
// join, marks stand where they belong, right to left where the script runs so) and drawn as the
// outlines of just the letters they need, with what they say beside them for searching, copying
// and reading aloud.

//go:embed fonts/more/*.gz
var moreFonts embed.FS

// scripts are the fonts for other scripts in the order they are asked: those of one script first,
// then what has a little of everything. Each is unpacked when it is first needed.
var scripts = func() (out []func() *font.Face) {
	for _, name := range []string{"latin", "arabic", "hebrew", "thai", "devanagari", "bengali", "gujarati", "gurmukhi", "tamil",
		"telugu", "kannada", "malayalam", "sinhala", "armenian", "georgian", "ethiopic", "khmer", "lao", "myanmar", "han",
		"hangul", "signs"} {
		out = append(out, sync.OnceValue(func() *font.Face { return unpacked(name) }))
	}
	return out
}()

func unpacked(name string) *font.Face {
	packed, err := moreFonts.ReadFile("fonts/more/" + name + ".ttf.gz")
	if err != nil {
		panic(err) // it is embedded
	}
	z, err := gzip.NewReader(bytes.NewReader(packed))
	if err != nil {
		panic(err)
	}
	data, err := io.ReadAll(z)
	if err != nil {
		panic(err)
	}
	face, err := font.ParseTTF(bytes.NewReader(data))
	if err != nil {
		panic(err)
	}
	return face
}

// unseen is what joins or directs letters and has no shape of its own.
func unseen(r rune) bool {
	return unicode.Is(unicode.Cf, r) || unicode.Is(unicode.Variation_Selector, r)
}

// faceFor finds the font for a word of other letters: the first that has all of them, else each
// letter's own. A letter that no font has is given nil.
func faceFor(word []rune) func(r rune) *font.Face {
	has := func(f *font.Face, r rune) bool { _, ok := f.NominalGlyph(r); return ok || unseen(r) }
	for _, s := range scripts {
		if f := s(); !slices.ContainsFunc(word, func(r rune) bool { return !has(f, r) }) {
			return func(rune) *font.Face { return f }
		}
	}
	return func(r rune) *font.Face {
		for _, s := range scripts {
			if _, ok := s().NominalGlyph(r); ok {
				return s()
			}
		}
		return nil
	}
}

// Unprintable lists the letters of a text that no font on board has: paper shows a box in
// their place.
func Unprintable(s string) (out []string) {
	for _, r := range spelt.Replace(s) {
		if letters()[r] || unicode.IsSpace(r) || unseen(r) || faceFor([]rune{r})(r) != nil {
			continue
		}
		if !slices.Contains(out, string(r)) {
			out = append(out, string(r))
		}
	}
	return out
}

// UnprintableOf lists the letters of what a maker typed for a job that no font on board has.
func UnprintableOf(j sets.Job) (out []string) {
	var typed strings.Builder
	document := j.Plans[0].Brief
	if j.Set != nil {
		document = j.Set.Brief
	}
	for _, text := range document.All() {
		typed.WriteString(text)
	}
	return Unprintable(typed.String())
}

// missing stands for a letter that no font has.
const missing = '□'

// span is a part of a line that is set in one way: plain in the font in hand, or shaped.
type span struct {
	says   string
	shaped *shaping.Output // nil: plain
}

// spans divides a line into what is plain and what is shaped, from left to right as it is seen.
func spans(s string) (out []span) {
	own := letters()
	plain := func(r rune) bool { return own[r] }
	if !strings.ContainsFunc(s, func(r rune) bool { return !plain(r) }) {
		return []span{{says: s}}
	}
	runes := []rune(s)
	kinds := map[int]*font.Face{} // by place, of what is shaped
	for from := 0; from < len(runes); {
		to := from
		for to < len(runes) && !unicode.IsSpace(runes[to]) {
			to++
		}
		word := runes[from:to]
		if slices.ContainsFunc(word, func(r rune) bool { return !plain(r) }) {
			face := faceFor(word)
			for i, r := range word {
				f := face(r)
				if f == nil {
					word[i], f = missing, scripts[0]()
				}
				kinds[from+i] = f
			}
		}
		for from = to; from < len(runes) && unicode.IsSpace(runes[from]); from++ {
		}
	}
	return ordered(runes, kinds)
}

// ordered divides a line by direction and font and puts the parts in the order they are seen in.
func ordered(runes []rune, kinds map[int]*font.Face) (out []span) {
	base := di.DirectionLTR
	for _, r := range runes {
		if unicode.IsLetter(r) {
			if slices.Contains(rightToLeft, language.LookupScript(r)) {
				base = di.DirectionRTL
			}
			break
		}
	}
	var seg shaping.Segmenter
	plain := scripts[0]()
	var shaper shaping.HarfbuzzShaper
	type run struct {
		span
		back, weak bool
	}
	var runs []run
	for _, in := range seg.Split(shaping.Input{Text: runes, RunEnd: len(runes), Direction: base, Face: plain}, fixedFace{plain}) {
		for from := in.RunStart; from < in.RunEnd; {
			to, f := from+1, kinds[from]
			for to < in.RunEnd && kinds[to] == f {
				to++
			}
			of := runes[from:to]
			r := run{span{says: string(of)}, in.Direction == di.DirectionRTL, !slices.ContainsFunc(of, unicode.IsLetter)}
			if f != nil {
				part := in
				part.RunStart, part.RunEnd, part.Face, part.Size = from, to, f, fixed.I(1000)
				shaped := shaper.Shape(part)
				r.shaped = &shaped
			}
			runs, from = append(runs, r), to
		}
	}
	back := base == di.DirectionRTL
	for i := 0; i < len(runs); {
		if runs[i].back == back {
			i++
			continue
		}
		end := i // of what runs against the line, figures within it too
		for k := i; k < len(runs) && (runs[k].back != back || runs[k].weak); k++ {
			if runs[k].back != back {
				end = k
			}
		}
		slices.Reverse(runs[i : end+1])
		i = end + 1
	}
	if back {
		slices.Reverse(runs)
	}
	for _, r := range runs {
		out = append(out, r.span)
	}
	return out
}

// fixedFace leaves the choice of fonts to who asks.
type fixedFace struct{ f *font.Face }

func (f fixedFace) ResolveFace(rune) *font.Face { return f.f }

var rightToLeft = []language.Script{language.Arabic, language.Hebrew, language.Syriac, language.Thaana, language.Nko}

// wide is how wide a line is set in the font in hand, in millimetres.
func (p *paper) wide(s string) (sum float64) {
	_, size := p.pdf.GetFontSize()
	for _, of := range spans(legible(s)) {
		if of.shaped == nil {
			sum += p.pdf.GetStringWidth(of.says)
		} else {
			sum += float64(of.shaped.Advance) / 64 / 1000 * size
		}
	}
	return sum
}

// put writes a line, its left end at a place, in the font in hand.
func (p *paper) put(x, y float64, s string) {
	for _, of := range spans(legible(s)) {
		if of.shaped == nil {
			p.pdf.Text(x, y, of.says)
			x += p.pdf.GetStringWidth(of.says)
			continue
		}
		x += p.drawn(x, y, of)
	}
}

// drawn draws letters as outlines and says how wide they are. A blank that isn't seen carries
// what they say.
func (p *paper) drawn(x, y float64, of span) float64 {
	_, size := p.pdf.GetFontSize()
	k := size / 1000 / 64
	r, g, b := p.pdf.GetTextColor()
	p.pdf.SetFillColor(r, g, b)
	p.pdf.RawWriteStr(fmt.Sprintf("/Span <</ActualText <%X>>> BDC", types.EncodeUTF16String(of.says)))
	p.pdf.SetTextRenderingMode(3)
	p.pdf.Text(x, y, " ")
	p.pdf.SetTextRenderingMode(0)
	at := x
	for _, letter := range of.shaped.Glyphs {
		p.outline(of.shaped.Face, letter.GlyphID, at+float64(letter.XOffset)*k, y-float64(letter.YOffset)*k, size)
		at += float64(letter.Advance) * k
	}
	p.pdf.RawWriteStr("EMC")
	return at - x
}

// outline fills one letter; strong text has its outline drawn too.
func (p *paper) outline(face *font.Face, id font.GID, x, y, size float64) {
	shape, ok := face.GlyphDataOutline(id)
	if !ok || len(shape.Segments) == 0 {
		return
	}
	k := size / float64(face.Upem())
	at := func(q opentype.SegmentPoint) (float64, float64) { return x + float64(q.X)*k, y - float64(q.Y)*k }
	var lx, ly float64
	for i, s := range shape.Segments {
		ax, ay := at(s.Args[0])
		switch s.Op {
		case opentype.SegmentOpMoveTo:
			if i > 0 {
				p.pdf.ClosePath()
			}
			p.pdf.MoveTo(ax, ay)
		case opentype.SegmentOpLineTo:
			p.pdf.LineTo(ax, ay)
		case opentype.SegmentOpQuadTo:
			bx, by := at(s.Args[1])
			p.quad(lx, ly, ax, ay, bx, by)
			ax, ay = bx, by
		case opentype.SegmentOpCubeTo:
			bx, by := at(s.Args[1])
			cx, cy := at(s.Args[2])
			p.pdf.CurveBezierCubicTo(ax, ay, bx, by, cx, cy)
			ax, ay = cx, cy
		}
		lx, ly = ax, ay
	}
	p.pdf.ClosePath()
	does := "F"
	if p.pdf.GetFontStyle() == "B" {
		r, g, b := p.pdf.GetTextColor()
		p.pdf.SetDrawColor(r, g, b)
		p.pdf.SetLineWidth(size / 40)
		p.pdf.SetDashPattern(nil, 0)
		does = "FD"
	}
	p.pdf.DrawPath(does)
}

// quad draws a curve of one handle, which the package's own CurveTo does not: it has the handle
// for the end alone.
func (p *paper) quad(x0, y0, cx, cy, x, y float64) {
	p.pdf.CurveBezierCubicTo(x0+(cx-x0)*2/3, y0+(cy-y0)*2/3, x+(cx-x)*2/3, y+(cy-y)*2/3, x, y)
}

// fitted is a line cut short to a width, at a place where a letter ends.
func (p *paper) fitted(s string, wide float64) string {
	if p.wide(s) <= wide {
		return s
	}
	all := graphemes(s)
	for n := len(all) - 1; n > 0; n-- {
		if cut := strings.TrimRight(strings.Join(all[:n], ""), " ") + "…"; p.wide(cut) <= wide {
			return cut
		}
	}
	return ""
}

// graphemes divides a text where a reader sees letters end: an accent stays with its letter.
func graphemes(s string) (out []string) {
	var seg segmenter.Segmenter
	seg.Init([]rune(s))
	for it := seg.GraphemeIterator(); it.Next(); {
		out = append(out, string(it.Grapheme().Text))
	}
	return out
}
