// Package supplies is what the maker owns and cuts from: the shop, lists to cut, several boxes cut together.
package supplies

import (
	"embed"

	"brevium/web/boxes"
	"brevium/web/desk"
	"brevium/web/sheets"
	"brevium/web/workbench"
)

// Files are its templates and its style.
//
//go:embed templates style.css
var Files embed.FS

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
