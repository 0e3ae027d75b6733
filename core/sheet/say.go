package sheet

import (
	"slices"
	"strings"
)

// Names writes faces of the piece for a sentence: four tabs are "tabs". Where a piece has more of
// a kind they are told apart: "left and right rolled flaps".
func (p *Piece) Names(faces []string) string {
	var out, roles []string
	alike := map[string]int{}
	for _, f := range faces {
		role := p.RoleOf(f)
		if role == "" {
			out = append(out, strings.ReplaceAll(f, "-", " "))
			continue
		}
		if alike[role] == 0 {
			roles = append(roles, role)
		}
		alike[role]++
	}
	for _, role := range roles {
		name := role
		if alike[role] > 1 {
			name += "s"
		}
		if which := p.which(role, faces, alike[role]); which != "" && len(roles) == 1 && len(out) == 0 {
			name = which + " " + name
		}
		out = append(out, name)
	}
	if len(out) < 2 {
		return strings.Join(out, "")
	}
	return strings.Join(out[:len(out)-1], ", ") + " and " + out[len(out)-1]
}

// which tells faces of a role apart from the others of the piece, by what their names begin with;
// "" where there are no others, or their names don't tell.
func (p *Piece) which(role string, faces []string, n int) string {
	all := 0
	for _, of := range p.roles {
		if of == role {
			all++
		}
	}
	last := role[strings.LastIndexByte(role, ' ')+1:]
	var which []string
	for _, f := range faces {
		i := strings.LastIndexByte(f, '-')
		if p.roles[f] != role || i < 0 || all == n || !strings.HasPrefix(last, f[i+1:]) && role != "rolled flap" {
			continue
		}
		if first := strings.ReplaceAll(f[:i], "-", " "); !slices.Contains(which, first) {
			which = append(which, first)
		}
	}
	if len(which) == 0 || len(which) != n {
		return ""
	}
	if len(which) == 1 {
		return which[0]
	}
	return strings.Join(which[:len(which)-1], ", ") + " and " + which[len(which)-1]
}

// Says tells one move of the folding.
func (p *Piece) Says(m Move) string {
	if m.Told != "" {
		return m.Told
	}
	return p.Names(m.Faces)
}
