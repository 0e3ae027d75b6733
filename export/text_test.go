package export

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/internal/drawn"
)

// names are of people and things in our own world, in the scripts that people write.
var names = map[string]string{
	"Polish": "Łąka Żółw Święto", "Turkish": "Şişe İğde ılık",
	"Hungarian": "őszi virágfűzér", "Vietnamese": "Hộp quà tặng Nguyễn",
	"Greek": "Κουτί δώρου ώρα", "Cyrillic": "Щедрый сад Їжак",
	"Han": "花园礼物盒", "Kana": "おくりもの ギフト", "Hangul": "정원 선물",
	"Arabic": "هدية الحديقة", "Hebrew": "קופסת מתנה",
	"Thai": "กล่องของขวัญ", "Devanagari": "उपहार की पेटी",
	"Tamil":    "பரிசு பெட்டி",
	"Georgian": "საჩუქრის ყუთი", "Armenian": "նվերի տուփ",
	"signs": "🌷🎁 tulips", "mixed": "Box 3 for משפחה and 花",
}

// named is a box with a name, and a thing in it of that name.
func named(t testing.TB, name string) sets.Job {
	t.Helper()
	b := brief.New("mm")
	b.Name, b.Size = brief.Text(name), nil
	b.Contents = []brief.Item{{ID: "1", Name: brief.Text(name), Shape: "block", Length: "60 mm", Width: "40 mm", Height: "20 mm", Count: "2"}}
	b.Notes = brief.Text("For " + name + ".")
	p := plan.Make(b, request.Default)
	if !p.OK() {
		t.Fatalf("%s: %v", name, p.Problems)
	}
	return sets.JobOf(p)
}

// A name in any script stands in the PDF as it was typed: in its title, its text and its steps,
// and no letter of it is a question mark or a box.
func TestNamesInEveryScript(t *testing.T) {
	for script, name := range names {
		j := named(t, name)
		for _, as := range []string{"pdf", "slip"} {
			f, err := Write(j, as, What{}, Options{Paper: Formats[0], Shop: request.Default, Parts: []string{"materials"}})
			if err != nil {
				t.Fatalf("%s: %v", script, err)
			}
			file := drawn.Kept(t, "n.pdf", f.Data)
			text := squeezed(drawn.Runs(t, "pdftotext", file, "-"))
			// A reader that puts lines in the order they are seen has words that run right to left
			// one after the other from the left.
			for word := range strings.FieldsSeq(name) {
				if !strings.Contains(text, word) && !strings.Contains(text, backwards(word)) {
					t.Errorf("%s, %s: %q is not in\n%.400s", script, as, word, text)
				}
			}
			if strings.ContainsAny(text, "?□\ufffd") {
				t.Errorf("%s, %s: letters are missing: %.300s", script, as, text)
			}
			if info := drawn.Runs(t, "pdfinfo", file); !strings.Contains(info, name) {
				t.Errorf("%s, %s: the title is not %q:\n%.200s", script, as, name, info)
			}
		}
		if bad := Unprintable(name); len(bad) > 0 {
			t.Errorf("%s: %q can't be printed", script, bad)
		}
	}
}

func backwards(s string) string {
	all := graphemes(s)
	slices.Reverse(all)
	return strings.Join(all, "")
}

// A letter that no font has is told of.
func TestUnprintableIsTold(t *testing.T) {
	if got := Unprintable("Tulips 𐎀𐎁 and 𐎀"); fmt.Sprint(got) != "[𐎀 𐎁]" {
		t.Errorf("%q", got)
	}
	text := drawn.Runs(t, "pdftotext", drawn.Kept(t, "u.pdf", mustProject(t, named(t, "Tulips 𐎀𐎁"))), "-")
	if !strings.Contains(flat(text), "letters it can't print") {
		t.Errorf("nothing is said of letters that aren't there: %.300s", text)
	}
}

// Lines are set in the order a reader of the script has: letters join, and what runs right to
// left stands so, with the figures in it as they are.
func TestShaping(t *testing.T) {
	p := newPaper("", 210, 297, 10, "")
	p.turn()
	p.font(false, 10)
	order := func(s string) (out []string) {
		for _, of := range spans(s) {
			out = append(out, of.says)
		}
		return out
	}
	for line, want := range map[string]string{
		"box 花 and":          "box |花| and",
		"שלום 12 עולם":       "עולם| 12 |שלום",
		"for שלום עולם, two": "for |עולם| |שלום|, two",
	} {
		got := strings.Join(order(line), "|")
		if strings.ReplaceAll(got, "|", "") == "" || squeezed(strings.ReplaceAll(got, "|", "")) != squeezed(strings.ReplaceAll(want, "|", "")) {
			t.Errorf("%q is set as %q, not %q", line, got, want)
		}
	}
	for _, joined := range []string{"هدية", "กล่อง", "पेटी"} {
		of := spans(joined)
		if len(of) != 1 || of[0].shaped == nil {
			t.Fatalf("%q is set in %d parts", joined, len(of))
		}
	}
	for _, letter := range spans("بيت")[0].shaped.Glyphs { // each joins the next: none stands as it does alone
		for _, r := range "بيت" {
			if alone, _ := scripts[1]().NominalGlyph(r); alone == letter.GlyphID {
				t.Errorf("%c stands alone in a word", r)
			}
		}
	}
}

// However long a name is, the number of the page stands on the page.
func TestLongNamesLeavePageNumbers(t *testing.T) {
	for _, name := range []string{strings.Repeat("Tansy Row ", 7), strings.Repeat("花园礼物盒", 14), strings.Repeat("W", 79)} {
		file := drawn.Kept(t, "l.pdf", mustProject(t, named(t, name)))
		n := pagesOf(t, file)
		for page := 1; page <= n; page++ {
			text := drawn.Runs(t, "pdftotext", "-f", fmt.Sprint(page), "-l", fmt.Sprint(page),
				"-x", "0", "-y", "0", "-W", "596", "-H", "842", file, "-")
			if want := fmt.Sprintf("page %d", page); page < 6 && !strings.Contains(flat(text), want) {
				t.Errorf("%.20s…: page %d doesn't say so within its edges", name, page)
			}
		}
	}
}
