package plan_test

import (
	"fmt"

	"vastlantern/core/plan"
)

// A passage is written the short way, as a teacher thinks it.
func ExampleNewPassage() {
	passage, err := plan.NewPassage("nadi 4:4:8 x6 @50")
	if err != nil {
		panic(err)
	}
	fmt.Println(passage["practice"], passage["counts"], passage["rounds"], passage["tempo"])
	// Output: nadi-shodhana 4:4:8 6 50
}

// Errors tell passage, field, what was given and what is allowed; all of them at once.
func ExampleRead() {
	_, err := plan.Read(plan.Doc{"format": plan.Format, "passages": []any{map[string]any{"type": "talk", "seconds": "long"}}})
	fmt.Println(err)
	// Output:
	// plan, version: missing, allowed: 1
	// passage 1 (talk), seconds: given "long", allowed: a number, 1 to 7200
}
