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
	MostPixels = 60_000_000
	MostSide   = 20_000
	Large      = 1600
	Small      = 320
)

// Photo is a picture as it is kept.
type Photo struct {
	Width, Height int
	Large, Small  []byte // JPEG
}

// Pixels is how many pixels a picture has, by its head alone; one that is too large to be taken, or none, is refused.
func Pixels(data []byte) (int, error) {
	is, kind, err := image.DecodeConfig(bytes.NewReader(data))
	switch {
	case err != nil || kind != "jpeg" && kind != "png":
		return 0, errors.New("it isn't a JPEG or PNG picture")
	case is.Width < 1 || is.Height < 1:
		return 0, errors.New("there is nothing in it")
	case is.Width > MostSide || is.Height > MostSide:
		return 0, fmt.Errorf("it is %d × %d pixels; no side may be longer than %d", is.Width, is.Height, MostSide)
	case is.Width*is.Height > MostPixels:
		return 0, fmt.Errorf("it has %d million pixels; make it smaller than %d million first", is.Width*is.Height/1_000_000,
			MostPixels/1_000_000)
	}
	return is.Width * is.Height, nil
}

// Take reads a picture. It looks at its size before it reads what is in it: one that would fill
// the memory is refused.
func Take(data []byte) (Photo, error) {
	var p Photo
	if len(data) > MostBytes {
		return p, fmt.Errorf("it is larger than %d MB", MostBytes>>20)
	}
	if _, err := Pixels(data); err != nil {
		return p, err
	}
	picture, _, err := image.Decode(bytes.NewReader(data))
	if err != nil {
		return p, errors.New("it is damaged")
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
