package main

import (
	"fmt"
	"io"
	"os"

	"github.com/spf13/cobra"

	"brevium/core/brief"
	"brevium/core/plan"
)

func planCommand() *cobra.Command {
	return &cobra.Command{
		Use: "plan FILE", Short: "Print the plan of a project's document as JSON (- reads standard input)", Args: cobra.ExactArgs(1),
		Long: "Print the plan of a project's document as JSON.\n\nExit 0 when the proof holds, 1 when it does not or the brief is impossible\n(the JSON lists the problems), 2 when the input can't be used at all.",
		RunE: func(c *cobra.Command, args []string) error {
			data, err := document(args[0], c.InOrStdin())
			if err != nil {
				return err
			}
			b, err := brief.Decode(data)
			if err != nil {
				return err
			}
			p := plan.Make(b, plan.Default)
			if _, err := c.OutOrStdout().Write(p.JSON()); err != nil {
				return err
			}
			if !p.Holds() {
				return code(exitNoHold)
			}
			return nil
		},
	}
}

// document reads a file, or standard input for "-", as far as a document goes.
func document(name string, stdin io.Reader) ([]byte, error) {
	if name == "-" {
		return io.ReadAll(io.LimitReader(stdin, brief.Limit+1))
	}
	f, err := os.Open(name)
	if err != nil {
		return nil, fmt.Errorf("can't read the project: %w", err)
	}
	defer f.Close()
	return io.ReadAll(io.LimitReader(f, brief.Limit+1))
}
