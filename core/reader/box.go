package reader

import (
	"fmt"
	"strings"

	"brevium/core/assembly"
	"brevium/core/brief"
	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/shop"
	"brevium/core/style"
)

var scoreList = &style.Style{
	ID: "score-list", Title: "Someone else's measurements", Level: 2, Typed: true,
	About: "Type the sizes and scores that someone gave you, and see which box they make.",
	Build: build,
}

func init() { style.Register(scoreList) }

// list is a list of scores on its way to a box.
type list struct {
	*style.Spec
	pieces []typed
	by     map[string]*typed
	box    *style.Box
	size   style.Dims // of what the contents stand in, from score to score
	claims []fold.Check
}

func build(j *style.Spec) *style.Box {
	l := &list{Spec: j, pieces: guess(j.Scores), by: map[string]*typed{}}
	for i := range l.pieces {
		p := &l.pieces[i]
		if l.by[p.role] != nil && p.role != "liner" && p.role != "panel" && p.role != "band" {
			j.Problem(p.Field+"is", fmt.Sprintf("Two pieces are both %s.", strings.ToLower(Label(p.role))),
				"Choose what each of them is, or make a box of each.")
			return nil
		}
		l.by[p.role] = p
	}
	if !l.base() {
		return nil
	}
	for i := range l.pieces {
		l.add(&l.pieces[i])
	}
	l.claimStated()
	l.box.Claims = append(l.claims, l.box.Claims...)
	return l.box
}

// bases are the roles a box can stand on, the first that is there.
var bases = []string{"tray", "hinged", "strip", "pinch", "tube", "cap", "wrapper", "band", "panel"}

// base makes the piece that the contents stand in.
func (l *list) base() bool {
	for _, role := range bases {
		if p := l.by[role]; p != nil {
			n, size, ok := l.net(p)
			if !ok {
				return false
			}
			l.size = size
			l.box = &style.Box{Size: size, Strength: 2, Plain: true}
			l.box.Add(n)
			return true
		}
	}
	l.Problem(l.pieces[0].Field+"is", "A lid or a liner needs the tray it belongs to.",
		"Add the tray's cut size and scores, or call this piece a tray.", l.pieces[0].Field+"is", "tray")
	return false
}

// net makes the piece of a role, and the size it has from score to score.
func (l *list) net(p *typed) (*net.Piece, style.Dims, bool) {
	switch p.role {
	case "tray", "lid":
		return l.openNet(p)
	case "tube":
		return l.tubeNet(p)
	case "strip":
		return l.stripNet(p)
	case "hinged":
		return l.hingedNet(p)
	case "pinch":
		return l.pinchNet(p)
	case "cap":
		return l.capNet(p)
	case "wrapper":
		return l.wrapperNet(p)
	case "band":
		return l.sleeveNet(p)
	}
	n := net.Grid(p.Name, net.Cols(p.Wide()), net.Rows(p.High()), "panel")
	n.Root = "panel"
	return n, style.Dims{Length: p.Wide(), Width: p.High()}, true
}

// add puts a piece over, round or into the base.
func (l *list) add(p *typed) {
	base := l.box.Parts[0]
	if p.Name == base.Name {
		return
	}
	floor := base.Name + "/" + base.Piece.Root
	switch p.role {
	case "lid":
		if lid, over, ok := l.net(p); ok {
			l.over(lid, p, over, floor)
		}
	case "tube", "band":
		l.round(p, base, floor)
	case "cap":
		if cap, d, ok := l.net(p); ok {
			l.box.PutOn(cap, assembly.Up, assembly.Place{Face: "back", On: base.Name + "/back", Down: (d.Depth - l.size.Depth) / 2,
				Out: (d.Width - l.size.Width) / 2})
			l.box.GoesOver(cap.Name, base.Name, "left", "right", "front", "back")
			l.clearance(p, d.Length-l.size.Length, d.Width-l.size.Width, 0)
		}
	case "wrapper":
		if cover, d, ok := l.net(p); ok {
			l.box.Add(cover, assembly.Place{Face: "bottom", On: floor, Out: l.T(), Quarters: l.quarter(d.Length, d.Width)})
			l.box.Stick(floor, cover.Name+"/bottom", true)
			l.looseCover(p, d)
		}
	case "liner":
		l.liner(p, floor)
	case "panel":
		n, _, _ := l.net(p)
		l.box.Add(n, assembly.Place{Face: "panel", On: floor, Out: 40 * measure.Millimetre})
	}
}

