package net

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
			if name += "s"; role == "foot" {
				name = "feet"
			}
		}
		which := naming{p}.which(role, faces, alike[role])
		switch {
		case which == "":
		case len(roles) == 1 && len(out) == 0:
			name = which + " " + name
		case len(roles) == 1 && naming{p}.hang(role, faces):
			name = "their " + name
		default:
			name = "the " + which + " " + name
		}
		out = append(out, name)
	}
	if len(out) < 2 {
		return strings.Join(out, "")
	}
	return strings.Join(out[:len(out)-1], ", ") + " and " + out[len(out)-1]
}

// naming tells faces of a role apart.
type naming struct{ *Piece }

// hang reports whether the faces of a role among some are just those that hang on the others.
func (p naming) hang(role string, faces []string) bool {
	for _, f := range p.Faces {
		if f.Waste || p.roles[f.Name] != role {
			continue
		}
		on := slices.ContainsFunc(f.Edges, func(e Edge) bool {
			return e.Kind == Score && e.Beyond != nil && p.roles[e.Beyond.Name] != role && slices.Contains(faces, e.Beyond.Name)
		})
		if on != slices.Contains(faces, f.Name) {
			return false
		}
	}
	return true
}

// alikeNamed is what the names of all faces of a role end with; "" where they don't.
func (p naming) alikeNamed(role string) (kind string) {
	for f, of := range p.roles {
		if of != role {
			continue
		}
		end := f[strings.LastIndexByte(f, '-')+1:]
		if kind != "" && end != kind {
			return ""
		}
		kind = end
	}
	return kind
}

// which tells faces of a role apart from the others of the piece, by what their names begin with;
// "" where there are no others, or their names don't tell.
func (p naming) which(role string, faces []string, n int) string {
	all := 0
	for _, of := range p.roles {
		if of == role {
			all++
		}
	}
	last := role[strings.LastIndexByte(role, ' ')+1:]
	kind := p.alikeNamed(role)
	var which []string
	for _, f := range faces {
		i := strings.LastIndexByte(f, '-')
		if p.roles[f] != role || i < 0 || all == n || f[i+1:] != kind && !strings.HasPrefix(last, f[i+1:]) && role != "rolled flap" {
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
