package boxes

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/url"

	"github.com/labstack/echo/v5"

	"brevium/bundle"
	"brevium/core/brief"
	"brevium/core/record"
	"brevium/core/words"
	"brevium/draw"
	"brevium/draw/pen"
	"brevium/export"
	"brevium/photo"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/workbench"
)

// Boxes handed on together, and taken in.

// bundleOf gives boxes as a zip; with their makings where the form asks for them.
func (s *Room) bundleOf(c *echo.Context, ids []string, name string) error {
	var boxes []bundle.Box
	for _, id := range ids {
		b, err := s.bundled(c.Request().Context(), id, c.FormValue("makings") == "1")
		if err != nil {
			return err
		}
		boxes = append(boxes, b)
	}
	var out bytes.Buffer
	if err := bundle.Write(&out, boxes, s.Clock()); err != nil {
		return err
	}
	c.Response().Header().Set("Content-Disposition", `attachment; filename="`+desk.FileName(name)+`.brevium.zip"`)
	return c.Blob(http.StatusOK, "application/zip", out.Bytes())
}

// bundled is a box as it is handed on: with all that this shop said written into its document, so
// that it plans alike elsewhere.
func (s *Room) bundled(ctx context.Context, id string, makings bool) (b bundle.Box, err error) {
	head, err := s.Store.Boxes.Head(ctx, id)
	if err != nil {
		return b, err
	}
	b.Brief = head.Doc.ForOthers(true)
	st := s.Work.Look(ctx, head, &desk.Edited[brief.Brief]{})
	j, err := s.Work.JobCut(ctx, st)
	if err != nil && !errors.Is(err, workbench.ErrUnmade) {
		return b, err
	}
	if err == nil {
		done, err := s.Long.Take(ctx) // not before: its sheets may have wanted a place too
		if err != nil {
			return b, err
		}
		defer done()
		b.Brief = j.Written().ForOthers(true)
		b.Picture = pen.File(draw.Made(j.Plans[0], 1, 420, 320).SVG())
		slip, err := export.Write(j, "slip", export.What{}, export.Options{Both: true, Shop: s.Workshop(ctx)})
		if err != nil {
			return b, err
		}
		b.Slip = slip.Data
	}
	if b.Folders, err = s.Store.Shelf.FoldersOf(ctx, id); err != nil || !makings {
		return b, err
	}
	err = s.Store.Log.EachMaking(ctx, store.Look{Project: id}, func(m record.Making) error {
		b.Makings = append(b.Makings, bundle.Making{Making: m})
		return nil
	})
	for i := range b.Makings {
		if err == nil {
			err = s.withPhotos(ctx, &b.Makings[i])
		}
	}
	return b, err
}

// withPhotos fills in what a list of makings leaves out: the document and the photos.
func (s *Room) withPhotos(ctx context.Context, m *bundle.Making) error {
	whole, err := s.Store.Log.Making(ctx, m.ID)
	if err != nil {
		return err
	}
	if was, err := brief.Stored([]byte(whole.Document)); err == nil {
		m.Document = string(was.ForOthers(true).Encode())
	}
	m.Planned = whole.Planned
	photos, err := s.Store.Log.Photos(ctx, m.ID)
	if err != nil {
		return err
	}
	for _, p := range photos {
		data, err := s.Store.Log.Photo(ctx, p.ID, false)
		if err != nil {
			return err
		}
		m.Photos = append(m.Photos, bundle.Photo{Says: p.Says, Data: data.Data})
	}
	return nil
}

// BundleFolder gives the boxes of a folder as a bundle, or all boxes.
func (s *Room) BundleFolder(c *echo.Context) error {
	folder, all := c.QueryParam("folder"), s.Store.Shelf.InFolder
	if folder == "" {
		all, folder = func(ctx context.Context, _ string) ([]string, error) { return s.Store.Shelf.All(ctx) }, "all boxes"
	}
	ids, err := all(c.Request().Context(), folder)
	if err != nil {
		return err
	}
	if len(ids) == 0 || len(ids) > mostAtOnce {
		return echo.NewHTTPError(http.StatusNotFound, fmt.Sprintf("These can't be saved as one file: there are %d boxes, and a file "+
			"holds 1 to %d. A backup holds everything: see “Where my boxes are”.", len(ids), mostAtOnce))
	}
	return s.bundleOf(c, ids, folder)
}

