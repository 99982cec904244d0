// Package fold compares what people type without regard to capital letters and marks.
package fold

import (
	"strings"
	"unicode"
	"unicode/utf8"

	"golang.org/x/text/unicode/norm"
)

// special are letters that are no letter with a mark: Sanskrit in Latin letters, ligatures, and other ways to write
// quotes, times and dashes.
var special = strings.NewReplacer(
	"ṛ", "ri", "ś", "sh", "ṣ", "sh", "ß", "ss", "œ", "oe", "æ", "ae", "×", "x", "–", "-", "’", "'",
)

// Text returns text in lower case and without marks, so that a word is found however it is written.
func Text(text string) string {
	text = strings.ToLower(text)
	if isASCII(text) {
		return text
	}
	text = special.Replace(norm.NFC.String(text))
	return strings.Map(func(r rune) rune {
		if unicode.Is(unicode.Mn, r) {
			return -1
		}
		return r
	}, norm.NFD.String(text))
}

func isASCII(text string) bool {
	return strings.IndexFunc(text, func(r rune) bool { return r >= utf8.RuneSelf }) < 0
}
