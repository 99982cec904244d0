package main

import (
	"io"

	"github.com/spf13/cobra"

	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/studio/home"
	"vastlantern/studio/led"
	"vastlantern/web"
)

func homeCommand() *cobra.Command {
	var passage int
	cmd := &cobra.Command{
		Use:   "home PLAN --passage N",
		Short: "Print a practice of a plan as one page that plays by itself",
		Long: "Prints a practice of a plan as one HTML file that plays by itself, without this program and without a " +
			"network: its counts, lamps, tones and words, with a choice of how much. " +
			"A practice at own pace is led by its counts, in as many rounds as fit its minutes.\n\n" + filesHelp,
		Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			var doc plan.Document
			var p *plan.Plan
			err := readFile(cmd, args[0], func(r io.Reader) (err error) {
				doc, p, err = sheet.ReadPlan(r)
				return err
			})
			if err != nil {
				return err
			}
			template, err := web.HomeTemplate()
			if err != nil {
				return err
			}
			page, err := home.PageOf(template, doc, p, passage, led.PlanScore)
			if err != nil {
				return err
			}
			_, err = cmd.OutOrStdout().Write(page)
			return err
		},
	}
	cmd.Flags().IntVar(&passage, "passage", 1, "its number in the plan, from 1")
	return cmd
}
