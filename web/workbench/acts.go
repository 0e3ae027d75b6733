package workbench

import (
	"context"
	"fmt"
	"math"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/web/desk"
)

// pressed is a button of a box's page that was pressed: what it changes, and what it changes it with.
type pressed struct {
	*desk.Changing[brief.Brief]
	room *Room
	shop request.Workshop
}

// acts are what buttons do beyond what the fields hold.
var acts = map[string]struct {
	says string
	do   func(context.Context, *pressed) error
}{
	"add-thing":     {"Added a thing", addThing},
	"add-usual":     {"Added a usual thing", addUsual},
	"remove-thing":  {"Removed a thing", removeThing},
	"add-piece":     {"Added a piece", addPiece},
	"remove-piece":  {"Removed a piece", removePiece},
	"use-size":      {"Set the size", useSize},
	"use-contents":  {"Took the size from the contents", useContents},
	"choose-way":    {"Chose an arrangement", chooseWay},
	"choose-for-me": {"Let Brevium arrange the things", chooseForMe},
	"move":          {"Moved a thing", moveStack},
	"turn":          {"Turned a thing", moveStack},
	"take-shop":     {"Used the new numbers of a card", takeShop},
	"keep-card":     {"Added a card to the supplies", keepOwn},
	"write-shop":    {"Copied the numbers from Supplies into the box", writeShop},
	"dress-as":      {"Changed the decoration", dressAs},
	"panel":         {"Chose a panel to cover", pointPanel},
	"add-dress":     {"Added a decoration", addDress},
	"remove-dress":  {"Removed a decoration", removeDress},
	"scheme":        {"Chose a colour scheme", takeScheme},
	"take-deep":     {"Chose the layout with the least card", takeDeep},
	"hold":          {"Pinned a piece", holdPiece},
	"unpin-all":     {"Removed all pins", unpinAll},
	"add-box":       {"Added a box", addBox},
	"remove-box":    {"Removed a box", removeBox},
}

// actBox does what a button of a box's page asks.
func (s *Room) actBox(ctx context.Context, c *desk.Changing[brief.Brief]) error {
	return (&pressed{c, s, s.Workshop(ctx)}).do(ctx)
}

func (c *pressed) do(ctx context.Context) error {
	if c.Act == "mend" {
		return mend(ctx, c)
	}
	a, ok := acts[c.Act]
	if !ok {
		return desk.ErrNoAct
	}
	return a.do(ctx, c)
}

func add(c *pressed, thing brief.Item) error {
	if len(c.Doc.Contents) >= contents.MostKinds {
		c.Notice = fmt.Sprintf("A box takes up to %d kinds of thing.", contents.MostKinds)
		return nil
	}
	thing.ID = desk.NewMark()
	c.Doc.Contents = append(c.Doc.Contents, thing)
	c.Focus = desk.FieldMark("contents.@" + thing.ID + ".name")
	return nil
}

func addThing(_ context.Context, c *pressed) error {
	thing := brief.Item{Name: "another thing", Shape: "block", Count: "1"}
	if shape, ok := contents.ShapeOf(c.Arg); ok {
		thing.Shape = brief.Text(shape.ID)
	}
	if len(c.Doc.Contents) == 0 {
		thing.Name = "thing"
	}
	return add(c, thing)
}

func addUsual(ctx context.Context, c *pressed) error {
	things, err := c.room.Usuals.List(ctx)
	if err != nil {
		return err
	}
	name := c.Arg
	if name == "" {
		if name = c.Values.Get("usual"); name == "" {
			return addThing(ctx, c)
		}
	}
	for _, t := range things {
		if string(t.Name) == name {
			return add(c, t.Item)
		}
	}
	c.Notice, c.Focus = "Choose one of the usual things first.", "usual"
	return nil
}

func removeThing(_ context.Context, c *pressed) error {
	if desk.TakeOut(c.Changing, "contents.@"+c.Arg, "thing") {
		c.Doc.Arrange.Places = slices.DeleteFunc(c.Doc.Arrange.Places, func(p brief.StackAt) bool { return p.Thing == c.Arg })
	}
	return nil
}

func addPiece(_ context.Context, c *pressed) error {
	name := fmt.Sprintf("piece %d", len(c.Doc.Box.Pieces)+1)
	p := brief.Scored{ID: desk.NewMark(), Name: brief.Text(name), Width: "4 in", Height: "3 in"}
	c.Doc.Box.Pieces = append(c.Doc.Box.Pieces, p)
	c.Focus = desk.FieldMark("box.pieces.@" + p.ID + ".name")
	return nil
}

func removePiece(_ context.Context, c *pressed) error {
	desk.TakeOut(c.Changing, "box.pieces.@"+c.Arg, "piece")
	return nil
}

