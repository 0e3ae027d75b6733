package style_test

import (
	"fmt"

	"brevium/core/style"
)

// A room that wants stiffer walls asks for the need, and knows no question by its name.
func ExampleStyle_Remedies() {
	s := style.Find("tray-lid")
	for _, f := range s.Remedies(style.Stiffer, style.Answers{}) {
		fmt.Println(f.Text, f.Set)
	}
	_, asks := s.For(style.Clearance)
	fmt.Println("asks where the clearance comes from:", asks)
	// Output:
	// Roll its walls. [{box.options.walls rolled}]
	// asks where the clearance comes from: true
}
