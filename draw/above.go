package draw

import (
	"fmt"
	"math"
	"strings"

	"brevium/core/assembly"
	"brevium/core/contents"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/draw/pen"
)

// Above draws the box from above and in section, with its contents and the
// room round them in figures. The stacks can be taken hold of: each carries
// its thing's identity with which of its stacks it is, and how many pixels a step of the tools is.
func Above(p *plan.Plan, w, h float64) string {
	if len(p.Rooms) > 0 {
		return aboveRooms(p, w, h)
	}
	const rimX, rimY, gap = 60.0, 44.0, 62.0
	in := p.Box.Whole()
	k := min((w-2*rimX)/in.Length.MM(), (h-2*rimY-gap)/(in.Width.MM()+in.Depth.MM()))
	c := &pen.Canvas{}
	v := &inView{Canvas: c, p: p, k: k, x: rimX + (w-2*rimX-in.Length.MM()*k)/2, y: rimY}
	v.above()
	section := *v
	section.y = v.y + in.Width.MM()*k + gap
	section.section()
	return c.Picture("above", w, section.y+in.Depth.MM()*k+30, v.says()).SVG()
}

// inView draws the inside with its left back corner at x, y; k is pixels a
// millimetre.
type inView struct {
	*pen.Canvas
	p    *plan.Plan
	k    float64
	x, y float64

	still bool // the stacks are not taken hold of
}

// at gives the place on the picture, from above, of a place in the load.
func (v *inView) at(x, y measure.Length) (px, py float64) {
	in, need := v.p.Box.Whole(), v.p.Load.Need
	return v.x + ((in.Length-need.Length).MM()/2+x.MM())*v.k, v.y + (in.Width.MM()-((in.Width-need.Width).MM()/2+y.MM()))*v.k
}

func (v *inView) above() {
	in := v.p.Box.Whole()
	wide, deep := in.Length.MM()*v.k, in.Width.MM()*v.k
	t := max(2.5, v.p.Card.Caliper.MM()*v.k)
	if !v.still {
		v.Text(v.x, v.y-26, "strong", "start", "From above")
	}
	v.Rect("wall", v.x-t/2, v.y-t/2, wide+t, deep+t, "stroke-width", t, "fill", v.p.Card.Inside)
	v.dividers(wide, deep, t)
	nth := map[int]int{}
	for _, s := range v.p.Load.Stacks {
		v.stack(fmt.Sprintf("%s.%d", v.p.Load.Things[s.Thing].ID, nth[s.Thing]), s)
		nth[s.Thing]++
	}
	r := v.rooms()
	show := func(l measure.Length) string { return v.p.Step.ShowDown(l).Text }
	v.Text(v.x-8, v.y+deep/2, "small", "end", show(r.left))
	v.Text(v.x+wide+8, v.y+deep/2, "small", "start", show(r.right))
	v.Text(v.x+wide/2, v.y-8, "small", "middle", show(r.back)+" free")
	v.Text(v.x+wide/2, v.y+deep+18, "small", "middle", show(r.front)+" free")
}

func (v *inView) dividers(wide, deep, t float64) {
	if !v.p.Kind.Divides {
		return
	}
	l := v.p.Load
	for _, y := range l.Along {
		_, py := v.at(0, y)
		v.Line("divider", v.x, py, v.x+wide, py, "stroke-width", t)
	}
	for _, x := range l.Across {
		px, _ := v.at(x, 0)
		v.Line("divider", px, v.y, px, v.y+deep, "stroke-width", t)
	}
	for _, d := range l.Short {
		px, y1 := v.at(d.X, d.From)
		_, y2 := v.at(d.X, d.To)
		v.Line("divider", px, y1, px, y2, "stroke-width", t)
	}
}

