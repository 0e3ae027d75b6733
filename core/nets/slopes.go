package nets

import "brevium/core/net"

// Slopes is a tube of four walls whose back and front go on as slopes that lean together; the ends between them fold in
// as gussets. How far the slopes lean is solved.
type Slopes struct {
	Name          string
	Length, Width Length // of what it stands round
	Slope, Seam   Length
	T, Mark       Length // the card's caliper, and what the tools measure
}

// fill fills a picture of seven columns: back, half an end, the other, front, half an end, the other, seam.
func (s Slopes) fill(picture string, rows ...Length) *net.Piece {
	half := s.Width / 2
	cols := net.Cols(s.Length, half, s.Width-half, s.Length, half, s.Width-half, s.Seam)
	return net.Grid(s.Name, cols, rows, picture)
}

// mitreSeam slants both ends of the seam, which runs from top to bottom along the right side.
func (s Slopes) mitreSeam(p *net.Piece, top, bottom Length) {
	for _, end := range []struct{ at, in Length }{{top, s.Mark}, {bottom, -s.Mark}} {
		p.CutAlong(net.Point{X: p.Width - s.Seam, Y: end.at}, net.Point{X: p.Width, Y: end.at + end.in})
		p.Discard(net.Point{X: p.Width - s.Seam/20, Y: end.at + end.in/20})
	}
}

// gussets splits the two end cells of a tube along the lines from a tip in the middle of their upper edge to their
// lower corners: wings at the walls beside, the middle keeps the name.
func gussets(p *net.Piece, kind net.Kind, slant int, way net.Fold, cells ...string) {
	beside := map[string][2]string{"right": {"back", "front"}, "left": {"front", "back"}}
	for i, side := range []string{"right", "left"} {
		cell, wall := cells[i], beside[side]
		tip := p.Spot(cell, 1, 0)
		p.Split(cell, kind, p.Spot(cell, 0, 2), tip, side+"-"+wall[0]+"-wing")
		p.Split(cell, kind, tip, p.Spot(cell, 2, 2), side+"-"+wall[1]+"-wing")
		p.Free(slant, way, cell, side+"-"+wall[0]+"-wing", side+"-"+wall[1]+"-wing")
		p.Role("wing", side+"-"+wall[0]+"-wing", side+"-"+wall[1]+"-wing")
	}
}

var wings = []string{"right-back-wing", "right-front-wing", "left-front-wing", "left-back-wing"}

// Pinched is a tube whose slopes are pinched flat above its walls, and whose base is four flaps that lap. Depth is
// the height of the walls, flaps the height of the row of flaps; front and side are how far the flaps of front and
// back, and of the sides, reach in. Sticks is the width that their ends must keep to be stuck.
func (s Slopes) Pinched(depth, flaps, front, side, sticks Length) *net.Piece {
	p := s.fill(`
		back-top    right-top    right-top    front-top    left-top    left-top    seam-top
		back        right        right        front        left        left        seam
		back-flap | right-flap   right-flap | front-flap | left-flap   left-flap | .`, s.Slope, depth, flaps)
	lean, slant := p.Solved(40), p.Solved(110)
	p.Free(lean, net.Valley, "back", "back-top")
	p.Free(lean, net.Valley, "front", "front-top")
	p.Free(lean, net.Valley, "seam", "seam-top")
	p.Free(lean, net.Mountain, "right", "right-top")
	p.Free(lean, net.Mountain, "left", "left-top")
	gussets(p, net.Bend, slant, net.Valley, "right-top", "left-top")
	for _, wall := range []string{"back", "right", "front", "left", "seam"} {
		p.Bend(wall, wall+"-top")
	}
	p.Twice(90, 0, net.Valley, "back-top", "right-back-wing")
	p.Twice(90, 0, net.Valley, "front-top", "right-front-wing", "left-front-wing")
	p.Twice(90, 0, net.Valley, "seam-top", "left-back-wing")
	p.Meet("back-top", "front-top")
	for _, f := range []struct {
		name        string
		side, reach Length
	}{{"back", s.Length, front}, {"front", s.Length, front}, {"right", s.Width, side}, {"left", s.Width, side}} {
		// Wedged, but still wide enough at its end to be stuck.
		wedge := max(s.Mark, min(f.reach/5, (f.side-2*s.T-sticks)/2).Down(s.Mark))
		p.Tab(f.name+"-flap", f.name, net.TabShape{Reach: f.reach, Relief: s.T, Mitre: wedge})
	}
	s.mitreSeam(p, 0, s.Slope+depth)
	p.Seam("seam", "left", "back")
	p.GlueLapped("front-flap", "back-flap", 1)
	p.GlueLapped("right-flap", "back-flap", 2)
	p.GlueLapped("left-flap", "back-flap", 3)
	p.Stand("back-flap", s.Length, s.Width)
	p.FoldUp("back")
	p.FoldUp(append([]string{"right", "front", "left", "seam", "seam-top"}, wings...)...)
	p.Tell("wrap the four walls round to the seam")
	p.GlueNow("seam-top", "back-top")
	p.FoldUp("left-flap", "right-flap")
	p.FoldUp("front-flap")
	p.Closing(append([]string{"back-top", "front-top", "right-top", "left-top", "seam-top"}, wings...)...)
	p.Tell("pinch the top flat")
	return p
}

