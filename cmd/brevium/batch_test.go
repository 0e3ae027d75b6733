package main

import (
	"bytes"
	"encoding/json"
	"errors"
	"strings"
	"testing"
)

const batchOf = `{"orders": [{"name": "the fair", "box": {"brevium": 1, "name": "Bulb tray", "units": "in",
	"size": {"length": "4 in", "width": "3 in", "depth": "1 1/2 in"}, "box": {"style": "tray-lid"}}, "count": COUNT, "by": "2027-03-06"}],
	"hours": {"mon": "1", "sat": HOURS}, "from": "2027-02-20", "hands": 1}`

// The command prints the sittings and ends as the work fits: 0, 1 when it does not, 2 when nothing can
// be read.
func TestBatch(t *testing.T) {
	runBatch := func(text string) (int, map[string]any) {
		c := batchCommand()
		var out bytes.Buffer
		c.SetOut(&out)
		c.SetIn(strings.NewReader(text))
		c.SetArgs([]string{"-"})
		c.SilenceErrors, c.SilenceUsage = true, true
		err := c.ExecuteContext(t.Context())
		var got map[string]any
		if out.Len() > 0 {
			if err := json.Unmarshal(out.Bytes(), &got); err != nil {
				t.Fatal(err)
			}
		}
		var soft code
		switch {
		case err == nil:
			return exitOK, got
		case errors.As(err, &soft):
			return int(soft), got
		}
		return exitUnusable, got
	}
	of := func(count, hours string) string {
		return strings.NewReplacer("COUNT", count, "HOURS", hours).Replace(batchOf)
	}
	exit, got := runBatch(of("4", `"3"`))
	if exit != exitOK || got["fits"] != true || len(got["sittings"].([]any)) == 0 || len(got["shopping"].([]any)) != 1 ||
		got["start_by"] == nil || got["proved"] != true {
		t.Errorf("exit %d: %v", exit, got)
	}
	first := got["sittings"].([]any)[0].(map[string]any)
	if first["date"] != "2027-02-20" || first["minutes"].(float64) > first["has"].(float64) || first["has"] != 180.0 {
		t.Errorf("%v", first)
	}
	exit, got = runBatch(of("180", "1"))
	if exit != exitNoHold || got["fits"] != false || len(got["gives"].([]any)) == 0 {
		t.Errorf("exit %d: fits %v, gives %v", exit, got["fits"], got["gives"])
	}
	exit, got = runBatch(of("0", "1"))
	if exit != exitNoHold || len(got["problems"].([]any)) != 1 {
		t.Errorf("exit %d: %v", exit, got["problems"])
	}
	for _, text := range []string{"", "[]", `{"orders": 3}`, of("4", "1") + "{}", `{"orders": [], "hats": 1}`} {
		if exit, got := runBatch(text); exit != exitUnusable || got != nil {
			t.Errorf("%.30q: exit %d, %v", text, exit, got)
		}
	}
}
