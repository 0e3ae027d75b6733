// Package fasteners describes what holds a box closed and what hands hold it by, once for the styles and for the dressing
// of any box. Kinds lists what comes in two halves (magnet, dot, brad, ribbon): its size, the card it needs round it,
// its side, what to buy, what to do, what care it asks for. parts.go has handles, thumb notches, tabs to pull, and ribbon.
package fasteners

import (
	"fmt"
	"slices"

	"brevium/core/assembly"
	"brevium/core/measure"
)

// Room is the card that must be left round either half.
const Room = 5 * measure.Millimetre / 2

// Kind is a fastener that comes in two halves, one on each of two faces.
type Kind struct {
	Name    string   // what it is called: "hook dot"
	Answers []string // how documents choose it
	Radius  Length   // of it, or of the hole it goes through
	Through bool     // the card is pierced for it
	Hidden  bool     // it holds through card: both halves are stuck on inside
	Between bool     // it lies between the two faces, so neither can slide over the other
	Count   int      // how many are bought for one place
	Long    Length   // of what is bought by length
	what    string   // in words, for the list of what to buy
	says    string   // where: of the two faces
	does    []does
	care    string
}

// does is what is done in the step of a title: of the face that closes, of the one under it, or both.
type does struct {
	title, says string
	of          []int
}

const mm = measure.Millimetre

// Kinds lists them.
var Kinds = []Kind{
	{Name: "magnet", Answers: []string{"magnet"}, Radius: 5 * mm, Hidden: true, Count: 2, care: MagnetCare,
		what: "a pair of thin disc magnets", says: ", one inside the %s and one inside the %s. Stick them on while " +
			"the piece is flat, and check first that they attract"},
	{Name: "hook dot", Answers: []string{"dot"}, Radius: 5 * mm, Between: true, Count: 1,
		what: "one hook dot, both halves", says: ": one on the %s, one on the %s where it comes to lie"},
	{Name: "glue dot", Answers: []string{"glue-dot", "restick"}, Radius: 7 * mm / 2, Between: true, Count: 1,
		what: "one removable glue dot", says: ": on the %s, which it stays on; press it on the %s where it " +
			"comes to lie"},
	{Name: "brad", Answers: []string{"brad"}, Radius: 5 * mm / 2, Through: true, Count: 1, what: "one brad",
		says: ": pierce the %s and the %s together, the box closed and empty; its legs are opened out inside",
		does: []does{{"Close", "Push the brad through the %s and the %s, and open its legs inside.", []int{0, 1}}}},
	{Name: "ribbon", Answers: []string{"ribbon"}, Radius: 5 * mm / 2, Through: true, Count: 1, Long: 300 * mm,
		what: "a ribbon", says: ", through the %s and the %s: a knot inside, a bow outside", care: RibbonCare,
		does: []does{{"Put together", "Thread the ribbon through the hole in the %s and knot it on the inside.", []int{1}},
			{"Close", "Thread the ribbon through the %s and tie it.", []int{0}}}},
}

// Chosen gives what an answer of a document means; false for what is not in two halves.
func Chosen(answer string) (Kind, bool) {
	return first(func(k Kind) bool { return slices.Contains(k.Answers, answer) })
}

// Called gives what a mark on a piece is called after.
func Called(name string) (Kind, bool) { return first(func(k Kind) bool { return k.Name == name }) }

func first(is func(Kind) bool) (Kind, bool) {
	if i := slices.IndexFunc(Kinds, is); i >= 0 {
		return Kinds[i], true
	}
	return Kind{}, false
}

// Flat is how large a panel must be for what lies on it; 0 for what goes through.
func (k Kind) Flat() Length {
	if k.Through || k.Radius == 0 {
		return 0
	}
	return 2 * (k.Radius + Room)
}

// Hold holds a box closed by it on two faces, which are named for sentences, and gives what is bought. Where
// exactly the halves come is for assembly.Box.Meet to find.
func (k Kind) Hold(b *assembly.Box, pair assembly.Pair, flap, under string, long string) assembly.Supply {
	names := []any{flap, under}
	pair.What = k.Name
	b.Pairs = append(b.Pairs, pair)
	for _, d := range k.does {
		var of []any
		for _, i := range d.of {
			of = append(of, names[i])
		}
		b.Do(d.title, d.says, of...)
	}
	if k.care != "" {
		b.Caution(k.care)
	}
	what := k.what
	if long != "" {
		what += " of " + long
	}
	return assembly.Supply{What: k.Name, Count: k.Count, Text: fmt.Sprintf(what+k.says, names...)}
}