// bringIn takes a bundle in: all of it or, with the reason, nothing.
func (s *Room) bringIn(c *echo.Context, from io.ReaderAt, size int64) error {
	ctx := c.Request().Context()
	done, err := s.Long.Take(ctx)
	if err != nil {
		return err
	}
	defer done()
	var all []store.Brought
	read, err := bundle.Read(from, size)
	if err == nil {
		all, err = brought(ctx, read)
	}
	if ctx.Err() != nil {
		return ctx.Err()
	}
	if err != nil {
		return s.homeWith(c, http.StatusUnprocessableEntity, "Nothing was added: "+err.Error()+".")
	}
	ids, err := s.Store.BringIn(ctx, "Added from a file", all)
	if errors.Is(err, store.ErrFull) {
		return s.homeWith(c, http.StatusUnprocessableEntity, "Nothing was added: there is no more room for photos, "+
			"or an entry would have too many. Delete photos from other entries first.")
	}
	if err != nil {
		return err
	}
	if len(ids) == 1 {
		return c.Redirect(http.StatusSeeOther, "/projects/"+ids[0]+"?stage=contents")
	}
	q := url.Values{"said": {"brought"}}
	return c.Redirect(http.StatusSeeOther, "/?"+q.Encode())
}

// brought are the boxes of a bundle as the store takes them: their photos read and written anew.
func brought(ctx context.Context, b *bundle.Bundle) (out []store.Brought, err error) {
	taken, err := pictures(ctx, b)
	if err != nil {
		return nil, err
	}
	for _, box := range b.Boxes {
		if err := knownOptions(&box.Brief); err != nil {
			return nil, err
		}
		own := store.Brought{Brief: box.Brief, Folders: box.Folders}
		for _, m := range box.Makings {
			in := store.BroughtMaking{Making: m.Making}
			for _, p := range m.Photos {
				of := taken[p.File]
				in.Photos = append(in.Photos, store.Photo{Width: of.Width, Height: of.Height, Says: words.Cut(p.Says, 160),
					Data: of.Large, Small: of.Small})
			}
			own.Makings = append(own.Makings, in)
		}
		out = append(out, own)
	}
	return out, nil
}

// tooMuch says what there is too much of in a bundle.
type tooMuch string

func (t tooMuch) Error() string {
	return string(t) + ". Save the boxes as two files, or leave the photos out"
}

// pictures are those of a bundle by their files, written anew: each once by what is in it, and none before it is known
// that all of them together are not too much.
func pictures(ctx context.Context, b *bundle.Bundle) (map[string]*photo.Photo, error) {
	sums, first, pixels := map[string]string{}, map[string]bool{}, 0
	each := func(do func(file string) error) error {
		for _, box := range b.Boxes {
			for _, m := range box.Makings {
				for _, p := range m.Photos {
					if err := ctx.Err(); err != nil {
						return err
					}
					if err := do(p.File); errors.As(err, new(tooMuch)) {
						return err
					} else if err != nil {
						return fmt.Errorf("a photo of “%s”: %w", words.Cut(m.Box, 40), err)
					}
				}
			}
		}
		return nil
	}
	if err := each(func(file string) error {
		if sums[file] != "" {
			return nil
		}
		data, err := b.Picture(file)
		if err != nil {
			return err
		}
		sums[file] = desk.Sum(data)
		if first[sums[file]] {
			return nil
		}
		n, err := photo.Pixels(data)
		if first[sums[file]] = true; err == nil {
			if pixels += n; pixels > bundle.MostPixels {
				err = tooMuch(fmt.Sprintf("its photos have more than %d million pixels in all", bundle.MostPixels/1_000_000))
			}
		}
		return err
	}); err != nil {
		return nil, err
	}
	bySum, out, kept := map[string]*photo.Photo{}, map[string]*photo.Photo{}, 0
	return out, each(func(file string) error {
		p := bySum[sums[file]]
		if p == nil {
			data, err := b.Picture(file)
			if err != nil {
				return err
			}
			taken, err := photo.Take(data)
			if err != nil {
				return err
			}
			p = &taken
			bySum[sums[file]] = p
		}
		out[file] = p
		if kept += len(p.Large) + len(p.Small); kept > bundle.MostKept {
			return tooMuch(fmt.Sprintf("its photos take more than %d MB in all", bundle.MostKept>>20))
		}
		return nil
	})
}

// knownOptions refuses answers to questions that no style asks.
func knownOptions(b *brief.Brief) error {
	for id := range brief.Sorted(b.Box.Options) {
		if _, ok := workbench.Option(b, id); !ok {
			return fmt.Errorf("no box has the option %q. Remove it", words.Cut(id, 40))
		}
	}
	return nil
}
