// Command release builds Brevium for those who don't have Go: one program for each system, packed as that system's
// people expect, with checksums and a list of all that is inside with its licences. The same commit gives the same bytes
// anywhere: no clock, folder or name of the builder goes in.
package main

import (
	"bytes"
	"crypto/sha256"
	"fmt"
	"log"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"time"
)

// target is a system that Brevium is built for.
type target struct{ os, arch string }

var targets = []target{{"linux", "amd64"}, {"linux", "arm64"}, {"windows", "amd64"}, {"darwin", "amd64"}, {"darwin", "arm64"}}

// release is one being built.
type release struct {
	version  string
	out      string // the folder that it is laid in
	work     string // for what comes between
	when     time.Time
	licences string // the texts of all licences
	contents string // what is in it
	made     []string
}

var versions = regexp.MustCompile(`^\d{1,5}\.\d{1,5}\.\d{1,5}$`)

func main() {
	log.SetFlags(0)
	if len(os.Args) < 2 || !versions.MatchString(os.Args[1]) {
		log.Fatal("usage: ./release VERSION [FOLDER], as in ./release 1.4.0")
	}
	r := release{version: os.Args[1], out: "dist"}
	if len(os.Args) > 2 {
		r.out = os.Args[2]
	}
	if err := r.build(); err != nil {
		log.Fatal(err)
	}
	for _, name := range r.made {
		if info, err := os.Stat(filepath.Join(r.out, name)); err == nil {
			fmt.Printf("%6.1f MB  %s\n", float64(info.Size())/1e6, name)
		}
	}
}

func (r *release) build() (err error) {
	if r.when, err = committed(); err != nil {
		return err
	}
	if r.work, err = os.MkdirTemp("", "brevium-release-"); err != nil {
		return err
	}
	defer os.RemoveAll(r.work)
	if err := os.MkdirAll(r.out, 0o755); err != nil {
		return err
	}
	if r.licences, r.contents, err = inside(r.version); err != nil {
		return err
	}
	take, err := r.resources()
	if err != nil {
		return err
	}
	defer take()
	for _, t := range targets {
		program, err := r.program(t)
		if err == nil {
			err = r.pack(t, program)
		}
		if err != nil {
			return fmt.Errorf("%s on %s: %w", t.os, t.arch, err)
		}
	}
	if err := r.write("CONTENTS.md", []byte(r.contents)); err != nil {
		return err
	}
	return r.sums()
}

// committed is when the commit was made that is built: the time of all files.
func committed() (time.Time, error) {
	out, err := exec.Command("git", "log", "-1", "--format=%ct").Output()
	if err != nil {
		return time.Time{}, fmt.Errorf("git doesn't say when this was committed: %w", err)
	}
	seconds, err := strconv.ParseInt(strings.TrimSpace(string(out)), 10, 64)
	return time.Unix(seconds, 0).UTC(), err
}

// program builds Brevium for a system, without a C compiler, and gives its file.
func (r *release) program(t target) (string, error) {
	file := filepath.Join(r.work, t.os+"-"+t.arch, "brevium")
	if t.os == "windows" {
		file += ".exe"
	}
	flags := "-s -w -buildid= -X brevium/desktop.Version=" + r.version + " -X brevium/desktop.made=" + r.when.Format(time.DateOnly)
	cmd := exec.Command("go", "build", "-trimpath", "-buildvcs=false", "-ldflags", flags, "-o", file, "./cmd/brevium")
	cmd.Env = append(os.Environ(), "CGO_ENABLED=0", "GOOS="+t.os, "GOARCH="+t.arch, "GOFLAGS=", "GOAMD64=v1", "GOARM64=v8.0")
	cmd.Stderr = os.Stderr
	return file, cmd.Run()
}

func (r *release) pack(t target, program string) error {
	switch t.os {
	case "windows":
		return r.windows(t, program)
	case "darwin":
		return r.mac(t, program)
	}
	if err := r.tar(t, program); err != nil {
		return err
	}
	return r.deb(t, program)
}

// write lays a finished file in the folder.
func (r *release) write(name string, data []byte) error {
	r.made = append(r.made, name)
	return os.WriteFile(filepath.Join(r.out, name), data, 0o644)
}

// sums writes the checksums of all files, as sha256sum -c reads them.
func (r *release) sums() error {
	var b bytes.Buffer
	for _, name := range r.made {
		data, err := os.ReadFile(filepath.Join(r.out, name))
		if err != nil {
			return err
		}
		fmt.Fprintf(&b, "%x  %s\n", sha256.Sum256(data), name)
	}
	return r.write("SHA256SUMS", b.Bytes())
}
