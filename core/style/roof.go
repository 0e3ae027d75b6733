package style

import (
	"fmt"
	"math"

	"brevium/core/fasteners"
	"brevium/core/measure"
	"brevium/core/net"
)

// A roof of two slopes stands on a box w wide, its ends folded in as gussets or
// pressed flat. How far the slopes lean is nobody's to say: it is solved.

// RoofRise is how high a roof stands over its eaves: sqrt(s² - (w/2)²) for slopes s over a width w.
func RoofRise(slope, width Length) Length {
	s, half := slope.MM(), width.MM()/2
	return measure.FromMM(math.Sqrt(max(0, s*s-half*half)))
}

// slopes settles how long the slopes are: as asked, or long enough for what stands above the eaves to lie inside
// the roof at every height; with gussets the ends lean in too.
func slopes(j *Spec, id string, d Dims, usual Length, gussets bool) Length {
	if j.Proud > 0 && !j.Asked(id) {
		usual = max(usual, slopesOver(j, d, gussets))
	}
	least := Bound{At: (d.Width*11/20 + j.Mark()).Up(j.Mark()), Why: "shorter ones don't meet over such a width"}
	return j.Measure(id, usual, least, most(3*d.Width, "width", "longer ones make a steeple"))
}

func slopesOver(j *Spec, d Dims, gussets bool) Length {
	top, t := (j.Proud + 3*j.T()).MM(), j.T().MM()
	beside := j.Beside.MM() + (d.Width-j.Need.Width).MM()/2 - 2*t
	if gussets {
		beside = min(beside, j.Beside.MM()+(d.Length-j.Need.Length).MM()/2-2*t)
	}
	for roof := (d.Width * 11 / 20).Up(j.Mark()); roof <= 3*d.Width; roof += j.Mark() {
		// At the height of their upper edges the roof has come in by this much.
		rise := RoofRise(roof, d.Width).MM()
		if rise > top && d.Width.MM()/2*top/rise <= beside {
			return roof
		}
	}
	j.Problem("room.proud", fmt.Sprintf("Your things stand %s above the walls, too close to them for a roof.",
		j.Say(j.Proud)), "Leave more finger room around them, or let less stick out.", "room.proud", "0")
	return 0
}

// ribbonHole punches a hole in the middle of faces so wide and high, below their
// upper edges; beside stays free for what is stuck behind them.
func ribbonHole(j *Spec, p *net.Piece, hole, high Length, faces ...string) {
	drop := j.Measure("drop", max(10*mm, hole/2+3*mm).Up(j.Mark()), Bound{At: hole/2 + 5*mm/2, Why: "the edge would tear"},
		mostOf(high-hole/2-5*mm/2, "pinch", 1, "the hole would lie in the fold"))
	for _, f := range faces {
		top := p.Spot(f, 1, 0)
		p.Punch(net.Point{X: top.X, Y: top.Y + drop}, hole/2, 0, 0)
	}
}

// holeSize settles how wide a ribbon's hole is in a face so wide and high.
func holeSize(j *Spec, wide, high Length) Length {
	round := most(wide-2*j.Wide()-6*mm, "length", "some card must stay around it")
	if high/3 < round.At {
		round = mostOf(high/3, "pinch", 3, round.Why)
	}
	return j.Measure("hole", 6*mm, Bound{At: fasteners.Narrowest, Why: "a ribbon needs a larger hole"}, round)
}
