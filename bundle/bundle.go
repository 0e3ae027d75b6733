// Package bundle is boxes handed on together: a zip with each box's document, its picture and its
// instruction slip, and on demand the times it was made with their photos. It opens with any
// program that opens a zip; Brevium takes it in whole, or not at all.
package bundle

import (
	"archive/zip"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"path"
	"slices"
	"strings"
	"time"

	"brevium/core/brief"
	"brevium/core/record"
	"brevium/store"
)

// Version is the form of bundle that this program writes.
const Version = 1

// What is taken in at the most.
const (
	MostBytes   = 96 << 20 // packed
	mostOpen    = 256 << 20
	MostFiles   = 6000
	MostBoxes   = 500
	MostMakings = 5000
	mostPicture = 12 << 20
	MostPixels  = 2_000_000_000 // of all pictures together, each counted once
	MostKept    = 256 << 20     // of all pictures as they are kept
	contents    = "bundle.json"
	wasDocument = "document.json" // what “everything as zip” once called the document in it
)

// Box is one box of a bundle.
type Box struct {
	Brief   brief.Brief
	Picture []byte // SVG; nil where there is no plan
	Slip    []byte // PDF
	Folders []string
	Makings []Making
}

// Making is one time it was made.
type Making struct {
	record.Making
	Photos []Photo
}

// Photo is a picture of a making: a JPEG. One that is read names the file it lies in.
type Photo struct {
	Says string
	Data []byte
	File string
}

// Bundle is a bundle that was read. Its pictures are read when they are wanted.
type Bundle struct {
	Boxes []Box
	from  *reader
}

// Picture gives what is in the file of a picture.
func (b *Bundle) Picture(file string) ([]byte, error) {
	b.from.left = mostPicture
	return b.from.open(file, mostPicture)
}

type jsonBundle struct {
	Bundle int       `json:"brevium-bundle"`
	Made   string    `json:"made"`
	Boxes  []jsonBox `json:"boxes"`
}

type jsonBox struct {
	Name     string       `json:"name"`
	Document string       `json:"document"`
	Picture  string       `json:"picture,omitempty"`
	Slip     string       `json:"slip,omitempty"`
	Folders  []string     `json:"folders,omitempty"`
	Makings  []jsonMaking `json:"makings,omitempty"`
}

type jsonMaking struct {
	record.Making
	Document string      `json:"document,omitempty"`
	Photos   []jsonPhoto `json:"photos-of-it,omitempty"`
}

type jsonPhoto struct {
	File string `json:"file"`
	Says string `json:"says,omitempty"`
}

// Write writes a bundle.
func Write(w io.Writer, boxes []Box, now time.Time) error {
	z := zip.NewWriter(w)
	list := jsonBundle{Bundle: Version, Made: now.Format(time.DateOnly), Boxes: []jsonBox{}}
	file := func(name string, data []byte) (string, error) {
		f, err := z.CreateHeader(&zip.FileHeader{Name: name, Method: zip.Deflate, Modified: now})
		if err == nil {
			_, err = f.Write(data)
		}
		return name, err
	}
	for i, b := range boxes {
		dir := fmt.Sprintf("%03d-%s/", i+1, slug(string(b.Brief.Name)))
		out, err := b.write(dir, file)
		if err != nil {
			return err
		}
		list.Boxes = append(list.Boxes, out)
	}
	data, err := json.MarshalIndent(list, "", "  ")
	if err != nil {
		return err
	}
	if _, err := file(contents, data); err != nil {
		return err
	}
	return z.Close()
}

func (b Box) write(dir string, file func(string, []byte) (string, error)) (out jsonBox, err error) {
	out = jsonBox{Name: string(b.Brief.Name), Folders: b.Folders}
	if out.Document, err = file(dir+"box.brevium.json", b.Brief.Encode()); err != nil {
		return out, err
	}
	if len(b.Picture) > 0 {
		if out.Picture, err = file(dir+"box.svg", b.Picture); err != nil {
			return out, err
		}
	}
	if len(b.Slip) > 0 {
		if out.Slip, err = file(dir+"slip.pdf", b.Slip); err != nil {
			return out, err
		}
	}
	for k, m := range b.Makings {
		j := jsonMaking{Making: m.Making}
		at := fmt.Sprintf("%smakings/%03d", dir, k+1)
		if m.Document != "" {
			if j.Document, err = file(at+".brevium.json", []byte(m.Document)); err != nil {
				return out, err
			}
		}
		for n, p := range m.Photos {
			name, err := file(fmt.Sprintf("%s-%d.jpg", at, n+1), p.Data)
			if err != nil {
				return out, err
			}
			j.Photos = append(j.Photos, jsonPhoto{name, p.Says})
		}
		out.Makings = append(out.Makings, j)
	}
	return out, nil
}

func slug(name string) string {
	out := strings.Map(func(r rune) rune {
		if r >= 'a' && r <= 'z' || r >= '0' && r <= '9' {
			return r
		}
		return '-'
	}, strings.ToLower(name))
	for strings.Contains(out, "--") {
		out = strings.ReplaceAll(out, "--", "-")
	}
	if out = strings.Trim(out, "-"); out == "" {
		out = "box"
	}
	return out[:min(len(out), 40)]
}

