package house

import (
	"errors"
	"net/http"
	"net/url"
	"path/filepath"
	"strconv"
	"time"

	"github.com/labstack/echo/v5"

	"brevium/core/words"
	"brevium/desktop"
	"brevium/store"
	"brevium/web/desk"
)

// wherePage tells where the boxes are, and of the copies there are.
type wherePage struct {
	desk.Page
	Folder, File string
	Address      string // of the pages on this computer
	Program      string
	AtLogin      bool
	Elsewhere    store.Elsewhere
	Places       []desktop.Place
	Chooses      bool // the system has a window to choose a folder in
	Copies, Away []store.Copy
	Problem      string
	Clock        string // says that it is wrong
	DailyTrouble string // why today's copy was not made
	Said         string
}

// whereSays is what the page says after something was done.
var whereSays = map[string]string{
	"folder": "The folder is open in a window of its own.", "login": "Brevium starts when you log in.",
	"nologin": "Brevium no longer starts when you log in.", "nowhere": "Backups are no longer copied to another place.",
	"beside": "This file is a backup of everything. It is in the list below: press Restore beside it to go back to it.",
	"copied": "The backup is saved there, and Brevium has opened it to check it.",
}

// Where shows where the boxes are and how they are kept.
func (s *Room) Where(c *echo.Context) error { return s.whereWith(c, http.StatusOK, "") }

func (s *Room) whereWith(c *echo.Context, code int, problem string) error {
	ctx := c.Request().Context()
	v := &wherePage{Page: desk.Page{Title: "Where my boxes are"}, Folder: filepath.Dir(s.Store.File()),
		File: filepath.Base(s.Store.File()), Program: desktop.Name(), Copies: s.Store.Copies(), Problem: problem,
		DailyTrouble: s.Store.DailyTrouble(), Clock: s.ClockSays(c), Said: whereSays[c.QueryParam("said")]}
	if kept := c.QueryParam("kept"); kept != "" {
		v.Said = "The backup is restored. What you had before is saved as " + words.Cut(kept, 120) + ". " +
			map[bool]string{true: "Your phones need a new code to connect again.", false: "Everyone needs to sign in again."}[s.AtHome(c)]
	}
	if s.AtHome(c) {
		v.Address, v.AtLogin = s.Home.Address, s.Home.Computer.StartsAtLogin()
		v.Places, v.Chooses = s.Home.Computer.Places(), s.Home.Computer.CanChooseFolder()
		var err error
		if v.Elsewhere, err = s.Store.Elsewhere(ctx); err != nil {
			return err
		}
		if v.Away, err = s.Store.CopiesElsewhere(ctx); err != nil {
			return err
		}
	}
	return s.Render(c, code, "where", v)
}

// Free is how much room a place has, as a person says it; "" where nobody knows.
func (*wherePage) Free(room uint64) string {
	switch {
	case room == 0:
		return ""
	case room < 1e9:
		return strconv.FormatUint(room/1e6, 10) + " MB free"
	}
	return strconv.FormatUint(room/1e9, 10) + " GB free"
}

// said leads back to the page with a sentence on it.
func said(c *echo.Context, what string) error {
	return c.Redirect(http.StatusSeeOther, "/copies?"+url.Values{"said": {what}}.Encode())
}

// atHome answers only who sits at the maker's own computer.
func (s *Room) atHome(do echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		if !s.AtHome(c) {
			return echo.ErrNotFound
		}
		return do(c)
	}
}

// OpenFolder shows the folder with the boxes in a window of its own.
func (s *Room) OpenFolder(c *echo.Context) error {
	return s.atHome(func(c *echo.Context) error {
		if err := s.Home.Computer.OpenFolder(filepath.Dir(s.Store.File())); err != nil {
			s.Log.Warn("the folder was not opened", "err", err)
			return s.whereWith(c, http.StatusServiceUnavailable, "This computer didn't open the folder. Its name is shown below.")
		}
		return said(c, "folder")
	})(c)
}

// AtLogin has Brevium start when she logs in, or no longer.
func (s *Room) AtLogin(c *echo.Context) error {
	return s.atHome(func(c *echo.Context) error {
		start := c.FormValue("start") == "yes"
		if err := s.Home.Computer.StartAtLogin(start); err != nil {
			s.Log.Warn("starting at login was not changed", "err", err)
			return s.whereWith(c, http.StatusServiceUnavailable, "This computer didn't allow that, so nothing was changed. "+
				"You can add Brevium to the programs that start at login in the computer's own settings.")
		}
		return said(c, map[bool]string{true: "login", false: "nologin"}[start])
	})(c)
}

// choosing is how long a window waits for a folder to be chosen.
const choosing = 4 * time.Minute

// Elsewhere picks where copies are kept besides this disk, and makes the first there; or makes one now, or ends it.
func (s *Room) Elsewhere(c *echo.Context) error {
	return s.atHome(func(c *echo.Context) error {
		ctx, place := c.Request().Context(), desktop.Place{}
		switch to := c.FormValue("to"); to {
		case "nowhere":
			if err := s.Store.CopyElsewhere(ctx, "", ""); err != nil {
				return err
			}
			return said(c, "nowhere")
		case "again":
		case "choose":
			dir, err := s.chosen(c)
			if err != nil {
				return s.whereWith(c, http.StatusUnprocessableEntity, words.Capital(err.Error())+".")
			}
			place = desktop.Place{Name: filepath.Base(dir), Dir: dir}
		default:
			for _, p := range s.Home.Computer.Places() {
				if p.Dir == to {
					place = p
				}
			}
			if place.Dir == "" {
				return s.whereWith(c, http.StatusUnprocessableEntity, "That place is no longer there. Plug it in, then choose it again.")
			}
		}
		if place.Dir != "" {
			if err := s.Store.CopyElsewhere(ctx, place.Name, place.Shelf()); err != nil {
				return err
			}
		}
		if _, err := s.Store.DailyElsewhere(ctx, true); err != nil {
			s.Log.Warn("no copy elsewhere", "err", err)
			return s.whereWith(c, http.StatusServiceUnavailable, "")
		}
		return said(c, "copied")
	})(c)
}

// chosen is a folder that she chooses in her system's own window.
func (s *Room) chosen(c *echo.Context) (string, error) {
	ctx, cancel := desk.WithTime(c.Request().Context(), choosing)
	defer cancel()
	dir, err := s.Home.Computer.ChooseFolder(ctx, "A folder for Brevium's backups")
	if err == nil && filepath.Clean(dir) == filepath.Dir(s.Store.File()) {
		err = errors.New("your boxes themselves are in that folder; choose one on another disk")
	}
	return dir, err
}

// closedPage says that Brevium is closed.
type closedPage struct{ desk.Page }

// CloseDown ends this Brevium. The answer goes out first, and all that is being kept is kept.
func (s *Room) CloseDown(c *echo.Context) error {
	return s.atHome(func(c *echo.Context) error {
		defer s.Home.Close()
		return s.Render(c, http.StatusOK, "closed", &closedPage{desk.Page{Title: "Brevium is closed", Shared: true, Bare: true}})
	})(c)
}
