package draw

import "brevium/draw/pen"

// Word draws what a word of the glossary means, small. It is "" for a word that
// has no picture.
func Word(id, says string) string {
	marks, ok := wordPictures[id]
	if !ok {
		return ""
	}
	c := &pen.Canvas{}
	for _, m := range marks {
		c.Tag("path", "class", m.class, "d", m.path)
	}
	return c.Picture("word", 120, 80, says).SVG()
}

type mark struct{ class, path string }

// What recurs in the pictures: a flat piece with its corners, an open tray, a
// closed box.
const (
	flatPiece = "M20 10h80v60h-80z"
	flatInner = "M36 10v60M84 10v60M20 26h80M20 54h80"
	trayFront = "M20 34v30h70V34zM90 34l14-12v30l-14 12z"
	trayRim   = "M20 34l14-12h70l-14 12z"
	boxBody   = "M24 36v30h60V36zM84 36l16-12v30l-16 12z"
	boxLid    = "M20 26h68v14H20zM88 26l18-13v14l-18 13zM20 26l18-13h68l-18 13z"
)

// wordPictures are drawn with the classes of the other drawings: face is card,
// edge its rim, part the part that is meant, groove a score.
var wordPictures = map[string][]mark{
	"score":    {{"face", flatPiece}, {"groove", "M60 10v60"}, {"flag", "M60 4v4M60 72v4"}},
	"valley":   {{"face", "M16 20l44 40v-20L16 4zM60 60l44-40V4L60 40z"}, {"groove", "M60 40v20"}},
	"mountain": {{"face", "M16 60l44-40v16L16 76zM60 20l44 40v16L60 36z"}, {"groove", "M60 20v16"}},
	"burnish":  {{"face", "M14 50h80v6h-80zM14 44h80v6h-80z"}, {"part", "M70 42l26-34q8-2 8 6l-26 30z"}},
	"caliper":  {{"face", "M16 34h88v10h-88z"}, {"flag", "M60 14v18M60 64V46M54 26l6 7 6-7M54 52l6-7 6 7"}},
	"grain":    {{"face", "M20 12h80v56h-80z"}, {"cut", "M32 24h26M66 24h22M32 36h14M54 36h34M32 48h34M74 48h14M32 60h20M60 60h28"}},
	"groove":   {{"face", "M12 24h96v40h-96z"}, {"groove", "M30 24v40M48 24v40M84 24v40"}, {"part", "M64 24h4v40h-4z"}},
	"piece":    {{"part", flatPiece}, {"groove", flatInner}},
	"panel":    {{"face", flatPiece}, {"part", "M36 26h48v28h-48z"}, {"groove", flatInner}},
	"base":     {{"part", trayFront}, {"face", trayRim}},
	"wall":     {{"face", trayFront}, {"face", trayRim}, {"part", "M20 34h70v30h-70z"}},
	"lid":      {{"face", boxBody}, {"part", boxLid}},
	"rolled": {{"face", "M20 70h70v-4h-70z"}, {"part", "M20 70V18q4-6 8 0v48h-4V22h-1v48z"},
		{"flag", "M40 20q-10-14-18-4"}},
	"pinwheel": {{"face", flatPiece}, {"groove", flatInner}, {"cut", "M36 10v16M100 26h-16M84 70v-16M20 54h16"}},
	"tab": {{"face", flatPiece}, {"groove", flatInner},
		{"part", "M20 12l16-2v16h-14zM100 12l-16-2v16h14zM20 68l16 2v-16h-14zM100 68l-16 2v-16h14z"}},
	"mitre": {{"face", "M24 40h72v32h-72z"}, {"part", "M34 12h52l10 28h-72z"},
		{"cut", "M34 12L24 40M86 12l10 28"}, {"groove", "M24 40h72"}},
	"flap":      {{"face", boxBody}, {"part", "M24 36l10-26h66l-16 26z"}},
	"dust-flap": {{"face", boxBody}, {"part", "M24 36l-12-14 14-8 12 10zM84 36l22-20-8-8-16 16z"}},
	"tuck":      {{"face", boxBody}, {"part", "M24 36l16-12h60l-16 12z"}, {"flag", "M54 8v20M48 22l6 8 6-8"}},
	"notch":     {{"face", "M20 16h80v50h-80z"}, {"part", "M44 16a16 16 0 0 0 32 0z"}},
	"gusset": {{"face", "M20 40h60v30h-60zM20 40l10-26h60l-10 26z"},
		{"part", "M80 40l10-26 14 18-6 30-18 8zM80 40l18-8"}},
	"web": {{"face", flatPiece}, {"groove", flatInner}, {"part",
		"M20 10h16v16zM100 10h-16v16zM20 70h16v-16zM100 70h-16v-16z"}},
	"facet": {{"face", "M30 10h60v40l-16 18H46L30 50z"}, {"part", "M30 50l16 18h8l-16-18zM90 50l-16 18h-8l16-18z"}},
	"crest": {{"face", "M24 70V44l20-16v-2h32v2l20 16v26z"}, {"part", "M44 26V8h32v18z"}, {"groove", "M24 44h72"}},
	"petal": {{"face", "M24 12h72v56H24z"}, {"groove", "M24 12l72 56M96 12L24 68"},
		{"part", "M24 12l36 28V12zM96 68L60 40v28z"}},
	"sleeve":    {{"part", "M34 20h60v40h-60zM94 20l14-8v40l-14 8z"}, {"face", "M12 26h30v28h-30z"}},
	"band":      {{"face", boxBody}, {"part", "M46 36h16v30h-16zM46 36l16-12h16l-16 12z"}},
	"clearance": {{"face", "M30 30h60v40h-60z"}, {"part", "M24 18h72v24h-6V24H30v18h-6z"}, {"flag", "M24 50h6M90 50h6"}},
	"reveal":    {{"face", boxBody}, {"part", "M24 50h60v16h-60z"}, {"face", boxLid}},
	"overhang": {{"face", "M30 26h60v36h-60z"}, {"part", "M18 62h84v5h-84zM18 21h84v5h-84z"},
		{"flag", "M18 44h12M90 44h12"}},
	"layer":        {{"face", "M20 10h80v60h-80z"}, {"part", "M28 18h64v44h-64z"}},
	"liner":        {{"face", trayFront}, {"face", trayRim}, {"part", "M28 32l9-8h58l-9 8z"}},
	"finger-room":  {{"face", "M18 14h84v54h-84z"}, {"part", "M40 14h40v54h-40z"}, {"flag", "M18 40h22M80 40h22"}},
	"proud":        {{"part", "M40 10h34v50h-34z"}, {"face", "M20 34h74v34h-74z"}, {"flag", "M84 10v24"}},
	"compartments": {{"face", "M18 12h84v56h-84z"}, {"part", "M45 12h3v56h-3zM72 12h3v56h-3zM18 38h84v3h-84z"}},
	"fence":        {{"face", "M24 22h74v44h-74z"}, {"part", "M12 14h94v8h-94z"}, {"groove", "M44 22v44M70 22v44"}},
	"step": {{"face", "M12 26h96v30h-96z"},
		{"cut", "M20 26v14M32 26v8M44 26v14M56 26v8M68 26v14M80 26v8M92 26v14"}, {"flag", "M44 64h12"}},
	"offcut": {{"face", "M16 10h52v60h-52z"}, {"part", "M68 10h36v60h-36z"}, {"cut", "M68 10v60"}},
	"proof":  {{"face", boxBody}, {"face", boxLid}, {"part", "M44 52l8 8 18-20 4 4-22 24-12-12z"}},
}
