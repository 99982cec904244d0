package main

import (
	"fmt"
	"os"

	"github.com/spf13/cobra"

	"vastlantern/store"
)

// defaultData is the data file if none is named.
const defaultData = "data/lantern.db"

// demoData is the data file of the demo.
const demoData = "data/demo.db"

// thereIs reports if there is no data file of the name.
func thereIs(path string) error {
	if _, err := os.Stat(path); err != nil {
		return fmt.Errorf("there is no data file %s: name it with --data", path)
	}
	return nil
}

// openToChange opens the data file, which is made if there is none, and says what was found and done.
func openToChange(cmd *cobra.Command, path, who string) (*store.Store, error) {
	return openAt(cmd, path, who, path == demoData) // which is made anew wherever it is not
}

// openAt returns openToChange; usual is whether the file is in its usual place, where a new one needs no message.
func openAt(cmd *cobra.Command, path, who string, usual bool) (*store.Store, error) {
	st, err := store.Open(path, who)
	if err != nil {
		return nil, err
	}
	out, opened := cmd.ErrOrStderr(), st.Opened()
	if opened.Made && !usual {
		fmt.Fprintf(
			out,
			"There was no data file %s: a new one was made. If your classes are in another one, name it with --data.\n",
			st.Path(),
		)
	}
	if opened.Copied != "" {
		fmt.Fprintf(out, "The data file was brought to a new form. As it was before it is kept: %s\n", opened.Copied)
	}
	if opened.Incomplete {
		fmt.Fprintf(
			out,
			"The data file %s looks like a copy of one in use, without the journal (-wal) beside it: the last classes may be "+
				"missing in it.\n",
			st.Path(),
		)
	}
	return st, nil
}
