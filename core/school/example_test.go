package school_test

import (
	"fmt"

	"vastlantern/core/school"
)

func ExampleChoices_Check() {
	fmt.Println(school.Choices{"eyes": "closed"}.Check())
	fmt.Println(school.Choices{"eyes": "on the ceiling"}.Check() != nil)
	// Output:
	// <nil>
	// true
}
