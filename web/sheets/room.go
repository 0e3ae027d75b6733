// Package sheets lays pieces on sheets: searches that are remembered, streamed while someone looks on, and told as pages show them.
package sheets

import (
	"brevium/web/desk"
)

// Room is its pages, on the desk that all rooms share.
type Room struct {
	*desk.Desk
}

// New opens the room.
func New(d *desk.Desk) *Room { return &Room{d} }
