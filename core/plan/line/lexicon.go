package line

import (
	"embed"
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"
)

// Each file is the words of a language for those of the grammar. words.de.txt says how one is written.
//
//go:embed words.*.txt
var wordFiles embed.FS

// everywhere is the languages whose words are understood in every line: German ones are in what teachers write in
// English too.
var everywhere = []string{"en", "de"}

// lexicon is the words of a line by those of the grammar.
type lexicon struct {
	words     map[string]string // by the word as it is folded
	spellings []spelling        // the longest first
	written   map[string]string // how the grammar's word is written, as the file has it first
	elides    bool              // l', d' and qu' say nothing
}

// spelling is a phrase, and the words of the grammar that it is read as.
type spelling struct{ words, as []string }

var lexicons sync.Map // *lexicon by the tags

// lexiconOf returns the words of lines in these languages (BCP 47), of which the first ones win. Languages without a
// file have no words.
func lexiconOf(tags ...string) *lexicon {
	key := strings.Join(tags, " ")
	if there, ok := lexicons.Load(key); ok {
		return there.(*lexicon)
	}
	l := &lexicon{words: map[string]string{}, written: map[string]string{}}
	for _, tag := range slices.Concat(tags, everywhere) {
		l.add(tag, slices.Contains(tags, tag))
	}
	l.finish()
	lexicons.Store(key, l)
	return l
}

// anyLexicon returns the words of all languages: for what is short, and names no practice.
var anyLexicon = sync.OnceValue(func() *lexicon {
	l := &lexicon{words: map[string]string{}, elides: true}
	for _, tag := range wordTags() {
		l.add(tag, false)
	}
	l.finish()
	return l
})

// finish puts the longest phrases first, and elides in them what is elided in a line.
func (l *lexicon) finish() {
	for _, s := range l.spellings {
		for i, word := range s.words {
			s.words[i] = l.bare(word)
		}
	}
	slices.SortStableFunc(l.spellings, func(a, b spelling) int { return len(b.words) - len(a.words) })
}

// wordTags returns the languages that have words, English first.
func wordTags() []string {
	files, err := wordFiles.ReadDir(".")
	if err != nil {
		panic(err) // they are part of the program
	}
	tags := []string{"en"}
	for _, file := range files {
		if tag := strings.Split(file.Name(), ".")[1]; tag != "en" {
			tags = append(tags, tag)
		}
	}
	return tags
}

// add reads the file of a language; whole has it read also the words that mean something else in English.
func (l *lexicon) add(tag string, whole bool) {
	text, err := wordFiles.ReadFile(fmt.Sprintf("words.%s.txt", tag))
	if err != nil {
		return
	}
	l.elides = l.elides || whole && tag == "fr"
	key, here := "", false
	for row := range strings.Lines(string(text)) {
		switch row = strings.TrimRight(row, "\n"); {
		case row == "" || row[0] == '#':
		case row[0] == ' ':
			if !here || whole {
				l.spellings = append(l.spellings, spelling{strings.Fields(row), strings.Fields(key)})
			}
		default:
			var words string
			key, words, _ = strings.Cut(row, ":")
			key, here = strings.CutSuffix(key, "*")
			for i, word := range strings.Fields(words) {
				if _, there := l.words[word]; !there && (!here || whole) {
					l.words[word] = key
				}
				if _, there := l.written[key]; i == 0 && !there && l.written != nil {
					l.written[key] = word
				}
			}
		}
	}
}

var elided = regexp.MustCompile(`^(?:[ldjmtscn]|qu)'(\p{L}.*)$`)

// bare returns a word without the article that is elided before it.
func (l *lexicon) bare(word string) string {
	if m := elided.FindStringSubmatch(word); m != nil && l.elides && l.words[word] == "" {
		return m[1]
	}
	return word
}

// ShortIn writes the short way of writing a passage (plan.Passage.Short) in a language: "4:4 own 2m" is "4:4 libre 2m".
func ShortIn(tag, short string) string {
	words := strings.Fields(short)
	for i, word := range words {
		if own := lexiconOf(tag).written[word]; own != "" && tag != "en" {
			words[i] = own
		}
	}
	return strings.Join(words, " ")
}

// key returns the word of the grammar for one of a line.
func (l *lexicon) key(word string) string {
	if key := sameWords[word]; key != "" {
		return key
	}
	if key := l.words[word]; key != "" {
		return key
	}
	if ones, tens, found := strings.Cut(word, "und"); found { // fünfundzwanzig
		n, more := numberWords[l.words[ones]], tensWords[l.words[tens]]
		if ones == "ein" {
			n = "1"
		}
		if len(n) == 1 && more > 0 {
			return strconv.Itoa(more + whole(n))
		}
	}
	return word
}

// sameWords are other words for those of the grammar, in every language.
var sameWords = map[string]string{
	"retention": "hold", "retentions": "holds", "kumbhaka": "hold", "kumbhakas": "holds", "inhalation": "inhale",
	"inhalations": "inhales", "exhalation": "exhale", "exhalations": "exhales", "puraka": "inhale", "rechaka": "exhale",
	"l": "left", "r": "right", "rds": "rounds", "rd": "round", "pumpings": "pumps",
}
