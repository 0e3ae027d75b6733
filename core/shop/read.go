package shop

import (
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/words"
)

// ReadStock reads a card as it is described, the fields of which stand under a
// prefix; what is wrong is noted at its field.
func ReadStock(r *brief.Reader, prefix string, s brief.Stock) (Card, bool) {
	before := len(r.Problems)
	c := Card{ID: s.ID, Kind: string(s.Kind), Grain: string(s.Grain), Motif: string(s.Motif), Bought: Bought{Hand: -1,
		Retired: s.Retired == "yes"}}
	c.Title = r.Name(prefix+"title", s.Title, "This card")
	choice := func(field, value, say string, of ...string) {
		if !slices.Contains(of, value) {
			r.Problem(prefix+field, fmt.Sprintf("%q is not %s.", value, say), "Choose "+words.Either(of[1:])+".", prefix+field, of[0])
		}
	}
	choice("retired", string(s.Retired), "yes or no", "", "yes", "no")
	choice("kind", c.Kind, "a kind of card", "", "card", "paper", "specialty")
	choice("grain", c.Grain, "a way the grain runs", "", "long", "short")
	choice("pattern", string(s.Pattern), "a kind of pattern", "", "plain", "up", "any")
	choice("motif", string(s.Motif), "something Brevium draws", append([]string{""}, Motifs...)...)
	readThickness(r, prefix, s, &c)
	c.Colour = colour(r, prefix+"colour", s.Colour, "#efe8da")
	c.Inside = colour(r, prefix+"inside", s.Inside, lighter(c.Colour))
	ink := colour(r, prefix+"ink", s.Ink, "#6f6454")
	if c.Up = s.Pattern == "up"; c.Up || s.Pattern == "any" {
		c.Ink = ink
		if c.Pattern = c.Motif; c.Pattern == "" {
			c.Pattern = map[bool]string{true: "sprigs", false: "dots"}[c.Up]
		}
	}
	if s.Repeat != "" {
		if l, ok := r.Length(prefix+"repeat", s.Repeat, "The pattern repeats every"); ok {
			if c.Repeat = l; l < measure.Millimetre || l > mostSheet {
				r.Problem(prefix+"repeat", ""+r.Say(l)+" isn't a usual repeat.",
					"Usual is 10 to 100 mm. Leave it open if you don't know.")
			}
		}
	}
	readSheets(r, prefix, s, &c)
	readPrice(r, prefix, s, &c)
	return c, len(r.Problems) == before
}

// Motifs are what patterned card is drawn with.
var Motifs = []string{"sprigs", "stripes", "dots", "checks"}

// readThickness reads weight and thickness: measured, or estimated from the weight.
func readThickness(r *brief.Reader, prefix string, s brief.Stock, c *Card) {
	gsm := 0.0
	if strings.TrimSpace(string(s.GSM)) != "" {
		var err error
		if gsm, err = ParseWeight(string(s.GSM)); err != nil {
			r.Problem(prefix+"gsm", sentence(err), usualWeight)
		}
	}
	measured := func(field string, text brief.Text, sheets Length) {
		l, err := ParseCaliper(string(text), r.Units)
		if err != nil {
			r.Problem(prefix+field, sentence(err), usualCaliper)
			return
		}
		if c.Caliper = l / sheets; c.Caliper < leastCaliper || c.Caliper > mostCaliper {
			r.Problem(prefix+field, fmt.Sprintf("No card is %s mm thick.", trimmed(c.Caliper.MM())), usualCaliper+
				" Measure a stack of ten sheets, and Brevium divides by ten.")
		}
	}
	switch {
	case strings.TrimSpace(string(s.Caliper)) != "":
		measured("caliper", s.Caliper, 1)
	case strings.TrimSpace(string(s.Ten)) != "":
		measured("ten", s.Ten, 10)
	case strings.TrimSpace(string(s.GSM)) == "":
		r.Problem(prefix+"caliper", "Brevium doesn't know how thick this card is.", "Measure one sheet, or ten, or "+
			"give its weight.")
	case gsm > 0:
		c.Estimated = true
		bulk := Bulk[c.Kind]
		if bulk == 0 {
			bulk = Bulk["card"]
		}
		if s.Bulk != "" {
			own, err := strconv.ParseFloat(strings.TrimSpace(string(s.Bulk)), 64)
			if bulk = own; err != nil || !(own >= 0.6 && own <= 3) {
				r.Problem(prefix+"bulk", fmt.Sprintf("%q isn't a bulk.", s.Bulk),
					"Most card has 1.1 to 1.5 cm³ a gram. You can leave it empty.", prefix+"bulk", "")
				return
			}
		}
		c.Caliper = Estimate(gsm, bulk)
	}
	if gsm == 0 && c.Caliper > 0 {
		gsm = c.Caliper.MM() * 1000 / Bulk["card"]
	}
	c.GSM = int(gsm + 0.5)
}

func readSheets(r *brief.Reader, prefix string, s brief.Stock, c *Card) {
	for _, text := range s.Sheets.List() {
		t, err := Shelf{Sheets: Sheets}.AnySheet(text, r.Units)
		if err != nil {
			r.Problem(prefix+"sheets", sentence(err), "Write 12x12, 8.5x11, a4, a3, 8x8, 6x6, 30x30, or a size like 300 x 400 mm, "+
				"with commas between.")
			return
		}
		c.Sheets = append(c.Sheets, t)
	}
}

