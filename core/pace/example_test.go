package pace_test

import (
	"encoding/json"
	"fmt"

	"vastlantern/core/pace"
	"vastlantern/core/plan"
)

func square() *plan.Plan {
	var doc plan.Document
	if err := json.Unmarshal([]byte(`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [
		{"type": "practice", "practice": "counted-breath", "counts": "2:2:2:2", "rounds": 2, "lead_in": 0}]}`), &doc); err != nil {
		panic(err)
	}
	p, err := plan.Read(doc)
	if err != nil {
		panic(err)
	}
	return p
}

// The timeline of a plan has one row a count.
func ExampleSheet() {
	for _, row := range pace.Sheet(square()).Rows[:4] {
		fmt.Println(row.At, row.Phase, row.Count, "of", row.Of)
	}
	// Output:
	// 0 inhale 1 of 2
	// 1000 inhale 2 of 2
	// 2000 hold 1 of 2
	// 3000 hold 2 of 2
}

// What makes it easier acts at once: a hold that is released ends there, and the exhale begins.
func ExampleClass_Adjust() {
	class := pace.Begin(square())
	answer := class.Adjust(pace.Adjustment{At: 2500, Do: pace.Release})
	fmt.Println(answer.When)
	for _, row := range class.Timeline().Rows[2:5] {
		fmt.Println(row.At, row.Phase, row.Count, "of", row.Of)
	}
	// Output:
	// now
	// 2000 hold 1 of 2
	// 2500 exhale 1 of 2
	// 3500 exhale 2 of 2
}
