package workbench

import (
	"cmp"
	"slices"

	"github.com/labstack/echo/v5"

	"brevium/core/advice"
	"brevium/core/request"
	"brevium/web/desk"
)

// column is one heading of the comparison.
type column struct {
	ID, Title string
	less      func(a, b advice.Row) int
}

// Sorted reports whether the rows are in this column's order.
func (c column) Sorted(by string) bool { return c.ID == by }

var columns = []column{
	{"sheets", "Sheets", func(a, b advice.Row) int { return cmp.Compare(a.Sheets, b.Sheets) }},
	{"card", "Card", func(a, b advice.Row) int { return cmp.Compare(a.Area, b.Area) }},
	{"waste", "Waste", func(a, b advice.Row) int { return cmp.Compare(a.Waste, b.Waste) }},
	{"cuts", "Cuts", func(a, b advice.Row) int { return cmp.Compare(a.Cuts, b.Cuts) }},
	{"scores", "Scores", func(a, b advice.Row) int { return cmp.Compare(a.Scores, b.Scores) }},
	{"time", "Minutes", func(a, b advice.Row) int { return cmp.Compare(a.Minutes, b.Minutes) }},
	{"strength", "Strength", func(a, b advice.Row) int { return cmp.Compare(b.Strength, a.Strength) }},
}

// ways compares every box with its best arrangements.
func (s *Room) ways(c *echo.Context, st *State, data *benchPage) error {
	ctx, b := c.Request().Context(), st.Shown.Brief
	found, err := s.Plans.Ways.For(ctx, desk.Sum(b.Encode()), s.Workshop(ctx), func(w request.Workshop) (desk.Compared, error) {
		done, err := s.Short.Take(ctx)
		if err != nil {
			return desk.Compared{}, err
		}
		defer done()
		rows, whole := advice.Compare(ctx, b, w)
		return desk.Compared{Rows: rows, Whole: whole}, ctx.Err()
	})
	if err != nil {
		return err
	}
	data.Rows, data.Whole = sortRows(slices.Clone(found.Rows), c.QueryParam("sort")), found.Whole
	data.Columns, data.Sort = columns, c.QueryParam("sort")
	return nil
}

func sortRows(rows []advice.Row, by string) []advice.Row {
	for _, col := range columns {
		if col.ID == by {
			slices.SortStableFunc(rows, col.less)
		}
	}
	slices.SortStableFunc(rows, func(a, b advice.Row) int { // what can't be made comes last
		return cmp.Compare(min(1, len(a.Why)), min(1, len(b.Why)))
	})
	return rows
}
