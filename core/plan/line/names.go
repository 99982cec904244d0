package line

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// Names is everything that a line can call by its name: practices, their presets, talks and rests, and templates.
type Names struct {
	lexicon *lexicon
	own     []*practice.Practice
	entries []entry
	words   map[string]int // each word of a name, by the number that it has in every callName
}

// entry is one thing, by all its names.
type entry struct {
	name  string // as it is shown
	names []callName
	p     *practice.Practice
	with  map[string]any // of a preset
	plan.Stretch
	passages []plan.Fields // of a template, which comes as it is
}

// callName is the words of a name.
type callName struct {
	given  string // the name as it is listed
	title  string // that a stretch gets by this name, in its language
	words  []string
	number []int // of each word, in Names
	weight []float64
	sum    float64
	joined bool // all words of the name written as one
}

// Template is a class or a part of one that is added by its name.
type Template struct {
	Name     string
	Passages []plan.Fields
}

// NewNames returns the names in English, in German and in the languages of a class and of whoever types (BCP 47), with
// a teacher's own practices.
func NewNames(tags []string, own []*practice.Practice, templates ...Template) *Names {
	n := &Names{lexicon: lexiconOf(tags...), own: own}
	for _, s := range plan.Stretches {
		e := entry{name: s.Title, Stretch: s}
		if e.name == "" {
			e.name = map[plan.Type]string{plan.Talk: "Talk", plan.Free: "Natural breath"}[s.Type]
		}
		for _, tag := range slices.Concat(tags, everywhere) {
			if names := s.Called[tag]; len(names) > 0 {
				n.call(&e, names...)
				e.titled(s.Title, tag)
			}
		}
		n.entries = append(n.entries, e)
	}
	for _, p := range slices.Concat(practice.Catalogue(), own) {
		e := entry{name: p.Name, p: p}
		n.call(&e, p.Name)
		if bare := withoutNotes(p.Term); len(p.Presets) == 0 || !strings.Contains(bare, ",") {
			n.call(&e, bare)
		}
		n.call(&e, p.ID)
		n.call(&e, p.Also...)
		for _, tag := range slices.Concat(tags, everywhere) {
			n.call(&e, p.Called[tag]...)
			n.call(&e, p.In[tag].Name)
		}
		n.entries = append(n.entries, e)
		for _, preset := range p.Presets {
			e := entry{name: plan.Capital(preset.NameIn(tags...)), p: p, with: preset.With}
			n.call(&e, preset.Name)
			n.call(&e, preset.Also...)
			for _, tag := range slices.Concat(tags, everywhere) {
				n.call(&e, preset.Called[tag]...)
			}
			n.entries = append(n.entries, e)
		}
	}
	for _, t := range templates {
		e := entry{name: t.Name, passages: t.Passages}
		n.call(&e, t.Name)
		n.entries = append(n.entries, e)
	}
	n.words = map[string]int{}
	for i := range n.entries {
		for k := range n.entries[i].names {
			name := &n.entries[i].names[k]
			for _, word := range name.words {
				if _, there := n.words[word]; !there {
					n.words[word] = len(n.words)
				}
				name.number = append(name.number, n.words[word])
			}
		}
	}
	return n
}

// titled gives a title to those of the names that have none: the usual one in English, and in other languages what was
// typed.
func (e *entry) titled(title, tag string) {
	for i := range e.names {
		name := &e.names[i]
		if name.title != "" || title == "" {
			continue
		}
		name.title = title
		if tag != "en" {
			name.title = plan.Capital(name.given)
		}
	}
}

// alikeAll returns how far each token is each word of a name, by its number. A word is compared with each once: there
// are as many windows of a line as it has names.
func (n *Names) alikeAll(list []token, unfinished bool) [][]float64 {
	all := make([][]float64, len(list))
	for i, t := range list {
		if t.quoted {
			continue
		}
		all[i] = make([]float64, len(n.words))
		for word, number := range n.words {
			all[i][number] = alike(t.text, word, unfinished && i == len(list)-1)
		}
	}
	return all
}

// withoutNotes takes out what is in brackets.
func withoutNotes(term string) string {
	for {
		from, to := strings.Index(term, "("), strings.Index(term, ")")
		if from < 0 || to < from {
			return strings.TrimSpace(term)
		}
		term = strings.TrimSpace(term[:from]) + term[to+1:]
	}
}

