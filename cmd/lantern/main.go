// Command lantern is Vast Lantern: it serves the application, and reads and writes the plain files of a class.
package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"

	"github.com/spf13/cobra"
)

// errWrongFile says that a file given was wrong and that its errors are on standard error already: exit 2.
var errWrongFile = errors.New("wrong file")

func main() {
	os.Exit(exitCode(rootCommand().ExecuteContext(context.Background()), os.Stderr))
}

func rootCommand() *cobra.Command {
	root := &cobra.Command{
		Use:           "lantern",
		Short:         "Paces live group classes of breath work and keeps the record of what was taught",
		SilenceUsage:  true,
		SilenceErrors: true,
	}
	root.AddCommand(serveCommand(), demoCommand(), passcodeCommand(), backupCommand(), restoreCommand(), exportCommand(), importCommand(), sheetCommand(), replayCommand(), cuesCommand(), checkCommand(), planCommand(), homeCommand(), rehearseCommand())
	return root
}

// exitCode tells what went wrong, if anything did, and is what the program ends with.
func exitCode(err error, tell io.Writer) int {
	switch {
	case err == nil:
		return 0
	case errors.Is(err, errWrongFile):
		return 2
	}
	fmt.Fprintln(tell, "lantern:", err)
	return 1
}
