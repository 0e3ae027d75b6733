package atbench

import (
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/words"
	"brevium/export"
	"brevium/machine"
	"brevium/web/desk"
	"brevium/web/workbench"
)

// The cutting machine beside the pages: sheets are sent to it, and how it stands is shown.

// machineView is how the machine stands.
type machineView struct {
	machine.State
	Path, Trouble, Picture string
	Percent                int
}

// Buttons are those that do something now.
func (v machineView) Buttons() []string {
	return map[machine.Phase][]string{machine.Ready: {"start", "stop"}, machine.Running: {"pause", "jam", "out", "stop"},
		machine.Paused: {"resume", "stop"}, machine.Jammed: {"resume", "stop"}, machine.Out: {"resume", "stop"},
		machine.Finished: {"start", "stop"}}[v.Phase]
}

// Live reports whether it must be looked at again soon.
func (v machineView) Live() bool { return v.Phase == machine.Running }

func (s *Room) machineNow(c *echo.Context) machineView {
	v := machineView{Path: "/projects/" + c.Param("id") + "/machine"}
	if s.Machine == nil {
		v.Trouble = "No cutting machine is connected. The demo comes with a practice machine. " +
			"Whoever set up Brevium can connect yours."
		return v
	}
	state, err := s.Machine.State(c.Request().Context())
	if err != nil {
		v.Trouble = machineTrouble(err)
		return v
	}
	v.State = state
	v.Picture = fmt.Sprintf("%s/path.svg?at=%.2f-%s", v.Path, state.Seconds, state.Phase)
	if all := state.Seconds + state.Left; all > 0 {
		v.Percent = int(100 * state.Seconds / all)
	}
	return v
}

func machineTrouble(err error) string {
	if no := new(machine.Refused); errors.As(err, &no) {
		return strings.Join(no.Why, " ")
	}
	text := err.Error()
	if i := strings.Index(text, " ("); i > 0 { // what the network says of it helps nobody
		text = text[:i]
	}
	return words.Capital(text)
}

func (s *Room) MachinePage(c *echo.Context) error { return s.showMachine(c, "") }

func (s *Room) showMachine(c *echo.Context, said string) error {
	st, j, ok, err := s.Work.Job(c)
	if err != nil {
		return err
	}
	v := &machinePage{Page: desk.Page{Title: st.Called() + ": the cutting machine"}, S: st, Path: "/projects/" + st.Of, OK: ok,
		M: s.machineNow(c), Said: said}
	if ok {
		v.Warning, v.Sheets = j.Warning(), sheetRows(j)
	}
	code := http.StatusOK
	if said != "" {
		code = http.StatusConflict
	}
	return s.Render(c, code, "machine", v)
}

// machinePage is the cutting machine with what it may be given.
type machinePage struct {
	desk.Page
	S                   *workbench.State
	Path, Said, Warning string
	OK, Again           bool
	M                   machineView
	Sheets              []templateRow
}

// MachineState is how it stands, for who looks on.
func (s *Room) MachineState(c *echo.Context) error {
	if c.Request().Header.Get("HX-Request") != "true" {
		return backToMachine(c)
	}
	return s.Render(c, http.StatusOK, "machine", &machinePage{Page: desk.Page{Part: "machinenow"}, M: s.machineNow(c), Again: true})
}

// SendToMachine gives the machine a sheet.
func (s *Room) SendToMachine(c *echo.Context) error {
	_, j, ok, err := s.Work.Job(c)
	if err != nil {
		return err
	}
	if !ok || s.Machine == nil {
		return s.showMachine(c, "Nothing was sent.")
	}
	n := 0
	fmt.Sscan(c.FormValue("sheet"), &n)
	as, kind := "hpgl", machine.HPGLType
	if c.FormValue("as") == "gcode" {
		as, kind = "gcode", machine.GCodeType
	}
	f, err := export.Write(j, as, export.What{Sheet: max(1, n)}, export.Options{})
	if err != nil {
		return s.showMachine(c, "Nothing was sent. "+err.Error())
	}
	if _, err := s.Machine.Send(c.Request().Context(), kind, f.Data); err != nil {
		return s.showMachine(c, "The machine refused it. "+machineTrouble(err))
	}
	return backToMachine(c)
}

func backToMachine(c *echo.Context) error {
	return c.Redirect(http.StatusSeeOther, "/projects/"+url.PathEscape(c.Param("id"))+"/machine")
}

// PressMachine presses one of its buttons.
func (s *Room) PressMachine(c *echo.Context) error {
	button := c.FormValue("button")
	known := map[string]bool{"start": true, "pause": true, "resume": true, "stop": true, "jam": true, "out": true}
	if s.Machine == nil || !known[button] {
		return s.showMachine(c, desk.NoAct)
	}
	if _, err := s.Machine.Press(c.Request().Context(), button); err != nil {
		return s.showMachine(c, machineTrouble(err))
	}
	return backToMachine(c)
}

// MachinePath is the bed as the machine draws it.
func (s *Room) MachinePath(c *echo.Context) error {
	if s.Machine == nil {
		return echo.ErrNotFound
	}
	svg, err := s.Machine.Picture(c.Request().Context())
	if err != nil {
		return echo.NewHTTPError(http.StatusBadGateway, machineTrouble(err))
	}
	c.Response().Header().Set("Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'; sandbox")
	return c.Blob(http.StatusOK, "image/svg+xml", svg)
}
