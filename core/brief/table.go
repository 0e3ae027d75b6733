package brief

import (
	"fmt"
	"strconv"
	"strings"

	"brevium/core/words"
)

// Kind is what a field holds.
type Kind int

const (
	Choice Kind = iota
	Words
	Distance
	Offset // a distance either way: with - before it, the other
	Number
	Weight
	YesNo
)

// Field is a question of the document: its path, with * for the thing, piece or place it belongs to, what it holds,
// what people call it, and what helps to answer it. Forms, lists, merging, the words of a change and docs/format.md
// are all read from it.
type Field struct {
	Path  string
	Kind  Kind
	Label string
	Help  string
	Most  int // letters; 0 is the usual most
}

// Title is the label as it stands over the field.
func (f Field) Title() string { return words.Capital(f.Label) }

// Unit reports whether the field takes a unit: of length, or of mass.
func (f Field) Unit() bool { return f.Kind == Distance || f.Kind == Weight }

// Most letters in a field, and in the notes.
const (
	mostLetters = 200
	mostNotes   = 4000
)

// Table lists every field but the answers to a style's own questions, which the style lists.
var Table = []Field{
	{Path: "name", Kind: Words, Label: "name"},
	{Path: "notes", Kind: Words, Label: "notes", Help: "What is to be known of this box. The times it was made have notes of their own.",
		Most: mostNotes},
	{Path: "units", Kind: Choice, Label: "units"},
	{Path: "copies", Kind: Number, Label: "how many boxes"},
	{Path: "contents.*.name", Kind: Words, Label: "name"},
	{Path: "contents.*.shape", Kind: Choice, Label: "shape"},
	{Path: "contents.*.count", Kind: Number, Label: "how many"},
	{Path: "contents.*.length", Kind: Distance, Label: "length"},
	{Path: "contents.*.width", Kind: Distance, Label: "width"},
	{Path: "contents.*.height", Kind: Distance, Label: "height"},
	{Path: "contents.*.thickness", Kind: Distance, Label: "thickness"},
	{Path: "contents.*.decorated", Kind: Distance, Label: "thickness decorated"},
	{Path: "contents.*.envelope", Kind: YesNo, Label: "in an envelope"},
	{Path: "contents.*.diameter", Kind: Distance, Label: "diameter"},
	{Path: "contents.*.neck-diameter", Kind: Distance, Label: "neck diameter"},
	{Path: "contents.*.neck-height", Kind: Distance, Label: "neck height"},
	{Path: "contents.*.press", Kind: Distance, Label: "how far it presses down"},
	{Path: "contents.*.mass", Kind: Weight, Label: "mass of one"},
	{Path: "contents.*.lie", Kind: YesNo, Label: "may lie"},
	{Path: "contents.*.stand", Kind: YesNo, Label: "may stand"},
	{Path: "contents.*.stack", Kind: Number, Label: "on each other"},
	{Path: "contents.*.upright", Kind: YesNo, Label: "must stay upright"},
	{Path: "contents.*.food", Kind: YesNo, Label: "food"},
	{Path: "contents.*.fragile", Kind: YesNo, Label: "fragile"},
	{Path: "contents.*.flame", Kind: YesNo, Label: "hot or flame"},
	{Path: "contents.*.liquid", Kind: YesNo, Label: "liquid"},
	{Path: "room.around", Kind: Distance, Label: "finger room", Help: "on each side"},
	{Path: "room.between", Kind: Distance, Label: "room between neighbours"},
	{Path: "room.padding", Kind: Distance, Label: "tissue around", Help: "on each side"},
	{Path: "room.below", Kind: Distance, Label: "tissue below"},
	{Path: "room.above", Kind: Distance, Label: "room above", Help: "under the lid"},
	{Path: "room.proud", Kind: Distance, Label: "how far things stand proud", Help: "of the rim"},
	{Path: "arrange.way", Kind: Choice, Label: "arrangement"},
	{Path: "arrange.compartments", Kind: Choice, Label: "compartments"},
	{Path: "arrange.dividers", Kind: Distance, Label: "height of the dividers"},
	{Path: "arrange.cells", Kind: Words, Label: "compartments across and deep", Help: "such as 3 x 2"},
	{Path: "arrange.places.*.x", Kind: Distance, Label: "from the left"},
	{Path: "arrange.places.*.y", Kind: Distance, Label: "from the front"},
	{Path: "arrange.places.*.turned", Kind: YesNo, Label: "turned"},
	{Path: "size.length", Kind: Distance, Label: "length", Help: "left to right"},
	{Path: "size.width", Kind: Distance, Label: "width", Help: "front to back"},
	{Path: "size.depth", Kind: Distance, Label: "depth", Help: "of the walls"},
	{Path: "box.style", Kind: Choice, Label: "style"},
	{Path: "box.pieces.*.name", Kind: Words, Label: "name"},
	{Path: "box.pieces.*.is", Kind: Choice, Label: "what it is", Help: "left open, the scores say it"},
	{Path: "box.pieces.*.walls", Kind: Choice, Label: "its walls", Help: "of a tray or lid"},
	{Path: "box.pieces.*.tabs", Kind: Choice, Label: "its tabs", Help: "of a tray or lid"},
	{Path: "box.pieces.*.width", Kind: Distance, Label: "width", Help: "of the cut piece"},
	{Path: "box.pieces.*.height", Kind: Distance, Label: "height", Help: "of the cut piece"},
	{Path: "box.pieces.*.across", Kind: Words, Label: "scores from the left edge",
		Help: "with commas; “both” takes one from the far edge too"},
	{Path: "box.pieces.*.down", Kind: Words, Label: "scores from the top edge"},
	{Path: "box.pieces.*.away", Kind: Words, Label: "squares cut away", Help: "corners, or column-row: 1-1, 3-1"},
	{Path: "box.stated.length", Kind: Distance, Label: "length it claims"},
	{Path: "box.stated.width", Kind: Distance, Label: "width it claims"},
	{Path: "box.stated.depth", Kind: Distance, Label: "depth it claims"},
	{Path: "card.stock", Kind: Choice, Label: "card"},
	{Path: "card.sheet", Kind: Choice, Label: "sheet"},
	{Path: "card.grain", Kind: Choice, Label: "grain"},
	{Path: "card.own.*.title", Kind: Words, Label: "name"},
	{Path: "card.own.*.kind", Kind: Choice, Label: "kind"},
	{Path: "card.own.*.gsm", Kind: Words, Label: "weight", Help: "gsm, or lb of its grade: 80 lb cover"},
	{Path: "card.own.*.caliper", Kind: Distance, Label: "thickness of one sheet"},
	{Path: "card.own.*.ten", Kind: Distance, Label: "thickness of ten sheets"},
	{Path: "card.own.*.bulk", Kind: Words, Label: "bulk", Help: "cm³ a gram"},
	{Path: "card.own.*.grain", Kind: Choice, Label: "grain"},
	{Path: "card.own.*.colour", Kind: Words, Label: "colour"},
	{Path: "card.own.*.inside", Kind: Words, Label: "colour inside", Help: "of two-sided card"},
	{Path: "card.own.*.pattern", Kind: Choice, Label: "pattern"},
	{Path: "card.own.*.motif", Kind: Choice, Label: "printed with"},
	{Path: "card.own.*.ink", Kind: Words, Label: "ink"},
	{Path: "card.own.*.repeat", Kind: Distance, Label: "repeat of the pattern"},
	{Path: "card.own.*.sheets", Kind: Words, Label: "sheets it comes in"},
	{Path: "card.own.*.price", Kind: Words, Label: "price of a sheet"},
	{Path: "card.own.*.hand", Kind: Words, Label: "sheets in hand"},
	{Path: "card.own.*.pack", Kind: Number, Label: "sheets in a pack"},
	{Path: "card.own.*.retired", Kind: YesNo, Label: "retired"},
	{Path: "card.join", Kind: YesNo, Label: "pieces too large may be made of two halves"},
	{Path: "dress.outside", Kind: Number, Label: "outside the base"},
	{Path: "dress.inside", Kind: Number, Label: "inside the lid"},
	{Path: "dress.floor", Kind: Number, Label: "on the floor"},
	{Path: "dress.underside", Kind: YesNo, Label: "dress the underside too"},
	{Path: "dress.layers.*.on", Kind: Words, Label: "on", Help: "panels by name, or all, outside, sides, lid, top, inside",
		Most: 1200},
	{Path: "dress.layers.*.border", Kind: Distance, Label: "border", Help: "each side"},
	{Path: "dress.layers.*.top", Kind: Distance, Label: "border above", Help: "where it is another"},
	{Path: "dress.layers.*.bottom", Kind: Distance, Label: "border below"},
	{Path: "dress.layers.*.corners", Kind: Choice, Label: "corners"},
	{Path: "dress.layers.*.stock", Kind: Choice, Label: "card"},
	{Path: "dress.layers.*.run", Kind: YesNo, Label: "cut as a run: the picture goes on round the corners"},
	{Path: "dress.layers.*.motif.x", Kind: Distance, Label: "motif, from the left of the sheet",
		Help: "what comes to the middle of the front"},
	{Path: "dress.layers.*.motif.y", Kind: Distance, Label: "motif, from the top of the sheet"},
	{Path: "dress.layers.*.inside", Kind: YesNo, Label: "inside too"},
	{Path: "dress.liners.*.in", Kind: Choice, Label: "lines"},
	{Path: "dress.liners.*.less", Kind: Distance, Label: "smaller by", Help: "each way, than the measured inside"},
	{Path: "dress.liners.*.layers", Kind: Number, Label: "on each other"},
	{Path: "dress.liners.*.stock", Kind: Choice, Label: "card"},
	{Path: "dress.liners.*.words", Kind: Words, Label: "words on it"},
	{Path: "dress.windows.*.on", Kind: Words, Label: "window in"},
	{Path: "dress.windows.*.shape", Kind: Choice, Label: "shape"},
	{Path: "dress.windows.*.width", Kind: Distance, Label: "width"},
	{Path: "dress.windows.*.height", Kind: Distance, Label: "height"},
	{Path: "dress.windows.*.right", Kind: Offset, Label: "right of the middle", Help: "- for left"},
	{Path: "dress.windows.*.down", Kind: Offset, Label: "below the middle", Help: "- for above"},
	{Path: "dress.windows.*.film", Kind: YesNo, Label: "film behind it"},
	{Path: "dress.windows.*.lap", Kind: Distance, Label: "lap of the film", Help: "on each side"},
	{Path: "dress.windows.*.frame", Kind: Distance, Label: "frame", Help: "how wide a ring of card round it is"},
	{Path: "dress.windows.*.stock", Kind: Choice, Label: "card of the frame"},
	{Path: "dress.grips.*.kind", Kind: Choice, Label: "kind"},
	{Path: "dress.grips.*.on", Kind: Words, Label: "on"},
	{Path: "dress.grips.*.width", Kind: Distance, Label: "width"},
	{Path: "dress.grips.*.stock", Kind: Choice, Label: "card"},
	{Path: "dress.toppers.*.shape", Kind: Choice, Label: "shape"},
	{Path: "dress.toppers.*.width", Kind: Distance, Label: "width"},
	{Path: "dress.toppers.*.height", Kind: Distance, Label: "height"},
	{Path: "dress.toppers.*.right", Kind: Offset, Label: "right of the middle", Help: "- for left"},
	{Path: "dress.toppers.*.down", Kind: Offset, Label: "below the middle", Help: "- for above"},
	{Path: "dress.toppers.*.on", Kind: Words, Label: "on", Help: "a panel, band, or hanging"},
	{Path: "dress.toppers.*.layers", Kind: Number, Label: "shapes on each other"},
	{Path: "dress.toppers.*.border", Kind: Distance, Label: "each smaller by", Help: "on every side"},
	{Path: "dress.toppers.*.raised", Kind: YesNo, Label: "raised on foam"},
	{Path: "dress.toppers.*.words", Kind: Words, Label: "words on it"},
	{Path: "dress.toppers.*.ink", Kind: Words, Label: "ink of the words"},
	{Path: "dress.toppers.*.stock", Kind: Words, Label: "cards", Help: "from the lowest up"},
	{Path: "dress.finishes.*.kind", Kind: Choice, Label: "kind"},
	{Path: "dress.finishes.*.on", Kind: Words, Label: "on", Help: "panels, or a piece such as the band"},
	{Path: "dress.finishes.*.what", Kind: Words, Label: "what", Help: "the colour, the picture or the words"},
	{Path: "dress.finishes.*.count", Kind: Number, Label: "on each", Help: "how many"},
	{Path: "dress.finishes.*.when", Kind: Choice, Label: "when"},
	{Path: "dress.finishes.*.minutes", Kind: Number, Label: "minutes it takes", Help: "on one box"},
	{Path: "dress.finishes.*.dry", Kind: Number, Label: "minutes it dries"},
	{Path: "dress.band.way", Kind: Choice, Label: "band"},
	{Path: "dress.band.form", Kind: Choice, Label: "made"},
	{Path: "dress.band.width", Kind: Distance, Label: "width of the band"},
	{Path: "dress.band.lap", Kind: Distance, Label: "lap of the band"},
	{Path: "dress.band.stock", Kind: Choice, Label: "card of the band"},
	{Path: "dress.band.seam", Kind: Choice, Label: "seam of the band"},
	{Path: "dress.band.lap-at", Kind: Choice, Label: "where the lap of the band lies"},
	{Path: "dress.band.stuck", Kind: YesNo, Label: "stuck on: it does not slide"},
	{Path: "dress.band.notch", Kind: YesNo, Label: "notched for what closes the box"},
	{Path: "dress.band.second", Kind: Distance, Label: "a narrower band on it", Help: "how wide"},
	{Path: "dress.band.over", Kind: Choice, Label: "card of the narrower band"},
	{Path: "dress.ribbon.what", Kind: Choice, Label: "what it is tied with"},
	{Path: "dress.ribbon.way", Kind: Choice, Label: "how it goes"},
	{Path: "dress.ribbon.width", Kind: Distance, Label: "width of the ribbon"},
	{Path: "dress.ribbon.turns", Kind: Number, Label: "times round"},
	{Path: "dress.ribbon.bow", Kind: Choice, Label: "bow"},
	{Path: "dress.ribbon.loops", Kind: Distance, Label: "loops of the bow", Help: "how long each is"},
	{Path: "dress.ribbon.tails", Kind: Distance, Label: "tails", Help: "how long each is"},
	{Path: "dress.ribbon.stuck", Kind: YesNo, Label: "glued, not tied"},
	{Path: "dress.ribbon.reel", Kind: Distance, Label: "on the reel", Help: "how much there is"},
	{Path: "dress.handle.kind", Kind: Choice, Label: "handle"},
	{Path: "dress.handle.on", Kind: Words, Label: "handle on", Help: "two panels over against each other"},
	{Path: "dress.handle.width", Kind: Distance, Label: "width of the handle"},
	{Path: "dress.handle.height", Kind: Distance, Label: "it stands over the box by"},
	{Path: "dress.handle.stock", Kind: Choice, Label: "card of the handle"},
	{Path: "dress.bow.loops", Kind: Number, Label: "loops of the paper bow"},
	{Path: "dress.bow.width", Kind: Distance, Label: "width of its strips"},
	{Path: "dress.bow.size", Kind: Distance, Label: "bow across"},
	{Path: "dress.bow.tiers", Kind: Number, Label: "tiers on each other"},
	{Path: "dress.bow.tails", Kind: YesNo, Label: "with tails"},
	{Path: "dress.bow.curls", Kind: Number, Label: "curls"},
	{Path: "dress.bow.rod", Kind: Distance, Label: "rod they are curled on", Help: "across"},
	{Path: "dress.bow.curl", Kind: Distance, Label: "length of a curl", Help: "as it is cut"},
	{Path: "dress.bow.stock", Kind: Choice, Label: "card of the bow"},
	{Path: "dress.closure.kind", Kind: Choice, Label: "held closed by"},
	{Path: "dress.closure.on", Kind: Words, Label: "on", Help: "the panel that moves"},
	{Path: "dress.closure.width", Kind: Distance, Label: "size of it"},
	{Path: "dress.closure.stock", Kind: Choice, Label: "card of it"},
	{Path: "dress.scheme.main", Kind: Choice, Label: "main card"},
	{Path: "dress.scheme.second", Kind: Choice, Label: "second card"},
	{Path: "dress.scheme.accent", Kind: Choice, Label: "accent"},
	{Path: "dress.scheme.plain", Kind: Choice, Label: "plain card"},
	{Path: "sheets.aim", Kind: Choice, Label: "what is to be least"},
	{Path: "sheets.among-equals", Kind: Choice, Label: "among equals"},
	{Path: "sheets.look", Kind: Choice, Label: "how long to look"},
	{Path: "sheets.sizes", Kind: Choice, Label: "sizes of sheet"},
	{Path: "sheets.offcuts", Kind: YesNo, Label: "use kept offcuts first"},
	{Path: "sheets.margin", Kind: Distance, Label: "margin of the sheets", Help: "where no piece may lie"},
	{Path: "sheets.pins.*.piece", Kind: Words, Label: "piece held in its place"},
	{Path: "sheets.pins.*.sheet", Kind: Number, Label: "on sheet"},
	{Path: "sheets.pins.*.size", Kind: Words, Label: "which is"},
	{Path: "sheets.pins.*.x", Kind: Distance, Label: "from the left of the sheet"},
	{Path: "sheets.pins.*.y", Kind: Distance, Label: "from the top of the sheet"},
	{Path: "sheets.pins.*.turned", Kind: YesNo, Label: "turned"},
	{Path: "tools.step", Kind: Choice, Label: "marks on your tools",
		Help: "Every size is snapped to these, the way that keeps the fit."},
	{Path: "tools.fit", Kind: Choice, Label: "how the lid goes on"},
	{Path: "tools.adhesive", Kind: Choice, Label: "what it is stuck with"},
	{Path: "tools.allowances", Kind: Choice, Label: "allowances"},
	{Path: "tools.slack", Kind: Distance, Label: "ease of the lid", Help: "over the whole width, beyond the card"},
	{Path: "tools.tape", Kind: Distance, Label: "width of the tape"},
	{Path: "tools.grooves", Kind: Words, Label: "grooves of the scoring board", Help: "how far apart they are"},
	{Path: "tools.board", Kind: Distance, Label: "how far the grooves go"},
	{Path: "tools.numbers", Kind: Choice, Label: "grooves are numbered"},
	{Path: "tools.scoring", Kind: Choice, Label: "scored with"},
	{Path: "tools.cutting", Kind: Choice, Label: "cut with"},
	{Path: "tools.folder", Kind: Choice, Label: "folds pressed with"},
	{Path: "tools.dressing", Kind: Choice, Label: "layers go on"},
	{Path: "tools.wraps", Kind: Choice, Label: "straps, sleeves and covers are"},
	{Path: "tools.trimmer.reads", Kind: Distance, Label: "the trimmer reads"},
	{Path: "tools.trimmer.cuts", Kind: Distance, Label: "the trimmer cuts", Help: "the longest cut"},
	{Path: "tools.punches", Kind: Words, Label: "punches",
		Help: "with commas: hole 3 mm reach 25 mm, corner 5 mm, notch 16 mm, circle 40 mm"},
	{Path: "tools.burnish", Kind: Choice, Label: "burnish"},
	{Path: "tools.house", Kind: Choice, Label: "what is left open is as the shop has it"},
	{Path: "tools.first", Kind: Choice, Label: "score first"},
	{Path: "set.kind", Kind: Choice, Label: "what the set is"},
	{Path: "set.name", Kind: Words, Label: "name of the set"},
	{Path: "set.copies", Kind: Number, Label: "how many sets"},
	{Path: "set.step", Kind: Distance, Label: "each smaller by", Help: "than the one below, in length and width"},
}