func (v *inView) stack(id string, s contents.Stack) {
	thing := v.p.Load.Things[s.Thing]
	x, y := v.at(s.At.Length, s.At.Width+s.Each.Width)
	w, h := s.Each.Length.MM()*v.k, s.Each.Width.MM()*v.k
	label := thing.Name
	if s.Count > 1 {
		label = fmt.Sprintf("%d × %s", s.Count, thing.Name)
	}
	if v.still {
		v.Group("class", "stack-still")
	} else {
		v.Group("class", "stack", "id", "stack-"+id, "data-stack", id, "data-step", pen.Px(v.p.Step.Size.MM()*v.k),
			"tabindex", "0", "role", "button", "aria-label", label)
	}
	v.Title(label)
	drawThing(v.Canvas, thing, s, x, y, w, h)
	short := label
	if pen.Wide(short, pen.SizeOf("small")) > w-4 {
		short = ""
		if s.Count > 1 {
			short = fmt.Sprintf("×%d", s.Count)
		}
	}
	if short != "" && h > 14 && pen.Wide(short, pen.SizeOf("small")) < w {
		v.Text(x+w/2, y+h/2+4, "small on-card", "middle", short)
	}
	v.End()
}

// drawThing draws a thing from above.
func drawThing(c *pen.Canvas, t contents.Thing, s contents.Stack, x, y, w, h float64) {
	if t.Round() && !s.Lying {
		c.Tag("circle", "class", "thing", "cx", x+w/2, "cy", y+h/2, "r", w/2)
		if t.NeckDiameter > 0 {
			c.Tag("circle", "class", "thing", "cx", x+w/2, "cy", y+h/2, "r", w/2*t.NeckDiameter.MM()/t.Size.Length.MM())
		}
		return
	}
	c.Rect("thing", x, y, w, h, "rx", 1.5)
}

// section draws the inside from the front, its near wall taken away.
func (v *inView) section() {
	in, l := v.p.Box.Whole(), v.p.Load
	wide, high := in.Length.MM()*v.k, in.Depth.MM()*v.k
	floor := v.y + high
	v.Text(v.x, v.y-12, "strong", "start", "From the side")
	t := max(2.5, v.p.Card.Caliper.MM()*v.k)
	tallest := measure.Length(0)
	for _, b := range v.p.Blocks {
		tallest = max(tallest, measure.FromMM(b.Hi.Z))
		x := v.x + (b.Lo.X-v.p.Box.Lo.X)*v.k
		top := floor - (b.Hi.Z-v.p.Box.Lo.Z)*v.k
		w, h := (b.Hi.X-b.Lo.X)*v.k, (b.Hi.Z-b.Lo.Z)*v.k
		switch {
		case b.Shape == fold.Ball:
			v.Tag("circle", "class", "thing", "cx", x+w/2, "cy", top+h/2, "r", w/2)
		case b.Neck > 0:
			neck := (b.Hi.Z - b.Shoulder) * v.k
			v.Rect("thing", x+w/2-b.Neck*v.k, top, 2*b.Neck*v.k, neck)
			v.Rect("thing", x, top+neck, w, h-neck)
		default:
			v.Rect("thing", x, top, w, h, "rx", 1.5)
		}
	}
	v.inserts(floor, t)
	if v.p.Box.Shaped {
		v.walls(floor, t)
	} else {
		v.Tag("path", "class", "wall", "stroke-width", t, "fill", "none", "d",
			fmt.Sprintf("M%s %sV%sH%sV%s", pen.Px(v.x-t/2), pen.Px(v.y), pen.Px(floor+t/2), pen.Px(v.x+wide+t/2), pen.Px(v.y)))
	}
	if v.p.Box.Above == fold.Flat {
		v.Line("lid-line", v.x-14, v.y-t/2, v.x+wide+14, v.y-t/2, "stroke-width", t)
	}
	free := measure.FromMM(v.p.Box.Hi.Z) - tallest
	v.Text(v.x+wide+10, v.y+12, "small", "start", v.p.Step.ShowDown(max(free, 0)).Text+" free")
	if l.Room.Below > v.p.Card.Caliper {
		v.Text(v.x+wide+10, floor, "small", "start", v.p.Step.ShowDown(l.Room.Below).Text+" below")
	}
}

