package sheet

import (
	"strings"
)

// Names writes faces of the piece for a sentence: four tabs are "tabs".
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
		if alike[role] > 1 {
			role += "s"
		}
		out = append(out, role)
	}
	if len(out) < 2 {
		return strings.Join(out, "")
	}
	return strings.Join(out[:len(out)-1], ", ") + " and " + out[len(out)-1]
}

// Says tells one move of the folding.
func (p *Piece) Says(m Move) string {
	if m.Told != "" {
		return m.Told
	}
	return p.Names(m.Faces)
}
