package web

import (
	"context"
	"crypto/sha256"
	"errors"
	"fmt"
	"maps"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/brief"
	"brevium/core/paths"
	"brevium/core/record"
	"brevium/core/words"
	"brevium/store"
)

// What is typed in a batch, and what its buttons do.

// typedBatch lays a form on a batch: orders keep their boxes.
func typedBatch(was batch.Document, values url.Values) batch.Document {
	d := was
	d.Orders = slices.Clone(was.Orders)
	d.Hours = map[string]brief.Text{}
	maps.Copy(d.Hours, was.Hours)
	for path, v := range values {
		name, _, _ := strings.Cut(path, ".")
		if len(v) > 0 && slices.Contains([]string{"name", "by", "from", "hands", "notes", "orders", "hours"}, name) &&
			!strings.HasSuffix(path, ".box") && !strings.HasSuffix(path, ".id") {
			paths.Set(&d, path, words.Cut(strings.TrimSpace(v[len(v)-1]), 300))
		}
	}
	return d
}

// changeBatch keeps what is typed in a batch, and does what its button says.
func (s *Server) changeBatch(c *echo.Context) error {
	ctx := c.Request().Context()
	values, err := c.FormValues()
	if err != nil {
		return err
	}
	now, err := s.store.Batch(ctx, c.Param("batch"))
	if err != nil {
		return err
	}
	d := typedBatch(now.Document, values)
	if day, err := batch.ParseDay(values.Get("day")); err == nil { // one day that is otherwise
		if d.Hours[day.String()] = brief.Text(strings.TrimSpace(values.Get("day-hours"))); d.Hours[day.String()] == "" {
			d.Hours[day.String()] = "none"
		}
	}
	act, arg, _ := strings.Cut(values.Get("act"), ":")
	notice, err := s.actBatch(ctx, &d, act, arg, values)
	if err != nil {
		return err
	}
	base, _ := strconv.ParseInt(values.Get("base"), 10, 64)
	if notice == "" {
		err = s.store.KeepBatch(ctx, now.ID, base, d)
	}
	if errors.Is(err, store.ErrMoved) {
		notice = "Another window has changed this batch since. What you typed stands here and is not kept yet: look at it, and " +
			"press “Plan it” to keep it in place of that."
	} else if err != nil {
		return err
	}
	if notice != "" {
		now.Document = d
		st, err := s.readBatch(ctx, now)
		if err != nil {
			return err
		}
		st.Notice = notice
		return s.showBatch(c, http.StatusConflict, st)
	}
	if act == "handed" {
		if err := s.handedOver(ctx, d, arg); err != nil {
			return err
		}
	}
	return c.Redirect(http.StatusSeeOther, "/batches/"+now.ID)
}

// actBatch does what a button of a batch asks, or says why not.
func (s *Server) actBatch(ctx context.Context, d *batch.Document, act, arg string, values url.Values) (notice string, err error) {
	i := d.Of(arg)
	switch act {
	case "add":
		name := strings.TrimSpace(values.Get("add"))
		head, err := s.store.Called(ctx, name)
		switch {
		case errors.Is(err, store.ErrNone):
			return fmt.Sprintf("None of your boxes is called “%s”. Write its name as it stands under Boxes.", words.Cut(name,
				60)), nil
		case err != nil:
			return "", err
		case len(d.Orders) >= batch.MostOrders:
			return fmt.Sprintf("A batch holds %d orders at the most.", batch.MostOrders), nil
		}
		addOrder(d, orderOf(head))
	case "remove":
		if i >= 0 {
			d.Orders = slices.Delete(d.Orders, i, i+1)
		}
	case "pack", "unpack", "handed", "unhand":
		if i >= 0 {
			d.Orders[i].State = map[string]brief.Text{"pack": batch.Packed, "handed": batch.Handed}[act]
		}
	case "renew":
		if i < 0 {
			return "", nil
		}
		head, err := s.store.Head(ctx, d.Orders[i].Project)
		if errors.Is(err, store.ErrNone) {
			return "That box is not there any more; the order keeps it as it was.", nil
		}
		if err != nil {
			return "", err
		}
		d.Orders[i].Box, d.Orders[i].Revision = head.Brief.Encode(), head.ID
	}
	return "", nil
}

// addOrder adds an order under an identity that none before it had: what is ticked goes by that.
func addOrder(d *batch.Document, o batch.Order) {
	o.ID = newMark()
	d.Add(o)
}

// handedOver writes an order into the logbook.
func (s *Server) handedOver(ctx context.Context, d batch.Document, id string) error {
	read := batch.Read(d, nil, s.today(), s.workshop())
	i := d.Of(id)
	if i < 0 || read.Orders[i].Copy == 0 {
		return nil
	}
	o := read.Orders[i]
	m := record.Of(o.Brief, s.clock())
	m.Project, m.Revision, m.Count, m.Whom = o.Project, o.Revision, o.Copy, words.Cut(string(o.Order.Name), 120)
	m.Key = fmt.Sprintf("order-%s-%s", c256(o.Box)[:12], c256([]byte(id + "-" + string(o.By) + "-" + string(o.Order.Name)))[:12])
	if made := s.planner()(o.Brief); made.OK() {
		s.reckoned(&m, made.Job)
		m.Count = o.Copy
	}
	if o.Words != "" {
		m.Notes = "On the tag: " + string(o.Words)
	}
	_, err := s.store.Record(ctx, m)
	return err
}

func c256(data []byte) string { return fmt.Sprintf("%x", sha256.Sum256(data)) }

// ordersIn takes an order list from CSV in, after the orders there are.
func (s *Server) ordersIn(c *echo.Context) error {
	ctx := c.Request().Context()
	st, err := s.batchAt(c)
	if err != nil {
		return err
	}
	file, err := uploaded(c, "list")
	if err != nil {
		st.Notice = "Choose an order list first: a CSV with headings such as name, box, count, by."
		return s.showBatch(c, http.StatusBadRequest, st)
	}
	orders, err := s.readOrders(ctx, file)
	if err == nil && len(st.Document.Orders)+len(orders) > batch.MostOrders {
		err = fmt.Errorf("with it there would be %d orders; the most is %d", len(st.Document.Orders)+len(orders),
			batch.MostOrders)
	}
	if err != nil {
		st.Notice = "The order list was not taken in: " + err.Error() + "."
		return s.showBatch(c, http.StatusUnprocessableEntity, st)
	}
	for _, o := range orders {
		addOrder(&st.Document, o)
	}
	switch err := s.store.KeepBatch(ctx, st.ID, st.Revision, st.Document); {
	case errors.Is(err, store.ErrMoved):
		st.Notice = "Another window has just changed this batch, so the list was not taken in. Bring it in once more."
		return s.showBatch(c, http.StatusConflict, st)
	case err != nil:
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/batches/"+st.ID)
}
