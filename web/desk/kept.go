package desk

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"strings"

	"brevium/core/document"
	"brevium/core/words"
	"brevium/store"
)

// Kept is what every page that keeps as one types says of its document, beside what it is about.
type Kept struct {
	Base      int64
	Said      string // when it was last changed
	Undoes    string // what undo takes back, "" when there is nothing
	Redoes    string // what redo brings back
	Conflicts []conflict
	Notice    string
	Foreign   *store.Foreign // undo was asked for, and the newest change is another's
	Focus     string
	Seen      int64 // the revision that the window showed which made a change
}

// conflict is a field that two windows changed, in words.
type conflict struct {
	document.Conflict
	Label  string
	Member string // the path of what is gone
}

// KeptOf says it of a document; label names a field for people.
func KeptOf[D any](ctx context.Context, k Kind[D], head *store.Head[D], e *Edited[D], label func(path string) string) (Kept, error) {
	out := Kept{Base: head.ID, Said: "Saved " + ago(head.Changed), Notice: e.Notice, Focus: e.Focus, Seen: e.base, Foreign: e.foreign}
	if head.Parent != 0 {
		out.Undoes = head.What
	}
	if out.Foreign != nil {
		out.Focus = "undo-all-the-same"
	}
	next, err := k.Next(ctx, head.ID)
	if err == nil {
		out.Redoes = next.What
	} else if !errors.Is(err, store.ErrNone) {
		return out, err
	}
	for _, one := range e.conflicts {
		shown := conflict{Conflict: one, Label: label(one.Field)}
		if one.Gone {
			shown.Member = one.Field[:strings.LastIndexByte(one.Field, '.')]
		}
		out.Conflicts = append(out.Conflicts, shown)
	}
	return out, nil
}

// Changed tells in words what two documents say differently: the first two fields, each with whose it is.
func Changed[D any](f *document.Form[D], was, now *D) string {
	var says []string
	more := 0
	for path, text := range f.All(now) {
		if document.Get(was, path) == text {
			continue
		}
		if len(says) == 2 {
			more++
			continue
		}
		if strings.TrimSpace(text) == "" {
			text = "left open"
		}
		says = append(says, Labelled(f, now, path)+" "+words.Cut(text, 40))
	}
	if len(says) == 0 {
		return "A change"
	}
	if more > 0 {
		says = append(says, fmt.Sprintf("and %d more", more))
	}
	return words.Capital(strings.Join(says, "; "))
}

// Labelled names a field for people: “kraft, 300 gsm: price”.
func Labelled[D any](f *document.Form[D], of *D, path string) string {
	field, ok := f.Field(path)
	if !ok {
		field.Label = words.Plain(path[strings.LastIndexByte(path, '.')+1:])
	}
	at := path[:max(0, strings.LastIndexByte(path, '.'))]
	if owner := nameAt(of, at); owner != "" && !strings.HasSuffix(path, ".name") && !strings.HasSuffix(path, ".title") {
		return owner + ": " + field.Label
	}
	return field.Label
}

// nameAt is what the member of a list is called, "" when it is called nothing.
func nameAt[D any](of *D, at string) string {
	if !strings.Contains(at, ".") {
		return ""
	}
	return strings.TrimSpace(cmp.Or(document.Get(of, at+".name"), document.Get(of, at+".title")))
}
