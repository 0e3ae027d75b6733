// Package batches is many boxes by a date.
package batches

import (
	"embed"

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
	Work *workbench.Room
}

// New opens the room.
func New(d *desk.Desk, work *workbench.Room) *Room { return &Room{d, work} }
