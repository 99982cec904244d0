// Command lantern is Vast Lantern: it serves the application, and reads and writes the plain files of a class.
package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"

	"vastlantern/core/fact"
	"vastlantern/language"

	"github.com/spf13/cobra"
)

// errWrongFile says that a file given was wrong and that its errors are on standard error already: exit 2.
var errWrongFile = errors.New("wrong file")

// version is what is built, as make release writes it.
var version = "of a working copy"

func main() {
	err := rootCommand().ExecuteContext(context.Background())
	if len(os.Args) == 1 && err != nil { // by a double click: the window would close with what is told
		fmt.Fprintln(os.Stderr, "lantern:", errorText(err))
		waitForKey(os.Stderr)
		os.Exit(1)
	}
	os.Exit(exitCode(err, os.Stderr))
}

func rootCommand() *cobra.Command {
	s := starting{open: openBrowser}
	root := &cobra.Command{
		Use:   "lantern",
		Short: "Paces live group classes of breath work and keeps the record of what was taught",
		Long: "Paces live group classes of breath work and keeps the record of what was taught.\n\n" +
			"Without a command, as by a double click, it serves the application on this machine, keeps its data where the " +
			"system keeps such data, and opens the browser. Where it is open already, the browser goes there.",
		Version:       version,
		Args:          cobra.NoArgs,
		SilenceUsage:  true,
		SilenceErrors: true,
		RunE:          func(cmd *cobra.Command, _ []string) error { return s.run(cmd) },
	}
	s.flags(root)
	cobra.MousetrapHelpText = "" // on Windows a double click is how it is started
	root.AddCommand(
		serveCommand(),
		demoCommand(),
		passcodeCommand(),
		backupCommand(),
		restoreCommand(),
		exportCommand(),
		importCommand(),
		sheetCommand(),
		replayCommand(),
		cuesCommand(),
		checkCommand(),
		planCommand(),
		homeCommand(),
		rehearseCommand(),
		healthCommand(),
	)
	return root
}

// text returns a fact in words.
func text(f fact.Fact) string { return language.English().Text(f) }

// errorText returns an error in words.
func errorText(err error) string { return language.English().Error(err) }

// exitCode reports what went wrong, if anything did, and is what the program ends with.
func exitCode(err error, tell io.Writer) int {
	switch {
	case err == nil:
		return 0
	case errors.Is(err, errWrongFile):
		return 2
	}
	fmt.Fprintln(tell, "lantern:", errorText(err))
	return 1
}
