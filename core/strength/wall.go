package strength

import "math"

const (
	// rims and sagged are how many lengths of rim and how many sags the tables have, two lengths and one sag
	// to a doubling, from a quarter of the height and of the thickness.
	rims, sagged = 13, 7
	// A rim that has moved by two millimetres is seen, and a lid no longer slips over it, however long the
	// wall is; of a low wall, a twelfth of its height is seen.
	bows, mostBow = 1.0 / 12, 0.002
)

// pressures are the even pressures under which walls sag, as q b⁴ / E t⁴: b the height, t the thickness. A
// row is a length of rim, a column a sag over the thickness. The wall is a plate that bends and stretches
// (von Kármán's equations): its lower edge turns in its fold, its ends turn at the corners, where nothing
// but the wall itself keeps them apart, so that the pull of the sagged rim counts as far as the wall's own
// shear bears it. Solved by Ritz's method in ritz_test.go, which prints them anew and tests them.
var pressures = struct{ free, held [rims][sagged]float64 }{
	free: [rims][sagged]float64{ // the rim moves
		{385.3, 774.4, 1575, 3279, 6859, 1.454e+04, 3.643e+04},
		{96.48, 193.6, 391.9, 806.8, 1695, 3871, 1.157e+04},
		{24.33, 48.78, 98.44, 202.3, 438, 1127, 4126},
		{6.345, 12.73, 25.75, 53.76, 124.4, 372.1, 1630},
		{1.785, 3.589, 7.334, 15.84, 40.13, 139.9, 694.6},
		{0.5629, 1.136, 2.353, 5.319, 14.95, 58.61, 310.7},
		{0.2025, 0.4101, 0.8599, 2.027, 6.264, 26.62, 144},
		{0.08219, 0.1667, 0.3515, 0.8457, 2.757, 12.41, 68.17},
		{0.03647, 0.07388, 0.1554, 0.3709, 1.201, 5.535, 31.38},
		{0.01711, 0.03459, 0.07205, 0.1668, 0.5082, 2.271, 13.18},
		{0.008285, 0.01669, 0.03438, 0.07656, 0.2126, 0.8654, 4.945},
		{0.004076, 0.008192, 0.0167, 0.03589, 0.09061, 0.3206, 1.694},
		{0.002022, 0.004055, 0.008206, 0.01716, 0.04, 0.1215, 0.5561},
	},
	held: [rims][sagged]float64{ // the rim can't move outwards; the sag is that of the middle
		{462.4, 924.7, 1851, 3760, 8285, 2.329e+04, 9.848e+04},
		{122.6, 246.4, 502.7, 1085, 2788, 1.009e+04, 5.341e+04},
		{36.4, 73.91, 156.4, 377.5, 1209, 5456, 3.416e+04},
		{12.89, 26.56, 59.25, 164.3, 640.9, 3328, 2.313e+04},
		{5.721, 11.95, 27.81, 84.58, 360.6, 1968, 1.405e+04},
		{3.239, 6.77, 15.79, 47.59, 196.9, 1026, 7178},
		{2.286, 4.724, 10.59, 28.97, 106.1, 508.5, 3173},
		{1.915, 3.892, 8.253, 19.77, 60.8, 256.1, 1359},
		{1.792, 3.595, 7.296, 15.67, 39.94, 137.6, 632},
		{1.773, 3.539, 7.046, 14.19, 31.09, 85.39, 322.2},
		{1.79, 3.572, 7.09, 13.95, 27.99, 63.52, 189.4},
		{1.816, 3.617, 7.165, 14.11, 27.52, 55.74, 133},
		{1.843, 3.658, 7.196, 14.17, 27.94, 54.42, 112.2},
	},
}

// Wall gives how many grams of contents a wall holds before it is seen to bow: the panel is the wall, its
// length along the rim. Held says that something keeps the rim from moving outwards; then a long wall is
// taken to hold no more than a shorter one, for what is heavy leans on one place of it.
func Wall(p Panel, held bool) float64 {
	if p.Length <= 0 || p.Width <= 0 || p.T <= 0 {
		return 0
	}
	_, up := p.Young()
	high, thick := p.Width/1000, p.T/1000
	// Card that is stiffer along the rim is as card alike both ways whose rim is shorter: the fourth root
	// of the ratio, as for all plates whose shear stiffness is the mean of the two.
	along, _ := p.Young()
	rim := p.Length / p.Width * math.Pow(up/along, 0.25)
	sag := min(high*bows, mostBow) / thick
	most := rim * between(&pressures.free, rim, sag)
	if held {
		of := rim * between(&pressures.held, rim, sag)
		for i := range rims { // between two lengths of the table it is never less than at both
			if l := length(i); l < rim {
				of = min(of, l*between(&pressures.held, l, sag))
			}
		}
		most = max(most, of)
	}
	newtons := most * math.Pow(along/up, 0.25) * up * math.Pow(thick, 4) / (high * high)
	return newtons / gravity / Margin / pushes * 1000
}

// length is the rim, over the height, of a row of the tables.
func length(row int) float64 { return math.Pow(2, float64(row)/2-2) }

// between reads a table between its numbers, straight from logarithm to logarithm, and beyond its ends the
// same way on.
func between(table *[rims][sagged]float64, rim, sag float64) float64 {
	at := func(place float64, n int) (int, float64) {
		i := min(max(int(math.Floor(place)), 0), n-2)
		return i, place - float64(i)
	}
	i, x := at(2*math.Log2(rim)+4, rims)
	j, y := at(math.Log2(sag)+2, sagged)
	row := func(i int) float64 { return (1-y)*math.Log(table[i][j]) + y*math.Log(table[i][j+1]) }
	return math.Exp((1-x)*row(i) + x*row(i+1))
}

// Belt is a band that goes round all walls: its card, how wide it is, how far up its middle lies, and how
// long it is round the box, in millimetres.
type Belt struct {
	Ply
	Wide, Up, Round float64
}

// Helps gives how many grams more a wall holds before it is seen to bow when a band goes round the box:
// where two walls that face each other bow by w sin(πx/a), the band grows longer by π²w²/4a at each, and
// its pull is E times its section times that over its length.
func (b Belt) Helps(p Panel) float64 {
	if p.Length <= 0 || p.Width <= 0 || b.T <= 0 || b.Round <= 0 {
		return 0
	}
	strip := Panel{Ply: b.Ply}
	along, _ := strip.Young()
	w := min(p.Width/1000*bows, mostBow)
	grows := math.Pi * math.Pi * math.Pow(w*b.Up/p.Width, 2) / (2 * p.Length / 1000) / (b.Round / 1000)
	// By the work done: the pressure's over the wall, q a b w/π, is the band's energy, which goes by w⁴.
	newtons := 4 * math.Pi / w * along * b.T / 1000 * b.Wide / 1000 * b.Round / 1000 * grows * grows / 2
	return newtons / gravity / Margin / pushes * 1000
}
