package main

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"os"

	"github.com/spf13/cobra"

	"brevium/core/cutlist"
)

// mostLists bounds what is read of lists, in bytes.
const mostLists = 64 << 20

func sheetsCommand() *cobra.Command {
	return &cobra.Command{
		Use: "sheets FILE", Short: "Lay a list of pieces on the fewest sheets, as JSON (- reads standard input)",
		Args: cobra.ExactArgs(1),
		Long: "Lay a list of pieces on the fewest sheets, and print where each lies, the cuts and the lower bound\nas a line of JSON. " +
			"A file may hold one list, or one list per line.\n\nExit 0 if everything is laid, 1 if a piece is left over (the JSON " +
			"says which, by how much\nand what would help), 2 if a list can't be used at all.",
		RunE: func(c *cobra.Command, args []string) error {
			data, err := input(c.Context(), args[0], c.InOrStdin(), mostLists)
			if err != nil {
				return err
			}
			return laySheets(c.Context(), data, c.OutOrStdout())
		},
	}
}

// laySheets lays one list, or one of each line. One that can't be used prints nothing; of
// many its line tells its problems, so that the others keep their places.
func laySheets(ctx context.Context, data []byte, out io.Writer) error {
	l, err := cutlist.Decode(data)
	lines := bytes.Split(bytes.TrimSpace(data), []byte("\n"))
	if err == nil || len(lines) < 2 {
		if err != nil {
			return err
		}
		line, holds, err := cutlist.Line(ctx, l)
		return printed(ctx, out, line, holds, err, err == nil)
	}
	worst := error(nil)
	for i, text := range lines {
		if len(bytes.TrimSpace(text)) == 0 {
			continue
		}
		l, err := cutlist.Decode(text)
		line, holds := []byte(nil), false
		if err != nil {
			line = cutlist.Refused(err)
		} else {
			line, holds, err = cutlist.Line(ctx, l)
		}
		if err != nil {
			err = fmt.Errorf("line %d: %w", i+1, err)
		}
		err = printed(ctx, out, line, holds, err, true)
		if ctx.Err() != nil {
			return ctx.Err()
		}
		if soft := code(0); err != nil && (worst == nil || errors.As(worst, &soft)) {
			worst = err
		}
	}
	return worst
}

// printed prints a line, if it is to be, and gives what the command ends with.
func printed(ctx context.Context, out io.Writer, line []byte, holds bool, err error, print bool) error {
	if ctx.Err() != nil {
		return ctx.Err()
	}
	if print {
		if _, err := out.Write(line); err != nil {
			return err
		}
	}
	if err == nil && !holds {
		return code(exitNoHold)
	}
	return err
}

// input reads a file, or standard input for "-", as far as so many bytes. It ends when
// it is told to stop, though nothing may come from the input.
func input(ctx context.Context, name string, stdin io.Reader, most int64) ([]byte, error) {
	from := stdin
	if name != "-" {
		f, err := os.Open(name)
		if err != nil {
			return nil, fmt.Errorf("can't read what is to be planned: %w", err)
		}
		defer f.Close()
		from = f
	}
	type read struct {
		data []byte
		err  error
	}
	done := make(chan read, 1)
	go func() {
		data, err := io.ReadAll(io.LimitReader(from, most+1))
		done <- read{data, err}
	}()
	select {
	case r := <-done:
		if int64(len(r.data)) > most {
			return nil, fmt.Errorf("this is larger than %d kB", most>>10)
		}
		return r.data, r.err
	case <-ctx.Done():
		return nil, ctx.Err()
	}
}
