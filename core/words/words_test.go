package words

import "testing"

func TestWords(t *testing.T) {
	for in, want := range map[string]string{"": "", "äpfel": "Äpfel", "École": "École", "élan": "Élan", "日本": "日本", "ǆ": "ǅ",
		"\xff": "\xff", "3 tins": "3 tins"} {
		if got := Capital(in); got != want {
			t.Errorf("Capital(%q) is %q", in, got)
		}
	}
	if Small("Éclair") != "éclair" || Plain("back-left-tab") != "back left tab" || Letters("日本é") != 3 {
		t.Error("small, plain or letters")
	}
	if List(nil) != "" || List([]string{"a"}) != "a" || List([]string{"a", "b", "c"}) != "a, b and c" ||
		Either([]string{"a", "b", "c"}) != "a, b or c" {
		t.Error("a list of names")
	}
	if Cut("日本語", 2) != "日本…" || Cut("日本", 2) != "日本" {
		t.Error("a text is cut inside a letter, or for nothing")
	}
	for s, want := range map[string]bool{"": false, " \t\u00a0": false, "\u200b\u2060": false, "\u3164\u2800": false,
		"\u0301": false, "日": true, "?": true, "\u200bx": true} {
		if Visible(s) != want {
			t.Errorf("Visible(%q) is %v", s, !want)
		}
	}
}

// A length is read in one line.
func TestTogether(t *testing.T) {
	for in, want := range map[string]string{
		"Cut 9 × 7 1/2 in, then 40 mm.":              "Cut\x209\x20×\x207\u202f1/2\u00a0in,\x20then\x2040\u00a0mm.",
		"Score 3 7⁄8 in (98.4 mm) and 2 more inside": "Score 3\u202f7⁄8\u00a0in (98.4\u00a0mm) and 2 more inside",
	} {
		if got := Together(in); got != want {
			t.Errorf("%q is %q", in, got)
		}
	}
}
