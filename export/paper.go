package export

import (
	"bytes"

	"brevium/draw/pen"

	_ "embed"
	"fmt"
	"slices"
	"strings"
	"sync"
	"time"

	"codeberg.org/go-pdf/fpdf"

	"brevium/core/measure"
	"brevium/core/sets"
	"brevium/core/words"
)

//go:embed fonts/text.ttf
var textFont []byte

//go:embed fonts/strong.ttf
var strongFont []byte

//go:embed fonts/heading.ttf
var headingFont []byte

// Format is a size of paper, in millimetres.
type Format struct {
	ID, Title string
	W, H      float64
}

// Formats lists the papers that printers take.
var Formats = []Format{{"a4", "A4", 210, 297}, {"letter", "letter", 215.9, 279.4}}

// FormatOf finds a paper; the first when it has another name.
func FormatOf(id string) Format {
	for _, f := range Formats {
		if f.ID == strings.ToLower(id) {
			return f
		}
	}
	return Formats[0]
}

// PaperFor finds a paper by its name; where none is named, the one that printers take where the
// box's unit is at home: letter for inches, A4 for millimetres.
func PaperFor(id string, j sets.Job) Format {
	if id == "" {
		return PapersFor(j, "")[0]
	}
	return FormatOf(id)
}

// PapersFor lists the papers, the one that is usual in this house first: the one for the box's unit, where none is.
func PapersFor(j sets.Job, usual string) []Format {
	out := slices.Clone(Formats)
	if usual == "letter" || usual == "" && j.Plans[0].Step.Unit == measure.Inches {
		slices.Reverse(out)
	}
	return out
}

// paper is a PDF being written: text flows down its pages, and everything on them is tagged
// for who has it read out.
type paper struct {
	pdf    *fpdf.Fpdf
	title  string
	w, h   float64
	margin float64
	y      float64 // how far down the page is written
	marks  []tagged
	page   int
	known  map[string]style // what the rules set of elements that were drawn before
	foot   string
	spell  func(string) string // how its words are spelt
	warn   string

	printer Printer // that templates and labels come out of
}

// tagged is a part of a page that is read out as one.
type tagged struct {
	page, id int
	tag, alt string
}

// newPaper begins a PDF. Warn, if it is not "", stands at the top of every page.
func newPaper(title string, w, h, margin float64, warn string) *paper {
	pdf := fpdf.NewCustom(&fpdf.InitType{UnitStr: "mm", Size: fpdf.SizeType{Wd: w, Ht: h}})
	p := &paper{pdf: pdf, title: title, w: w, h: h, margin: margin, warn: warn, known: map[string]style{},
		spell: func(s string) string { return s }}
	pdf.AddUTF8FontFromBytes("text", "", textFont)
	pdf.AddUTF8FontFromBytes("text", "B", strongFont)
	pdf.AddUTF8FontFromBytes("heading", "", headingFont)
	pdf.SetCreator("Brevium", true)
	pdf.SetLang("en")
	pdf.SetCreationDate(time.Unix(0, 0).UTC())
	pdf.SetModificationDate(time.Unix(0, 0).UTC())
	pdf.SetAutoPageBreak(false, 0)
	pdf.SetMargins(margin, margin, margin)
	return p
}

// font takes a size in points.
func (p *paper) font(strong bool, pt float64) {
	p.pdf.SetFont("text", map[bool]string{true: "B"}[strong], pt)
}

// turn begins a new page.
func (p *paper) turn() {
	p.pdf.AddPage()
	p.page++
	p.y = p.margin
	if p.warn != "" {
		p.pdf.SetTextColor(156, 53, 32)
		p.lines("P", "text", "B", 10, p.warn)
		p.y += 1.5
	}
	if p.foot != "" {
		p.artifact(func() {
			p.font(false, 8)
			p.pdf.SetTextColor(101, 91, 78)
			page := fmt.Sprintf(" · page %d", p.page)
			p.put(p.margin, p.h-p.margin/2, p.fitted(p.foot, p.w-2*p.margin-p.wide(page))+page)
		})
	}
	p.pdf.SetTextColor(42, 37, 32)
}

// room begins a new page unless so much of this one is left.
func (p *paper) room(high float64) {
	if p.page == 0 || p.y+high > p.h-p.margin {
		p.turn()
	}
}

// within writes what is read out as one part: a paragraph, a heading, a picture with what it
// shows in words.
func (p *paper) within(tag, alt string, write func()) {
	id := 0
	for _, m := range p.marks {
		if m.page == p.page {
			id++
		}
	}
	p.marks = append(p.marks, tagged{p.page, id, tag, alt})
	p.pdf.RawWriteStr(fmt.Sprintf("/%s <</MCID %d>> BDC", tag, id))
	write()
	p.pdf.RawWriteStr("EMC")
}

