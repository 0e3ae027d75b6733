package contents

import (
	"cmp"
	"math"
	"slices"

	"brevium/core/brief"
	"brevium/core/measure"
)

// Room is what the things get beyond their own size. Says tells where each figure that nobody gave comes from.
type Room struct {
	Around, Between, Padding, Below, Above, Proud Length
	Said                                          bool // how much lies between was given
	Says                                          []string
}

// side is all that is added on one side.
func (r Room) side() Length { return r.Around + r.Padding }

// usual gives a round figure in the unit people would choose it in.
func usual(u measure.Unit, sixteenths, mm int) Length {
	if u == measure.Inches {
		return Length(sixteenths) * measure.Inch / 16
	}
	return Length(mm) * measure.Millimetre
}

// ReadRoom reads the room the brief gives and fills in the rest by the kind of things that go in.
func ReadRoom(b *brief.Brief, r *brief.Reader, things []Thing, divided bool) Room {
	u := r.Units
	var room Room
	open := func(field string, text brief.Text, what string, otherwise Length, because string) Length {
		if text != "" {
			l, _ := r.LengthOrNone("room."+field, text)
			return l
		}
		if because != "" {
			room.Says = append(room.Says, what+" "+r.Say(otherwise)+": "+because+".")
		}
		return otherwise
	}
	var fragile, food, standing string
	for _, t := range things {
		if t.Fragile {
			fragile = t.Name
		}
		if t.Food {
			food = t.Name
		}
		if t.Shape == "flat" && t.Lie == MayNot {
			standing = t.Name
		}
	}
	around, why := usual(u, 2, 3), "enough for a fingertip"
	if standing != "" {
		around, why = usual(u, 4, 6), "so that you can flick through the "+standing+""
	}
	room.Around = open("around", b.Room.Around, "Finger room", around, why+" on each side")
	pad, below, whyPad := Length(0), Length(0), ""
	if fragile != "" {
		pad, below, whyPad = usual(u, 2, 3), usual(u, 4, 6), "the "+fragile+" is fragile and needs tissue"
	} else if food != "" {
		below, whyPad = usual(u, 1, 1), "a sheet of food paper under the "+food
	}
	room.Padding = open("padding", b.Room.Padding, "Tissue around", pad, ifThen(pad > 0, whyPad))
	room.Below = open("below", b.Room.Below, "Tissue below", below, whyPad)
	between, whyBetween := Length(0), ""
	if divided {
		between, whyBetween = usual(u, 1, 1), "on each side of a divider, so that things slide in"
	} else if fragile != "" {
		between, whyBetween = usual(u, 2, 3), "the "+fragile+" must not knock against the next one"
	}
	room.Said = b.Room.Between != ""
	room.Between = open("between", b.Room.Between, "Between things", between, whyBetween)
	room.Above = open("above", b.Room.Above, "Room under the lid", usual(u, 1, 1), "clear of the lid")
	room.Proud = open("proud", b.Room.Proud, "Sticking out above the rim", 0, "")
	return room
}

func ifThen(when bool, s string) string {
	if when {
		return s
	}
	return ""
}

// Guilty names, for the length, width and height an arrangement wants, the thing that asks for most of it (its
// place in the list) and the measure of it that lies that way: "contents.2.diameter".
func (l Load) Guilty(way func(Size) Length) (thing int, measure string) {
	best := Length(-1)
	for _, s := range l.Stacks {
		at := way(s.Each)
		if at > best {
			best, thing, measure = at, s.Thing, l.Things[s.Thing].Measure(at)
		}
	}
	return thing, measure
}

// Measure names the measure of a thing that is so long.
func (t Thing) Measure(l Length) string {
	switch {
	case t.Shape == "ball":
		return "diameter"
	case t.Shape == "cylinder" && l == t.Size.Height:
		return "height"
	case t.Shape == "cylinder":
		return "diameter"
	case l == t.Size.Length:
		return "length"
	case l == t.Size.Width:
		return "width"
	case t.Shape == "flat":
		return "thickness"
	}
	return "height"
}

// Capacity is how many of a thing an inside takes with room round them, and how they lie.
func Capacity(t Thing, room Room, inside Size) (most int, says string) {
	side, gap := room.side(), room.Between
	l, w := inside.Length-2*side, inside.Width-2*side
	h := inside.Height - room.Below - room.Above + room.Proud
	for _, way := range t.Ways() {
		for range 2 {
			layers := min(int(max(h, 0)/way.Size.Height), t.Stack)
			g := group{way: way, columns: across(l, way.Size.Length, gap), rows: across(w, way.Size.Width, gap), layers: layers}
			n := g.columns * g.rows * layers
			if t.Round() && way.ID == "h" {
				if s, count := staggered(l, w, way, gap); count*layers > n {
					g, n = s, count*layers
					g.layers = layers
				}
			}
			if n > most {
				t.Count = n
				most, says = n, g.says(t)
			}
			way.Size.Length, way.Size.Width = way.Size.Width, way.Size.Length
		}
	}
	return most, says
}

// across is how many of a size stand in a row.
func across(room, size, gap Length) int {
	if room < size {
		return 0
	}
	return int((room + gap) / (size + gap))
}

// staggered is the best staggered set of round things on a floor.
func staggered(l, w Length, way Way, gap Length) (group, int) {
	d := way.Size.Length + gap
	columns := across(l, way.Size.Length, gap)
	if columns == 0 || w < way.Size.Width {
		return group{}, 0
	}
	pitch := measure.FromMM(d.MM() * math.Sqrt(3) / 2).Up(measure.Millimetre / 100)
	rows := int((w-way.Size.Width)/pitch) + 1
	inOdd := columns
	if Length(columns)*d-gap+d/2 > l {
		inOdd--
	}
	return group{way: way, columns: columns, rows: rows, stagger: true}, (rows+1)/2*columns + rows/2*inOdd
}

// Share shares things out among rooms, each of which takes such a part of them: whole kinds, the bulkiest first, to
// the room that has most left, when there are as many kinds as rooms; else some of each kind to every room. It
// gives for each room how many of each kind go in.
func Share(things []Thing, parts []float64) [][]int {
	out := make([][]int, len(parts))
	filled := make([]float64, len(parts))
	for r := range out {
		out[r] = make([]int, len(things))
	}
	emptiest := func() (best int) {
		for r := range parts {
			if filled[r]/parts[r] < filled[best]/parts[best]-1e-9 {
				best = r
			}
		}
		return best
	}
	order := make([]int, len(things))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(things[b].bulk(), things[a].bulk()) })
	for _, i := range order {
		t := things[i]
		step := t.Count
		if len(things) < len(parts) {
			step = 1
		}
		for n := 0; n < t.Count; n += step {
			r := emptiest()
			out[r][i] += step
			filled[r] += float64(step) * t.Size.Length.MM() * t.Size.Width.MM() * t.Size.Height.MM()
		}
	}
	return out
}

// bulk is how much room all of a kind takes, in cubic millimetres.
func (t Thing) bulk() float64 {
	return float64(t.Count) * t.Size.Length.MM() * t.Size.Width.MM() * t.Size.Height.MM()
}
