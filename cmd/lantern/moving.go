package main

import (
	"bufio"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"vastlantern/store"
	"vastlantern/studio/desk"
)

func exportCommand() *cobra.Command {
	var data string
	cmd := &cobra.Command{
		Use:   "export FILE",
		Short: "Write everything to one JSON file, for another machine",
		Long: "Writes what was chosen, the own practices, groups, plans and all taught classes to FILE, which must not be " +
			"there yet (- is standard output). A passcode and signed-in devices stay on this machine. The application may run " +
			"meanwhile.",
		Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			st, err := openToExport(data)
			if err != nil {
				return err
			}
			defer st.Close()
			s := desk.WithTime(st, time.Now, 1)
			if args[0] == "-" {
				return s.Transfer.Export(cmd.Context(), cmd.OutOrStdout())
			}
			file, err := os.OpenFile(args[0], os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
			if errors.Is(err, os.ErrExist) {
				return fmt.Errorf("%s is there already: name another file", args[0])
			}
			if err != nil {
				return err
			}
			fmt.Fprintln(cmd.ErrOrStderr(), "Writing …") // years of classes take a while
			if err := errors.Join(s.Transfer.Export(cmd.Context(), file), file.Sync(), file.Close()); err != nil {
				return errors.Join(fmt.Errorf("the file could not be written: %w", err), os.Remove(args[0]))
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

// openToExport opens a data file that is there, beside the application where that is running on it.
func openToExport(path string) (*store.Store, error) {
	if err := thereIs(path); err != nil {
		return nil, err
	}
	st, err := store.Open(path, "lantern export")
	var inUse *store.InUseError
	if errors.As(err, &inUse) {
		return store.OpenToRead(path)
	}
	return st, err
}

func importCommand() *cobra.Command {
	var data string
	var yes bool
	cmd := &cobra.Command{
		Use:   "import FILE",
		Short: "Bring in what another machine has exported",
		Long: "Shows what FILE (- is standard input, with --yes) would change here, asks, and then changes all of it or " +
			"nothing. What is the same on both machines stays; of what differs the younger form counts; a taught class only " +
			"becomes longer. " +
			"Before anything is changed a copy of the data file is kept beside it. The application must not be running on it.",
		Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			in := cmd.InOrStdin()
			if args[0] != "-" {
				file, err := os.Open(args[0])
				if err != nil {
					return err
				}
				defer file.Close()
				in = file
			}
			st, err := openToChange(cmd, data, "lantern import") // a new machine has none yet
			if err != nil {
				return err
			}
			defer st.Close()
			fmt.Fprintln(cmd.ErrOrStderr(), "Reading …") // years of classes take a while
			read, err := desk.WithTime(st, time.Now, 1).Transfer.ReadImport(cmd.Context(), in)
			if err != nil {
				fmt.Fprintln(cmd.ErrOrStderr(), errorText(err))
				fmt.Fprintln(cmd.ErrOrStderr(), "Nothing was changed.")
				return errWrongFile
			}
			out := cmd.OutOrStdout()
			for _, line := range read.Lines() {
				fmt.Fprintln(out, text(line))
			}
			if !read.Changing() {
				fmt.Fprintln(out, "Nothing is to be changed.")
				return nil
			}
			if !yes && !agreed(cmd.InOrStdin(), out) {
				fmt.Fprintln(out, "Nothing was changed.")
				return nil
			}
			fmt.Fprintln(cmd.ErrOrStderr(), "Writing …")
			kept := store.Beside(data, "", time.Now())
			if err := st.Backup(kept); err != nil {
				return fmt.Errorf("nothing was changed, because no copy could be made first: %w", err)
			}
			if err := read.Apply(cmd.Context()); err != nil {
				return fmt.Errorf("nothing was changed: %w", err)
			}
			fmt.Fprintf(out, "Done. To take it back: lantern restore %s --data %s\n", kept, data)
			return nil
		},
	}
	cmd.Flags().StringVar(&data, "data", defaultData, "the data file; it is made where there is none")
	cmd.Flags().BoolVar(&yes, "yes", false, "do not ask")
	return cmd
}

// agreed asks whether to go on; an end of the input is a no.
func agreed(in io.Reader, out io.Writer) bool {
	fmt.Fprint(out, "Change this? (yes/no) ")
	answer, _ := bufio.NewReader(in).ReadString('\n')
	return strings.EqualFold(strings.TrimSpace(answer), "yes")
}
