// Package line reads what a teacher types: one passage a line, in the words of the trade and in any order, a whole
// class as text, and the teacher's own words below a passage. It writes them too. docs/decisions/14 says how a line is
// read.
package line

import (
	"errors"
	"maps"
	"slices"
	"strings"

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

// Understand is Read that also reports what the line gave, and so what is assumed.
func (n *Names) Understand(line string) ([]Reading, error) {
	list := spoken(line, tokens(line, n.language))
	if len(list) == 0 {
		return nil, &LineError{Why: fact.New("line.write-something")}
	}
	if len(list) > mostWords {
		return nil, &LineError{Why: fact.New("line.too-long", "words", len(list), "most", mostWords)}
	}
	var all []Reading
	var last *entry
	for _, part := range parts(list) {
		one, e, err := n.readPart(part, last)
		if err != nil {
			return nil, err
		}
		all, last = append(all, one...), e
	}
	return all, nil
}

// parts splits the tokens where another passage begins.
func parts(list []token) [][]token {
	var all [][]token
	for len(list) > 0 {
		i := slices.IndexFunc(list, func(t token) bool { return !t.quoted && (t.key == "then" || t.key == ";") })
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

// readPart reads one passage. Where it names nothing, it is what came before.
func (n *Names) readPart(list []token, last *entry) ([]Reading, *entry, error) {
	found := n.hits(list, false)
	var first error
	unclear := map[[2]int]float64{} // where a word could be more than one thing, as well as anything
	if last != nil && last.p != nil &&
		!slices.ContainsFunc(found, func(h hit) bool { return h.share > almost && h.entry.p == nil }) {
		if read, err := n.readAs(list, hit{entry: last}); err == nil {
			return read, last, nil
		}
	}
	for k, h := range found {
		if k > 60 || first != nil && k > 0 && h.weight < found[0].weight/2 {
			break
		}
		window := [2]int{h.from, h.to}
		if best, there := unclear[window]; there && rank(h) < best {
			continue
		}
		read, err := n.readAs(list, h)
		if err == nil && h.share > almost || err == nil && !ambiguous(found, h) {
			return read, h.entry, nil
		}
		if err == nil {
			err, unclear[window] = couldBe(list, found, h), rank(h)
		}
		if first == nil {
			first = err
		}
	}
	counts := slices.ContainsFunc(list, func(t token) bool { return isCounts(t.text) })
	if last == nil && counts {
		last = n.entryOf("counted-breath")
	}
	if last != nil {
		read, err := n.readAs(list, hit{entry: last})
		if err == nil || first == nil {
			return read, last, err
		}
	}
	if first == nil {
		first = n.unnamed(list)
	}
	return nil, nil, first
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
	heard := of.say(list, skip, false)
	if len(heard.unknown) > 0 {
		return nil, notUnderstood(of, list[heard.unknown[0]])
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
	return []Reading{{Fields: f, Said: said}}, nil
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

// read reads a talk or free breathing. What is not its length is its title, or, of a talk, what the teacher wants to
// say: its title is for the room, so it must be in quotation marks or marked "(room)".
func (h hit) read(list []token, skip func(int) bool) ([]Reading, error) {
	e := h.entry
	f := plan.NewStretch(e.kind, e.title, breath.Int(plan.DefaultTalk))
	of := subject{f.Values(), nil}
	heard := of.say(list, skip, false)
	if i := slices.IndexFunc(list, func(t token) bool { return !t.refused.None() }); i >= 0 {
		return nil, notUnderstood(of, list[i])
	}
	text, forRoom, err := h.wordsIn(list, heard.left)
	if err != nil {
		return nil, err
	}
	quoted := slices.ContainsFunc(list, func(t token) bool { return t.quoted })
	field := "title"
	if quoted || e.kind == plan.Talk && !forRoom {
		field = "script"
	}
	if text != "" {
		if e.joins && !quoted {
			text = e.title + " " + text
		}
		of.f[field] = text
		heard.said = append(heard.said, field)
	}
	return []Reading{{Fields: f, Said: heard.said}}, nil
}

// roomMarks are the words by which a teacher marks the words of a talk for the room.
var roomMarks = []string{"(room)", "(all)"}

// wordsIn returns the words of those tokens, and whether they are marked for the room.
func (h hit) wordsIn(list []token, left []int) (text string, forRoom bool, err error) {
	marked := func(i int) bool { return slices.Contains(roomMarks, list[i].key) }
	forRoom = slices.ContainsFunc(left, marked)
	left = slices.DeleteFunc(slices.Clone(left), marked)
	little := func(i int) bool { return slices.Contains(fillers, list[i].key) }
	for len(left) > 0 && little(left[len(left)-1]) {
		left = left[:len(left)-1]
	}
	for len(left) > 0 && little(left[0]) && !(h.entry.joins && list[left[0]].key == "and") {
		if slices.Contains([]string{"on", "the", "to", "with"}, list[left[0]].key) {
			break // "on the back"
		}
		left = left[1:]
	}
	var words strings.Builder
	for _, i := range left {
		// Words follow the name that they belong to, and a slip of the finger is no reason to take the rest for them.
		rounds := list[i].text == "x" || list[i].text == "@"
		if rounds || isCounts(list[i].text) || h.weight <= slipped || i < h.from {
			return "", false, &LineError{
				At:    list[i].at,
				End:   list[i].end,
				Given: list[i].given,
				Why:   subject{map[string]any{}, nil}.expects(),
			}
		}
		if i > 0 && list[i].at == list[i-1].at && slices.Contains(left, i-1) {
			continue // two tokens of one word
		}
		if words.Len() > 0 && list[i].text != "," {
			words.WriteByte(' ')
		}
		words.WriteString(list[i].given)
	}
	return words.String(), forRoom, nil
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

func couldBe(list []token, found []hit, h hit) error {
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

func lower(name string) string { return strings.ToLower(name[:1]) + name[1:] }

// notUnderstood says what is expected in the place of a word, and what is nearest to it.
func notUnderstood(of subject, t token) error {
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
func (n *Names) unnamed(list []token) error {
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
	for _, field := range plan.InShort {
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
	list := spoken(text, tokens(text, ""))
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
