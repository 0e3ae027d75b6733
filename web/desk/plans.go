package desk

import (
	"context"
	"errors"

	"brevium/core/advice"
	"brevium/core/batch"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/core/shop"
)

// Plans remembers what was made of documents with the shop, the newest of it, by what it was made of: a plan is finished,
// so that all requests share it. What was made with one shop serves with another in which all that was looked at is the
// same; so a change of the shop makes anew only what uses what changed.
type Plans[V any] struct{ kept *memo[with[V]] }

// with is what was made, and what was looked at of the shop for it.
type with[V any] struct {
	made   V
	looked *shop.Looked
}

func newPlans[V any](most int) Plans[V] { return Plans[V]{newMemo[with[V]](most)} }

// Get gives what is made of something, by its name, with a shop.
func (p Plans[V]) Get(name string, w request.Workshop, make func(request.Workshop) V) V {
	made, _ := p.For(context.Background(), name, w, func(w request.Workshop) (V, error) { return make(w), nil })
	return made
}

// For is Get of what takes long: it is given up when its asker leaves.
func (p Plans[V]) For(ctx context.Context, name string, w request.Workshop, make func(request.Workshop) (V, error)) (V, error) {
	is, ok := p.kept.Of(name)
	for ctx.Err() == nil {
		if ok && is.looked.Holds(w.Shop) {
			w.Saw(is.looked)
			return is.made, nil
		}
		var err error
		is, err = p.kept.Renew(name, func() (with[V], error) {
			if now, ok := p.kept.Of(name); ok && now.looked.Holds(w.Shop) { // another has just made it
				return now, nil
			}
			own := w
			watched, looked := own.Watched()
			own.Shop = watched
			made, err := make(own)
			return with[V]{made, looked}, err
		})
		// Another may have been making it: with another shop, or until that one left.
		if ok = err == nil; !ok && !errors.Is(err, context.Canceled) && !errors.Is(err, context.DeadlineExceeded) {
			return is.made, err
		}
	}
	return is.made, ctx.Err()
}

// reckoned is what is remembered of documents: a few megabytes of each kind, so that a page plans nothing that the page
// before it has planned.
type reckoned struct {
	Boxes    Plans[AtOnce[*plan.Plan]] // as far as is said at once
	Sets     Plans[AtOnce[*sets.Set]]  // by document and box
	Advised  Plans[*plan.Plan]         // with all that is to be said of them
	SetsSaid Plans[*sets.Set]
	Orders   Plans[*batch.Made]      // as they are made for an order
	Styles   Plans[[]advice.Shown]   // a document in every style
	Ways     Plans[Compared]         // and in its best arrangements
	Suspects Plans[[]advice.Suspect] // of lists of scores
}

// AtOnce is a plan with what can be said of it at once: remedies may still have to be searched for.
type AtOnce[V any] struct {
	First V
	Bare  V // with nothing said of it
	Whole bool
}

// Compared is how a document comes out in other styles and arrangements, and whether all were looked at.
type Compared struct {
	Rows  []advice.Row
	Whole bool
}

func newReckoned() reckoned {
	return reckoned{newPlans[AtOnce[*plan.Plan]](200), newPlans[AtOnce[*sets.Set]](30), newPlans[*plan.Plan](200),
		newPlans[*sets.Set](30), newPlans[*batch.Made](batch.MostOrders + 100),
		newPlans[[]advice.Shown](8), newPlans[Compared](40), newPlans[[]advice.Suspect](100)}
}
