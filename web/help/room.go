// Package help is what explains the pages: help for each spot, the how-tos, the glossary and the keys.
package help

import (
	"embed"

	"brevium/web/desk"
)

//go:embed templates style.css
var files embed.FS

// Pages are what the room brings: its files, and what each page is drawn from.
var Pages = desk.RoomPages{Files: files, From: map[string]desk.Framed{
	"help":  &helpPage{},
	"topic": &topicPage{},
	"howto": &howPage{},
}}

// Room is its pages, on the desk that all rooms share.
type Room struct {
	*desk.Desk
}

// New opens the room.
func New(d *desk.Desk) *Room { return &Room{d} }
