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

	"github.com/labstack/echo/v4"

	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/plan"
)

// changing is what an act works on: the newest brief with what was typed merged
// in, and the brief that the page showed.
type changing struct {
	out, seen *brief.Brief
	arg       string
	values    url.Values
}

// acts are what buttons do beyond what the fields hold. One may give a note to
// show in place of a change.
var acts = map[string]struct {
	says string
	do   func(*Server, context.Context, changing) (note string, err error)
}{
	"add-thing":     {"a thing added", (*Server).addThing},
	"add-usual":     {"a usual thing added", (*Server).addUsual},
	"remove-thing":  {"a thing taken out", (*Server).removeThing},
	"add-piece":     {"a piece added", (*Server).addPiece},
	"remove-piece":  {"a piece taken out", (*Server).removePiece},
	"use-size":      {"the size given", (*Server).useSize},
	"use-contents":  {"the size left to the contents", (*Server).useContents},
	"take-way":      {"an arrangement picked", (*Server).takeWay},
	"choose-for-me": {"the arrangement left to Brevium", (*Server).chooseForMe},
	"move":          {"a thing moved by hand", (*Server).moveStack},
	"turn":          {"a thing turned by hand", (*Server).moveStack},
}

func (s *Server) act(ctx context.Context, out, seen *brief.Brief, values url.Values) (string, error) {
	name, arg, _ := strings.Cut(values.Get("act"), ":")
	if name == "" {
		return "", nil
	}
	a, ok := acts[name]
	if !ok {
		return "", echo.NewHTTPError(http.StatusBadRequest, "That button does nothing here. Load the page again.")
	}
	return a.do(s, ctx, changing{out, seen, arg, values})
}

func (s *Server) addThing(_ context.Context, c changing) (string, error) {
	thing := brief.New(string(c.out.Units)).Contents[0]
	thing.Name = "another thing"
	c.out.Contents = append(c.out.Contents, thing)
	return "", nil
}

func (s *Server) addPiece(_ context.Context, c changing) (string, error) {
	name := fmt.Sprintf("piece %d", len(c.out.Box.Pieces)+1)
	c.out.Box.Pieces = append(c.out.Box.Pieces, brief.Scored{Name: brief.Text(name), Is: "liner", Width: "4 in", Height: "3 in"})
	return "", nil
}

func (s *Server) removePiece(_ context.Context, c changing) (note string, err error) {
	c.out.Box.Pieces, err = without(c.out.Box.Pieces, c.seen.Box.Pieces, c.arg, func(p brief.Scored) brief.Text { return p.Name })
	return "", err
}

// without takes one of a list out, when it is still where the page showed it.
func without[T any](list, seen []T, place string, name func(T) brief.Text) ([]T, error) {
	i, err := strconv.Atoi(place)
	if err != nil || i < 0 || i >= len(list) || i >= len(seen) || name(seen[i]) != name(list[i]) {
		return list, echo.NewHTTPError(http.StatusConflict, "What you took out is no longer where it was. Load the page again.")
	}
	return slices.Delete(list, i, i+1), nil
}

func (s *Server) addUsual(ctx context.Context, c changing) (string, error) {
	things, err := s.library(ctx)
	if err != nil {
		return "", err
	}
	for _, t := range things {
		if string(t.Name) == c.values.Get("usual") {
			c.out.Contents = append(c.out.Contents, t.Item)
			return "", nil
		}
	}
	return "Choose one of the usual things first.", nil
}

func (s *Server) removeThing(_ context.Context, c changing) (note string, err error) {
	c.out.Contents, err = without(c.out.Contents, c.seen.Contents, c.arg, func(i brief.Item) brief.Text { return i.Name })
	return "", err
}

func (s *Server) useSize(_ context.Context, c changing) (string, error) {
	if c.out.Size == nil {
		c.out.Size = sizeOf(c.out, s.workshop)
	}
	return "", nil
}

func (s *Server) useContents(_ context.Context, c changing) (string, error) {
	c.out.Size = nil
	if len(c.out.Contents) == 0 {
		c.out.Contents = brief.New(string(c.out.Units)).Contents
	}
	return "", nil
}

func (s *Server) takeWay(_ context.Context, c changing) (string, error) {
	c.out.Arrange.Way, c.out.Arrange.Places, c.out.Size = brief.Text(c.arg), nil, nil
	return "", nil
}

func (s *Server) chooseForMe(_ context.Context, c changing) (string, error) {
	c.out.Arrange.Way, c.out.Arrange.Places = "", nil
	return "", nil
}

// moveStack moves a stack by whole steps of the tools ("move:2:1:-3": the
// third, one to the right, three to the front) or turns it a quarter
// ("turn:2"). What would stand in another stays where it is, and is told.
func (s *Server) moveStack(_ context.Context, c changing) (string, error) {
	stale := echo.NewHTTPError(http.StatusConflict, "Things have changed since. Load the page again.")
	p := plan.Make(*c.out, s.workshop)
	part := strings.Split(c.arg, ":")
	i, err := strconv.Atoi(part[0])
	if err != nil || !p.OK() || i < 0 || i >= len(p.Load.Stacks) {
		return "", stale
	}
	turned := make([]bool, len(p.Load.Stacks))
	for k := range c.out.Arrange.Places {
		if k < len(turned) && p.Load.ByHand {
			turned[k] = c.out.Arrange.Places[k].Turned == "yes"
		}
	}
	stack := &p.Load.Stacks[i]
	if len(part) == 3 {
		dx, errX := strconv.Atoi(part[1])
		dy, errY := strconv.Atoi(part[2])
		if errX != nil || errY != nil || max(dx, -dx, dy, -dy) > 5000 {
			return "", stale
		}
		// Snapped: a move ends on a mark of the tools.
		stack.At.Length = (stack.At.Length - p.Load.Room.Around).Near(p.Step.Size) + p.Load.Room.Around + measure.Length(dx)*p.Step.Size
		stack.At.Width = (stack.At.Width - p.Load.Room.Around).Near(p.Step.Size) + p.Load.Room.Around + measure.Length(dy)*p.Step.Size
	} else {
		turned[i] = !turned[i]
		stack.Each.Length, stack.Each.Width = stack.Each.Width, stack.Each.Length
	}
	if a, b, met := p.Load.Overlap(); met {
		return fmt.Sprintf("There %s would stand in %s, so it stays where it was.", p.Load.Things[a].Name, p.Load.Things[b].Name), nil
	}
	left, front := measure.Length(math.MaxInt64), measure.Length(math.MaxInt64)
	for _, st := range p.Load.Stacks {
		left, front = min(left, st.At.Length), min(front, st.At.Width)
	}
	c.out.Arrange.Way, c.out.Arrange.Places = brief.Text(p.Load.ID), nil
	for k, st := range p.Load.Stacks {
		place := brief.Place{X: brief.Text((st.At.Length - left).Exact(p.Units)), Y: brief.Text((st.At.Width - front).Exact(p.Units))}
		if turned[k] {
			place.Turned = "yes"
		}
		c.out.Arrange.Places = append(c.out.Arrange.Places, place)
	}
	return "", nil
}
