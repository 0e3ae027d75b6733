package main

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"github.com/spf13/cobra"

	"brevium/core/advice"
	"brevium/core/brief"
	"brevium/core/request"
	"brevium/core/sets"
	"brevium/export"
	"brevium/export/drawings"
)

func exportCommand() *cobra.Command {
	var as, out, paper, with string
	var both bool
	var what export.What
	c := &cobra.Command{
		Use: "export FILE", Short: "Write a box's files: to print, to cut, to share (- reads standard input)",
		Args: cobra.ExactArgs(1),
		Long: "Write one of a box's files: pdf (the project sheet), slip (instructions to put in the box), templates\n" +
			"(true to size), svg, dxf, hpgl, gcode (of one sheet) or zip (everything).\n\nExit 0 if the file is written, 1 if a " +
			"check fails (the file says so; hpgl and gcode\nare not written) or the box is impossible, 2 if the input or the " +
			"output can't be used.",
		RunE: func(c *cobra.Command, args []string) error {
			if !slices.Contains(export.As, as) {
				return fmt.Errorf("--as %q isn't a kind of file; choose %s", as, strings.Join(export.As, ", "))
			}
			if out == "" {
				return errors.New("say where to write the file with -o; - is standard output")
			}
			o := export.Options{Both: both, Shop: request.Default}
			if paper != "" {
				o.Paper = export.FormatOf(paper)
			}
			if !strings.EqualFold(o.Paper.ID, paper) {
				return fmt.Errorf("--paper %q is not known; choose a4 or letter", paper)
			}
			if with != "" {
				o.Parts = strings.Split(with, ",")
				for _, part := range o.Parts {
					if !slices.ContainsFunc(export.Parts, func(p export.Part) bool { return p.ID == part }) {
						return fmt.Errorf("--with %q isn't a part of the project sheet; choose from %s", part, partNames())
					}
				}
			}
			if err := fitting(as, what); err != nil {
				return err
			}
			b, err := document(c, args[0])
			if err != nil {
				return err
			}
			return exportTo(c.Context(), b, as, out, what, o, c.OutOrStdout(), c.ErrOrStderr())
		},
	}
	c.Flags().StringVar(&as, "as", "", "kind of file: "+strings.Join(export.As, ", "))
	c.Flags().StringVarP(&out, "output", "o", "", "where to write it; - is standard output")
	c.Flags().StringVar(&paper, "paper", "", "a4 or letter (default: letter for a box in inches, a4 for one in millimetres)")
	c.Flags().StringVar(&with, "with", "", "parts of the project sheet, separated by commas: "+partNames())
	c.Flags().BoolVar(&both, "both-units", false, "every length in both units")
	c.Flags().StringVar(&what.Piece, "piece", "", "svg, dxf, templates: only this piece")
	c.Flags().IntVar(&what.Sheet, "sheet", 0, "svg, dxf, templates, hpgl, gcode: only this sheet, from 1")
	return c
}

// fitting refuses a piece or a sheet where a kind of file has none.
func fitting(as string, w export.What) error {
	one := map[string]string{"svg": "piece sheet", "dxf": "piece sheet", "templates": "piece sheet", "hpgl": "sheet", "gcode": "sheet"}[as]
	switch {
	case w.Sheet < 0:
		return errors.New("--sheet counts from 1")
	case w.Piece != "" && w.Sheet > 0:
		return errors.New("use either --piece or --sheet, not both")
	case w.Piece != "" && !strings.Contains(one, "piece"):
		return fmt.Errorf("a %s file can't be of one piece; leave --piece out", as)
	case w.Sheet > 0 && one == "":
		return fmt.Errorf("a %s file can't be of one sheet; leave --sheet out", as)
	}
	return nil
}

func partNames() string {
	var names []string
	for _, p := range export.Parts {
		names = append(names, p.ID)
	}
	return strings.Join(names, ", ")
}

// exportTo plans a document and writes one of its files.
func exportTo(ctx context.Context, b brief.Brief, as, out string, what export.What, o export.Options, stdout, stderr io.Writer) error {
	j, problems := jobOf(b)
	if len(problems) > 0 {
		for _, p := range problems {
			fmt.Fprintf(stderr, "brevium: %s: %s %s\n", p.Field, p.Text, p.Fix)
		}
		return code(exitNoHold)
	}
	if err := ctx.Err(); err != nil {
		return err
	}
	f, err := export.Write(j, as, what, o)
	if refused := new(drawings.Unproved); errors.As(err, &refused) {
		fmt.Fprintln(stderr, "brevium:", refused.Why)
		return code(exitNoHold)
	}
	if err != nil {
		return err
	}
	if out == "-" {
		_, err = stdout.Write(f.Data)
	} else {
		err = writeWhole(out, f.Data)
	}
	if err != nil {
		return err
	}
	if warn := j.Warning(); warn != "" {
		fmt.Fprintln(stderr, "brevium:", warn)
		return code(exitNoHold)
	}
	return nil
}

// jobOf plans a document, or all boxes of a set, cut as it asks for.
func jobOf(b brief.Brief) (sets.Job, []brief.Problem) {
	if b.Several == nil {
		p := advice.Make(b, request.Default)
		if p.OK() {
			return sets.JobOf(advice.CutAsAsked(p, request.Default)), nil
		}
		return sets.Job{}, p.Problems
	}
	s := sets.Make(b, request.Default)
	if s.OK() {
		return s.CutAsAsked().Job(), nil
	}
	all := slices.Clone(s.Problems)
	for _, p := range s.Plans {
		all = append(all, p.Problems...)
	}
	return sets.Job{}, all
}

// writeWhole writes a file beside its place first: what fails leaves no half of it, and what
// was there before.
func writeWhole(name string, data []byte) (err error) {
	defer func() {
		if of := new(fs.PathError); errors.As(err, &of) { // it would name the file beside it
			err = of.Err
		}
		if err != nil {
			err = fmt.Errorf("%s was not written: %w", name, err)
		}
	}()
	if info, err := os.Stat(name); err == nil && info.IsDir() {
		return errors.New("it is a folder")
	} else if err == nil && !info.Mode().IsRegular() { // a device, a pipe
		f, err := os.OpenFile(name, os.O_WRONLY, 0)
		if err != nil {
			return err
		}
		_, err = f.Write(data)
		return errors.Join(err, f.Close())
	}
	f, err := os.CreateTemp(filepath.Dir(name), "."+filepath.Base(name)+".*")
	if err != nil {
		return err
	}
	defer os.Remove(f.Name())
	w := bufio.NewWriter(f)
	_, err = w.Write(data)
	if err = errors.Join(err, w.Flush(), f.Sync(), f.Chmod(0o644), f.Close()); err != nil {
		return err
	}
	return os.Rename(f.Name(), name)
}