func readPrice(r *brief.Reader, prefix string, s brief.Stock, c *Card) {
	if text := strings.TrimSpace(string(s.Price)); text != "" {
		n, err := strconv.ParseFloat(strings.ReplaceAll(text, ",", "."), 64)
		if err != nil || !(n >= 0 && n <= 1000) {
			r.Problem(prefix+"price", fmt.Sprintf("%q isn't a price of a sheet.", text),
				"Write it like 0.40, without a currency sign. Leave it empty if you don't know.")
		} else {
			c.Each = int64(math.Round(n * 100))
		}
	}
	c.Per = Sheets[0].Area()
	if len(c.Sheets) > 0 {
		c.Per = c.Sheets[0].Area()
	}
	if text := strings.TrimSpace(string(s.Hand)); text != "" {
		n, err := strconv.Atoi(text)
		if c.Hand = n; err != nil || n < 0 || n > 100_000 {
			r.Problem(prefix+"hand", fmt.Sprintf("%q isn't a number of sheets.", text), "Count them, or leave it empty.",
				prefix+"hand", "")
		}
	}
	if text := strings.TrimSpace(string(s.Pack)); text != "" {
		n, err := strconv.Atoi(text)
		if c.Pack = max(n, 0); err != nil || n < 1 || n > 1000 {
			r.Problem(prefix+"pack", fmt.Sprintf("%q isn't a number of sheets in a pack.", text), "Packs usually "+
				"hold 5 to 100. Leave it empty if you buy single sheets.", prefix+"pack", "")
		}
	}
}

var hex = regexp.MustCompile(`^#[0-9a-fA-F]{6}$`)

// IsColour reports whether a text is a colour, #rrggbb.
func IsColour(s string) bool { return hex.MatchString(s) }

func colour(r *brief.Reader, field string, text brief.Text, open string) string {
	s := strings.TrimSpace(string(text))
	if s == "" {
		return open
	}
	if !hex.MatchString(s) {
		r.Problem(field, fmt.Sprintf("%q isn't a colour.", s), "Write it like #e9dcc0, or leave it empty.", field, "")
		return open
	}
	return strings.ToLower(s)
}

// lighter is the inside of card of which only the outside's colour is known.
func lighter(c string) string {
	n, _ := strconv.ParseUint(c[1:], 16, 32)
	half := func(shift uint) uint64 { return (n>>shift&255 + 255) / 2 }
	return fmt.Sprintf("#%02x%02x%02x", half(16), half(8), half(0))
}

// ReadTools reads what the maker scores, cuts and punches with.
func ReadTools(r *brief.Reader, t *brief.Tools) (out Tools) {
	for _, text := range t.Grooves.List() {
		g, err := ParseGroove(text, r.Units)
		if err != nil {
			r.Problem("tools.grooves", sentence(err), "Write how far apart they are, like 1/8 in or 5 mm.", "tools.grooves", "")
			break
		}
		out.Grooves = append(out.Grooves, g)
	}
	within := func(field string, text brief.Text, least, most Length, usual string) (l Length) {
		if strings.TrimSpace(string(text)) == "" {
			return 0
		}
		l, ok := r.Length(field, text)
		if ok && (l < least || l > most) {
			r.Problem(field, fmt.Sprintf("%s is not usual here.", r.Say(l)), usual, field, "")
		}
		return l
	}
	out.Board = within("tools.board", t.Board, 100*measure.Millimetre, mostSheet,
		"Most boards are 12 in or 30 cm long.")
	out.Reads = within("tools.trimmer.reads", t.Trimmer.Reads, measure.Millimetre/4, 10*measure.Millimetre,
		"A trimmer reads 1/16 in or 1 mm.")
	out.Cuts = within("tools.trimmer.cuts", t.Trimmer.Cuts, 100*measure.Millimetre, mostSheet,
		"A trimmer cuts 12 in or 31 cm.")
	switch t.Numbers {
	case "", "left":
	case "right":
		out.FromRight = true
	default:
		r.Problem("tools.numbers", fmt.Sprintf("A board is not numbered from %q.", t.Numbers), "Choose left or right.",
			"tools.numbers", "left")
	}
	either := func(field string, text brief.Text, usual, other string) bool {
		if text != "" && string(text) != usual && string(text) != other {
			f, _ := brief.FieldAt(field)
			r.Problem(field, fmt.Sprintf("%s can't be %q.", f.Title(), text), "Choose "+usual+" or "+other+".", field, usual)
		}
		return string(text) == other
	}
	out.Ruler = either("tools.scoring", t.Scoring, "board", "ruler")
	out.Scissors = either("tools.cutting", t.Cutting, "trimmer", "scissors")
	out.NoFolder = either("tools.folder", t.Folder, "bone", "none")
	for _, text := range t.Punches.List() {
		p, err := ParsePunch(text, r.Units)
		if err != nil {
			r.Problem("tools.punches", sentence(err), "Put commas between them.")
			break
		}
		out.Punches = append(out.Punches, p)
	}
	return out
}

func sentence(err error) string {
	s := strings.TrimSuffix(err.Error(), ".")
	return strings.ToUpper(s[:1]) + s[1:] + "."
}

func trimmed(f float64) string { return strconv.FormatFloat(f, 'f', -1, 64) }
