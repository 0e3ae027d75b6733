// Package supplies is what the maker owns and cuts from: the shop, lists to cut, several boxes cut together.
package supplies

import (
	"embed"

	"brevium/web/boxes"
	"brevium/web/desk"
	"brevium/web/sheets"
	"brevium/web/workbench"
)

//go:embed templates style.css
var files embed.FS

// Pages are what the room brings: its files, and what each page is drawn from.
var Pages = desk.RoomPages{Files: files, From: map[string]desk.Framed{
	"shop":     &shopPage{},
	"cutlists": &listsPage{},
	"cutlist":  &listPage{},
	"fair":     &fairPage{},
}}

// Room is its pages, on the desk that all rooms share.
type Room struct {
	*desk.Desk
	Sheets *sheets.Room
	Work   *workbench.Room
	Boxes  *boxes.Room
}

// New opens the room.
func New(d *desk.Desk, sheets *sheets.Room, work *workbench.Room, boxes *boxes.Room) *Room {
	return &Room{d, sheets, work, boxes}
}
