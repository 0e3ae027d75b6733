package photo

import (
	"bytes"
	"encoding/binary"
	"image"
)

// orientation reads from a JPEG which way the camera was held, as Exif 2.3 numbers it (4.6.4, tag 0x0112): 1 is upright.
// What can't be read is upright.
func orientation(data []byte) int {
	for at := 2; at+4 <= len(data) && data[at] == 0xff; {
		marker, size := data[at+1], int(binary.BigEndian.Uint16(data[at+2:]))
		if at+2+size > len(data) || marker == 0xda { // from here on it is the picture
			break
		}
		if body, ok := bytes.CutPrefix(data[at+4:at+2+max(size, 2)], []byte("Exif\x00\x00")); ok && marker == 0xe1 {
			return tagged(body)
		}
		at += 2 + size
	}
	return 1
}

func tagged(tiff []byte) int {
	if len(tiff) < 8 {
		return 1
	}
	var order binary.ByteOrder = binary.LittleEndian
	if tiff[0] == 'M' {
		order = binary.BigEndian
	}
	at := int(order.Uint32(tiff[4:]))
	if at < 8 || at+2 > len(tiff) {
		return 1
	}
	for n := int(order.Uint16(tiff[at:])); n > 0 && at+14 <= len(tiff); n, at = n-1, at+12 {
		if is := int(order.Uint16(tiff[at+10:])); order.Uint16(tiff[at+2:]) == 0x0112 && is >= 1 && is <= 8 {
			return is
		}
	}
	return 1
}

// upright turns a picture as the camera was held.
func upright(m *image.RGBA, held int) *image.RGBA {
	w, h := m.Bounds().Dx(), m.Bounds().Dy()
	from := map[int]func(x, y int) (int, int){ // where the pixel comes from
		2: func(x, y int) (int, int) { return w - 1 - x, y },
		3: func(x, y int) (int, int) { return w - 1 - x, h - 1 - y },
		4: func(x, y int) (int, int) { return x, h - 1 - y },
		5: func(x, y int) (int, int) { return y, x },
		6: func(x, y int) (int, int) { return y, h - 1 - x },
		7: func(x, y int) (int, int) { return w - 1 - y, h - 1 - x },
		8: func(x, y int) (int, int) { return w - 1 - y, x },
	}[held]
	if from == nil {
		return m
	}
	size := image.Pt(w, h)
	if held >= 5 {
		size = image.Pt(h, w)
	}
	out := image.NewRGBA(image.Rectangle{Max: size})
	for y := range size.Y {
		for x := range size.X {
			out.SetRGBA(x, y, m.RGBAAt(from(x, y)))
		}
	}
	return out
}
