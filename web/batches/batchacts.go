package batches

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/batch"
	"brevium/core/brief"
	"brevium/core/record"
	"brevium/core/words"
	"brevium/store"
	"brevium/web/desk"
)

// What the buttons of a batch do.

// actBatch does what a button of a batch asks.
func (s *Room) actBatch(ctx context.Context, c *desk.Changing[batch.Document]) error {
	switch c.Act {
	case "add":
		return s.addNamed(ctx, c)
	case "add-day":
		return addDay(c)
	case "take-out":
		name := orderCalled(&c.Doc, c.Arg)
		if desk.TakeOut(c, "orders.@"+c.Arg, "order") {
			c.What = "Removed the order of " + name
		}
		return nil
	case "tick":
		return tickOrders(c)
	case "give":
		return s.takeGive(ctx, c)
	}
	i := c.Doc.Of(c.Arg)
	if i < 0 {
		c.Notice = "That order is gone. Someone removed it in another window."
		return nil
	}
	o, name := &c.Doc.Orders[i], orderCalled(&c.Doc, c.Arg)
	switch c.Act {
	case "pack":
		o.State, c.What = batch.Packed, name+": cut and packed away"
	case "unpack":
		o.State, c.What = "", name+": unpacked again"
	case "handed":
		o.State, c.What = batch.Handed, name+": handed over"
		return s.handedOver(ctx, c, *o)
	case "unhand":
		o.State, c.What = "", name+": not handed over"
		c.Notice = "The order is no longer marked as handed over. Its logbook entry stays. Delete it there if it is wrong."
	case "renew":
		head, err := s.Store.Boxes.Head(ctx, o.Project)
		if errors.Is(err, store.ErrNone) {
			c.Notice = "That box is gone. The order keeps it as it was."
			return nil
		}
		if err != nil {
			return err
		}
		o.Box, o.Revision, c.What = head.Doc.Encode(), head.ID, name+": uses the box as it is now"
	default:
		return desk.ErrNoAct
	}
	return nil
}

// orderCalled is what an order goes by: for whom, or what box.
func orderCalled(d *batch.Document, id string) string {
	i := d.Of(id)
	if i < 0 {
		return "an order"
	}
	if name := strings.TrimSpace(string(d.Orders[i].Name)); name != "" {
		return name
	}
	if box, err := brief.Stored(d.Orders[i].Box); err == nil && box.Name != "" {
		return string(box.Name)
	}
	return fmt.Sprintf("order %d", i+1)
}

// addNamed adds an order for the box whose name was typed.
func (s *Room) addNamed(ctx context.Context, c *desk.Changing[batch.Document]) error {
	name := strings.TrimSpace(c.Values.Get("add"))
	head, err := s.Store.Shelf.Called(ctx, name)
	switch {
	case errors.Is(err, store.ErrNone):
		c.Notice = fmt.Sprintf("None of your boxes is called “%s”. Write its name exactly as it is under "+
			"Boxes.", words.Cut(name, 60))
		c.Focus = "add"
		return nil
	case err != nil:
		return err
	case len(c.Doc.Orders) >= batch.MostOrders:
		c.Notice = fmt.Sprintf("A batch holds up to %d orders.", batch.MostOrders)
		return nil
	}
	id := addOrder(&c.Doc, orderOf(head))
	c.What, c.Focus = "Added an order of "+string(head.Doc.Name), desk.FieldMark("orders.@"+id+".name")
	return nil
}

// addOrder adds an order under an identity that none before it had: what is ticked goes by that.
func addOrder(d *batch.Document, o batch.Order) string {
	o.ID = desk.NewMark()
	return d.Add(o)
}

// addDay says which hours there are on a day that is otherwise than its day of the week.
func addDay(c *desk.Changing[batch.Document]) error {
	day, err := batch.ParseDay(c.Values.Get("day"))
	if err != nil {
		c.Notice, c.Focus = "First choose the day with different hours.", "other-day"
		return nil
	}
	hours := strings.TrimSpace(c.Values.Get("day-hours"))
	if hours == "" {
		hours = "none"
	}
	batch.Form.Set(&c.Doc, "hours."+day.String(), hours)
	c.What, c.Focus = day.Says()+": "+hours, "add-day"
	return nil
}

