package batches

import (
	"context"
	"fmt"

	"brevium/core/batch"
	"brevium/core/brief"
	"brevium/core/request"
	"brevium/web/desk"
)

// planner gives the plan of a box as it was planned before with this shop.
func (s *Room) planner(ctx context.Context) batch.Planner {
	w := s.Workshop(ctx)
	return func(b brief.Brief) *batch.Made {
		return s.Plans.Orders.Get(desk.Sum(b.Encode()), w, func(w request.Workshop) *batch.Made { return batch.Plan(b, w) })
	}
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
