package desk

import (
	lru "github.com/hashicorp/golang-lru/v2"
	"golang.org/x/sync/singleflight"
)

// memo remembers what was reckoned, the newest of it, by a name for all that it hangs on. What several ask for at once
// is reckoned once.
type memo[V any] struct {
	Kept   *lru.Cache[string, V]
	flight singleflight.Group
}

func newMemo[V any](most int) *memo[V] {
	kept, err := lru.New[string, V](most)
	if err != nil {
		panic(err) // of a size that is none
	}
	return &memo[V]{Kept: kept}
}

// Get gives what was reckoned under a name, or reckons it; what failed is not remembered.
func (m *memo[V]) Get(name string, reckon func() (V, error)) (V, error) {
	if v, ok := m.Kept.Get(name); ok {
		return v, nil
	}
	return m.Renew(name, reckon)
}

// Renew reckons it whatever is remembered.
func (m *memo[V]) Renew(name string, reckon func() (V, error)) (V, error) {
	v, err, _ := m.flight.Do(name, func() (any, error) {
		v, err := reckon()
		if err == nil {
			m.Kept.Add(name, v)
		}
		return v, err
	})
	return v.(V), err
}

// Of gives what is remembered under a name.
func (m *memo[V]) Of(name string) (V, bool) { return m.Kept.Get(name) }

// Has reports whether anything is.
func (m *memo[V]) Has(name string) bool { return m.Kept.Contains(name) }

// Note remembers what was reckoned elsewhere.
func (m *memo[V]) Note(name string, v V) { m.Kept.Add(name, v) }
