package web

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"html/template"
	"net/http"
	"slices"
	"strings"
	"sync"

	"github.com/labstack/echo/v5"

	"brevium/core/brief"
	"brevium/core/layout"
	"brevium/core/least"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/shop"
	"brevium/draw"
)

// cuttings remembers what was found of tasks that were searched: the same task has the
// same answer for ever.
type cuttings struct {
	sync.Mutex
	found map[string][]plan.Found
	order []string
}

// mostCuttings is how many are remembered, the newest.
const mostCuttings = 60

func (c *cuttings) of(key string) []plan.Found {
	c.Lock()
	defer c.Unlock()
	return c.found[key]
}

func (c *cuttings) note(key string, found []plan.Found) {
	c.Lock()
	defer c.Unlock()
	if c.found == nil {
		c.found = map[string][]plan.Found{}
	}
	if _, known := c.found[key]; !known {
		if c.order = append(c.order, key); len(c.order) > mostCuttings {
			delete(c.found, c.order[0])
			c.order = c.order[1:]
		}
	}
	c.found[key] = found
}

// keyOf names tasks by all that is asked.
func keyOf(tasks []plan.Task) string {
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

// solved looks tasks up, or searches them.
func (s *Server) solved(tasks []plan.Task) []plan.Found {
	key := keyOf(tasks)
	if found := s.cuttings.of(key); found != nil {
		return found
	}
	found := plan.Search(tasks, nil)
	s.cuttings.note(key, found)
	return found
}

// cutAsAsked lays a plan's sheets as its document asks. A deep search that was not made
// yet is left to who looks on; the quick one stands in.
func (s *Server) cutAsAsked(p *plan.Plan, whole bool) {
	if !p.OK() || !p.Cutting.Asked || len(p.Layout.TooBig) > 0 {
		return
	}
	tasks := p.Tasks()
	if found := s.cuttings.of(keyOf(tasks)); found != nil || whole {
		p.Take(s.solved(tasks))
		return
	}
	p.Take(s.solved(hurried(tasks)))
}

func hurried(tasks []plan.Task) []plan.Task {
	out := slices.Clone(tasks)
	for i := range out {
		out[i].Work = min(out[i].Work, least.Quick)
	}
	return out
}

func deepened(tasks []plan.Task) []plan.Task {
	out := slices.Clone(tasks)
	for i := range out {
		out[i].Work = least.Deep
	}
	return out
}

// cutView is the sheets of something as a page shows them.
type cutView struct {
	Kinds    []cutKind
	Count    int // sheets that are bought
	Offcuts  int
	Bound    int
	Proved   bool
	Used     float64
	Waste    string
	Price    int64
	Largest  string // offcut
	Settings int
	Cuts     int
	Hidden   int // kinds that are not drawn
	Left     []string
	Live     string // where a search goes on, "" when there is nothing to look for
	Key      string
	Hands    bool
}

// cutKind is sheets that are cut alike.
type cutKind struct {
	N      int
	Title  string
	Alike  int
	Says   string
	SVG    template.HTML
	Steps  []layout.Step
	Placed []layout.Placed
}

const mostDrawn = 18

// cutViewOf makes the view of what is cut. Hands says that pieces can be held.
func cutViewOf(cuts []plan.Cut, step measure.Step, hands bool) cutView {
	v := cutView{Hands: hands}
	known := map[string]int{}
	say := func(l measure.Length) string { return strings.ReplaceAll(step.Show(l).String(), "⁄", "/") }
	largest, used, area, n := layout.Rect{}, 0.0, 0.0, 0
	one := layout.Layout{}
	for _, c := range cuts {
		for _, p := range c.TooBig {
			v.Left = append(v.Left, fmt.Sprintf("%d of %s (%s × %s)", p.Count, p.Name, say(p.W), say(p.H)))
		}
		if v.Price += c.Cost(); c.Offcut {
			v.Offcuts += len(c.Sheets)
		} else {
			v.Count += len(c.Sheets)
		}
		for _, s := range c.Sheets {
			whole := s.W.MM() * s.H.MM()
			area, v.Cuts = area+whole, v.Cuts+len(s.Cuts)
			one.Sheets = append(one.Sheets, s)
			for _, p := range s.Placed {
				used += p.Rect.Area()
			}
			for _, o := range s.Offcuts {
				if o.Area() > largest.Area() {
					largest = o
				}
			}
			mark := fmt.Sprint(c.Card.ID, c.Sheet.Title, c.Offcut, s.Cuts, s.Placed)
			for _, p := range s.Placed { // copies are told apart only by where a hand put them
				if p.Pinned {
					mark += fmt.Sprint(n)
				}
			}
			if at, ok := known[mark]; ok && at < len(v.Kinds) {
				v.Kinds[at].Alike++
			} else if known[mark] = len(v.Kinds); len(v.Kinds) < mostDrawn {
				v.Kinds = append(v.Kinds, kindOf(c, s, n, step, say, hands, len(cuts) > 1))
			} else {
				v.Hidden++
			}
			n++
		}
	}
	if v.Settings = one.Settings(); area > 0 {
		v.Used, v.Waste = used/area, areaSaid(area-used, step)
	}
	if largest.W > 0 {
		v.Largest = step.Show(largest.W).Text + " × " + step.Show(largest.H).Text + " " + string(step.Unit)
	}
	return v
}

func areaSaid(mm2 float64, step measure.Step) string {
	if step.Unit == measure.Inches {
		return fmt.Sprintf("%.0f sq in", mm2/645.16)
	}
	return fmt.Sprintf("%.0f cm²", mm2/100)
}

func kindOf(c plan.Cut, s layout.Sheet, n int, step measure.Step, say func(measure.Length) string, hands, several bool) cutKind {
	k := cutKind{N: n, Alike: 1, Title: fmt.Sprintf("Sheet %d", n+1), Placed: s.Placed, Steps: s.Steps(say)}
	k.Says = c.Sheet.Title
	if several && c.Card.Title != "" {
		k.Says += ", " + c.Card.Title
	}
	k.SVG = template.HTML(draw.CutSheet(s, draw.CutLook{N: n, W: 330, H: 400, Card: c.Card, Step: step, Hands: hands}))
	return k
}

// cutViewOfPlan is the view of a plan's sheets, with where to look for better.
func (s *Server) cutViewOfPlan(st *state, path, here string) cutView {
	p := st.Shown
	v := cutViewOf(p.Cuts, p.Step, p == st.Plan)
	v.Bound, v.Proved = p.Layout.Bound, p.Proved()
	if len(p.Layout.TooBig) > 0 || p != st.Plan {
		return v
	}
	if deep := deepened(p.Tasks()); s.cuttings.of(keyOf(deep)) == nil && !v.Proved {
		v.Live, v.Key = path+"/least"+here, keyOf(deep)
	}
	return v
}

// progress is what a search tells the page that looks on.
type progress struct {
	Done   float64 `json:"done"`
	HTML   string  `json:"html,omitempty"`
	Says   string  `json:"says,omitempty"`
	Ended  bool    `json:"ended,omitempty"`
	Better bool    `json:"better,omitempty"`
	Again  bool    `json:"again,omitempty"` // the page is to be shown anew
}

// leastStream searches tasks and tells the page of it as it goes, until it is done or
// nobody looks on. What was found is remembered.
func (s *Server) leastStream(c *echo.Context, tasks []plan.Task, step measure.Step, now []plan.Cut, again bool) error {
	ctx := c.Request().Context()
	done, err := s.turn(ctx)
	if err != nil {
		return err
	}
	defer done()
	w := c.Response()
	w.Header().Set(echo.HeaderContentType, "text/event-stream")
	w.Header().Set(echo.HeaderCacheControl, "no-store")
	w.WriteHeader(http.StatusOK)
	flush := http.NewResponseController(w)
	send := func(p progress) {
		data, err := json.Marshal(p)
		if err == nil {
			fmt.Fprintf(w, "data: %s\n\n", data)
			_ = flush.Flush() // one who has left is noticed by the context
		}
	}
	told, standing := -1.0, usesOf(now)
	found := plan.Search(tasks, func(at float64, found []plan.Found, better bool) bool {
		p := progress{Done: at}
		if uses := usesOf(plan.Cuts(found)); better && uses.less(standing) {
			standing = uses
			p.Better, p.HTML = true, s.boards(found, step)
			p.Says = saysFound(found)
		}
		if p.Better || at-told > 0.02 {
			told = at
			send(p)
		}
		return ctx.Err() == nil
	})
	if ctx.Err() != nil {
		return nil
	}
	s.cuttings.note(keyOf(tasks), found)
	end := progress{Done: 1, Ended: true, Again: again, Says: saysFound(found)}
	if uses := usesOf(plan.Cuts(found)); uses.less(usesOf(now)) {
		end.Better, end.HTML = true, s.boards(found, step)
	}
	send(end)
	return nil
}

// cutUses is what is cut up: what is paid first, and then the card.
type cutUses struct {
	left, sheets int
	price        int64
	area         float64
}

func usesOf(cuts []plan.Cut) (u cutUses) {
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

func (u cutUses) less(o cutUses) bool {
	if u.left != o.left {
		return u.left < o.left
	}
	if u.price != o.price {
		return u.price < o.price
	}
	return u.area < o.area-1
}

func saysFound(found []plan.Found) string {
	n, bound, proved, price := 0, 0, true, int64(0)
	for _, f := range found {
		n, bound, price = n+f.Count, bound+f.Layout.Bound, price+f.Price
		proved = proved && f.Result.Proved
	}
	says := plainCount(n, "sheet", "sheets")
	if price > 0 {
		says += fmt.Sprintf(" for %s", coins(price))
	}
	if proved {
		return says + ", and less can't be done: that is proved."
	}
	return fmt.Sprintf("%s; at least %d are wanted.", says, bound)
}

// boards renders the sheets of what was found.
func (s *Server) boards(found []plan.Found, step measure.Step) string {
	v := cutViewOf(plan.Cuts(found), step, false)
	for _, f := range found {
		v.Bound += f.Layout.Bound
	}
	v.Proved = !slices.ContainsFunc(found, func(f plan.Found) bool { return !f.Result.Proved })
	var out bytes.Buffer
	if err := s.pages["bench"].ExecuteTemplate(&out, "boards", v); err != nil {
		s.log.Error("the sheets were not drawn", "err", err)
	}
	return out.String()
}

// leastOfPlan streams the deep search of a project's sheets.
func (s *Server) leastOfPlan(c *echo.Context) error {
	st, err := s.state(c)
	if err != nil {
		return err
	}
	if st.Shown == nil || !st.Plan.OK() {
		return echo.NewHTTPError(http.StatusNotFound, "There is no plan to lay on sheets yet.")
	}
	p := st.Plan
	return s.leastStream(c, deepened(p.Tasks()), p.Step, p.Cuts, p.Cutting.Deep)
}

// wayToCut is one of the ways shown side by side.
type wayToCut struct {
	Title, Why string
	View       cutView
	Set        map[string]string
	Here       bool
	Small      template.HTML
}

// waysToCut lays a plan's sheets by each aim, side by side.
func (s *Server) waysToCut(c *echo.Context) error {
	st, err := s.state(c)
	if err != nil {
		return err
	}
	if !st.Plan.OK() {
		return echo.NewHTTPError(http.StatusNotFound, "There is no plan to lay on sheets yet.")
	}
	done, err := s.turn(c.Request().Context())
	if err != nil {
		return err
	}
	defer done()
	var ways []wayToCut
	for _, w := range []struct{ title, why, aim, tie, sizes string }{
		{"Fewest sheets", "of the sheet that was chosen", "sheets", "offcut", "one"},
		{"Largest offcut", "of any size it comes in, fewest sheets", "sheets", "offcut", "any"},
		{"Fewest settings", "the stop is moved least", "sheets", "stops", "one"},
		{"Least cost", "any size it comes in", "cost", "offcut", "any"},
		{"Least card", "any size it comes in", "card", "offcut", "any"},
	} {
		b := st.Brief.Clone()
		set := map[string]string{"sheets.aim": w.aim, "sheets.among-equals": w.tie, "sheets.sizes": w.sizes}
		for field, text := range brief.Sorted(set) {
			b.Set(field, text)
		}
		p := plan.Make(b, s.workshop())
		if !p.OK() {
			continue
		}
		found := s.solved(hurried(p.Tasks()))
		p.Take(found)
		v := cutViewOf(p.Cuts, p.Step, false)
		v.Bound, v.Proved = p.Layout.Bound, p.Proved()
		ways = append(ways, wayToCut{Title: w.title, Why: w.why, View: v, Set: set,
			Here:  string(st.Brief.Sheets.Aim) == w.aim && string(st.Brief.Sheets.Tie) == w.tie && string(st.Brief.Sheets.Sizes) == w.sizes,
			Small: template.HTML(draw.Sheets(p, 260, 150, 6))})
	}
	v := viewOf(c).opened(st)
	return s.render(c, http.StatusOK, "cutways", map[string]any{"Title": "Ways to cut it", "Part": "cutways", "S": st, "Ways": ways,
		"Path": "/projects/" + c.Param("id"), "Here": v.with(), "Base": st.ID})
}

// nearly lists the changes that are a hair from saving.
func (s *Server) nearly(c *echo.Context) error {
	st, err := s.state(c)
	if err != nil {
		return err
	}
	if !st.Plan.OK() {
		return echo.NewHTTPError(http.StatusNotFound, "There is no plan to change yet.")
	}
	done, err := s.turn(c.Request().Context())
	if err != nil {
		return err
	}
	defer done()
	v := viewOf(c).opened(st)
	return s.render(c, http.StatusOK, "nearly", map[string]any{"Title": "A hair less", "Part": "nearly", "S": st,
		"Near": st.Plan.Nearly(s.workshop()), "Path": "/projects/" + c.Param("id"), "Here": v.with(), "Base": st.ID})
}

// takeDeep keeps what a deep search found.
func (s *Server) takeDeep(_ context.Context, c changing) error {
	c.brief.Sheets.Look = "deep"
	return nil
}

// holdPiece holds a piece where it lies, or so much further: "sheet:piece:how".
func (s *Server) holdPiece(_ context.Context, c changing) error {
	var n, i int
	how := ""
	if _, err := fmt.Sscanf(strings.ReplaceAll(c.arg, ":", " "), "%d %d %s", &n, &i, &how); err != nil {
		return echo.NewHTTPError(http.StatusBadRequest, "That button does nothing here. Load the page again.")
	}
	p := s.make(*c.seen, "").plan
	if !p.OK() || n < 0 || n >= len(p.Layout.Sheets) || i < 0 || i >= len(p.Layout.Sheets[n].Placed) {
		c.notice = "That piece lies elsewhere now: another window has changed it."
		return nil
	}
	sheet := p.Layout.Sheets[n]
	it, nth := sheet.Placed[i], 1
	for _, before := range p.Layout.Sheets[:n] {
		if before.Stock == sheet.Stock {
			nth++
		}
	}
	size := ""
	for _, cut := range p.Cuts {
		if cut.Card.ID == sheet.Stock && cut.Sheet.Title == sheet.Title && !cut.Offcut {
			size = cut.Sheet.ID
		}
	}
	pin := brief.Pin{Piece: brief.Text(it.Piece), Sheet: brief.Whole(fmt.Sprint(nth)), Size: brief.Text(size),
		X: brief.Text(it.Rect.X.Exact(p.Units)), Y: brief.Text(it.Rect.Y.Exact(p.Units))}
	if it.Turned {
		pin.Turned = "yes"
	}
	pins := slices.DeleteFunc(slices.Clone(c.brief.Sheets.Pins), func(o brief.Pin) bool {
		return o.Piece == pin.Piece && o.Sheet == pin.Sheet && o.X == pin.X && o.Y == pin.Y
	})
	if how != "free" {
		pins = append(pins, moved(pin, how, it.Rect, sheet, p))
	}
	c.brief.Sheets.Pins = pins
	c.focus = "holding"
	return nil
}

// holding is what can be done with a piece that is held.
type holding struct{ How, Says string }

var holdings = []holding{{"here", "Hold it here"}, {"left", "←"}, {"right", "→"}, {"up", "↑"}, {"down", "↓"}, {"turn", "Turn it"},
	{"free", "Let it go"}}

// moved is a pin so much further, within the sheet.
func moved(pin brief.Pin, how string, at layout.Rect, on layout.Sheet, p *plan.Plan) brief.Pin {
	step := p.Step.Size
	switch how {
	case "left":
		at.X -= step
	case "right":
		at.X += step
	case "up":
		at.Y -= step
	case "down":
		at.Y += step
	case "turn":
		at.W, at.H = at.H, at.W
		if pin.Turned == "yes" {
			pin.Turned = ""
		} else {
			pin.Turned = "yes"
		}
	}
	m := p.Cutting.Margin
	at.X, at.Y = max(m, min(at.X, on.W-m-at.W)), max(m, min(at.Y, on.H-m-at.H))
	pin.X, pin.Y = brief.Text(at.X.Exact(p.Units)), brief.Text(at.Y.Exact(p.Units))
	return pin
}

func (s *Server) unpinAll(_ context.Context, c changing) error {
	c.brief.Sheets.Pins = nil
	return nil
}

// needsOf is what cuts take of the shop: of cards as they are there now, whatever a box
// was planned with.
func needsOf(cuts []plan.Cut, w plan.Workshop) (out []shop.Need) {
	for _, c := range cuts {
		if c.Offcut || len(c.Sheets) == 0 {
			continue
		}
		if now, ok := w.Card(c.Card.ID); ok {
			c.Card = now
		}
		out = append(out, shop.Need{Card: c.Card, Sheet: c.Sheet, Count: len(c.Sheets)})
	}
	return out
}
