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

// Hole is the radius of a round hole for ribbon or cord, and RoundHole the card to leave round it. No ribbon goes through
// a hole less than Narrowest across.
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

// Handle returns a strip bent over a box in a half circle, so far across, with an end on either side that lies on a wall.
// The root stays where it is put, and the rest is folded in the order given.
func Handle(name string, ends [2]string, wide, end, whole, across Length, root string, folds ...string) *net.Piece {
	p := net.Grid(name, net.Cols(wide), net.Rows(end, whole-2*end, end), ends[0]+"\narch\n"+ends[1])
	p.Curve("arch", false, 180, net.Valley)
	p.Rounded = across / 1000 // facets reach a hair further than the round
	p.Root = root
	p.FoldUp(folds...)
	p.Tell("bend it over something round")
	return p
}

// HalfRound returns the length of a half circle over a width: π/2 of it.
func HalfRound(across Length) Length { return measure.FromMM(across.MM() * math.Pi / 2) }

// Thumb is the usual width of a thumb notch. No thumb fits one narrower than LeastThumb.
const Thumb, LeastThumb = 20 * mm, 8 * mm

// How far a pull tab is stuck and how far it stands out: Pull… on a panel that closes, Edge… under a raw edge. Fingers
// need at least PullHold to grip.
const (
	PullStuck, PullOut = 16 * mm, 8 * mm
	EdgeStuck, EdgeOut = 12 * mm, 12 * mm
	PullHold           = 4 * mm
)

// WidestNotch returns the widest thumb notch for a panel so deep, cut in an edge so long, that leaves a rim of card on
// either side and below.
func WidestNotch(long, deep, rim Length) Length { return min(long-2*rim, 2*(deep-rim)) }
