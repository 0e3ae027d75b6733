package bundle

import (
	"bytes"
	"reflect"
	"strings"
	"testing"
	"time"

	"brevium/core/brief"
	"brevium/core/record"
)

var now = time.Date(2026, 11, 20, 10, 0, 0, 0, time.UTC)

func few() []Box {
	tin, tray := brief.New("mm"), brief.New("in")
	tin.Name, tray.Name = "Round tea tin", "../../etc/Écheveau & co."
	m := record.Of(tin, now)
	m.Key, m.Whom, m.Times = "k1", "Wren", map[string]float64{"Trim": 3}
	return []Box{{Brief: tin, Picture: []byte("<svg/>"), Slip: []byte("%PDF"), Folders: []string{"Autumn fair"},
		Makings: []Making{{Making: m, Photos: []Photo{{Says: "done", Data: []byte("jpeg")}}}}}, {Brief: tray}}
}

func written(t testing.TB, boxes []Box) []byte {
	t.Helper()
	var out bytes.Buffer
	if err := Write(&out, boxes, now); err != nil {
		t.Fatal(err)
	}
	return out.Bytes()
}

func read(data []byte) (*Bundle, error) { return Read(bytes.NewReader(data), int64(len(data))) }

// What is written is read as it was, but for pictures and slips, which are for people.
func TestThereAndBack(t *testing.T) {
	boxes := few()
	read, err := read(written(t, boxes))
	if err != nil {
		t.Fatal(err)
	}
	got := read.Boxes
	boxes[0].Picture, boxes[0].Slip = nil, nil
	if photo := &got[0].Makings[0].Photos[0]; photo.File == "" || photo.Data != nil {
		t.Errorf("%+v is read before it is wanted", photo)
	} else if photo.Data, err = read.Picture(photo.File); err != nil {
		t.Error(err)
	} else {
		photo.File = ""
	}
	for i := range boxes {
		if string(got[i].Brief.Encode()) != string(boxes[i].Brief.Encode()) || !reflect.DeepEqual(got[i].Folders, boxes[i].Folders) ||
			!reflect.DeepEqual(got[i].Makings, boxes[i].Makings) {
			t.Errorf("%+v\ncame back as\n%+v", boxes[i], got[i])
		}
	}
	if a, b := written(t, few()), written(t, few()); !bytes.Equal(a, b) {
		t.Error("the same boxes give other bytes")
	}
	if strings.Contains(string(written(t, few())), "..") {
		t.Error("a name leads out of the folder it is unpacked in")
	}
}

// Whatever comes is read whole or refused in words; it never panics.
func FuzzRead(f *testing.F) {
	f.Add(written(f, few()))
	f.Add([]byte("PK\x05\x06" + strings.Repeat("\x00", 18)))
	f.Fuzz(func(t *testing.T, data []byte) {
		got, err := read(data)
		if (err == nil) == (got == nil || len(got.Boxes) == 0) || err != nil && err.Error() == "" {
			t.Fatalf("%+v, %v", got, err)
		}
		if err != nil {
			return
		}
		for _, b := range got.Boxes {
			if err := b.Brief.Check(); err != nil {
				t.Error(err)
			}
		}
	})
}
