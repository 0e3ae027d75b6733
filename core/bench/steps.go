package bench

import (
	"fmt"
	"regexp"
	"slices"
	"strings"

	"brevium/core/assembly"
	"brevium/core/fasteners"
	"brevium/core/layout"
	"brevium/core/net"
	"brevium/core/words"
)

// Step is one thing to do at the bench: with one piece, or with all of the box.
type Step struct {
	ID       string // the same as long as the box is; unique among its steps
	Title    string
	Piece    string // what is in hand, "" for all of it
	Count    int    // how many of it are made
	Says     []string
	Frames   []Frame
	Cautions []Caution
	Check    string // what must be so before one goes on
	Fails    []Remedy
	Waits    []Wait
	Minutes  float64 // for all copies, as an unhurried maker takes them
}

// Remedy is what to do where a check fails.
type Remedy struct{ When, Do string }

// Wait is a time that something is held, or left alone.
type Wait struct {
	What    string
	Seconds int
}

// Look is what a picture of a step shows.
type Look string

const (
	OnSheet  Look = "sheet"  // a sheet, cut N in hand
	OnBoard  Look = "board"  // a piece on the scoring board, turn N
	Scored   Look = "score"  // a flat piece with its folds lit
	Finished Look = "finish" // a flat piece from outside, what is inked, stamped or lettered of it lit
	Cutting  Look = "cut"    // a flat piece, of its Cuts those before N done, N lit
	Marked   Look = "mark"   // a flat piece with what is put on it lit
	Dressed  Look = "dress"  // a flat piece with the layers that lie on its outside
	GlueIn   Look = "glue-inside"
	GlueOut  Look = "glue-outside"
	Standing Look = "box" // the box when At steps of its course are done
	Gathered Look = "set" // the boxes of a set, At of them come to the first
)

// Side is the side of a flat piece that lies up in a picture.
func (l Look) Side() string {
	if l == GlueOut || l == Dressed || l == Finished {
		return "outside"
	}
	return "inside"
}

// Frame is one picture of a step, with what is done in it.
type Frame struct {
	Says  string
	Look  Look
	Piece string
	N     int
	At    float64
	Parts []string // of a standing box: the parts that are shown
	Lit   []string // and the faces that move now
	Empty bool     // and nothing is in it yet
	Late  bool     // and what goes on last is on
	Uncut bool     // of a flat piece: nothing is cut of it yet
	Box   int      // of a set: which box
}

// Done is a step of the course of making, told.
type Done struct {
	assembly.Step
	Says string
}

// Sheets are sheets that are cut alike.
type Sheets struct {
	N, Alike int // the number of the first, from 0
	Of       string
	Cuts     []layout.Step
}

// steps writes the order of work: trim, score, cut, fold, stick, dry-fit, fill, close.
func (w Work) steps() (out []Step) {
	all := append(append(w.trim(), w.join()...), w.score()...)
	all = append(append(all, w.cut()...), w.burnish(), w.closures(), w.dress(), w.dry())
	all = append(all, w.finish()...)
	all = append(all, w.stick()...)
	all = append(all, w.fit(), w.together(), w.drying(), w.fill(), w.close())
	for _, s := range all {
		if len(s.Says) > 0 {
			if s.Count == 0 {
				s.Count = w.Copies
			}
			out = append(out, s.checked(w))
		}
	}
	in := Titles(w.Burnish)
	slices.SortStableFunc(out, func(a, b Step) int { return slices.Index(in, a.Title) - slices.Index(in, b.Title) })
	return out
}

// Titles are what steps are called, in the order of the work: as the habit has it, folds are
// burnished before anything is cut, or after.
func Titles(burnish string) []string {
	out := []string{"Trim", "Join", FinishUnscored, "Score", "Cut", "Mitre", "Fold and burnish", "Closures", FinishFlat, "Decorate while flat",
		FinishUnstuck, "Fold it dry", "Fold to shape", "Stick", "Dry-fit", StickOuter, FormOn, "Put together", DressStanding, "Let it dry",
		"Fill", "Close", FinishLast, Gather}
	if burnish == "before" {
		copy(out[4:7], []string{"Fold and burnish", "Cut", "Mitre"})
	}
	return out
}

// Gather is what the steps are called by which the boxes of a set come together.
const Gather = "Put them together"

// Grouped puts steps that follow each other under one title together: the work as it is told on paper.
func Grouped(steps []Step) (out []Step) {
	for _, s := range steps {
		n := len(out) - 1
		if n < 0 || out[n].Title != s.Title {
			s.Says, s.Cautions = slices.Clone(s.Says), slices.Clone(s.Cautions)
			s.Piece, s.Frames = "", slices.Clone(s.Frames)
			out = append(out, s)
			continue
		}
		for _, says := range s.Says {
			if !slices.Contains(out[n].Says, says) {
				out[n].Says = append(out[n].Says, says)
			}
		}
		for _, c := range s.Cautions {
			if !slices.Contains(out[n].Cautions, c) {
				out[n].Cautions = append(out[n].Cautions, c)
			}
		}
		out[n].Frames = append(out[n].Frames, s.Frames...)
		out[n].Minutes += s.Minutes
	}
	return out
}

// Minutes is about how long steps take in all.
func Minutes(steps []Step) int { return max(1, int(Pace{}.Whole(steps)+0.5)) }

// Setup is how many minutes it takes to clear the table and set up for the steps of a title: once,
// however many boxes are made.
func Setup(title string) int { return setups[title] }

