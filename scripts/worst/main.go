// Command worst looks for documents that take long to plan, or much memory: it changes random fields of random projects,
// dressed ones and sets among them, and goes on from those that took longest. It prints what it found, and with a folder
// named writes the worst there, to be kept as a benchmark:
//
//	worst [-for 60s] [-seed 1] [FOLDER]
//
// With -random it plans so many documents as they come, tells how many take how long, and with a folder named writes there
// those that take too long.
package main

import (
	"cmp"
	"flag"
	"fmt"
	"log"
	"math/rand/v2"
	"os"
	"path/filepath"
	"runtime"
	"slices"
	"strconv"
	"time"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/document"
	"brevium/core/insert"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/core/style"
	"brevium/web/desk"
)

func main() {
	length := flag.Duration("for", time.Minute, "how long to search")
	seed := flag.Uint64("seed", 1, "where chance begins")
	random := flag.Int("random", 0, "plan so many as they come")
	flag.Parse()
	desk.Ease() // as the pages are served
	r := rand.New(rand.NewPCG(*seed, 0))
	if *random > 0 {
		asTheyCome(r, *random)
		return
	}
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
		fmt.Printf("%8s %4d MB  %s\n", f.time.Round(100*time.Microsecond), f.bytes>>20, kind)
		keep(f, 1)
	}
}

// keep writes the nth document of its kind into the folder that was named, if one was.
func keep(f found, n int) {
	if flag.NArg() == 0 {
		return
	}
	if err := os.WriteFile(filepath.Join(flag.Arg(0), fmt.Sprintf("%s-%d.json", f.kind(), n)), f.brief.Encode(), 0o644); err != nil {
		log.Fatal(err)
	}
}

type found struct {
	brief brief.Brief
	time  time.Duration
	bytes uint64
}

func (f found) kind() string {
	kind := string(f.brief.Box.Style) + "-" + string(f.brief.Arrange.Compartments)
	if f.brief.IsSet() {
		kind = "set-" + string(f.brief.Several.Kind)
	}
	return kind
}

// bounds are how long a box and a set may take; mostBytes is how much memory each may ask for.
var bounds = [2]time.Duration{50 * time.Millisecond, 150 * time.Millisecond}

const mostBytes = 64 << 20

// asTheyCome plans so many random documents, and tells of boxes and of sets how long they take.
func asTheyCome(r *rand.Rand, many int) {
	var all [2][]found
	for len(all[0])+len(all[1]) < many {
		b := begin(r).brief
		for range r.IntN(12) {
			change(r, &b)
		}
		if f, ok := once(b); ok {
			of := 0
			if b.IsSet() {
				of = 1
			}
			if f.time > bounds[of] { // the machine may have done something else
				f, _ = took(b)
			}
			all[of] = append(all[of], f)
		}
	}
	for i, what := range []string{"boxes", "sets"} {
		slices.SortFunc(all[i], func(a, b found) int { return cmp.Compare(b.time, a.time) })
		over, most := 0, uint64(0)
		for _, f := range all[i] {
			if most = max(most, f.bytes); f.time > bounds[i] || f.bytes > mostBytes {
				over++
				keep(f, over)
			}
		}
		if len(all[i]) > 0 {
			fmt.Printf("Of %d %s, %d took too long or too much memory. The slowest (%s) took %s; the most memory was %d MB.\n",
				len(all[i]), what, over, all[i][0].kind(), all[i][0].time.Round(100*time.Microsecond), most>>20)
		}
	}
}

// took plans a document that the door takes, and gives the shortest of three
// times: what else the machine does counts for less so.
func took(b brief.Brief) (found, bool) {
	if _, err := brief.Decode(b.Encode()); err != nil {
		return found{}, false
	}
	f, _ := once(b)
	for range 2 {
		again, _ := once(b)
		f.time, f.bytes = min(f.time, again.time), min(f.bytes, again.bytes)
	}
	return f, true
}

// once plans a document that the door takes once.
func once(b brief.Brief) (found, bool) {
	if _, err := brief.Decode(b.Encode()); err != nil {
		return found{}, false
	}
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	start := time.Now()
	if b.IsSet() {
		sets.MakeFor(b, 0, request.Default)
	} else {
		advice.Make(b, request.Default)
	}
	f := found{brief: b, time: time.Since(start)}
	runtime.ReadMemStats(&after)
	f.bytes = after.TotalAlloc - before.TotalAlloc
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
	if r.IntN(3) == 0 {
		b.Dress = dressed(r)
	}
	if r.IntN(5) == 0 {
		b.Several = &brief.Set{Kind: brief.Text(sets.Kinds[r.IntN(len(sets.Kinds))].ID), Boxes: make([]brief.Member, 2+r.IntN(7))}
		for i := range b.Several.Boxes {
			m := &b.Several.Boxes[i]
			m.ID = strconv.Itoa(i + 1)
			if r.IntN(3) == 0 { // a box of its own
				m.Box = &brief.Box{Style: brief.Text(style.Styles[r.IntN(len(style.Styles))].ID)}
				own := slices.Clone(b.Contents)
				own[0].Count = brief.Whole(counts[r.IntN(4)])
				m.Contents = &own
			}
		}
	}
	f, _ := took(b)
	return f
}

// dressed is a dressing with something of everything, here and there.
func dressed(r *rand.Rand) (d brief.Dress) {
	on := func() brief.Text { return brief.Text([]string{"all", "top", "front", "walls", "lid"}[r.IntN(5)]) }
	for i := range r.IntN(4) {
		d.Layers = append(d.Layers, brief.Layer{ID: strconv.Itoa(i + 1), On: on()})
	}
	for i := range r.IntN(3) {
		d.Liners = append(d.Liners, brief.Liner{ID: strconv.Itoa(i + 1), In: brief.Text([]string{"floor", "walls", "lid", "all"}[r.IntN(4)])})
	}
	for i := range r.IntN(3) {
		d.Toppers = append(d.Toppers, brief.Topper{ID: strconv.Itoa(i + 1), Shape: "round", Width: "20 mm"})
	}
	return d
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
