package strength

import (
	"flag"
	"fmt"
	"math"
	"testing"
)

// A second reckoning of walls, slow and close: Ritz's method on von Kármán's equations of plates that sag
// by more than their thickness. Sag and both stretches are sums of many waves along the rim and
// polynomials up the wall; Newton's method finds the sums of least energy for a given sag.

var table = flag.Bool("table", false, "print the tables of wall.go anew (ten minutes)")

// ritz is a wall in any one unit of length: its rim, its height and its thickness, with a Young's modulus
// of 1 both ways. Held says that its rim is held as its other edges are.
type ritz struct {
	rim, high, t float64
	held         bool
	waves, terms int
}

// shape is what a term of the sum is at a point: its value, slopes and curvatures.
type shape struct{ v, x, y, xx, yy, xy float64 }

// spot is a point of the wall with every term there, and its share of the area.
type spot struct {
	sag, along, up []shape
	area           float64
}

// legendre gives a Legendre polynomial on 0..1 with its first two derivatives.
func legendre(k int, y float64) (p, d, dd float64) {
	s := 2*y - 1
	p0, p1, d0, d1, e0, e1 := 1.0, s, 0.0, 1.0, 0.0, 0.0
	for n := 1; n < k; n++ {
		a, b := float64(2*n+1)/float64(n+1), float64(n)/float64(n+1)
		p0, p1, d0, d1, e0, e1 = p1, a*s*p1-b*p0, d1, a*(p1+s*d1)-b*d0, e1, a*(2*d1+s*e1)-b*e0
	}
	if k == 0 {
		return p0, d0, e0
	}
	return p1, 2 * d1, 4 * e1
}

// gauss gives the points and weights of Gauss's rule on 0..1.
func gauss(n int) (x, w []float64) {
	for i := range n {
		z := math.Cos(math.Pi * (float64(i) + 0.75) / (float64(n) + 0.5))
		slope := 1.0
		for range 50 {
			p, d, _ := legendre(n, (z+1)/2)
			slope = d / 2
			z -= p / slope
		}
		x, w = append(x, (z+1)/2), append(w, 1/((1-z*z)*slope*slope))
	}
	return x, w
}

func (r ritz) at(x, y float64) (s spot) {
	up := func(k int, held bool) (v, d, dd float64) { // nothing at the fold and, where it is held, at the rim
		p, p1, p2 := legendre(k, y)
		g, g1, g2 := y, 1.0, 0.0
		if held {
			g, g1, g2 = y*(1-y), 1-2*y, -2.0
		}
		return g * p, (g1*p + g*p1) / r.high, (g2*p + 2*g1*p1 + g*p2) / r.high / r.high
	}
	for k := range r.terms {
		v, d, dd := up(k, r.held)
		for m := range r.waves {
			f := float64(2*m+1) * math.Pi
			sin, cos, f := math.Sin(f*x), math.Cos(f*x), f/r.rim
			s.sag = append(s.sag, shape{sin * v, cos * f * v, sin * d, -sin * f * f * v, sin * dd, cos * f * d})
		}
		v, d, _ = up(k, false)
		s.along = append(s.along, shape{v: (x - 0.5) * v, x: v / r.rim, y: (x - 0.5) * d})
		s.up = append(s.up, shape{v: v, y: d})
		for m := 1; m <= r.waves; m++ {
			f := float64(2*m) * math.Pi
			sin, cos, f := math.Sin(f*x), math.Cos(f*x), f/r.rim
			s.along = append(s.along, shape{v: sin * v, x: cos * f * v, y: sin * d})
			s.up = append(s.up, shape{v: cos * v, x: -sin * f * v, y: cos * d})
		}
	}
	return s
}

// solve gives the even pressure under which the wall's rim, or its middle where the rim is held, has given
// by so much.
func (r ritz) solve(sag float64) (pressure float64) {
	xs, wx := gauss(4*r.waves + 6)
	ys, wy := gauss(2*r.terms + 4)
	var spots []spot
	for i, x := range xs {
		for j, y := range ys {
			s := r.at(x, y)
			s.area = wx[i] * wy[j] * r.rim * r.high
			spots = append(spots, s)
		}
	}
	most := r.at(0.5, 1)
	if r.held {
		most = r.at(0.5, 0.5)
	}
	nw, nu := len(most.sag), len(most.along)
	n := nw + 2*nu
	c := make([]float64, n)
	for part := 1.0; part <= 6; part++ {
		for range 60 {
			m := make([][]float64, n+1) // the second derivatives, the load, the sag wanted, and what is missing
			for i := range m {
				m[i] = make([]float64, n+2)
			}
			m[n][n+1] = sag * part / 6
			for i, f := range most.sag {
				m[n][i], m[n][n+1] = f.v, m[n][n+1]-f.v*c[i]
			}
			for _, s := range spots {
				r.add(m, s, c, pressure)
			}
			for i := range n { // the same both ways
				for j := range i {
					m[i][j] = m[j][i]
				}
			}
			step := eliminate(m)
			moved := 0.0
			for i := range n {
				c[i] += step[i]
				if i < nw {
					moved = max(moved, math.Abs(step[i]))
				}
			}
			if pressure += step[n]; moved < 1e-9*sag {
				break
			}
		}
	}
	return pressure
}

