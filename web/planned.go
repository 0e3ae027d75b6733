package web

import (
	"fmt"
	"slices"
	"strings"

	"brevium/core/brief"
	"brevium/core/measure"
	"brevium/core/net"
	"brevium/core/plan"
	"brevium/core/record"
	"brevium/core/sets"
	"brevium/core/style"
	"brevium/core/words"
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

// planned lists the pieces of all that is made, as they are now.
func planned(j sets.Job) (out []record.Planned) {
	for i, p := range j.Plans {
		one := record.Planned{Size: sizeSaid(p.Step.Show, p.Box.Size), Inside: sizeSaid(p.Step.ShowDown, p.Box.Inside)}
		if j.Set != nil {
			one.Box = j.Names[i]
		}
		for _, piece := range p.Box.Pieces() {
			one.Pieces = append(one.Pieces, record.PlannedPiece{Name: words.Plain(piece.Name), Count: piece.Count,
				Card: p.CardOf(piece.Stock).Title, Width: p.Say(piece.Width), Height: p.Say(piece.Height),
				Across: scoresSaid(p, piece, true), Down: scoresSaid(p, piece, false)})
		}
		out = append(out, one)
	}
	return out
}

func sizeSaid(show func(measure.Length) measure.Shown, d style.Dims) string {
	l, w, h := show(d.Length), show(d.Width), show(d.Depth)
	return fmt.Sprintf("%s × %s × %s", plainly(l.Text), plainly(w.Text), plainly(h.Text+" "+string(h.Unit)))
}

// scoresSaid lists the scores of a piece one way.
func scoresSaid(p *plan.Plan, piece *net.Piece, across bool) string {
	var out []string
	for _, pass := range scoresOf(piece, across) {
		if at := plainly(p.Step.Show(pass.At).Text); !slices.Contains(out, at) {
			out = append(out, at)
		}
	}
	return strings.Join(out, ", ")
}
