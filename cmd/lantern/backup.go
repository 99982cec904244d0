package main

import (
	"errors"
	"fmt"
	"time"

	"github.com/spf13/cobra"

	"vastlantern/store"
)

func backupCommand() *cobra.Command {
	var data string
	cmd := &cobra.Command{
		Use:   "backup FILE",
		Short: "Copy the data file, also while a class is led",
		Long: "Writes a consistent copy of the data file to FILE, which must not be there yet. The application may run " +
			"meanwhile.",
		Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			if err := thereIs(data); err != nil {
				return err
			}
			st, err := store.OpenToRead(data)
			if err != nil {
				return err
			}
			defer st.Close()
			if err := st.Backup(args[0]); err != nil {
				return fmt.Errorf("the backup could not be written: %w", err)
			}
			counts, err := st.Count()
			if err != nil {
				return err
			}
			fmt.Fprintf(cmd.OutOrStdout(), "%s has %s.\n", args[0], inWords(counts))
			return nil
		},
	}
	cmd.Flags().StringVar(&data, "data", defaultData, "the data file")
	return cmd
}

func restoreCommand() *cobra.Command {
	var data string
	var incompleteToo bool
	cmd := &cobra.Command{
		Use:   "restore FILE",
		Short: "Put a backup into the place of the data file",
		Long: "Checks the backup, brings it to the present form and puts it into the place of the data file. What was " +
			"there is kept beside it. The application must not be running on it. " +
			"A backup that looks like a plain copy of a data file in use is refused, because what was stored last may be " +
			"missing in it; --incomplete-too takes it all the same.",
		Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			kept, err := store.Restore(args[0], data, time.Now(), incompleteToo)
			var incomplete *store.IncompleteError
			switch {
			case errors.As(err, &incomplete):
				newest := "no class"
				if !incomplete.Newest.IsZero() {
					newest = "its newest class began " + incomplete.Newest.Local().Format("2 Jan 2006 15:04")
				}
				return fmt.Errorf(
					"%s was not restored, and nothing was changed: %w. It has %s; %s. If that is all there should be, add "+
						"--incomplete-too",
					args[0],
					err,
					inWords(incomplete.Counts),
					newest,
				)
			case err != nil:
				return fmt.Errorf("%s was not restored, and nothing was changed: %w", args[0], err)
			}
			st, err := store.OpenToRead(data)
			if err != nil {
				return err
			}
			defer st.Close()
			counts, err := st.Count()
			if err != nil {
				return err
			}
			fmt.Fprintf(cmd.OutOrStdout(), "%s has %s.\n", data, inWords(counts))
			if kept != "" {
				fmt.Fprintf(cmd.OutOrStdout(), "What was there before is %s.\n", kept)
			}
			return nil
		},
	}
	cmd.Flags().StringVar(&data, "data", defaultData, "the data file")
	cmd.Flags().
		BoolVar(&incompleteToo, "incomplete-too", false,
			"restore also a plain copy of a data file in use, in which what was stored last may be missing")
	return cmd
}

func inWords(c store.Counts) string {
	return fmt.Sprintf("groups: %d, plans: %d, classes: %d, adjustments: %d", c.Groups, c.Plans, c.Classes, c.Adjustments)
}