// walls draws, of a room that is no block, every face that is seen from its edge.
func (v *inView) walls(floor, t float64) {
	lo := v.p.Box.Lo
	for _, body := range v.p.Box.Assemble(v.p.Card.Caliper, assembly.Closed).Box() {
		for _, f := range body.Faces {
			if math.Abs(f.In.Y) > 0.01 {
				continue
			}
			a, b := f.Poly[0], f.Poly[0]
			for _, q := range f.Poly {
				if q.X < a.X-0.01 || q.X < a.X+0.01 && q.Z < a.Z {
					a = q
				}
				if q.X > b.X+0.01 || q.X > b.X-0.01 && q.Z > b.Z {
					b = q
				}
			}
			v.Line("wall", v.x+(a.X-lo.X)*v.k, floor-(a.Z-lo.Z)*v.k, v.x+(b.X-lo.X)*v.k, floor-(b.Z-lo.Z)*v.k, "stroke-width", t)
		}
	}
}

// inserts draws what stands inside, seen from the front: a strip that runs
// from front to back is a line, anything else the outline it fills.
func (v *inView) inserts(floor, t float64) {
	a := v.p.Box.Assemble(v.p.Card.Caliper, assembly.Closed)
	for _, body := range a.Bodies {
		if body.Piece.Part != net.Insert {
			continue
		}
		lo, hi := fold.Bounds(body)
		left, low := v.p.Box.Lo.X, v.p.Box.Lo.Z
		x1, x2 := v.x+(lo.X-left)*v.k, v.x+(hi.X-left)*v.k
		y1, y2 := floor-(hi.Z-low)*v.k, floor-(lo.Z-low)*v.k
		if hi.X-lo.X < 1 {
			v.Line("divider", x1, y1, x1, y2, "stroke-width", t)
		} else {
			v.Rect("insert", x1, y1, x2-x1, y2-y1)
		}
	}
}

// rooms is the least room between the things and the walls.
type rooms struct{ left, right, front, back measure.Length }

func (v *inView) rooms() rooms {
	in, need := v.p.Box.Whole(), v.p.Load.Need
	r := rooms{math.MaxInt64, math.MaxInt64, math.MaxInt64, math.MaxInt64}
	for _, s := range v.p.Load.Stacks {
		x, y := (in.Length-need.Length)/2+s.At.Length, (in.Width-need.Width)/2+s.At.Width
		r.left, r.front = min(r.left, x), min(r.front, y)
		r.right, r.back = min(r.right, in.Length-x-s.Each.Length), min(r.back, in.Width-y-s.Each.Width)
	}
	return r
}

func (v *inView) says() string {
	var out []string
	for i, s := range v.p.Load.Stacks {
		if i == 20 {
			out = append(out, "and more")
			break
		}
		out = append(out, fmt.Sprintf("%d %s at %s from the left and %s from the front", s.Count, v.p.Load.Things[s.Thing].Name,
			v.p.Step.Show(s.At.Length), v.p.Step.Show(s.At.Width)))
	}
	r := v.rooms()
	show := func(l measure.Length) string { return v.p.Step.ShowDown(l).String() }
	return fmt.Sprintf("From above: %s. Free: %s left, %s right, %s front, %s back.", strings.Join(out, "; "),
		show(r.left), show(r.right), show(r.front), show(r.back))
}

