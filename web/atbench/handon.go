package atbench

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"html/template"
	"mime"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"github.com/labstack/echo/v5"

	"brevium/core/bench"
	"brevium/core/measure"
	"brevium/core/sets"
	"brevium/core/words"
	"brevium/draw"
	"brevium/draw/pen"
	"brevium/export"
	"brevium/export/drawings"
	"brevium/store"
	"brevium/web/desk"
	"brevium/web/workbench"
)

// What leaves the page: the project sheet, the slip, templates, drawings, a link.

// optionsOf reads from the address what is wanted of a file.
func (s *Room) optionsOf(c *echo.Context, j sets.Job) (export.Options, export.What, error) {
	pace, err := s.Pace(c.Request().Context())
	q := c.QueryParams()
	shop := s.Workshop(c.Request().Context())
	o := export.Options{Paper: export.PaperFor(cmp.Or(q.Get("paper"), shop.Habit("paper")), j), Both: q.Get("both") == "1",
		Shop: shop, Pace: pace, American: s.American(c)}
	for _, p := range export.Parts {
		if slices.Contains(q["with"], p.ID) {
			o.Parts = append(o.Parts, p.ID)
		}
	}
	var wrong error
	if o.Printer, wrong = s.PrinterAsked(c); wrong != nil {
		err = wrong
	}
	n, _ := strconv.Atoi(q.Get("sheet"))
	return o, export.What{Piece: q.Get("piece"), Sheet: max(0, n)}, err
}

// Out gives a file of a project.
func (s *Room) Out(c *echo.Context) error {
	st, j, ok, err := s.Work.Job(c)
	if err != nil {
		return err
	}
	if !ok {
		return echo.NewHTTPError(http.StatusConflict, "There is no plan of "+st.Called()+" yet. Fix its red fields first.")
	}
	o, what, err := s.optionsOf(c, j)
	if err != nil {
		return err
	}
	if !slices.Contains(export.As, c.Param("as")) {
		return echo.ErrNotFound
	}
	return s.writeOut(c, j, c.Param("as"), what, o)
}

func (s *Room) writeOut(c *echo.Context, j sets.Job, as string, what export.What, o export.Options) error {
	ctx := c.Request().Context()
	f, err := s.written(ctx, j, as, what, o)
	if ctx.Err() != nil {
		return ctx.Err()
	}
	if refused := new(drawings.Unproved); errors.As(err, &refused) {
		return echo.NewHTTPError(http.StatusConflict, refused.Why+" The machine cuts only when all checks pass.")
	}
	if err != nil {
		return echo.NewHTTPError(http.StatusNotFound, words.Capital(err.Error())+".")
	}
	how := "attachment"
	if c.QueryParam("see") == "1" {
		if how = "inline"; as == "svg" {
			f.Data = drawings.Seen(f.Data)
		}
	}
	if f.Type == "application/pdf" && how == "inline" {
		return desk.PDF(c, f.Name, f.Data)
	}
	c.Response().Header().Set("Content-Disposition", mime.FormatMediaType(how, map[string]string{"filename": f.Name}))
	return c.Blob(http.StatusOK, f.Type, f.Data)
}

// written writes a file in a place of its own.
func (s *Room) written(ctx context.Context, j sets.Job, as string, what export.What, o export.Options) (export.File, error) {
	done, err := s.Short.Take(ctx)
	if err != nil {
		return export.File{}, err
	}
	defer done()
	return export.Write(j, as, what, o)
}

// HandOn is the page of what is handed on.
func (s *Room) HandOn(c *echo.Context) error {
	st, j, ok, err := s.Work.Job(c)
	if err != nil {
		return err
	}
	path := "/projects/" + st.Of
	v := &handOnPage{Page: desk.Page{Title: st.Called() + ": share and save"}, S: st, Path: path, OK: ok, Parts: export.Parts}
	if !ok {
		return s.Render(c, http.StatusOK, "handon", v)
	}
	w, h, folds := export.SlipSize(j)
	v.Papers = export.PapersFor(j, s.Workshop(c.Request().Context()).Habit("paper"))
	v.Unprintable, v.Notes = export.UnprintableOf(j), privateNotes(j) != ""
	v.Job, v.Warning, v.SlipFolds, v.Name = &j, j.Warning(), folds, desk.Called(j.Name, desk.Nameless)
	if v.Labels, err = s.LabelForm(c.Request().Context(), v.Papers[0], path+"/labels.pdf"); err != nil {
		return err
	}
	step := j.Plans[0].Step
	v.SlipSize = step.ShowUp(measure.FromMM(w)).Text + " × " + step.ShowUp(measure.FromMM(h)).String()
	v.Picture = template.HTML(draw.Made(j.Plans[0], 1, 420, 320).SVG())
	share, err := s.Store.Links.ShareOf(c.Request().Context(), c.Param("id"))
	if err == nil {
		v.Share, v.Stale, v.Address = &share, share.Revision != st.ID, "http://"+c.Request().Host+"/s/"+share.Token
	} else if !errors.Is(err, store.ErrNone) {
		return err
	}
	return s.Render(c, http.StatusOK, "handon", v)
}

// handOnPage is what is handed on of a box.
type handOnPage struct {
	desk.Page
	S                             *workbench.State
	Path, Name, SlipSize, Warning string
	OK, Notes, Stale              bool
	Parts                         []export.Part
	Papers                        []export.Format
	Unprintable                   []string
	Job                           *sets.Job
	SlipFolds                     string
	Picture                       template.HTML
	Share                         *store.Share
	Labels                        desk.LabelForm
	Address                       string
}

