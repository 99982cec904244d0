// Package events reads what go test -json tells: which tests ran, for how long, and which failed.
package events

import (
	"bufio"
	"encoding/json"
	"io"
	"strings"
)

// Result is how a test ended, or a package, whose Test is empty.
type Result struct {
	Package string
	Test    string
	Seconds float64
	Failed  bool
	Output  string // of a test that failed
}

// event is a line of go test -json: see go doc test2json.
type event struct {
	Action  string
	Package string
	Test    string
	Elapsed float64
	Output  string
}

// Read reads events to their end. Lines that are none, as of a build that failed, go to rest. A test that began and
// never ended, since its process did, has failed.
func Read(from io.Reader, rest io.Writer) ([]Result, error) {
	var results []Result
	output, running := map[string]*strings.Builder{}, map[string]Result{}
	lines := bufio.NewScanner(from)
	lines.Buffer(nil, 1<<24)
	for lines.Scan() {
		var e event
		if json.Unmarshal(lines.Bytes(), &e) != nil || e.Action == "" {
			if _, err := rest.Write(append(lines.Bytes(), '\n')); err != nil {
				return nil, err
			}
			continue
		}
		name := e.Package + " " + e.Test
		switch e.Action {
		case "run":
			running[name] = Result{Package: e.Package, Test: e.Test, Failed: true}
		case "output":
			if output[name] == nil {
				output[name] = &strings.Builder{}
			}
			output[name].WriteString(e.Output)
		case "pass", "fail":
			r := Result{Package: e.Package, Test: e.Test, Seconds: e.Elapsed, Failed: e.Action == "fail"}
			if r.Failed && output[name] != nil {
				r.Output = output[name].String()
			}
			results = append(results, r)
			fallthrough
		case "skip":
			delete(running, name)
			delete(output, name)
		}
	}
	for name, r := range running {
		if output[name] != nil {
			r.Output = output[name].String()
		}
		results = append(results, r)
	}
	return results, lines.Err()
}
