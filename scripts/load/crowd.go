package main

import (
	"fmt"
	"html"
	"io"
	"log"
	"math/rand/v2"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"time"
)

// offered is what there is to look at for everybody.
type offered struct {
	boxes, cards, makings, batches, shared []string
}

// person has a box, a batch and a list of their own, and looks at those of others.
type person struct {
	address          string
	chance           *rand.Rand
	client           *http.Client
	all              *offered
	box, batch, list string
	page, batchPage  string // as they were last shown
}

// crowd lets so many people in: each copies a box, begins a batch and a list.
func crowd(address string, many int) (out []*person) {
	client := &http.Client{Transport: &http.Transport{MaxIdleConnsPerHost: 2 * many}, Timeout: time.Minute}
	all := look(&person{address: address, client: client})
	for i := range many {
		p := &person{address: address, chance: rand.New(rand.NewPCG(uint64(i), 1)), client: client, all: all}
		of := all.boxes[i%len(all.boxes)]
		p.box, p.page = p.go_(p.post(of+"/copy", url.Values{}))
		if i < 5 {
			_, page := p.go_(p.post(p.box+"/share", url.Values{}))
			if link := regexp.MustCompile(`/s/[A-Za-z0-9_-]+`).FindString(page); link != "" {
				all.shared = append(all.shared, link)
			}
		}
		p.list, _ = p.go_(p.post("/cut", url.Values{}))
		p.batch, p.batchPage = p.go_(p.post("/batches", url.Values{"p": ids(of, all.boxes[(i+7)%len(all.boxes)], p.box)}))
		out = append(out, p)
	}
	return out
}

func ids(boxes ...string) (out []string) {
	for _, b := range boxes {
		out = append(out, strings.TrimPrefix(b, "/projects/"))
	}
	return out
}

// look finds what everybody may look at.
func look(p *person) *offered {
	links := func(at, pattern string) (out []string) {
		_, page := p.go_(p.get(at))
		for _, m := range regexp.MustCompile(pattern).FindAllStringSubmatch(page, -1) {
			out = append(out, html.UnescapeString(m[1]))
		}
		return out
	}
	return &offered{boxes: links("/", `href="(/projects/[a-z0-9]+)"`), cards: links("/", `src="(/projects/[a-z0-9]+/card.svg[^"]*)"`),
		makings: links("/logbook", `href="(/makings/[a-z0-9]+)"`), batches: links("/batches", `href="(/batches/[a-z0-9]+)"`)}
}

// live asks for one thing after another, with about a second between, until the end.
func (p *person) live(end time.Time, all *times) {
	for {
		time.Sleep(time.Duration(500+p.chance.IntN(1000)) * time.Millisecond)
		if !time.Now().Before(end) {
			return
		}
		k := kinds[0]
		if p.chance.IntN(2) == 0 {
			k = kinds[1+p.chance.IntN(len(kinds)-1)]
		}
		r := k.ask(p)
		if r == nil {
			continue
		}
		body := p.timed(k.name, r, all)
		switch k.name {
		case "change", "undo":
			if p.page = body; strings.Contains(body, "data-more=") {
				p.page = p.timed(kinds[1].name, p.script("GET", p.box+"?stage=contents"), all)
			}
		case "batch tick":
			p.batchPage = body
		}
	}
}

// timed does a request and notes how long it took.
func (p *person) timed(what string, r *http.Request, all *times) (body string) {
	start := time.Now()
	status, _, body := p.do(r)
	ok := status < 400 || status == http.StatusNotFound || status == http.StatusConflict // there may be no plan
	all.note(what, time.Since(start), ok)
	if !ok {
		log.Printf("%s %s: %d %.200s", r.Method, r.URL, status, body)
	}
	return body
}

func (p *person) anyOf(list []string) string {
	if len(list) == 0 {
		return "/"
	}
	return list[p.chance.IntN(len(list))]
}

func (p *person) get(at string) *http.Request { return p.request("GET", at, "") }

func (p *person) post(at string, values url.Values) *http.Request {
	return p.request("POST", at, values.Encode())
}

// script is a request as the page's script makes it.
func (p *person) script(verb, at string) *http.Request {
	r := p.request(verb, at, "")
	r.Header.Set("HX-Request", "true")
	return r
}

func (p *person) request(verb, at, body string) *http.Request {
	r, err := http.NewRequest(verb, p.address+at, strings.NewReader(body))
	check(err)
	if verb == "POST" {
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		if !strings.HasSuffix(at, "/copy") && !strings.HasSuffix(at, "/share") {
			r.Header.Set("HX-Request", "true")
		}
	}
	return r
}

// go_ does a request that must succeed and gives where it led.
func (p *person) go_(r *http.Request) (path, body string) {
	r.Header.Del("HX-Request")
	status, path, body := p.do(r)
	if status >= 400 {
		log.Fatalf("%s %s: %d %.300s", r.Method, r.URL, status, body)
	}
	return path, body
}

func (p *person) do(r *http.Request) (status int, path, body string) {
	res, err := p.client.Do(r)
	if err != nil {
		return http.StatusServiceUnavailable, "", fmt.Sprint(err)
	}
	defer res.Body.Close()
	data, _ := io.ReadAll(res.Body)
	return res.StatusCode, res.Request.URL.Path, string(data)
}
