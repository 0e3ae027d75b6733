package main

import (
	"github.com/spf13/cobra"

	"brevium/core/brief"
	"brevium/core/planjson"
	"brevium/core/request"
)

func planCommand() *cobra.Command {
	return &cobra.Command{
		Use: "plan FILE", Short: "Print a box's plan as JSON (- reads standard input)",
		Args: cobra.ExactArgs(1),
		Long: "Print a box's plan as JSON.\n\nExit 0 if all checks pass, 1 if one fails or the box is impossible\n(the JSON lists the " +
			"problems), 2 if the input can't be used at all.",
		RunE: func(c *cobra.Command, args []string) error {
			b, err := document(c, args[0])
			if err != nil {
				return err
			}
			out, holds := planjson.Of(b, request.Default)
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

// document reads a project's document from a file, or from standard input for "-".
func document(c *cobra.Command, name string) (brief.Brief, error) {
	data, err := input(c.Context(), name, c.InOrStdin(), brief.Limit)
	if err != nil {
		return brief.Brief{}, err
	}
	return brief.Decode(data)
}
