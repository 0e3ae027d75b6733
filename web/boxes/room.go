// Package boxes is the boxes there are: lists of them, folders, the bin, bundles, one as a starting point for another.
package boxes

import (
	"embed"

	"brevium/web/batches"
	"brevium/web/desk"
	"brevium/web/workbench"
)

//go:embed templates style.css
var files embed.FS

// Pages are what the room brings: its files, and what each page is drawn from.
var Pages = desk.RoomPages{Files: files, From: map[string]desk.Framed{
	"other":   &otherPage{},
	"against": &againstPage{},
	"lines":   &linesPage{},
	"first":   &firstPage{},
	"home":    &homePage{},
	"bin":     &homePage{},
}}

// Room is its pages, on the desk that all rooms share.
type Room struct {
	*desk.Desk
	Work    *workbench.Room
	Batches *batches.Room
}

// New opens the room.
func New(d *desk.Desk, work *workbench.Room, batches *batches.Room) *Room {
	return &Room{d, work, batches}
}
