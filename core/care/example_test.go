package care_test

import (
	"fmt"

	"vastlantern/core/breath"
	"vastlantern/core/care"
	"vastlantern/core/plan"
)

// A passage with holds, for a room in which somebody is pregnant: the holds are left out.
func ExampleFor() {
	held := plan.NewFields("nadi-shodhana")
	held.SetCounts(breath.Counts{Inhale: 4, Hold: 4, Exhale: 8})
	passage, err := plan.One(held)
	if err != nil {
		panic(err)
	}
	for _, finding := range care.For(&passage, care.Room{Present: map[care.Condition]int{care.Pregnancy: 1}}) {
		fmt.Println(finding.Do)
	}
	// Output: leave-out
}
