//go:build !windows

package desktop

// pluggedIn names a disk that was plugged in: by where desktops and Macs mount them.
func pluggedIn(at string) (name string, ok bool) {
	return under(at, "/media", "/run/media", "/mnt", "/Volumes")
}
