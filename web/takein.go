package web

import (
	"bytes"
	"context"
	"io"
	"net/http"
	"path/filepath"
	"slices"

	"github.com/labstack/echo/v5"

	"brevium/bundle"
	"brevium/core/batch"
	"brevium/core/contents"
	"brevium/core/cutlist"
	"brevium/core/lists"
	"brevium/core/record"
	"brevium/core/shop"
	"brevium/core/words"
	"brevium/web/desk"
)

// A file that is dropped on the page says by what is in it which room takes it in.

// taken is a kind of file, with the room that takes it in and the name under which its form sends it.
type taken struct {
	kind  string
	field string
	do    echo.HandlerFunc
}

// kindOf tells a file by how it begins, and a list by its headings.
func (s *Server) kindOf(begins []byte) taken {
	switch {
	case bytes.HasPrefix(begins, []byte("SQLite format 3\x00")):
		return taken{"backup", "document", s.House.TakeIn}
	case bytes.HasPrefix(begins, []byte("PK")), bytes.HasPrefix(bytes.TrimSpace(begins), []byte("{")):
		return taken{"box", "document", s.Boxes.Upload}
	}
	for _, list := range []struct {
		taken
		columns []string
		must    string
	}{
		{taken{"orders", "list", s.Batches.NewBatch}, batch.Columns, "box"},
		{taken{"logbook", "log", s.Logbook.ReadLog}, record.Columns, "box"},
		{taken{"cards", "list", s.Supplies.ReadCards}, shop.Columns, "title"},
		{taken{"pieces", "list", s.Supplies.NewCutList}, cutlist.Columns, "width"},
		{taken{"things", "list", s.Boxes.FromThings}, contents.Columns, "name"},
	} {
		if heads := lists.Headings(begins); slices.Contains(heads, list.must) && all(heads, list.columns) {
			return list.taken
		}
	}
	return taken{"box", "document", s.Boxes.Upload} // which says what it takes
}

func all(some, of []string) bool {
	return !slices.ContainsFunc(some, func(one string) bool { return !slices.Contains(of, one) })
}

// TakeIn takes a file in, whichever it is, and notes what came so that it can be taken back.
func (s *Server) TakeIn(c *echo.Context) error {
	file, size, err := desk.Received(c, "document")
	if err != nil {
		return s.Boxes.Upload(c) // which says so
	}
	begins := make([]byte, 4<<10)
	n, err := io.ReadFull(file, begins)
	file.Close()
	if n == 0 {
		return err
	}
	kind := s.kindOf(begins[:n])
	if kind.kind != "backup" && size > bundle.MostBytes {
		return echo.NewHTTPError(http.StatusRequestEntityTooLarge, "This file is too large, so nothing was done.")
	}
	r := c.Request()
	headers := r.MultipartForm.File
	headers[kind.field] = headers["document"]
	name := words.Cut(filepath.Base(headers[kind.field][0].Filename), 80)
	return s.Store.Arrive(r.Context(), "file", name, func(ctx context.Context) error {
		c.SetRequest(r.WithContext(ctx))
		return kind.do(c)
	})
}
