package photo

import (
	"bytes"
	"encoding/binary"
	"hash/crc32"
	"image"
	"image/color"
	"image/gif"
	"image/jpeg"
	"image/png"
	"strings"
	"testing"
)

// halves is a picture whose left half is red and whose right half is blue.
func halves(w, h int) *image.NRGBA {
	m := image.NewNRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			c := color.NRGBA{200, 20, 20, 255}
			if x >= w/2 {
				c = color.NRGBA{20, 20, 200, 255}
			}
			m.Set(x, y, c)
		}
	}
	return m
}

func jpegOf(m image.Image) []byte {
	var b bytes.Buffer
	jpeg.Encode(&b, m, nil)
	return b.Bytes()
}

// turned sets in a JPEG which way the camera was held.
func turned(data []byte, orientation uint16) []byte {
	exif := []byte("Exif\x00\x00MM\x00\x2a\x00\x00\x00\x08\x00\x01\x01\x12\x00\x03\x00\x00\x00\x01")
	exif = binary.BigEndian.AppendUint16(exif, orientation)
	exif = append(exif, 0, 0, 0, 0, 0, 0)
	app := append([]byte{0xff, 0xe1, 0, byte(len(exif) + 2)}, exif...)
	return append(append(bytes.Clone(data[:2]), app...), data[2:]...)
}

func TestTake(t *testing.T) {
	p, err := Take(jpegOf(halves(3000, 2000)))
	if err != nil || p.Width != Large || p.Height != 1066 {
		t.Fatal(p.Width, p.Height, err)
	}
	small, _, err := image.DecodeConfig(bytes.NewReader(p.Small))
	if err != nil || small.Width != Small {
		t.Errorf("%+v %v", small, err)
	}
	// A camera that was held upright: red comes to the top, and the file says nothing of a camera.
	p, err = Take(turned(jpegOf(halves(300, 200)), 6))
	if err != nil || p.Width != 200 || p.Height != 300 || bytes.Contains(p.Large, []byte("Exif")) {
		t.Fatal(p.Width, p.Height, err)
	}
	m, _ := jpeg.Decode(bytes.NewReader(p.Large))
	if r, _, b, _ := m.At(100, 40).RGBA(); r < b {
		t.Error("it is not the right way up")
	}
	// What can be seen through is white.
	var clear bytes.Buffer
	png.Encode(&clear, image.NewNRGBA(image.Rect(0, 0, 20, 20)))
	p, err = Take(clear.Bytes())
	if err != nil || p.Width != 20 {
		t.Fatal(p.Width, err)
	}
	m, _ = jpeg.Decode(bytes.NewReader(p.Large))
	if r, g, b, _ := m.At(9, 9).RGBA(); min(r, g, b) < 0xf000 {
		t.Error("what can be seen through is not white")
	}
}

// huge is the head of a PNG of so many pixels each way, and nothing else.
func huge(side uint32) []byte { return head(side, side) }

func head(wide, high uint32) []byte {
	var b bytes.Buffer
	png.Encode(&b, image.NewGray(image.Rect(0, 0, 1, 1)))
	out := b.Bytes()
	binary.BigEndian.PutUint32(out[16:], wide)
	binary.BigEndian.PutUint32(out[20:], high)
	binary.BigEndian.PutUint32(out[29:], crc32.ChecksumIEEE(out[12:29]))
	return out
}

func TestRefused(t *testing.T) {
	whole := jpegOf(halves(200, 200))
	var moving bytes.Buffer
	gif.Encode(&moving, halves(20, 20), nil)
	for name, c := range map[string]struct {
		data []byte
		says string
	}{
		"nothing":      {nil, "JPEG or PNG"},
		"a text":       {[]byte("not a picture at all"), "JPEG or PNG"},
		"a GIF":        {moving.Bytes(), "JPEG or PNG"},
		"half of one":  {whole[:len(whole)/2], "damaged"},
		"200 million":  {huge(14143), "200 million pixels"},
		"far too wide": {huge(25_000), "25000 × 25000 pixels; no side may be longer than 20000"},
		"a hair":       {head(1, 60_000), "1 × 60000 pixels; no side may be longer than 20000"},
		"30 MB":        {make([]byte, 30<<20), "larger than 25 MB"},
	} {
		if _, err := Take(c.data); err == nil || !strings.Contains(err.Error(), c.says) {
			t.Errorf("%s: %v", name, err)
		}
	}
}

func FuzzTake(f *testing.F) {
	f.Add(jpegOf(halves(20, 10)))
	f.Add(huge(3))
	f.Fuzz(func(t *testing.T, data []byte) {
		if p, err := Take(data); err == nil && (max(p.Width, p.Height) > Large || len(p.Large) == 0) {
			t.Error(p.Width, p.Height)
		}
	})
}

// Each way a camera can be held brings the corners where they were seen.
func TestUpright(t *testing.T) {
	m := image.NewRGBA(image.Rect(0, 0, 3, 2))
	first, second := color.RGBA{255, 0, 0, 255}, color.RGBA{0, 0, 255, 255}
	m.SetRGBA(0, 0, first)
	m.SetRGBA(2, 0, second)
	for held, want := range []string{"", "tl tr", "tr tl", "br bl", "bl br", "tl bl", "tr br", "br tr", "bl tl"} {
		if held == 0 {
			continue
		}
		out := upright(m, held)
		w, h := out.Bounds().Dx(), out.Bounds().Dy()
		at := map[color.RGBA]string{}
		for name, p := range map[string]image.Point{"tl": {0, 0}, "tr": {w - 1, 0}, "bl": {0, h - 1}, "br": {w - 1, h - 1}} {
			at[out.RGBAAt(p.X, p.Y)] = name
		}
		if got := at[first] + " " + at[second]; got != want || w*h != 6 || (w == 2) != (held >= 5) {
			t.Errorf("held %d: %s, want %s, of %d × %d", held, got, want, w, h)
		}
		if got := orientation(turned(jpegOf(m), uint16(held))); got != held {
			t.Errorf("held %d is read as %d", held, got)
		}
	}
}
