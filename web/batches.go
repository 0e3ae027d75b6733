package web

import (
	"bytes"
	"context"
	"crypto/sha256"
	"errors"
	"fmt"
	"io"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/brief"
	"brevium/core/paths"
	"brevium/core/words"
	"brevium/store"
)

// Many boxes by a date.

// batchState is a batch as its page shows it.
type batchState struct {
	store.Batch
	Read     *batch.Batch
	Done     batch.Progress
	Problems map[string]brief.Problem
	Notice   string
	Stamp    string
}

// At gives a field of the batch.
func (b *batchState) At(path string) string { return paths.Get(&b.Document, path) }

// Problem gives what is wrong at a field.
func (b *batchState) Problem(path string) *brief.Problem {
	if p, ok := b.Problems[path]; ok {
		return &p
	}
	return nil
}

func (s *Server) batchAt(c *echo.Context) (*batchState, error) {
	ctx := c.Request().Context()
	b, err := s.store.Batch(ctx, c.Param("batch"))
	if errors.Is(err, store.ErrNone) {
		return nil, echo.NewHTTPError(http.StatusNotFound, "There is no such batch.")
	}
	if err != nil {
		return nil, err
	}
	return s.readBatch(ctx, b)
}

func (s *Server) readBatch(ctx context.Context, b store.Batch) (*batchState, error) {
	done, err := s.store.BatchTicks(ctx, b.ID)
	if err != nil {
		return nil, err
	}
	st := &batchState{Batch: b, Done: done, Problems: map[string]brief.Problem{}}
	st.Read = batch.Read(b.Document, done, s.today(), s.workshop())
	st.Read.Make(s.planner())
	for _, p := range st.Read.Problems {
		if _, known := st.Problems[p.Field]; !known {
			st.Problems[p.Field] = p
		}
	}
	keys := make([]string, 0, len(done))
	for k, n := range done {
		keys = append(keys, fmt.Sprint(k, n))
	}
	slices.Sort(keys)
	st.Stamp = fmt.Sprintf("%d-%x", b.Revision, sha256.Sum256([]byte(strings.Join(keys, " "))))[:24]
	return st, nil
}

// today is the day it is.
func (s *Server) today() batch.Day { return batch.DayOf(s.clock()) }

// sheetsOf lays the sheets of a batch, or knows how they were laid: what is ticked changes them only
// when an order has been trimmed.
func (s *Server) sheetsOf(ctx context.Context, st *batchState) (batch.Sheets, error) {
	pace, err := s.paceNow(ctx)
	if err != nil {
		return batch.Sheets{}, err
	}
	key := fmt.Sprint(s.program(), st.ID, st.Revision)
	for _, o := range st.Read.Orders {
		key += fmt.Sprint(" ", st.Done.Of(o.ID, "Trim") >= o.Copy)
	}
	p := &s.batches
	p.Lock()
	sheets, known := p.sheets[key]
	p.Unlock()
	if known {
		return sheets, nil
	}
	sheets = st.Read.Lay(st.Done, s.workshop(), pace)
	p.Lock()
	defer p.Unlock()
	if p.sheets == nil || len(p.sheets) >= mostBatchSheets {
		p.sheets = map[string]batch.Sheets{}
	}
	p.sheets[key] = sheets
	return sheets, nil
}

func (s *Server) batchList(c *echo.Context) error { return s.batchListWith(c, http.StatusOK, "") }

func (s *Server) batchListWith(c *echo.Context, code int, problem string) error {
	all, err := s.store.Batches(c.Request().Context(), mostListed)
	if err != nil {
		return err
	}
	return s.render(c, code, "batches", map[string]any{"Title": "Batches", "Batches": all, "Problem": problem})
}

// newBatch begins a batch: of the boxes that were chosen, of an order list, or with nothing in it.
func (s *Server) newBatch(c *echo.Context) error {
	values, err := c.FormValues()
	if err != nil {
		return err
	}
	ctx := c.Request().Context()
	d := batch.Document{Name: "A batch", Hours: map[string]brief.Text{"sat": "3"}, Hands: "1",
		By: brief.Text(s.today().Plus(21).String())}
	for _, id := range values["p"] {
		if head, err := s.store.Head(ctx, id); err == nil && len(d.Orders) < batch.MostOrders {
			d.Add(orderOf(head))
		}
	}
	switch file, err := uploaded(c, "list"); {
	case errors.Is(err, http.ErrMissingFile), errors.Is(err, http.ErrNotMultipart):
	case err != nil:
		return s.batchListWith(c, http.StatusBadRequest, "The order list was not taken in: "+err.Error()+".")
	default:
		orders, err := s.readOrders(ctx, file)
		if err != nil {
			return s.batchListWith(c, http.StatusUnprocessableEntity, "The order list was not taken in: "+err.Error()+".")
		}
		for _, o := range orders {
			d.Add(o)
		}
	}
	id, err := s.store.NewBatch(ctx, d)
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/batches/"+id)
}

