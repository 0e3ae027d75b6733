// Package help is the glossary and the lessons.
package help

import (
	"embed"

	"brevium/web/desk"
)

// Files are its templates.
//
//go:embed templates
var Files embed.FS

// Room is its pages, on the desk that all rooms share.
type Room struct {
	*desk.Desk
}

// New opens the room.
func New(d *desk.Desk) *Room { return &Room{d} }
