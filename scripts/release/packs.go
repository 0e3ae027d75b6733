package main

import (
	"archive/tar"
	"archive/zip"
	"bytes"
	"compress/gzip"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
)

// entry is a file of an archive.
type entry struct {
	name string
	data []byte
	runs bool
}

func (e entry) mode() os.FileMode {
	if e.runs {
		return 0o755
	}
	return 0o644
}

// texts are the files that lie beside every program.
func (r *release) texts(in string) []entry {
	return []entry{{in + "LICENCES.txt", []byte(r.licences), false}, {in + "CONTENTS.md", []byte(r.contents), false}}
}

// zip packs files for systems that open a zip with a press.
func (r *release) zip(name string, all []entry) error {
	var b bytes.Buffer
	z := zip.NewWriter(&b)
	for _, e := range all {
		h := &zip.FileHeader{Name: e.name, Method: zip.Deflate, Modified: r.when}
		h.SetMode(e.mode())
		w, err := z.CreateHeader(h)
		if err == nil {
			_, err = w.Write(e.data)
		}
		if err != nil {
			return err
		}
	}
	if err := z.Close(); err != nil {
		return err
	}
	return r.write(name, b.Bytes())
}

func (r *release) windows(t target, program string) error {
	data, err := os.ReadFile(program)
	if err != nil {
		return err
	}
	return r.zip(fmt.Sprintf("brevium-%s-windows-%s.zip", r.version, t.arch),
		append([]entry{{"brevium.exe", data, true}}, r.texts("")...))
}

// tar packs the program for any Linux.
func (r *release) tar(t target, program string) error {
	data, err := os.ReadFile(program)
	if err != nil {
		return err
	}
	in := fmt.Sprintf("brevium-%s/", r.version)
	all := append([]entry{{in + "brevium", data, true}, {in + "brevium.desktop", []byte(menu), false},
		{in + "brevium.png", icon512(), false}}, r.texts(in)...)
	var b bytes.Buffer
	packed, _ := gzip.NewWriterLevel(&b, gzip.BestCompression)
	w := tar.NewWriter(packed)
	for _, e := range all {
		if err := w.WriteHeader(&tar.Header{Name: e.name, Mode: int64(e.mode()), Size: int64(len(e.data)), ModTime: r.when,
			Format: tar.FormatPAX}); err != nil {
			return err
		}
		if _, err := w.Write(e.data); err != nil {
			return err
		}
	}
	if err := w.Close(); err != nil {
		return err
	}
	if err := packed.Close(); err != nil {
		return err
	}
	return r.write(fmt.Sprintf("brevium-%s-linux-%s.tar.gz", r.version, t.arch), b.Bytes())
}

// menu is the entry in a desktop's menu.
const menu = `[Desktop Entry]
Type=Application
Name=Brevium
GenericName=Card boxes
Comment=Design card boxes around what goes into them
Exec=brevium
Icon=brevium
Terminal=false
Categories=Graphics;Education;
Keywords=box;card;paper;craft;gift;
StartupNotify=true
`

// deb packs the program as Debian's family installs it: with its entry in the menu, its icon, and nothing that runs
// when it is installed or removed. Her boxes are in her own folder; no package touches them.
func (r *release) deb(t target, program string) error {
	root := filepath.Join(r.work, "deb-"+t.arch)
	data, err := os.ReadFile(program)
	if err != nil {
		return err
	}
	svg, err := os.ReadFile("web/static/icon.svg")
	if err != nil {
		return err
	}
	control := fmt.Sprintf(`Package: brevium
Version: %s
Architecture: %s
Maintainer: The makers of Brevium <makers@brevium.invalid>
Installed-Size: %d
Section: graphics
Priority: optional
Recommends: xdg-utils, www-browser
Description: design card boxes around what goes into them
 Type what goes in, and Brevium plans the box: base, lid, scores, compartments,
 sheets and every step at the bench. It runs in your own browser and keeps
 everything on your own computer.
`, r.version, t.arch, (len(data)+1023)/1024)
	all := []entry{{"DEBIAN/control", []byte(control), false}, {"usr/bin/brevium", data, true},
		{"usr/share/applications/brevium.desktop", []byte(menu), false},
		{"usr/share/icons/hicolor/scalable/apps/brevium.svg", svg, false},
		{"usr/share/icons/hicolor/512x512/apps/brevium.png", icon512(), false},
		{"usr/share/doc/brevium/copyright", []byte(r.licences), false},
		{"usr/share/doc/brevium/CONTENTS.md", []byte(r.contents), false}}
	for _, e := range all {
		at := filepath.Join(root, e.name)
		if err := os.MkdirAll(filepath.Dir(at), 0o755); err != nil {
			return err
		}
		if err := os.WriteFile(at, e.data, e.mode()); err != nil {
			return err
		}
		if err := os.Chmod(at, e.mode()); err != nil { // whatever the builder's own mask is
			return err
		}
	}
	if err := filepath.WalkDir(root, func(at string, d os.DirEntry, err error) error {
		if err == nil && d.IsDir() {
			err = os.Chmod(at, 0o755)
		}
		if err != nil {
			return err
		}
		return os.Chtimes(at, r.when, r.when)
	}); err != nil {
		return err
	}
	name := fmt.Sprintf("brevium_%s_%s.deb", r.version, t.arch)
	cmd := exec.Command("dpkg-deb", "--root-owner-group", "-Zxz", "--build", root, filepath.Join(r.out, name))
	cmd.Env = append(os.Environ(), fmt.Sprintf("SOURCE_DATE_EPOCH=%d", r.when.Unix()))
	if out, err := cmd.CombinedOutput(); err != nil {
		return fmt.Errorf("dpkg-deb: %w: %s", err, out)
	}
	r.made = append(r.made, name)
	return nil
}

// mac packs the program as an application that a Mac shows with its icon.
func (r *release) mac(t target, program string) error {
	data, err := os.ReadFile(program)
	if err != nil {
		return err
	}
	icns, err := icns()
	if err != nil {
		return err
	}
	plist := fmt.Sprintf(`<?xml version="1.0" encoding="UTF-8"?>
<!DOCTYPE plist PUBLIC "-//Apple//DTD PLIST 1.0//EN" "http://www.apple.com/DTDs/PropertyList-1.0.dtd">
<plist version="1.0">
<dict>
  <key>CFBundleName</key><string>Brevium</string>
  <key>CFBundleDisplayName</key><string>Brevium</string>
  <key>CFBundleIdentifier</key><string>invalid.brevium.brevium</string>
  <key>CFBundleExecutable</key><string>brevium</string>
  <key>CFBundleIconFile</key><string>brevium</string>
  <key>CFBundlePackageType</key><string>APPL</string>
  <key>CFBundleVersion</key><string>%[1]s</string>
  <key>CFBundleShortVersionString</key><string>%[1]s</string>
  <key>LSMinimumSystemVersion</key><string>12.0</string>
  <key>LSUIElement</key><true/>
  <key>NSHighResolutionCapable</key><true/>
</dict>
</plist>
`, r.version)
	const in = "Brevium.app/Contents/"
	return r.zip(fmt.Sprintf("brevium-%s-macos-%s.zip", r.version, t.arch),
		append([]entry{{in + "Info.plist", []byte(plist), false}, {in + "PkgInfo", []byte("APPL????"), false},
			{in + "MacOS/brevium", data, true}, {in + "Resources/brevium.icns", icns, false}}, r.texts(in+"Resources/")...))
}
