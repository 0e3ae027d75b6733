package help

// topic is help for a spot of the pages: what is done there, in a few sentences, the words it uses, and the how-tos
// that go further.
type topic struct {
	ID, Title string
	Says      []string
	Words     []string
	Hows      []string
}

var topics = []topic{
	{"boxes", "Your boxes", []string{
		"Every box you make is here. Press New box to start one, or open a box to go on with it.",
		"Tick boxes to put them in a folder, plan a batch of them, or cut them from the same sheets.",
	}, nil, []string{"first-box"}},
	{"contents", "What goes in", []string{
		"Add each thing that goes in the box, with its size and how many. Measure at the widest place.",
		"Brevium adds room for your fingers. The picture shows how the things lie and how much space is free.",
		"Do you know the box size already? Open More and type it instead.",
	}, []string{"finger-room", "compartments", "proud"}, []string{"measure", "first-box"}},
	{"box", "The box", []string{
		"Choose which box to make. Each one is shown at your size, with its sheets and minutes.",
		"The questions below it are the choices makers disagree on. Each has a sensible answer already.",
	}, []string{"wall", "rolled", "clearance", "reveal"}, []string{"lid", "glue-or-tape"}},
	{"card", "Card and fit", []string{
		"Choose the card and the sheet you cut from. The picture shows the corner of the box from the side, enlarged.",
		"After you have made a box, press how the lid fitted. Brevium uses that for your next lids.",
	}, []string{"caliper", "grain", "clearance"}, []string{"card", "lid"}},
	{"dressing", "Decoration", []string{
		"Choose how much decoration you want, or press a panel to cover it with a layer.",
		"Below are liners, bands, ribbons, windows and closures. Every piece is added to your sheets.",
	}, []string{"layer", "liner", "band"}, nil},
	{"sheets", "Sheets", []string{
		"This is how the pieces lie on your sheets. Press Cut by cut to see the cuts in order.",
		"Move a piece to pin it somewhere, and Brevium arranges the rest around it.",
		"When you have cut, press Cut it: the sheets leave your supplies.",
	}, []string{"offcut"}, []string{"waste"}},
	{"bench", "Making it", []string{
		"Press Start making to see one step at a time. Your phone shows the same steps, and ticks are saved.",
		"Turn by turn shows each piece on the scoring board. The glue map shows where to put glue or tape.",
	}, []string{"fence", "groove", "burnish"}, []string{"score-fold", "score-card", "glue-or-tape"}},
	{"record", "Record", []string{
		"When the box is made, press I made it to write it in the logbook, with how the lid fitted.",
		"You can also name the box, copy it, put it in a folder, or archive it.",
	}, nil, nil},
	{"supplies", "Supplies", []string{
		"List the card, paper and tools you own. Every box is planned from them.",
		"My habits are your answers where makers disagree. A box can always have its own.",
	}, []string{"caliper", "offcut", "step"}, []string{"card"}},
	{"batches", "Batches", []string{
		"A batch is many boxes by a date: for a fair, a party or several people.",
		"Add the boxes, how many, and the hours you have. Brevium plans the sheets, the shopping and your evenings.",
	}, nil, nil},
	{"logbook", "Logbook", []string{
		"Everything you have made is here, with photos and how the lids fitted.",
		"Search in plain words, such as “what fitted an 85 mm tin” or “tight in March”.",
	}, nil, nil},
	{"scores", "Check someone else's measurements", []string{
		"Type the pieces with their cut sizes and scores. Brevium folds them and shows which box they make.",
		"If a number looks wrong, Brevium says which and offers the right one.",
	}, []string{"score", "wall", "tab"}, nil},
}

// spots are where topics are asked for by the name of a page's spot.
var spots = map[string]string{"list": "boxes", "batch": "batches", "cards": "supplies", "offcuts": "supplies",
	"tools": "supplies", "habits": "supplies", "fit": "supplies", "prices": "supplies"}

// topicOf finds the help for a spot.
func topicOf(spot string) (topic, bool) {
	if of, ok := spots[spot]; ok {
		spot = of
	}
	for _, t := range topics {
		if t.ID == spot {
			return t, true
		}
	}
	return topic{}, false
}
