package contents

import "brevium/core/brief"

// Usual is the library of usual things, with made-up, plausible sizes to start
// from. Measure your own.
var Usual = []brief.Item{
	{Name: "seed packet", Shape: "flat", Length: "4 1/2 in", Width: "3 1/4 in", Thickness: "1/8 in",
		Decorated: "1/4 in", Count: "6", Mass: "8 g"},
	{Name: "tulip bulb", Shape: "ball", Diameter: "1 3/4 in", Count: "6", Mass: "30 g"},
	{Name: "wooden plant marker", Shape: "block", Length: "5 3/4 in", Width: "5/8 in", Height: "1/8 in",
		Stack: "8", Lie: "yes", Count: "12", Mass: "6 g"},
	{Name: "round tea tin", Shape: "cylinder", Diameter: "85 mm", Height: "62 mm", Count: "1", Mass: "140 g", Food: "yes"},
	{Name: "honey jar", Shape: "cylinder", Diameter: "54 mm", Height: "68 mm", NeckDiameter: "48 mm",
		NeckHeight: "14 mm", Count: "1", Mass: "180 g", Food: "yes", Fragile: "yes", Liquid: "yes"},
	{Name: "beeswax votive", Shape: "cylinder", Diameter: "48 mm", Height: "40 mm", Count: "2", Mass: "60 g", Flame: "yes"},
	{Name: "terracotta thumb pot", Shape: "cylinder", Diameter: "60 mm", Height: "55 mm", Count: "1",
		Mass: "110 g", Fragile: "yes"},
	{Name: "ball of jute", Shape: "ball", Diameter: "70 mm", Count: "1", Mass: "90 g"},
	{Name: "folded tea towel", Shape: "soft", Length: "5 in", Width: "4 in", Height: "1 1/2 in",
		Press: "1/2 in", Count: "1", Mass: "70 g"},
	{Name: "greeting card", Shape: "flat", Length: "5 1/2 in", Width: "4 1/4 in", Thickness: "1/32 in",
		Decorated: "1/8 in", Envelope: "yes", Count: "4", Mass: "12 g"},
	{Name: "shortbread round", Shape: "cylinder", Diameter: "65 mm", Height: "12 mm", Stack: "6", Count: "12",
		Mass: "22 g", Food: "yes"},
}
