package store

import (
	"context"
	"fmt"
	"path/filepath"
	"testing"
	"time"

	"brevium/core/brief"
	"brevium/core/record"
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

// How long others wait while a backup with a long logbook is restored.
func BenchmarkReplace(b *testing.B) {
	s, err := Open(b.Context(), filepath.Join(b.TempDir(), "x.db"))
	if err != nil {
		b.Fatal(err)
	}
	defer s.Close()
	var all []record.Making
	for i := range 5000 {
		m := madeOn(time.Date(2019, 1, 1+i/2, 0, 0, 0, 0, time.UTC).Format("2006-01-02"), fmt.Sprint("Jar box ", i), "Wren", "right")
		all = append(all, m)
	}
	if _, err := s.Log.Record(b.Context(), all...); err != nil {
		b.Fatal(err)
	}
	copied := filepath.Join(b.TempDir(), "copy.db")
	if err := s.Backup(b.Context(), copied); err != nil {
		b.Fatal(err)
	}
	for b.Loop() {
		if _, err := s.Replace(b.Context(), copied); err != nil {
			b.Fatal(err)
		}
	}
}
