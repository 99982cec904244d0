// Command lantern is Vast Lantern: it serves the application, and reads and writes the plain files of a class.
package main

import (
	"context"
	"errors"
	"fmt"
	"os"

	"github.com/spf13/cobra"
)

// errWrongFile says that a file given was wrong and that its errors are on standard error already: exit 2.
var errWrongFile = errors.New("wrong file")

func main() {
	root := &cobra.Command{
		Use:           "lantern",
		Short:         "Paces live group classes of breath work and keeps the record of what was taught",
		SilenceUsage:  true,
		SilenceErrors: true,
	}
	root.AddCommand(serveCommand(), demoCommand(), sheetCommand(), replayCommand())
	err := root.ExecuteContext(context.Background())
	switch {
	case err == nil:
	case errors.Is(err, errWrongFile):
		os.Exit(2)
	default:
		fmt.Fprintln(os.Stderr, "lantern:", err)
		os.Exit(1)
	}
}
