package sheet_test

import (
	"fmt"
	"strings"

	"vastlantern/core/sheet"
)

// A script is one adjustment a line.
func ExampleReadScript() {
	script, err := sheet.ReadScript(strings.NewReader(`{"at_ms": 30200, "do": "tempo", "to": 50}
{"at_ms": 41000, "do": "counts", "to": [4, 4, 6, 0]}`))
	if err != nil {
		panic(err)
	}
	for _, a := range script {
		fmt.Println(a.At, a.Do)
	}
	// Output:
	// 30200 tempo
	// 41000 counts
}
