package plan_test

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/readings"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/internal/tried"
)

// everyBox plans each style of a size that suits it, with every combination of
// answers.
func everyBox(t *testing.T, visit func(style *style.Style, p *plan.Plan)) {
	r := rand.New(rand.NewPCG(9, 9))
	for _, style := range style.Styles {
		all, made := tried.Combinations(style), 0
		for n := range all {
			b := tried.Sized("110 mm", "80 mm", "60 mm", "units", "mm", "tools.step", "1 mm", "card.sheet", "a3",
				"card.join", "yes", "tools.adhesive", []string{"tape", "glue"}[r.IntN(2)])
			b.Box = brief.Box{Style: brief.Text(style.ID)}
			tried.Answer(&b, style, n)
			tried.Suit(&b, style)
			if p := advice.Make(b, request.Default); p.OK() {
				made++
				visit(style, p)
			}
		}
		if made < all*9/10 {
			t.Errorf("%s: only %d of %d combinations suit a plain size", style.ID, made, all)
		}
	}
}

// The steps of every box are sentences a maker can follow: each piece is cut,
// scored and told how it is stuck, folded or put on.
func TestStepsReadWell(t *testing.T) {
	everyBox(t, func(style *style.Style, p *plan.Plan) {
		var text []string
		for _, s := range p.Guide.Steps {
			if s.Title == "" || len(s.Says) == 0 {
				t.Errorf("%s: an empty step %q", style.ID, s.Title)
			}
			text = append(append(text, s.Says...), strings.Fields(s.Caution())...)
			for _, says := range s.Says {
				if strings.HasPrefix(says, "Stand two flaps up") && style.ID != "pinch-top" {
					t.Errorf("%s has no four flaps that close one end", style.ID)
				}
				if says != strings.TrimSpace(says) || !strings.HasSuffix(says, ".") || says[0] >= 'a' && says[0] <= 'z' {
					t.Errorf("%s: %q isn't a sentence", style.ID, says)
				}
				if bad := tried.Badly.FindString(says); bad != "" {
					t.Errorf("%s: %q in %q", style.ID, bad, says)
				}
			}
		}
		for _, m := range p.Course() {
			if bad := tried.Badly.FindString(m.Says); bad != "" || !strings.HasSuffix(m.Says, ".") || m.Says[0] >= 'a' {
				t.Errorf("%s: %q in %q", style.ID, bad, m.Says)
			}
		}
		whole := strings.ToLower(strings.Join(text, " "))
		for _, piece := range p.Box.Pieces() {
			if n := strings.Count(whole, piece.Name); n < 1 {
				t.Errorf("%s: the %s is named %d times in the steps", style.ID, piece.Name, n)
			}
			for _, m := range piece.Marks {
				told := strings.Contains(whole, "stick a "+m.What) || strings.Contains(whole, "for the "+m.What+":")
				if !told || !strings.Contains(strings.Join(readings.Supplies(p), " "), m.What) {
					t.Errorf("%s: the %s is forgotten", style.ID, m.What)
				}
			}
			if len(piece.Windows) > 0 && !strings.Contains(whole, "cut a window") || len(piece.Punches) > 0 &&
				!strings.Contains(whole, "round hole") {
				t.Errorf("%s: an opening of the %s is not told", style.ID, piece.Name)
			}
		}
		for what, care := range map[string]string{"magnet": "swallowed", "ribbon strip": "infants"} {
			if strings.Contains(whole, what) && !strings.Contains(whole, care) {
				t.Errorf("%s: %s without a caution", style.ID, what)
			}
		}
	})
}

