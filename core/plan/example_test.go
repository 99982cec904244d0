package plan_test

import (
	"encoding/json"
	"fmt"

	"vastlantern/core/plan"
	"vastlantern/language"
)

// Errors tell passage, field, what was given and what is allowed; all of them at once.
func ExampleRead() {
	var doc plan.Document
	if err := json.Unmarshal([]byte(`{"format": "vast-lantern-plan", "passages": [{"type": "talk", "seconds": "long"}]}`),
		&doc); err != nil {
		panic(err)
	}
	_, err := plan.Read(doc)
	fmt.Println(language.English().Error(err))
	// Output:
	// plan, version: missing, allowed: 1
	// passage 1 (talk), seconds: given "long", allowed: a number, 1 to 7200
}
