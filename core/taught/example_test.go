package taught_test

import (
	"fmt"

	"vastlantern/core/breath"
	"vastlantern/core/taught"
)

// The ladder of ratios: from an even breath to 1:4:2.
func ExampleRung() {
	even, _ := breath.ParseCounts("4:4")
	classical, _ := breath.ParseCounts("4:16:8")
	fmt.Println(taught.Rung(even) < taught.Rung(classical))
	// Output: true
}
