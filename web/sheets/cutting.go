package sheets

import (
	"bytes"
	"cmp"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"math"
	"net/http"
	"slices"

	"github.com/labstack/echo/v5"

	"brevium/core/advice"
	"brevium/core/cutting"
	"brevium/core/least"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/core/words"
	"brevium/web/desk"
)

// KeyOf names tasks by all that is asked.
func KeyOf(tasks []cutting.Task) string {
	sum := sha256.New()
	for _, t := range tasks {
		data, err := json.Marshal(t.Task)
		if err != nil {
			return ""
		}
		sum.Write(data)
		sum.Write([]byte(t.Card.ID))
	}
	return hex.EncodeToString(sum.Sum(nil))[:24]
}

// serving is what was found for tasks alike: with the offcuts that are in hand now, and
// the cards as they are.
func serving(found []cutting.Found, tasks []cutting.Task) []cutting.Found {
	out := slices.Clone(found)
	for i := range out {
		out[i].Task = tasks[i]
	}
	return out
}

// soFar names what was found of tasks when nobody looked on any longer.
func soFar(tasks []cutting.Task) string { return KeyOf(tasks) + " so far" }

// Found is what a deep search of tasks found, or found so far; nil when there was none.
func (s *Room) Found(tasks []cutting.Task) (out []cutting.Found, whole bool) {
	if out, ok := s.Cuttings.Of(KeyOf(tasks)); ok {
		return serving(out, tasks), true
	}
	out, _ = s.Cuttings.Of(soFar(tasks))
	return serving(out, tasks), false
}

// Solved looks tasks up, or searches them: it waits for a place, and gives up when its asker has left.
func (s *Room) Solved(ctx context.Context, tasks []cutting.Task) ([]cutting.Found, error) {
	for {
		found, err := s.Cuttings.Get(KeyOf(tasks), func() ([]cutting.Found, error) {
			done, err := s.placeFor(tasks).Take(ctx)
			if err != nil {
				return nil, err
			}
			defer done()
			found := cutting.Search(tasks, func(float64, []cutting.Found, bool) bool { return ctx.Err() == nil })
			return found, ctx.Err()
		})
		if err != nil && ctx.Err() == nil {
			continue // who asked first has left, and this one has not
		}
		return serving(found, tasks), err
	}
}

// placeFor is where tasks are searched: deep ones take seconds.
func (s *Room) placeFor(tasks []cutting.Task) desk.Place {
	if slices.ContainsFunc(tasks, func(t cutting.Task) bool { return t.Work > least.Quick }) {
		return s.Long
	}
	return s.Short
}

// SolvedAtOnce is solved for a search that takes no time to speak of.
func (s *Room) SolvedAtOnce(tasks []cutting.Task) []cutting.Found {
	found, _ := s.Cuttings.Get(KeyOf(tasks), func() ([]cutting.Found, error) { return cutting.Search(tasks, nil), nil })
	return serving(found, tasks)
}

// Best is what was found of tasks, deeply or so far, else what is found at once.
func (s *Room) Best(ctx context.Context, tasks []cutting.Task) ([]cutting.Found, error) {
	if found, _ := s.Found(Deepened(tasks)); found != nil {
		return found, nil
	}
	return s.Solved(ctx, worked(tasks, least.Hasty))
}

// CutAsAsked lays a plan's sheets as its document asks. A deep search that was not made yet is left to who looks on;
// the quick one stands in.
func (s *Room) CutAsAsked(w request.Workshop, p *plan.Plan) *plan.Plan {
	if !p.Asked() {
		return p
	}
	return advice.Cut(p, s.sofarOrHurried(p.Tasks()), w)
}

// CutSetAsAsked is that for a set, all its boxes together.
func (s *Room) CutSetAsAsked(set *sets.Set) *sets.Set {
	if !set.Asked() {
		return set
	}
	return set.Cut(s.sofarOrHurried(set.Tasks()))
}

func (s *Room) sofarOrHurried(tasks []cutting.Task) []cutting.Found {
	if !s.Cuttings.Has(KeyOf(tasks)) {
		tasks = Hurried(tasks)
	}
	return s.SolvedAtOnce(tasks)
}

func Hurried(tasks []cutting.Task) []cutting.Task  { return worked(tasks, least.Quick) }
func Deepened(tasks []cutting.Task) []cutting.Task { return worked(tasks, least.Deep) }

func worked(tasks []cutting.Task, work int) []cutting.Task {
	out := slices.Clone(tasks)
	for i := range out {
		out[i].Work = work
	}
	return out
}

