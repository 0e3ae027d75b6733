package web

import (
	"crypto/sha256"
	"sync"

	"brevium/core/batch"
	"brevium/core/brief"
)

// batchPlans remembers what was planned for orders: a tick plans nothing anew.
type batchPlans struct {
	sync.Mutex
	made   map[string]*batch.Made
	sheets map[string]batch.Sheets
}

// The most that is remembered.
const mostMade, mostBatchSheets = 150, 12

// planner gives the plan of a box as it was planned before with this shop.
func (s *Server) planner() batch.Planner {
	w, program := s.workshop(), s.program()
	p := &s.batches
	return func(b brief.Brief) *batch.Made {
		sum := sha256.Sum256(b.Encode())
		key := program + string(sum[:])
		p.Lock()
		m := p.made[key]
		p.Unlock()
		if m != nil {
			return m
		}
		m = batch.Plan(b, w)
		p.Lock()
		defer p.Unlock()
		if p.made == nil || len(p.made) >= mostMade {
			p.made = map[string]*batch.Made{}
		}
		p.made[key] = m
		return m
	}
}
