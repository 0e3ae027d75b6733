//go:build !windows && !darwin

package desktop

const folder = "brevium"

func earlier() []string { return nil }
