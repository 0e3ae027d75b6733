package boxes

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/brief"
	"brevium/core/words"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/workbench"
)

// Several boxes at once, folders, and the page that shows a folder.

// movedSays is told when another program is where Brevium usually is.
const movedSays = "Another program is using Brevium's usual address, so the address is another one today. A bookmark may not find it."

// homeSays are what is told after something was done to several boxes.
var homeSays = map[string]string{"foldered": "Added to the folder.",
	"out": "Removed from the folder. The boxes are still under Boxes.",
	"by":  "Archived. You find them under Archive.", "up": "Restored from the archive.",
	"binned":  "Moved to the bin.",
	"started": "Saved as starting points.", "unstarted": "No longer starting points.", "none": "Tick the boxes first.",
	"brought": "Added.", "moved": movedSays, "took-back": "Removed. Boxes from a file are in the bin.",
	"took-some": "Removed, except for what you have changed since: that is yours now.",
	"took-none": "Nothing was removed: you have changed all of it since, so it is yours now.", "named": "The folder was renamed.",
	"shared":      "The shared page shows the folder as it is now.",
	"shared-some": "The shared page shows the folder as it is now, without the boxes that have no plan yet."}

// mostAtOnce is how many boxes are worked on at once.
const mostAtOnce = 500

// ActBoxes does what a button asks to the boxes that are ticked.
func (s *Room) ActBoxes(c *echo.Context) error {
	values, err := c.FormValues()
	if err != nil {
		return err
	}
	back := desk.Own(values.Get("back"))
	said := func(what string) error {
		q := back.Query()
		q.Set("said", what)
		return c.Redirect(http.StatusSeeOther, (&url.URL{Path: back.Path, RawQuery: q.Encode()}).RequestURI())
	}
	ids := values["p"]
	if len(ids) == 0 {
		return said("none")
	}
	if len(ids) > mostAtOnce {
		return echo.NewHTTPError(http.StatusBadRequest, fmt.Sprintf("Choose up to %d boxes at once.", mostAtOnce))
	}
	switch act := values.Get("act"); act {
	case "fair":
		return c.Redirect(http.StatusSeeOther, "/fair?"+url.Values{"p": ids}.Encode())
	case "batch":
		return s.Batches.NewBatch(c)
	case "bundle":
		return s.bundleOf(c, ids, "boxes")
	default:
		folder := values.Get("into")
		if act == "folder" && strings.TrimSpace(folder) == "" {
			return s.homeWith(c, http.StatusUnprocessableEntity, "Write the folder's name first, such as the occasion.")
		}
		if act == "out" {
			folder = back.Query().Get("folder")
		}
		what, err := s.shelve(c.Request().Context(), act, folder, ids)
		if err != nil {
			return err
		}
		return said(what)
	}
}

// shelve puts boxes elsewhere in the lists, and names what is to be said of it.
func (s *Room) shelve(ctx context.Context, act, folder string, ids []string) (said string, err error) {
	shelf := s.Store.Shelf
	switch act {
	case "folder":
		return "foldered", shelf.PutIn(ctx, folder, ids...)
	case "out":
		return "out", shelf.TakeOut(ctx, folder, ids...)
	case "by", "up":
		return act, shelf.PutBy(ctx, act == "by", ids...)
	case "starting":
		return "started", shelf.StartFrom(ctx, true, ids...)
	case "unstarting":
		return "unstarted", shelf.StartFrom(ctx, false, ids...)
	case "bin":
		return "binned", shelf.ToBin(ctx, ids...)
	}
	return "", desk.ErrNoAct
}

// FolderOf puts one box into a folder, or takes it out, from its own page.
func (s *Room) FolderOf(c *echo.Context) error {
	ctx, id := c.Request().Context(), c.Param("id")
	var err error
	switch {
	case c.FormValue("out") != "":
		err = s.Store.Shelf.TakeOut(ctx, c.FormValue("out"), id)
	case c.FormValue("mark") == "by", c.FormValue("mark") == "up":
		err = s.Store.Shelf.PutBy(ctx, c.FormValue("mark") == "by", id)
	case c.FormValue("mark") == "starting", c.FormValue("mark") == "unstarting":
		err = s.Store.Shelf.StartFrom(ctx, c.FormValue("mark") == "starting", id)
	case strings.TrimSpace(c.FormValue("into")) != "":
		err = s.Store.Shelf.PutIn(ctx, c.FormValue("into"), id)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/projects/"+id+"?stage=record")
}

// RenameFolder gives a folder another name.
func (s *Room) RenameFolder(c *echo.Context) error {
	name, err := store.FolderName(c.FormValue("name"))
	if err != nil {
		return s.homeWith(c, http.StatusUnprocessableEntity, words.Capital(err.Error())+".")
	}
	if err := s.Store.Shelf.RenameFolder(c.Request().Context(), c.FormValue("folder"), name); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/?"+url.Values{"folder": {name}, "said": {"named"}}.Encode())
}

// mostShared is how many boxes a page of a folder shows.
const mostShared = 100

// ShareFolder makes a link to a folder's boxes as they are now, or moves the one there is to them.
func (s *Room) ShareFolder(c *echo.Context) error {
	ctx, folder := c.Request().Context(), c.FormValue("folder")
	ids, err := s.Store.Shelf.InFolder(ctx, folder)
	if err != nil {
		return err
	}
	if len(ids) > mostShared {
		return echo.NewHTTPError(http.StatusConflict,
			fmt.Sprintf("A shared page shows up to %d boxes, but this folder has %d. Move some to another "+
				"folder.", mostShared, len(ids)))
	}
	var boxes []store.Share
	said := "shared"
	for _, id := range ids {
		head, err := s.Store.Boxes.Head(ctx, id)
		if errors.Is(err, store.ErrNone) || errors.As(err, new(*store.Broken)) {
			continue // one that can't be read is not shown
		}
		if err != nil {
			return err
		}
		j, err := s.Work.JobCut(ctx, s.Work.Look(ctx, head, &desk.Edited[brief.Brief]{}))
		switch {
		case errors.Is(err, workbench.ErrUnmade):
			said = "shared-some"
		case err != nil:
			return err
		default:
			boxes = append(boxes, store.Share{Project: id, Revision: head.ID, Document: j.Written().ForOthers(false)})
		}
	}
	if len(boxes) == 0 {
		return echo.NewHTTPError(http.StatusConflict, "There is nothing to share yet: no box in this folder has a plan.")
	}
	if _, err := s.Store.Links.ShareFolder(ctx, folder, boxes); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/?"+url.Values{"folder": {folder}, "said": {said}}.Encode()+"#share")
}

func (s *Room) UnshareFolder(c *echo.Context) error {
	folder := c.FormValue("folder")
	if err := s.Store.Links.UnshareFolder(c.Request().Context(), folder); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/?"+url.Values{"folder": {folder}}.Encode())
}
