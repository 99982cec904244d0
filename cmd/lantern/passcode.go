package main

import (
	"bufio"
	"errors"
	"fmt"
	"io"
	"strings"

	"github.com/spf13/cobra"

	"vastlantern/studio"
	"vastlantern/studio/desk"
)

func passcodeCommand() *cobra.Command {
	var data string
	cmd := &cobra.Command{
		Use:   "passcode",
		Short: "Set what the teacher's side asks for with serve --lan",
		Long: "Reads a passcode of 8 to 72 characters from standard input and sets it. Only a hash of it is kept. Every " +
			"device that was signed in has to sign in again. The application must not be running on the data file.",
		Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			fmt.Fprint(cmd.ErrOrStderr(), "New passcode: ")
			line, err := bufio.NewReader(io.LimitReader(cmd.InOrStdin(), 1000)).ReadString('\n')
			if err != nil && !errors.Is(err, io.EOF) {
				return err
			}
			st, err := openToChange(cmd, data, "lantern passcode")
			if err != nil {
				return err
			}
			defer st.Close()
			access := desk.New(st, studio.NewClock()).Access
			if err := access.SetPasscode(cmd.Context(), strings.TrimRight(line, "\r\n")); err != nil {
				return err
			}
			fmt.Fprintln(cmd.OutOrStdout(), "The passcode is set.")
			return nil
		},
	}
	cmd.Flags().StringVar(&data, "data", defaultData, "the data file; it is made where there is none")
	return cmd
}
