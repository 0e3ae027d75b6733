package assembly

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/fold"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/words"
)

// Box is the tree a style builds, with what only the style can know of it, and
// what is measured of it once it is folded.
type Box struct {
	Tree
	Style     string
	Size      Dims     // score to score
	Clearance Length   // of what goes over something
	Plain     bool     // plain numbers: the card gives where they bind
	Flat      []Crease // folded over when it is put away; the rest is not folded
	Lets      []string // sides by which things are slid in and out
	Vault     bool     // what is above is bent round the room, and is a part of it
	InTurn    bool     // what closes it opens in turn, the last first
	OpenBy    float64  // how far what closes it opens, of how far it folds; 0 is 0.62
	Strength  int      // 1 torn open once, 2 a season, 3 kept for years
	Rooms     []Inner  // the small boxes that things go in, when there are several
	Proved    Standing // the closed box, as it was proved
	Told
	Measured
}

// Told is what a style says of its box beside its parts.
type Told struct {
	Supplies []Supply
	Cautions []string
	Errands  []Errand          // what is done beside folding and sticking
	Claims   []fold.Check      // what a list of scores claims, checked
	Settled  map[string]Length // what each length among the questions came to
	Notes    []Note
}

// Supply is something that is no card: of a length, or so many.
type Supply struct {
	What          string // magnet, hook dot, brad, ribbon, ...
	Width, Length Length // of each; 0 where it has none
	Count         int
	Says          string // what it is for
	Text          string // all of it in words, where those are better than its figures
	Tool          bool   // it is used and not used up: one does for all boxes
}

// Errand is something to do at the bench that no fold and no join says: in the step of a title, in
// words; while all is flat, with one piece.
type Errand struct{ Title, Piece, Says string }

// Do notes something to do at the bench.
func (b *Box) Do(title, format string, args ...any) {
	b.Errands = append(b.Errands, Errand{Title: title, Says: fmt.Sprintf(format, args...)})
}

// DoFlat notes something to do with a piece while it is flat.
func (b *Box) DoFlat(piece, says string) {
	b.Errands = append(b.Errands, Errand{"Closures", piece, says})
}

// Needs notes something to buy, told in words of its own.
func (b *Box) Needs(what string, count int, length Length, text string) {
	b.Supplies = append(b.Supplies, Supply{What: what, Count: count, Length: length, Text: text})
}

// Crease is a crease of a part, named by the two faces it lies between.
type Crease struct{ Part, A, B string }

// Inner is a small box within the box that things go in. Things stand where they do in the small box alone.
type Inner struct {
	Name   string
	Box    *Box
	OnSide bool // it lies on its side when all is closed
	Things []fold.Block
}

// Note is what the plan did to a number, and why: shown beside the number.
type Note struct {
	Code   string
	Piece  string
	Field  string // the question it answers to, if any
	Figure Length
	Text   string
}

// Bare reports whether the text doesn't tell the figure itself.
func (n Note) Bare() bool { return !strings.ContainsAny(n.Text, "0123456789") }

// Measured is what is read off the folded box.
type Measured struct {
	Lo, Hi          fold.Vec // the room between floor, walls and cover, in millimetres
	Inside, Outside Dims     // a block that stands in it
	Shaped          bool     // slopes or curves reach into the room
	Foot            float64  // how far below the middle of its floor its lowest card is, in millimetres
	Rim             float64  // how high the walls stand, in millimetres
	Above           fold.Above
	Seams           []fold.Seam // that are seen when it is closed
	Book            bool        // it opens like a book: nothing comes off
	Stores          bool        // with its seam stuck it stores flat
	Stored          Dims        // how large it is then

	want, outer, inner Dims // the block that was looked for, and what was measured before anything was put on or in
	sized              int  // of so many parts
}

// Every style's sizes are read off its folded, closed box: by MeasureRoom and MeasureRest, and nowhere else.

// MeasureRest measures what MeasureRoom, which comes first, leaves: the outside, the seams that show, and how the box is
// opened and stored.
func (b *Box) MeasureRest(s Standing, t Length) {
	lo, hi := fold.Extent(s.Box()...)
	b.Outside, b.Foot = dims(lo, hi), -lo.Z
	b.outer, b.sized = b.Outside, len(b.Parts)
	for _, body := range s.Box() {
		b.Seams = append(b.Seams, body.Seams(s.Box()...)...)
	}
	b.Book = b.opensLikeABook(s)
	b.Stores = len(b.Flat) > 0 && b.stacked()
	if flat, ok := b.FlatPacked(t); ok {
		b.Stored = dims(fold.Bounds(flat.Bodies...))
	}
}

// opensLikeABook reports whether nothing comes off to open the box, and what turns
// back is a level cover, no mere flap of a tall box.
func (b *Box) opensLikeABook(s Standing) bool {
	if slices.ContainsFunc(b.Parts, func(p *Part) bool { return p.When == net.Close }) {
		return false
	}
	cover, largest := 0.0, 0.0
	for _, body := range s.Box() {
		for _, f := range body.Faces {
			largest = max(largest, f.Area())
			if f.Level() && Opens(body.Piece, f.Name) {
				cover = max(cover, f.Area())
			}
		}
	}
	return cover >= 0.6*largest
}

