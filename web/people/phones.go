package people

import (
	"html/template"
	"net/http"
	"net/url"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/words"
	"brevium/gate"
	"brevium/store"
	"brevium/web/desk"
)

// Phones: the maker opens the gate on her computer, and a phone's camera reads the code that the page shows.

// phonesPage is where the gate is opened and closed, and who is let in.
type phonesPage struct {
	desk.Page
	Gate       gate.State
	Code       template.HTML // the square that a camera reads
	Link       string        // what it says
	Phones     []store.Phone
	Passphrase bool // one is set
	Problem    string
	Said       string
}

// phonesSay is what the page says after something was done.
var phonesSay = map[string]string{
	"away": "That device can't come in any more.", "passphrase": "The passphrase is set.",
	"forgotten": "The passphrase is removed. Devices come in with the code only.",
}

// PhonesPage shows whether phones can reach Brevium, and how one comes in. Each time it is drawn whole it shows a new
// code; one that was shown before goes on holding for its ten minutes.
func (s *Room) PhonesPage(c *echo.Context) error { return s.phonesWith(c, http.StatusOK, "") }

func (s *Room) phonesWith(c *echo.Context, code int, problem string) error {
	if s.Home == nil {
		return echo.ErrNotFound
	}
	ctx := c.Request().Context()
	v := &phonesPage{Page: desk.Page{Title: "Use on my phone"}, Gate: s.Home.Gate.State(), Problem: problem,
		Said: phonesSay[c.QueryParam("said")]}
	var err error
	if v.Phones, err = s.Store.Phones(ctx); err != nil {
		return err
	}
	hash, err := s.Store.Setting(ctx, store.Passphrase)
	if err != nil {
		return err
	}
	v.Passphrase = hash != ""
	if at := v.Gate.First(); at != "" {
		v.Link = at + "/in/" + s.Home.Gate.Invites.New()
		square, err := gate.Code(v.Link)
		if err != nil {
			return err
		}
		v.Code = template.HTML(square)
	}
	return s.Render(c, code, "phones", v)
}

// PhonesHere lists who is let in, for the page to look whether a phone has come.
func (s *Room) PhonesHere(c *echo.Context) error {
	all, err := s.Store.Phones(c.Request().Context())
	if err != nil {
		return err
	}
	return s.Render(c, http.StatusOK, "phones", &phonesPage{Page: desk.Page{Part: "letin", PartOnly: true}, Phones: all})
}

// OpenGate opens the gate, or closes it.
func (s *Room) OpenGate(c *echo.Context) error {
	if s.Home == nil {
		return echo.ErrNotFound
	}
	if c.FormValue("open") != "yes" {
		s.Home.Gate.Close()
		return c.Redirect(http.StatusSeeOther, "/phones")
	}
	if err := s.Home.Gate.Open(c.FormValue("secure") == "yes"); err != nil {
		s.Log.Warn("the gate was not opened", "err", err)
		return s.phonesWith(c, http.StatusServiceUnavailable, words.Capital(err.Error())+".")
	}
	return c.Redirect(http.StatusSeeOther, "/phones")
}

// SendAway lets a device in no longer.
func (s *Room) SendAway(c *echo.Context) error {
	if err := s.Store.SendAway(c.Request().Context(), c.Param("id")); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/phones?said=away")
}

// SetPassphrase sets the passphrase for who types it by hand, or removes it.
func (s *Room) SetPassphrase(c *echo.Context) error {
	ctx, hash, said := c.Request().Context(), "", "forgotten"
	if typed := c.FormValue("passphrase"); c.FormValue("forget") == "" {
		var err error
		if hash, err = Hash(typed); err != nil {
			return s.phonesWith(c, http.StatusUnprocessableEntity, words.Capital(err.Error())+".")
		}
		said = "passphrase"
	}
	if err := s.Store.Set(ctx, store.Passphrase, hash); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/phones?"+url.Values{"said": {said}}.Encode())
}

// HouseCertificate gives the certificate by which a phone knows this house.
func (s *Room) HouseCertificate(c *echo.Context) error {
	if s.Home == nil {
		return echo.ErrNotFound
	}
	text, err := s.Home.Gate.Authority()
	if err != nil {
		return err
	}
	c.Response().Header().Set("Content-Disposition", `attachment; filename="brevium-at-home.crt"`)
	return c.Blob(http.StatusOK, "application/x-x509-ca-cert", text)
}

// invitedPage asks a phone that has read the code for its name.
type invitedPage struct {
	desk.Page
	Token, Name, Problem string
}

// whyNot is why a code lets nobody in, and what to do.
var whyNot = map[error]string{
	gate.ErrUsed:    "This code has already let a device in. Each code works once: show a new one on the computer and scan that.",
	gate.ErrLate:    "This code is more than ten minutes old. Show a new one on the computer and scan that.",
	gate.ErrUnknown: "This code is no longer valid. Show a new one on the computer and scan that.",
}

// Invited is where a code leads. Looking uses nothing up: cameras and messengers look at an address before anybody does.
func (s *Room) Invited(c *echo.Context) error {
	if s.Home == nil || !s.Asked(c.Request()) {
		return c.Redirect(http.StatusSeeOther, "/")
	}
	if store.Who(c.Request().Context()) != "" { // it is in already
		return c.Redirect(http.StatusSeeOther, "/")
	}
	v := &invitedPage{desk.Page{Title: "Let this device in", Shared: true}, c.Param("token"), deviceOf(c.Request().UserAgent()), ""}
	if err := s.Home.Gate.Invites.Good(v.Token); err != nil {
		return s.notInvited(c, v, err)
	}
	return s.Render(c, http.StatusOK, "invited", v)
}

func (s *Room) notInvited(c *echo.Context, v *invitedPage, why error) error {
	v.Title, v.Problem = "This code doesn't work", whyNot[why]
	return s.Render(c, http.StatusGone, "invited", v)
}

// ComeIn lets a phone in that has a code, once.
func (s *Room) ComeIn(c *echo.Context) error {
	if s.Home == nil || !s.Asked(c.Request()) {
		return c.Redirect(http.StatusSeeOther, "/")
	}
	v := &invitedPage{desk.Page{Title: "Let this device in", Shared: true}, c.Param("token"), nameOf(c), ""}
	if !words.Visible(v.Name) {
		v.Problem = "Give this device a name, so that you know it in the list on your computer."
		return s.Render(c, http.StatusUnprocessableEntity, "invited", v)
	}
	if err := s.Home.Gate.Invites.Take(v.Token); err != nil {
		return s.notInvited(c, v, err)
	}
	if err := s.LetIn(c.Request().Context(), v.Name); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/")
}

// deviceOf is what to call a device, by how its browser names itself.
func deviceOf(agent string) string {
	for _, d := range []struct{ says, is string }{{"iPhone", "iPhone"}, {"iPad", "iPad"}, {"Android", "Android"},
		{"Macintosh", "Mac"}, {"Windows", "Windows computer"}, {"CrOS", "Chromebook"}, {"Linux", "Linux computer"}} {
		if !strings.Contains(agent, d.says) {
			continue
		}
		if d.is == "Android" {
			return map[bool]string{true: "Android phone", false: "Android tablet"}[strings.Contains(agent, "Mobile")]
		}
		return d.is
	}
	return "Phone"
}
