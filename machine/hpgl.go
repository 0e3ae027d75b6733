package machine

import (
	"fmt"
	"strconv"
	"strings"
)

// unit is how long the machine's own unit is, in millimetres.
const unit = 1.0 / 40

// ReadHPGL reads a job in HPGL: IN, SP, PU, PD, PA, PR, IP with SC, CO. Another instruction is
// refused, for a path that was half understood is worse than none.
func ReadHPGL(data []byte) (Program, error) {
	r := &hpgl{}
	r.initial()
	text := string(data)
	for n := 1; text != ""; n++ {
		text = strings.TrimLeft(text, " \t\r\n;")
		if text == "" {
			break
		}
		end := strings.IndexByte(text, ';')
		if end < 0 {
			end = len(text)
		}
		if end < 2 {
			return Program{}, fmt.Errorf("instruction %d, %q: an instruction has two letters", n, text[:end])
		}
		name := strings.ToUpper(text[:2])
		if name == "CO" {
			if q := strings.IndexByte(text, '"'); q >= 0 && strings.TrimSpace(text[2:q]) == "" {
				if close := strings.IndexByte(text[q+1:], '"'); close >= 0 {
					r.note(text[q+1 : q+1+close])
					text = text[q+close+2:]
					continue
				}
			}
		}
		if err := r.does(name, text[2:end]); err != nil {
			return Program{}, fmt.Errorf("instruction %d, %.20q: %w", n, text[:end], err)
		}
		text = text[end:]
	}
	r.up()
	return r.Program, nil
}

// hpgl is the state of a job that is read.
type hpgl struct {
	Program
	at             Point
	corner         [4]float64 // P1 and P2, in the machine's own units
	users          []float64  // what SC calls these corners; none: its own units
	tool, points   int
	down, absolute bool
	now            []Point
}

// initial is the state that a machine is in when it is switched on, and after IN.
func (r *hpgl) initial() {
	r.up()
	r.corner, r.users, r.absolute, r.tool, r.at = [4]float64{0, 0, 4000, 4000}, nil, true, 0, Point{}
}

// scale gives how long the unit is in millimetres, and where its origin lies: SC names the
// corners, so it moves with them when IP comes later.
func (r *hpgl) scale() (by, origin Point) {
	if r.users == nil {
		return Point{unit, unit}, Point{}
	}
	c, n := r.corner, r.users
	by = Point{(c[2] - c[0]) * unit / (n[1] - n[0]), (c[3] - c[1]) * unit / (n[3] - n[2])}
	return by, Point{c[0]*unit - n[0]*by.X, c[1]*unit - n[2]*by.Y}
}

func (r *hpgl) does(name, args string) error {
	n, err := numbersOf(args)
	if err != nil && name != "CO" {
		return err
	}
	switch name {
	case "IN":
		r.initial()
	case "DF": // the tool, where it is and the corners stay
		r.users, r.absolute = nil, true
	case "CO":
		return fmt.Errorf("a comment stands between quotation marks")
	case "SP":
		r.up()
		if r.tool = 0; len(n) > 0 {
			r.tool = int(n[0])
		}
	case "IP":
		if len(n) != 4 || n[0] == n[2] || n[1] == n[3] {
			return fmt.Errorf("IP takes two corners that lie apart")
		}
		r.corner = [4]float64(n)
	case "SC":
		return r.scaled(n)
	case "PA":
		r.absolute = true
		return r.moves(n)
	case "PR":
		r.absolute = false
		return r.moves(n)
	case "PU":
		r.up()
		return r.moves(n)
	case "PD":
		if !r.down {
			if r.tool == 0 {
				return fmt.Errorf("no tool was taken: SP1 is the scoring tool, SP2 the knife")
			}
			r.down, r.now = true, []Point{r.at}
		}
		return r.moves(n)
	default:
		return fmt.Errorf("this machine doesn't know it")
	}
	return nil
}

// scaled sets the unit so that the corners P1 and P2 have the numbers given.
func (r *hpgl) scaled(n []float64) error {
	if len(n) != 0 && (len(n) != 4 || n[0] == n[1] || n[2] == n[3]) {
		return fmt.Errorf("SC takes four numbers, of which no pair is alike")
	}
	r.users = n
	return nil
}

func (r *hpgl) moves(n []float64) error {
	if len(n)%2 != 0 {
		return fmt.Errorf("a place has two numbers")
	}
	by, origin := r.scale()
	for i := 0; i < len(n); i += 2 {
		to := Point{origin.X + n[i]*by.X, origin.Y + n[i+1]*by.Y}
		if !r.absolute {
			to = Point{r.at.X + n[i]*by.X, r.at.Y + n[i+1]*by.Y}
		}
		if !sane(to.X) || !sane(to.Y) {
			return fmt.Errorf("that isn't a place on the bed")
		}
		if r.at = to; r.down {
			if r.now = append(r.now, to); r.points+len(r.now) > MostPoints {
				return errTooMany
			}
		}
	}
	return nil
}

func (r *hpgl) up() {
	if r.down && len(r.now) > 1 {
		r.Strokes = append(r.Strokes, Stroke{r.tool, r.now})
		r.points += len(r.now)
	}
	r.down, r.now = false, nil
}

func numbersOf(args string) (out []float64, err error) {
	for _, f := range strings.FieldsFunc(args, func(r rune) bool { return r == ',' || r == ' ' || r == '\r' || r == '\n' || r == '\t' }) {
		v, err := strconv.ParseFloat(f, 64)
		if err != nil || !sane(v/1e4) {
			return nil, fmt.Errorf("%.20q isn't a number", f)
		}
		out = append(out, v)
	}
	return out, nil
}
