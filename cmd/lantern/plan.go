package main

import (
	"fmt"
	"io"
	"maps"
	"slices"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"vastlantern/core/plan"
	"vastlantern/core/plan/line"
	"vastlantern/core/sheet"
	"vastlantern/core/words"
)

func planCommand() *cobra.Command {
	var language string
	cmd := &cobra.Command{
		Use:   "plan TEXT",
		Short: "Print the plan file of a class that is written as plain text",
		Long: "Reads a class that is written as plain text, one line a passage, and prints its plan file. The first line " +
			"is # and the title; then may stand slot 40, tempo 50, " +
			"starts 2026-12-01 18:30 and for before sleep. Lines that begin with a space belong to the passage above: its own " +
			"words as r3 hold: root lock, and script:, opening: and closing:.\n\n" + filesHelp,
		Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			if _, known := words.Languages[language]; !known {
				return fmt.Errorf(
					"--language: given %q, allowed: %s",
					language,
					strings.Join(slices.Sorted(maps.Keys(words.Languages)), ", "),
				)
			}
			var doc plan.Document
			err := readFile(cmd, args[0], func(r io.Reader) error {
				text, err := io.ReadAll(io.LimitReader(r, sheet.MostPlanBytes))
				if err == nil {
					doc, err = line.NewNames([]string{language}, nil).FromText(string(text), time.Local)
				}
				return err
			})
			if err != nil {
				return err
			}
			tellDoubts(cmd.ErrOrStderr(), doc)
			return sheet.WritePlan(cmd.OutOrStdout(), doc)
		},
	}
	cmd.Flags().StringVar(&language, "language", "en", "of the names and words in it, beside English")
	return cmd
}

// tellDoubts names the passages that somebody should look at: the lines were read all the same.
func tellDoubts(w io.Writer, doc plan.Document) {
	for i, f := range doc.Passages() {
		values := f.Values()
		if values["check"] == nil {
			continue
		}
		text := fmt.Sprint(values["remark"])
		if values["remark"] == nil {
			text = fmt.Sprint(values["title"])
		}
		fmt.Fprintf(w, "passage %d: %s: %q\n", i+1, checks[fmt.Sprint(values["check"])], text)
	}
}

// checks says what there is to look at.
var checks = map[string]string{
	line.DoubtWords:   "not understood, and kept as a remark",
	line.DoubtName:    "not in the practice book",
	line.DoubtReading: "this could be something else",
}