// mend makes the change that a problem offers, or presses the button it names: the
// problem of the field named.
func mend(ctx context.Context, c *pressed) error {
	p := advice.Make(c.Doc, c.shop)
	for _, w := range p.Warnings { // was it inches?
		if w.Code == "inches" && w.Set.Has(c.Arg) {
			c.Doc.Set(c.Arg, w.Set.Get(c.Arg))
			c.Focus = desk.FieldMark(c.Arg)
			return nil
		}
	}
	for _, pr := range p.Problems {
		if pr.Field == c.Arg && len(pr.Set) > 0 {
			if act := pr.Set.Get("act"); act != "" {
				c.Act, c.Arg, _ = strings.Cut(act, ":")
				return c.do(ctx)
			}
			for path, text := range pr.Set.All() {
				c.Doc.Set(path, text)
			}
			c.Focus = desk.FieldMark(pr.Field)
			return nil
		}
	}
	c.Notice = "That is already fixed."
	return nil
}

func useSize(_ context.Context, c *pressed) error {
	if c.Doc.Size == nil {
		c.Doc.Size = sizeOf(&c.Doc, c.shop)
	}
	c.Focus = desk.FieldMark("size.length")
	return nil
}

func useContents(_ context.Context, c *pressed) error {
	c.Doc.Size = nil
	return nil
}

func chooseWay(_ context.Context, c *pressed) error {
	c.Doc.Arrange.Way, c.Doc.Arrange.Places, c.Doc.Size = brief.Text(c.Arg), nil, nil
	return nil
}

func chooseForMe(_ context.Context, c *pressed) error {
	c.Doc.Arrange.Way, c.Doc.Arrange.Places = "", nil
	return nil
}

// stackOf finds a stack by its thing and which of that thing's stacks it is:
// "k3.2".
func stackOf(l *contents.Load, mark string) int {
	id, nth, _ := strings.Cut(mark, ".")
	n, err := strconv.Atoi(nth)
	if err != nil || n < 0 {
		return -1
	}
	for i, st := range l.Stacks {
		if l.Things[st.Thing].ID == id {
			if n == 0 {
				return i
			}
			n--
		}
	}
	return -1
}

// moveStack moves a stack by whole steps of the tools ("move:k3.2:1:-3": the
// third of thing k3, one to the right, three to the front) or turns it a
// quarter ("turn:k3.2"). What would stand in another stays where it is, and is
// told.
func moveStack(_ context.Context, c *pressed) error {
	p := plan.Make(c.Doc, c.shop)
	part := strings.Split(c.Arg, ":")
	i := -1
	if p.OK() {
		i = stackOf(&p.Load, part[0])
	}
	if i < 0 {
		c.Notice = "That thing is gone. Someone changed what goes in, in another window."
		return nil
	}
	turned := make([]bool, len(p.Load.Stacks))
	if at, ok := plan.PlacesOf(c.Doc.Arrange.Places, p.Load); ok && p.Load.ByHand {
		for k := range turned {
			turned[k] = c.Doc.Arrange.Places[at[k]].Turned == "yes"
		}
	}
	stack := &p.Load.Stacks[i]
	if len(part) == 3 {
		dx, errX := strconv.Atoi(part[1])
		dy, errY := strconv.Atoi(part[2])
		if errX != nil || errY != nil || max(dx, -dx, dy, -dy) > desk.MostSteps {
			return echo.NewHTTPError(http.StatusBadRequest, "That move didn't work. Reload the page and try again.")
		}
		// Snapped: a move ends on a mark of the tools.
		side, step := p.Load.Room.Around, p.Step.Size
		stack.At.Length = (stack.At.Length - side).Near(step) + side + measure.Length(dx)*step
		stack.At.Width = (stack.At.Width - side).Near(step) + side + measure.Length(dy)*step
	} else {
		turned[i] = !turned[i]
		stack.Each.Length, stack.Each.Width = stack.Each.Width, stack.Each.Length
	}
	if a, b, met := p.Load.Overlap(); met {
		c.Notice = fmt.Sprintf("%s would bump into %s there, so it stays where it was.", p.Load.Things[a].Name,
			p.Load.Things[b].Name)
		return nil
	}
	c.Doc.Arrange.Way, c.Doc.Arrange.Places = brief.Text(p.Load.ID), placesAt(p, turned)
	return nil
}

// placesAt writes where the stacks of a plan stand.
func placesAt(p *plan.Plan, turned []bool) (out []brief.StackAt) {
	left, front := measure.Length(math.MaxInt64), measure.Length(math.MaxInt64)
	for _, st := range p.Load.Stacks {
		left, front = min(left, st.At.Length), min(front, st.At.Width)
	}
	for k, st := range p.Load.Stacks {
		place := brief.StackAt{Thing: p.Load.Things[st.Thing].ID,
			X: brief.Text((st.At.Length - left).Exact(p.Units)), Y: brief.Text((st.At.Width - front).Exact(p.Units))}
		if turned[k] {
			place.Turned = "yes"
		}
		out = append(out, place)
	}
	return out
}
