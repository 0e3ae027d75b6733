package main

import (
	// Opened by its icon, Brevium shows no window with a terminal; in one, it stays there.
	_ "github.com/ebitengine/hideconsole"
)
