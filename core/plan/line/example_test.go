package line_test

import (
	"fmt"

	"vastlantern/core/plan/line"
	"vastlantern/language"
)

// A passage is written as a teacher thinks it; of a practice that has a closing of its own, it comes along.
func ExampleNames_Read() {
	passages, err := line.NewNames("en", nil).Read("three rounds of square, then a minute of quiet")
	if err != nil {
		panic(err)
	}
	for _, passage := range passages {
		text, _ := passage.MarshalJSON()
		fmt.Println(string(text))
	}
	// Output:
	// {"type":"practice","practice":"counted-breath","title":"Square breath","counts":"4:4:4:4","rounds":3}
	// {"type":"free","title":"Quiet","seconds":60}
}

// A word that is not understood is told with where it is and what is nearest to it.
func ExampleLineError() {
	_, err := line.NewNames("en", nil).Read("nadi hodl 4")
	fmt.Println(language.English().Error(err))
	// Output: “hodl” is not understood: write counts such as 4:4:8, rounds such as x6 or a time such as 3 min, a tempo such as @50, left, right or own pace. Do you mean hold?
}
