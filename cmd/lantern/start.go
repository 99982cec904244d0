package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"time"

	"github.com/adrg/xdg"
	"github.com/cli/browser"
	"github.com/spf13/cobra"

	"vastlantern/store"
	"vastlantern/studio"
)

// starting is the program started without a command, as by a double click: it serves with its data where the system
// keeps such data, and opens the browser.
type starting struct {
	serving
	noBrowser bool
	open      func(address string) error // in the browser
}

func (s *starting) flags(cmd *cobra.Command) {
	s.serving.flags(cmd, "")
	cmd.Flags().Lookup("data").Usage = "the data file (default where the system keeps such data)"
	cmd.Flags().BoolVar(&s.noBrowser, "no-browser", false, "do not open the browser")
}

// usualData returns the data file where the system keeps the data of programs for this user. Its folder is made.
func usualData() (string, error) { return xdg.DataFile(filepath.Join("vast-lantern", "lantern.db")) }

// openBrowser opens an address in the browser that the person uses.
func openBrowser(address string) error {
	browser.Stdout, browser.Stderr = io.Discard, io.Discard // what a browser has to say is not for this window
	return browser.OpenURL(address)
}

func (s *starting) run(cmd *cobra.Command) (err error) {
	if s.data == "" {
		if s.data, err = usualData(); err != nil {
			return err
		}
		s.usual = true
	}
	out := cmd.OutOrStdout()
	if isTerminal(os.Stdout) {
		fmt.Fprint(out, "\x1b]0;Vast Lantern\x07") // the title of the window
	}
	s.ready = func(address string) {
		fmt.Fprintf(out, "Your classes are kept in %s\nClosing this window ends it too.\n", s.data)
		s.show(out, address)
	}
	err = s.serving.run(cmd, func(*store.Store, *studio.Clock) error { return nil })
	var inUse *store.InUseError
	if errors.As(err, &inUse) {
		if address := s.elsewhere(cmd.Context(), inUse); address != "" {
			fmt.Fprintf(out, "Vast Lantern is open already, at %s\n", address)
			s.show(out, address)
			return nil
		}
	}
	return err
}

// show opens an address in the browser, unless that is not wanted.
func (s *starting) show(out io.Writer, address string) {
	if s.noBrowser {
		return
	}
	if err := s.open(address); err != nil {
		fmt.Fprintf(out, "The browser could not be opened (%v). Open the address above in it.\n", err)
	}
}

const (
	patience   = 5 * time.Second // that one which was started just before has until it answers
	lookAgain  = 100 * time.Millisecond
	answersFor = time.Second
)

// elsewhere returns the address of the program that holds the data file, if it answers there.
func (s *starting) elsewhere(ctx context.Context, inUse *store.InUseError) string {
	for until := time.Now().Add(patience); time.Now().Before(until); time.Sleep(lookAgain) {
		if address := inUse.Address(); address != "" && answers(ctx, address) == nil {
			return address
		}
		inUse = store.Holder(inUse.Path)
	}
	return ""
}

// answers reports whether the application answers at an address.
func answers(ctx context.Context, address string) error {
	ctx, cancel := context.WithTimeout(ctx, answersFor)
	defer cancel()
	request, err := http.NewRequestWithContext(ctx, http.MethodGet, address+"/api/clock", nil)
	if err != nil {
		return err
	}
	response, err := http.DefaultClient.Do(request)
	if err != nil {
		return err
	}
	defer response.Body.Close()
	if response.StatusCode != http.StatusOK {
		return fmt.Errorf("%s answers with status %d", address, response.StatusCode)
	}
	return nil
}

func isTerminal(file *os.File) bool {
	info, err := file.Stat()
	return err == nil && info.Mode()&os.ModeCharDevice != 0
}

// waitForKey keeps a window open that would close with the program, so that what went wrong can be read.
func waitForKey(out io.Writer) {
	if isTerminal(os.Stdin) {
		fmt.Fprintln(out, "Press Enter to close.")
		_, _ = fmt.Scanln() // whatever it is
	}
}

func healthCommand() *cobra.Command {
	var address string
	cmd := &cobra.Command{
		Use:   "health",
		Short: "Tell whether the application answers, for what watches over it",
		Long:  "Asks the application at its address for the time. Exits with 0 where it answers, with 1 where it does not.",
		Args:  cobra.NoArgs,
		RunE:  func(cmd *cobra.Command, _ []string) error { return answers(cmd.Context(), address) },
	}
	cmd.Flags().StringVar(&address, "address", "http://127.0.0.1:7777", "where it is served")
	return cmd
}
