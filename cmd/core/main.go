//go:build js && wasm

// Command core is the part of the program that a lead screen runs in a worker of the browser, so that a class goes on
// without the server (docs/decisions/27-the-core-in-the-browser.md). It gives the page one function, lanternCore, which
// takes a question as JSON and returns its answer (contract.CoreQuestion).
package main

import (
	"runtime/debug"
	"syscall/js"

	"vastlantern/studio/apart"
)

// gcPercent lets the heap, which is a few megabytes, grow fivefold before it is cleaned up: a press must be answered
// within a frame, and half of its time went there.
const gcPercent = 400

func main() {
	debug.SetGCPercent(gcPercent)
	worker := &apart.Worker{}
	js.Global().Set("lanternCore", js.FuncOf(func(_ js.Value, args []js.Value) any {
		return string(worker.Answer([]byte(args[0].String())))
	}))
	select {} // the page calls it as long as it is open
}