// tickOrders says what was done: of orders so many more with a stage, each as “order/more/stage”. What is said is
// added to what is done by then, so that two who say “one more” make two.
func tickOrders(c *desk.Changing[batch.Document]) error {
	all := strings.Split(c.Values.Get("do"), ";")
	if order := c.Values.Get("order"); order != "" {
		all = all[:0]
		for stage := range strings.SplitSeq(c.Values.Get("stage"), ";") {
			all = append(all, order+"/"+strings.TrimSpace(c.Values.Get("more"))+"/"+stage)
		}
	}
	var says []string
	for _, text := range all {
		said, err := tickOrder(c, text)
		if err != nil {
			return err
		}
		if said != "" {
			says = append(says, said)
		}
	}
	if len(says) > 2 {
		says = append(says[:2], fmt.Sprintf("and %d more", len(says)-2))
	}
	c.What = words.Capital(strings.Join(says, "; "))
	c.Same = false
	return nil
}

func tickOrder(c *desk.Changing[batch.Document], text string) (says string, err error) {
	order, rest, _ := strings.Cut(text, "/")
	more, stage, _ := strings.Cut(rest, "/")
	n, err := strconv.Atoi(more)
	if err != nil || n == 0 || n > batch.MostBoxes || n < -batch.MostBoxes || !slices.Contains(batch.Stages, stage) {
		return "", echo.NewHTTPError(http.StatusBadRequest, fmt.Sprintf(
			"%q isn't a number of boxes. Write a whole number, such as 5.", words.Cut(more, 20)))
	}
	i, name := c.Doc.Of(order), orderCalled(&c.Doc, order)
	if i < 0 {
		c.Notice = "That order is gone. Someone removed it in another window, so nothing was ticked."
		return "", nil
	}
	copies, _ := strconv.Atoi(strings.TrimSpace(string(c.Doc.Orders[i].Count)))
	was := c.Doc.Done.Of(order, stage)
	now := max(0, min(copies, was+n))
	if now != was+n {
		c.Notice = fmt.Sprintf("%s of %s: %d of %d were done already, so only %d more were "+
			"added.", stage, name, was, copies, max(0, now-was))
	}
	if now == was {
		return "", nil
	}
	text = strconv.Itoa(now)
	if now == 0 {
		text = ""
	}
	batch.Form.Set(&c.Doc, "done."+order+"/"+stage, text)
	if now < was {
		return fmt.Sprintf("%s of %s: %d not done after all", stage, name, was-now), nil
	}
	return fmt.Sprintf("%s of %s: %d more, %d of %d", stage, name, now-was, now, copies), nil
}

// takeGive does what would make a batch fit.
func (s *Room) takeGive(ctx context.Context, c *desk.Changing[batch.Document]) error {
	done, err := s.Long.Take(ctx)
	if err != nil {
		return err
	}
	defer done()
	pace, err := s.Pace(ctx)
	if err != nil {
		return err
	}
	head := *c.Head
	head.Doc = c.Doc
	st, err := s.ReadBatch(ctx, head)
	if err != nil {
		return err
	}
	for _, g := range st.Read.Gives(pace) {
		if g.Text == c.Arg {
			g.Take(&c.Doc)
			c.What = strings.TrimSuffix(g.Text, ".")
			return nil
		}
	}
	c.Notice = "The batch has changed, so this is no longer enough. Choose another way."
	return nil
}

// handedOver writes an order into the logbook, in the same commit.
func (s *Room) handedOver(ctx context.Context, c *desk.Changing[batch.Document], o batch.Order) error {
	read := batch.Read(c.Doc, batch.Now(s.Clock()), s.Workshop(ctx))
	ordered := read.Orders[c.Doc.Of(o.ID)]
	if ordered.Copy == 0 {
		c.Notice = "Type how many you made. Then you can hand the order over."
		return nil
	}
	m := record.Of(ordered.Brief, s.Clock())
	m.Project, m.Revision, m.Count, m.Whom = o.Project, o.Revision, ordered.Copy, words.Cut(string(o.Name), 120)
	m.Key = fmt.Sprintf("order-%s-%s", desk.Sum(o.Box)[:12], desk.Sum([]byte(o.ID + "-" + string(o.By) + "-" + string(o.Name)))[:12])
	if made, err := s.plan(ctx, ordered.Brief); err != nil {
		return err
	} else if made.OK() {
		if err := s.Work.Reckoned(ctx, &m, made.Job); err != nil {
			return err
		}
		m.Count = ordered.Copy
	}
	if o.Words != "" {
		m.Notes = "On the tag: " + string(o.Words)
	}
	c.Besides = append(c.Besides, s.Store.Log.Recording(&m))
	return nil
}
