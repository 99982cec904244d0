package studio

import (
	"strings"
	"unicode"

	"vastlantern/core/fact"
	"vastlantern/language"
)

// Ours returns a text that comes with the application, as "Find the breath" of a template, in a language. The id of its
// message is the family, with its dot, and the words of the text. A text without a message, such as 4:4 x8, is the same
// in every language.
func Ours(tag, family, text string) string {
	f := fact.New(family + slug(text))
	if language.English().Text(f) != text {
		return text
	}
	return language.In(tag).Text(f)
}

// longestSlug is how many letters of a text its message is named by.
const longestSlug = 40

func slug(text string) string {
	words := strings.FieldsFunc(strings.ToLower(text), func(r rune) bool {
		return r > unicode.MaxASCII || !unicode.IsLetter(r) && !unicode.IsDigit(r)
	})
	s := strings.Join(words, "-")
	return strings.Trim(s[:min(len(s), longestSlug)], "-")
}
