// Steady runs the browser tests again and again, every second time beside two busy processes, and counts what fails: a
// test that fails by chance is worse than none.
package main

import (
	"bufio"
	"crypto/sha256"
	"errors"
	"flag"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"time"

	"vastlantern/e2e/events"
	"vastlantern/e2e/stage"
)

const busyProcesses = 2

func main() {
	runs := flag.Int("runs", 10, "how often the tests run; every second time beside two busy processes")
	only := flag.String("run", "", "a regular expression: only these tests, as of go test -run")
	busy := flag.Bool("busy", false, "be a busy process: used by the command itself")
	flag.Parse()
	if *busy {
		for sum := sha256.Sum256(nil); ; sum = sha256.Sum256(sum[:]) { // until it is killed
		}
	}
	failed, err := steady(*runs, *only)
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
	if failed > 0 {
		os.Exit(1)
	}
}

func steady(runs int, only string) (failed int, err error) {
	folder, err := os.MkdirTemp("", "steady")
	if err != nil {
		return 0, err
	}
	defer os.RemoveAll(folder)
	program := filepath.Join(folder, "e2e.test")
	build := exec.Command("go", "test", "-tags", "nomsgpack", "-c", "-o", program, "./e2e")
	build.Stdout, build.Stderr = os.Stdout, os.Stderr
	if err := build.Run(); err != nil {
		return 0, err
	}
	fmt.Print("| run | beside | s | tests | failed |\n| ---: | --- | ---: | ---: | ---: |\n")
	byTest := map[string]int{}
	for i := range runs {
		beside := i % 2 * busyProcesses
		results, took, err := once(program, only, beside)
		if err != nil {
			return failed, err
		}
		tests, now := 0, 0
		for _, r := range results {
			if r.Test == "" {
				continue
			}
			tests++
			if r.Failed {
				now++
				byTest[r.Test]++
				fmt.Fprintf(os.Stderr, "run %d:\n%s\n", i+1, r.Output)
			}
		}
		failed += now
		fmt.Printf(
			"| %d | %s | %.0f | %d | %d |\n",
			i+1,
			map[bool]string{true: "two busy processes", false: ""}[beside > 0],
			took.Seconds(),
			tests,
			now,
		)
	}
	if failed == 0 {
		fmt.Printf("\nNo test failed in %d runs.\n", runs)
		return 0, nil
	}
	fmt.Print("\n| test | failures |\n| --- | ---: |\n")
	names := make([]string, 0, len(byTest))
	for name := range byTest {
		names = append(names, name)
	}
	slices.SortFunc(names, func(a, b string) int { return byTest[b] - byTest[a] })
	for _, name := range names {
		fmt.Printf("| %s | %d |\n", name, byTest[name])
	}
	return failed, nil
}

// once runs the tests beside so many busy processes, which end with it.
func once(program, only string, beside int) (results []events.Result, took time.Duration, err error) {
	own, err := os.Executable()
	if err != nil {
		return nil, 0, err
	}
	for range beside {
		busy := exec.Command(own, "-busy")
		stage.EndWithParent(busy)
		if err := busy.Start(); err != nil {
			return nil, 0, err
		}
		defer func() {
			_ = busy.Process.Kill()
			_ = busy.Wait()
		}()
	}
	tests := exec.Command(
		"go",
		"tool",
		"test2json",
		"-p",
		"e2e",
		program,
		"-test.v=test2json",
		"-test.timeout=60m",
		"-test.run="+only,
	)
	tests.Dir = "e2e"
	stage.EndWithParent(tests)
	out, err := tests.StdoutPipe()
	if err != nil {
		return nil, 0, err
	}
	began := time.Now()
	if err := tests.Start(); err != nil {
		return nil, 0, err
	}
	rest := bufio.NewWriter(os.Stderr)
	results, err = events.Read(out, rest)
	err = errors.Join(err, rest.Flush())
	var ended *exec.ExitError
	if wait := tests.Wait(); wait != nil && !errors.As(wait, &ended) {
		err = errors.Join(err, wait)
	}
	if len(results) == 0 {
		err = errors.Join(err, errors.New("no test ran"))
	}
	return results, time.Since(began), err
}
