package logbook

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"net/http"
	"net/url"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/record"
	"brevium/core/shop"
	"brevium/core/style"
	"brevium/core/words"
	"brevium/store"
	"brevium/web/desk"
)

// The logbook: every making there is, across all boxes.

// logLook is what the address asks of the logbook.
type logLook struct {
	store.Look
	Q    string
	Page int // from 1
	url.Values
}

// The parts of an address that look for makings.
var logParts = []string{"q", "whom", "contents", "style", "card", "fit", "from", "to", "project"}

// lookOf reads from the address what is looked for. A day that is none is left out and told.
func (s *Room) lookOf(c *echo.Context) (l logLook, problem string) {
	l.Values = url.Values{}
	text := map[string]string{}
	for _, name := range logParts {
		if t := words.Cut(strings.TrimSpace(c.QueryParam(name)), 120); t != "" {
			text[name] = t
			l.Values.Set(name, t)
		}
	}
	l.Q = text["q"]
	l.Look = store.Look{Ask: record.Question(l.Q, s.Clock()), Project: text["project"], Whom: text["whom"], Contents: text["contents"],
		Style: text["style"], Card: text["card"], Fit: text["fit"]}
	for name, into := range map[string]*string{"from": &l.From, "to": &l.To} {
		if text[name] == "" {
			continue
		}
		d, err := batch.ParseDay(text[name])
		if err != nil {
			problem = words.Capital(err.Error()) + "."
			continue
		}
		*into = d.String()
	}
	l.Page, _ = strconv.Atoi(c.QueryParam("page"))
	l.Page = min(max(l.Page, 1), 100_000)
	return l, problem
}

// Link gives the address of a page of what is looked for.
func (l logLook) Link(path string, n int) string {
	q := url.Values{}
	maps.Copy(q, l.Values)
	if n > 1 {
		q.Set("page", strconv.Itoa(n))
	}
	if len(q) == 0 {
		return path
	}
	return path + "?" + q.Encode()
}

// Without gives the address with one thing less looked for.
func (l logLook) Without(name string) string {
	q := url.Values{}
	for n, of := range l.Values {
		if n != name {
			q[n] = of
		}
	}
	return strings.TrimSuffix("/logbook?"+q.Encode(), "?")
}

// Asked reports whether anything is looked for.
func (l logLook) Asked() bool { return len(l.Values) > 0 }

// Understood tells how a question was read: sizes, how the box fitted, and when it was made.
func (l logLook) Understood() string {
	var out []string
	if sized := l.Sized(); sized != "" {
		out = append(out, "something of about "+sized)
	}
	if fit := map[string]string{"right": "what fitted right", "tight": "what was too tight", "loose": "what was loose"}[l.Ask.Fit]; fit != "" {
		out = append(out, fit)
	}
	switch {
	case l.Since != "" && l.Until == l.Since:
		out = append(out, "what was made on "+desk.DaySaid(l.Since))
	case l.Since != "" && l.Until != "":
		out = append(out, "what was made from "+desk.DaySaid(l.Since)+" to "+desk.DaySaid(l.Until))
	case l.Since != "":
		out = append(out, "what was made since "+desk.DaySaid(l.Since))
	case l.Until != "":
		out = append(out, "what was made until "+desk.DaySaid(l.Until))
	}
	return words.List(out)
}

// Sized tells the sizes that a question was read to ask for, and how near a size must come, in the
// unit of the question.
func (l logLook) Sized() string {
	if len(l.Said) == 0 {
		return ""
	}
	near := "1/16 in"
	if strings.Contains(strings.ToLower(strings.Join(l.Said, " ")), "m") {
		near = "1.5 mm"
	}
	return words.List(l.Said) + ", give or take " + near
}

func (s *Room) Logbook(c *echo.Context) error { return s.logbookWith(c, http.StatusOK, "", "") }

func (s *Room) logbookWith(c *echo.Context, code int, problem, notice string) error {
	ctx := c.Request().Context()
	l, bad := s.lookOf(c)
	makings, all, err := s.Store.Log.Page(ctx, l.Look, l.Page-1)
	if err != nil {
		return err
	}
	if problem == "" {
		problem = bad
	}
	last := (min(all, store.MostLog+store.PerLog) + store.PerLog - 1) / store.PerLog
	if all > store.MostLog {
		last = l.Page + 1 // nobody counts further
	}
	v := &logPage{Page: desk.Page{Title: "Logbook"}, L: l, Makings: makings, All: all, Many: all > store.MostLog, Problem: problem,
		Notice: notice, Last: max(1, last), Styles: style.Styles, Cards: s.Workshop(c.Request().Context()).Cards}
	if l.Card != "" {
		if card, ok := s.Workshop(c.Request().Context()).Card(l.Card); ok {
			v.CardTitle = card.Title
		} else if len(makings) > 0 {
			v.CardTitle = makings[0].Title
		}
	}
	if (l.Ask.Fit == "right" || len(l.Sizes) > 0) && len(makings) > 0 {
		if v.Answer, v.AnswerLine, err = s.answerOf(ctx, makings[0].ID); err != nil {
			return err
		}
	}
	return s.Render(c, code, "logbook", v)
}

