package planjson

import (
	"math"

	"brevium/core/bench"
)

// stepOf writes a step of the work.
func stepOf(s bench.Step) jsonStep {
	js := jsonStep{s.ID, s.Title, s.Piece, s.Count, s.Says, s.Caution(), s.Check, nil, math.Round(s.Minutes*10) / 10}
	for _, f := range s.Fails {
		js.Fails = append(js.Fails, f.When+": "+f.Do)
	}
	return js
}
