// Package people is who is let in: with the passphrase, or a phone with a code.
package people

import (
	"embed"

	"brevium/web/desk"
)

//go:embed templates
var files embed.FS

// Pages are what the room brings: its files, and what each page is drawn from.
var Pages = desk.RoomPages{Files: files, From: map[string]desk.Framed{
	"enter":   &enterPage{},
	"phones":  &phonesPage{},
	"invited": &invitedPage{},
}}

// Room is its pages, on the desk that all rooms share.
type Room struct {
	*desk.Desk
}

// New opens the room.
func New(d *desk.Desk) *Room { return &Room{d} }
