package dress

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"brevium/core/brief"
	"brevium/core/words"
)

// Contrast is how much lighter one colour is than another, from 1 to 21, as readers
// see it (the relative luminance of WCAG 2).
func Contrast(a, b string) float64 {
	x, y := luminance(a), luminance(b)
	return (max(x, y) + 0.05) / (min(x, y) + 0.05)
}

func luminance(colour string) float64 {
	rgb, err := strconv.ParseUint(strings.TrimPrefix(colour, "#"), 16, 32)
	if err != nil {
		return 0.5
	}
	part := func(shift uint) float64 {
		v := float64(rgb>>shift&255) / 255
		if v <= 0.04045 {
			return v / 12.92
		}
		return math.Pow((v+0.055)/1.055, 2.4)
	}
	return 0.2126*part(16) + 0.7152*part(8) + 0.0722*part(0)
}

// darkInk is what words are lettered in where nothing else is said.
const darkInk = "#2a2520"

// contrast checks that words can be read on their card.
func contrast(k *work, text, ink, card string) {
	if ink == "" {
		ink = darkInk
	}
	ratio := Contrast(ink, card)
	if ratio >= 3 {
		return
	}
	w := brief.Warning{Code: "faint-words", Fix: "Choose a lighter card or another ink.",
		Text: fmt.Sprintf("“%s” is hard to read on its card: the contrast is %.1f to 1.", words.Cut(text, 30), ratio)}
	for _, other := range []struct{ ink, name string }{{darkInk, "dark ink"}, {"#ffffff", "white"}} {
		if Contrast(other.ink, card) >= 4.5 && strings.HasPrefix(k.entry, "toppers") {
			w.Fix, w.Set = "Letter it in "+other.name+".", brief.To("dress."+k.entry+".ink", other.ink)
			break
		}
	}
	k.Warn(w)
}