// MeasureRoom measures the largest upright room in the closed box that no card reaches into; where slopes or curves do,
// also a block in it of the size that is wanted. Under a roof, or nothing, the room ends at the rim; under a vault, which
// is bent round it, at the top.
func (b *Box) MeasureRoom(s Standing, want Dims) {
	all := s.Box()
	b.Rim = all[0].Rim()
	lo, hi := fold.Extent(all...)
	heart := fold.Vec{Z: b.Rim / 2}
	if b.Rim > 0 { // the room lies within the walls: what stands out beyond them, as a pull does, says nothing of it
		in, out := fold.Extent(all[0])
		lo.X, lo.Y, hi.X, hi.Y = in.X, in.Y, out.X, out.Y
	}
	if b.Rim == 0 { // walls on fewer than four sides: other parts close it
		heart.Z = (lo.Z + hi.Z) / 2
	}
	b.Above = fold.Covered(fold.Vec{}, heart.Z, all...)
	switch {
	case b.Vault:
		b.Rim = hi.Z
	case b.Above != fold.Flat:
		hi.Z = b.Rim
	}
	room := fold.Room(lo, hi, heart, fold.Vec{X: want.Length.MM(), Y: want.Width.MM(), Z: want.Depth.MM()}, all...)
	if len(b.Rooms) > 0 {
		in := b.Rooms[0].Box
		b.Lo, b.Hi, b.Inside, b.Above = in.Lo, in.Hi, in.Inside, fold.Flat
	} else {
		b.Lo, b.Hi, b.Inside, b.Shaped = room.Lo, room.Hi, dims(room.In, room.Out), room.Shaped
	}
	b.want, b.inner = want, b.Inside
}

// Whole is how large the room is between floor, walls and cover.
func (b *Box) Whole() Dims { return dims(b.Lo, b.Hi) }

// Short is how much larger the closed box must be for its slopes to clear what is in it.
func (s Standing) Short(things []fold.Block) Dims {
	return dims(fold.Vec{}, fold.Short(things, s.Box()...))
}

func dims(lo, hi fold.Vec) Dims {
	size := func(a, b float64) Length { return measure.FromMM(max(0, b-a)) }
	return Dims{size(lo.X, hi.X), size(lo.Y, hi.Y), size(lo.Z, hi.Z)}
}

// FoldsOver says which creases of a part are folded over when the box is put away,
// each by the two faces it lies between; all others are not folded.
func (b *Box) FoldsOver(part string, creases ...[2]string) {
	for _, c := range creases {
		b.Flat = append(b.Flat, Crease{part, c[0], c[1]})
	}
}

// flat is how the creases of a part are folded when the box is put away: those named over, the rest not at all.
func (b *Box) flat(part string) fold.Pressed {
	return func(x, y string) (float64, bool) {
		for _, c := range b.Flat {
			if c == (Crease{part, x, y}) || c == (Crease{part, y, x}) {
				return 180, true
			}
		}
		return 0, true
	}
}

// stacked reports whether every part lies flat when the box is put away.
func (b *Box) stacked() bool {
	return !slices.ContainsFunc(b.Parts, func(p *Part) bool {
		return p.Piece != nil && !fold.Stacked(p.Piece, b.flat(p.Name))
	})
}

// FlatPacked gives the box as it is put away, and whether it can be.
func (b *Box) FlatPacked(t Length) (Standing, bool) {
	s := Standing{of: map[string][]*fold.Body{}}
	if !b.Stores {
		return s, false
	}
	stand(b, &s, &b.Tree, hand{}, t, Pose{Fold: 1, Flat: true}, nil, true)
	return s, true
}

// Clean reports whether no seam is seen on top, in front or at the sides.
func (b *Box) Clean() bool {
	return !slices.ContainsFunc(b.Seams, func(s fold.Seam) bool {
		return slices.ContainsFunc(s.From, func(side string) bool { return side != "back" && side != "below" })
	})
}

// SeamsSeen tells the seams in words: of which piece, how many, from where.
func (b *Box) SeamsSeen() string {
	count, from := map[string]int{}, map[string][]string{}
	var pieces []string
	for _, s := range b.Seams {
		if count[s.Piece] == 0 {
			pieces = append(pieces, s.Piece)
		}
		count[s.Piece]++
		from[s.Piece] = append(from[s.Piece], s.From...)
	}
	var says []string
	for _, p := range pieces {
		var sides []string
		for _, side := range fold.Sides {
			if slices.Contains(from[p], side.Name) {
				sides = append(sides, side.Says)
			}
		}
		says = append(says, fmt.Sprintf("%d on the %s, seen from %s", count[p], p, words.List(sides)))
	}
	if len(says) == 0 {
		return "None."
	}
	return strings.Join(says, "; ") + "."
}

// Caution says a caution, once.
func (b *Box) Caution(s string) {
	if !slices.Contains(b.Cautions, s) {
		b.Cautions = append(b.Cautions, s)
	}
}
