package breath_test

import (
	"fmt"

	"vastlantern/core/breath"
)

// One round of alternate nostril breath at 4:16:8 is two breaths of 28 counts.
func ExampleParseCounts() {
	counts, err := breath.ParseCounts("4:16:8")
	if err != nil {
		panic(err)
	}
	fmt.Println(counts.Inhale, counts.Hold, counts.Exhale, counts.Empty)
	fmt.Println(counts)
	// Output:
	// 4 16 8 0
	// 4:16:8
}

// Time is exact: ten thousand counts at 53 a minute end where arithmetic says.
func ExampleCountLength() {
	count := breath.CountLength(breath.Int(53))
	fmt.Println(count.Round(), "ms, rounded only where it is shown")
	fmt.Println(count.Times(10_000).Round(), "ms for ten thousand")
	// Output:
	// 1132 ms, rounded only where it is shown
	// 11320755 ms for ten thousand
}