// The pieces of every box as a program reads them: no line beyond its piece,
// every face of a size, and the faces with what is cut away make up the whole
// piece.
func TestPlansAddUp(t *testing.T) {
	everyBox(t, func(style *style.Style, p *plan.Plan) {
		for _, piece := range p.Box.Pieces() {
			sum := 0.0
			for _, f := range piece.Faces {
				sum += f.Area()
			}
			whole := piece.Width.MM() * piece.Height.MM()
			// What is punched out of a face is a face of its own.
			if math.Abs(sum-whole) > 1e-4*whole {
				t.Errorf("%s: the faces of the %s come to %.1f mm² of %.1f", style.ID, piece.Name, sum, whole)
			}
			for _, l := range piece.Outline() {
				for _, at := range []net.Point{l.A, l.B} {
					if at.X < 0 || at.Y < 0 || at.X > piece.Width || at.Y > piece.Height {
						t.Errorf("%s: a line of the %s leaves it", style.ID, piece.Name)
					}
				}
			}
			for _, s := range piece.Passes {
				size, across := piece.Width, piece.Height
				if !s.AlongWidth {
					size, across = across, size
				}
				if s.At <= 0 || s.At >= size || s.From < 0 || s.To > across || s.From >= s.To {
					t.Errorf("%s: a score of the %s at %v from %v to %v", style.ID, piece.Name, s.At, s.From, s.To)
				}
			}
		}
		in, outside := p.Box.Inside, p.Box.Outside
		if in.Length >= outside.Length || in.Width >= outside.Width || in.Depth >= outside.Depth ||
			in.Length <= 0 || in.Width <= 0 || in.Depth <= 0 {
			t.Errorf("%s: inside %v, outside %v", style.ID, in, outside)
		}
	})
}

// The order of making, in words, for a box of each kind: a lid put on, an end
// tucked in, pieces stuck on each other.
func TestCourseInWords(t *testing.T) {
	for style, want := range map[string][]string{
		"tray-lid": {"Base: Fold up the left and right.", "Base: Fold up the tabs.",
			"Base: Fold up the back and front and stick the tabs.",
			"Lid: Fold up the left and right.", "Lid: Fold up the tabs.",
			"Lid: Fold up the back and front and stick the tabs.", "Put in 2 × tin.", "Put the lid on."},
		"carton": {"Fold up the back.", "Fold up the right, front, left and seam and stick the seam.",
			"Fold up the right bottom and left bottom.",
			"Fold up the bottom and bottom lip.", "Put in 2 × tin.", "Close the right top and left top.",
			"Close the top and top lip."},
		"carton:top=glued bottom=glued": {"Fold up the back.",
			"Fold up the right, front, left and seam and stick the seam.",
			"Fold up the right bottom and left bottom and stick the right bottom and left bottom.",
			"Put in 2 × tin.", "Close the right top and left top.", "Close the top and stick the right top and left top."},
		"carton:top=ledge bottom=ledge": {"Carton: Fold up the back.",
			"Carton: Fold up the right, front, left and seam and stick the seam.",
			"Carton: Fold up the right bottom, left bottom and front bottom.",
			"Carton: Fold up the top, right top, left top and front top.",
			"Stick the bottom panel on the bottom, right bottom, front bottom and left bottom of the carton.", "Put in 2 × tin.",
			"Stick the top panel on the top, right top, front top and left top of the carton."},
		"gable-cap": {"Base: Fold up the left, right, back and front.",
			"Base: Fold up the wrapped corners and stick the wrapped corners.",
			"Cap: Wrap the four walls round to the seam and stick the seam top and seam.",
			"Cap: Push the gussets in and bring the roof slopes together and stick the right back, left back, right front, " +
				"left front and front ridge strips.",
			"Put in 2 × tin.", "Put the cap on."},
		"pinch-top": {"Fold up the back.", "Wrap the four walls round to the seam and stick the seam top and seam.",
			"Fold up the left flap and right flap and stick the right flap and left flap.",
			"Fold up the front flap and stick the front flap.", "Put in 2 × tin.", "Pinch the top flat."},
	} {
		b := brief.New("mm")
		b.Contents = []brief.Item{{Name: "tin", Shape: "cylinder", Diameter: "40 mm", Height: "50 mm", Count: "2"}}
		style, options, _ := strings.Cut(style, ":")
		b.Box = brief.Box{Style: brief.Text(style)}
		for o := range strings.FieldsSeq(options) {
			id, answer, _ := strings.Cut(o, "=")
			b.Set("box.options."+id, answer)
		}
		b.Set("card.sheet", "a3")
		p := advice.Make(b, request.Default)
		if !p.OK() {
			t.Fatal(style, p.Problems)
		}
		var got []string
		for _, m := range p.Course() {
			got = append(got, m.Says)
		}
		if strings.Join(got, "|") != strings.Join(want, "|") {
			t.Errorf("%s:\n%s\nwant\n%s", style, strings.Join(got, "\n"), strings.Join(want, "\n"))
		}
	}
}
