package export

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"sync"

	"github.com/pdfcpu/pdfcpu/pkg/api"
	"github.com/pdfcpu/pdfcpu/pkg/pdfcpu/model"
	"github.com/pdfcpu/pdfcpu/pkg/pdfcpu/types"
)

// A PDF is tagged when it says what each part of its pages is, in the order it is read: for
// who has it read out, or reads it in another width.

// plain is a configuration that reads and writes nothing but the file.
var plain = sync.OnceValue(func() *model.Configuration {
	api.DisableConfigDir()
	c := model.NewDefaultConfiguration()
	c.WriteObjectStream, c.WriteXRefStream = true, true
	return c
})

// tag adds the structure of what was marked while the pages were written, and the title, which
// may have letters of any script.
func tag(pdf []byte, title string, marks []tagged) ([]byte, error) {
	conf := *plain()
	ctx, err := api.ReadAndValidate(bytes.NewReader(pdf), &conf)
	if err != nil {
		return nil, fmt.Errorf("the PDF could not be read again: %w", err)
	}
	info, err := ctx.DereferenceDict(*ctx.Info)
	if err != nil {
		return nil, fmt.Errorf("the PDF's title could not be written: %w", err)
	}
	info["Title"] = types.NewHexLiteral([]byte(types.EncodeUTF16String(title)))
	if err := structure(ctx, marks); err != nil {
		return nil, fmt.Errorf("the PDF could not be tagged: %w", err)
	}
	var out bytes.Buffer
	if err := api.WriteContext(ctx, &out); err != nil {
		return nil, fmt.Errorf("the PDF could not be written: %w", err)
	}
	return out.Bytes(), nil
}

func structure(ctx *model.Context, marks []tagged) error {
	root, err := ctx.IndRefForNewObject(types.Dict{"Type": types.Name("StructTreeRoot")})
	if err != nil {
		return err
	}
	document, err := ctx.IndRefForNewObject(types.Dict{"Type": types.Name("StructElem"), "S": types.Name("Document"), "P": *root})
	if err != nil {
		return err
	}
	all, parents := types.Array{}, make([]types.Array, ctx.PageCount)
	pages := make([]*types.IndirectRef, ctx.PageCount)
	for i := range pages {
		dict, ref, _, err := ctx.PageDict(i+1, false)
		if err != nil {
			return err
		}
		dict["StructParents"], dict["Tabs"] = types.Integer(i), types.Name("S")
		pages[i] = ref
	}
	for _, m := range marks {
		elem := types.Dict{"Type": types.Name("StructElem"), "S": types.Name(m.tag), "P": *document, "Pg": *pages[m.page-1],
			"K": types.Integer(m.id)}
		if m.alt != "" {
			elem["Alt"] = types.NewHexLiteral([]byte(types.EncodeUTF16String(m.alt)))
		}
		ref, err := ctx.IndRefForNewObject(elem)
		if err != nil {
			return err
		}
		all, parents[m.page-1] = append(all, *ref), append(parents[m.page-1], *ref)
	}
	nums := types.Array{}
	for i, of := range parents {
		nums = append(nums, types.Integer(i), of)
	}
	d, err := ctx.DereferenceDict(*document)
	if err != nil {
		return err
	}
	d["K"] = all
	r, err := ctx.DereferenceDict(*root)
	if err != nil {
		return err
	}
	r["K"], r["ParentTree"], r["ParentTreeNextKey"] = *document, types.Dict{"Nums": nums}, types.Integer(len(parents))
	ctx.RootDict["StructTreeRoot"], ctx.RootDict["MarkInfo"] = *root, types.Dict{"Marked": types.Boolean(true)}
	ctx.RootDict["ViewerPreferences"] = types.Dict{"DisplayDocTitle": types.Boolean(true),
		"PrintScaling": types.Name("None")} // a viewer that heeds it offers 100 %
	return nil
}

// readLetters reads which letters a font has, from the table that maps them (format 4).
func readLetters(font []byte) map[rune]bool {
	out := map[rune]bool{}
	u16 := func(at int) int { return int(binary.BigEndian.Uint16(font[at:])) }
	u32 := func(at int) int { return int(binary.BigEndian.Uint32(font[at:])) }
	for i := range u16(4) {
		if string(font[12+16*i:16+16*i]) != "cmap" {
			continue
		}
		cmap := u32(12 + 16*i + 8)
		for k := range u16(cmap + 2) {
			t := cmap + u32(cmap+4+8*k+4)
			if u16(t) != 4 {
				continue
			}
			segments := u16(t+6) / 2
			for s := range segments {
				end, start := u16(t+14+2*s), u16(t+16+2*segments+2*s)
				for c := start; c <= end && c != 0xffff; c++ {
					out[rune(c)] = true
				}
			}
		}
	}
	return out
}
