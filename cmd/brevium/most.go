package main

import (
	"encoding/json"

	"github.com/spf13/cobra"

	"brevium/core/advice"
	"brevium/core/planjson"
	"brevium/core/request"
)

// mostJSON is how many of a document's first thing fit: in the size that stands, null where it has none,
// and off one sheet.
type mostJSON struct {
	Thing *string `json:"thing"`
	Size  *int    `json:"size"`
	Sheet int     `json:"sheet"`
}

func mostCommand() *cobra.Command {
	return &cobra.Command{
		Use: "most FILE", Short: "Print how many of a box's first thing fit, as JSON (- reads standard input)",
		Args: cobra.ExactArgs(1),
		Long: "Print how many of a box's first thing fit: in its given size (null without one), and in the largest box\n" +
			"that needs only one sheet. Each number is planned and checked.\n\n" +
			"Exit codes are those of plan: 0 if the box's own plan passes all checks, 1 if it doesn't, 2 for unusable input.",
		RunE: func(c *cobra.Command, args []string) error {
			b, err := document(c, args[0])
			if err != nil {
				return err
			}
			out := mostJSON{}
			_, holds := planjson.Of(b, request.Default)
			if b.IsSet() {
				b = b.Member(0)
			}
			if len(b.Contents) > 0 {
				got := advice.Most(c.Context(), b, request.Default, 0)
				out.Thing, out.Sheet = &b.Contents[0].ID, got.OnSheet
				if got.Sized {
					out.Size = &got.InBox
				}
			}
			if err := c.Context().Err(); err != nil {
				return err
			}
			if err := json.NewEncoder(c.OutOrStdout()).Encode(out); err != nil {
				return err
			}
			if !holds {
				return code(exitNoHold)
			}
			return nil
		},
	}
}