// artifact writes what is not read out: rules, page numbers.
func (p *paper) artifact(write func()) {
	p.pdf.RawWriteStr("/Artifact BMC")
	write()
	p.pdf.RawWriteStr("EMC")
}

// lines writes a text over the width of the page, a part of a page at a time.
func (p *paper) lines(tag, family, weight string, pt float64, text string) {
	p.linesIn(tag, family, weight, pt, text, p.margin, p.w-2*p.margin)
}

func (p *paper) linesIn(tag, family, weight string, pt float64, text string, x, wide float64) {
	high := pt * 25.4 / 72 * 1.3
	p.pdf.SetFont(family, weight, pt)
	lines := p.wrap(text, wide)
	for len(lines) > 0 {
		p.room(high)
		p.pdf.SetFont(family, weight, pt)
		n := max(1, min(len(lines), int((p.h-p.margin-p.y)/high)))
		p.within(tag, "", func() {
			for _, l := range lines[:n] {
				p.put(x, p.y+high*0.78, l)
				p.y += high
			}
		})
		lines = lines[n:]
	}
}

// wrap breaks a text into lines so wide.
func (p *paper) wrap(text string, wide float64) (out []string) {
	line := ""
	text = legible(p.spell(words.Together(legible(text))))
	for word := range strings.SplitSeq(text, " ") {
		next := strings.Trim(line+" "+word, " ")
		if line != "" && p.wide(next) > wide {
			out = append(out, line)
			next = word
		}
		for p.wide(next) > wide { // one word that is wider
			all, n := graphemes(next), 1
			if len(all) == 1 {
				break
			}
			for n < len(all) && p.wide(strings.Join(all[:n+1], "")) <= wide {
				n++
			}
			out, next = append(out, strings.Join(all[:n], "")), strings.Join(all[n:], "")
		}
		line = next
	}
	return append(out, line)
}

func (p *paper) heading(level int, text string) {
	pt := []float64{20, 14, 11.5}[level-1]
	p.y += pt * 0.12
	p.room(pt * 0.6 * 2.4) // not alone at the foot of a page
	p.pdf.SetTextColor(24, 74, 77)
	p.lines(fmt.Sprintf("H%d", level), "heading", "", pt, text)
	p.pdf.SetTextColor(42, 37, 32)
	p.y += pt * 0.06
}

func (p *paper) para(text string) { p.paraAt(readable, text) }

// readable is the size of text and of numbers to cut by, in points.
const readable = 11

func (p *paper) paraAt(pt float64, text string) {
	p.lines("P", "text", "", pt, text)
	p.y += pt * 0.06
}

// item is a paragraph with a dot before it.
func (p *paper) item(text string) {
	const in = 4.5
	p.room(5)
	p.artifact(func() {
		p.pdf.SetFillColor(36, 102, 106)
		p.pdf.Circle(p.margin+1.6, p.y+2.4, 0.8, "F")
	})
	p.linesIn("P", "text", "", readable, text, p.margin+in, p.w-2*p.margin-in)
	p.y += 0.8
}

// caution is a paragraph that stands out.
func (p *paper) caution(text string) {
	top, page := p.y, p.page
	p.linesIn("P", "text", "", readable, text, p.margin+4, p.w-2*p.margin-4)
	if page == p.page {
		p.artifact(func() {
			p.pdf.SetFillColor(232, 194, 74)
			p.pdf.Rect(p.margin, top+0.5, 1.4, p.y-top-0.5, "F")
		})
	}
	p.y += 1
}

// figure sets a picture so large, with what it shows in words.
func (p *paper) figure(of pen.Picture, alt string, x, y, w, h float64) {
	p.within("Figure", alt, func() {
		p.picture(of, x, y, w, h)
		p.pdf.SetAlpha(1, "Normal")
		p.pdf.SetDashPattern(nil, 0)
		p.pdf.SetTextColor(42, 37, 32)
	})
}

// letters are those the text font has.
var letters = sync.OnceValue(func() map[rune]bool { return readLetters(textFont) })

// spelt are signs that are written otherwise on paper.
var spelt = strings.NewReplacer("✓", "+", "✗", "x", "⌀", "Ø", "↑", "up", "↓", "down", "→", "to", "←", "from",
	"\u2009", " ", "\u200b", "", "≈", "about ", "\n", " ", "\t", " ", "\u202f", "\u00a0")

// legible is a text as it is set on paper.
func legible(s string) string { return spelt.Replace(s) }

// bytes ends the PDF, with its tags.
func (p *paper) bytes() ([]byte, error) {
	var b bytes.Buffer
	if err := p.pdf.Output(&b); err != nil {
		return nil, fmt.Errorf("the PDF could not be made: %w", err)
	}
	return tag(b.Bytes(), p.title, p.marks)
}
