package desktop

import "context"

// Computer is what pages ask of the computer they are served from. Tests put something else in its place.
type Computer struct {
	OpenFolder      func(dir string) error
	Places          func() []Place
	ChooseFolder    func(ctx context.Context, title string) (string, error)
	CanChooseFolder func() bool
	StartsAtLogin   func() bool
	StartAtLogin    func(bool) error
}

// This is the computer that Brevium runs on.
var This = Computer{OpenFolder, Places, ChooseFolder, CanChooseFolder, StartsAtLogin, StartAtLogin}
