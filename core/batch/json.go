package batch

import (
	"fmt"
	"math"
	"slices"

	"brevium/core/bench"
	"brevium/core/brief"
	"brevium/core/cutting"
	"brevium/core/document"
	"brevium/core/layout"
	"brevium/core/measure"
	"brevium/core/request"
	"brevium/core/words"
)

// The JSON of a batch's plan, as docs/format.md describes it.
type (
	jsonBatch struct {
		Orders   []jsonOrder     `json:"orders"`
		Boxes    int             `json:"boxes"`
		Sheets   []jsonSheets    `json:"sheets"`
		Count    int             `json:"sheet_count"`
		Bound    int             `json:"sheet_bound"`
		Settings []jsonSetting   `json:"trim,omitempty"`
		Blades   int             `json:"blades"`
		Shopping []jsonBuy       `json:"shopping"`
		Supplies []jsonSupply    `json:"supplies"`
		Cost     *jsonCost       `json:"cost,omitempty"`
		Sittings []jsonSitting   `json:"sittings"`
		Waits    []jsonWait      `json:"waits"`
		Fits     bool            `json:"fits"`
		Late     int             `json:"late_minutes,omitempty"`
		Start    string          `json:"start_by,omitempty"`
		Schedule jsonSchedule    `json:"schedule"`
		Gives    []jsonGive      `json:"gives,omitempty"`
		Proved   bool            `json:"proved"`
		Warnings []brief.Warning `json:"warnings"`
		Problems []brief.Problem `json:"problems"`
	}
	jsonOrder struct {
		ID      string  `json:"id"`
		Name    string  `json:"name"`
		Style   string  `json:"style"`
		Count   int     `json:"count"`
		By      string  `json:"by"`
		Minutes float64 `json:"minutes"`
		Ready   string  `json:"ready,omitempty"`
		Late    bool    `json:"late"`
		Unmade  int     `json:"minutes_without_a_day,omitempty"`
		Proved  bool    `json:"proved"`
		State   string  `json:"state,omitempty"`
	}
	jsonSheets struct {
		Stock   string        `json:"stock"`
		Title   string        `json:"title"`
		Sheet   string        `json:"sheet"`
		Count   int           `json:"count"`
		Used    float64       `json:"used"`
		Offcuts []jsonOffcuts `json:"offcuts"`
	}
	jsonOffcuts struct {
		Width  string `json:"width"`
		Height string `json:"height"`
		Count  int    `json:"count"`
	}
	jsonSetting struct {
		At   string     `json:"stop"`
		Cuts int        `json:"cuts"`
		Of   []jsonCuts `json:"of"`
	}
	jsonCuts struct {
		Sheet int   `json:"sheet"`
		Alike int   `json:"alike"`
		Steps []int `json:"cuts"`
	}
	jsonBuy struct {
		Stock  string `json:"stock"`
		Sheet  string `json:"sheet"`
		Needed int    `json:"needed"`
		Hand   int    `json:"in_hand"`
		Short  int    `json:"short"`
		Packs  int    `json:"packs,omitempty"`
		Price  string `json:"price,omitempty"`
	}
	jsonSupply struct {
		What   string `json:"what"`
		Amount string `json:"amount"`
		Packs  string `json:"packs,omitempty"`
		Price  string `json:"price,omitempty"`
	}
	jsonCost struct {
		Used    string   `json:"used_up"`
		Buy     string   `json:"to_buy"`
		Work    string   `json:"work,omitempty"`
		Unknown []string `json:"no_price"`
	}
	jsonSitting struct {
		Date    string      `json:"date"`
		Begins  string      `json:"begins"`
		Minutes int         `json:"minutes"`
		Has     int         `json:"has"`
		Rests   int         `json:"rest_minutes"`
		Work    []jsonEntry `json:"work"`
	}
	jsonEntry struct {
		At      int    `json:"at"`
		Order   string `json:"order"`
		Stage   string `json:"stage"`
		Minutes int    `json:"minutes"`
		Setup   int    `json:"setup_minutes,omitempty"`
		Idle    int    `json:"idle_minutes,omitempty"`
		From    int    `json:"from"`
		To      int    `json:"to"`
	}
	jsonWait struct {
		Order   string   `json:"order"`
		After   string   `json:"after"`
		Minutes int      `json:"minutes"`
		Date    string   `json:"date"`
		At      int      `json:"at"`
		Filled  []string `json:"filled_by"`
		Over    bool     `json:"over_before_next_sitting"`
	}
	jsonSchedule struct {
		Exact   bool `json:"exact"`
		Gap     int  `json:"gap_minutes"`
		Minutes int  `json:"minutes"`
		Saved   int  `json:"earlier_than_one_by_one"`
		Spared  int  `json:"waiting_let_go"`
	}
	jsonGive struct {
		Kind  string     `json:"kind"`
		Text  string     `json:"text"`
		Order string     `json:"order,omitempty"`
		Count *int       `json:"count,omitempty"`
		Dates []jsonDate `json:"dates,omitempty"`
		Hands int        `json:"hands,omitempty"`
		More  int        `json:"minutes_more,omitempty"`
	}
	jsonDate struct {
		Order string `json:"order"`
		By    string `json:"by"`
	}
)

