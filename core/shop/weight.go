package shop

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"brevium/core/measure"
)

// Card is weighed in grams a square metre, or in pounds of its grade: what 500
// sheets of the grade's own size weigh.

// Grade is a way of weighing card in pounds.
type Grade struct {
	ID            string
	Width, Height float64 // of its basis sheet, in inches
}

// Grades lists them, by their basis sheets as the trade has them.
var Grades = []Grade{
	{"cover", 20, 26}, {"text", 25, 38}, {"index", 25.5, 30.5}, {"bristol", 22.5, 28.5}, {"tag", 24, 36},
}

const (
	gramsAPound = 453.59237
	ream        = 500
	sqInch      = 0.0254 * 0.0254 // in square metres
)

// Grams gives how many grams a square metre so many pounds of the grade are: the
// mass of a ream of basis sheets over their area.
func (g Grade) Grams(pounds float64) float64 {
	return pounds * gramsAPound / (ream * g.Width * g.Height * sqInch)
}

// Pounds is Grams the other way.
func (g Grade) Pounds(gsm float64) float64 { return gsm / g.Grams(1) }

// The lightest and the heaviest a sheet is.
const (
	leastGSM, mostGSM = 30, 1500
	usualWeight       = "Card is usually 150 to 400 gsm (55 to 150 lb cover), paper 70 to 130 gsm."
)

// ParseWeight reads "300", "300 gsm" or "80 lb cover" as grams a square metre.
func ParseWeight(text string) (gsm float64, err error) {
	s := strings.ToLower(strings.TrimSpace(text))
	grade := Grades[0]
	unit := strings.TrimLeft(s, "0123456789., ")
	number, err := strconv.ParseFloat(strings.ReplaceAll(strings.TrimSpace(strings.TrimSuffix(s, unit)), ",", "."), 64)
	if err != nil || math.IsNaN(number) {
		return 0, fmt.Errorf("%q is not a weight. Write it like 300 gsm or 80 lb cover", text)
	}
	words := strings.Fields(strings.NewReplacer("#", " lb ", "g/m²", "gsm", "g/m2", "gsm").Replace(unit))
	pounds := false
	for _, w := range words {
		known := w == "gsm" || w == "g" || w == "lb" || w == "lbs"
		pounds = pounds || w == "lb" || w == "lbs"
		for _, g := range Grades {
			if w == g.ID {
				grade, known, pounds = g, true, true
			}
		}
		if !known {
			return 0, fmt.Errorf("%q isn't a paper weight. Write it like 300 gsm or 80 lb cover (or text, index, bristol or tag)", w)
		}
	}
	if gsm = number; pounds {
		gsm = grade.Grams(number)
	}
	if gsm < leastGSM || gsm > mostGSM {
		return 0, fmt.Errorf("%.0f gsm isn't a usual weight. %s", min(gsm, 1e9), usualWeight)
	}
	return gsm, nil
}

// The thinnest and the thickest a sheet is.
const (
	leastCaliper, mostCaliper = measure.Millimetre * 3 / 100, measure.Millimetre * 2
	usualCaliper              = "Paper is about 0.1 mm, card 0.2 to 0.5 mm thick."
)

// ParseCaliper reads a thickness: a length, or thousandths of an inch as "12 pt".
func ParseCaliper(text string, unit measure.Unit) (Length, error) {
	s := strings.ToLower(strings.TrimSpace(text))
	if points, ok := strings.CutSuffix(s, "pt"); ok {
		n, err := strconv.ParseFloat(strings.TrimSpace(points), 64)
		if err != nil || !(n > 0 && n < 1000) {
			return 0, fmt.Errorf("%q is not a thickness. %s", text, usualCaliper)
		}
		return measure.FromMM(n * 25.4 / 1000).Near(measure.Millimetre / 1000), nil
	}
	l, err := measure.Parse(text, unit)
	if err != nil {
		return 0, err
	}
	return l, nil
}

// Bulk is how much room a gram of a kind of card takes up, in cm³, where nothing
// was measured: smooth card packs to about 1.25, soft and toothed paper more.
var Bulk = map[string]float64{"card": 1.25, "paper": 1.2, "specialty": 1.4}

// Estimate gives about how thick a sheet is that was only weighed: its mass times
// its bulk, in hundredths of a millimetre.
func Estimate(gsm, bulk float64) Length {
	return measure.FromMM(gsm * bulk / 1000).Near(measure.Millimetre / 100)
}
