package dress

import (
	"math"
	"strconv"
	"strings"

	"brevium/core/brief"
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

func (k *work) faint(text, fix string, set []string) {
	w := brief.Warning{Code: "faint-words", Text: text, Fix: fix}
	for i := 0; i+1 < len(set); i += 2 {
		w.Set = map[string]string{set[i]: set[i+1]}
	}
	k.Warn(w)
}
