package main

import (
	"fmt"
	"net/http"
	"net/url"
	"regexp"
	"strings"
)

// kind is a kind of page or change, and what a person asks for to have one; nil when it is not the time for it.
type kind struct {
	name string
	ask  func(p *person) *http.Request
}

// own looks at a page of a person's own box, any at a page anybody has.
func own(name, at string) kind {
	return kind{name, func(p *person) *http.Request { return p.get(p.box + at) }}
}

func any(name string, at ...string) kind {
	return kind{name, func(p *person) *http.Request { return p.get(at[p.chance.IntN(len(at))]) }}
}

// kinds are all kinds of pages and changes; the first comes every other time.
var kinds = []kind{
	{"change", (*person).change},
	{"and what helps", func(p *person) *http.Request { return nil }}, // asked for by itself after a change
	{"undo", func(p *person) *http.Request { return p.post(p.box+"/undo", url.Values{}) }},
	any("first page", "/"),
	any("search", "/?q=tea", "/?q=box&sort=name", "/?folder=Autumn+fair"),
	{"card picture", func(p *person) *http.Request { return p.get(p.anyOf(p.all.cards)) }},
	own("contents", "?stage=contents"),
	own("ways", "?stage=contents&view=ways"),
	own("box", "?stage=box"),
	own("styles", "?stage=box&view=styles"),
	own("card", "?stage=card"),
	own("dressing", "?stage=dressing"),
	own("sheets", "?stage=sheets"),
	own("record", "?stage=record"),
	own("turn by turn", "?stage=bench"),
	own("folded", "/folded?at=3"),
	own("solid", "/solid.json"),
	own("bench", "/bench"),
	own("step picture", "/step.svg?n=0"),
	own("hand on", "/handon"),
	own("print", "/print"),
	own("PDF", "/out/pdf"),
	{"shared", func(p *person) *http.Request { return p.get(p.anyOf(p.all.shared)) }},
	any("logbook", "/logbook", "/logbook?q=tea"),
	any("years", "/logbook/years"),
	{"making", func(p *person) *http.Request { return p.get(p.anyOf(p.all.makings)) }},
	any("batches", "/batches"),
	{"batch", func(p *person) *http.Request { return p.get([]string{p.batch, p.all.batches[0]}[p.chance.IntN(2)]) }},
	{"batch tick", (*person).tick},
	{"calendar", func(p *person) *http.Request { return p.get(p.batch + "/sittings.ics") }},
	{"several together", (*person).together},
	any("shop", "/shop"),
	{"list to cut", func(p *person) *http.Request { return p.get(p.list) }},
	any("help", "/words", "/how", "/copies"),
}

// change changes how many go in, or a note, or what goes beside.
func (p *person) change() *http.Request {
	values := url.Values{"notes": {fmt.Sprint("turn ", p.chance.IntN(1000))}}
	if rev := base.FindStringSubmatch(p.page); rev != nil {
		values.Set("base", rev[1])
	}
	if field := counts.FindStringSubmatch(p.page); field != nil {
		values.Set(field[1], fmt.Sprint(1+p.chance.IntN(9)))
	}
	return p.post(p.box+"/change?stage=contents", values)
}

// tick says of the first work of a batch's first sitting that one more is done, or one less.
func (p *person) tick() *http.Request {
	order := orders.FindStringSubmatch(p.batchPage)
	if order == nil {
		return nil
	}
	return p.post(p.batch+"/change", url.Values{"act": {"tick"}, "order": {order[1]}, "stage": {order[2]},
		"more": {[]string{"1", "-1"}[p.chance.IntN(2)]}})
}

// together cuts some of the boxes there are together.
func (p *person) together() *http.Request {
	at := p.chance.IntN(max(1, len(p.all.boxes)-6))
	q := url.Values{}
	for _, box := range p.all.boxes[at:min(len(p.all.boxes), at+6)] {
		q.Add("p", strings.TrimPrefix(box, "/projects/"))
	}
	return p.get("/fair?" + q.Encode())
}

var (
	base   = regexp.MustCompile(`data-base="(\d+)"`)
	counts = regexp.MustCompile(`name="(contents\.@[^"]+\.count|copies)"`)
	orders = regexp.MustCompile(`(?s)name="order" value="([^"]+)"><input type="hidden" name="stage"\s+value="([^";]+)`)
)
