package contents

import (
	"brevium/core/brief"
	"brevium/core/measure"
)

// Room is what the things get beyond their own size. Says tells where each
// figure that nobody gave comes from.
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

// ReadRoom reads the room the brief gives and fills in the rest by the kind of
// things that go in.
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
		around, why = usual(u, 4, 6), "so that the "+standing+" can be leafed through"
	}
	room.Around = open("around", b.Room.Around, "Finger room", around, why+" on each side")
	pad, below, whyPad := Length(0), Length(0), ""
	if fragile != "" {
		pad, below, whyPad = usual(u, 2, 3), usual(u, 4, 6), "the "+fragile+" is fragile and wants tissue"
	} else if food != "" {
		below, whyPad = usual(u, 1, 1), "a sheet of food paper under the "+food
	}
	room.Padding = open("padding", b.Room.Padding, "Tissue around", pad, ifThen(pad > 0, whyPad))
	room.Below = open("below", b.Room.Below, "Tissue below", below, whyPad)
	between, whyBetween := Length(0), ""
	if divided {
		between, whyBetween = usual(u, 1, 1), "on each side of a divider, so that things slide in"
	} else if fragile != "" {
		between, whyBetween = usual(u, 2, 3), "the "+fragile+" must not knock against its neighbour"
	}
	room.Said = b.Room.Between != ""
	room.Between = open("between", b.Room.Between, "Between things", between, whyBetween)
	room.Above = open("above", b.Room.Above, "Room above", usual(u, 1, 1), "clear of the lid")
	room.Proud = open("proud", b.Room.Proud, "Standing proud of the rim", 0, "")
	return room
}

func ifThen(when bool, s string) string {
	if when {
		return s
	}
	return ""
}