// Progress is what a search tells the page that looks on.
type Progress struct {
	Done   float64 `json:"done"`
	HTML   string  `json:"html,omitempty"`
	Says   string  `json:"says,omitempty"`
	Ended  bool    `json:"ended,omitempty"`
	Better bool    `json:"better,omitempty"`
	Again  bool    `json:"again,omitempty"` // the page is to be shown anew
}

// LeastStream searches tasks and tells the page of it as it goes, until it is done or
// nobody looks on. What was found is remembered.
func (s *Room) LeastStream(c *echo.Context, tasks []cutting.Task, step measure.Step, now []cutting.Cut, again bool) error {
	ctx := c.Request().Context()
	done, err := s.Long.Take(ctx)
	if err != nil {
		return err
	}
	defer done()
	send := streamTo(c.Response())
	told, standing := -1.0, UsesOf(now)
	found := cutting.Search(tasks, func(at float64, found []cutting.Found, better bool) bool {
		p := Progress{Done: at}
		if uses := UsesOf(cutting.Cuts(found)); better && uses.Less(standing, tasks) {
			standing = uses
			p.Better, p.HTML = true, s.boards(found, step)
			p.Says = SaysFound(found)
		}
		if p.Better || at-told > 0.02 {
			told = at
			send(p)
		}
		return ctx.Err() == nil
	})
	if ctx.Err() != nil {
		s.Cuttings.Note(soFar(tasks), found)
		return nil
	}
	s.Cuttings.Note(KeyOf(tasks), found)
	end := Progress{Done: 1, Ended: true, Again: again, Says: SaysFound(found)}
	end.Better = UsesOf(cutting.Cuts(found)).Less(UsesOf(now), tasks)
	if !again {
		end.HTML = s.boards(found, step)
	}
	send(end)
	return nil
}

// streamTo begins an answer that is told bit by bit, and gives what tells the next.
func streamTo(w http.ResponseWriter) func(Progress) {
	w.Header().Set(echo.HeaderContentType, "text/event-stream")
	w.Header().Set(echo.HeaderCacheControl, "no-store")
	w.WriteHeader(http.StatusOK)
	flush := http.NewResponseController(w)
	return func(p Progress) {
		if data, err := json.Marshal(p); err == nil {
			fmt.Fprintf(w, "data: %s\n\n", data)
			_ = flush.Flush() // one who has left is noticed by the context
		}
	}
}

// cutUses is what is cut up: what is paid first, and then the card.
type cutUses struct {
	left, sheets int
	price        int64
	area         float64
}

func UsesOf(cuts []cutting.Cut) (u cutUses) {
	for _, c := range cuts {
		for _, p := range c.TooBig {
			u.left += p.Count
		}
		if u.price += c.Cost(); !c.Offcut {
			u.sheets += len(c.Sheets)
			u.area += c.Sheet.Area() * float64(len(c.Sheets))
		}
	}
	return u
}

// Less reports whether it is less of what the tasks aim at.
func (u cutUses) Less(o cutUses, tasks []cutting.Task) bool {
	price, area := cmp.Compare(u.price, o.price), cmp.Compare(math.Round(u.area), math.Round(o.area))
	order := cmp.Compare(u.left, o.left)
	switch tasks[0].Aim {
	case least.Sheets:
		order = cmp.Or(order, cmp.Compare(u.sheets, o.sheets), price, area)
	case least.Cost:
		order = cmp.Or(order, price, area)
	default:
		order = cmp.Or(order, area, price)
	}
	return order < 0
}

func SaysFound(found []cutting.Found) string {
	n, price := 0, int64(0)
	for _, f := range found {
		n, price = n+f.Count, price+f.Price
	}
	bound, proved := BoundOf(found)
	says := desk.PlainCount(n, "sheet", "sheets")
	if price > 0 {
		says += fmt.Sprintf(" for %s", words.Coins(price))
	}
	if proved {
		return says + ", the fewest possible (proved)."
	}
	return fmt.Sprintf("%s. You need at least %d.", says, bound)
}

// boards renders the sheets of what was found.
func (s *Room) boards(found []cutting.Found, step measure.Step) string {
	v := CutViewOf(cutting.Cuts(found), step, false)
	v.Bound, v.Proved = BoundOf(found)
	var out bytes.Buffer
	if err := s.Pages["bench"]().ExecuteTemplate(&out, "boards", v); err != nil {
		s.Log.Error("the sheets were not drawn", "err", err)
	}
	return out.String()
}