var setups = map[string]int{"Trim": 5, "Join": 2, "Score": 3, "Cut": 2, "Mitre": 1, "Fold and burnish": 1, "Closures": 3,
	"Decorate while flat": 5, DressStanding: 5, "Fold it dry": 1, "Fold to shape": 1, "Stick": 5, "Dry-fit": 1,
	StickOuter: 1, FormOn: 1, "Put together": 2,
	"Fill": 5, "Close": 2, Gather: 2, FinishUnscored: 3, FinishFlat: 3, FinishUnstuck: 3, FinishLast: 2}

// cut gives, for each piece, what is cut to its scores and, by itself, how its tabs are shaped.
func (w Work) cut() (cut []Step) {
	var mitre []Step
	for _, p := range w.pieces {
		says, shapes := cutSays(p, w.Say, w.Tools)
		all := CutsOf(p)
		if says == "" && shapes == "" && len(p.Tips) == 0 {
			continue
		}
		s := Step{ID: "cut:" + p.Name, Title: "Cut", Piece: p.Name, Count: p.Count * w.Copies, Cautions: Take(scissorsCare)}
		for _, tip := range p.Tips {
			s.Says = append(s.Says, words.Capital(p.Name)+": "+tip)
		}
		if says != "" {
			s.Says = append(s.Says, says)
		}
		m := Step{ID: "mitre:" + p.Name, Title: "Mitre", Piece: p.Name, Count: s.Count, Cautions: s.Cautions}
		if shapes != "" && w.spare(p) == 0 { // what is formed on the box is trimmed there
			m.Says = []string{shapes}
		}
		for i, c := range all {
			f := Frame{Says: c.says(p, w.Say), Look: Cutting, Piece: p.Name, N: i}
			if c.Trim {
				m.Frames = append(m.Frames, f)
				m.Minutes += 0.25 * float64(len(c.Away)*s.Count)
			} else {
				s.Frames = append(s.Frames, f)
				s.Minutes += (0.3*float64(len(c.Slits)) + 0.25*float64(len(c.Away))) * float64(s.Count)
			}
		}
		if len(s.Frames) == 0 && len(s.Says) > 0 {
			s.Frames = []Frame{{Says: strings.Join(s.Says, " "), Look: Cutting, Piece: p.Name, N: len(all)}}
		}
		if len(s.Frames) > 1 {
			s.Says = append(s.Says, wayRound(p))
		}
		cut, mitre = append(cut, s), append(mitre, m)
	}
	return append(cut, mitre...)
}

// closures are put on while their pieces are flat.
func (w Work) closures() Step {
	s := Step{ID: "closures", Title: "Closures"}
	for _, p := range w.pieces {
		says := w.putOn(p)
		s.Says = append(s.Says, says...)
		for i, m := range p.Marks {
			s.Frames = append(s.Frames, Frame{Says: says[i], Look: Marked, Piece: p.Name, N: i})
			s.Minutes += 0.5 * float64(p.Count*w.Copies)
			if with, _ := fasteners.Called(m.What); with.Hidden && !slices.Contains(s.Says, magnetsFirst) {
				s.Says = append(s.Says, magnetsFirst)
			}
		}
	}
	for _, e := range w.Box.Errands {
		if e.Title == s.Title {
			s.Says = append(s.Says, e.Says)
			s.Frames = append(s.Frames, Frame{Says: e.Says, Look: Scored, Piece: e.Piece})
			s.Minutes += 0.75 * float64(w.Copies)
		}
	}
	if len(s.Says) > 0 {
		s.Cautions = Take(w.Box.Cautions...)
	}
	return s
}

const magnetsFirst = "Let the two magnets snap together through the card first. The faces that touch must face each other when " +
	"the box is closed: mark them with a pen, and stick each magnet that way round. Cover them last."

// wayRound says how a piece is turned from cut to cut: where every corner is cut alike as it comes
// round, always the same one; else the lit cut says which is next.
func wayRound(p *net.Piece) string {
	next := map[string]string{"left": "top", "top": "right", "right": "bottom", "bottom": "left"}
	slits := SlitsOf(p)
	seen := map[string]string{} // of each edge that a slit begins at, the edge its score is measured from
	for _, s := range slits {
		seen[s.Edge] = s.Of
	}
	one := len(slits) == 4 && len(seen) == 4
	for edge, of := range seen {
		one = one && edge != "" && (next[edge] == of) == (next["left"] == seen["left"])
	}
	if one {
		return "Turn the piece a quarter each time and always cut the same corner."
	}
	return "Make the marked cuts one by one. The corners are different."
}

// DressStanding is what the step is called in which layers go on when all stands.
const DressStanding = "Decorate when it stands"

func (w Work) dress() Step {
	title := "Decorate while flat"
	if w.Dressing.Standing {
		title = DressStanding
	}
	s := Step{ID: "dress", Title: title, Says: w.Dressing.Flat, Minutes: (0.75*float64(w.layers()) + 0.25) * float64(w.Copies)}
	for _, name := range w.Dressing.Layered {
		s.Frames = append(s.Frames, Frame{Says: fmt.Sprintf("The %s from outside, with what lies on it.", words.Plain(name)),
			Look: Dressed, Piece: name})
	}
	return s
}

// Caution is one plain sentence of care, at the step that needs it. It goes by its first words, so that who knows
// it can put it away on the screen; what is printed always has it.
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
	bladeCare = "Use a fresh blade and keep your fingers behind the guard. Close or cover the blade when you put it " +
		"down, and follow its maker's instructions."
	scissorsCare = "Scissors or knife: cut away from your body. Stop at the score."
	glueCare     = "Open a window when you glue, keep glue away from children, and follow its instructions."
)
