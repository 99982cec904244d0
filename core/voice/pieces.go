package voice

import (
	"strings"
	"unicode"
)

// Plain returns a text as it is recorded and looked up: small letters and single spaces, without what is not spoken.
func Plain(text string) string { return strings.Join(spokenWords(text), " ") }

func spokenWords(text string) []string {
	return strings.FieldsFunc(strings.ToLower(text), func(r rune) bool {
		return r != '\'' && r != '’' && (unicode.IsSpace(r) || unicode.IsPunct(r))
	})
}

// Pieces returns the recordings of which a text is made, in their order and as few as there can be: "hand up, then
// close the left" of "hand up", "then" and "close the left". It is nil if a word of it was not recorded: two voices in
// one sentence would be worse than the other voice. recorded tells of a Plain text whether it was.
func Pieces(text string, recorded func(plain string) bool) []string {
	said := spokenWords(text)
	best := make([][]string, len(said)+1) // of the first so many words
	best[0] = []string{}
	for end := 1; end <= len(said); end++ {
		for from := range end {
			piece := strings.Join(said[from:end], " ")
			if best[from] == nil || best[end] != nil && len(best[from])+1 >= len(best[end]) || !recorded(piece) {
				continue
			}
			best[end] = append(append([]string{}, best[from]...), piece)
		}
	}
	if len(said) == 0 {
		return nil
	}
	return best[len(said)]
}
