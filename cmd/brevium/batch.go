package main

import (
	"time"

	"github.com/spf13/cobra"

	"brevium/core/batch"
	"brevium/core/bench"
	"brevium/core/request"
)

func batchCommand() *cobra.Command {
	return &cobra.Command{
		Use: "batch FILE", Short: "Plan many boxes by their due dates, as JSON (- reads standard input)", Args: cobra.ExactArgs(1),
		Long: "Plan many boxes by their due dates, and print sheets, shopping list, cost and sittings as JSON.\n\nExit 0 if all checks " +
			"pass and the work fits the time, 1 if not (the JSON says what\nwould help) or an order is impossible, 2 if the input " +
			"can't be used at all.",
		RunE: func(c *cobra.Command, args []string) error {
			data, err := input(c.Context(), args[0], c.InOrStdin(), batch.Limit)
			if err != nil {
				return err
			}
			d, err := batch.Decode(data)
			if err != nil {
				return err
			}
			out, fits := batch.JSON(d, batch.Now(time.Now()), request.Default, bench.PaceOf(nil))
			if err := c.Context().Err(); err != nil {
				return err
			}
			if _, err := c.OutOrStdout().Write(out); err != nil {
				return err
			}
			if !fits {
				return code(exitNoHold)
			}
			return nil
		},
	}
}