// orderOf begins an order for a box as it is now.
func orderOf(head store.Project) batch.Order {
	n := string(head.Brief.Copies)
	if n == "" {
		n = "1"
	}
	return batch.Order{Box: head.Brief.Encode(), Project: head.Revision.Project, Revision: head.ID, Count: brief.Whole(n)}
}

func (s *Server) readOrders(ctx context.Context, list []byte) ([]batch.Order, error) {
	return batch.ReadOrders(bytes.NewReader(list), func(name string) (batch.Order, error) {
		head, err := s.store.Called(ctx, name)
		if errors.Is(err, store.ErrNone) {
			return batch.Order{}, fmt.Errorf("none of your boxes is called “%s”", words.Cut(name, 60))
		}
		return orderOf(head), err
	})
}

// uploaded gives what was sent as a file, an error when none was chosen.
func uploaded(c *echo.Context, field string) ([]byte, error) {
	header, err := c.FormFile(field)
	if err != nil {
		return nil, err
	}
	if header.Size == 0 {
		return nil, errors.New("nothing is in it")
	}
	file, err := header.Open()
	if err != nil {
		return nil, err
	}
	defer file.Close()
	return io.ReadAll(file)
}

// tickBatch keeps what is done: of orders how many with which stage.
func (s *Server) tickBatch(c *echo.Context) error {
	st, err := s.batchAt(c)
	if err != nil {
		return err
	}
	ticks, err := st.ticked(c)
	if err != nil {
		return err
	}
	if err := s.store.TickBatch(c.Request().Context(), st.ID, ticks...); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/batches/"+st.ID+"#sittings")
}

// ticked reads what a form says is done: of one order, or of several, each as “order/done/stage”.
func (b *batchState) ticked(c *echo.Context) (out []store.BatchTick, err error) {
	values, err := c.FormValues()
	if err != nil {
		return nil, err
	}
	all := values["do"]
	for _, stage := range values["stage"] {
		all = append(all, values.Get("order")+"/"+strings.TrimSpace(values.Get("done"))+"/"+stage)
	}
	if len(all) == 0 || len(all) > batch.MostOrders*len(batch.Stages) {
		return nil, echo.NewHTTPError(http.StatusBadRequest, "Nothing was said to be done. Load the page again.")
	}
	for _, text := range all {
		order, rest, _ := strings.Cut(text, "/")
		done, stage, _ := strings.Cut(rest, "/")
		i := b.Document.Of(order)
		if i < 0 {
			return nil, echo.NewHTTPError(http.StatusConflict, "That order was taken out meanwhile. Load the page again.")
		}
		o := b.Read.Orders[i]
		n, err := strconv.Atoi(done)
		if err != nil || n < 0 || n > o.Copy || !slices.Contains(batch.Stages, stage) {
			return nil, echo.NewHTTPError(http.StatusBadRequest, fmt.Sprintf("Of %s 0 to %d can be done. Load the page again.",
				o.Called(),
				o.Copy))
		}
		out = append(out, store.BatchTick{Order: order, Stage: stage, Done: n})
	}
	return out, nil
}

func (s *Server) throwBatch(gone bool) echo.HandlerFunc {
	return func(c *echo.Context) error {
		if err := s.store.ThrowBatch(c.Request().Context(), c.Param("batch"), gone); err != nil {
			return err
		}
		return c.Redirect(http.StatusSeeOther, "/batches/"+c.Param("batch"))
	}
}

// undoBatch takes the last change of a batch back.
func (s *Server) undoBatch(c *echo.Context) error {
	if _, err := s.store.UndoBatch(c.Request().Context(), c.Param("batch")); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/batches/"+c.Param("batch"))
}

// takeGive does what would make a batch fit.
func (s *Server) takeGive(c *echo.Context) error {
	ctx := c.Request().Context()
	st, err := s.batchAt(c)
	if err != nil {
		return err
	}
	pace, err := s.paceNow(ctx)
	if err != nil {
		return err
	}
	for _, g := range st.Read.Gives(st.Done, pace) {
		if g.Text != c.FormValue("give") {
			continue
		}
		g.Take(&st.Document)
		if err := s.store.KeepBatch(ctx, st.ID, st.Revision, st.Document); err != nil && !errors.Is(err, store.ErrMoved) {
			return err
		}
		break
	}
	return c.Redirect(http.StatusSeeOther, "/batches/"+st.ID)
}
