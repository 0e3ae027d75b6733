package desktop

import (
	"cmp"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"github.com/adrg/xdg"
	"github.com/shirou/gopsutil/v4/disk"
)

// Place is a folder that copies can be kept in: her documents, or what is plugged in.
type Place struct {
	Name string // as she knows it
	Dir  string
	Free uint64 // bytes, 0 when nobody knows
}

// Places lists where copies can be kept besides the disk that holds her boxes: sticks and other disks that she can
// write to, and her documents last.
func Places() (out []Place) {
	parts, _ := disk.Partitions(false)
	for _, p := range parts {
		if name, ok := pluggedIn(p.Mountpoint); ok && !slices.Contains(p.Opts, "ro") && writable(p.Mountpoint) {
			out = append(out, Place{Name: name, Dir: p.Mountpoint})
		}
	}
	slices.SortFunc(out, func(a, b Place) int { return cmp.Compare(a.Name, b.Name) })
	if docs := xdg.UserDirs.Documents; docs != "" && writable(docs) {
		out = append(out, Place{Name: filepath.Base(docs), Dir: docs})
	}
	for i := range out {
		if u, err := disk.Usage(out[i].Dir); err == nil {
			out[i].Free = u.Free
		}
	}
	return out
}

// Shelf is the folder of a place that holds Brevium's copies.
func (p Place) Shelf() string { return filepath.Join(p.Dir, "Brevium backups") }

// under gives the name of a disk that is mounted in one of some folders.
func under(at string, folders ...string) (name string, ok bool) {
	for _, f := range folders {
		if rest, ok := strings.CutPrefix(at, f+"/"); ok && rest != "" {
			return filepath.Base(rest), true
		}
	}
	return "", false
}

// writable reports whether files can be made in a folder.
func writable(dir string) bool {
	f, err := os.CreateTemp(dir, ".brevium-*")
	if err != nil {
		return false
	}
	f.Close()
	return os.Remove(f.Name()) == nil
}
