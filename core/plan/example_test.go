package plan_test

import (
	"encoding/json"
	"fmt"

	"vastlantern/core/plan"
)

// A passage is written the short way, as a teacher thinks it.
func ExampleNewPassage() {
	passage, err := plan.NewPassage("nadi 4:4:8 x6 @50")
	if err != nil {
		panic(err)
	}
	text, _ := passage.MarshalJSON()
	fmt.Println(string(text))
	// Output: {"type":"practice","practice":"nadi-shodhana","counts":"4:4:8","tempo":50,"rounds":6}
}

// Errors tell passage, field, what was given and what is allowed; all of them at once.
func ExampleRead() {
	var doc plan.Document
	if err := json.Unmarshal([]byte(`{"format": "vast-lantern-plan", "passages": [{"type": "talk", "seconds": "long"}]}`), &doc); err != nil {
		panic(err)
	}
	_, err := plan.Read(doc)
	fmt.Println(err)
	// Output:
	// plan, version: missing, allowed: 1
	// passage 1 (talk), seconds: given "long", allowed: a number, 1 to 7200
}
