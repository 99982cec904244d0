package language

import (
	"golang.org/x/text/collate"
	"golang.org/x/text/language"
)

// Order returns how names are put in order in a language, given by its tag: "Ü" beside "U", and capitals beside small
// letters (Unicode Technical Standard 10). It is not safe for use by several goroutines.
func Order(tag string) func(a, b string) int {
	return collate.New(language.Make(tag), collate.IgnoreCase).CompareString
}
