package fasteners

import (
	"math"

	"brevium/core/assembly"
	"brevium/core/measure"
	"brevium/core/net"
)

type Length = measure.Length

// Cautions that several things call for.
const (
	RibbonCare = "Ribbon and cord are not for infants: keep long ends away from them, and follow your local rules."
	MagnetCare = "Small magnets are dangerous when swallowed: keep them, and boxes that hold them, from small children, " +
		"and follow your local rules."
)

// Of a round hole that ribbon or cord goes through: its radius, and the card left round it; no ribbon goes through one
// narrower than Narrowest across.
const (
	Hole      = 5 * mm / 2
	RoundHole = 3 * mm
	Narrowest = 2 * mm
)

// Ribbon notes lengths of ribbon to buy for a box, in words, and the care they ask for.
func Ribbon(b *assembly.Box, count int, long Length, text string) {
	b.Needs("ribbon", count, long, text)
	b.Caution(RibbonCare)
}

// Handle is a strip bent over a box in a half round, so far across, and an end on either side that lies on a wall. The
// root stays where it is put, and the rest is folded in the order given.
func Handle(name string, ends [2]string, wide, end, whole, across Length, root string, folds ...string) *net.Piece {
	p := net.Grid(name, net.Cols(wide), net.Rows(end, whole-2*end, end), ends[0]+"\narch\n"+ends[1])
	p.Curve("arch", false, 180, net.Valley)
	p.Rounded = across / 1000 // facets reach a hair further than the round
	p.Root = root
	p.FoldUp(folds...)
	p.Tell("bend it over something round")
	return p
}

// HalfRound is how long a half round is over a width: π/2 of it.
func HalfRound(across Length) Length { return measure.FromMM(across.MM() * math.Pi / 2) }

// A Thumb notch is usually so wide; no thumb goes in a narrower one than LeastThumb.
const Thumb, LeastThumb = 20 * mm, 8 * mm

// Of a tab to pull: how far it is stuck and how far it stands out, on a panel that closes or under a raw edge; fingers
// want so much to hold.
const (
	PullStuck, PullOut = 16 * mm, 8 * mm
	EdgeStuck, EdgeOut = 12 * mm, 12 * mm
	PullHold           = 4 * mm
)

// WidestNotch is how wide a thumb notch may be in an edge so long of a panel so deep, for a rim of card to stay on either
// side and below it.
func WidestNotch(long, deep, rim Length) Length { return min(long-2*rim, 2*(deep-rim)) }
