package line

import (
	"slices"
	"strings"
)

// Completion is a way in which a line that is being typed may go on.
type Completion struct {
	Line string // all of it
	Name string // of what is named; empty for a word of the grammar
}

// mostCompletions is how many are offered.
const mostCompletions = 8

// mostToComplete is the longest line, in words, that is completed: each completion is read as a whole line first, and a
// longer line was pasted.
const mostToComplete = 40

// Complete returns how the line may go on: names that begin as its last words do, and words that can be said of what it
// names. Where the line ends with a space or is long, there are none.
func (n *Names) Complete(line string) []Completion {
	all := tokens(line, n.lexicon)
	if len(all) == 0 || len(all) > mostToComplete || strings.TrimRight(line, " \t") != line || all[len(all)-1].quoted {
		return nil
	}
	split := n.thenParts(all)
	if len(split) == 0 {
		return nil
	}
	list := split[len(split)-1]
	end := list[len(list)-1].end
	var found []Completion
	add := func(c Completion) {
		if _, err := n.Read(c.Line); err != nil {
			return // it would not be understood
		}
		if !slices.ContainsFunc(found, func(f Completion) bool { return f.Line == c.Line }) && len(found) < mostCompletions {
			found = append(found, c)
		}
	}
	hits := n.hits(list, true)
	for _, h := range hits {
		if h.to == len(list) && h.weight > slipped {
			add(Completion{Line: line[:list[h.from].at] + lower(h.entry.name) + line[end:], Name: h.entry.name})
		}
	}
	last := list[len(list)-1]
	if slices.Contains(secondWords, last.key) || slices.Contains(minuteWords, last.key) {
		return found // "3 min" is whole
	}
	for _, h := range hits {
		if h.to == len(list) || h.share <= almost && h.weight < 1 || h.entry.passages != nil {
			continue
		}
		of := subject{map[string]any{"type": string(h.entry.Type)}, h.entry.p}
		for _, word := range of.words() {
			if len(last.text) > 1 && word != last.key && strings.HasPrefix(word, last.text) {
				add(Completion{Line: line[:last.at] + word})
			}
		}
		break
	}
	return found
}

// words returns those that can be said of the passage.
func (of subject) words() []string {
	var words []string
	for _, form := range forms {
		if !form.on(of) {
			continue
		}
		for element := range strings.FieldsSeq(form.pattern) {
			for word := range strings.SplitSeq(strings.TrimSuffix(element, "?"), "|") {
				if word == strings.ToLower(word) && len(word) > 2 && !slices.Contains(words, word) {
					words = append(words, word)
				}
			}
		}
	}
	slices.Sort(words)
	return words
}
