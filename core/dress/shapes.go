package dress

import (
	"math"

	"brevium/core/net"
)

// The shapes that a topper may have.

// outline is a shape so wide and high, its upper left corner at the origin, as it stands.
func outline(shape string, w, h Length) []net.Point { return filled(drawn(shape, w, h), w, h) }

func drawn(shape string, w, h Length) []net.Point {
	square := []net.Point{{}, {X: w}, {X: w, Y: h}, {Y: h}}
	at := func(x, y float64) net.Point {
		return net.Point{X: Length(math.Round(x * float64(w))), Y: Length(math.Round(y * float64(h)))}
	}
	switch shape {
	case "rounded":
		return rounded(square, min(w, h)/6)
	case "round", "oval":
		return moved(round(net.Point{}, w/2, h/2, 32), w/2, h/2)
	case "scalloped":
		return scallops(at)
	case "banner":
		return []net.Point{{}, {X: w}, {X: w, Y: h}, at(0.5, 0.78), {Y: h}}
	case "tag":
		return []net.Point{at(0.3, 0), at(0.7, 0), at(1, 0.2), {X: w, Y: h}, {Y: h}, at(0, 0.2)}
	case "triangle":
		return []net.Point{at(0.5, 0), {X: w, Y: h}, {Y: h}}
	case "star":
		var out []net.Point
		for i := range 10 {
			r := 0.5
			if i%2 == 1 {
				r = 0.24
			}
			s, c := math.Sincos(math.Pi * float64(i) / 5)
			out = append(out, at(0.5+r*s, 0.5-r*c))
		}
		return out
	case "heart":
		return heart(at)
	}
	return square
}

// scallops is a round with twelve bulges.
func scallops(at func(x, y float64) net.Point) (out []net.Point) {
	for i := range 72 {
		a := 2 * math.Pi * float64(i) / 72
		r := 0.46 + 0.04*math.Abs(math.Cos(6*a)) // a bulge on each side
		out = append(out, at(0.5+r*math.Cos(a), 0.5+r*math.Sin(a)))
	}
	return out
}

// heart is a curve with a notch above and a point below.
func heart(at func(x, y float64) net.Point) (out []net.Point) {
	for i := range 40 {
		t := 2 * math.Pi * float64(i) / 40
		x := 16 * math.Pow(math.Sin(t), 3)
		y := 13*math.Cos(t) - 5*math.Cos(2*t) - 2*math.Cos(3*t) - math.Cos(4*t)
		out = append(out, at(0.5+x/32, 0.42-y/29))
	}
	return out
}

// filled stretches an outline to be just so wide and high.
func filled(ring []net.Point, w, h Length) []net.Point {
	lo, hi := net.Bounds(ring)
	out := make([]net.Point, len(ring))
	for i, p := range ring {
		out[i] = net.Point{X: Length(math.Round(float64(p.X-lo.X) * float64(w) / float64(hi.X-lo.X))),
			Y: Length(math.Round(float64(p.Y-lo.Y) * float64(h) / float64(hi.Y-lo.Y)))}
	}
	return out
}
