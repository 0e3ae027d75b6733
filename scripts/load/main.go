// Command load is so many people at once: with a second between, each changes a box of their own, ticks what they did,
// and looks at every kind of page there is. It starts a server of its own on this machine, in a process of its own, and
// tells how long answers of each kind took and what the server used:
//
//	load [-people 50] [-for 60s] [-boxes 10000]
//
// With -soak it tells every minute what the server holds (memory, files, goroutines), and fails where that grows:
//
//	load -people 20 -for 10m -soak
package main

import (
	"flag"
	"fmt"
	"log"
	"os"
	"slices"
	"sync"
	"time"
)

// times gathers how long each kind of request took, and how many were turned away.
type times struct {
	sync.Mutex
	took   map[string][]time.Duration
	failed map[string]int
}

func (t *times) note(what string, took time.Duration, ok bool) {
	t.Lock()
	defer t.Unlock()
	if t.took[what] = append(t.took[what], took); !ok {
		t.failed[what]++
	}
}

// print writes a line for each kind, in the order in which they are told.
func (t *times) print() {
	fmt.Printf("%-16s %7s %9s %9s %9s %7s\n", "kind", "asked", "half", "95 %", "all", "failed")
	for _, k := range kinds {
		took := t.took[k.name]
		if len(took) == 0 {
			continue
		}
		slices.Sort(took)
		at := func(share float64) time.Duration {
			return took[int(share*float64(len(took)-1))].Round(100 * time.Microsecond)
		}
		fmt.Printf("%-16s %7d %9s %9s %9s %7d\n", k.name, len(took), at(0.5), at(0.95), at(1), t.failed[k.name])
	}
}

func main() {
	people := flag.Int("people", 50, "how many at once")
	length := flag.Duration("for", time.Minute, "how long")
	boxes := flag.Int("boxes", 0, "how many boxes the database holds besides")
	soak := flag.Bool("soak", false, "tell what the server holds, minute by minute; fail where it grows")
	profile := flag.String("profile", "", "write there what the server spent its time on")
	serve := flag.Bool("serve", false, "be the server")
	flag.Parse()
	if *serve {
		check(beServer(*boxes, *profile))
		return
	}
	dir, err := os.MkdirTemp("", "brevium-load-")
	check(err)
	defer os.RemoveAll(dir)
	s := startServer(dir, *boxes, *profile)
	defer s.stop()
	all := &times{took: map[string][]time.Duration{}, failed: map[string]int{}}
	everybody := crowd(s.address, *people)
	before, end := s.holds(), time.Now().Add(*length)
	var wait sync.WaitGroup
	for _, p := range everybody {
		wait.Go(func() { p.live(end, all) })
	}
	grew := error(nil)
	if *soak {
		grew = watch(s, end)
	}
	wait.Wait()
	after := s.holds()
	all.print()
	fmt.Printf("The server used %.1f seconds of processor time a minute.\nAt the end it had %s in use, at its peak %d MB of memory.\n",
		(after.cpu-before.cpu)/length.Minutes(), after, after.most>>20)
	if grew != nil {
		s.stop()
		log.Fatal(grew)
	}
}

// watch tells every minute what the server holds. What it holds in the second half may not grow as it goes on.
func watch(s *server, end time.Time) error {
	var seen []holds
	for time.Now().Before(end) {
		time.Sleep(min(time.Minute, time.Until(end)))
		h := s.holds()
		seen = append(seen, h)
		fmt.Printf("%s  %s\n", time.Now().Format(time.TimeOnly), h)
	}
	if len(seen) < 4 {
		return nil
	}
	half, last := seen[len(seen)/2], seen[len(seen)-1]
	switch {
	case last.heap > half.heap*3/2:
		return fmt.Errorf("memory grew from %d to %d MB", half.heap>>20, last.heap>>20)
	case last.files > half.files+20:
		return fmt.Errorf("open files grew from %d to %d", half.files, last.files)
	case last.routines > half.routines+60:
		return fmt.Errorf("goroutines grew from %d to %d", half.routines, last.routines)
	}
	return nil
}

func check(err error) {
	if err != nil {
		log.Fatal(err)
	}
}
