package line

import (
	"regexp"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"vastlantern/core/fact"
	"vastlantern/core/fold"
)

// token is a word of a line as a teacher writes it.
type token struct {
	text    string    // folded: lower case, without accents
	key     string    // the English word for it, where it is one of the line's language
	given   string    // as it was written
	at, end int       // bytes of the line
	quoted  bool      // a title
	refused fact.Fact // why it cannot be so, though it was understood
}

// What people write without a space: x6, 6x, 3x20, 2min, 1m30s, 20st, 10b, @50.
var (
	gluedTimes = regexp.MustCompile(`^(\d*)([x*])(\d[\d:/.-]*)?$`)
	gluedUnit  = regexp.MustCompile(`^(\d+(?:\.\d+)?)(st|b|m|mins?|minutes?|s|secs?|seconds?|h|hrs?|hours?)$`)
	gluedTime  = regexp.MustCompile(`^(\d+(?:\.\d+)?)(m|min)(\d+(?:\.\d+)?)(s|sec)?$`)
	gluedTempo = regexp.MustCompile(`^(@)(\d.*)$`)
	dashed     = regexp.MustCompile(`^\d+(?:\.\d+)?(?:[:/-]\d+(?:\.\d+)?)+$`)
)

// listMark is what begins a line of a list: a dash, a dot, a number.
var listMark = regexp.MustCompile(`^\s*(?:[-*•·–—▪]|\d{1,2}[.)]|[a-zA-Z][.)])\s+`)

// openQuotes are the marks that begin a title.
const openQuotes = `"“„«»`

// tokens splits a line. Commas and semicolons are tokens; text between quotes is one.
func tokens(line string, words *lexicon) []token {
	var list []token
	add := func(at int, given string) {
		if !slices.Contains(roomMarks, fold.Text(given)) {
			bare := strings.TrimLeft(given, "([{~¿¡")
			at += len(given) - len(bare)
			given = strings.TrimRight(bare, ")]}")
		}
		end := at + len(given)
		text := words.bare(strings.TrimRight(fold.Text(given), ".!?:"))
		if minutes, found := strings.CutSuffix(text, "'"); found && numberForm.MatchString(minutes) {
			text = minutes + "min"
		}
		text = strings.TrimSuffix(strings.TrimSuffix(text, "'s"), "'")
		if text == "&" || text == "+" {
			text = "and"
		}
		if text == "" {
			return
		}
		if dashed.MatchString(text) {
			text = strings.NewReplacer("/", ":", "-", ":").Replace(text)
			list = append(list, token{text: text, key: text, given: given, at: at, end: end})
			return
		}
		for _, form := range []*regexp.Regexp{gluedTempo, gluedTimes, gluedTime, gluedUnit} {
			if parts := form.FindStringSubmatch(text); parts != nil && text != "x" && text != "*" && text != "×" {
				for _, part := range parts[1:] {
					if part == "" {
						continue
					}
					if dashed.MatchString(part) {
						part = strings.NewReplacer("/", ":", "-", ":").Replace(part)
					}
					list = append(list, token{text: part, key: words.key(part), given: given, at: at, end: end})
				}
				return
			}
		}
		for part := range strings.FieldsFuncSeq(text, func(r rune) bool { return r == '-' || r == '/' && text != "1/2" }) {
			if part != "" {
				list = append(list, token{text: part, key: words.key(part), given: given, at: at, end: end})
			}
		}
	}
	for at := len(listMark.FindString(line)); at < len(line); {
		r, size := utf8.DecodeRuneInString(line[at:])
		switch {
		case unicode.IsSpace(r):
			at += size
		case strings.ContainsRune(openQuotes, r):
			text, length := quoted(r, line[at+size:])
			list = append(list, token{text: text, given: text, at: at, end: at + size + length, quoted: true})
			at += size + length
		case r == ',' || r == ';':
			list = append(list, token{text: string(r), key: string(r), given: string(r), at: at, end: at + size})
			at += size
		default:
			length := strings.IndexFunc(
				line[at:],
				func(r rune) bool { return unicode.IsSpace(r) || strings.ContainsRune(",;"+openQuotes, r) },
			)
			if length < 0 {
				length = len(line) - at
			}
			add(at, line[at:at+length])
			at += length
		}
	}
	return list
}

// closeQuotes is the marks that end a title, by the one that begins it.
var closeQuotes = map[rune]string{'"': `"”`, '“': `"”`, '„': `"“”`, '«': `"»`, '»': `"«`}

// quoted reads up to the mark that closes an open one; \" is a quote within.
func quoted(open rune, line string) (text string, length int) {
	var b strings.Builder
	for i := 0; i < len(line); {
		r, size := utf8.DecodeRuneInString(line[i:])
		if r == '\\' && i+1 < len(line) && (line[i+1] == '"' || line[i+1] == '\\') {
			b.WriteByte(line[i+1])
			i += 2
			continue
		}
		i += size
		if strings.ContainsRune(closeQuotes[open], r) {
			return inner(open, b.String()), i
		}
		b.WriteRune(r)
	}
	return inner(open, b.String()), len(line)
}

// inner returns a title without the spaces that French has inside its quotation marks.
func inner(open rune, text string) string {
	if open == '«' {
		return strings.TrimSpace(text)
	}
	return text
}

var numberWords = map[string]string{
	"one": "1", "two": "2", "three": "3", "four": "4", "five": "5", "six": "6", "seven": "7", "eight": "8", "nine": "9",
	"ten": "10", "eleven": "11", "twelve": "12",
	"fifteen": "15", "twenty": "20", "thirty": "30", "forty": "40", "fifty": "50", "sixty": "60",
}

var numberForm = regexp.MustCompile(`^\d+(?:\.\d+)?$`)

// number returns the digits of a token that is a number, in digits or as a word; empty for others.
func (t token) number() string {
	switch {
	case t.quoted:
		return ""
	case numberForm.MatchString(t.text):
		return t.text
	case numberForm.MatchString(t.key):
		return t.key
	}
	return numberWords[t.key]
}

func isLetter(r rune) bool { return unicode.IsLetter(r) }
