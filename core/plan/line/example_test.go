package line_test

import (
	"fmt"

	"vastlantern/core/plan/line"
	"vastlantern/language"
)

// A passage is written as a teacher thinks it; of a practice that has a closing of its own, it comes along.
func ExampleNames_Read() {
	passages, err := line.NewNames([]string{"en"}, nil).Read("three rounds of square, then a minute of quiet")
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

// What contradicts itself is kept as a remark too, and told with the reason.
func ExampleLineError() {
	read, _ := line.NewNames([]string{"en"}, nil).Understand("nadi 4:4 x6 x8")
	fmt.Println(language.English().Error(&read[0].Doubts[0].LineError))
	// Output: x8: the number of rounds was given before: leave one of the two out
}

// A word that is not understood is kept as a remark, and told with what is nearest to it.
func ExampleDoubt() {
	read, _ := line.NewNames([]string{"en"}, nil).Understand("nadi 4:4 x6 lefft")
	fmt.Println(read[0].Fields.Values()["remark"], read[0].Doubts[0].Nearest)
	// Output: lefft [left]
}
