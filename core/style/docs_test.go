package style_test

import (
	"os"
	"strings"
	"testing"

	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
)

// docs/styles.md names every style with each of its questions and answers.
func TestDocsNameEveryOption(t *testing.T) {
	page, err := os.ReadFile("../../docs/styles.md")
	if err != nil {
		t.Fatal(err)
	}
	sections := map[string]string{}
	for _, part := range strings.Split(string(page), "\n## ")[1:] {
		id, text, _ := strings.Cut(part, "\n")
		sections[id] = text
	}
	for _, s := range append(style.Styles, style.Find("score-list")) {
		text, ok := sections[s.ID]
		if !ok {
			t.Errorf("%s is not described", s.ID)
		}
		for _, o := range s.Asks {
			if !strings.Contains(text, "`"+o.ID+"`") {
				t.Errorf("%s: the question %s is not named", s.ID, o.ID)
			}
			for _, c := range o.Choices {
				if !strings.Contains(text, c.ID) {
					t.Errorf("%s: the answer %s=%s is not named", s.ID, o.ID, c.ID)
				}
			}
			if len(o.Choices) > 0 && !strings.Contains(text, o.Default) {
				t.Errorf("%s: %s has no default", s.ID, o.ID)
			}
		}
		delete(sections, s.ID)
	}
	if len(sections) > 0 {
		t.Errorf("described, but no style: %v", sections)
	}
}

// Every problem a style can find is told beside a field there is, with the
// remedy; and a box is refused or made, never both.
func TestRefusalsSayWhy(t *testing.T) {
	for _, s := range style.Styles {
		told := map[string]bool{}
		for _, size := range [][3]string{{"1 mm", "90 mm", "40 mm"}, {"90 mm", "1 mm", "40 mm"}, {"90 mm", "70 mm", "1 mm"},
			{"8 mm", "8 mm", "8 mm"}, {"200 mm", "20 mm", "20 mm"}, {"90 mm", "70 mm", "40 mm"}, {"30 mm", "90 mm", "12 mm"}} {
			for _, o := range append([]style.Question{{}}, s.Asks...) {
				for _, value := range []string{"0.5 mm", "600 mm", "-3 mm", "words", ""} {
					p := refused(s.ID, size, o.ID, value)
					if p.OK() == (len(p.Problems) > 0) {
						t.Fatalf("%s %v %s=%s: made and refused, or neither", s.ID, size, o.ID, value)
					}
					for _, pr := range p.Problems {
						told[pr.Text] = true
						if pr.Text == "" || pr.Fix == "" || !strings.HasSuffix(pr.Text, ".") || !strings.HasSuffix(pr.Fix, ".") {
							t.Errorf("%s: %q, %q", s.ID, pr.Text, pr.Fix)
						}
						if !strings.HasPrefix(pr.Field, "size.") && !strings.HasPrefix(pr.Field, "box.options.") &&
							pr.Field != "tools.allowances" {
							t.Errorf("%s: %q blames %q", s.ID, pr.Text, pr.Field)
						}
					}
				}
			}
		}
		if len(told) < 8 {
			t.Errorf("%s has only %d things it can't do", s.ID, len(told))
		}
	}
}

// refused plans a style of a size with one option answered.
func refused(family string, size [3]string, option, value string) *plan.Plan {
	b := brief.New("mm")
	b.Contents, b.Box = nil, brief.Box{Style: brief.Text(family)}
	b.Set("tools.step", "1 mm")
	b.Set("card.sheet", "a3")
	b.Set("card.join", "yes")
	for i, dim := range []string{"length", "width", "depth"} {
		b.Set("size."+dim, size[i])
	}
	if option != "" {
		b.Set("box.options."+option, value)
	}
	return plan.Make(b, request.Default)
}
