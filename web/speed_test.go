package web

import (
	"fmt"
	"strings"
	"testing"

	"brevium/core/brief"
)

func BenchmarkChange(b *testing.B) {
	a := newApp(b)
	id := a.begin(brief.New("in"))
	n := 0
	for b.Loop() {
		n++
		if w := a.post("/projects/"+id+"/change", "base", fmt.Sprint(a.head(id).ID), "contents.@1.count",
			fmt.Sprint(1+n%7)); w.Code != 200 {
			b.Fatal(w.Code)
		}
	}
}

// BenchmarkChange24 sends the whole form of 24 kinds, as it comes without script.
func BenchmarkChange24(b *testing.B) {
	a := newApp(b)
	d := brief.New("mm")
	d.Contents = nil
	for i := range 24 {
		d.Contents = append(d.Contents, brief.Item{ID: fmt.Sprint(i), Name: "thing", Shape: "block", Length: "20 mm",
			Width: "15 mm", Height: "9 mm", Count: "2"})
	}
	d.Set("card.sheet", "a3")
	id := a.begin(d)
	for n := 0; b.Loop(); n++ {
		form := []string{"base", fmt.Sprint(a.head(id).ID)}
		for path, text := range d.All() {
			if strings.HasPrefix(path, "contents.") {
				part := strings.SplitN(path, ".", 3)
				form = append(form, "contents.@"+part[1]+"."+part[2], text)
			}
		}
		if w := a.post("/projects/"+id+"/change", append(form, "contents.@3.count", fmt.Sprint(1+n%5))...); w.Code != 200 {
			b.Fatal(w.Code)
		}
	}
}
