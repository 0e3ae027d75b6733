package bench

import (
	"regexp"
	"strings"
)

// Caution is one plain sentence of care, at the step that needs it. It goes by its
// first words, so that who knows it can put it away on the screen; what is printed
// always has it.
type Caution struct{ ID, Text string }

var notLetters = regexp.MustCompile(`[^a-z]+`)

// Take makes cautions of texts; what is empty is none.
func Take(texts ...string) (out []Caution) {
	for _, t := range texts {
		if t == "" {
			continue
		}
		first := strings.Fields(strings.ToLower(t))
		id := notLetters.ReplaceAllString(strings.Join(first[:min(3, len(first))], "-"), "-")
		out = append(out, Caution{strings.Trim(id, "-"), t})
	}
	return out
}

// Caution is all the cautions of a step together.
func (s Step) Caution() string {
	var out []string
	for _, c := range s.Cautions {
		out = append(out, c.Text)
	}
	return strings.Join(out, " ")
}

const (
	bladeCare = "Fresh blade, fingers behind the guard, blade closed or covered when you put it down; " +
		"follow its maker's instructions."
	scissorsCare = "Scissors or knife: cut away from yourself, and stop at the score."
	glueCare     = "Air the room when you glue, keep glue from children, and follow the instructions on it."
)
