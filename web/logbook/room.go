// Package logbook is the times boxes were made.
package logbook

import (
	"embed"

	"brevium/web/desk"
	"brevium/web/supplies"
	"brevium/web/workbench"
)

// Files are its templates and its style.
//
//go:embed templates style.css
var Files embed.FS

// Room is its pages, on the desk that all rooms share.
type Room struct {
	*desk.Desk
	Work     *workbench.Room
	Supplies *supplies.Room
}

// New opens the room.
func New(d *desk.Desk, work *workbench.Room, supplies *supplies.Room) *Room {
	return &Room{d, work, supplies}
}
