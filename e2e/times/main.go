// Times reads what go test -json tells and prints where the time of the tests goes, as the table of CONTRIBUTING.md.
package main

import (
	"cmp"
	"fmt"
	"os"
	"slices"
	"strings"

	"vastlantern/e2e/events"
)

const (
	leastSeconds = 2  // of a package that has a row of its own
	slowest      = 12 // tests
)

func main() {
	results, err := events.Read(os.Stdin, os.Stderr)
	if err != nil || len(results) == 0 {
		fmt.Fprintln(os.Stderr, "no test ran", err)
		os.Exit(1)
	}
	slices.SortFunc(results, func(a, b events.Result) int { return cmp.Compare(b.Seconds, a.Seconds) })
	fmt.Print("| package | s | its slowest tests, in s |\n| --- | ---: | --- |\n")
	others, failed := 0.0, false
	for _, r := range results {
		failed = failed || r.Failed
		switch {
		case r.Test != "":
		case r.Seconds < leastSeconds:
			others += r.Seconds
		default:
			fmt.Printf("| %s | %.0f | %s |\n", strings.TrimPrefix(r.Package, "vastlantern/"), r.Seconds, slow(results, r))
		}
	}
	fmt.Printf("| all others | %.0f | |\n", others)
	if failed {
		fmt.Fprintln(os.Stderr, "a test failed: these are not the usual times")
		os.Exit(1)
	}
}

// slow returns the tests of a package that take a share of its time worth knowing.
func slow(results []events.Result, of events.Result) string {
	var list []string
	for _, r := range results {
		if r.Package == of.Package && r.Test != "" && r.Seconds > 0.04*of.Seconds && len(list) < slowest {
			list = append(list, fmt.Sprintf("%s %.0f", r.Test, r.Seconds))
		}
	}
	return strings.Join(list, ", ")
}
