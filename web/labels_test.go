package web_test

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/chromedp/chromedp"

	"brevium/core/brief"
	"brevium/core/contents"
	"brevium/core/plan"
	"brevium/core/request"
	"brevium/core/style"
	"brevium/draw"
)

// overlaps finds texts of drawings that lie on each other, or are cut off at an edge, as the browser sets them.
const overlaps = `(() => {
  const found = [];
  for (const svg of document.querySelectorAll("#probe svg")) {
    const texts = [...svg.querySelectorAll("text")].map((t) => [t, t.getBoundingClientRect()]);
    const all = svg.getBoundingClientRect();
    for (const [a, p] of texts) {
      if (p.left < all.left - 1 || p.right > all.right + 1) found.push(svg.dataset.of + ": " + a.textContent + " is cut off");
    }
    texts.forEach(([a, p], i) => texts.slice(i + 1).forEach(([b, q]) => {
      const w = Math.min(p.right, q.right) - Math.max(p.left, q.left);
      const h = Math.min(p.bottom, q.bottom) - Math.max(p.top, q.top);
      if (w > 1 && h > 3) {
        found.push(svg.dataset.of + ": " + a.textContent + " on " + b.textContent + " " + w.toFixed(1) + " by " + h.toFixed(1));
      }
    }));
  }
  return found.slice(0, 6);
})()`

// No two labels of a flat drawing lie on each other, in any style at any size.
func TestLabelsKeepApart(t *testing.T) {
	v := visit(t)
	v.do("open", chromedp.Navigate(v.address+v.box(0)+"?stage=box&view=flat"))
	r := rand.New(rand.NewPCG(17, 17))
	mm := func(lo, hi int) string { return fmt.Sprintf("%d mm", lo+r.IntN(hi-lo)) }
	html, drawn := "", 0
	for _, s := range contents.Shapes {
		html += draw.Measuring(s.ID)
	}
	for n := 0; drawn < 80; n++ {
		s := style.Styles[n%len(style.Styles)]
		b := brief.New([]string{"in", "mm"}[n%2])
		b.Contents, b.Box = nil, brief.Box{Style: brief.Text(s.ID)}
		for field, text := range map[string]string{"size.length": mm(45, 170), "size.width": mm(35, 120),
			"size.depth": mm(20, 120),
			"card.join":  "yes", "card.stock": []string{"cover-216", "sprig-220"}[r.IntN(2)]} {
			b.Set(field, text)
		}
		for _, q := range s.Asks {
			if k := len(q.Choices); k > 0 {
				b.Set("box.options."+q.ID, q.Choices[r.IntN(k)].ID)
			}
		}
		p := plan.Make(b, request.Default)
		if !p.OK() {
			continue
		}
		drawn++
		name := ""
		if r.IntN(2) == 0 {
			name = p.Box.Pieces()[0].Name
		}
		html += draw.Flat(p, name, 690, 560, func(string) string { return "#" })
		if drawn%20 != 0 {
			continue
		}
		text, err := json.Marshal(html)
		if err != nil {
			t.Fatal(err)
		}
		html = ""
		v.js(fmt.Sprintf(`{ document.querySelector("#probe")?.remove();
			const d = document.createElement("div"); d.id = "probe"; d.innerHTML = %s;
			document.body.append(d); d.querySelectorAll("svg").forEach((s, i) => { s.dataset.of = s.getAttribute("aria-label").slice(0, 60);
			s.style.width = s.viewBox.baseVal.width + "px"; }); }`, text))
		for _, fault := range run(v, chromedp.Evaluate[[]string](overlaps)) {
			t.Error(fault)
		}
	}
}