// logPage is a page of the logbook.
type logPage struct {
	desk.Page
	L                                      logLook
	Makings                                []record.Making
	All, Last                              int
	Many                                   bool
	Problem, Notice, CardTitle, AnswerLine string
	Styles                                 []*style.Style
	Cards                                  []shop.Card
	Answer                                 *record.Making // to what was asked
}

// answerOf is the last making that answers a question, with how large its box is.
func (s *Room) answerOf(ctx context.Context, id string) (*record.Making, string, error) {
	m, err := s.Store.Log.Making(ctx, id)
	if err != nil {
		return nil, "", err
	}
	b, err := m.Brief()
	if err != nil {
		return &m, "", nil // it came from a list
	}
	p := s.Work.Make(ctx, b, "").Plan
	if !p.OK() {
		return &m, "", nil
	}
	show, in := p.Step.ShowDown, p.Box.Inside
	other := fmt.Sprintf("%s × %s × %s", show(in.Length).Other, show(in.Width).Other, show(in.Depth).Other)
	return &m, fmt.Sprintf("%s, %s × %s × %s %s inside (%s).", p.Style.Title, show(in.Length).Text, show(in.Width).Text,
		show(in.Depth).Text, p.Step.Unit, other), nil
}

// LogYears gives what the makings that are looked for come to by the year.
func (s *Room) LogYears(c *echo.Context) error {
	l, _ := s.lookOf(c)
	totals, err := s.Store.Log.Totals(c.Request().Context(), l.Look)
	if err != nil {
		return err
	}
	return s.Render(c, http.StatusOK, "years", &yearsPage{desk.Page{Title: "The logbook by the year"}, l, totals})
}

// yearsPage is what the makings come to by the year.
type yearsPage struct {
	desk.Page
	L      logLook
	Totals []record.Total
}

// LogOut gives the makings that are looked for as CSV or JSON.
func (s *Room) LogOut(c *echo.Context) error {
	l, _ := s.lookOf(c)
	all := []record.Making{}
	err := s.Store.Log.EachMaking(c.Request().Context(), l.Look, func(m record.Making) error {
		all = append(all, m)
		return nil
	})
	if err != nil {
		return err
	}
	as := c.Param("as")
	c.Response().Header().Set("Content-Disposition", `attachment; filename="logbook.`+as+`"`)
	switch as {
	case "csv":
		var out bytes.Buffer
		if err := record.Write(&out, all); err != nil {
			return err
		}
		return c.Blob(http.StatusOK, "text/csv; charset=utf-8", out.Bytes())
	case "json":
		out, err := json.MarshalIndent(struct {
			Version int             `json:"brevium-logbook"`
			Makings []record.Making `json:"makings"`
		}{1, all}, "", "  ")
		if err != nil {
			return err
		}
		return c.Blob(http.StatusOK, "application/json", out)
	}
	return echo.ErrNotFound
}

// ReadLog brings makings in from CSV, all of them or, with the line that is wrong, none.
func (s *Room) ReadLog(c *echo.Context) error {
	file, err := desk.Uploaded(c, "log")
	if err != nil {
		return s.logbookWith(c, http.StatusBadRequest,
			"No file was chosen. Choose a CSV file with headings such as date, box, count, for, fit.", "")
	}
	w := s.Workshop(c.Request().Context())
	all, err := record.Read(bytes.NewReader(file), func(title string) string {
		for _, card := range w.Cards {
			if strings.EqualFold(card.Title, title) || card.ID == title {
				return card.ID
			}
		}
		return ""
	})
	if err != nil {
		return s.logbookWith(c, http.StatusUnprocessableEntity, "Nothing was added: "+err.Error()+".", "")
	}
	keyed(all)
	ids, err := s.Store.Log.Record(c.Request().Context(), all...)
	if err != nil {
		return err
	}
	says := "Added " + desk.PlainCount(len(ids), "logbook entry", "logbook entries") + "."
	if had := len(all) - len(ids); had > 0 {
		says += " " + desk.PlainCount(had, "was", "were") + " already there."
	}
	return s.logbookWith(c, http.StatusOK, "", says)
}

// keyed gives makings of a list keys by what they say, so that the same list brought in twice
// stands there once. Lines that are alike in one list are told apart by their turn.
func keyed(all []record.Making) {
	turn := map[string]int{}
	for i := range all {
		line, _ := json.Marshal(all[i])
		sum := desk.Sum(line)[:24]
		turn[sum]++
		all[i].Key = fmt.Sprintf("list-%s-%d", sum, turn[sum])
	}
}
