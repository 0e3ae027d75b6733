// Package house is the computer that Brevium runs on: where the boxes are, the copies of them, what came in, and the end of
// the day.
package house

import (
	"embed"

	"brevium/web/desk"
)

//go:embed templates style.css
var files embed.FS

// Pages are what the room brings: its files, and what each page is drawn from.
var Pages = desk.RoomPages{Files: files, From: map[string]desk.Framed{
	"where":    &wherePage{},
	"closed":   &closedPage{},
	"printers": &printersPage{},
}}

// Room is its pages, on the desk that all rooms share.
type Room struct {
	*desk.Desk
}

// New opens the room.
func New(d *desk.Desk) *Room { return &Room{d} }
