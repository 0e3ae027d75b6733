package bench_test

import (
	"regexp"
	"slices"
	"strings"

	"brevium/core/net"
	"brevium/core/words"
)

var (
	putsOn = regexp.MustCompile(`^(.+): put (.+) on the (inside|outside) of the (.+), near the edge\.$`)
	backs  = regexp.MustCompile(`^(.+): put tape on the (.+) too\. Leave its backing on`)
	peels  = regexp.MustCompile(`(?i)peel the backing off the tape on the ([^.]+)\.`)
	glues  = regexp.MustCompile(`Put glue on the ([^.]+)\.`)
	order  = regexp.MustCompile(`old up in this order: ([^.]+)\.|old up the ([^.]+)\.`)
	sticks = regexp.MustCompile(`(?i)stick the (.+?) of the (.+?) on the (.+?) of the (.+?)(?:;|\.$)`)
)

// facesOf finds the faces that a phrase names: by their names, by what there is of a kind, or by what
// the names of a kind begin with.
func facesOf(p *net.Piece, phrase string) (out []string) {
	if before, after, ok := strings.Cut(strings.ReplaceAll(phrase, ", the ", " and the "), " and the "); ok {
		return append(facesOf(p, before), facesOf(p, after)...)
	}
	items := strings.Split(strings.ReplaceAll(phrase, " and ", ", "), ", ")
	kind := func(prefix, role string) (found []string) {
		for _, f := range p.Faces {
			if r := p.RoleOf(f.Name); r != "" && !f.Waste && (r == role || r+"s" == role) && strings.HasPrefix(words.Plain(f.Name), prefix) {
				found = append(found, f.Name)
			}
		}
		return found
	}
	exact := func(name string) (found []string) {
		for _, f := range p.Faces {
			if !f.Waste && words.Plain(f.Name) == name {
				found = append(found, f.Name)
			}
		}
		return found
	}
	last := items[len(items)-1]
	if role, theirs := strings.CutPrefix(last, "their "); theirs {
		for _, item := range items[:len(items)-1] {
			out = append(out, exact(item)...)
		}
		for _, f := range kind("", role) {
			if slices.ContainsFunc(p.Face(f).Edges, func(e net.Edge) bool {
				return e.Kind == net.Score && e.Beyond != nil && slices.Contains(out, e.Beyond.Name)
			}) {
				out = append(out, f)
			}
		}
		return out
	}
	for i := strings.IndexByte(last, ' '); i > 0 && i < len(last); {
		if role := last[i+1:]; len(kind("", role)) > 0 && len(kind("", last)) == 0 && len(exact(last)) == 0 {
			for _, prefix := range append(slices.Clone(items[:len(items)-1]), last[:i]) {
				out = append(out, kind(prefix+" ", role)...)
			}
			return out
		}
		j := strings.IndexByte(last[i+1:], ' ')
		if j < 0 {
			break
		}
		i += 1 + j
	}
	for _, item := range items {
		switch found := exact(item); {
		case item == "floor" && len(found) == 0:
			out = append(out, p.Root)
		case item == "feet":
			out = append(out, kind("", "foot")...)
		case len(kind("", item)) > 0:
			out = append(out, kind("", item)...)
		case len(found) > 0:
			out = append(out, found...)
		}
	}
	return slices.Compact(out)
}
