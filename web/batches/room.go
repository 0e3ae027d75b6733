// Package batches is many boxes by a date.
package batches

import (
	"embed"

	"brevium/web/desk"
	"brevium/web/workbench"
)

//go:embed templates style.css
var files embed.FS

// Pages are what the room brings: its files, and what each page is drawn from.
var Pages = desk.RoomPages{Files: files, From: map[string]desk.Framed{
	"batch":    &batchPage{},
	"batches":  &batchesPage{},
	"gives":    &givesPage{},
	"labels":   &labelsPage{},
	"schedule": &schedulePage{},
}}

// Room is its pages, on the desk that all rooms share.
type Room struct {
	*desk.Desk
	Work *workbench.Room
}

// New opens the room.
func New(d *desk.Desk, work *workbench.Room) *Room { return &Room{d, work} }
