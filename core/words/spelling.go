package words

import (
	"regexp"
	"strings"
	"unicode"
)

// american are words spelt otherwise in America, and what card is called there. Everything is written as in Britain.
var american = map[string]string{
	"colour": "color", "colours": "colors", "coloured": "colored", "colouring": "coloring", "grey": "gray",
	"centre": "center", "centres": "centers", "centred": "centered", "millimetre": "millimeter",
	"millimetres": "millimeters", "centimetre": "centimeter", "centimetres": "centimeters", "metre": "meter",
	"metres": "meters", "favour": "favor", "favours": "favors", "favourite": "favorite", "fibre": "fiber",
	"fibres": "fibers", "mitre": "miter", "mitres": "miters", "mitred": "mitered", "labelling": "labeling",
	"labelled": "labeled", "licence": "license", "neighbour": "neighbor", "neighbours": "neighbors",
	"card": "cardstock", "bin": "trash", "spelt": "spelled", "mould": "mold",
}

// britishWord finds them. Card in two words that mean something else, such as a score card, stays.
var britishWord = func() *regexp.Regexp {
	var all []string
	for w := range american {
		all = append(all, w)
	}
	return regexp.MustCompile(`(?i)\b((?:score|note|greeting|place|sample|post|gift) cards?|` + strings.Join(all, "|") + `)\b`)
}()

// American spells a text as in America.
func American(text string) string { return AmericanBut(text, func(string) bool { return false }) }

// AmericanBut is American for a text with words that stay as they are.
func AmericanBut(text string, stays func(word string) bool) string {
	return britishWord.ReplaceAllStringFunc(text, func(w string) string {
		to, ok := american[strings.ToLower(w)]
		switch {
		case !ok || stays(w):
			return w
		case unicode.IsUpper(rune(w[0])):
			return Capital(to)
		}
		return to
	})
}
