package brief

import ()

// Dress is what goes on, in and round a box. Its counts are for layers that are
// planned elsewhere: only sizes hang on them.
type Dress struct {
	Outside   Whole     `json:"outside,omitempty"`   // layers on the outside of what a lid goes over
	Inside    Whole     `json:"inside,omitempty"`    // layers inside the walls of the lid
	Floor     Whole     `json:"floor,omitempty"`     // liners on the floor, on each other
	Underside Flag      `json:"underside,omitempty"` // dressed too
	Layers    []Layer   `json:"layers,omitempty"`
	Liners    []Liner   `json:"liners,omitempty"`
	Windows   []Opening `json:"windows,omitempty"`
	Grips     []Grip    `json:"grips,omitempty"`
	Toppers   []Topper  `json:"toppers,omitempty"`
	Finishes  []Finish  `json:"finishes,omitempty"`
	Band      Belt      `json:"band,omitzero"`
	Ribbon    Ribbon    `json:"ribbon,omitzero"`
	Handle    Handle    `json:"handle,omitzero"`
	Bow       Bow       `json:"bow,omitzero"`
	Closure   Fastening `json:"closure,omitzero"`
	Scheme    Scheme    `json:"scheme,omitzero"`
}

// Layer is a layer on the outside of panels, smaller than what it lies on by a
// border: the panel, or the layer that was named before it there.
type Layer struct {
	ID      string `json:"id,omitempty"`
	On      Text   `json:"on"`
	Border  Text   `json:"border,omitempty"`
	Top     Text   `json:"top,omitempty"`     // the border above, as the box stands
	Bottom  Text   `json:"bottom,omitempty"`  // and below
	Corners Text   `json:"corners,omitempty"` // round: cut round with a corner punch
	Stock   Text   `json:"stock,omitempty"`
	Run     Flag   `json:"run,omitempty"`    // cut from one strip in order, so that the picture goes on
	Motif   Spot   `json:"motif,omitzero"`   // what of the paper comes to the middle of the front
	Inside  Flag   `json:"inside,omitempty"` // the insides of the same panels are dressed too
}

// Spot is a place on a sheet, from its left and from its top edge.
type Spot struct {
	X Text `json:"x,omitempty"`
	Y Text `json:"y,omitempty"`
}

// Liner lines the inside, smaller than what was measured there.
type Liner struct {
	ID     string `json:"id,omitempty"`
	In     Text   `json:"in"`             // floor, walls, lid, tabs or all
	Less   Text   `json:"less,omitempty"` // smaller by so much each way
	Layers Whole  `json:"layers,omitempty"`
	Stock  Text   `json:"stock,omitempty"`
	Words  Text   `json:"words,omitempty"` // printed or lettered on it
}

// Opening is a window in a panel, with film behind it.
type Opening struct {
	ID     string `json:"id,omitempty"`
	On     Text   `json:"on"`
	Shape  Text   `json:"shape,omitempty"` // square, rounded or round
	Width  Text   `json:"width,omitempty"`
	Height Text   `json:"height,omitempty"`
	Right  Text   `json:"right,omitempty"` // of the panel's middle, as one looks at it
	Down   Text   `json:"down,omitempty"`  // and below it
	Film   Flag   `json:"film,omitempty"`
	Lap    Text   `json:"lap,omitempty"`   // of the film, on each side
	Frame  Text   `json:"frame,omitempty"` // how wide a frame of card round it is
	Stock  Text   `json:"stock,omitempty"` // of the frame
}

// Grip is what fingers get hold of: a thumb notch in an edge, or a tab to pull.
type Grip struct {
	ID    string `json:"id,omitempty"`
	Kind  Text   `json:"kind"` // notch or pull
	On    Text   `json:"on"`
	Width Text   `json:"width,omitempty"`
	Stock Text   `json:"stock,omitempty"`
}

// Topper is a stack of shapes, each smaller than the one below it.
type Topper struct {
	ID     string `json:"id,omitempty"`
	Shape  Text   `json:"shape"`
	Width  Text   `json:"width,omitempty"`
	Height Text   `json:"height,omitempty"`
	Right  Text   `json:"right,omitempty"` // of the panel's middle, as one looks at it
	Down   Text   `json:"down,omitempty"`  // and below it
	On     Text   `json:"on,omitempty"`    // a panel, band, or hanging
	Layers Whole  `json:"layers,omitempty"`
	Border Text   `json:"border,omitempty"`
	Raised Flag   `json:"raised,omitempty"` // the upper ones stand on foam
	Words  Text   `json:"words,omitempty"`
	Ink    Text   `json:"ink,omitempty"`
	Stock  Text   `json:"stock,omitempty"` // with commas, from the lowest up
}

