package readings

import (
	"brevium/core/cutting"
	"brevium/core/plan"
)

// Grain tells of each piece which way its grain should run, and whether it does on
// the sheet it is cut from.
type Grain struct {
	Piece, Says string
	Runs        bool
}

// Grains lists them; nothing where no card's grain is known.
func Grains(p *plan.Plan) (out []Grain) {
	for _, piece := range p.Box.Pieces() {
		c := p.CardOf(piece.Stock)
		if c.Runs(p.SheetOf(c)) == "" {
			continue
		}
		wants := cutting.WantsGrain(piece)
		g := Grain{Piece: piece.Name, Runs: true, Says: map[string]string{"height": "up and down, as it is drawn",
			"width": "left to right, as it is drawn"}[wants]}
		for _, cut := range p.Cuts {
			for _, s := range cut.Sheets {
				for _, l := range s.Placed {
					if l.Piece == piece.Name && (c.Runs(cut.Sheet) == wants) == l.Turned {
						g.Runs = false
					}
				}
			}
		}
		if !g.Runs {
			g.Says += "; on the sheet it lies the other way"
			if c.Directed() {
				g.Says += ", because its pattern must stand upright"
			}
		}
		out = append(out, g)
	}
	return out
}