// JSON plans a batch and writes it and reports whether all is proved and fits.
func JSON(d Document, now Moment, w request.Workshop, pace bench.Pace) (out []byte, fits bool) {
	b := Read(d, now, w)
	known := map[string]*Made{}
	b.Make(func(of brief.Brief) *Made {
		key := string(of.Encode())
		if known[key] == nil {
			known[key] = Plan(of, w)
		}
		return known[key]
	})
	j := jsonBatch{Orders: []jsonOrder{}, Sheets: []jsonSheets{}, Shopping: []jsonBuy{}, Supplies: []jsonSupply{},
		Sittings: []jsonSitting{}, Waits: []jsonWait{}, Warnings: b.Warnings, Problems: b.Problems, Proved: b.Holds()}
	if j.Warnings == nil {
		j.Warnings = []brief.Warning{}
	}
	if j.Problems == nil {
		j.Problems = []brief.Problem{}
	}
	shared := Shared{}
	if b.OK() {
		sheets := b.Lay(w, pace)
		shared = b.Share(pace)
		for _, name := range sheets.Uncut {
			j.Problems = append(j.Problems, brief.Problem{Field: "orders", Text: name + " has a piece that is too " +
				"big for its sheet.",
				Fix: "Open the box and choose a larger sheet, or turn on two halves."})
		}
		j.sheets(sheets)
		j.shared(shared)
		if !shared.Fits {
			j.gives(b.Gives(pace))
		}
	}
	j.orders(b, shared, pace)
	return document.Encoded(j), b.Holds() && shared.Fits && len(j.Problems) == 0
}

func (j *jsonBatch) orders(b *Batch, s Shared, pace bench.Pace) {
	for _, o := range b.Orders {
		out := jsonOrder{ID: o.ID, Name: o.Called(), Style: string(o.Brief.Box.Style), Count: o.Copy, State: string(o.State)}
		if !o.Due.IsZero() {
			out.By = o.Due.String()
		}
		if o.Made != nil && o.Made.OK() {
			for _, st := range o.Made.Stages {
				out.Minutes += st.At(pace)
			}
			out.Minutes, out.Proved = math.Round(out.Minutes*10)/10, o.Made.Job.Holds()
		}
		if day, ok := s.Ready[o.ID]; ok {
			out.Ready, out.Late = day.String(), day.Since(o.Due) > 0
		}
		if unmade := s.Unmade[o.ID]; unmade > 0 {
			out.Late, out.Unmade = true, unmade
		}
		j.Boxes += o.Copy
		j.Orders = append(j.Orders, out)
	}
}

func coins(n int64) string {
	if n == 0 {
		return ""
	}
	return words.Coins(n)
}

