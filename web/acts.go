package web

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
)

// acts are what buttons do beyond what the fields hold.
var acts = map[string]struct {
	says string
	do   func(*Server, context.Context, *changing[brief.Brief]) error
}{
	"add-thing":     {"A thing added", (*Server).addThing},
	"add-usual":     {"A usual thing added", (*Server).addUsual},
	"remove-thing":  {"A thing taken out", (*Server).removeThing},
	"add-piece":     {"A piece added", (*Server).addPiece},
	"remove-piece":  {"A piece taken out", (*Server).removePiece},
	"use-size":      {"The size given", (*Server).useSize},
	"use-contents":  {"The size left to the contents", (*Server).useContents},
	"choose-way":    {"An arrangement chosen", (*Server).chooseWay},
	"choose-for-me": {"The arrangement left to Brevium", (*Server).chooseForMe},
	"move":          {"A thing moved by hand", (*Server).moveStack},
	"turn":          {"A thing turned by hand", (*Server).moveStack},
	"take-shop":     {"The shop's numbers for a card taken", (*Server).takeShop},
	"keep-card":     {"A card of the box added to the shop", (*Server).keepOwn},
	"write-shop":    {"What the shop says written into the box", (*Server).writeShop},
	"dress-as":      {"Dressed another way", (*Server).dressAs},
	"panel":         {"A panel pointed at", (*Server).pointPanel},
	"add-dress":     {"Something put on", (*Server).addDress},
	"remove-dress":  {"Something taken off", (*Server).removeDress},
	"scheme":        {"Another scheme of colours", (*Server).takeScheme},
	"take-deep":     {"The least that was found is cut", (*Server).takeDeep},
	"hold":          {"A piece held on its sheet", (*Server).holdPiece},
	"unpin-all":     {"Pieces let go", (*Server).unpinAll},
	"add-box":       {"A box added", (*Server).addBox},
	"remove-box":    {"A box taken out", (*Server).removeBox},
}

// actBox does what a button of a box's page asks.
func (s *Server) actBox(ctx context.Context, c *changing[brief.Brief]) error {
	if c.act == "mend" {
		return s.mend(ctx, c)
	}
	a, ok := acts[c.act]
	if !ok {
		return errNoAct
	}
	return a.do(s, ctx, c)
}

func (s *Server) add(c *changing[brief.Brief], thing brief.Item) error {
	if len(c.doc.Contents) >= contents.MostKinds {
		c.notice = fmt.Sprintf("A box takes %d kinds of thing at the most.", contents.MostKinds)
		return nil
	}
	thing.ID = newMark()
	c.doc.Contents = append(c.doc.Contents, thing)
	c.focus = fieldMark("contents.@" + thing.ID + ".name")
	return nil
}

func (s *Server) addThing(_ context.Context, c *changing[brief.Brief]) error {
	thing := brief.Item{Name: "another thing", Shape: "block", Count: "1"}
	if len(c.doc.Contents) == 0 {
		thing.Name = "thing"
	}
	return s.add(c, thing)
}

func (s *Server) addUsual(ctx context.Context, c *changing[brief.Brief]) error {
	things, err := s.library(ctx)
	if err != nil {
		return err
	}
	name := c.arg
	if name == "" {
		name = c.values.Get("usual")
	}
	for _, t := range things {
		if string(t.Name) == name {
			return s.add(c, t.Item)
		}
	}
	c.notice, c.focus = "Choose one of the usual things first.", "usual"
	return nil
}

func (s *Server) removeThing(_ context.Context, c *changing[brief.Brief]) error {
	if takeOut(c, "contents.@"+c.arg, "thing") {
		c.doc.Arrange.Places = slices.DeleteFunc(c.doc.Arrange.Places, func(p brief.StackAt) bool { return p.Thing == c.arg })
	}
	return nil
}

func (s *Server) addPiece(_ context.Context, c *changing[brief.Brief]) error {
	name := fmt.Sprintf("piece %d", len(c.doc.Box.Pieces)+1)
	p := brief.Scored{ID: newMark(), Name: brief.Text(name), Width: "4 in", Height: "3 in"}
	c.doc.Box.Pieces = append(c.doc.Box.Pieces, p)
	c.focus = fieldMark("box.pieces.@" + p.ID + ".name")
	return nil
}

func (s *Server) removePiece(_ context.Context, c *changing[brief.Brief]) error {
	takeOut(c, "box.pieces.@"+c.arg, "piece")
	return nil
}

// mend makes the change that a problem offers, or presses the button it names: the
// problem of the field named.
func (s *Server) mend(ctx context.Context, c *changing[brief.Brief]) error {
	p := advice.Make(c.doc, s.workshop())
	for _, w := range p.Warnings { // was it inches?
		if w.Code == "inches" && w.Set.Has(c.arg) {
			c.doc.Set(c.arg, w.Set.Get(c.arg))
			c.focus = fieldMark(c.arg)
			return nil
		}
	}
	for _, pr := range p.Problems {
		if pr.Field == c.arg && len(pr.Set) > 0 {
			if act := pr.Set.Get("act"); act != "" {
				c.act, c.arg, _ = strings.Cut(act, ":")
				return s.actBox(ctx, c)
			}
			for path, text := range pr.Set.All() {
				c.doc.Set(path, text)
			}
			c.focus = fieldMark(pr.Field)
			return nil
		}
	}
	c.notice = "That is mended already."
	return nil
}

func (s *Server) useSize(_ context.Context, c *changing[brief.Brief]) error {
	if c.doc.Size == nil {
		c.doc.Size = sizeOf(&c.doc, s.workshop())
	}
	c.focus = fieldMark("size.length")
	return nil
}

func (s *Server) useContents(_ context.Context, c *changing[brief.Brief]) error {
	c.doc.Size = nil
	return nil
}

func (s *Server) chooseWay(_ context.Context, c *changing[brief.Brief]) error {
	c.doc.Arrange.Way, c.doc.Arrange.Places, c.doc.Size = brief.Text(c.arg), nil, nil
	return nil
}

func (s *Server) chooseForMe(_ context.Context, c *changing[brief.Brief]) error {
	c.doc.Arrange.Way, c.doc.Arrange.Places = "", nil
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
func (s *Server) moveStack(_ context.Context, c *changing[brief.Brief]) error {
	p := plan.Make(c.doc, s.workshop())
	part := strings.Split(c.arg, ":")
	i := -1
	if p.OK() {
		i = stackOf(&p.Load, part[0])
	}
	if i < 0 {
		c.notice = "That thing is no longer there: another window has changed what goes in."
		return nil
	}
	turned := make([]bool, len(p.Load.Stacks))
	if at, ok := plan.PlacesOf(c.doc.Arrange.Places, p.Load); ok && p.Load.ByHand {
		for k := range turned {
			turned[k] = c.doc.Arrange.Places[at[k]].Turned == "yes"
		}
	}
	stack := &p.Load.Stacks[i]
	if len(part) == 3 {
		dx, errX := strconv.Atoi(part[1])
		dy, errY := strconv.Atoi(part[2])
		if errX != nil || errY != nil || max(dx, -dx, dy, -dy) > mostSteps {
			return echo.NewHTTPError(http.StatusBadRequest, "That is no move. Load the page again.")
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
		c.notice = fmt.Sprintf("There %s would stand in %s, so it stays where it was.", p.Load.Things[a].Name,
			p.Load.Things[b].Name)
		return nil
	}
	c.doc.Arrange.Way, c.doc.Arrange.Places = brief.Text(p.Load.ID), placesAt(p, turned)
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
