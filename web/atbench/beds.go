package atbench

import (
	"context"
	"net/http"
	"slices"

	"github.com/labstack/echo/v5"
)

// bed is how large a card a cutting machine takes, in millimetres.
type bed struct {
	ID, Says string
	w, h     float64
}

// beds lists common sizes.
var beds = []bed{
	{"a4", "A4 or letter", 216, 297}, {"305", "305 × 305 mm (12 × 12 in)", 305, 305},
	{"305-610", "305 × 610 mm (12 × 24 in)", 305, 610}, {"a3", "A3", 297, 420}, {"330-480", "330 × 480 mm (13 × 19 in)", 330, 480},
	{"500-700", "500 × 700 mm", 500, 700},
}

// takes reports whether a drawing goes on it, lying or turned.
func (b bed) takes(w, h float64) bool {
	const ease = 0.5
	return min(w, h) <= b.w+ease && max(w, h) <= b.h+ease
}

// bedSetting is which of them is this house's.
const bedSetting = "bed"

// onBed marks what is too large for the cutting machine of the house, where its size is known.
func (s *Room) onBed(ctx context.Context, v *templatesPage) error {
	id, err := s.Store.Setting(ctx, bedSetting)
	v.Beds = beds
	if i := slices.IndexFunc(beds, func(b bed) bool { return b.ID == id }); err == nil && i >= 0 {
		v.Bed = beds[i]
		for _, rows := range [][]templateRow{v.Pieces, v.Sheets} {
			for k := range rows {
				rows[k].TooLarge = !v.Bed.takes(rows[k].w, rows[k].h)
			}
		}
	}
	return err
}

// SetBed keeps how large a card the cutting machine takes; "" where there is none.
func (s *Room) SetBed(c *echo.Context) error {
	id := c.FormValue("bed")
	if !slices.ContainsFunc(beds, func(b bed) bool { return b.ID == id }) {
		id = ""
	}
	if err := s.Store.Set(c.Request().Context(), bedSetting, id); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/projects/"+c.Param("id")+"/templates#machine-files")
}
