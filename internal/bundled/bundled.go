// Package bundled puts the page's script together: what others wrote and our own modules, in one file, so that a page
// asks for it once.
package bundled

import (
	"bytes"
	"fmt"
	"os"
	"path/filepath"

	"github.com/evanw/esbuild/pkg/api"
)

// File is where it lies, from the root of the repository.
const File = "web/static/brevium.js"

// Script makes it from the sources below root. Our modules stand before the script that reads the page's attributes:
// they say what those attributes mean.
func Script(root string) ([]byte, error) {
	own := api.Build(api.BuildOptions{EntryPoints: []string{filepath.Join(root, "web/script/app.js")}, Bundle: true,
		Format: api.FormatIIFE, MinifyWhitespace: true, MinifySyntax: true, MinifyIdentifiers: true, Target: api.ES2022,
		LegalComments: api.LegalCommentsNone, Charset: api.CharsetUTF8})
	if len(own.Errors) > 0 {
		at := own.Errors[0]
		return nil, fmt.Errorf("web/script: %s (%+v)", at.Text, at.Location)
	}
	var out bytes.Buffer
	for _, name := range []string{"htmx", "idiomorph", "", "alpine-csp"} {
		part := own.OutputFiles[0].Contents
		if name != "" {
			var err error
			if part, err = os.ReadFile(filepath.Join(root, "web/static/vendor", name+".min.js")); err != nil {
				return nil, err
			}
		}
		out.Write(bytes.TrimSpace(part))
		out.WriteString("\n;\n")
	}
	return out.Bytes(), nil
}