// Gable is a cap: slopes over a skirt, with a ridge of strips that lie on each other. The gussets' creases are scored, or
// only bent.
func (s Slopes) Gable(ridge, skirt Length, crease net.Kind) *net.Piece {
	p := s.fill(`
		back-seal   right-back-seal right-front-seal  front-seal   left-front-seal left-back-seal  .
		back-roof   right-gusset    right-gusset      front-roof   left-gusset     left-gusset     seam-top
		back        right           right             front        left            left            seam`, ridge, s.Slope, skirt)
	lean, slant := p.Solved(50), p.Solved(120)
	for _, wall := range [][3]string{{"back", "back-roof", "back-seal"}, {"front", "front-roof", "front-seal"}} {
		p.Free(lean, net.Valley, wall[0], wall[1])
		p.Free(lean, net.Mountain, wall[1], wall[2])
	}
	p.Free(lean, net.Valley, "right", "right-gusset")
	p.Free(lean, net.Valley, "left", "left-gusset")
	p.Free(lean, net.Valley, "seam", "seam-top")
	gussets(p, crease, slant, net.Mountain, "right-gusset", "left-gusset")
	for _, wing := range [][4]string{{"right", "back", "back-roof", "back-seal"},
		{"right", "front", "front-roof", "front-seal"}, {"left", "front", "front-roof", "front-seal"}} {
		name, top := wing[0]+"-"+wing[1]+"-wing", wing[0]+"-"+wing[1]+"-seal"
		p.Twice(90, 180, net.Valley, name, wing[2])
		p.Twice(90, 180, net.Valley, top, wing[3])
	}
	p.Twice(90, 180, net.Valley, "left-back-wing", "seam-top")
	p.Turn(180, net.Mountain, "right-back-seal", "right-front-seal")
	p.Turn(180, net.Mountain, "left-back-seal", "left-front-seal")
	s.mitreSeam(p, ridge, p.Height)
	p.Seam("seam", "left", "back")
	for i, wing := range []string{"right-back", "right-front", "left-front", "left-back"} {
		wall := []string{"back", "front", "front", "back"}[i]
		p.Free(lean, net.Valley, wing+"-wing", wing+"-seal")
		p.Tuck(wing+"-wing", wall+"-roof", 1+i/3)
	}
	// A steep roof brings the wings of a gusset together well below the ridge.
	p.Crowds = [][2]string{{"right-back-wing", "right-front-wing"}, {"left-front-wing", "left-back-wing"}}
	p.Glue("right-back-seal", "back-seal")
	p.Glue("left-back-seal", "back-seal")
	p.GlueOver("right-front-seal", "back-seal", 2)
	p.GlueOver("left-front-seal", "back-seal", 2)
	p.GlueOver("front-seal", "back-seal", 3)
	p.Role("ridge strip", "back-seal", "front-seal", "right-back-seal", "right-front-seal", "left-front-seal",
		"left-back-seal")
	p.Role("roof slope", "back-roof", "front-roof")
	p.Role("gusset", "right-gusset", "left-gusset")
	moved := append([]string{"seam-top", "right-back-seal", "right-front-seal", "left-front-seal", "left-back-seal"},
		wings...)
	p.Root = "back"
	p.FoldUp(append([]string{"right", "front", "left", "seam"}, moved...)...)
	p.Tell("wrap the four walls round to the seam")
	p.GlueNow("seam-top", "back-roof")
	p.FoldUp(append([]string{"back-roof", "front-roof", "right-gusset", "left-gusset", "back-seal", "front-seal"},
		moved...)...)
	p.Tell("push the gussets in and bring the roof slopes together")
	return p
}
