// Package logbook is the times boxes were made.
package logbook

import (
	"embed"

	"brevium/web/desk"
	"brevium/web/supplies"
	"brevium/web/workbench"
)

//go:embed templates style.css
var files embed.FS

// Pages are what the room brings: its files, and what each page is drawn from.
var Pages = desk.RoomPages{Files: files, From: map[string]desk.Framed{
	"logbook": &logPage{},
	"making":  &makingPage{},
	"years":   &yearsPage{},
}}

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
