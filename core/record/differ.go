package record

import "brevium/core/brief"

// Difference is a field that two documents say differently.
type Difference struct{ Field, Was, Is string }

// Differences lists what one document says otherwise than another, in the order of the table of
// fields. Things and pieces that only one of them has are told by their names.
func Differences(was, is brief.Brief) (out []Difference) {
	old, order := map[string]string{}, []string(nil)
	for path, text := range was.All() {
		old[path], order = text, append(order, path)
	}
	for path, text := range is.All() {
		before, known := old[path]
		if delete(old, path); (known || text != "") && before != text {
			out = append(out, Difference{path, before, text})
		}
	}
	for _, path := range order {
		if text, left := old[path]; left && text != "" {
			out = append(out, Difference{Field: path, Was: text})
		}
	}
	return out
}
