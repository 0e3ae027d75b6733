package batches

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"net/http"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/brief"
	"brevium/core/document"
	"brevium/core/words"
	"brevium/store"
	"brevium/web/desk"
)

// Many boxes by a date.

type batchHead = store.Head[batch.Document]

// BatchKind is what the engine needs to know to change batches.
func (s *Room) BatchKind(*echo.Context) desk.Kind[batch.Document] {
	return desk.Kind[batch.Document]{
		Kept: s.Store.Batches, Form: batch.Form,
		Known: func(path string) bool {
			return desk.InForm(batch.Form)(path) && !strings.HasPrefix(path, "done.") && !strings.HasSuffix(path, ".state")
		},
		Written: func(path, text string, _, _ *batch.Document) string { return strings.TrimSpace(text) },
		Nudged:  desk.NudgeCount(batch.Form), Act: s.actBatch,
		Of:   func(c *echo.Context) (string, string) { return c.Param("batch"), "" },
		Says: func(was, now *batch.Document, _ string) string { return desk.Changed(batch.Form, was, now) },
		Show: s.showBatch,
		At:   func(_ *echo.Context, id, _ string) string { return "/batches/" + id },
		Busy: "This batch is being changed in another window, so this was not saved. Try again.",
	}
}

// batchState is a batch as it was read and planned.
type batchState struct {
	batchHead
	Read *batch.Batch
}

// Name is what to call it.
func (b *batchState) Name() string { return desk.Called(string(b.Doc.Name), "A batch") }

// Path is its address.
func (b *batchState) Path() string { return "/batches/" + b.Of }

func (s *Room) BatchAt(c *echo.Context) (*batchState, error) {
	head, err := s.Store.Batches.Head(c.Request().Context(), c.Param("batch"))
	if errors.Is(err, store.ErrNone) {
		return nil, echo.NewHTTPError(http.StatusNotFound, "This batch doesn't exist.")
	}
	if err != nil {
		return nil, err
	}
	return s.ReadBatch(c.Request().Context(), head)
}

// ReadBatch reads a batch and plans its boxes, until its asker leaves.
func (s *Room) ReadBatch(ctx context.Context, head batchHead) (*batchState, error) {
	st := &batchState{batchHead: head, Read: batch.Read(head.Doc, batch.Now(s.Clock()), s.Workshop(ctx))}
	var failed error
	st.Read.Make(func(b brief.Brief) *batch.Made {
		made, err := s.plan(ctx, b)
		if err != nil {
			failed = err
			return &batch.Made{Problems: []brief.Problem{{Text: "Brevium couldn't finish planning this " +
				"box.", Fix: "Reload the page to plan it."}}}
		}
		return made
	})
	return st, failed
}

// batchesPage lists the batches.
type batchesPage struct {
	desk.Page
	Batches []batchHead
	Problem string
}

func (s *Room) BatchList(c *echo.Context) error { return s.batchListWith(c, http.StatusOK, "") }

func (s *Room) batchListWith(c *echo.Context, code int, problem string) error {
	all, err := s.Store.Batches.Recent(c.Request().Context(), desk.MostListed)
	if err != nil {
		return err
	}
	return s.Render(c, code, "batches", &batchesPage{desk.Page{Title: "Batches"}, all, problem})
}

// NewBatch begins a batch: of the boxes that were chosen, of an order list, or with nothing in it.
func (s *Room) NewBatch(c *echo.Context) error {
	values, err := c.FormValues()
	if err != nil {
		return err
	}
	ctx := c.Request().Context()
	d := batch.Document{Name: "A batch", Hours: map[string]brief.Text{"sat": "3"}, Hands: "1",
		By: brief.Text(s.Today().Plus(21).String())}
	for _, id := range values["p"] {
		head, err := s.Store.Boxes.Head(ctx, id)
		if err != nil && !errors.Is(err, store.ErrNone) {
			return err
		}
		if err == nil && len(d.Orders) < batch.MostOrders {
			d.Add(orderOf(head))
		}
	}
	switch file, err := desk.Uploaded(c, "list"); {
	case errors.Is(err, http.ErrMissingFile), errors.Is(err, http.ErrNotMultipart):
	case err != nil:
		return s.batchListWith(c, http.StatusBadRequest, "The order list was not added: "+err.Error()+".")
	default:
		orders, err := s.readOrders(ctx, file)
		if err != nil {
			return s.batchListWith(c, http.StatusUnprocessableEntity, "The order list was not added: "+err.Error()+".")
		}
		for _, o := range orders {
			d.Add(o)
		}
	}
	id, err := s.Store.Batches.Create(ctx, d, "Begun")
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/batches/"+id)
}

// orderOf begins an order for a box as it is now.
func orderOf(head store.Project) batch.Order {
	n := string(head.Doc.Copies)
	if n == "" {
		n = "1"
	}
	return batch.Order{Box: head.Doc.Encode(), Project: head.Of, Revision: head.ID, Count: brief.Whole(n)}
}

func (s *Room) readOrders(ctx context.Context, list []byte) ([]batch.Order, error) {
	return batch.ReadOrders(bytes.NewReader(list), func(name string) (batch.Order, error) {
		head, err := s.Store.Shelf.Called(ctx, name)
		if errors.Is(err, store.ErrNone) {
			return batch.Order{}, fmt.Errorf("none of your boxes is called “%s”", words.Cut(name, 60))
		}
		return orderOf(head), err
	})
}

// OrdersIn takes an order list from CSV in, after the orders there are: all of it or nothing.
func (s *Room) OrdersIn(c *echo.Context) error {
	refused := func(code int, why string) error {
		st, err := s.BatchAt(c)
		if err != nil {
			return err
		}
		return s.showBatch(c, code, st.batchHead, desk.Edited[batch.Document]{Notice: why})
	}
	file, err := desk.Uploaded(c, "list")
	if err != nil {
		return refused(http.StatusBadRequest, "Choose an order list first: a CSV file with headings such as name, "+
			"box, count, by.")
	}
	orders, err := s.readOrders(c.Request().Context(), file)
	if err != nil {
		return refused(http.StatusUnprocessableEntity, "The order list was not added: "+err.Error()+".")
	}
	k := s.BatchKind(c)
	head, e, err := desk.Edit(s.Desk, c, k, func(head *batchHead) (desk.Edited[batch.Document], error) {
		e := desk.Edited[batch.Document]{Doc: document.Clone(head.Doc), What: desk.PlainCount(len(orders), "order", "orders") + " added"}
		if n := len(head.Doc.Orders) + len(orders); n > batch.MostOrders {
			e.Notice = fmt.Sprintf("A batch holds up to %d orders. This list would make it %d, so none was added.",
				batch.MostOrders, n)
			return e, nil
		}
		for _, o := range orders {
			addOrder(&e.Doc, o)
		}
		return e, nil
	})
	return k.Answer(c, head, e, err)
}
