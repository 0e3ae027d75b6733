package export

import "brevium/draw/pen"

// Tables and rows of pictures on paper.

// table writes rows in columns, each so large a part of the width.
func (p *paper) table(head []string, parts []float64, rows [][]string) {
	width := p.w - 2*p.margin
	write := func(cells []string, strong bool) {
		p.font(strong, readable)
		deep, wrapped := 1, make([][]string, len(cells))
		for i, c := range cells {
			wrapped[i] = p.wrap(c, width*parts[i]-3)
			deep = max(deep, len(wrapped[i]))
		}
		const high = 5.0
		p.room(float64(deep) * high)
		p.font(strong, readable)
		x := p.margin
		for i, lines := range wrapped {
			p.within("P", "", func() {
				for k, l := range lines {
					p.put(x, p.y+high*(float64(k)+0.78), l)
				}
			})
			x += width * parts[i]
		}
		p.y += float64(deep) * high
		p.artifact(func() {
			p.pdf.SetDrawColor(216, 204, 178)
			p.pdf.SetLineWidth(0.15)
			p.pdf.SetDashPattern(nil, 0)
			p.pdf.Line(p.margin, p.y+0.4, p.w-p.margin, p.y+0.4)
		})
		p.y += 1
	}
	write(head, true)
	for _, row := range rows {
		write(row, false)
	}
	p.y += 2
}

// pictured is one of a row of them, with what it says.
type pictured struct {
	of   pen.Picture
	says string
}

// row sets pictures side by side, so many to a row, their words below.
func (p *paper) row(all []pictured, most int, ratio float64) {
	width, gap := p.w-2*p.margin, 4.0
	each := (width - gap*float64(most-1)) / float64(most)
	for len(all) > 0 {
		now := all[:min(most, len(all))]
		all = all[len(now):]
		p.font(false, 8)
		deep, lines := 0, make([][]string, len(now))
		for i, f := range now {
			lines[i] = p.wrap(f.says, each)
			deep = max(deep, len(lines[i]))
		}
		const high = 3.5
		p.room(each*ratio + float64(deep)*high + 2)
		top := p.y
		for i, f := range now {
			x := p.margin + float64(i)*(each+gap)
			if len(f.of.In) > 0 {
				p.figure(f.of, f.says, x, top, each, each*ratio)
			}
			p.font(false, 8)
			p.within("P", "", func() {
				for k, l := range lines[i] {
					p.put(x, top+each*ratio+high*(float64(k)+1), l)
				}
			})
		}
		p.y = top + each*ratio + float64(deep)*high + 2.5
	}
}