// Arrangement draws a small picture of how things would lie, from above.
func Arrangement(l contents.Load, w, h float64) string {
	k := min((w-8)/l.Need.Length.MM(), (h-8)/l.Need.Width.MM())
	wide, deep := l.Need.Length.MM()*k, l.Need.Width.MM()*k
	x, y := (w-wide)/2, (h-deep)/2
	c := &pen.Canvas{}
	c.Rect("floor", x, y, wide, deep)
	for _, a := range l.Along {
		c.Line("divider", x, y+deep-a.MM()*k, x+wide, y+deep-a.MM()*k, "stroke-width", 1.5)
	}
	for _, a := range l.Across {
		c.Line("divider", x+a.MM()*k, y, x+a.MM()*k, y+deep, "stroke-width", 1.5)
	}
	for _, d := range l.Short {
		c.Line("divider", x+d.X.MM()*k, y+deep-d.From.MM()*k, x+d.X.MM()*k, y+deep-d.To.MM()*k, "stroke-width", 1.5)
	}
	for _, s := range l.Stacks {
		sw, sh := s.Each.Length.MM()*k, s.Each.Width.MM()*k
		sx, sy := x+s.At.Length.MM()*k, y+deep-s.At.Width.MM()*k-sh
		drawThing(c, l.Things[s.Thing], s, sx, sy, sw, sh)
		if s.Count > 1 && sw > 14 && sh > 12 {
			c.Text(sx+sw/2, sy+sh/2+4, "small on-card", "middle", fmt.Sprintf("×%d", s.Count))
		}
	}
	return c.Picture("arrangement", w, h, l.Says).SVG()
}

// Measuring draws how a shape is measured.
func Measuring(shape string) string {
	c := &pen.Canvas{}
	arrow := func(x1, y1, x2, y2 float64, word string) {
		c.Line("flag", x1, y1, x2, y2)
		c.Tag("circle", "class", "cut-mark", "cx", x1, "cy", y1, "r", 2.0)
		c.Tag("circle", "class", "cut-mark", "cx", x2, "cy", y2, "r", 2.0)
		if y1 == y2 {
			c.Text((x1+x2)/2, y1+14, "small", "middle", word)
		} else {
			c.Text(x1+7, (y1+y2)/2+4, "small", "start", word)
		}
	}
	says := "a thing between two blocks, with its measures"
	switch shape {
	case "ball":
		c.Tag("circle", "class", "thing", "cx", 70.0, "cy", 42.0, "r", 32.0)
		arrow(38, 84, 102, 84, "diameter")
	case "cylinder":
		c.Tag("path", "class", "thing", "d", "M46 24h48v50H46zM54 10h32v14H54z")
		arrow(46, 84, 94, 84, "diameter")
		arrow(106, 10, 106, 74, "height")
		arrow(38, 10, 38, 24, "")
		c.Text(34, 21, "small", "end", "neck")
	case "flat":
		c.Tag("path", "class", "thing", "d", "M30 60h80v5H30zM30 54h80v5H30zM30 48h80v5H30z")
		c.Tag("path", "class", "thing", "d", "M52 48q18-22 36 0z")
		arrow(120, 48, 120, 53, "bare")
		arrow(18, 37, 18, 53, "")
		c.Text(2, 26, "small", "start", "decorated")
		arrow(30, 84, 110, 84, "length")
	case "soft":
		c.Tag("path", "class", "thing", "d", "M28 66q-6-38 42-38t42 38q-42 8-84 0z")
		c.Tag("path", "class", "offcut", "d", "M28 44h84")
		arrow(119, 28, 119, 68, "at rest")
		c.Text(2, 22, "small", "start", "pressed")
		c.Line("flag", 16, 26, 24, 43)
		arrow(28, 84, 112, 84, "length")
	default:
		c.Tag("path", "class", "thing", "d", "M28 34h64v40H28zM28 34l18-16h64L92 34zM92 34l18-16v40L92 74z")
		arrow(28, 84, 92, 84, "length")
		arrow(118, 18, 118, 58, "height")
		c.Text(112, 78, "small", "start", "width")
	}
	return c.Picture("measuring", 170, 102, says).SVG()
}
