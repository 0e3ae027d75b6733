package main

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"image"
	"image/png"
	"os"
	"strconv"
	"strings"

	"github.com/tc-hib/winres"
	"github.com/tc-hib/winres/version"
	"golang.org/x/image/draw"
)

// icon512 is the largest icon, as it lies among the pages.
func icon512() []byte {
	data, err := os.ReadFile("web/static/icon-512.png")
	if err != nil {
		panic(err) // the program was built from the same folder
	}
	return data
}

// iconOf draws it smaller.
func iconOf(size int) (image.Image, error) {
	from, err := png.Decode(bytes.NewReader(icon512()))
	if err != nil {
		return nil, err
	}
	to := image.NewNRGBA(image.Rect(0, 0, size, size))
	draw.CatmullRom.Scale(to, to.Bounds(), from, from.Bounds(), draw.Src, nil)
	return to, nil
}

// icns is the icon as a Mac reads it: pictures by their sizes, each with a name of four letters and its length.
func icns() ([]byte, error) {
	var body bytes.Buffer
	for _, one := range []struct {
		name string
		size int
	}{{"icp4", 16}, {"icp5", 32}, {"ic07", 128}, {"ic08", 256}, {"ic09", 512}} {
		img, err := iconOf(one.size)
		if err != nil {
			return nil, err
		}
		var b bytes.Buffer
		if err := png.Encode(&b, img); err != nil {
			return nil, err
		}
		body.WriteString(one.name)
		_ = binary.Write(&body, binary.BigEndian, uint32(b.Len()+8))
		body.Write(b.Bytes())
	}
	out := binary.BigEndian.AppendUint32([]byte("icns"), uint32(body.Len()+8))
	return append(out, body.Bytes()...), nil
}

// resourceFile is what go build links into the program for Windows, as long as it lies there.
const resourceFile = "cmd/brevium/brevium_windows_amd64.syso"

// resources writes the icon and the version for Windows, and gives what takes them away again.
func (r *release) resources() (take func(), err error) {
	var images []image.Image
	for _, size := range []int{16, 24, 32, 48, 64, 256} {
		img, err := iconOf(size)
		if err != nil {
			return nil, err
		}
		images = append(images, img)
	}
	icon, err := winres.NewIconFromImages(images)
	if err != nil {
		return nil, err
	}
	set := winres.ResourceSet{}
	if err := set.SetIcon(winres.Name("APP"), icon); err != nil {
		return nil, err
	}
	set.SetManifest(winres.AppManifest{ExecutionLevel: winres.AsInvoker, DPIAwareness: winres.DPIPerMonitorV2,
		LongPathAware: true})
	info := version.Info{}
	for i, part := range strings.Split(r.version, ".") {
		n, err := strconv.ParseUint(part, 10, 16)
		if err != nil {
			return nil, fmt.Errorf("a number of the version is too large: %w", err)
		}
		info.FileVersion[i], info.ProductVersion[i] = uint16(n), uint16(n)
	}
	for _, pair := range [][2]string{{version.ProductName, "Brevium"}, {version.FileDescription, "Brevium: card boxes"},
		{version.ProductVersion, r.version}, {version.FileVersion, r.version}, {version.OriginalFilename, "brevium.exe"}} {
		if err := info.Set(version.LangDefault, pair[0], pair[1]); err != nil {
			return nil, err
		}
	}
	set.SetVersionInfo(info)
	file, err := os.Create(resourceFile)
	if err != nil {
		return nil, err
	}
	defer file.Close()
	if err := set.WriteObject(file, winres.ArchAMD64); err != nil {
		return nil, err
	}
	return func() { os.Remove(resourceFile) }, nil
}
