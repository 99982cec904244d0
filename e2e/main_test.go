package e2e

import (
	"fmt"
	"os"
	"runtime/debug"
	"testing"

	"vastlantern/e2e/stage"
)

// These tests drive the built program; where it was not built there is nothing to drive.
func TestMain(m *testing.M) {
	if _, err := stage.Binary(); err != nil {
		fmt.Println("skipped:", err)
		return
	}
	code := m.Run()
	closeSharedBrowser()
	os.Exit(code)
}

// stack is where a panic came from.
func stack() []byte { return debug.Stack() }