// add adds what one spot has of the energy's first and second derivatives.
func (r ritz) add(m [][]float64, s spot, c []float64, pressure float64) {
	nw, nu := len(s.sag), len(s.along)
	n := nw + 2*nu
	var w, u, v shape
	sum := func(to *shape, terms []shape, c []float64) {
		for i, f := range terms {
			to.x, to.y = to.x+c[i]*f.x, to.y+c[i]*f.y
			to.xx, to.yy, to.xy = to.xx+c[i]*f.xx, to.yy+c[i]*f.yy, to.xy+c[i]*f.xy
		}
	}
	sum(&w, s.sag, c)
	sum(&u, s.along, c[nw:])
	sum(&v, s.up, c[nw+nu:])
	a := s.area * r.t / (1 - contraction*contraction)
	g := (1 - contraction) / 2
	d := a * r.t * r.t / 12
	ex, ey, exy := u.x+w.x*w.x/2, v.y+w.y*w.y/2, u.y+v.x+w.x*w.y
	px, py, pxy := a*(ex+contraction*ey), a*(ey+contraction*ex), a*g*exy
	strain := make([][3]float64, n)
	for i, f := range s.sag {
		strain[i] = [3]float64{w.x * f.x, w.y * f.y, w.x*f.y + w.y*f.x}
	}
	for i := range nu {
		strain[nw+i] = [3]float64{s.along[i].x, 0, s.along[i].y}
		strain[nw+nu+i] = [3]float64{0, s.up[i].y, s.up[i].x}
	}
	bend := func(f, h shape) float64 {
		return d * (f.xx*(h.xx+contraction*h.yy) + f.yy*(h.yy+contraction*h.xx) + 4*g*f.xy*h.xy)
	}
	for i, e := range strain { // the upper half
		m[i][n+1] -= px*e[0] + py*e[1] + pxy*e[2]
		ax, ay, axy := a*(e[0]+contraction*e[1]), a*(e[1]+contraction*e[0]), a*g*e[2]
		for j := i; j < n; j++ {
			o := strain[j]
			m[i][j] += ax*o[0] + ay*o[1] + axy*o[2]
		}
	}
	for i, f := range s.sag {
		m[i][n] -= s.area * f.v
		m[i][n+1] += pressure*s.area*f.v - bend(f, w)
		for j := i; j < nw; j++ {
			h := s.sag[j]
			m[i][j] += bend(f, h) + px*f.x*h.x + py*f.y*h.y + pxy*(f.x*h.y+f.y*h.x)
		}
	}
}

// eliminate solves a set of equations, each with its right side last, by Gauss's elimination.
func eliminate(m [][]float64) []float64 {
	n := len(m)
	for i := range m {
		best := i
		for k := i + 1; k < n; k++ {
			if math.Abs(m[k][i]) > math.Abs(m[best][i]) {
				best = k
			}
		}
		m[i], m[best] = m[best], m[i]
		for k := i + 1; k < n; k++ {
			f := m[k][i] / m[i][i]
			for l := i; f != 0 && l <= n; l++ {
				m[k][l] -= f * m[i][l]
			}
		}
	}
	x := make([]float64, n)
	for i := n - 1; i >= 0; i-- {
		x[i] = m[i][n]
		for k := i + 1; k < n; k++ {
			x[i] -= m[i][k] * x[k]
		}
		x[i] /= m[i][i]
	}
	return x
}

// The second reckoning itself, against tables of handbooks of plates: a square that rests on four edges
// sags by 0.00406 q a⁴/D, and one with a free edge by 0.01286 q a⁴/D in the middle of that.
func TestRitzAsHandbooks(t *testing.T) {
	const thick = 0.01
	for held, want := range map[bool]float64{true: 0.00406, false: 0.01286} {
		r := ritz{1, 1, thick, held, 4, 5}
		q := r.solve(thick / 1000)
		d := thick * thick * thick / 12 / (1 - contraction*contraction)
		if got := thick / 1000 * d / q; math.Abs(got-want) > 0.01*want {
			t.Errorf("held %v: it sags by %.5f q a⁴/D, handbooks say %.5f", held, got, want)
		}
	}
}

// The tables themselves, printed as Go has them.
func TestTables(t *testing.T) {
	if !*table {
		t.Skip("with -table")
	}
	for _, held := range []bool{false, true} {
		for i := range rims {
			for j := range sagged {
				r := ritz{length(i), 1, 0.005, held, 4, 6}
				q := r.solve(r.t * math.Pow(2, float64(j)-2))
				fmt.Printf("%.4g, ", q/math.Pow(r.t, 4))
			}
			fmt.Println()
		}
		fmt.Println()
	}
}