// Of lists the names of the fields of a part, such as the measures and properties of a thing.
func Of(part string) (names []string) {
	for _, f := range Table {
		if name, ok := strings.CutPrefix(f.Path, part+".*."); ok {
			names = append(names, name)
		}
	}
	return names
}

var byPath = func() map[string]Field {
	m := map[string]Field{}
	for _, f := range Table {
		m[f.Path] = f
	}
	return m
}()

// FieldAt finds the field at a path such as "contents.0.length" or "contents.@k3.length".
func FieldAt(path string) (Field, bool) {
	parts := strings.Split(path, ".")
	for i := 1; i < len(parts)-1; i++ {
		if _, err := strconv.Atoi(parts[i]); err == nil || strings.HasPrefix(parts[i], "@") {
			parts[i] = "*"
		}
	}
	f, ok := byPath[strings.Join(parts, ".")]
	if f.Most == 0 {
		f.Most = mostLetters
	}
	return f, ok
}

// TooLong says of a text that a field can't hold: which field, how long it is
// and how long it may be. It is "" for a text that fits.
func TooLong(path, text string) string {
	f, ok := FieldAt(path)
	if !ok {
		f = Field{Label: words.Plain(path[strings.LastIndexByte(path, '.')+1:]), Most: mostLetters}
	}
	if n := words.Letters(text); n > f.Most {
		return fmt.Sprintf("“%s” is %d letters long; it takes %d", words.Capital(f.Label), n, f.Most)
	}
	return ""
}