// looseCover says when a cover's middle is much wider than what lies on it.
func (l *list) looseCover(p *typed, d style.Dims) {
	width := l.size.Width
	if l.quarter(d.Length, d.Width) > 0 {
		width = l.size.Length
	}
	if over := d.Width - width - 4*l.T(); over > max(l.Mark(), measure.Millimetre) {
		l.warn("loose-cover", "Move its scores together.", "The middle of the %s is %s wide, but the box on it is only %s.", p.Name,
			l.Say(d.Width), l.Say(width))
	}
}

// quarter turns a piece that is longer the other way than the base.
func (l *list) quarter(length, width Length) int {
	if (length > width) != (l.size.Length > l.size.Width) && length != width && l.size.Length != l.size.Width {
		return 1
	}
	return 0
}

// over sets a lid over the tray.
func (l *list) over(lid *net.Piece, p *typed, d style.Dims, floor string) {
	quarters := l.quarter(d.Length, d.Width)
	if quarters > 0 {
		d.Length, d.Width = d.Width, d.Length
	}
	l.box.PutOn(lid, assembly.Up, assembly.Place{Face: lid.Root, On: floor, Out: -(l.size.Depth + l.T()/2), Over: true,
		Quarters: quarters})
	l.box.GoesOver(lid.Name, l.box.Parts[0].Name, "left", "right", "front", "back")
	n := 0
	if len(p.Cols) == 5 || p.Walls == "pinwheel" {
		n = 1
	}
	l.clearance(p, d.Length-l.size.Length, d.Width-l.size.Width, n)
	if d.Depth > l.size.Depth {
		l.Warn(brief.Warning{Code: "deep-lid", Text: fmt.Sprintf(
			"The %s is %s deep, but what it covers is only %s. It would stand on the table, not on the rim.",
			p.Name, l.Say(d.Depth), l.Say(l.size.Depth)), Fix: "Score its walls lower, or the tray's higher."})
	}
}

// round slips a sleeve or a band round the base. The seam inside it lies on
// whichever wall it was scored beside, and the drawer keeps clear of it.
func (l *list) round(p *typed, base *assembly.Part, floor string) {
	n, d, ok := l.sleeveNet(p)
	if !ok {
		return
	}
	quarters := 0
	if d.Width > l.size.Width+l.size.Width/4 && p.role == "tube" && d.Width > l.size.Length &&
		d.Length <= l.size.Width+d.Depth {
		quarters = 1
	}
	place := assembly.Place{Face: "bottom", On: floor, Out: l.T(), Quarters: quarters}
	length, width := l.size.Length, l.size.Width
	if quarters == 0 && p.role == "tube" {
		place.Right = (d.Length - length) / 2
	} else if quarters > 0 {
		length, width = width, length
	}
	for _, g := range n.Glues {
		switch g.On {
		case "bottom":
			place.Out += l.T()
		case "front":
			place.Down = l.T() / 2
		case "back":
			place.Down = -l.T() / 2
		}
	}
	l.box.PutOn(n, assembly.Aside, place)
	if quarters == 0 {
		l.box.GoesOver(n.Name, base.Name, "front", "back")
	} else {
		l.box.GoesOver(n.Name, base.Name, "left", "right")
	}
	l.clearance(p, d.Width-width, d.Depth-l.size.Depth, 0)
	if p.role == "tube" && d.Length > length+l.Mark() {
		l.Warn(brief.Warning{Code: "long-sleeve", Text: fmt.Sprintf("The %s is %s long, but what slides in it is "+
			"only %s.", p.Name,
			l.Say(d.Length), l.Say(length)), Fix: "Cut it shorter, or make the drawer longer."})
	}
}

