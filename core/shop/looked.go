package shop

import (
	"maps"
	"reflect"
	"slices"
	"strings"
	"sync"

	"brevium/core/brief"
)

// Looked is what was looked at of a shop: what was made with that alone is the same with any shop in which all of it
// is as it was. Tools are looked at by all.
type Looked struct {
	at   Shop
	mu   sync.Mutex
	seen map[string]bool
}

// The parts of a shop that are looked at one by one; of cards, habits and what was learnt it is one each.
const (
	allCards, kept                    = "all cards", "offcuts"
	oneCard, oneHabit, oneLearnt, gap = "card", "habit", "learnt", " "
)

// Watched gives a shop that notes what is looked at of it.
func (s Shop) Watched() (Shop, *Looked) {
	s.looked = &Looked{at: s, seen: map[string]bool{}}
	return s, s.looked
}

func (l *Looked) note(what string) {
	if l == nil {
		return
	}
	l.mu.Lock()
	defer l.mu.Unlock()
	l.seen[what] = true
}

// Saw notes what was looked at for something that is used here.
func (s Shop) Saw(l *Looked) {
	if s.looked == nil {
		return
	}
	l.mu.Lock()
	seen := slices.Collect(maps.Keys(l.seen))
	l.mu.Unlock()
	for _, what := range seen {
		s.looked.note(what)
	}
}

// Holds reports whether all that was looked at is the same in another shop.
func (l *Looked) Holds(now Shop) bool {
	l.mu.Lock()
	seen := slices.Collect(maps.Keys(l.seen))
	l.mu.Unlock()
	if !reflect.DeepEqual(l.at.Tools, now.Tools) || !reflect.DeepEqual(l.at.Said, now.Said) {
		return false
	}
	return !slices.ContainsFunc(seen, func(what string) bool {
		return !reflect.DeepEqual(l.at.part(what), now.part(what))
	})
}

// part is what there is to see at a name that was noted.
func (s Shop) part(what string) any {
	kind, id, _ := strings.Cut(what, gap)
	switch {
	case what == allCards:
		return s.Cards
	case what == kept:
		return s.offcuts
	case kind == oneHabit:
		return s.habits[id]
	case kind == oneLearnt:
		for key, l := range s.learnt {
			if key.String() == id {
				return l
			}
		}
		return nil
	}
	i := slices.IndexFunc(s.Cards, func(c Card) bool { return c.ID == id })
	if i < 0 {
		return s.Troubled[id]
	}
	return []any{s.Cards[i], s.Writes[id]}
}

// Habit is what the house does, "" where it says nothing.
func (s Shop) Habit(id string) string {
	s.looked.note(oneHabit + gap + id)
	return s.habits[id]
}

// Fit is what was learnt of lids on boxes of a kind.
func (s Shop) Fit(key Key) (Learnt, bool) {
	s.looked.note(oneLearnt + gap + key.String())
	l, ok := s.learnt[key]
	return l, ok
}

// Offcuts are those that were kept.
func (s Shop) Offcuts() []Kept {
	s.looked.note(kept)
	return s.offcuts
}

// Bare is a shop whose tools and habits are left out of account, and what was learnt with them.
func (s Shop) Bare() Shop {
	s.Tools, s.Said, s.habits, s.learnt = Tools{}, brief.Tools{}, nil, nil
	return s
}
