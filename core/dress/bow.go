package dress

import (
	"fmt"
	"math"

	"brevium/core/net"
	"brevium/core/words"
)

// bow cuts the strips of a paper bow, and curls.
func bow(k *work) {
	b := k.Bow
	if b == nil {
		return
	}
	k.entry = "bow"
	strip := func(name string, long, width Length, count int, taper bool) {
		ring := []net.Point{{}, {X: width}, {X: width, Y: long}, {Y: long}}
		if in := width / 4; taper {
			ring = []net.Point{{X: in}, {X: width - in}, {X: width, Y: width}, {X: width, Y: long - width}, {X: width - in,
				Y: long},
				{X: in, Y: long}, {Y: long - width}, {Y: width}}
		}
		p := cutTo(k.name(name), "strip", ring, nil)
		p.Part = net.Bow
		k.loose(p, b.Card, count)
	}
	if b.Size < 3*b.Width {
		k.wrong("size", fmt.Sprintf("A bow %s across is too small for strips of %s.", k.Say(b.Size), k.Say(b.Width)),
			"Make it larger, or its strips narrower.", "dress.bow.size", (4 * b.Width).Up(k.Step.Size).Exact(k.Step.Unit))
		return
	}
	size := b.Size
	for tier := range b.Tiers {
		name := "bow loop"
		if tier > 0 {
			name = fmt.Sprintf("bow loop, tier %d", tier+1)
		}
		// A loop is a drop half as wide as it is long: about 2.3 times its length, and a lap.
		long := (size/2*23/10 + k.Sticks.Width).Up(k.Step.Size)
		strip(name, long, b.Width, b.Loops, true)
		size = size * 3 / 4
	}
	strip("bow centre", (measured(math.Pi*10) + k.Sticks.Width).Up(k.Step.Size), b.Width, 1, false)
	if b.Tails {
		strip("bow tail", (b.Size * 3 / 5).Up(k.Step.Size), b.Width, 2, true)
	}
	if b.Curls > 0 {
		once := math.Pi * (b.Rod + b.Card.Caliper).MM()
		long, times := measured(3*math.Pi*(b.Rod+k.T).MM()).Up(k.Step.Size), "three times"
		if b.Curl > 0 {
			long = b.Curl
			if times = words.Count(int(math.Round(long.MM()/once)), "time"); long.MM() < once {
				k.wrong("curl", fmt.Sprintf("A curl of %s doesn't go once round a rod of %s.", k.Say(b.Curl), k.Say(b.Rod)),
					"Make it longer, or the rod thinner.", "dress.bow.curl", measured(2*once).Up(k.Step.Size).Exact(k.Step.Unit))
				return
			}
		}
		strip("curl", long, max(b.Width/3, 3*mm).Down(k.Step.Size), b.Curls, false)
		k.last("Roll each curl %s round a rod of %s, and let it spring open.", times, k.Say(b.Rod))
	}
	k.last("Bend each of the %d loops over without a score, stick its ends together, lay them as a star, and the centre over them.",
		b.Loops*b.Tiers)
}
