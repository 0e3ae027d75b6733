// Package photo takes in the pictures that people make of their boxes: JPEG or PNG, turned the
// right way up, scaled down, and written anew as JPEG, so that nothing of the file that came is
// kept: no place, no time, no make of a camera.
package photo

import (
	"bytes"
	"errors"
	"fmt"
	"image"
	"image/jpeg"

	// The formats that are taken in.
	_ "image/png"

	"golang.org/x/image/draw"
)

// What is taken in at the most, and how large it is kept.
const (
	MostBytes  = 25 << 20
	mostPixels = 60_000_000
	mostSide   = 20_000
	Large      = 1600
	Small      = 320
)

// Photo is a picture as it is kept.
type Photo struct {
	Width, Height int
	Large, Small  []byte // JPEG
}

// Take reads a picture. It looks at its size before it reads what is in it: one that would fill
// the memory is refused.
func Take(data []byte) (Photo, error) {
	var p Photo
	if len(data) > MostBytes {
		return p, fmt.Errorf("it is larger than %d MB", MostBytes>>20)
	}
	is, kind, err := image.DecodeConfig(bytes.NewReader(data))
	if err != nil || kind != "jpeg" && kind != "png" {
		return p, errors.New("it is no JPEG or PNG picture")
	}
	if is.Width < 1 || is.Height < 1 {
		return p, errors.New("there is nothing in it")
	}
	if is.Width > mostSide || is.Height > mostSide || is.Width*is.Height > mostPixels {
		return p, fmt.Errorf("it has %d million pixels; make it smaller than %d million first", is.Width*is.Height/1_000_000,
			mostPixels/1_000_000)
	}
	picture, _, err := image.Decode(bytes.NewReader(data))
	if err != nil {
		return p, errors.New("it is damaged: it can't be read to its end")
	}
	large := upright(fitted(picture, Large), orientation(data))
	p.Width, p.Height = large.Bounds().Dx(), large.Bounds().Dy()
	if p.Large, err = written(large, 84); err != nil {
		return p, err
	}
	p.Small, err = written(fitted(large, Small), 78)
	return p, err
}

// fitted scales a picture down until no side is longer than so many pixels, on white where it can be seen through.
func fitted(m image.Image, most int) *image.RGBA {
	w, h := m.Bounds().Dx(), m.Bounds().Dy()
	if longest := max(w, h); longest > most {
		w, h = max(1, w*most/longest), max(1, h*most/longest)
	}
	out := image.NewRGBA(image.Rect(0, 0, w, h))
	draw.Draw(out, out.Bounds(), image.White, image.Point{}, draw.Src)
	draw.CatmullRom.Scale(out, out.Bounds(), m, m.Bounds(), draw.Over, nil)
	return out
}

func written(m image.Image, quality int) ([]byte, error) {
	var out bytes.Buffer
	err := jpeg.Encode(&out, m, &jpeg.Options{Quality: quality})
	return out.Bytes(), err
}
