// Command load is so many people at once: each changes a box of their own, with
// a second between, while others look at pages. It starts a server of its own
// on this machine, says how long answers took and how much memory they cost,
// and ends by itself: load [-people 50] [-for 60s].
package main

import (
	"context"
	"flag"
	"fmt"
	"log"
	"math/rand/v2"
	"net/http"
	"net/url"
	"os"
	"regexp"
	"runtime"
	"slices"
	"strings"
	"sync"
	"time"

	"brevium/demo"
	"brevium/internal/browser"
)

var client = &http.Client{Transport: &http.Transport{MaxIdleConnsPerHost: 200}, Timeout: 20 * time.Second}

// times gathers how long each kind of request took.
type times struct {
	sync.Mutex
	took map[string][]time.Duration
}

func (t *times) note(what string, took time.Duration) {
	t.Lock()
	defer t.Unlock()
	t.took[what] = append(t.took[what], took)
}

func main() {
	people := flag.Int("people", 50, "how many at once")
	length := flag.Duration("for", time.Minute, "how long")
	flag.Parse()
	dir, err := os.MkdirTemp("", "brevium-load-")
	check(err)
	defer os.RemoveAll(dir)
	address, stop, err := browser.Serve(context.Background(), dir, demo.Fill)
	check(err)
	defer stop()
	home := string(get(address + "/"))
	projects := regexp.MustCompile(`href="(/projects/[a-z0-9]+)"`).FindAllStringSubmatch(home, -1)
	all := &times{took: map[string][]time.Duration{}}
	most := watch()
	var wait sync.WaitGroup
	end := time.Now().Add(*length)
	for i := range *people {
		wait.Go(func() { person(address, projects[i%len(projects)][1], uint64(i), end, all) })
	}
	wait.Wait()
	for _, what := range []string{"change", "stage", "first page", "picture"} {
		took := all.took[what]
		if len(took) == 0 {
			continue
		}
		slices.Sort(took)
		at := func(share float64) time.Duration {
			return took[int(share*float64(len(took)-1))].Round(100 * time.Microsecond)
		}
		fmt.Printf("%-10s %6d asked, half within %8s, 95 %% within %8s, all within %8s\n", what, len(took), at(0.5), at(0.95),
			at(1))
	}
	fmt.Printf("memory in use at the most: %d MB\n", most()>>20)
}

var base = regexp.MustCompile(`data-base="(\d+)"`)

// person copies a box, then changes how many go in it, looks at a stage or at
// the list, and waits a second.
func person(address, project string, seed uint64, end time.Time, all *times) {
	r := rand.New(rand.NewPCG(seed, 1))
	res, err := client.PostForm(address+project+"/copy", url.Values{})
	check(err)
	res.Body.Close()
	own := res.Request.URL.Path
	page := string(get(address + own))
	fields := regexp.MustCompile(`name="(contents\.@[^"]+\.count|copies)"`)
	for time.Now().Before(end) {
		time.Sleep(time.Duration(500+r.IntN(1000)) * time.Millisecond)
		rev, field := base.FindStringSubmatch(page), fields.FindStringSubmatch(page)
		values := url.Values{"notes": {fmt.Sprint("turn ", r.IntN(1000))}}
		if rev != nil {
			values.Set("base", rev[1])
		}
		if field != nil {
			values.Set(field[1], fmt.Sprint(1+r.IntN(9)))
		}
		req, _ := http.NewRequest("POST", address+own+"/change?stage=contents", strings.NewReader(values.Encode()))
		req.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		req.Header.Set("HX-Request", "true")
		page = string(timed(all, "change", req))
		switch r.IntN(6) {
		case 0:
			timed(all, "first page", ask(address+"/"))
		case 1:
			timed(all, "stage", ask(address+own+"?stage=box&view=flat"))
		case 2:
			timed(all, "picture", ask(address+own+"/card.svg"))
		}
	}
}

func ask(address string) *http.Request {
	r, err := http.NewRequest("GET", address, nil)
	check(err)
	return r
}

func timed(all *times, what string, r *http.Request) []byte {
	start := time.Now()
	body := do(r)
	all.note(what, time.Since(start))
	return body
}

func get(address string) []byte { return do(ask(address)) }

func do(r *http.Request) []byte {
	res, err := client.Do(r)
	check(err)
	defer res.Body.Close()
	var b strings.Builder
	buf := make([]byte, 32<<10)
	for {
		n, err := res.Body.Read(buf)
		b.Write(buf[:n])
		if err != nil {
			break
		}
	}
	if res.StatusCode >= 400 && !strings.HasSuffix(r.URL.Path, ".svg") { // there may be no plan to draw
		log.Fatalf("%s %s: %d %.300s", r.Method, r.URL, res.StatusCode, b.String())
	}
	return []byte(b.String())
}

// watch looks at the memory in use until it is asked for the most.
func watch() func() uint64 {
	var most uint64
	done, gone := make(chan bool), make(chan bool)
	go func() {
		defer close(gone)
		for {
			var m runtime.MemStats
			runtime.ReadMemStats(&m)
			most = max(most, m.HeapInuse+m.StackInuse)
			select {
			case <-done:
				return
			case <-time.After(200 * time.Millisecond):
			}
		}
	}()
	return func() uint64 { close(done); <-gone; return most }
}

func check(err error) {
	if err != nil {
		log.Fatal(err)
	}
}
