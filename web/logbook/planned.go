package logbook

import (
	"strings"

	"brevium/core/brief"
)

// What a making keeps of its plan, so that the past stays as it was.

// stated leaves out of a document what was written into it from the shop when the box was made, where the box
// as it is now says nothing of it either.
func stated(was, is brief.Brief) brief.Brief {
	out := was.Clone()
	if was.Tools.House == "no" && is.Tools.House == "" {
		out.Tools.House = ""
	}
	for path, text := range was.All() {
		if text != "" && is.Get(path) == "" && (strings.HasPrefix(path, "tools.") || strings.HasPrefix(path, "box.options.")) {
			out.Set(path, "")
		}
	}
	if len(is.Card.Own) == 0 {
		out.Card.Own = nil
	}
	return out
}
