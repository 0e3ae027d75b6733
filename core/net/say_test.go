package net

import (
	"strings"
	"testing"
)

// Faces are told by their names, and those of a role together by their role.
func TestNames(t *testing.T) {
	p := New("box", 10*mm, 10*mm)
	p.Role("tab", "a", "b")
	p.Role("dust flap", "c")
	for faces, want := range map[string]string{
		"": "", "left": "left", "left right": "left and right", "back front left": "back, front and left", "a": "tab",
		"a b":      "tabs",
		"left a b": "left and tabs", "c": "dust flap", "lid-left top-lip": "lid left and top lip",
		"a left c b": "left, tabs and dust flap",
	} {
		if got := p.Names(strings.Fields(faces)); got != want {
			t.Errorf("%q: %q, want %q", faces, got, want)
		}
	}
}
