package e2e

import (
	"flag"
	"fmt"
	"os"
	"runtime/debug"
	"strconv"
	"testing"

	"vastlantern/e2e/stage"
)

// atOnce is how many tests run at once, each with pages and a program of its own. A test waits for the clock of a class
// for more than half of its time, so four keep two cores busy.
const atOnce = 4

// These tests drive the built program; where it was not built there is nothing to drive.
func TestMain(m *testing.M) {
	if _, err := stage.Binary(); err != nil {
		fmt.Println("skipped:", err)
		return
	}
	flag.Parse()
	if err := flag.Set("test.parallel", strconv.Itoa(atOnce)); err != nil {
		panic(err)
	}
	code := m.Run()
	closeSharedBrowser()
	os.Exit(code)
}

// stack returns where a panic came from.
func stack() []byte { return debug.Stack() }
