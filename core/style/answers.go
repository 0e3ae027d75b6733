package style

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/words"
)

// Answers are a style's questions answered: choices by name, lengths in their
// own right. What is left open is not in them.
type Answers struct {
	Choice map[string]string
	Length map[string]Length
}

// ReadAnswers reads the answers to a style's questions, or notes what is wrong with them.
func ReadAnswers(r *brief.Reader, s *Style, options brief.Options) Answers {
	a := Answers{map[string]string{}, map[string]Length{}}
	for id, text := range brief.Sorted(options) {
		field, answer := "box.options."+id, strings.TrimSpace(string(text))
		q, known := s.Ask(id)
		switch {
		case !known:
			r.Problem(field, fmt.Sprintf("%s has no question called %q.", s.Title, id), "Leave it out.", field, "")
		case answer == "":
		case len(q.Choices) == 0:
			if l, ok := r.Length(field, text, q.Label); ok {
				a.Length[id] = l
			}
		default:
			var ids []string
			for _, c := range q.Choices {
				ids = append(ids, c.ID)
				if c.ID == answer {
					a.Choice[id] = answer
				}
			}
			if a.Choice[id] == "" {
				r.Problem(field, fmt.Sprintf("%s can't be %q.", q.Label, answer), "Choose "+words.Either(ids)+".", field, q.Default)
			}
		}
	}
	a.warnIdle(r.Report, s)
	return a
}

// warnIdle says which answers nobody asked for: their question makes no sense beside the others.
func (a Answers) warnIdle(r *brief.Report, s *Style) {
	for _, q := range s.Asks {
		_, length := a.Length[q.ID]
		if choice := a.Choice[q.ID]; !length && (choice == "" || choice == q.Default) || a.asks(s, q) {
			continue
		}
		text := fmt.Sprintf("“%s” does nothing here.", q.Label)
		if rule, _, ok := strings.Cut(q.When+q.Unless, "="); ok {
			if of, known := s.Ask(rule); known {
				text = fmt.Sprintf("“%s” does nothing here, because of what you chose under “%s”.", q.Label, of.Label)
			}
		}
		r.Warn(brief.Warning{Code: "idle-option", Text: text, Fix: "Clear it, or change the other choice.",
			Set: brief.To("box.options."+q.ID, "")})
	}
}

// With gives the answers with one of them another.
func (a Answers) With(id, choice string) Answers {
	out := Answers{maps.Clone(a.Choice), a.Length}
	out.Choice[id] = choice
	return out
}

// Follow answers a question that was left open as the house does, if it makes sense
// here and the choice is one of it: "grow" stands for whichever choice begins so. It
// gives the answer and reports whether it is another than the style's own.
func (a Answers) Follow(s *Style, q Question, choice string) (took string, other bool) {
	id := q.ID
	if a.Choice[id] != "" || !a.asks(s, q) {
		return "", false
	}
	for _, c := range q.Choices {
		if c.ID == choice || strings.HasPrefix(c.ID, choice+"-") {
			if c.ID != q.Default {
				a.Choice[id] = c.ID
			}
			return c.ID, c.ID != q.Default
		}
	}
	return "", false
}

// asks reports whether a question makes sense beside the answers given.
func (a Answers) asks(s *Style, q Question) bool {
	holds := func(rule string) bool {
		id, choice, _ := strings.Cut(rule, "=")
		of, _ := s.Ask(id)
		given := a.Choice[id]
		if given == "" {
			given = of.Default
		}
		return slices.Contains(strings.Split(choice, "|"), given)
	}
	return (q.When == "" || holds(q.When)) && (q.Unless == "" || !holds(q.Unless))
}
