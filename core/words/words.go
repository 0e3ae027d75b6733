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
	{"score", "score", "A line pressed into the card, so that it folds there and nowhere else."},
	{"valley", "valley fold", "A fold towards you, seen from the inside face: the two sides come up."},
	{"mountain", "mountain fold", "A fold away from you, seen from the inside face: the two sides go down."},
	{"burnish", "burnish", "Press a fold flat with the bone folder, so that it stays."},
	{"caliper", "caliper", "How thick one sheet of the card is."},
	{"grain", "grain", "The way the fibres of card lie: along it card folds cleanly and bends easily; across it, it is stiff."},
	{"groove", "groove", "A line of the scoring board that the tool runs in. What lies in none takes a strip against the " +
		"fence, or a mark."},
	{"piece", "piece", "What is cut in one from a sheet; scored and folded it is a base, a lid, a sleeve."},
	{"panel", "panel", "A part of a piece between scores and edges, flat in the finished box."},
	{"base", "base", "The part of the box that things stand in."},
	{"wall", "wall", "A panel that stands up from the base."},
	{"lid", "lid", "The part that goes over the base and comes off it, or hangs on it."},
	{"rolled", "rolled wall", "A wall folded over on itself: twice as thick, with no raw edge at the rim."},
	{"pinwheel", "pinwheel", "Corners slit once each, always the same way round: each square wraps on to the next wall and doubles it."},
	{"tab", "tab", "A flap that is stuck down and holds two walls together."},
	{"mitre", "mitre", "Cut the ends of a tab on the slant, so that it lies clear of its neighbours."},
	{"flap", "flap", "A part that stays movable and opens and closes the box."},
	{"dust-flap", "dust flap", "A small flap at the side that closes the gap beside the one that shuts the box."},
	{"tuck", "tuck", "Push a flap in between the walls, where it holds without glue."},
	{"notch", "notch", "A half round cut out of an edge, so that a thumb gets hold."},
	{"gusset", "gusset", "A side that folds inwards as a roof closes."},
	{"web", "web", "A corner that stays whole and is scored across, so that it folds in by itself between two walls."},
	{"facet", "facet", "A narrow panel on the slant between two others."},
	{"crest", "crest", "The edge that stands up where two slopes are folded together at the top."},
	{"petal", "petal", "A corner folded on its own diagonal, laid over the things with its neighbours."},
	{"sleeve", "sleeve", "A tube that a drawer slides into."},
	{"band", "belly band", "A strip right round the box that holds it shut."},
	{"clearance", "clearance", "How much wider the lid's panel is than the base's. Thick card and layers want more."},
	{"reveal", "reveal", "What shows of the base below a short lid."},
	{"overhang", "overhang", "How far a cover stands out beyond the box in it."},
	{"layer", "layer", "A smaller piece of card or paper stuck on the outside of a panel, with an even border."},
	{"liner", "liner", "A piece stuck to the inside, a little smaller than it."},
	{"finger-room", "finger room", "Room beside the things, so that fingers can take them out."},
	{"proud", "proud", "What stands proud stands above the rim."},
	{"compartments", "compartments", "Places kept apart by dividers, holes or trays."},
	{"fence", "fence", "The raised edge of the scoring board that the card lies against."},
	{"step", "step", "The finest mark on your ruler, trimmer and board. Every size ends on one."},
	{"offcut", "offcut", "What is left of a sheet and worth keeping."},
	{"proof", "proof", "The box folded in the program: that it closes, that tabs meet what they are stuck to, that the " +
		"things go in and the lid goes on."},
}
