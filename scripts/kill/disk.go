package main

import (
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"syscall"
	"time"
)

// place is where the database lies: what is there after the plug was pulled is looked at.
type place interface {
	path() string
	pull(process)                                       // ends the program
	after() (file string, done func() error, err error) // the database as it is found then
}

// folder is a place where only the program is killed.
type folder string

func (f folder) path() string   { return string(f) }
func (f folder) pull(p process) { _ = p.cmd.Process.Kill() }

func (f folder) after() (string, func() error, error) {
	return filepath.Join(string(f), "kill.db"), func() error { return nil }, nil
}

// disk is a small disk in a file. When the machine crashes, it is as its file is: what only stood in memory is not in it.
type disk struct{ image, at, crashed string }

func newDisk(dir string) (*disk, error) {
	d := &disk{filepath.Join(dir, "disk"), filepath.Join(dir, "mounted"), filepath.Join(dir, "crashed")}
	f, err := os.Create(d.image)
	if err != nil {
		return nil, err
	}
	if err := f.Truncate(96 << 20); err != nil {
		return nil, err
	}
	f.Close()
	for _, at := range []string{d.at, d.crashed + ".at"} {
		if err := os.Mkdir(at, 0o700); err != nil {
			return nil, err
		}
	}
	if err := run("mkfs.ext4", "-q", "-F", d.image); err != nil {
		return nil, err
	}
	return d, run("mount", "-o", "loop", d.image, d.at)
}

func run(name string, args ...string) error {
	if out, err := exec.Command(name, args...).CombinedOutput(); err != nil {
		return fmt.Errorf("%s: %w: %s", name, err, out)
	}
	return nil
}

func (d *disk) path() string { return d.at }

// pull stops the program where it stands, and takes the disk as it is at that moment; then it kills it.
func (d *disk) pull(p process) {
	check(p.cmd.Process.Signal(syscall.SIGSTOP))
	time.Sleep(20 * time.Millisecond) // what was being brought to the disk comes to its end there
	in, err := os.Open(d.image)
	check(err)
	defer in.Close()
	out, err := os.Create(d.crashed)
	check(err)
	_, err = io.Copy(out, in)
	check(err)
	check(out.Close())
	check(p.cmd.Process.Kill())
}

// after starts the machine again: with the disk that was there when it crashed.
func (d *disk) after() (string, func() error, error) {
	if err := run("umount", d.at); err != nil {
		return "", nil, err
	}
	if err := os.Rename(d.crashed, d.image); err != nil {
		return "", nil, err
	}
	return filepath.Join(d.at, "kill.db"), func() error { return nil }, run("mount", "-o", "loop", d.image, d.at)
}

func (d *disk) remove() { _ = run("umount", d.at) }
