package desktop

import (
	"context"
	"time"
)

// Computer is what pages ask of the computer they are served from. Tests put something else in its place.
type Computer struct {
	OpenFolder      func(dir string) error
	Places          func() []Place
	ChooseFolder    func(ctx context.Context, title string) (string, error)
	CanChooseFolder func() bool
	StartsAtLogin   func() bool
	StartAtLogin    func(bool) error
	Made            time.Time // when this program was made; zero where nobody released it
}

// This is the computer that Brevium runs on.
var This = Computer{OpenFolder, Places, ChooseFolder, CanChooseFolder, StartsAtLogin, StartAtLogin, whenMade()}

// made is the day on which this program was released, as 2026-12-02; "" when nobody released it.
var made string

func whenMade() time.Time {
	day, _ := time.Parse(time.DateOnly, made)
	return day
}

// ClockWrong reports whether the computer's clock says a day before this program was made: it lost its battery.
func (c Computer) ClockWrong(now time.Time) bool { return now.Before(c.Made.AddDate(0, 0, -1)) }
