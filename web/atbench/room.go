// Package atbench is the work at the bench, and what leaves the page: steps, files, templates, links, the machine.
package atbench

import (
	"embed"

	"brevium/web/desk"
	"brevium/web/logbook"
	"brevium/web/workbench"
)

//go:embed templates style.css
var files embed.FS

// Pages are what the room brings: its files, and what each page is drawn from.
var Pages = desk.RoomPages{Files: files, From: map[string]desk.Framed{
	"atbench":    &atBenchPage{},
	"nobench":    &noBenchPage{},
	"print":      &printPage{},
	"shared":     &sharedPage{},
	"collection": &collectionPage{},
	"handon":     &handOnPage{},
	"templates":  &templatesPage{},
	"machine":    &machinePage{},
}}

// Room is its pages, on the desk that all rooms share.
type Room struct {
	*desk.Desk
	Work *workbench.Room
	Log  *logbook.Room
}

// New opens the room.
func New(d *desk.Desk, work *workbench.Room, log *logbook.Room) *Room { return &Room{d, work, log} }