// reader opens the files of a bundle, as far as they may go: so many bytes are left for documents.
type reader struct {
	files map[string]*zip.File
	left  int64
}

// Read reads a bundle of so many bytes whole, but for its pictures. A zip without a list of contents is taken for its
// documents.
func Read(from io.ReaderAt, size int64) (*Bundle, error) {
	if size > MostBytes {
		return nil, fmt.Errorf("it is larger than %d MB", MostBytes>>20)
	}
	z, err := zip.NewReader(from, size)
	if err != nil {
		return nil, errors.New("it isn't a complete zip file")
	}
	if len(z.File) > MostFiles {
		return nil, fmt.Errorf("there are more than %d files in it", MostFiles)
	}
	r := &reader{files: map[string]*zip.File{}, left: mostOpen}
	var documents []string
	for _, f := range z.File {
		r.files[f.Name] = f
		if isDocument := strings.HasSuffix(f.Name, ".brevium.json") || f.Name == wasDocument; isDocument &&
			!strings.Contains(f.Name, "makings/") {
			documents = append(documents, f.Name)
		}
	}
	if r.files[contents] == nil {
		boxes, err := r.bare(documents)
		return &Bundle{boxes, r}, err
	}
	list, err := r.list()
	if err != nil {
		return nil, err
	}
	out := &Bundle{from: r}
	for _, b := range list.Boxes {
		box, err := r.box(b)
		if err != nil {
			return nil, fmt.Errorf("“%.40s”: %w", b.Name, err)
		}
		out.Boxes = append(out.Boxes, box)
	}
	return out, nil
}

func (r *reader) list() (list jsonBundle, err error) {
	data, err := r.open(contents, 8<<20)
	if err != nil {
		return list, err
	}
	if err := json.Unmarshal(data, &list); err != nil {
		return list, errors.New("its list of contents is damaged")
	}
	makings := 0
	for _, b := range list.Boxes {
		makings += len(b.Makings)
	}
	switch {
	case list.Bundle > Version:
		err = errors.New("a newer Brevium saved it. Open it with that one")
	case list.Bundle < 1:
		err = errors.New("it wasn't saved by Brevium")
	case len(list.Boxes) == 0:
		err = errors.New("there is no box in it")
	case len(list.Boxes) > MostBoxes || makings > MostMakings:
		err = fmt.Errorf("it holds %d boxes and %d logbook entries; the most is %d and %d", len(list.Boxes), makings, MostBoxes,
			MostMakings)
	}
	return list, err
}

// bare takes a zip of documents.
func (r *reader) bare(documents []string) (out []Box, err error) {
	if len(documents) == 0 || len(documents) > MostBoxes {
		return nil, errors.New("there is no box from Brevium in it")
	}
	slices.Sort(documents)
	for _, name := range documents {
		b, err := r.brief(name)
		if err != nil {
			return nil, fmt.Errorf("%.60s: %w", path.Base(name), err)
		}
		out = append(out, Box{Brief: b})
	}
	return out, nil
}

func (r *reader) open(name string, most int64) ([]byte, error) {
	f := r.files[name]
	if f == nil {
		return nil, fmt.Errorf("the file %.60q is missing", name)
	}
	in, err := f.Open()
	if err != nil {
		return nil, fmt.Errorf("the file %.60q can't be read", name)
	}
	defer in.Close()
	most = min(most, r.left)
	data, err := io.ReadAll(io.LimitReader(in, most+1))
	if err != nil {
		return nil, fmt.Errorf("the file %.60q is damaged", name)
	}
	if int64(len(data)) > most {
		return nil, fmt.Errorf("the file %.60q is too large", name)
	}
	r.left -= int64(len(data))
	return data, nil
}

func (r *reader) brief(name string) (brief.Brief, error) {
	data, err := r.open(name, brief.Limit)
	if err != nil {
		return brief.Brief{}, err
	}
	return brief.Decode(data)
}

func (r *reader) box(b jsonBox) (out Box, err error) {
	if out.Brief, err = r.brief(b.Document); err != nil {
		return out, err
	}
	for _, f := range b.Folders {
		name, err := store.FolderName(f)
		if err != nil {
			return out, err
		}
		out.Folders = append(out.Folders, name)
	}
	for _, j := range b.Makings {
		m := Making{Making: j.Making}
		if j.Document != "" {
			was, err := r.brief(j.Document)
			if err != nil {
				return out, err
			}
			m.Document = string(was.Encode())
		}
		if err := m.Check(); err != nil {
			return out, fmt.Errorf("a logbook entry of it: %w", err)
		}
		if len(j.Photos) > store.MostPhotos {
			return out, fmt.Errorf("a logbook entry of it has more than %d photos", store.MostPhotos)
		}
		for _, p := range j.Photos {
			if r.files[p.File] == nil {
				return out, fmt.Errorf("the file %.60q is missing", p.File)
			}
			m.Photos = append(m.Photos, Photo{Says: p.Says, File: p.File})
		}
		out.Makings = append(out.Makings, m)
	}
	return out, nil
}
