package practice_test

import (
	"fmt"

	"vastlantern/core/practice"
)

func ExampleFind() {
	p := practice.Find("nadi-shodhana")
	fmt.Println(p.Name, p.Counts, p.Rounds, "rounds")
	// Output: Alternate nostril breath 4:4 6 rounds
}

// Counts of the three-part breath are shared out over belly, ribs and chest, about 60, 30 and 10 percent.
func ExampleZones() {
	fmt.Println(practice.Zones(6))
	// Output: [belly belly belly ribs ribs chest]
}
