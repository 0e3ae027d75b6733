package batches

import (
	"context"
	"crypto/sha256"
	"fmt"

	"brevium/core/batch"
	"brevium/core/brief"
	"brevium/web/desk"
)

// planner gives the plan of a box as it was planned before with this shop.
func (s *Room) planner(ctx context.Context) batch.Planner {
	w, program := s.Workshop(ctx), s.Program(ctx)
	return func(b brief.Brief) *batch.Made {
		sum := sha256.Sum256(b.Encode())
		made, _ := s.Batches.Made.Get(program+string(sum[:]), func() (*batch.Made, error) { return batch.Plan(b, w), nil })
		return made
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
	return s.Batches.Sheets.Get(key, func() (batch.Sheets, error) {
		return st.Read.Lay(s.Workshop(ctx), pace), nil
	})
}
