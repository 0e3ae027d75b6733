package draw

import (
	"strings"

	"brevium/core/plan"
	"brevium/core/words"
	"brevium/draw/pen"
)

// aboveRooms draws the small boxes of a box beside each other, each from above and
// in section, with what goes in it. What lies where is settled by sharing out, so
// nothing is taken hold of.
func aboveRooms(p *plan.Plan, w, h float64) string {
	const rimX, rimY, gap, name = 46.0, 62.0, 56.0, 22.0
	n := float64(len(p.Rooms))
	long, wide, deep := 1.0, 1.0, 1.0
	for _, r := range p.Rooms {
		in := r.Box.Whole()
		long, wide, deep = max(long, in.Length.MM()), max(wide, in.Width.MM()), max(deep, in.Depth.MM())
	}
	k := min((w/n-2*rimX)/long, (h-rimY-gap-60)/(wide+deep))
	c := &pen.Canvas{}
	var says []string
	for i, r := range p.Rooms {
		in := r.Box.Whole()
		left := w / n * float64(i)
		v := &inView{Canvas: c, p: p.InRoom(r), k: k, x: left + (w/n-in.Length.MM()*k)/2, y: rimY, still: true}
		c.Text(v.x, name, "strong", "start", words.Capital(r.Name))
		if len(r.Load.Stacks) == 0 {
			c.Text(v.x, name+16, "small", "start", "empty")
			v.empty()
			continue
		}
		v.above()
		section := *v
		section.y = rimY + wide*k + gap
		section.section()
		says = append(says, words.Capital(r.Name)+". "+v.says())
	}
	return c.Picture("above", w, rimY+gap+(wide+deep)*k+30, strings.Join(says, " ")).SVG()
}

// empty draws a room that nothing goes in.
func (v *inView) empty() {
	in := v.p.Box.Whole()
	t := max(2.5, v.p.Card.Caliper.MM()*v.k)
	v.Rect("wall", v.x-t/2, v.y-t/2, in.Length.MM()*v.k+t, in.Width.MM()*v.k+t, "stroke-width", t, "fill", v.p.Card.Inside)
}
