// Package workbench is a box on the table: its stages, its views, and what is typed and pressed there.
package workbench

import (
	"embed"

	"brevium/web/desk"
	"brevium/web/sheets"
)

// Files are its templates and its style.
//
//go:embed templates style.css
var Files embed.FS

// Room is its pages, on the desk that all rooms share.
type Room struct {
	*desk.Desk
	Sheets *sheets.Room
}

// New opens the room.
func New(d *desk.Desk, sheets *sheets.Room) *Room { return &Room{d, sheets} }
