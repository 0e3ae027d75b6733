package logbook

import (
	"context"
	"errors"
	"fmt"
	"io"
	"mime/multipart"
	"net/http"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/record"
	"brevium/core/words"
	"brevium/photo"
	"brevium/store"
)

// AddPhotos takes in the pictures that were chosen, all of them or none.
func (s *Room) AddPhotos(c *echo.Context, m record.Making) error {
	form, err := c.MultipartForm()
	if err != nil || len(form.File["photo"]) == 0 {
		return s.showMakingWith(c, http.StatusBadRequest, "No picture was chosen. Choose a JPEG or PNG.")
	}
	files := form.File["photo"]
	if m.Photos+len(files) > store.MostPhotos {
		return s.showMakingWith(c, http.StatusUnprocessableEntity,
			fmt.Sprintf("An entry holds up to %d photos, and this one has %d. None was added.", store.MostPhotos, m.Photos))
	}
	all, wrong, err := s.TakePhotos(c.Request().Context(), m.ID, files, words.Cut(strings.TrimSpace(c.FormValue("says")), 160))
	if err != nil {
		return err
	}
	if wrong != "" {
		return s.showMakingWith(c, http.StatusUnprocessableEntity, wrong)
	}
	err = s.Store.Log.KeepPhotos(c.Request().Context(), all...)
	if errors.Is(err, store.ErrFull) {
		return s.showMakingWith(c, http.StatusUnprocessableEntity,
			"There is no more room for photos, so none was saved. Delete photos from other entries first.")
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, fmt.Sprintf("/makings/%s#photos", m.ID))
}

// TakePhotos makes pictures of what was sent: of all, or it says what is wrong with one. Large pictures take memory, so
// few are made at a time.
func (s *Room) TakePhotos(ctx context.Context, making string, files []*multipart.FileHeader, says string) (
	all []store.Photo, wrong string, err error) {
	done, err := s.Long.Take(ctx)
	if err != nil {
		return nil, "", err
	}
	defer done()
	for _, f := range files {
		if ctx.Err() != nil {
			return nil, "", ctx.Err()
		}
		p, err := takePhoto(f)
		if err != nil {
			return nil, fmt.Sprintf("%s was not added: %s. None of the photos was added.", words.Cut(f.Filename, 60), err), nil
		}
		all = append(all, store.Photo{Making: making, Width: p.Width, Height: p.Height, Data: p.Large, Small: p.Small,
			Says: says})
	}
	return all, "", nil
}

func takePhoto(f *multipart.FileHeader) (photo.Photo, error) {
	if f.Size > photo.MostBytes {
		return photo.Photo{}, fmt.Errorf("it is larger than %d MB", photo.MostBytes>>20)
	}
	file, err := f.Open()
	if err != nil {
		return photo.Photo{}, err
	}
	defer file.Close()
	data, err := io.ReadAll(io.LimitReader(file, photo.MostBytes+1))
	if err != nil {
		return photo.Photo{}, err
	}
	return photo.Take(data)
}

// Photo gives a picture.
func (s *Room) Photo(c *echo.Context) error {
	p, err := s.Store.Log.Photo(c.Request().Context(), c.Param("photo"), c.QueryParam("small") == "1")
	return ShowPhoto(c, p, err, "This photo doesn't exist.")
}

// ShowPhoto answers with a picture, or says that it is gone. A picture never changes, so a browser may keep it.
func ShowPhoto(c *echo.Context, p store.Photo, err error, gone string) error {
	if errors.Is(err, store.ErrNone) {
		return echo.NewHTTPError(http.StatusNotFound, gone)
	}
	if err != nil {
		return err
	}
	c.Response().Header().Set("Cache-Control", "private, max-age=31536000, immutable")
	return c.Blob(http.StatusOK, "image/jpeg", p.Data)
}

// ChangePhoto keeps what is to be seen in a picture, or takes it out.
func (s *Room) ChangePhoto(c *echo.Context) error {
	ctx, id := c.Request().Context(), c.Param("photo")
	p, err := s.Store.Log.Photo(ctx, id, true)
	if err == nil && c.FormValue("act") == "remove" {
		err = s.Store.Log.RemovePhoto(ctx, id)
	} else if err == nil {
		err = s.Store.Log.SayPhoto(ctx, id, words.Cut(strings.TrimSpace(c.FormValue("says")), 160))
	}
	if errors.Is(err, store.ErrNone) {
		return echo.NewHTTPError(http.StatusNotFound, "This photo doesn't exist. It may have been deleted in another window.")
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, fmt.Sprintf("/makings/%s#photos", p.Making))
}
