package web

import (
	"fmt"
	"sync"
	"testing"

	"brevium/core/brief"
	"brevium/web/workbench"
)

// Sixteen people look at every page of one box at once, and each sees what one alone sees. With -race, that nobody
// writes what the others read.
func TestSixteenLookOn(t *testing.T) {
	a := newApp(t)
	b := brief.New("mm")
	b.Set("dress.layers.0.on", "outside")
	id := a.begin(b)
	var pages []string
	for i := range max(len(workbench.Stages), len(workbench.Looks)) {
		stage, look := workbench.Stages[i%len(workbench.Stages)], workbench.Looks[i%len(workbench.Looks)]
		pages = append(pages, "/projects/"+id+"?stage="+stage.ID+"&view="+look.ID)
	}
	pages = append(pages, "/projects/"+id+"/print", "/projects/"+id+"/bench", "/")
	want := map[string]int{}
	for _, p := range pages {
		want[p] = a.get(p).Body.Len()
	}
	said := make([]string, 16)
	var wait sync.WaitGroup
	for n := range said {
		wait.Go(func() {
			for i := range pages {
				p := pages[(i+n*len(pages)/len(said))%len(pages)]
				if w := a.get(p); w.Code != 200 || w.Body.Len() != want[p] {
					said[n] = fmt.Sprintf("%s: %d, %d letters, alone %d", p, w.Code, w.Body.Len(), want[p])
				}
			}
		})
	}
	wait.Wait()
	for _, s := range said {
		if s != "" {
			t.Error(s)
		}
	}
}
