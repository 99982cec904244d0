package words_test

import (
	"fmt"

	"vastlantern/core/words"
)

func ExampleWords_Text() {
	fmt.Println(words.English.Text("inhale"), words.German.Text("inhale"))
	// Output: inhale ein
}
