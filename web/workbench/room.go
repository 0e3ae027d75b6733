// Package workbench is a box on the table: its stages, its views, and what is typed and pressed there.
package workbench

import (
	"brevium/web/desk"
	"brevium/web/sheets"
)

// Room is its pages, on the desk that all rooms share.
type Room struct {
	*desk.Desk
	Sheets *sheets.Room
}

// New opens the room.
func New(d *desk.Desk, sheets *sheets.Room) *Room { return &Room{d, sheets} }
