package help

import (
	"fmt"
	"html/template"
	"net/http"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/words"
	"brevium/draw"
	"brevium/draw/solid"
	"brevium/web/desk"
)

// howTo is a short lesson. Its numbers and pictures come of plans made as any
// other, so that it can't say what the program does not do.
type howTo struct {
	ID, Title, About string
	Steps            []lesson
	steps            func(request.Workshop) []lesson
}

// lesson is one step of it.
type lesson struct {
	Title    string
	Says     []string
	Pictures []template.HTML
}

var HowTos = []howTo{
	{ID: "first-box", Title: "Plan a box", About: "From what goes in to a box on the table.",
		steps: firstBox},
	{ID: "score-card", Title: "Read a score card", About: "How to use a score card at the board, turn by turn.",
		steps: scoreCard},
	{ID: "lid", Title: "Make a lid that fits", About: "Three ways to give a lid its clearance.", steps: lidThatGoesOn},
	{ID: "measure", Title: "Measure a thing", About: "Which way length, width and height run, for every shape.", steps: measureThings},
	{ID: "card", Title: "Choose card", About: "How thick card changes the box, and what it holds.", steps: chooseCard},
	{ID: "score-fold", Title: "Score and fold", About: "From a cut piece to sharp folds.", steps: scoreAndFold},
	{ID: "glue-or-tape", Title: "Glue or tape", About: "What each needs, and where it goes.", steps: glueOrTape},
	{ID: "waste", Title: "Cut with little waste", About: "More boxes from the same sheets.", steps: littleWaste},
}

// howPage is one of them.
type howPage struct {
	desk.Page
	How howTo
}

// HowTo shows a how-to.
func (s *Room) HowTo(c *echo.Context) error {
	for _, h := range HowTos {
		if h.ID == c.Param("name") {
			h.Steps = h.steps(s.Workshop(c.Request().Context()))
			return s.Render(c, http.StatusOK, "howto", &howPage{desk.Page{Title: h.Title}, h})
		}
	}
	return echo.ErrNotFound
}

// sampler is what the lessons make: four seed packets in a tray with a lid.
func sampler(w request.Workshop, options ...string) *plan.Plan {
	b := w.Begin(brief.New("in"))
	b.Name = "Seed packet sampler"
	for i := 0; i+1 < len(options); i += 2 {
		if d := strings.Split(options[i+1], " x "); options[i] == "size" && len(d) == 3 { // from score to score
			b.Contents, b.Size = nil, &brief.Size{Length: brief.Text(d[0]), Width: brief.Text(d[1]), Depth: brief.Text(d[2])}
			continue
		}
		b.Set("box.options."+options[i], options[i+1])
	}
	if p := plan.Make(b, w); p.OK() {
		return p
	}
	b.Card = brief.New("in").Card // no sheet here takes it
	return plan.Make(b, request.Default)
}

const lessonW, lessonH = 640.0, 380.0

func firstBox(w request.Workshop) []lesson {
	p := sampler(w)
	folded := func(fold, lift float64) template.HTML {
		return template.HTML(solid.Folded(p, assembly.Pose{Fold: fold, Lift: lift}, solid.DefaultView, 300, 220).SVG())
	}
	size := func(d assembly.Dims) string {
		return fmt.Sprintf("%s × %s × %s", desk.Plainly(p.Step.Show(d.Length).Text),
			desk.Plainly(p.Step.Show(d.Width).Text), desk.Plainly(p.Step.Show(d.Depth).String()))
	}
	t := p.Load.Things[0]
	return []lesson{
		{"Say what goes in", []string{
			fmt.Sprintf("Under Contents, add what goes in and how many: here %d × %s. Measure "+
				"at the widest place. Brevium adds room for your fingers.",
				t.Count, t.Name),
			"Inside shows them from above and from the side, with the space left on each side."},
			[]template.HTML{template.HTML(draw.Above(p, lessonW, lessonH))}},
		{"Look at it flat", []string{
			fmt.Sprintf("The box is %s, score to score. Each piece is drawn beside a ruler. Cut the outline and score the inner lines.",
				size(p.Box.Size)),
			"Point at a number under Cut and score, and its line lights up."},
			[]template.HTML{template.HTML(draw.Flat(p, "", lessonW, lessonH, nil))}},
		{"Fold it before you cut", []string{"Folded shows the box being made, step by step. Slide from flat to closed, then open it.",
			fmt.Sprintf("Brevium has folded it already and made %d checks. They are listed under the sizes.",
				len(p.Checks))},
			[]template.HTML{folded(0.35, 0), folded(0.7, 0), folded(1, 0.8)}},
		{"Cut it from the sheet", []string{fmt.Sprintf("Sheets shows %d of %s, with the cuts in order. Print the plan, or "+
			"follow it on your phone, one step at a time.", len(p.Layout.Sheets), p.Sheet.Title)},
			[]template.HTML{template.HTML(draw.Sheets(p, lessonW, 300, 2))}},
	}
}

func scoreCard(w request.Workshop) []lesson {
	p := sampler(w)
	card := p.Guide.Cards[0]
	out := []lesson{{"Read the card", append([]string{"This is the score card of the " + card.Piece +
		". Each length is measured from the edge against the fence."}, card.Says...),
		[]template.HTML{template.HTML(draw.Flat(p, card.Piece, lessonW, lessonH, nil))}}}
	var boards []template.HTML
	for i := range card.Turns {
		boards = append(boards, template.HTML(draw.Board(p, card, i).SVG()))
	}
	out = append(out, lesson{"Score and turn", []string{
		"Inside face up. Lay the named edge against the fence, score every length of that turn, then turn the piece as the card says.",
		"Scores on the far side are measured from the other edge, after a half turn. You never need a mark in the middle."},
		boards})
	for _, step := range p.Guide.Steps {
		if step.Title == "Cut" || step.Title == "Fold" {
			out = append(out, lesson{step.Title, step.Says, nil})
		}
	}
	return out
}

func lidThatGoesOn(w request.Workshop) []lesson {
	var out []lesson
	for _, school := range []struct{ id, title, says string }{
		{"grow-lid", "Cut the lid larger", "The base keeps its numbers. The odd sixteenth is in the lid's cut size."},
		{"trim-base", "Cut the base smaller", "The lid keeps its numbers. The odd sixteenth is in the base's cut size."},
		{"shift-scores", "Shift the lid's scores", "Both are cut the same size. The lid's scores are half the " +
			"clearance further out, set with a strip of card against the fence."},
	} {
		p := sampler(w, "clearance", school.id, "size", "5 x 3 1/2 x 2")
		says := []string{school.says, fmt.Sprintf("The clearance here is %s: twice the card's thickness, plus room "+
			"for the fit.", desk.Plainly(p.Step.Show(p.Box.Clearance).String()))}
		for _, card := range p.Guide.Cards {
			says = append(says, fmt.Sprintf("The %s: %s", words.Plain(card.Piece), words.Small(card.Says[0])))
		}
		out = append(out, lesson{school.title, says, []template.HTML{template.HTML(draw.Flat(p, "lid", lessonW, 300, nil))}})
	}
	return append(out, lesson{"When a lid needs more room", []string{
		"Layers on the outside of the base, rolled or wrapped walls in the lid, and thicker card all need more room. " +
			"Choose a looser fit for them under Card & fit."}, nil})
}