// clearance notes how much larger a piece is than what it goes over, this way and
// that, and warns when this card wants more, or much less would do.
func (l *list) clearance(p *typed, one, other Length, layers int) {
	c := min(one, other)
	if l.box.Clearance == 0 {
		l.box.Clearance = c
	}
	even := max(l.Mark(), measure.Millimetre/2)
	if p.role == "tube" {
		even *= 2 // its height has the drawer's layers to go round, and makers give it a mark more
	}
	need, loose := l.Over(l.box.Parts[0].Name, p.Name, layers), shop.Clearance(l.T(), layers, 0, shop.Slack["loose"], l.Mark())
	switch {
	case c < need:
		l.Warn(brief.Warning{Code: "tight-lid", Text: fmt.Sprintf("The %s is %s larger than what it covers. With "+
			"this card it needs %s.", p.Name, l.Say(max(c, 0)), l.Say(need)),
			Fix: "Move its scores out, cut it larger, or use thinner card."})
	case max(one, other)-c >= even && c >= 0:
		l.warn("uneven-lid", "Check its scores: it should be larger by the same amount both ways.",
			"The %s is %s larger than what it covers one way, and %s the other.", p.Name, l.Say(c), l.Say(max(one, other)))
	case c > loose+max(l.Mark(), measure.Millimetre)/2:
		l.Warn(brief.Warning{Code: "loose-lid", Text: fmt.Sprintf("The %s is %s larger than what it covers, %s more "+
			"than it needs. It will slide about.",
			p.Name, l.Say(c), l.Say(c-need)), Fix: "Move its scores in, or cut it smaller."})
	}
}

// inside measures the inside of the base, folded by itself.
func (l *list) inside() style.Dims {
	alone := &style.Box{}
	piece := *l.box.Parts[0].Piece
	alone.Add(&piece)
	alone.Find()
	alone.MeasureRoom(alone.Assemble(l.T(), assembly.Closed), style.Dims{})
	return alone.Inside
}

// liner lays a liner on the floor, or says that it can't go in.
func (l *list) liner(p *typed, floor string) {
	w, h := p.Wide(), p.High()
	if (w > h) != (l.size.Length > l.size.Width) {
		w, h = h, w
	}
	n := net.Grid(p.Name, net.Cols(w), net.Rows(h), "liner")
	n.Part, n.Root = net.Liner, "liner"
	inside := l.inside()
	fits := w <= inside.Length && h <= inside.Width
	c := fold.Check{Name: p.Name + " goes in", Holds: fits,
		Figure: fmt.Sprintf("%s × %s on a floor of %s × %s", l.Say(w), l.Say(h),
			l.Say(inside.Length.Down(l.Mark())), l.Say(inside.Width.Down(l.Mark())))}
	if !fits {
		c.Figure += ": it can't go in"
	} else {
		l.box.Stick(p.Name+"/liner", floor, true)
	}
	l.box.Claims = append(l.box.Claims, c)
	l.box.Add(n, assembly.Place{Face: "liner", On: floor, Out: -l.T()})
}

// claimStated compares the size that was stated with what the numbers give:
// it may have meant the outside, the inside or from score to score.
func (l *list) claimStated() {
	if l.Stated == nil {
		return
	}
	t, s := l.T(), *l.Stated
	mark := max(l.Mark(), measure.Millimetre) // what is inside is said rounded down
	near := func(a, of, by Length) bool {
		return a == 0 || (a-of).Abs() < mark/2 || by < 0 && a <= of && a > of-mark
	}
	c := fold.Check{Name: "the finished size matches"}
	for _, of := range []struct {
		word string
		by   Length
	}{{"from score to score", 0}, {"outside", t}, {"inside", -2 * t}} {
		d := style.Dims{Length: l.size.Length + of.by, Width: l.size.Width + of.by, Depth: l.size.Depth + of.by/2}
		if (near(s.Length, d.Length, of.by) && near(s.Width, d.Width, of.by) ||
			near(s.Length, d.Width, of.by) && near(s.Width, d.Length, of.by)) &&
			near(s.Depth, d.Depth, of.by) {
			c.Holds, c.Figure = true, of.word
			break
		}
	}
	if !c.Holds {
		c.Figure = fmt.Sprintf("these scores give %s × %s × %s from score to score", l.Say(l.size.Length), l.Say(l.size.Width),
			l.Say(l.size.Depth))
	}
	l.box.Claims = append(l.box.Claims, c)
}
