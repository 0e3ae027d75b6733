package assembly

import (
	"math"
	"strings"
	"testing"

	"brevium/core/fold"
	"brevium/core/net"
)

// layered is a box with a lid, with a layer on the lid's front and on the base's, so thick
// and so far off them.
func layered(out Length) *Box {
	t := lidded(90*mm, 70*mm, 40*mm)
	for _, on := range []string{"lid/front", "base/front"} {
		p := net.New(strings.ReplaceAll(on, "/", " ")+" layer", 80*mm, 12*mm)
		p.Shape("layer", []net.Point{{}, {X: 80 * mm}, {X: 80 * mm, Y: 12 * mm}, {Y: 12 * mm}}, nil)
		p.Part = net.Layer
		far := Length(t3)
		if on == "base/front" {
			far = out
		}
		t.Add(p, Place{Face: "layer", On: on, Out: far, Border: 2 * mm}).Rides = true
	}
	return boxOf(t)
}

// A layer goes wherever its panel goes: lying flat, folded, put on, and opened.
func TestLayersRide(t *testing.T) {
	b := layered(t3)
	if said := proof(b); said != "" {
		t.Fatal(said)
	}
	moments := []Standing{b.Assemble(t3, Closed), b.Assemble(t3, Pose{Fold: 1, Lift: 0.7})}
	for n := range 4 * len(b.Course()) {
		moments = append(moments, b.After(t3, float64(n)/4))
	}
	for i, s := range moments {
		for _, part := range []string{"lid", "base"} {
			panel, layer := s.Of(part).Find("front"), s.Of(part+" front layer").Find("layer")
			off := panel.Middle().Sub(layer.Middle())
			if math.Abs(off.Dot(panel.In)-t3.MM()) > 1e-6 || math.Abs(off.Len()-t3.MM()) > 1e-6 {
				t.Fatalf("moment %d: the layer lies %.3f mm off the %s", i, off.Len(), part)
			}
		}
	}
	for _, s := range b.Course() {
		if strings.Contains(s.Part, "layer") {
			t.Errorf("the course has a step for a layer: %+v", s)
		}
	}
	if on := moments[0].Rides(moments[0].Of("lid front layer")); on != "lid/front" {
		t.Errorf("it rides on %q", on)
	}
}

// What comes over something stuck on must leave it room, though faces side by side never
// pass through each other; and a layer must lie within its panel.
func TestCrushed(t *testing.T) {
	b := layered(mm)                                // so thick, the lid's wall comes down on it
	b.Part("base front layer").At[0].Down = 10 * mm // drawn with its rim below
	if said := proof(b); !strings.Contains(said, "comes over the base front layer") {
		t.Errorf("a raised layer under a lid: %q", said)
	}
	b = layered(t3)
	b.Part("lid front layer").At[0].Right = 6 * mm
	if said := proof(b); !strings.Contains(said, "lid front layer comes within") {
		t.Errorf("a layer over the edge: %q", said)
	}
	b.Part("lid front layer").At[0].On = "lid/nowhere"
	if said := proof(b); !strings.Contains(said, "nowhere is not there") {
		t.Errorf("a layer on nothing: %q", said)
	}
}

// Ribbon stands on the box and is in no list of pieces; what is loose is in the list and
// stands nowhere; what goes round the box comes off before the lid does.
func TestLooseAndRound(t *testing.T) {
	tree := lidded(90*mm, 70*mm, 40*mm)
	curl := net.Grid("curl", net.Cols(5*mm), net.Rows(60*mm), "curl")
	tree.Add(curl, Place{}, Place{}, Place{}).Loose = true
	ribbon := net.Loop("ribbon", [4]string{"bottom", "front", "top", "back"}, 10*mm, 80*mm, 50*mm, 20*mm, t3, false)
	ribbon.Part = net.Ribbon
	round := tree.Add(ribbon, Place{Face: "bottom", Out: 3 * mm})
	round.When, round.Off = net.Close, Aside
	b := boxOf(tree)
	if said := proof(b); said != "" {
		t.Fatal(said)
	}
	b.Count()
	var names []string
	for _, p := range b.Pieces() {
		names = append(names, p.Name)
	}
	if got := strings.Join(names, " "); got != "base lid curl" || b.Piece("curl").Count != 3 || len(b.All()) != 4 {
		t.Errorf("%s; %d curls", got, b.Piece("curl").Count)
	}
	at := func(lift float64, part string) fold.Vec {
		s := b.Assemble(t3, Pose{Fold: 1, Lift: lift})
		if s.Of("curl") != nil {
			t.Fatal("the curl stands")
		}
		return s.Of(part).Faces[0].Middle()
	}
	closed, half, open := at(0, "lid"), at(0.5, "lid"), at(1, "lid")
	if half != closed || open == closed || at(0.5, "ribbon") == at(0, "ribbon") || at(1, "ribbon") != at(0.5, "ribbon") {
		t.Errorf("the lid goes %v, %v, %v", closed, half, open)
	}
}
