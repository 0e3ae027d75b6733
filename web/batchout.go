package web

import (
	"bytes"
	"fmt"
	"net/http"
	"strings"
	"time"

	ics "github.com/arran4/golang-ical"
	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/shop"
	"brevium/core/words"
)

// What leaves the page of a batch: the calendar, lists, labels, the schedule to print.

// calendar gives the sittings as a calendar file, in local time wherever it is read.
func (s *Server) calendar(c *echo.Context) error {
	st, err := s.batchAt(c)
	if err != nil {
		return err
	}
	pace, err := s.paceNow(c.Request().Context())
	if err != nil {
		return err
	}
	if !st.Read.OK() {
		return echo.NewHTTPError(http.StatusConflict, "There are no sittings yet: something in the batch is to be mended first.")
	}
	sheets, err := s.sheetsOf(c.Request().Context(), st)
	if err != nil {
		return err
	}
	cal := calendarOf(st, sittingsOf(st.Read.Share(st.Done, pace), sheets), s.clock())
	c.Response().Header().Set("Content-Disposition", `attachment; filename="`+fileName(string(st.Document.Name))+`.ics"`)
	return c.Blob(http.StatusOK, "text/calendar; charset=utf-8", []byte(cal))
}

func calendarOf(st *batchState, sittings []sittingView, now time.Time) string {
	cal := ics.NewCalendarFor("Brevium")
	cal.SetMethod(ics.MethodPublish)
	name := called(string(st.Document.Name), "A batch")
	for _, s := range sittings {
		e := cal.AddEvent(fmt.Sprintf("%s-%s@brevium", st.ID, s.Day))
		e.SetDtStampTime(now.UTC())
		local := func(minutes int) string {
			return s.Day.Add(time.Duration(minutes) * time.Minute).Format("20060102T150405")
		}
		e.SetProperty(ics.ComponentPropertyDtStart, local(s.Begins))
		e.SetProperty(ics.ComponentPropertyDtEnd, local(s.Begins+s.Minutes))
		var titles, says []string
		for _, w := range s.Stages {
			titles = append(titles, words.Small(w.Title))
			line := fmt.Sprintf("%s %s, %d min:", w.Clock(), w.Title, w.Minutes)
			for _, entry := range w.Entries {
				line += " " + entry.Says() + ";"
			}
			says = append(says, strings.TrimSuffix(line, ";"))
		}
		e.SetSummary(name + ": " + words.List(titles))
		e.SetDescription(strings.Join(says, "\n"))
	}
	return cal.Serialize()
}

// ordersOut gives the order list as CSV.
func (s *Server) ordersOut(c *echo.Context) error {
	st, err := s.batchAt(c)
	if err != nil {
		return err
	}
	var out bytes.Buffer
	if err := st.Read.WriteOrders(&out); err != nil {
		return err
	}
	asFile(c, "orders.csv")
	return c.Blob(http.StatusOK, "text/csv; charset=utf-8", out.Bytes())
}

// batchShopping gives what is to be bought for all of it.
func (s *Server) batchShopping(c *echo.Context) error {
	st, err := s.batchAt(c)
	if err != nil {
		return err
	}
	if !st.Read.OK() {
		return echo.NewHTTPError(http.StatusConflict,
			"There is nothing to buy yet: something in the batch is to be mended first.")
	}
	sheets, err := s.sheetsOf(c.Request().Context(), st)
	if err != nil {
		return err
	}
	var out bytes.Buffer
	if err := shop.WriteShopping(&out, sheets.Buys); err != nil {
		return err
	}
	asFile(c, "shopping.csv")
	return c.Blob(http.StatusOK, "text/csv; charset=utf-8", out.Bytes())
}

// label is what stands on the bag of an order that is packed away.
type label struct {
	orderView
	Done, Left []string
}

// labels is a page of labels to print: for what is packed away, or for every order.
func (s *Server) labels(c *echo.Context) error {
	st, err := s.batchAt(c)
	if err != nil {
		return err
	}
	pace, err := s.paceNow(c.Request().Context())
	if err != nil {
		return err
	}
	var out []label
	for _, o := range s.ordersOf(c, st, batch.Shared{}, pace) {
		if o.State == batch.Handed || c.QueryParam("all") == "" && o.State != batch.Packed {
			continue
		}
		l := label{orderView: o}
		for _, d := range o.Stages {
			if d.Whole() {
				l.Done = append(l.Done, words.Small(d.Title))
			} else {
				l.Left = append(l.Left, words.Small(d.Title))
			}
		}
		out = append(out, l)
	}
	return s.render(c, http.StatusOK, "labels", map[string]any{"Title": "Labels: " + called(string(st.Document.Name),
		"A batch"),
		"Labels": out, "Path": "/batches/" + st.ID, "Name": called(string(st.Document.Name), "A batch"), "Bare": true})
}

// schedulePrint is the schedule to print: the sittings with boxes to tick.
func (s *Server) schedulePrint(c *echo.Context) error {
	st, err := s.batchAt(c)
	if err != nil {
		return err
	}
	ctx := c.Request().Context()
	pace, err := s.paceNow(ctx)
	if err != nil {
		return err
	}
	data := map[string]any{"Title": "To print: " + called(string(st.Document.Name), "A batch"), "B": st,
		"Path": "/batches/" + st.ID,
		"Name": called(string(st.Document.Name), "A batch"), "Bare": true}
	if st.Read.OK() {
		sheets, err := s.sheetsOf(ctx, st)
		if err != nil {
			return err
		}
		sh := st.Read.Share(st.Done, pace)
		data["Work"], data["Sheets"], data["Sittings"], data["Orders"] = sh, sheets, sittingsOf(sh, sheets), s.ordersOf(c, st,
			sh, pace)
	}
	return s.render(c, http.StatusOK, "schedule", data)
}
