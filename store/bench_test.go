package store

import (
	"errors"
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"
)

// Ticks are kept by the step, time is added up over goes, beginning again forgets the ticks and
// keeps the time, and a box that goes takes its ticks with it.
func TestTicks(t *testing.T) {
	s, ctx := open(t)
	id, err := s.Boxes.Create(ctx, named("Tray"), "new")
	if err != nil {
		t.Fatal(err)
	}
	tick := func(step string, more int, seconds float64) {
		t.Helper()
		if err := s.Do(ctx, "", Ticking(id, Tick{Step: step, Print: "p"}, more, 9, Took{"Score", seconds, 2})); err != nil {
			t.Fatal(err)
		}
	}
	tick("score:base", 1, 60)
	tick("score:base", 1, 30)
	tick("score:lid", 1, 0)
	tick("score:lid", -1, 0)
	tick("fold:lid", 12, 0)
	ticks, seconds, err := s.Log.Ticks(ctx, id)
	if err != nil || ticks["score:base"].Done != 2 || ticks["score:lid"].Done != 0 || ticks["fold:lid"].Done != 9 || seconds != 90 {
		t.Errorf("%v, %g s, %v", ticks, seconds, err)
	}
	if taken, err := s.Log.Times(ctx); err != nil || len(taken) != 1 || taken[0].Seconds != 90 || taken[0].Minutes != 2 {
		t.Errorf("%v %v", taken, err)
	}
	if err := s.Do(ctx, "", BeginningAgain(id)); err != nil {
		t.Fatal(err)
	}
	if ticks, seconds, _ := s.Log.Ticks(ctx, id); len(ticks) != 0 || seconds != 0 {
		t.Errorf("after beginning again: %v, %g s", ticks, seconds)
	}
	tick("score:base", 1, 1e6) // called away: counts six times what it was reckoned at
	if taken, _ := s.Log.Times(ctx); taken[0].Seconds != 90+720 || taken[0].Minutes != 4 {
		t.Errorf("%v", taken)
	}
	if err := s.Do(ctx, "", Ticking("nowhere", Tick{Step: "x"}, 1, 1, Took{})); !errors.Is(err, ErrNone) {
		t.Errorf("%v", err)
	}
	if err := s.Boxes.Throw(ctx, id, true); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Empty(ctx); err != nil {
		t.Fatal(err)
	}
	if taken, _ := s.Log.Times(ctx); len(taken) != 1 {
		t.Error("the time went with the box")
	}
}

// A box has one link; sharing it again moves that to the newest, withdrawing ends it for good.
func TestShares(t *testing.T) {
	s, ctx := open(t)
	id, _ := s.Boxes.Create(ctx, named("Tray"), "new")
	first, err := s.Links.Share(ctx, id, 1, named("Tray"))
	if err != nil || len(first) < 26 {
		t.Fatalf("%q %v", first, err)
	}
	if again, _ := s.Links.Share(ctx, id, 2, named("Deeper")); again != first {
		t.Errorf("another link: %s, %s", first, again)
	}
	if sh, err := s.Links.Shared(ctx, first); err != nil || sh.Revision != 2 || sh.Document.Name != "Deeper" || sh.Project != id || sh.Gone {
		t.Errorf("%+v %v", sh, err)
	}
	if err := s.Links.Unshare(ctx, id); err != nil {
		t.Fatal(err)
	}
	if sh, err := s.Links.Shared(ctx, first); err != nil || !sh.Gone {
		t.Errorf("%+v %v", sh, err)
	}
	if _, err := s.Links.ShareOf(ctx, id); !errors.Is(err, ErrNone) {
		t.Errorf("%v", err)
	}
	if next, _ := s.Links.Share(ctx, id, 3, named("Tray")); next == first {
		t.Error("a withdrawn link works again")
	}
	for _, token := range []string{"", "nothing", first[:25]} {
		if _, err := s.Links.Shared(ctx, token); !errors.Is(err, ErrNone) {
			t.Errorf("%q: %v", token, err)
		}
	}
	if _, err := s.Links.Share(ctx, "nowhere", 1, named("Tray")); !errors.Is(err, ErrNone) {
		t.Errorf("%v", err)
	}
}

// What was suggested and taken is noted once for a box, and goes with it.
func TestAgreed(t *testing.T) {
	s, ctx := open(t)
	id, err := s.Boxes.Create(ctx, named("Tray"), "new")
	if err != nil {
		t.Fatal(err)
	}
	for _, stage := range []string{"dressing", "box", "box"} {
		if err := s.Agree(ctx, id, stage); err != nil {
			t.Fatal(err)
		}
	}
	if got, err := s.Agreed(ctx, id); err != nil || fmt.Sprint(got) != "[box dressing]" {
		t.Errorf("%v %v", got, err)
	}
	if err := s.Agree(ctx, "nowhere", "box"); !errors.Is(err, ErrNone) {
		t.Errorf("of no box: %v", err)
	}
}

// Two phones tick copies of the same step, in any order, and send again what they got no answer to: as many are done as
// both did together, and never more than there are.
func TestTicksTogether(t *testing.T) {
	s, ctx := open(t)
	r := rand.New(rand.NewPCG(30, 2))
	for range 60 {
		id, err := s.Boxes.Create(ctx, named("x"), "new")
		if err != nil {
			t.Fatal(err)
		}
		of, did := 1+r.IntN(8), 0
		var sent []func() error
		for phone := range 2 {
			for n := range r.IntN(5) {
				more := 1 + r.IntN(2)
				did += more
				sent = append(sent, func() error {
					return s.Do(ctx, fmt.Sprint(id, phone, n), Ticking(id, Tick{Step: "fold", Print: "p"}, more, of, Took{}))
				})
			}
		}
		for _, one := range slices.Clone(sent) {
			if r.IntN(3) == 0 {
				sent = append(sent, one)
			}
		}
		r.Shuffle(len(sent), func(i, j int) { sent[i], sent[j] = sent[j], sent[i] })
		for _, one := range sent {
			if err := one(); err != nil && !errors.Is(err, ErrArrived) {
				t.Fatal(err)
			}
		}
		got, _, err := s.Log.Ticks(ctx, id)
		if err != nil || got["fold"].Done != min(did, of) {
			t.Fatalf("%d of %d are done, after %d ticks (%v)", got["fold"].Done, of, did, err)
		}
	}
}
