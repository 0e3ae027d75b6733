package batches

import (
	"context"
	"encoding/json"
	"fmt"

	"brevium/core/batch"
	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/request"
	"brevium/core/schedule"
	"brevium/web/desk"
)

// plan gives the plan of a box as it was planned before with this shop, or plans it in its place.
func (s *Room) plan(ctx context.Context, b brief.Brief) (*batch.Made, error) {
	name, w := desk.Sum(b.Encode()), s.Workshop(ctx)
	return s.Plans.Orders.For(ctx, name, w, func(w request.Workshop) (*batch.Made, error) {
		done, err := s.Short.Take(ctx)
		if err != nil {
			return nil, err
		}
		defer done()
		return batch.Plan(b, w), nil
	})
}

// shared shares the work of a batch out, or knows how it was shared out: what is ticked or typed may leave it as it is.
func (s *Room) shared(st *batchState, pace bench.Pace) batch.Shared {
	return st.Read.ShareBy(pace, func(p schedule.Problem) schedule.Result {
		name, err := json.Marshal(p)
		if err != nil {
			return schedule.Solve(p)
		}
		found, _ := s.Shared.Get(desk.Sum(name), func() (schedule.Result, error) { return schedule.Solve(p), nil })
		return found
	})
}

// sheetsOf lays the sheets of a batch, or knows how they were laid: what is ticked changes them only when an order has
// been trimmed.
func (s *Room) sheetsOf(ctx context.Context, st *batchState) (batch.Sheets, error) {
	pace, err := s.Pace(ctx)
	if err != nil {
		return batch.Sheets{}, err
	}
	untold := st.Doc
	untold.Done = nil
	key := s.Program(ctx) + desk.Sum(batch.Form.Encode(untold))
	for _, o := range st.Read.Orders {
		key += fmt.Sprint(" ", st.Doc.Done.Of(o.ID, "Trim") >= o.Copy)
	}
	return s.Laid.Get(key, func() (batch.Sheets, error) {
		return st.Read.Lay(s.Workshop(ctx), pace), nil
	})
}
