//go:build js && wasm

// Command tryout is what answers a page that shows the rehearsal and a sample class without any server
// (docs/decisions/29-a-page-to-try.md). It gives the page one function, lanternTryout, which takes a question as JSON
// and returns its answer (tryout.Question, tryout.Answer).
package main

import (
	"syscall/js"

	"vastlantern/studio/tryout"
)

func main() {
	program := tryout.New()
	js.Global().Set("lanternTryout", js.FuncOf(func(_ js.Value, args []js.Value) any {
		return string(program.Answer([]byte(args[0].String())))
	}))
	select {} // the page calls it as long as it is open
}