// Finish is what is inked, stamped, lettered or stuck on panels or on pieces of the dressing.
type Finish struct {
	ID      string `json:"id,omitempty"`
	Kind    Text   `json:"kind"`              // ink, sponge, stamp, emboss, punched, sticker or letter
	On      Text   `json:"on,omitempty"`      // panels, or a piece by its name
	What    Text   `json:"what,omitempty"`    // the colour, the picture, the words
	Count   Whole  `json:"count,omitempty"`   // how many on each panel, of what is counted
	When    Text   `json:"when,omitempty"`    // scoring, flat, sticking or last
	Minutes Whole  `json:"minutes,omitempty"` // it takes, on one box
	Dry     Whole  `json:"dry,omitempty"`     // minutes it must then be left alone
}

// Belt is a band of paper round the closed box.
type Belt struct {
	Way    Text `json:"way,omitempty"`  // across, along, level or cross
	Form   Text `json:"form,omitempty"` // scored, or wrapped: formed on the box itself
	Width  Text `json:"width,omitempty"`
	Lap    Text `json:"lap,omitempty"`
	Stock  Text `json:"stock,omitempty"`
	Stuck  Flag `json:"stuck,omitempty"`  // else it slides on and off
	Seam   Text `json:"seam,omitempty"`   // below, or above: under a topper
	LapAt  Text `json:"lap-at,omitempty"` // the edge, or the middle of that side
	Notch  Flag `json:"notch,omitempty"`  // cut out for what closes the box under it
	Second Text `json:"second,omitempty"` // how wide a narrower band on it is
	Over   Text `json:"over,omitempty"`   // the card of that
}

// Ribbon is ribbon, twine or lace round the closed box or through it.
type Ribbon struct {
	What  Text  `json:"what,omitempty"` // ribbon, twine or lace
	Way   Text  `json:"way,omitempty"`  // across, along, level, cross, holes or under
	Width Text  `json:"width,omitempty"`
	Turns Whole `json:"turns,omitempty"`
	Bow   Text  `json:"bow,omitempty"` // none, knot, single or double
	Loops Text  `json:"loops,omitempty"`
	Tails Text  `json:"tails,omitempty"`
	Stuck Flag  `json:"stuck,omitempty"` // glued, not tied
	Reel  Text  `json:"reel,omitempty"`  // how much is on the reel
}

// Handle is what the box is carried by.
type Handle struct {
	Kind   Text `json:"kind,omitempty"` // strip, swing, ribbon or cord
	On     Text `json:"on,omitempty"`   // two panels over against each other
	Width  Text `json:"width,omitempty"`
	Height Text `json:"height,omitempty"` // of ribbon or cord: how high it stands over the box
	Stock  Text `json:"stock,omitempty"`
}

// Bow is made of strips of paper; curls are strips rolled on a rod.
type Bow struct {
	Loops Whole `json:"loops,omitempty"`
	Width Text  `json:"width,omitempty"`
	Size  Text  `json:"size,omitempty"` // across
	Tiers Whole `json:"tiers,omitempty"`
	Tails Flag  `json:"tails,omitempty"`
	Curls Whole `json:"curls,omitempty"`
	Rod   Text  `json:"rod,omitempty"`
	Curl  Text  `json:"curl,omitempty"` // how long each is cut
	Stock Text  `json:"stock,omitempty"`
}

// Fastening is what holds the box closed, beside what its style asks.
type Fastening struct {
	Kind  Text `json:"kind,omitempty"`
	On    Text `json:"on,omitempty"` // the panel that moves
	Width Text `json:"width,omitempty"`
	Stock Text `json:"stock,omitempty"`
}

// Scheme is the cards that all of the dressing draws on.
type Scheme struct {
	Main   Text `json:"main,omitempty"`
	Second Text `json:"second,omitempty"`
	Accent Text `json:"accent,omitempty"`
	Plain  Text `json:"plain,omitempty"`
}

// Bare leaves of it only the counts: for boxes that have other panels.
func (d Dress) Bare() Dress {
	return Dress{Outside: d.Outside, Inside: d.Inside, Floor: d.Floor, Underside: d.Underside}
}
