package main

import (
	"context"
	"fmt"
	"io"
	"os"

	"github.com/spf13/cobra"

	"brevium/core/brief"
	"brevium/core/plan"
	"brevium/core/planjson"
)

func planCommand() *cobra.Command {
	return &cobra.Command{
		Use: "plan FILE", Short: "Print the plan of a project's document as JSON (- reads standard input)",
		Args: cobra.ExactArgs(1),
		Long: "Print the plan of a project's document as JSON.\n\nExit 0 when the proof holds, 1 when it does not or the brief " +
			"is impossible\n(the JSON lists the problems), 2 when the input can't be used at all.",
		RunE: func(c *cobra.Command, args []string) error {
			data, err := document(c.Context(), args[0], c.InOrStdin())
			if err != nil {
				return err
			}
			b, err := brief.Decode(data)
			if err != nil {
				return err
			}
			out, holds := planjson.Of(b, plan.Default)
			if err := c.Context().Err(); err != nil {
				return err
			}
			if _, err := c.OutOrStdout().Write(out); err != nil {
				return err
			}
			if !holds {
				return code(exitNoHold)
			}
			return nil
		},
	}
}

// document reads a file, or standard input for "-", as far as a document goes.
// It ends when it is told to stop, though nothing may come from the input.
func document(ctx context.Context, name string, stdin io.Reader) ([]byte, error) {
	from := stdin
	if name != "-" {
		f, err := os.Open(name)
		if err != nil {
			return nil, fmt.Errorf("can't read the project: %w", err)
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
		data, err := io.ReadAll(io.LimitReader(from, brief.Limit+1))
		done <- read{data, err}
	}()
	select {
	case r := <-done:
		return r.data, r.err
	case <-ctx.Done():
		return nil, ctx.Err()
	}
}
