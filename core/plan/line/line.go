// Package line reads what a teacher types: one passage a line, in the words of the trade and in any order, a whole
// class as text, and the teacher's own words below a passage. It writes them too. docs/decisions/14 says how a line is
// read.
package line

import (
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"math"
	"slices"
	"strings"
	"unicode/utf8"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// LineError says which word of a line is not understood, and what is nearest to it.
type LineError struct {
	At, End int // bytes of the line; both 0 for the line as a whole
	Given   string
	Why     fact.Fact // what was expected there
	Refused bool      // the word was understood, and Why says why it cannot be
	Nearest []string  // what could have been meant
}

// Tell returns what is wrong and what could have been meant.
func (e *LineError) Tell() fact.Fact {
	text := e.Why
	if e.Given != "" && !e.Refused {
		text = fact.New("line.not-understood", "given", e.Given, "why", e.Why)
	}
	if len(e.Nearest) > 0 {
		text = fact.New("line.with-nearest", "text", text, "nearest", fact.Names(e.Nearest))
	}
	return text
}

func (e *LineError) Error() string { return e.Tell().Error() }

// mostWords is the longest line that is read: what is longer was pasted by mistake.
const mostWords = 120

// Read reads a line as a teacher writes it: what it is, how much of it, and how, in any order; "then" and more of it is
// another passage. "even breath, 3 rounds", "square x3", "sit 2 min", "nadi 4:4 5 min own", "belly 4:4 x8 then 8:8 x4".
// A practice of which nothing else is said comes as its whole course. The error is a LineError.
func (n *Names) Read(line string) ([]plan.Fields, error) {
	readings, err := n.Understand(line)
	return FieldsIn(readings), err
}

// Understand is Read that also reports what the line gave, so what is assumed, and what is doubtful.
func (n *Names) Understand(line string) ([]Reading, error) {
	list := n.split(line)
	if len(list) == 0 {
		return nil, &LineError{Why: fact.New("line.write-something")}
	}
	if len(list) > mostWords {
		return nil, &LineError{Why: fact.New("line.too-long", "words", len(list), "most", mostWords)}
	}
	var all []Reading
	var last *entry
	for _, part := range n.parts(list) {
		one, e, err := n.readPart(line, part, last)
		if err != nil {
			return nil, err
		}
		all, last = append(all, one...), e
	}
	return all, nil
}

// Plainly is Read that refuses what Understand only doubts.
func (n *Names) Plainly(line string) ([]plan.Fields, error) {
	readings, err := n.Understand(line)
	for _, r := range readings {
		if len(r.Doubts) > 0 {
			return nil, &r.Doubts[0].LineError
		}
	}
	return FieldsIn(readings), err
}

// split returns the tokens of a line, with one for each number, each breath and each phrase.
func (n *Names) split(line string) []token {
	return spoken(line, amounts(line, tokens(line, n.language), n.isName))
}

// isName reports whether numbers in a row are a name, as "four seven eight".
func (n *Names) isName(numbers []token) bool {
	for i := range n.entries {
		for _, name := range n.entries[i].names {
			if slices.EqualFunc(name.words, numbers, func(word string, t token) bool {
				return word == t.text || word == t.key || word == t.given
			}) {
				return true
			}
		}
	}
	return false
}

// parts splits the tokens where another passage begins: at "then", and at commas where each piece names something and
// says how long: "5 rounds of square, 5 rounds 4:6, 2 min rest".
func (n *Names) parts(list []token) [][]token {
	var all [][]token
	for _, part := range n.thenParts(list) {
		all = append(all, n.atCommas(part)...)
	}
	return all
}

func (n *Names) atCommas(list []token) [][]token {
	var pieces [][]token
	from := 0
	strokes, after := lastStrokes(list), -1 // what is said between them is said of both
	for i := strokes + 1; strokes >= 0 && i < len(list); i++ {
		if n.breathAfterStrokes(list, i) {
			after = i
		}
	}
	for i, t := range list {
		if t.text == "," && !t.quoted && (i < strokes || i > after) {
			pieces, from = append(pieces, list[from:i]), i+1
		}
	}
	pieces = append(pieces, list[from:])
	if len(pieces) == 1 {
		return pieces
	}
	if slices.ContainsFunc(pieces, func(piece []token) bool { return !hasLength(piece) }) {
		return [][]token{list}
	}
	practices, leads := 0, false
	for k, piece := range pieces {
		named := slices.ContainsFunc(piece, func(t token) bool { return isCounts(t.text) })
		rest := false
		for _, h := range n.hits(piece, false) {
			whole := h.share > almost && h.weight > slipped
			says := slices.ContainsFunc(piece[h.from:h.to], func(t token) bool { return !known(t.key) })
			named = named || whole && says && h.entry.p != nil
			rest = rest || whole && h.entry.p == nil
		}
		if slices.ContainsFunc(piece, func(t token) bool { return t.key == "between" || t.key == "each" }) {
			return [][]token{list}
		}
		switch {
		case !named && !rest:
			return [][]token{list}
		case named:
			practices++
		case k == 0:
			leads = true // a rest before anything is named is one of its own
		case k < 2 || k+1 < len(pieces) && practices < 2:
			return [][]token{list} // a rest between the rounds of what is named
		}
	}
	if practices < 2 && !leads {
		return [][]token{list}
	}
	return pieces
}

// hasLength reports whether a piece of a line says how long something is.
func hasLength(list []token) bool {
	for i := range list {
		if _, n := timeAt(list, i, false); n > 0 {
			return true
		}
		if i > 0 && list[i-1].number() != "" && slices.Contains(countedThings, list[i].key) {
			return true
		}
		if i > 0 && list[i-1].key == "x" && list[i].number() != "" {
			return true
		}
	}
	return false
}

// holdsAfterStrokes reports whether "then" at i leads to the hold after strokes: "20 strokes, then hold 15".
func holdsAfterStrokes(list []token, i int) bool {
	return i+1 < len(list) && slices.Contains([]string{"hold", "holding"}, list[i+1].key) &&
		slices.ContainsFunc(list[:i], func(t token) bool { return t.key == "strokes" || t.key == "pumps" })
}

// breathAfterStrokes reports whether the word at i leads to the breath after strokes, in a practice that has one:
// "bellows 20 strokes, then 4:6:6". In every other practice "then 4:6:6" is another passage.
func (n *Names) breathAfterStrokes(list []token, i int) bool {
	if i+1 >= len(list) || list[i].key != "then" && list[i].key != "after" || !isCounts(list[i+1].text) {
		return false
	}
	strokes := lastStrokes(list[:i])
	if strokes < 0 || lastStrokes(list[:strokes]) >= 0 ||
		slices.ContainsFunc(list[strokes:i], func(t token) bool { return isCounts(t.text) }) {
		return false // one breath after the strokes of one practice; this also bounds how often names are looked for
	}
	from := 0
	for k, t := range list[:strokes] {
		if t.text == "," && hasLength(list[:k]) {
			from = k + 1
		}
	}
	hits := n.hits(list[from:i], false)
	if len(hits) == 0 || hits[0].entry.p == nil || !hits[0].entry.p.TakesField("after") {
		return false
	}
	// A length on each side of it means another passage, with counts alone.
	return !hasLength(list[strokes+1:i]) || !hasLength(list[i+2:])
}

// lastStrokes returns the index of the last word for strokes, and -1 without one.
func lastStrokes(list []token) int {
	for i, t := range slices.Backward(list) {
		if t.key == "strokes" || t.key == "pumps" {
			return i
		}
	}
	return -1
}

// thenParts splits the tokens at "then".
func (n *Names) thenParts(list []token) [][]token {
	var all [][]token
	for len(list) > 0 {
		i := -1
		for k, t := range list {
			begins := t.key == "then" && !holdsAfterStrokes(list, k) && !n.breathAfterStrokes(list, k)
			if !t.quoted && (begins || t.key == ";") {
				i = k
				break
			}
		}
		if i < 0 {
			return append(all, list)
		}
		if i > 0 {
			all = append(all, list[:i])
		}
		list = list[i+1:]
	}
	return all
}

// readPart reads one passage: as what it names, with what is not understood as a remark. Where it names nothing, it is
// more of what came before, or something that is not in the practice book.
func (n *Names) readPart(line string, list []token, last *entry) ([]Reading, *entry, error) {
	found := n.hits(list, false)
	if first, second := n.twoThings(list, found); second != nil {
		all, e, err := n.readPart(line, first, last)
		if err != nil {
			return nil, nil, err
		}
		more, e, err := n.readPart(line, second, e)
		return append(all, more...), e, err
	}
	if last != nil && last.p != nil &&
		!slices.ContainsFunc(found, func(h hit) bool { return h.share > almost && h.entry.p == nil }) {
		if read, err := n.readAs(list, hit{entry: last}); err == nil && !remarks(read) {
			return read, last, nil
		}
	}
	read, h, err := n.best(list, found)
	if err != nil || read != nil {
		return read, h.entry, err
	}
	if posture(list) {
		read, err := n.readUnlisted(line, list, n.entryOf("posture"))
		return read, n.entryOf("posture"), err
	}
	counts := slices.ContainsFunc(list, func(t token) bool { return isCounts(t.text) })
	if counts || breathsAMinute(list) {
		read, err := n.readUnlisted(line, list, n.entryOf("counted-breath"))
		return read, n.entryOf("counted-breath"), err
	}
	if read, err := n.readStretch(list); err != nil || read != nil {
		return read, nil, err
	}
	return nil, nil, n.unnamed(list)
}

// twoThings splits a part in which two things are named with "and" between them: "om three times and silence".
func (n *Names) twoThings(list []token, found []hit) (first, second []token) {
	whole := func(h hit) bool { return h.share > almost && h.weight > slipped && h.entry.passages == nil }
	for _, b := range found {
		and := b.from - 1
		for and > 0 && list[and].key != "and" && (slices.Contains(fillers, list[and].key) || list[and].number() != "" ||
			slices.Contains(minuteWords, list[and].key) || slices.Contains(secondWords, list[and].key)) {
			and--
		}
		if !whole(b) || and < 1 || list[and].key != "and" || b.entry.title == "Rest" ||
			slices.ContainsFunc(found, func(h hit) bool { return whole(h) && h.from < b.from && h.to > b.from }) {
			continue
		}
		for _, a := range found {
			if whole(a) && a.to <= and && a.entry != b.entry && (a.entry.p != nil || b.entry.p != nil) {
				return list[:and], list[and+1:]
			}
		}
	}
	return list, nil
}

// best reads the part as the likeliest of what was hit: that which leaves the fewest words over. None is returned where
// nothing fits. Where two fit alike, the first is taken, and the reading says so.
func (n *Names) best(list []token, found []hit) (best []Reading, as hit, err error) {
	fewest := math.MaxInt
	var first error
	for k, h := range found {
		if h.entry.p == nil && h.entry.passages == nil && breathCounts(list) || h.ofThePosture(list) || h.within(found) {
			continue
		}
		if (k > 60 || h.weight < found[0].weight/2) && h.share <= almost {
			continue
		}
		read, err := n.readAs(list, h)
		if err != nil {
			if h.entry.passages != nil && h.share > almost {
				return nil, hit{}, err
			}
			if first == nil && (h.share > almost || h.firm(list)) && !errors.Is(err, errNotThis) {
				first = err
			}
			continue
		}
		left, wrong := 0, false
		for _, r := range read {
			left += len(r.Doubts)
			if remark, _ := r.Fields.Values()["remark"].(string); remark != "" && h.share <= almost {
				left += len(strings.Fields(remark))
			}
			_, err := plan.One(r.Fields, n.own...)
			wrong = wrong || err != nil
		}
		if wrong && k+1 < len(found) && best != nil || h.entry.p == nil && afterAPractice(found, h) {
			continue
		}
		if wrong {
			left += len(list)
		}
		if left *= 2; h.share <= almost {
			left++ // of two that fit alike, the one that was named whole
		}
		if left > 1 && (!h.firm(list) || h.share <= almost && posture(list)) || left >= fewest {
			continue
		}
		if ambiguous(found, h) && h.share <= almost {
			could := couldBe(list, found, h)
			if h.to-h.from == len(list) { // that is all there is
				return nil, hit{}, could
			}
			read[0].Doubts = append([]Doubt{{LineError: *could, Kind: DoubtReading}}, read[0].Doubts...)
			read[0].Fields.Values()["check"] = DoubtReading
		}
		best, as, fewest = read, h, left
	}
	if best == nil && first != nil {
		return nil, hit{}, first
	}
	return best, as, nil
}

// breathCounts reports whether there are counts that are no time as 4:30.
func breathCounts(list []token) bool {
	return slices.ContainsFunc(list, func(t token) bool {
		terms := strings.Split(t.text, ":")
		return isCounts(t.text) && (len(terms) > 2 || len(terms[1]) < 2)
	})
}

// bodyWords are words by which what is before them is no breath: a triangle pose, a moon salutation.
var bodyWords = []string{
	"pose", "posture", "asana", "salutation", "salutations", "flow", "vinyasa", "twist", "stretch", "lunge", "squat",
	"bend",
	"dog", "rolls", "circles", "massage", "haltung", "dehnung", "namaskar", "namaskara",
}

// ofThePosture reports whether what was hit is only the name of a posture or a movement.
func (h hit) ofThePosture(list []token) bool {
	if h.entry.p == nil || slices.Contains(h.entry.p.Care, "moving") {
		return false
	}
	ofOneBreath := !h.entry.p.OneSided() && !h.entry.p.Alternates()
	return h.to < len(list) && slices.Contains(bodyWords, list[h.to].key) || ofOneBreath && onSides(list) &&
		slices.ContainsFunc(list, func(t token) bool { return t.key == "breaths" })
}

// afterAPractice reports whether a stretch is named after a practice that was named whole: it says how that is done.
func afterAPractice(found []hit, h hit) bool {
	return h.entry.passages == nil && slices.ContainsFunc(found, func(other hit) bool {
		return other.entry.p != nil && other.share > almost && other.weight > slipped && other.from < h.from
	})
}

// within reports whether a name that was said in part is in the place of one that was said whole: "sit" is no sitali.
func (h hit) within(found []hit) bool {
	return h.share <= almost && slices.ContainsFunc(found, func(other hit) bool {
		return other.share > almost && other.weight > slipped && other.from <= h.from && other.to >= h.to
	})
}

// longWord is how many letters a word has that is sure to be a name, though one or two of them are wrong.
const longWord = 7

// firm reports whether what was hit is meant for sure, though there are words that do not belong to it: its name was
// said whole, or begins what was said. "Shoulder rolls" are no bridge rolls.
func (h hit) firm(list []token) bool {
	if h.share > almost {
		return h.weight > slipped || h.entry.p != nil && (h.to-h.from > 1 || len(list[h.from].text) >= longWord)
	}
	for i := range h.from {
		if !slices.Contains(fillers, list[i].key) && list[i].number() == "" {
			return false
		}
	}
	return h.entry.p != nil && h.weight >= 0.9 && h.share > 0.4
}

// remarks reports whether words of a reading were kept as a remark.
func remarks(list []Reading) bool {
	return slices.ContainsFunc(list, func(r Reading) bool { return len(r.Doubts) > 0 })
}

// justBreath are words that name nothing beside counts: "breathe 5 in 7 out".
var justBreath = []string{"breathe", "breath", "breathing", "atem", "atmung", "atmen"}

// posture reports whether a part that names nothing in the book speaks of a posture.
func posture(list []token) bool {
	for i, t := range list {
		if t.quoted || i+1 < len(list) && slices.Contains(breathing, list[i+1].key) { // "dog breath"
			continue
		}
		if slices.Contains(postureWords, t.key) || len(t.text) > 7 && strings.HasSuffix(t.text, "asana") {
			return true
		}
	}
	return onSides(list)
}

// postureWords are words that postures have in their names (common practice, with no source).
var postureWords = []string{
	"pose", "posture", "haltung", "warrior", "plank", "lunge", "fold", "twist", "dog", "cobra", "mountain", "pigeon",
	"camel", "boat", "sphinx", "locust", "squat", "krieger", "kobra", "brett", "kamel", "boot",
}

// onSides reports whether a part speaks of both sides of the body.
func onSides(list []token) bool {
	return slices.ContainsFunc(list, func(t token) bool {
		return !t.quoted && slices.Contains([]string{"bothsides", "right-left", "left-right"}, t.key)
	})
}

// readUnlisted reads what is not in the practice book as a passage of a practice of the book, with its words as title.
func (n *Names) readUnlisted(_ string, list []token, as *entry) ([]Reading, error) {
	read, err := n.readAs(list, hit{entry: as})
	if err != nil {
		return read, err
	}
	for i := range read {
		r := &read[i]
		if said, _ := r.Fields.Values()["remark"].(string); slices.Contains(justBreath, fold(said)) {
			delete(r.Fields.Values(), "remark")
			delete(r.Fields.Values(), "check")
			r.Doubts = nil
		}
		if len(r.Doubts) > 0 && !slices.ContainsFunc(r.Doubts, func(d Doubt) bool { return !d.Refused }) {
			continue // it names nothing: what it says cannot be so
		}
		remark, _ := r.Fields.Values()["remark"].(string)
		delete(r.Fields.Values(), "remark")
		delete(r.Fields.Values(), "check")
		r.Doubts = nil
		remark = strings.TrimRight(remark, ":;,. ")
		if as.p.TakesField("sides") && !slices.Contains(r.Said, "sides") { // most have no sides
			r.Fields.Values()["sides"] = "none"
		}
		if remark != "" && r.Fields.Values()["title"] == nil {
			r.Fields.Values()["title"] = capital(remark)
			r.Said = append(r.Said, "title")
			if as.p.ID != "posture" {
				r.Doubts = []Doubt{{LineError: *n.noSuchName(list), Kind: DoubtName}}
				r.Fields.Values()["check"] = DoubtName
			}
		}
	}
	return read, nil
}

// readStretch reads what is not in the practice book as a free stretch with its words as title; nil where there are no
// words.
func (n *Names) readStretch(list []token) ([]Reading, error) {
	named := slices.ContainsFunc(list, func(t token) bool { return t.quoted || strings.IndexFunc(t.key, isLetter) >= 0 })
	f := plan.NewStretch(plan.Free, "", breath.Int(plan.DefaultTalk))
	of := subject{f.Values(), nil}
	heard := of.say(list, func(int) bool { return false }, false)
	left, odd := oddOnes(list, heard.left)
	title := strings.TrimRight(wordsOf(list, titled(list, left)), ":;,. ")
	if of.f["title"] == nil && (title == "" || !named) {
		return nil, nil
	}
	if lone := len(heard.said) == 0 && !strings.Contains(title, " "); lone && of.f["title"] == nil {
		if near := n.noSuchName(list); len(near.Nearest) > 0 {
			return nil, near // a slip of the finger, or the beginning of a name
		}
	}
	if of.f["title"] == nil {
		of.f["title"] = capital(title)
	}
	of.f["check"] = DoubtName
	r := Reading{
		Fields: f, Said: append(heard.said, "title"), Doubts: []Doubt{{LineError: *n.noSuchName(list), Kind: DoubtName}},
	}
	of.keepOdd(&r, list, odd)
	return []Reading{r}, nil
}

// oddOnes tells numbers and counts that say nothing of a stretch from the words of it.
func oddOnes(list []token, left []int) (words, odd []int) {
	for _, i := range left {
		if t := list[i]; t.text == "x" || t.text == "@" || isCounts(t.text) || !t.refused.None() {
			odd = append(odd, i)
		} else {
			words = append(words, i)
		}
	}
	return words, odd
}

// keepOdd keeps them as a remark.
func (of subject) keepOdd(r *Reading, list []token, odd []int) {
	if len(odd) == 0 {
		return
	}
	of.f["remark"] = wordsOf(list, odd)
	r.Said = append(r.Said, "remark")
	if of.f["check"] == nil {
		of.f["check"] = DoubtWords
	}
	for _, i := range odd {
		r.Doubts = append(r.Doubts, Doubt{LineError: *notUnderstood(of, list[i]), Kind: DoubtWords})
	}
}

func (n *Names) entryOf(id string) *entry {
	i := slices.IndexFunc(n.entries, func(e entry) bool { return e.p != nil && e.p.ID == id && e.with == nil })
	return &n.entries[i]
}

// readAs reads a part as the thing that was hit.
func (n *Names) readAs(list []token, h hit) ([]Reading, error) {
	skip := func(i int) bool { return h.from <= i && i < h.to }
	if h.entry.passages != nil {
		for i, t := range list {
			if !skip(i) && !slices.Contains(fillers, t.key) {
				return nil, &LineError{At: t.at, End: t.end, Given: t.given, Why: fact.New("line.template-whole")}
			}
		}
		var all []Reading
		for _, f := range h.entry.passages {
			one := f.Clone()
			all = append(all, Reading{Fields: one, Said: append(slices.Sorted(maps.Keys(one.Values())), alwaysTold...)})
		}
		return all, nil
	}
	if h.entry.p == nil {
		return h.read(list, skip)
	}
	alone := !slices.ContainsFunc(list, func(t token) bool { return t.quoted })
	for i, t := range list {
		if !skip(i) && !slices.Contains(fillers, t.key) {
			alone = false
		}
	}
	course, err := plan.Course(h.entry.p)
	if err != nil {
		return nil, err
	}
	if alone && len(course) > 0 && h.entry.with == nil {
		all := make([]Reading, len(course))
		for i, f := range course {
			all[i] = Reading{Fields: f, Said: []string{"practice"}}
		}
		return all, nil
	}
	f := plan.NewFields(h.entry.p.ID)
	if len(course) == 1 {
		f = course[0]
	}
	of := subject{f.Values(), h.entry.p}
	if err := of.take(h.entry.with); err != nil {
		return nil, err
	}
	before := of.f["counts"]
	amount := h.amountBefore(of, list)
	heard := of.say(list, func(i int) bool { return i == amount || skip(i) }, false)
	if amount >= 0 && fmt.Sprint(of.f["rounds"]) != list[amount].number() { // something else was said of its length
		heard.left = append([]int{amount}, heard.left...)
		heard.unknown = append(heard.unknown, amount)
	}
	if side, named := h.entry.with["side"]; named && side != of.f["side"] {
		return nil, &LineError{Why: fact.New("line.other-side", "name", h.entry.name, "side", side)}
	}
	if h.entry.with != nil && of.f["title"] == nil && alikeCounts(before, of.f["counts"]) {
		of.f["title"] = h.entry.name
	}
	said := append(heard.said, slices.Sorted(maps.Keys(h.entry.with))...)
	if h.from < h.to {
		said = append(said, "practice")
	}
	r := Reading{Fields: f, Said: said}
	of.keep(&r, list, heard)
	return of.repeated(of.onBothSides(r, list)), nil
}

// mostRepeats is how often a passage is repeated in a line at most.
const mostRepeats = 12

// repeated reads "2 x 5 min with 1 min rest" as so many passages, with natural breath between.
func (of subject) repeated(list []Reading) []Reading {
	n := whole(fmt.Sprint(of.f[repeats]))
	delete(of.f, repeats)
	if n < 2 || len(list) != 1 {
		return list
	}
	one := list[0]
	rest, rests := of.f["rest_between"].(json.Number)
	delete(of.f, "rest_between")
	for range min(n, mostRepeats) - 1 {
		if rests {
			between := plan.NewStretch(plan.Free, "Rest", breath.Int(plan.DefaultTalk))
			between.Values()["seconds"] = rest
			list = append(list, Reading{Fields: between, Said: []string{"seconds", "title"}})
		}
		again := one
		again.Fields = one.Fields.Clone()
		list = append(list, again)
	}
	return list
}

// keep keeps what is not understood as a remark on the passage, in the order in which it was written.
func (of subject) keep(r *Reading, list []token, heard heard) {
	remark := strings.Join(runsOf(list, heard.left), " ")
	if remark == "" {
		return
	}
	of.f["remark"] = remark
	r.Said = append(r.Said, "remark")
	for _, i := range heard.unknown {
		if list[i].text == "," || list[i].key == "where" || slices.Contains(whereWords, list[i].key) {
			continue
		}
		why := notUnderstood(of, list[i])
		r.Doubts = append(r.Doubts, Doubt{LineError: *why, Kind: DoubtWords})
	}
	if len(r.Doubts) > 0 {
		of.f["check"] = DoubtWords
	}
}

// runsOf returns the words of tokens that stand together, without runs of words that say nothing by themselves.
func runsOf(list []token, left []int) (runs []string) {
	for len(left) > 0 {
		n := 1
		for n < len(left) && left[n] == left[n-1]+1 {
			n++
		}
		says := func(i int) bool { return !slices.Contains(fillers, list[i].key) }
		if text := wordsOf(list, trimmed(list, left[:n])); text != "" && slices.ContainsFunc(left[:n], says) {
			runs = append(runs, text)
		}
		left = left[n:]
	}
	return runs
}

// whereWords are words that say where and how people are. They are a remark that nobody needs to look at again.
var whereWords = []string{
	"standing", "seated", "sitting", "lying", "kneeling", "chair", "wall", "back", "side", "belly", "floor", "ears",
	"eyes",
	"hands", "hand", "over", "open", "closed", "knees", "legs", "feet", "on", "the", "against", "with", "on", "soft",
	"softly", "gently", "gentle", "quiet", "quietly", "easy", "light", "relaxed", "blanket", "bolster", "partner",
	"partners",
	"pairs", "together", "alone", "stehend", "sitzend", "liegend", "liegen", "sitzen", "stehen", "rucken", "stuhl", "in",
	"down", "bent", "crossed",
	"heels", "apart", "savasana", "shavasana", "supine", "prone", "bolster", "out", "loud", "aloud", "shut",
	"mudra", "chin", "jnana", "gyan", "shanmukhi", "straight", "tall",
	"shoulders", "palms", "thumbs", "covered", "cushion", "block", "mat", "at",
	"under", "head", "arms", "wide", "up", "forward", "deep", "deeply", "smooth", "smoothly", "full", "long",
}

// onBothSides reads "each side" of a practice that has one side as a passage for either.
func (of subject) onBothSides(r Reading, list []token) []Reading {
	if minutes := of.f["minutes"]; minutes != nil && of.p.TakesField("breaths") && slices.Contains(r.Said, "minutes") {
		return of.heldForATime(r)
	}
	first, second := "left", "right"
	switch {
	case !of.p.OneSided() || !slices.ContainsFunc(list, func(t token) bool {
		return slices.Contains([]string{"bothsides", "left-right", "right-left"}, t.key)
	}):
		return []Reading{r}
	case slices.ContainsFunc(list, func(t token) bool { return t.key == "right-left" }) || of.f["side"] == "right":
		first, second = second, first
	}
	other := r
	other.Fields = r.Fields.Clone()
	r.Fields.Values()["side"], other.Fields.Values()["side"] = first, second
	for _, one := range []Reading{r, other} {
		if title, _ := one.Fields.Values()["title"].(string); strings.HasSuffix(title, "nostril") {
			delete(one.Fields.Values(), "title")
		}
	}
	return []Reading{r, other}
}

// heldForATime reads a posture with a length in time: everyone breathes at their own pace in it, on one side after the
// other.
func (of subject) heldForATime(r Reading) []Reading {
	values := r.Fields.Values()
	values["pace"] = "own"
	delete(values, "rounds")
	delete(values, "breaths")
	sides, _ := values["sides"].(string)
	first, second, both := strings.Cut(sides, "-")
	if !both {
		return []Reading{r}
	}
	other := r
	other.Fields = r.Fields.Clone()
	values["sides"], other.Fields.Values()["sides"] = first, second
	return []Reading{r, other}
}

// amountBefore takes a number that stands directly before the name for rounds, "5 sun salutations", and returns where
// it
// is; -1 if there is none.
func (h hit) amountBefore(of subject, list []token) int {
	i := h.from - 1
	if h.to == 0 || i < 0 || list[i].number() == "" || of.p.FillsMinutes() || of.strokes() || of.open() ||
		i > 0 && slices.Contains([]string{"x", "@", "tempo", "at"}, list[i-1].key) {
		return -1
	}
	n := whole(list[i].number())
	if n < 1 || n > plan.MaxRounds || fmt.Sprint(n) != list[i].number() {
		return -1
	}
	setRounds(of, matched{numbers: []string{list[i].number()}})
	return i
}

// alikeCounts reports whether two breaths go by the same name: each phase is there in both, and as long as the inhale,
// longer or shorter in both.
func alikeCounts(a, b any) bool {
	if a == b {
		return true
	}
	first, _ := a.(string)
	second, _ := b.(string)
	x, err := breath.ParseCounts(first)
	y, err2 := breath.ParseCounts(second)
	if err != nil || err2 != nil {
		return false
	}
	shape := func(c breath.Counts) [5]bool {
		return [5]bool{c.Hold > 0, c.Empty > 0, c.Exhale == c.Inhale, c.Exhale > c.Inhale, c.Hold == c.Inhale}
	}
	return shape(x) == shape(y)
}

// take gives the passage the fields of a preset.
func (of subject) take(with map[string]any) error {
	preset, err := plan.FieldsOf(with)
	if err != nil {
		return err
	}
	if preset.GivesLength() {
		delete(of.f, "rounds")
		delete(of.f, "minutes")
	}
	maps.Copy(of.f, preset.Values())
	return nil
}

// errNotThis says that a part is not what was hit.
var errNotThis = errors.New("unfit")

// read reads a talk or free breathing. What is not its length is its title, or, of a talk, what the teacher wants to
// say: its title is for the room, so it must be in quotation marks or marked "(room)".
func (h hit) read(list []token, skip func(int) bool) ([]Reading, error) {
	e := h.entry
	f := plan.NewStretch(e.kind, e.title, breath.Int(plan.DefaultTalk))
	of := subject{f.Values(), nil}
	heard := of.say(list, skip, false)
	left, odd := oddOnes(list, heard.left)
	if (h.weight <= slipped || h.share <= almost) && len(trimmed(list, left)) > 0 {
		return nil, errNotThis // a slip is no reason to take the rest for its title
	}
	text, forRoom := h.wordsIn(list, left)
	quoted := slices.ContainsFunc(list, func(t token) bool { return t.quoted })
	field := "title"
	if quoted || e.kind == plan.Talk && !forRoom {
		field = "script"
	}
	r := Reading{Fields: f}
	if text != "" {
		before := len(left) > 0 && left[0] < h.from
		switch {
		case quoted:
		case before && (field == "title" || e.joins): // "guided meditation"
			whole := append(slices.Clone(left), span(h.from, h.to)...)
			slices.Sort(whole)
			whole = trimmed(list, whole)
			for len(whole) > 1 && slices.Contains([]string{"with", "to", "a", "the"}, list[whole[0]].key) {
				whole = whole[1:]
			}
			text = capital(wordsOf(list, whole))
		case e.joins:
			text = e.title + " " + text
		case field == "title" && h.to < len(list) && list[h.to].key == "in": // "relaxation in savasana"
			whole := append(span(h.from, h.to), h.to)
			text = capital(strings.TrimRight(wordsOf(list, titled(list, append(whole, left...))), ":;,. "))
		}
		if field == "title" && text != "" {
			text = capital(text)
		}
		of.f[field] = text
		heard.said = append(heard.said, field)
	}
	r.Said = heard.said
	of.keepOdd(&r, list, odd)
	return []Reading{r}, nil
}

func span(from, to int) []int {
	list := make([]int, 0, to-from)
	for i := from; i < to; i++ {
		list = append(list, i)
	}
	return list
}

// roomMarks are the words by which a teacher marks the words of a talk for the room.
var roomMarks = []string{"(room)", "(all)"}

// wordsIn returns the words of those tokens, and whether they are marked for the room.
func (h hit) wordsIn(list []token, left []int) (text string, forRoom bool) {
	marked := func(i int) bool { return slices.Contains(roomMarks, list[i].key) }
	forRoom = slices.ContainsFunc(left, marked)
	left = slices.DeleteFunc(slices.Clone(left), marked)
	if h.entry.joins && len(left) > 0 && list[left[0]].key == "and" {
		return wordsOf(list, append(left[:1:1], trimmed(list, left[1:])...)), forRoom
	}
	return wordsOf(list, trimmed(list, left)), forRoom
}

// titled leaves out the small words at the ends of a title: "opening circle" keeps its first.
func titled(list []token, left []int) []int {
	small := func(i int) bool {
		return slices.Contains([]string{
			",", "and", "with", "to", "a", "an", "the", "for", "of", "we", "i", "do", "let", "lets", "us", "some", "about", "at",
			"by", "then", "begin", "start", "finish", "from", "on", "please", "maybe", "each", "another",
		}, list[i].key)
	}
	for len(left) > 0 && small(left[0]) {
		left = left[1:]
	}
	for len(left) > 0 && small(left[len(left)-1]) {
		left = left[:len(left)-1]
	}
	return left
}

// sayMore are fillers that say something beside a word that is no filler.
var sayMore = []string{"first", "side", "nostril", "counts", "ratio", "open", "close", "only", "another", "more",
	"about", "around"}

// trimmed leaves out the words at the ends that say nothing by themselves.
func trimmed(list []token, left []int) []int {
	little := func(i int) bool {
		return slices.Contains(fillers, list[i].key) && !slices.Contains(sayMore, list[i].key)
	}
	vague := func(i int) bool { return list[i].key == "about" || list[i].key == "around" }
	for k := len(left) - 1; k >= 0 && (little(left[k]) || vague(left[k])); k-- {
		if list[left[k]].key == "in" && k > 0 && left[k-1] == left[k]-1 && !little(left[k-1]) {
			break // "check in"
		}
		left = left[:k]
	}
	for len(left) > 0 && little(left[0]) {
		if slices.Contains([]string{"on", "the", "to", "with"}, list[left[0]].key) && len(left) > 1 &&
			left[1] == left[0]+1 {
			break // "on the back"
		}
		left = left[1:]
	}
	return left
}

// wordsOf returns the tokens as they were written.
func wordsOf(list []token, left []int) string {
	var words strings.Builder
	for k, i := range left {
		if k > 0 && list[i].at == list[left[k-1]].at {
			continue // two tokens of one word
		}
		comma := list[i].text == "," || list[i].text == ";"
		if comma && (words.Len() == 0 || k > 0 && list[left[k-1]].text == ",") {
			continue
		}
		if words.Len() > 0 && !comma {
			words.WriteByte(' ')
		}
		words.WriteString(list[i].given)
	}
	return words.String()
}

// ambiguous reports whether something else fits as well as the hit.
func ambiguous(found []hit, h hit) bool {
	return slices.ContainsFunc(found, func(other hit) bool {
		return other.entry != h.entry && other.from == h.from && other.to == h.to && rank(other) == rank(h) &&
			other.share > h.share*0.7 &&
			!sameThing(other.entry, h.entry)
	})
}

// sameThing reports whether one of two is a preset of the other: the practice itself is meant then.
func sameThing(a, b *entry) bool { return a.p != nil && a.p == b.p && (a.with == nil || b.with == nil) }

func couldBe(list []token, found []hit, h hit) *LineError {
	var names []string
	for _, other := range found {
		if other.from == h.from && other.to == h.to && rank(other) == rank(h) &&
			!slices.Contains(names, lower(other.entry.name)) {
			names = append(names, lower(other.entry.name))
		}
	}
	given := list[h.from].given
	return &LineError{
		At:      list[h.from].at,
		End:     list[h.to-1].end,
		Given:   given,
		Why:     fact.New("line.ambiguous"),
		Nearest: names[:min(3, len(names))],
	}
}

func lower(name string) string {
	_, size := utf8.DecodeRuneInString(name)
	return strings.ToLower(name[:size]) + name[size:]
}

// notUnderstood says what is expected in the place of a word, and what is nearest to it.
func notUnderstood(of subject, t token) *LineError {
	if !t.refused.None() {
		return &LineError{
			At:      t.at,
			End:     t.end,
			Given:   t.given,
			Why:     fact.New("line.word-refused", "given", t.given, "why", t.refused),
			Refused: true,
		}
	}
	if known(t.key) {
		return &LineError{
			At:      t.at,
			End:     t.end,
			Given:   t.given,
			Why:     fact.New("line.not-here", "given", t.given, "expects", of.expects()),
			Refused: true,
		}
	}
	return &LineError{At: t.at, End: t.end, Given: t.given, Why: of.expects(), Nearest: nearest(t.text, of.words())}
}

// known reports whether a word is one of the grammar, so that it is not misspelt but in the wrong place.
func known(word string) bool {
	return slices.ContainsFunc(forms, func(f form) bool {
		for element := range strings.FieldsSeq(f.pattern) {
			if slices.Contains(strings.Split(strings.TrimSuffix(element, "?"), "|"), word) {
				return true
			}
		}
		return false
	})
}

// expects returns what can be said of the passage, in short.
func (of subject) expects() fact.Fact {
	switch {
	case of.p == nil:
		return fact.New("expects.stretch")
	case of.strokes():
		return fact.New("expects.strokes")
	case of.open():
		return fact.New("expects.open")
	case of.p != nil && of.p.Kind.HasFixedCounts():
		return fact.New("expects.fixed")
	}
	return fact.New("expects.counted")
}

// unnamed is the error of a line that names nothing.
func (n *Names) unnamed(list []token) error { return n.noSuchName(list) }

// noSuchName says that what a line names is not in the practice book.
func (n *Names) noSuchName(list []token) *LineError {
	for _, t := range list {
		if t.quoted || t.number() != "" || slices.Contains(fillers, t.key) || isCounts(t.text) || t.text == "x" ||
			t.text == "@" {
			continue
		}
		return &LineError{
			At:      t.at,
			End:     t.end,
			Given:   t.given,
			Why:     fact.New("line.no-such-name"),
			Nearest: n.nearestNames(t.text),
		}
	}
	return &LineError{Why: fact.New("line.name-it")}
}

// nearestNames returns what is called by words like this one.
func (n *Names) nearestNames(word string) []string {
	type near struct {
		name string
		d    int
	}
	var list []near
	for i := range n.entries {
		best := 4
		for _, name := range n.entries[i].names {
			for _, w := range name.words {
				d := slips(word, w, 2)
				if len(word) >= 2 && strings.HasPrefix(w, word) {
					d = 1
				}
				if d <= (len(word)+1)/2 && d < best {
					best = d
				}
			}
		}
		if best < 4 {
			list = append(list, near{lower(n.entries[i].name), best})
		}
	}
	slices.SortStableFunc(list, func(a, b near) int { return a.d - b.d })
	var names []string
	for _, l := range list[:min(3, len(list))] {
		names = append(names, l.name)
	}
	return names
}

// nearest returns the words that are most like one, up to three.
func nearest(word string, among []string) []string {
	best := 3
	var found []string
	for _, w := range among {
		switch d := slips(word, w, 2); {
		case d > (len(word)+2)/3:
		case d < best:
			best, found = d, []string{w}
		case d == best:
			found = append(found, w)
		}
	}
	return found[:min(3, len(found))]
}

// Shorten rewrites a passage from the short way of writing it, "4:4:8 x6 @50": counts, rounds or a time, tempo, side
// and own pace, as Names.Read takes them. The error, a LineError, says which word was not understood; whether the
// values are allowed is for Read to say.
func Shorten(f plan.Fields, text string, own ...*practice.Practice) (plan.Fields, error) {
	next := maps.Clone(f.Values())
	for _, field := range append([]string{"fill", "fill_least"}, plan.InShort...) { // a length that is typed stays
		delete(next, field)
	}
	return said(f, next, text, true, own)
}

// Restate changes what the text says of a passage and leaves all else as it is: "30 strokes", "10 min", "words only".
// Errors are those of Shorten.
func Restate(f plan.Fields, text string, own ...*practice.Practice) (plan.Fields, error) {
	return said(f, maps.Clone(f.Values()), text, false, own)
}

// said returns the fields with what a text says of them; basic is only the short way of writing a passage.
func said(f plan.Fields, next map[string]any, text string, basic bool, own []*practice.Practice) (plan.Fields, error) {
	of := subject{f: next}
	if f.IsPractice() {
		of.p = plan.PracticeOf(f, own)
	}
	list := spoken(text, amounts(text, tokens(text, ""), noNames))
	heard := of.say(list, func(int) bool { return false }, basic)
	if len(heard.unknown) > 0 {
		t := list[heard.unknown[0]]
		if !t.refused.None() {
			return f, notUnderstood(of, t)
		}
		return f, &LineError{At: t.at, End: t.end, Given: t.given, Why: of.expects()}
	}
	return plan.FieldsWith(next), nil
}

// AsLineError returns the LineError that an error is, or nil.
func AsLineError(err error) *LineError {
	var line *LineError
	if errors.As(err, &line) {
		return line
	}
	return nil
}
