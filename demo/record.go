package demo

import (
	"bytes"
	"context"
	"image"
	"image/color"
	"image/jpeg"
	"math"
	"strconv"
	"strings"
	"time"

	"brevium/core/batch"
	"brevium/core/brief"
	"brevium/core/record"
	"brevium/core/shop"
	"brevium/photo"
	"brevium/store"
)

// made are times that boxes of the fair were made: of the box whose name begins so, so many days ago.
var made = []struct {
	box, whom, fit, gap, change, notes string
	ago, count                         int
	minutes                            float64
}{
	{"Seed packet sampler", "the spring swap", "right", "", "", "Oat card takes the stamp well.", 230, 24, 410},
	{"Beeswax votives", "Sorrel", "right", "0.6 mm", "", "A pair, lying. Good with moss ribbon.", 190, 2, 55},
	{"Round tea tin", "Wren", "tight", "", "a groove wider next time, and score the lid last", "", 150, 1, 48},
	{"Round tea tin", "Wren's aunt", "right", "0.7 mm", "", "As before with the wider lid.", 143, 2, 80},
	{"Thumb pot, hinged", "the herb table", "loose", "", "two layers of paper on the base would do", "", 96, 6, 150},
	{"Bulb sampler", "the autumn fair", "right", "", "", "", 61, 12, 260},
	{"Plant marker box", "", "right", "", "pinwheel corners save the tape", "", 33, 8, 130},
	{"Seed packet sampler", "Ash and Linden", "right", "", "", "With their names on the tag.", 12, 30, 470},
}

// fillRecord writes the fair's logbook, puts its boxes into folders, and plans a batch.
func fillRecord(ctx context.Context, s *store.Store, ids []string, boxes []brief.Brief, now time.Time) error {
	find := func(name string) int {
		for i, b := range boxes {
			if strings.HasPrefix(string(b.Name), name) {
				return i
			}
		}
		return 0
	}
	folders := map[string][]string{}
	for i, b := range boxes {
		switch name := string(b.Name); {
		case i < 7:
			folders["Autumn fair"] = append(folders["Autumn fair"], ids[i])
		case strings.Contains(name, "eepsake") || strings.Contains(name, "ift"):
			folders["Presents"] = append(folders["Presents"], ids[i])
		}
	}
	for _, name := range []string{"Autumn fair", "Presents"} {
		if err := s.Shelf.PutIn(ctx, name, folders[name]...); err != nil {
			return err
		}
	}
	if err := s.Shelf.StartFrom(ctx, true, ids[0], ids[find("Round tea tin")]); err != nil {
		return err
	}
	for n, m := range made {
		i := find(m.box)
		r := record.Of(boxes[i], now.AddDate(0, 0, -m.ago))
		r.Project, r.Count, r.Whom, r.Fit, r.Gap, r.Change, r.Notes, r.Minutes = ids[i], m.count, m.whom, m.fit, m.gap,
			m.change, m.notes, m.minutes
		r.Sheets, r.Cost = m.count, int64(m.count*38)
		if card, ok := shop.Default.Card(r.Card); ok {
			r.Title = card.Title
		}
		made, err := s.Log.Record(ctx, r)
		if err != nil {
			return err
		}
		if n == 3 {
			p, err := photo.Take(snapshot())
			if err != nil {
				return err
			}
			if err := s.Log.KeepPhotos(ctx, store.Photo{Making: made[0], Width: p.Width, Height: p.Height, Data: p.Large, Small: p.Small,
				Says: "The tea tin's box in moss card on the bench"}); err != nil {
				return err
			}
		}
	}
	d := fairBatch(ids, boxes, find, batch.DayOf(now))
	for i := range d.Orders {
		head, err := s.Boxes.Head(ctx, d.Orders[i].Project)
		if err != nil {
			return err
		}
		d.Orders[i].Revision = head.ID
	}
	_, err := s.Batches.Create(ctx, d, "Begun")
	return err
}

// fairBatch is what is promised for the fair.
func fairBatch(ids []string, boxes []brief.Brief, find func(string) int, today batch.Day) batch.Document {
	d := batch.Document{Name: "Tansy Row Garden Fair", Hours: map[string]brief.Text{"tue": "1 1/2", "thu": "19:00-21:00",
		"sat": "4",
		"sun": "2"}, Hands: "1"}
	for _, o := range []struct {
		box, whom, words string
		count, days      int
	}{
		{"Seed packet sampler", "the seed table", "", 16, 24}, {"Round tea tin", "Wren", "thank you", 3, 17},
		{"Plant marker box", "the plant table", "", 10, 24}, {"Beeswax votives", "Sorrel", "", 4, 31},
	} {
		i := find(o.box)
		d.Add(batch.Order{Name: brief.Text(o.whom), Box: boxes[i].Encode(), Project: ids[i],
			Count: brief.Whole(strconv.Itoa(o.count)),
			Words: brief.Text(o.words), By: brief.Text(today.Plus(o.days).String())})
	}
	return d
}

// snapshot draws what a photo of a small box with its lid might show: nobody's photo ships here.
func snapshot() []byte {
	const w, h = 960, 720
	m := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			c := color.RGBA{205, 186, 158, 255} // the bench
			if y < 300 {
				c = color.RGBA{226, 222, 210, 255}
			}
			grain := uint8(6 * math.Abs(math.Sin(float64(y)/9+math.Sin(float64(x)/80))))
			m.SetRGBA(x, y, color.RGBA{c.R - grain, c.G - grain, c.B - grain, 255})
		}
	}
	moss, dark, light := color.RGBA{104, 124, 78, 255}, color.RGBA{78, 95, 58, 255}, color.RGBA{134, 152, 104, 255}
	side(m, 250, 330, 520, 420, 250, moss)
	side(m, 520, 420, 740, 310, 250, dark)
	side(m, 236, 322, 520, 416, 74, light)
	side(m, 520, 416, 754, 300, 74, moss)
	for t := range 1000 { // the lid, from its near corner back
		f := float64(t) / 1000
		x0, y0, x1, y1 := 236+f*234, 322-f*116, 520+f*234, 416-f*116
		line(m, x0, y0, x1, y1, light)
	}
	var out bytes.Buffer
	jpeg.Encode(&out, m, nil)
	return out.Bytes()
}

// side fills an upright face between two bottom-less edges, so high.
func side(m *image.RGBA, x0, y0, x1, y1, high int, c color.RGBA) {
	for x := x0; x < x1; x++ {
		top := y0 + (y1-y0)*(x-x0)/(x1-x0)
		for y := top; y < top+high; y++ {
			m.SetRGBA(x, y, c)
		}
	}
}

func line(m *image.RGBA, x0, y0, x1, y1 float64, c color.RGBA) {
	for t := 0.0; t <= 1; t += 0.0015 {
		m.SetRGBA(int(x0+(x1-x0)*t), int(y0+(y1-y0)*t), c)
	}
}
