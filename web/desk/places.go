package desk

import (
	"context"
	"runtime"
)

// Place is where work that takes its time is done, so many pieces of it at once; what is light never waits there.
type Place chan struct{}

// places are what the machine has room for beside light pages: what takes seconds keeps nobody from what takes tenths
// of one, and neither keeps anybody from coming in.
type places struct {
	Long  Place // deep searches, bundles, photos: seconds
	Short Place // remedies, comparisons, boxes of a batch: tenths of a second
	Entry Place // passphrases, which are dear on purpose
}

func newPlaces() places {
	half := max(1, runtime.NumCPU()/2)
	return places{make(Place, half), make(Place, half), make(Place, half)}
}

// Take waits for a place, or until its asker has left.
func (p Place) Take(ctx context.Context) (done func(), err error) {
	select {
	case p <- struct{}{}:
		return func() { <-p }, nil
	case <-ctx.Done():
		return nil, ctx.Err()
	}
}
