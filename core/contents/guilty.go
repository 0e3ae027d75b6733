package contents

// Guilty names, for the length, width and height an arrangement wants, the
// thing that asks for most of it (its place in the list) and the measure of it
// that lies that way: "contents.2.diameter".
func (l Load) Guilty(way func(Size) Length) (thing int, measure string) {
	best := Length(-1)
	for _, s := range l.Stacks {
		at := way(s.Each)
		if at > best {
			best, thing, measure = at, s.Thing, l.Things[s.Thing].Measure(at)
		}
	}
	return thing, measure
}

// Measure names the measure of a thing that is so long.
func (t Thing) Measure(l Length) string {
	switch {
	case t.Shape == "ball":
		return "diameter"
	case t.Shape == "cylinder" && l == t.Size.Height:
		return "height"
	case t.Shape == "cylinder":
		return "diameter"
	case l == t.Size.Length:
		return "length"
	case l == t.Size.Width:
		return "width"
	case t.Shape == "flat":
		return "thickness"
	}
	return "height"
}