func (j *jsonBatch) sheets(s Sheets) {
	j.Count, j.Bound, j.Blades = s.Count(), s.Bound, s.Blades()
	for _, c := range s.Cuts {
		if len(c.Sheets) > 0 {
			j.Sheets = append(j.Sheets, jsonSheets{Stock: c.Card.ID, Title: c.Card.Title, Sheet: c.Sheet.Title, Count: len(c.Sheets),
				Used: float64(int(c.Used*1000+0.5)) / 1000, Offcuts: offcutsOf(c, s.Units)})
		}
	}
	for _, set := range s.Settings {
		out := jsonSetting{At: set.At, Cuts: set.All}
		for _, c := range set.Cuts {
			out.Of = append(out.Of, jsonCuts{c.Sheet, c.Alike, c.Steps})
		}
		j.Settings = append(j.Settings, out)
	}
	for _, buy := range s.Buys {
		j.Shopping = append(j.Shopping, jsonBuy{Stock: buy.Card.ID, Sheet: buy.Sheet.Title, Needed: buy.Count, Hand: buy.Hand,
			Short: buy.Short, Packs: buy.Packs, Price: coins(buy.Price)})
	}
	for _, l := range s.Cost.Rest {
		j.Supplies = append(j.Supplies, jsonSupply{l.What, l.Amount, l.Packs, coins(l.Buy)})
	}
	j.Cost = &jsonCost{words.Coins(s.Cost.All), words.Coins(s.Cost.Buy), coins(s.Cost.Work), s.Cost.Unknown}
	if j.Cost.Unknown == nil {
		j.Cost.Unknown = []string{}
	}
}

// offcutsOf lists what is left of sheets and worth keeping, the largest first.
func offcutsOf(c cutting.Cut, unit measure.Unit) []jsonOffcuts {
	out := []jsonOffcuts{}
	for _, o := range Offcuts(c) {
		out = append(out, jsonOffcuts{o.W.Exact(unit), o.H.Exact(unit), o.Count})
	}
	return out
}

// Offcut is what is left of a sheet, so many alike.
type Offcut struct {
	layout.Rect
	Count int
}

// Offcuts lists what is left of sheets and worth keeping, the largest first.
func Offcuts(c cutting.Cut) (out []Offcut) {
	for _, s := range c.Sheets {
		for _, o := range s.Offcuts {
			w, h := max(o.W, o.H), min(o.W, o.H)
			if h < layout.Keep {
				continue
			}
			i := slices.IndexFunc(out, func(x Offcut) bool { return x.W == w && x.H == h })
			if i < 0 {
				i, out = len(out), append(out, Offcut{layout.Rect{W: w, H: h}, 0})
			}
			out[i].Count++
		}
	}
	slices.SortStableFunc(out, func(a, b Offcut) int { return int(b.Area()) - int(a.Area()) })
	return out
}

func (j *jsonBatch) shared(s Shared) {
	j.Fits, j.Late = s.Fits, s.Late
	j.Schedule = jsonSchedule{s.Exact, s.Gap, s.Minutes, s.Saved, s.Spared}
	if s.Start != nil {
		j.Start = s.Start.String()
	}
	for _, sit := range s.Sittings {
		out := jsonSitting{Date: sit.Day.String(), Begins: fmt.Sprintf("%d:%02d", sit.Begins/60, sit.Begins%60),
			Minutes: sit.Minutes, Has: sit.Has, Rests: sit.Rests}
		for _, e := range sit.Entries {
			out.Work = append(out.Work, jsonEntry{e.At, e.Order.ID, e.Stage, e.Minutes, e.Setup, e.Idle, e.From, e.To})
		}
		j.Sittings = append(j.Sittings, out)
	}
	for _, w := range s.Waits {
		filled := w.Filled
		if filled == nil {
			filled = []string{}
		}
		j.Waits = append(j.Waits, jsonWait{w.Order.ID, w.Stage, w.Minutes, w.Day.String(), w.At, filled, w.Over})
	}
}

func (j *jsonBatch) gives(all []Give) {
	for _, g := range all {
		out := jsonGive{Kind: g.Kind, Text: g.Text, Hands: g.Hands, More: g.Hours}
		if g.Order != nil {
			out.Order = g.Order.ID
		}
		for _, d := range g.Dates {
			out.Dates = append(out.Dates, jsonDate{d.Order.ID, d.By.String()})
		}
		if g.Kind == "fewer" {
			out.Count = &g.Count
		}
		j.Gives = append(j.Gives, out)
	}
}
