package care_test

import (
	"fmt"

	"vastlantern/core/care"
	"vastlantern/core/plan"
)

// A passage with holds, for a room in which somebody is pregnant: the holds are left out.
func ExampleFor() {
	passage, err := plan.One(plan.Doc{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8"})
	if err != nil {
		panic(err)
	}
	for _, finding := range care.For(&passage, care.Room{Present: map[care.Condition]int{care.Pregnancy: 1}}) {
		fmt.Println(finding.Do)
	}
	// Output: leave out
}
