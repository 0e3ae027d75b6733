// Package workbench is a box on the table: its stages, its views, and what is typed and pressed there.
package workbench

import (
	"embed"

	"brevium/web/desk"
	"brevium/web/sheets"
)

//go:embed templates style.css
var files embed.FS

// Pages are what the room brings: its files, and what each page is drawn from.
var Pages = desk.RoomPages{Files: files, From: map[string]desk.Framed{
	"bench":   &benchPage{},
	"cutways": &cutWaysPage{},
	"nearly":  &nearlyPage{},
	"library": &libraryPage{},
	"howmany": &howManyPage{},
}}

// Room is its pages, on the desk that all rooms share.
type Room struct {
	*desk.Desk
	Sheets *sheets.Room
	Usuals Usuals
}

// New opens the room.
func New(d *desk.Desk, sheets *sheets.Room) *Room { return &Room{d, sheets, Usuals{d}} }
