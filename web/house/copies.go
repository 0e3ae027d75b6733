package house

import (
	"errors"
	"io"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/core/words"
	"brevium/store"
	"brevium/web/desk"
)

// Copies of all there is: made, kept and put back.

// CopyNow gives a copy of the database as it is now.
func (s *Room) CopyNow(c *echo.Context) error {
	dir, err := os.MkdirTemp("", "brevium-copy-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(dir)
	name := "brevium-" + s.Clock().Format("2006-01-02-1504") + ".db"
	if err := s.Store.Backup(c.Request().Context(), filepath.Join(dir, name)); err != nil {
		return err
	}
	return give(c, filepath.Join(dir, name), name)
}

func give(c *echo.Context, path, name string) error {
	f, err := os.Open(path)
	if err != nil {
		return err
	}
	defer f.Close()
	_ = http.NewResponseController(c.Response()).SetWriteDeadline(time.Now().Add(desk.FileTime)) // where there is a deadline
	c.Response().Header().Set("Content-Disposition", `attachment; filename="`+name+`"`)
	return c.Stream(http.StatusOK, "application/vnd.sqlite3", f)
}

// CopyFile gives one of the copies that lie beside the database.
func (s *Room) CopyFile(c *echo.Context) error {
	name, err := url.PathUnescape(c.Param("name"))
	if err != nil {
		return echo.ErrNotFound
	}
	path, err := s.copyCalled(c, name)
	if errors.Is(err, store.ErrNone) {
		return echo.NewHTTPError(http.StatusNotFound, "This backup no longer exists. It may have made room for a newer one.")
	}
	if err != nil {
		return err
	}
	return give(c, path, filepath.Base(path))
}

// copyCalled finds a copy beside the database or, where she sits at her own computer, in the place that she picked.
func (s *Room) copyCalled(c *echo.Context, name string) (string, error) {
	path, err := s.Store.CopyCalled(name)
	if errors.Is(err, store.ErrNone) && s.AtHome(c) {
		return s.Store.CopyElsewhereCalled(c.Request().Context(), name)
	}
	return path, err
}

// RestoreCopy puts a copy in place of all there is: one that was sent, or one that lies beside the
// database.
func (s *Room) RestoreCopy(c *echo.Context) error {
	ctx := c.Request().Context()
	if c.FormValue("sure") != "yes" {
		return s.whereWith(c, http.StatusBadRequest, "Nothing was done. Tick the box first to confirm.")
	}
	path := ""
	if name := c.FormValue("name"); name != "" {
		var err error
		if path, err = s.copyCalled(c, name); err != nil {
			return s.whereWith(c, http.StatusNotFound, "This backup no longer exists. It may have made room for a newer one.")
		}
	} else {
		sent, err := receivedFile(c, "copy")
		if _, full := store.Say(err); full {
			return err
		}
		if err != nil {
			return s.whereWith(c, http.StatusBadRequest,
				"No backup was chosen. Choose a file that you saved with “Save a backup”.")
		}
		defer os.Remove(sent)
		path = sent
	}
	kept, err := s.Store.Replace(ctx, path)
	s.forgetAll()
	if err != nil {
		s.Log.Warn("a backup was not restored", "err", err)
		return s.whereWith(c, http.StatusUnprocessableEntity, words.Capital(err.Error())+".")
	}
	return c.Redirect(http.StatusSeeOther, "/copies?"+url.Values{"kept": {filepath.Base(kept)}}.Encode())
}

// receivedFile writes what was sent to a file of its own.
func receivedFile(c *echo.Context, field string) (path string, err error) {
	header, err := c.FormFile(field)
	if err != nil {
		return "", err
	}
	in, err := header.Open()
	if err != nil {
		return "", err
	}
	defer in.Close()
	return LaidBy(in)
}

// LaidBy writes what is sent to a file of its own, and gives its path.
func LaidBy(in io.Reader) (path string, err error) {
	out, err := os.CreateTemp("", "brevium-restore-*.db")
	if err != nil {
		return "", err
	}
	_, err = io.Copy(out, in)
	if err = errors.Join(err, out.Close()); err != nil {
		os.Remove(out.Name())
	}
	return out.Name(), err
}

// forgetAll drops whatever is remembered of what the database held.
func (s *Room) forgetAll() {
	s.Shops.Last.Store(nil)
	s.Fates.Kept.Purge()
}

// TakeIn lays a backup that was dropped on a page beside the database, once it was read whole, and leads to where it can be
// restored: that replaces everything, so it is asked for there.
func (s *Room) TakeIn(c *echo.Context) error {
	sent, err := receivedFile(c, "document")
	if err != nil {
		return err
	}
	defer os.Remove(sent)
	if err := s.Store.LayBeside(c.Request().Context(), sent); err != nil {
		says, ok := store.Say(err)
		if !ok {
			says = "Nothing was added. This file looks like a backup, but " + err.Error() + "."
		}
		return s.whereWith(c, http.StatusUnprocessableEntity, says)
	}
	return said(c, "beside")
}