// commonWords are words that many names have, in every language. They say little, and need not be there.
var commonWords = map[string]float64{
	"breath": 0.2, "breaths": 0.2, "breathe": 0.2, "breathing": 0.2, "the": 0.05, "of": 0.05, "a": 0.05, "with": 0.05,
	"to": 0.05, "and": 0.05,
}

// commonEnglish are those that say more in other languages: the German "ein" is "in" and "one".
var commonEnglish = map[string]float64{"in": 0.05, "own": 0.05, "out": 0.1}

// commonness returns what a common word counts in a name; 0 for all others.
func (t token) commonness() float64 { return max(commonWords[t.key], commonEnglish[t.text]) }

// sayLittle are words that may be in a name without belonging to it.
var sayLittle = []string{"of", "the", "a", "with", "breath", "breathing"}

// call adds names to an entry.
func (n *Names) call(e *entry, names ...string) {
	for _, name := range names {
		c := callName{given: name}
		for _, t := range tokens(name, n.lexicon) {
			if t.text == "," {
				continue
			}
			weight := 1.0
			if w := t.commonness(); w > 0 {
				weight = w
			}
			c.words, c.weight, c.sum = append(c.words, t.text), append(c.weight, weight), c.sum+weight
		}
		if len(c.words) == 0 {
			continue
		}
		e.names = append(e.names, c)
		if len(c.words) > 1 {
			e.names = append(e.names, callName{
				given: name, words: []string{strings.Join(c.words, "")}, weight: []float64{1}, sum: 1, joined: true,
			})
		}
	}
}

// likeness reports how well the words of a line fit the name, in any order: how much of what was said is in it, and how
// much of the name was said, 0 to 1. 0 says that some word does not belong.
func (c callName) likeness(said []token, like [][]float64) (weight, share float64) {
	var used [16]bool // no name has more words that are looked at
	for i, word := range said {
		best, at := 0.0, -1
		for k, name := range c.words {
			if k >= len(used) || used[k] {
				continue
			}
			q := like[i][c.number[k]]
			if q == 0 {
				continue
			}
			if q == slipped && word.number() != "" {
				continue // six is not sit
			}
			if q == slipped && len(said) == 1 && len(word.text) < 5 {
				continue // a gong is not long
			}
			if q == 0.9 && c.joined && 10*len(word.text) < 7*len(name) {
				continue
			}
			if q *= c.weight[k]; q > best {
				best, at = q, k
			}
		}
		if at < 0 {
			if slices.Contains(sayLittle, word.key) {
				continue
			}
			return 0, 0
		}
		used[at] = true
		weight += best
		part := 1.0
		if name := c.words[at]; strings.HasPrefix(name, word.text) { // the beginning of a word is a part of it
			part = float64(len(word.text)) / float64(len(name))
		}
		share += c.weight[at] * part
	}
	return weight, share / c.sum
}

// alike reports how far a word is another one: 1 the same, less for the beginning of it and for a slip of the finger, 0
// for neither.
func alike(word, name string, unfinished bool) float64 {
	least := 3
	if unfinished {
		least = 1
	}
	switch {
	case word == name:
		return 1
	case word == name+"s" || word+"s" == name, slices.Contains(breathing, word) && slices.Contains(breathing, name):
		return 0.98
	case len(word) < 4 && len(word) == len(name), len(name) < 3:
		return 0 // a dog is no fog, and own is not on
	case len(word) >= least && strings.HasPrefix(name, word):
		return 0.9
	case slips(word, name, mostSlips(word)) <= mostSlips(word):
		return slipped
	}
	return 0
}

// breathing is words that stand for each other in names.
var breathing = []string{"breath", "breathing", "breathe"}

// slipped is how much a word counts that is written wrong.
const slipped = 0.7

// mostSlips returns how many letters of a word may be wrong, missing, too many or swapped.
func mostSlips(word string) int {
	switch n := len(word); {
	case n < 3:
		return 0
	case n < 8:
		return 1
	}
	return 2
}

// slips counts what has to be changed in one word to make it the other: a letter more, less or another, or two
// neighbours swapped (the optimal string alignment distance). It is math.MaxInt where the lengths alone make it more
// than most.
func slips(a, b string, most int) int {
	if d := len(a) - len(b); d > most || d < -most {
		return math.MaxInt
	}
	width := len(b) + 1
	cells := make(
		[]int,
		3*width,
	) // the row in progress and the two above it: every name of the book is compared with every word
	above2, above, row := cells[:width], cells[width:2*width], cells[2*width:]
	for j := range above {
		above[j] = j
	}
	for i := 1; i <= len(a); i++ {
		row[0] = i
		for j := 1; j <= len(b); j++ {
			cost := 1
			if a[i-1] == b[j-1] {
				cost = 0
			}
			row[j] = min(above[j]+1, row[j-1]+1, above[j-1]+cost)
			if i > 1 && j > 1 && a[i-1] == b[j-2] && a[i-2] == b[j-1] {
				row[j] = min(row[j], above2[j-2]+1)
			}
		}
		above2, above, row = above, row, above2
	}
	return above[len(b)]
}

