package web

import (
	"regexp"
	"slices"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/shop"
	"brevium/core/style"
)

// Where another unit may stand: a sheet or card goes by its own name, what may be typed is shown by examples, and the
// other unit of a field is told to who asks.
var (
	unseen = regexp.MustCompile(`(?s)<(script|style|option|textarea)\b.*?</(script|style|option|textarea)>|` +
		`<div class="other.*?</div>|<[^>]*>`)
	millis    = regexp.MustCompile(`[^.]{0,60}\d ?(mm|cm)\b.{0,20}`)
	inches    = regexp.MustCompile(`[^.]{0,60}\d ?in\b.{0,20}`)
	ownNames  = regexp.MustCompile(`(?i)A[345], \d+ × \d+ mm|\d+ × \d+ (in|cm|mm)|\d+(½)? × \d+(½)? in`)
	placed    = regexp.MustCompile(`placeholder="([^"]*)"`)
	typedLike = "hole 3 mm reach 25 mm, corner 5 mm, notch 16 mm, circle 40 mm"
)

// rawIDs finds what the code calls styles, questions, answers and cards by: makers know them by their titles.
func rawIDs() *regexp.Regexp {
	var all []string
	for _, st := range style.Styles {
		all = append(all, st.ID)
		for _, q := range st.Asks {
			all = append(all, q.ID)
			for _, c := range q.Choices {
				all = append(all, c.ID)
			}
		}
	}
	for _, c := range shop.Default.Cards {
		all = append(all, c.ID)
	}
	all = slices.DeleteFunc(all, func(id string) bool { return !strings.Contains(id, "-") })
	return regexp.MustCompile(`\b(` + strings.Join(all, "|") + `)\b`)
}

// A figure stands in the project's unit alone, and no raw id is read, on every page of every style.
func TestOneUnit(t *testing.T) {
	a, raw := newApp(t), rawIDs()
	for _, st := range style.Styles {
		for _, unit := range []string{"in", "mm"} {
			b := brief.New(unit)
			size := map[string]brief.Item{
				"in": {ID: "1", Name: "thing", Shape: "block", Length: "3 1/2 in", Width: "2 1/4 in", Height: "1 1/4 in", Count: "2"},
				"mm": {ID: "1", Name: "thing", Shape: "block", Length: "88 mm", Width: "57 mm", Height: "32 mm", Count: "2"}}
			b.Contents = []brief.Item{size[unit]}
			b.Box = brief.Box{Style: brief.Text(st.ID)}
			b.Dress.Layers = []brief.Layer{{On: "outside"}, {On: "sides", Stock: "sprig-220", Run: "yes"}}
			b.Dress.Band = brief.Belt{Way: "level"}
			path := "/projects/" + a.begin(b)
			foreign := map[string]*regexp.Regexp{"in": millis, "mm": inches}[unit]
			for _, at := range []string{"?stage=contents&view=above", "?stage=contents&view=ways", "?stage=box&view=flat",
				"?stage=box&view=folded", "?stage=card&view=fit", "?stage=dressing&view=layers", "?stage=sheets&view=sheets",
				"?stage=bench&view=turns", "?stage=bench&view=glue", "?stage=record", "/print", "/bench?step=all", "/handon",
				"/templates", "/howmany", "/nearly", "/cutways"} {
				text := a.reads(path + at)
				for _, found := range append(foreign.FindAllString(text, 3), raw.FindAllString(text, 3)...) {
					t.Errorf("%s in %s, %s: %q", st.ID, unit, at, found)
				}
			}
		}
	}
}

// So does a figure in Supplies, in the house's own unit, and in a batch.
func TestOneUnitInSupplies(t *testing.T) {
	for unit, foreign := range map[string]*regexp.Regexp{"in": millis, "mm": inches} {
		a := newApp(t)
		a.typeInShop("habits.units", unit)
		b := brief.New(unit)
		id := a.begin(b)
		a.post("/projects/"+id+"/fitted", "gap", measure.Unit(unit).Either("1/32", "0.8"))
		a.sees("/shop?part=fit", "it moved "+measure.Unit(unit).Either("0.031 in", "0.80 mm"))
		pages := []string{a.batchOf("name,box,count\nAnna," + string(b.Name) + ",2\n")}
		for _, part := range []string{"cards", "tools", "fit", "offcuts", "habits", "prices"} {
			pages = append(pages, "/shop?part="+part)
		}
		for _, at := range pages {
			for _, found := range foreign.FindAllString(a.reads(at), 5) {
				t.Errorf("%s in %s: %q", at, unit, found)
			}
		}
	}
}

// reads is the text of a page, in one line, without what goes by a name of its own.
func (a *app) reads(path string) string {
	page := placed.ReplaceAllString(a.get(path).Body.String(), "> $1 <input ")
	text := unseen.ReplaceAllString(page, " ")
	text = strings.ReplaceAll(strings.Join(strings.Fields(text), " "), typedLike, "")
	return ownNames.ReplaceAllString(text, "")
}