// privateNotes are the notes of a job's document.
func privateNotes(j sets.Job) string {
	if j.Set != nil {
		return string(j.Set.Brief.Notes)
	}
	return string(j.Plans[0].Brief.Notes)
}

// mostCopies is how many labels of one box are printed at once.
const mostCopies = 400

// Labels gives labels for a box: what it is called, what is in it, and a line of her own.
func (s *Room) Labels(c *echo.Context) error {
	_, j, ok, err := s.Work.Job(c)
	if err != nil {
		return err
	}
	if !ok {
		return echo.NewHTTPError(http.StatusConflict, "Fix the red fields of this box first, then print its labels.")
	}
	l := export.Label{Title: desk.Called(j.Name, desk.Nameless)}
	for _, p := range j.Plans {
		for _, t := range p.Load.Things {
			l.Lines = append(l.Lines, fmt.Sprintf("%d × %s", t.Count, t.Name))
		}
	}
	if own := words.Cut(strings.TrimSpace(c.QueryParam("own")), 160); own != "" {
		l.Lines = slices.Insert(l.Lines, 0, own)
	}
	n, _ := strconv.Atoi(c.QueryParam("count"))
	return s.Desk.Labels(c, slices.Repeat([]export.Label{l}, min(max(n, 1), mostCopies)))
}

// templateRow is a piece or a sheet on the page of templates.
type templateRow struct {
	Title, Says, Alt string
	Query            template.URL // what of an address names it
	Sheet            int
	w, h             float64 // in millimetres
	TooLarge         bool    // for the cutting machine
}

// Templates is the page of templates true to size.
func (s *Room) Templates(c *echo.Context) error {
	st, j, ok, err := s.Work.Job(c)
	if err != nil {
		return err
	}
	v := &templatesPage{Page: desk.Page{Title: st.Called() + ": templates"}, S: st, Path: "/projects/" + st.Of, OK: ok}
	if ok {
		v.Papers, v.Unprintable = export.PapersFor(j, s.Workshop(c.Request().Context()).Habit("paper")), export.UnprintableOf(j)
		v.Warning, v.Pieces, v.Sheets = j.Warning(), s.pieceRows(j), sheetRows(j)
		if v.Printers, err = s.Store.Printers(c.Request().Context()); err != nil {
			return err
		}
		if err := s.onBed(c.Request().Context(), v); err != nil {
			return err
		}
	}
	return s.Render(c, http.StatusOK, "templates", v)
}

// templatesPage lists what there are templates of.
type templatesPage struct {
	desk.Page
	S              *workbench.State
	Path, Warning  string
	OK             bool
	Papers         []export.Format
	Printers       []store.Printer
	Unprintable    []string
	Pieces, Sheets []templateRow
	Beds           []bed
	Bed            bed
}

func (s *Room) pieceRows(j sets.Job) (out []templateRow) {
	say := j.Plans[0].Say
	if s.Second() {
		say = j.Plans[0].SayBoth
	}
	for _, d := range drawings.Drawings(j) {
		r := templateRow{Title: words.Capital(words.Plain(d.Name)), Query: template.URL(url.Values{"piece": {d.Name}}.Encode()),
			Says: say(measure.FromMM(d.W)) + " × " + say(measure.FromMM(d.H))}
		if d.Count > 1 {
			r.Title += fmt.Sprintf(" × %d", d.Count)
		}
		r.w, r.h = d.W, d.H
		r.Alt = r.Title + ", true to size: cuts, scores, holes and glue"
		out = append(out, r)
	}
	return out
}

// mostSheetRows is how many kinds of sheet the page of templates shows.
const mostSheetRows = 24

func sheetRows(j sets.Job) (out []templateRow) {
	for _, step := range j.Steps {
		if step.Title != "Trim" || len(step.Frames) == 0 || len(out) == mostSheetRows {
			continue
		}
		n := int(step.Frames[0].At)
		_, c, ok := j.Sheet(n)
		if !ok {
			continue
		}
		r := templateRow{Title: fmt.Sprintf("Sheet %d", n+1), Query: template.URL(fmt.Sprintf("sheet=%d", n+1)), Sheet: n + 1,
			Says: c.Sheet.Title + ", " + c.Card.Title, w: c.Sheet.Width.MM(), h: c.Sheet.Height.MM()}
		if step.Count > 1 {
			r.Title += fmt.Sprintf(", and %d alike", step.Count-1)
		}
		r.Alt = r.Title + " with its pieces laid out"
		out = append(out, r)
	}
	return out
}

// StepPicture gives one picture of a step by itself.
func (s *Room) StepPicture(c *echo.Context) error {
	_, j, ok, err := s.Work.Job(c)
	if err != nil {
		return err
	}
	return writeStep(c, j, ok)
}

func writeStep(c *echo.Context, j sets.Job, ok bool) error {
	step, n := bench.Step{}, -1
	if ok {
		step, n = j.Step(c.QueryParam("step"))
	}
	f := int(workbench.Slider(c, "picture", 1, 1, 1000)) - 1
	if n < 0 || f >= len(step.Frames) {
		return echo.ErrNotFound
	}
	if c.QueryParam("of") != "" {
		c.Response().Header().Set("Cache-Control", "private, max-age=600")
	}
	return c.Blob(http.StatusOK, "image/svg+xml", pen.File(draw.Step(j, step.Frames[f], 330, 260).SVG()))
}