// almost is the share from which on a name was said whole: shares are sums of decimals.
const almost = 0.95

// mostNameWords is how many words a name in a line has at most.
const mostNameWords = 5

// hit is a place in a line where something is called by its name.
type hit struct {
	entry         *entry
	title         string // of a stretch, in the language of the name
	from, to      int    // tokens
	weight, share float64
}

// hits returns everything that the tokens may call by name, the likeliest first. unfinished says that the last word may
// go on.
func (n *Names) hits(list []token, unfinished bool) []hit {
	var found []hit
	like := n.alikeAll(list, unfinished)
	for from := range list {
		for to := from + 1; to <= min(len(list), from+mostNameWords); to++ {
			last := list[to-1]
			if last.quoted || last.text == "," || last.text == ";" {
				break
			}
			said := list[from:to]
			if weight := list[from].commonness(); weight > 0 && weight < 0.2 &&
				list[from].text != strings.TrimSuffix(practice.OwnPrefix, "-") &&
				len(said) > 1 {
				continue // a name does not begin with "of"; the id of an own practice begins with "own"
			}
			if from > 0 && to == from+1 && slices.Contains([]string{"hold", "holds"}, last.key) &&
				slices.Contains([]string{"no", "without", "with", "equal", "short", "small", "any"}, list[from-1].key) {
				continue // "no holds" is no name
			}
			grammar := onlyGrammar(said)
			for i := range n.entries {
				e := &n.entries[i]
				best := hit{entry: e, from: from, to: to}
				for _, name := range e.names {
					w, share := name.likeness(said, like[from:to])
					if share > almost && best.share < almost || (share > almost) == (best.share > almost) && w > best.weight {
						best.weight, best.share, best.title = w, share, name.title
					}
				}
				if best.share < almost && grammar {
					continue // "hold" is no name, though it is in some
				}
				if best.weight >= 0.5 {
					found = append(found, best)
				}
			}
		}
	}
	slices.SortStableFunc(found, func(a, b hit) int {
		return cmp.Or(cmp.Compare(rank(b), rank(a)), cmp.Compare(b.share, a.share), cmp.Compare(a.from, b.from))
	})
	return found
}

// onlyGrammar reports whether words are phases, counts and small words, and nothing else.
func onlyGrammar(said []token) bool {
	return !slices.ContainsFunc(said, func(t token) bool {
		little := slices.Contains(fillers, t.key) && !slices.Contains([]string{"open", "nostril"}, t.key)
		unit := slices.Contains(minuteWords, t.key) || slices.Contains(secondWords, t.key)
		return !slices.Contains(phaseWords, t.key) && t.number() == "" && !little && !unit
	})
}

// rank puts a name that was said whole before one that was said in part, if as much was said.
func rank(h hit) float64 {
	r := math.Round(h.weight*100) / 100
	if h.share > almost {
		r += 0.5
	}
	return r
}

// RetitlePreset makes sure that a passage whose title is the name of a preset of its practice, as square breath, does
// not keep it when it is another breath now: it takes the name of the preset that it has become, or none.
func RetitlePreset(f plan.Fields, own ...*practice.Practice) {
	title, _ := f.Values()["title"].(string)
	p := plan.PracticeOf(f, own)
	if title == "" || p == nil {
		return
	}
	counts, _ := f.Values()["counts"].(string)
	if counts == "" {
		counts = p.Counts
	}
	for _, preset := range p.Presets {
		tag := preset.TagOf(title)
		if tag == "" || preset.With["counts"] == nil ||
			alikeCounts(preset.With["counts"], counts) {
			continue
		}
		delete(f.Values(), "title")
		for _, other := range p.Presets {
			tempo := other.With["tempo"]
			if other.With["counts"] == counts && (tempo == nil || fmt.Sprint(tempo) == fmt.Sprint(f.Values()["tempo"])) {
				f.Values()["title"] = plan.Capital(other.NameIn(tag))
				return
			}
		}
		return
	}
}
