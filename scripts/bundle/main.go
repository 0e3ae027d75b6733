// Command bundle makes web/static/brevium.js anew. Run it after a change in web/script; a test tells when it was not.
package main

import (
	"log"
	"os"

	"brevium/internal/bundled"
)

func main() {
	script, err := bundled.Script(".")
	if err == nil {
		err = os.WriteFile(bundled.File, script, 0o644)
	}
	if err != nil {
		log.Fatal(err)
	}
}
