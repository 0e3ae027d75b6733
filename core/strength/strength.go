// Package strength reckons what card carries: whether a floor sags, a wall bows, or
// walls give way under what stands on them. It is a guide and no promise: card
// varies, damp weakens it, and glue is only as good as its drying.
//
// A panel is a thin plate that two numbers describe: how stiff it is against bending, along the grain and across
// it. A floor rests on four edges, which stay straight; once it has sagged by more than its thickness it hangs like
// a cloth, and that carries most. A wall rests on three, and its rim is free (wall.go).
package strength

import "math"

const (
	// Stiffness for its weight, in square metres a second squared: what a bar of
	// card resists for the mass of it, along and across the grain. Usual figures of
	// machine-made card in paper handbooks are 5 to 7 and 2 to 3 million.
	along, across = 6.0e6, 2.7e6
	contraction   = 0.3 // how much card narrows when it is stretched, both ways together
	gravity       = 9.81
	// Margin is by how much more than its contents weigh a box is handled: lifted with a jerk, set down hard.
	Margin = 2.0
	// Sags is the part of its span by which a panel may give before it is seen, and
	// mostSag the most in all, in metres.
	sags, mostSag = 1.0 / 40, 0.004
	// Pushes is which part of its weight what stands loose in a box pushes sideways with, when the box is tilted.
	pushes = 0.2
)

// Ply is card that a panel is made of: its thickness in millimetres and its weight in grams a square metre, of all
// layers that are glued together there.
type Ply struct{ T, GSM float64 }

// Glued gives layers that are glued together all over, as one.
func Glued(layers ...Ply) (all Ply) {
	for _, l := range layers {
		all.T, all.GSM = all.T+l.T, all.GSM+l.GSM
	}
	return all
}

// Mean gives card that is of one make here and of another there.
func Mean(places ...Ply) Ply {
	all := Glued(places...)
	return Ply{all.T / float64(max(1, len(places))), all.GSM / float64(max(1, len(places)))}
}

// Panel is a panel of some size, in millimetres. Grain says which side it runs
// along: "length", "width", or "" where it may be either.
type Panel struct {
	Ply
	Length, Width float64
	Grain         string
}

// Young gives the stiffness of the card itself along its length and its width, in pascals: stiffness for its weight
// times its weight for its room. Where nobody knows the grain, both are the mean.
func (p Panel) Young() (length, width float64) {
	density := p.GSM / p.T // grams a square metre over millimetres are kilograms a cubic metre
	switch p.Grain {
	case "length":
		return along * density, across * density
	case "width":
		return across * density, along * density
	}
	mean := math.Sqrt(along*across) * density
	return mean, mean
}

// Bends gives how stiff the panel is along its length and its width, in newton metres: E t³ / 12 (1 - ν²), as of
// any plate. Layers glued together all over bend as one, so t is that of them all.
func (p Panel) Bends() (length, width float64) {
	l, w := p.Young()
	t := p.T / 1000
	by := t * t * t / (12 * (1 - contraction*contraction))
	return l * by, w * by
}

// Pressure gives the even pressure, in pascals, under which the middle of the
// panel has given by so many metres: the one-term solution of the plate equations
// for edges that rest and stay straight, as handbooks of plates have it,
//
//	16 q / π² = π⁴ (Dx/a⁴ + 2 √(Dx Dy)/a²b² + Dy/b⁴) w + π⁴/16 t (Ex/a⁴ + Ey/b⁴) w³,
//
// the first part bending, the second the pull of the card once it has sagged.
func (p Panel) Pressure(sag float64) float64 {
	a, b := p.Length/1000, p.Width/1000
	if a <= 0 || b <= 0 {
		return 0
	}
	dx, dy := p.Bends()
	ex, ey := p.Young()
	a4, b4 := a*a*a*a, b*b*b*b
	bend := math.Pow(math.Pi, 4) * (dx/a4 + 2*math.Sqrt(dx*dy)/(a*a*b*b) + dy/b4)
	pull := math.Pow(math.Pi, 4) / 16 * p.T / 1000 * (ex/a4 + ey/b4)
	return math.Pi * math.Pi / 16 * (bend*sag + pull*sag*sag*sag)
}

// seen is by how much a panel may give before it is seen, in metres.
func seen(span float64) float64 { return min(span/1000*sags, mostSag) }

// Floor gives how many grams, handled with the margin, a floor carries between its walls before it is seen to sag.
func Floor(p Panel) float64 {
	q := p.Pressure(seen(min(p.Length, p.Width)))
	return q * p.Length / 1000 * p.Width / 1000 / gravity / Margin * 1000
}

// Stands gives how many grams four walls bear on their rims before they buckle, each so long along its rim (Length)
// and so high (Width). A plate that rests on its edges gives way at (h/b + b/h)² π² D / b, for a half wave in its
// height, and at no less than 4 π² D / b.
func Stands(walls ...Panel) float64 {
	sum := 0.0
	for _, p := range walls {
		b, h := p.Length/1000, p.Width/1000
		if b <= 0 || h <= 0 {
			continue
		}
		dx, dy := p.Bends()
		k := 4.0
		if h < b {
			k = math.Pow(h/b+b/h, 2)
		}
		sum += k * math.Pi * math.Pi * math.Sqrt(dx*dy) / b
	}
	return sum / gravity / Margin * 1000
}
