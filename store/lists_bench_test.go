package store

import (
	"context"
	"fmt"
	"path/filepath"
	"testing"

	"brevium/core/brief"
)

// BenchmarkLists are the questions that lists ask, of few boxes and of ten thousand, each in a few folders.
func BenchmarkLists(b *testing.B) {
	ctx := context.Background()
	for _, many := range []int{50, 10_000} {
		s, err := Open(ctx, filepath.Join(b.TempDir(), "lists.db"))
		if err != nil {
			b.Fatal(err)
		}
		defer s.Close()
		for from := 0; from < many; from += 500 {
			var some []Brought
			for i := from; i < min(many, from+500); i++ {
				doc := brief.New("mm")
				doc.Name = brief.Text(fmt.Sprintf("Tray %d", i))
				some = append(some, Brought{Brief: doc, Folders: []string{fmt.Sprintf("Stall %d", i%7)}})
			}
			if _, err := s.BringIn(ctx, "from the stalls", some); err != nil {
				b.Fatal(err)
			}
		}
		for _, ask := range []struct {
			name string
			do   func() error
		}{
			{"page", func() error { _, err := s.Shelf.List(ctx, Want{}, "p", 0); return err }},
			{"by name", func() error { _, err := s.Shelf.List(ctx, Want{Sort: "name"}, "p", 0); return err }},
			{"search", func() error { _, err := s.Shelf.List(ctx, Want{Words: "ray 4"}, "p", 0); return err }},
			{"folder", func() error { _, err := s.Shelf.List(ctx, Want{Folder: "Stall 3"}, "p", 0); return err }},
			{"folders", func() error { _, err := s.Shelf.Folders(ctx); return err }},
			{"binned", func() error { _, err := s.Shelf.Count(ctx, true); return err }},
			{"names", func() error { _, err := s.Shelf.Names(ctx, 120); return err }},
			{"named card", func() error { _, _, err := s.Naming(ctx, "cover-216", 40); return err }},
		} {
			b.Run(fmt.Sprintf("%s of %d", ask.name, many), func(b *testing.B) {
				for b.Loop() {
					if err := ask.do(); err != nil {
						b.Fatal(err)
					}
				}
			})
		}
	}
}
