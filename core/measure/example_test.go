package measure_test

import (
	"fmt"

	"brevium/core/measure"
)

// What is typed is read exactly: a bare number takes the project's unit, and a length that no fraction of an inch meets
// is written in millimetres.
func ExampleParse() {
	for _, text := range []string{"5 3/4", "5¾", "14.6cm", "146 mm"} {
		l, err := measure.Parse(text, measure.Inches)
		if err != nil {
			fmt.Println(err)
			continue
		}
		fmt.Println(l.Exact(measure.Inches), "is", l.Exact(measure.Millimetres))
	}
	_, err := measure.Parse("five", measure.Inches)
	fmt.Println(err != nil)
	// Output:
	// 5 3/4 in is 146.05 mm
	// 5 3/4 in is 146.05 mm
	// 146 mm is 146 mm
	// 146 mm is 146 mm
	// true
}
