// Package boxes is the boxes there are: lists of them, folders, the bin, bundles, one as a starting point for another.
package boxes

import (
	"embed"

	"brevium/web/batches"
	"brevium/web/desk"
	"brevium/web/workbench"
)

// Files are its templates and its style.
//
//go:embed templates style.css
var Files embed.FS

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
