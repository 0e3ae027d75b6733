// Package words holds what every sentence needs and no rule of the job does.
package words

import (
	"fmt"
	"regexp"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"
)

// Count tells how many there are of something: "1 tab", "3 tabs".
func Count(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}

// Capital begins a text with a capital, in any script that has them.
func Capital(s string) string {
	first, size := utf8.DecodeRuneInString(s)
	if size == 0 || first == utf8.RuneError {
		return s
	}
	return string(unicode.ToTitle(first)) + s[size:]
}

// Coins writes hundredths of a coin.
func Coins(hundredths int64) string { return fmt.Sprintf("%d.%02d", hundredths/100, hundredths%100) }

// Small begins a text with a small letter.
func Small(s string) string {
	first, size := utf8.DecodeRuneInString(s)
	if size == 0 || first == utf8.RuneError {
		return s
	}
	return string(unicode.ToLower(first)) + s[size:]
}

// Plain writes an identity such as "back-left-tab" as people say it.
func Plain(id string) string { return strings.ReplaceAll(id, "-", " ") }

// What belongs together in a length: a whole number and its fraction, the number and its unit.
var (
	mixed = regexp.MustCompile(`(\d) (\d+[/⁄]\d)`)
	unit  = regexp.MustCompile(`(\d) (mm|cm|in)\b`)
)

// Together keeps lengths from being broken over lines: the blanks in them do not break.
func Together(s string) string {
	return unit.ReplaceAllString(mixed.ReplaceAllString(s, "$1\u202f$2"), "$1\u00a0$2")
}

// Letters counts the letters of a text, however many bytes each takes.
func Letters(s string) int { return utf8.RuneCountInString(s) }

// Cut shortens a text to so many letters, and says that it did.
func Cut(s string, most int) string {
	n := 0
	for i := range s {
		if n == most {
			return s[:i] + "…"
		}
		n++
	}
	return s
}

// blank are marks that count as letters or signs and show nothing.
var blank = []rune{'\u115f', '\u1160', '\u2800', '\u3164', '\uffa0'}

// Visible reports whether anything of a text can be seen.
func Visible(s string) bool {
	return strings.ContainsFunc(s, func(r rune) bool {
		return !slices.Contains(blank, r) && r != utf8.RuneError && unicode.In(r, unicode.L, unicode.N, unicode.P, unicode.S)
	})
}

// List says several names in a sentence: "a, b and c".
func List(of []string) string { return row(of, "and") }

// Either says several choices in a sentence: "a, b or c".
func Either(of []string) string { return row(of, "or") }

func row(of []string, last string) string {
	if len(of) < 2 {
		return strings.Join(of, "")
	}
	return strings.Join(of[:len(of)-1], ", ") + " " + last + " " + of[len(of)-1]
}

// Meaning is a word of the work and what it means. Its picture goes by ID.
type Meaning struct{ ID, Word, Says string }

// Short are words that stand for a longer one of the glossary.
var Short = map[string]string{"rolled": "rolled wall", "compartment": "compartments", "band": "belly band",
	"drawer": "sleeve"}

// Glossary lists the words of the work, in the order of the work.
var Glossary = []Meaning{
	{"score", "score", "A crease pressed into the card with a scoring tool. The card folds there cleanly."},
	{"valley", "valley fold", "A fold that brings both sides up towards you, with the inside of the " +
		"card facing you."},
	{"mountain", "mountain fold", "A fold that drops both sides away from you, with the inside of the " +
		"card facing you."},
	{"burnish", "burnish", "To rub along a fold with a bone folder until it is flat and sharp."},
	{"caliper", "caliper", "The thickness of one sheet of card."},
	{"grain", "grain", "The direction of the fibres in the card. It folds cleanly along the grain and " +
		"is stiffer across it."},
	{"groove", "groove", "A channel in the scoring board that guides the tool. For a score between two " +
		"grooves, add a spacer at the fence or mark the card."},
	{"piece", "piece", "One part cut from a sheet, such as a base, a lid or a sleeve."},
	{"panel", "panel", "One flat face of a piece, between scores and edges."},
	{"base", "base", "The part of the box that holds your things."},
	{"wall", "wall", "A side of the box, folded up from the bottom."},
	{"lid", "lid", "The part that closes the box. It lifts off, or hangs on the back wall."},
	{"rolled", "rolled wall", "A wall folded over on itself. It is twice as thick and shows no raw " +
		"edge at the rim."},
	{"pinwheel", "pinwheel", "A tray with one slit at each corner. Each corner square wraps onto the " +
		"next wall and makes it twice as thick."},
	{"tab", "tab", "A small flap that is glued down to join two walls."},
	{"mitre", "mitre", "To cut the ends of a tab at an angle, so that it doesn't catch on its neighbours."},
	{"flap", "flap", "A hinged part that opens and closes the box."},
	{"dust-flap", "dust flap", "A small side flap that closes the gap beside the top panel."},
	{"tuck", "tuck", "To push a flap inside the box, where it holds without glue."},
	{"notch", "notch", "A half circle cut out of an edge to make room for a thumb."},
	{"gusset", "gusset", "A side that folds inwards when the top closes."},
	{"web", "web", "A corner left whole and scored from corner to corner. It folds in flat between two walls."},
	{"facet", "facet", "A narrow slanted panel between two others."},
	{"crest", "crest", "The strip that stands up where two slopes meet at the top."},
	{"petal", "petal", "One of four folded corners that close over your things like a flower."},
	{"sleeve", "sleeve", "A tube that a drawer slides into."},
	{"band", "belly band", "A strip around the box that keeps it closed."},
	{"clearance", "clearance", "How much wider the lid is than the base. Thick card and added layers need more."},
	{"reveal", "reveal", "The part of the base you can see below a short lid."},
	{"overhang", "overhang", "How far a cover sticks out beyond the box."},
	{"layer", "layer", "Card or paper you glue on the outside of a panel, with the same border on every side."},
	{"liner", "liner", "Card or paper you glue inside the box, to a wall or the floor."},
	{"finger-room", "finger room", "Space for your fingers beside your things, so you can lift them out."},
	{"proud", "proud", "A thing is proud when it sticks up above the rim."},
	{"compartments", "compartments", "Separate places for your things, made with dividers, holes or trays."},
	{"fence", "fence", "The raised edge of the scoring board. Push the card against it."},
	{"step", "step", "The smallest mark on your ruler, trimmer and scoring board. Every size ends on one."},
	{"offcut", "offcut", "A leftover piece of a sheet that is worth keeping."},
	{"proof", "proof", "A check that the box works: it closes, every tab reaches what it is glued to, " +
		"your things fit and the lid goes on."},
}
