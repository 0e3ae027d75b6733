package machine

import (
	"fmt"
	"strconv"
	"strings"
)

// ReadGCode reads a job in plain G-code: G0, G1, G20, G21, G90, G91, T, M6, F, Z, M2, M30. Z at
// or below nothing is down. Anything else is refused, for a path that was half understood is
// worse than none.
func ReadGCode(data []byte) (Program, error) {
	r := &gcode{scale: 1, z: 1, absolute: true}
	for n, line := range strings.Split(string(data), "\n") {
		line, err := r.uncommented(line)
		if err != nil {
			return Program{}, fmt.Errorf("line %d: %w", n+1, err)
		}
		if err := r.line(strings.ToUpper(strings.TrimSpace(line))); err != nil {
			return Program{}, fmt.Errorf("line %d, %.24q: %w", n+1, strings.TrimSpace(line), err)
		}
		if r.ended {
			break
		}
	}
	r.lift()
	return r.Program, nil
}

// uncommented takes the comments out of a line and notes what they say.
func (r *gcode) uncommented(line string) (string, error) {
	var out strings.Builder
	for {
		open := strings.IndexAny(line, "(;")
		if open < 0 {
			out.WriteString(line)
			return out.String(), nil
		}
		out.WriteString(line[:open])
		if line[open] == ';' { // what follows is a comment, whatever it holds
			return out.String(), nil
		}
		shut := strings.IndexByte(line[open:], ')')
		if shut < 0 {
			return "", fmt.Errorf("a comment without its end")
		}
		r.note(line[open+1 : open+shut])
		out.WriteByte(' ')
		line = line[open+shut+1:]
	}
}

type gcode struct {
	Program
	at              Point
	z, scale        float64
	tool, next      int
	points          int
	absolute, ended bool
	moves           bool
	now             []Point
}

// line does what one line says: words of a letter and a number.
func (r *gcode) line(text string) error {
	to, z, moved := r.at, r.z, false
	for text = strings.TrimSpace(text); text != ""; text = strings.TrimSpace(text) {
		end := 1
		for end < len(text) && strings.IndexByte("0123456789.+-", text[end]) >= 0 {
			end++
		}
		v, err := strconv.ParseFloat(text[1:end], 64)
		if err != nil || !sane(v) {
			return fmt.Errorf("%.12q isn't a letter and a number", text[:end])
		}
		letter := text[0]
		text = text[end:]
		switch letter {
		case 'X', 'Y', 'Z':
			moved = true
			axis := map[byte]*float64{'X': &to.X, 'Y': &to.Y, 'Z': &z}[letter]
			if r.absolute {
				*axis = v * r.scale
			} else {
				*axis += v * r.scale
			}
		case 'T':
			r.next = int(v)
		case 'F', 'N', 'S':
		case 'G', 'M':
			if err := r.word(letter, v); err != nil {
				return err
			}
		default:
			return fmt.Errorf("this machine doesn't know %c", letter)
		}
	}
	if moved {
		return r.move(to, z)
	}
	return nil
}

func (r *gcode) word(letter byte, v float64) error {
	switch fmt.Sprintf("%c%g", letter, v) {
	case "G0", "G1":
		r.moves = true
	case "G20":
		r.scale = 25.4
	case "G21":
		r.scale = 1
	case "G90":
		r.absolute = true
	case "G91":
		r.absolute = false
	case "M6": // where the tool was down, the next one goes on from there
		r.lift()
		if r.tool = r.next; r.z <= 0 {
			r.now = []Point{r.at}
		}
	case "M2", "M30":
		r.ended = true
	default:
		return fmt.Errorf("this machine doesn't know %c%g", letter, v)
	}
	return nil
}

func (r *gcode) move(to Point, z float64) error {
	switch {
	case !r.moves:
		return fmt.Errorf("a place without G0 or G1")
	case !sane(to.X) || !sane(to.Y):
		return fmt.Errorf("that isn't a place on the bed")
	case z <= 0 && r.z > 0:
		if r.tool == 0 {
			return fmt.Errorf("no tool was taken: T1 M6 is the scoring tool, T2 M6 the knife")
		}
		r.now = []Point{to}
	case z > 0 && r.z <= 0:
		r.lift()
	case z <= 0:
		if r.now = append(r.now, to); r.points+len(r.now) > MostPoints {
			return errTooMany
		}
	}
	r.at, r.z = to, z
	return nil
}

func (r *gcode) lift() {
	if len(r.now) > 1 {
		r.Strokes = append(r.Strokes, Stroke{r.tool, r.now})
		r.points += len(r.now)
	}
	r.now = nil
}
