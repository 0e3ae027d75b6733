package web

import (
	"context"
	"fmt"
	"math"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/document"
	"brevium/core/measure"
	"brevium/core/plan"
	"brevium/store"
)

// changing is what an act works on: the newest brief with what was typed merged
// in, and the brief that the page showed.
type changing struct {
	*edited
	seen   *brief.Brief
	arg    string
	values url.Values
}

// acts are what buttons do beyond what the fields hold.
var acts = map[string]struct {
	says string
	do   func(*Server, context.Context, changing) error
}{
	"add-thing":     {"A thing added", (*Server).addThing},
	"add-usual":     {"A usual thing added", (*Server).addUsual},
	"remove-thing":  {"A thing taken out", (*Server).removeThing},
	"put-back":      {"Put back what another window had taken out", (*Server).putBack},
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

func (s *Server) act(ctx context.Context, e *edited, seen *brief.Brief, values url.Values) error {
	name, arg, _ := strings.Cut(values.Get("act"), ":")
	if name == "" {
		return nil
	}
	if name == "mend" {
		return s.mend(ctx, changing{e, seen, arg, values})
	}
	a, ok := acts[name]
	if !ok {
		return echo.NewHTTPError(http.StatusBadRequest, "That button does nothing here. Load the page again.")
	}
	return a.do(s, ctx, changing{e, seen, arg, values})
}

// fieldMark is the mark in the page of a field.
func fieldMark(path string) string {
	return "f-" + strings.NewReplacer(".", "-", "@", "").Replace(path)
}

// newMark is a short identity for a thing or a piece of one project.
func newMark() string { return store.NewID()[:8] }

func (s *Server) add(c changing, thing brief.Item) error {
	if len(c.brief.Contents) >= contents.MostKinds {
		c.notice = fmt.Sprintf("A box takes %d kinds of thing at the most.", contents.MostKinds)
		return nil
	}
	thing.ID = newMark()
	c.brief.Contents = append(c.brief.Contents, thing)
	c.focus = fieldMark("contents.@" + thing.ID + ".name")
	return nil
}

func (s *Server) addThing(_ context.Context, c changing) error {
	thing := brief.Item{Name: "another thing", Shape: "block", Count: "1"}
	if len(c.brief.Contents) == 0 {
		thing.Name = "thing"
	}
	return s.add(c, thing)
}

func (s *Server) addUsual(ctx context.Context, c changing) error {
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

func (s *Server) removeThing(_ context.Context, c changing) error {
	list := c.brief.Contents
	c.brief.Contents = takeOut(c, "thing", list, c.brief.Item(c.arg), func(t brief.Item) string { return t.ID })
	if len(c.brief.Contents) < len(list) {
		c.brief.Arrange.Places = slices.DeleteFunc(c.brief.Arrange.Places, func(p brief.StackAt) bool { return p.Thing == c.arg })
	}
	return nil
}

// takeOut takes one out of a list, and puts the hand on taking out the next, or
// on adding another. One that another window took out already is told.
func takeOut[T any](c changing, what string, list []T, i int, mark func(T) string) []T {
	if i < 0 {
		c.notice = fmt.Sprintf("That %s was taken out already, in another window.", what)
		return list
	}
	out := slices.Delete(slices.Clone(list), i, i+1)
	if c.focus = "add-" + what; i < len(out) {
		c.focus = "take-out-" + mark(out[i])
	}
	return out
}

// putBack brings back a thing or a piece that another window took out, as this
// window showed it, with what was typed in it since.
func (s *Server) putBack(_ context.Context, c changing) error {
	list, id, _ := strings.Cut(c.arg, ".@")
	own := func(k document.Conflict) bool { return k.Gone && strings.HasPrefix(k.Field, c.arg+".") }
	if i := c.seen.Item(id); list == "contents" && i >= 0 && c.brief.Item(id) < 0 {
		at := min(i, len(c.brief.Contents))
		c.brief.Contents = slices.Insert(c.brief.Contents, at, c.seen.Contents[i])
	}
	if i := c.seen.Scored(id); list == "box.pieces" && i >= 0 && c.brief.Scored(id) < 0 {
		at := min(i, len(c.brief.Box.Pieces))
		c.brief.Box.Pieces = slices.Insert(c.brief.Box.Pieces, at, c.seen.Box.Pieces[i])
	}
	for _, k := range c.conflicts {
		if own(k) {
			c.brief.Set(k.Field, k.Mine)
		}
	}
	c.conflicts = slices.DeleteFunc(c.conflicts, own)
	c.focus = fieldMark(c.arg + ".name")
	return nil
}

func (s *Server) addPiece(_ context.Context, c changing) error {
	name := fmt.Sprintf("piece %d", len(c.brief.Box.Pieces)+1)
	p := brief.Scored{ID: newMark(), Name: brief.Text(name), Width: "4 in", Height: "3 in"}
	c.brief.Box.Pieces = append(c.brief.Box.Pieces, p)
	c.focus = fieldMark("box.pieces.@" + p.ID + ".name")
	return nil
}

func (s *Server) removePiece(_ context.Context, c changing) error {
	pieces := c.brief.Box.Pieces
	c.brief.Box.Pieces = takeOut(c, "piece", pieces, c.brief.Scored(c.arg), func(p brief.Scored) string { return p.ID })
	return nil
}

// mend makes the change that a problem offers, or presses the button it names: the
// problem of the field named.
func (s *Server) mend(ctx context.Context, c changing) error {
	p := advice.Make(c.brief, s.workshop())
	for _, w := range p.Warnings { // was it inches?
		if w.Code == "inches" && w.Set.Has(c.arg) {
			c.brief.Set(c.arg, w.Set.Get(c.arg))
			c.focus = fieldMark(c.arg)
			return nil
		}
	}
	for _, pr := range p.Problems {
		if pr.Field == c.arg && len(pr.Set) > 0 {
			if act := pr.Set.Get("act"); act != "" {
				return s.act(ctx, c.edited, c.seen, url.Values{"act": {act}})
			}
			for path, text := range pr.Set.All() {
				c.brief.Set(path, text)
			}
			c.focus = fieldMark(pr.Field)
			return nil
		}
	}
	c.notice = "That is mended already."
	return nil
}

func (s *Server) useSize(_ context.Context, c changing) error {
	if c.brief.Size == nil {
		c.brief.Size = sizeOf(&c.brief, s.workshop())
	}
	c.focus = fieldMark("size.length")
	return nil
}

func (s *Server) useContents(_ context.Context, c changing) error {
	c.brief.Size = nil
	return nil
}

func (s *Server) chooseWay(_ context.Context, c changing) error {
	c.brief.Arrange.Way, c.brief.Arrange.Places, c.brief.Size = brief.Text(c.arg), nil, nil
	return nil
}

func (s *Server) chooseForMe(_ context.Context, c changing) error {
	c.brief.Arrange.Way, c.brief.Arrange.Places = "", nil
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
func (s *Server) moveStack(_ context.Context, c changing) error {
	p := plan.Make(c.brief, s.workshop())
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
	if at, ok := plan.PlacesOf(c.brief.Arrange.Places, p.Load); ok && p.Load.ByHand {
		for k := range turned {
			turned[k] = c.brief.Arrange.Places[at[k]].Turned == "yes"
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
	c.brief.Arrange.Way, c.brief.Arrange.Places = brief.Text(p.Load.ID), placesAt(p, turned)
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
