// Command worst looks for documents that take long to plan: it changes random
// fields of random projects and goes on from those that took longest. It
// prints what it found, and with a folder named writes the worst there, to be
// kept as a benchmark: worst [-for 60s] [-seed 1] [FOLDER].
package main

import (
	"flag"
	"fmt"
	"log"
	"math/rand/v2"
	"os"
	"path/filepath"
	"strconv"
	"time"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/document"
	"brevium/core/insert"
	"brevium/core/request"
	"brevium/core/style"
)

func main() {
	length := flag.Duration("for", time.Minute, "how long to look")
	seed := flag.Uint64("seed", 1, "where chance begins")
	flag.Parse()
	r := rand.New(rand.NewPCG(*seed, 0))
	end := time.Now().Add(*length)
	worst := map[string]found{}
	for time.Now().Before(end) {
		at := begin(r)
		for range 40 {
			next := at.brief.Clone()
			for range 1 + r.IntN(3) {
				change(r, &next)
			}
			if f, ok := took(next); ok && f.time >= at.time {
				at = f
			}
		}
		if is := worst[at.kind()]; at.time > is.time {
			worst[at.kind()] = at
		}
	}
	for kind, f := range worst {
		fmt.Printf("%8s  %s\n", f.time.Round(100*time.Microsecond), kind)
		if flag.NArg() > 0 {
			if err := os.WriteFile(filepath.Join(flag.Arg(0), kind+".json"), f.brief.Encode(), 0o644); err != nil {
				log.Fatal(err)
			}
		}
	}
}

type found struct {
	brief brief.Brief
	time  time.Duration
}

func (f found) kind() string {
	return string(f.brief.Box.Style) + "-" + string(f.brief.Arrange.Compartments)
}

// took plans a document that the door takes, and gives the shortest of three
// times: what else the machine does counts for less so.
func took(b brief.Brief) (found, bool) {
	if _, err := brief.Decode(b.Encode()); err != nil {
		return found{}, false
	}
	f := found{b, time.Hour}
	for range 3 {
		start := time.Now()
		advice.Make(b, request.Default)
		f.time = min(f.time, time.Since(start))
	}
	return f, true
}

func begin(r *rand.Rand) found {
	b := brief.New([]string{"in", "mm"}[r.IntN(2)])
	b.Set("box.style", style.Styles[r.IntN(len(style.Styles))].ID)
	b.Set("arrange.compartments", insert.Kinds[r.IntN(len(insert.Kinds))].ID)
	b.Set("card.sheet", "a3")
	b.Set("contents.0.count", counts[r.IntN(len(counts))])
	if r.IntN(2) == 0 { // small things, many of them
		for _, m := range []string{"length", "width", "height", "diameter", "thickness"} {
			b.Set("contents.0."+m, lengths[r.IntN(4)])
		}
	}
	if r.IntN(3) == 0 {
		b.Set("copies", "200")
	}
	f, _ := took(b)
	return f
}

var lengths = []string{"1 mm", "2 mm", "5 mm", "1 cm", "1/8 in", "1 in", "30 mm", "3 in", "200 mm", "200 in", "9999 mm"}
var counts = []string{"1", "2", "7", "24", "49", "100", "200", "333", "500"}

// change changes one thing about a document: a field, or how much it lists.
func change(r *rand.Rand, b *brief.Brief) {
	any := func(of []string) string {
		if len(of) == 0 {
			return ""
		}
		return of[r.IntN(len(of))]
	}
	if r.IntN(6) == 0 {
		item := brief.Item{ID: strconv.Itoa(r.IntN(1e6)), Name: "thing", Count: "5"}
		if n := len(b.Contents); n > 0 {
			item = b.Contents[r.IntN(n)]
			item.ID = strconv.Itoa(r.IntN(1e6))
		}
		b.Contents = append(b.Contents, item)
		return
	}
	if n := len(b.Contents); n > 1 && r.IntN(12) == 0 {
		b.Contents = b.Contents[:n-1]
		return
	}
	style := style.Find(string(b.Box.Style))
	if o := style.Asks; len(o) > 0 && r.IntN(4) == 0 {
		opt := o[r.IntN(len(o))]
		text := any(lengths)
		if n := len(opt.Choices); n > 0 {
			text = opt.Choices[r.IntN(n)].ID
		}
		b.Set("box.options."+opt.ID, text)
		return
	}
	var paths []string
	for path := range b.All() {
		paths = append(paths, path)
	}
	path := any(paths)
	f, _ := brief.FieldAt(path)
	switch f.Kind {
	case document.Distance:
		b.Set(path, any(lengths))
	case document.Number:
		b.Set(path, any(counts))
	case document.YesNo:
		b.Set(path, any([]string{"yes", "no", ""}))
	case document.Choice:
		text := any(map[string][]string{
			"contents.*.shape": {"block", "flat", "cylinder", "ball", "soft"}, "card.sheet": {"a3", "a4", "6x6", "12x12"},
			"tools.step": {"1/32 in", "1 mm", "0.5 mm", "1/8 in"}, "units": {"in", "mm"},
			"arrange.compartments": {"none", "slotted", "partitions", "platform", "trays"},
		}[f.Path])
		if text != "" {
			b.Set(path, text)
		}
	}
}
