package line

import (
	"fmt"
	"maps"
	"slices"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
)

// heard is what was made of the tokens of a line.
type heard struct {
	left    []int    // those that no form takes
	unknown []int    // those of them that say something
	said    []string // the fields that the others gave
}

// say reads the tokens as what is said of the passage. skip leaves out some of them: the name.
func (of subject) say(list []token, skip func(i int) bool, basicOnly bool) (h heard) {
	said := saidOnce{fields: map[string]int{}}
	for i := 0; i < len(list); {
		if skip(i) {
			i++
			continue
		}
		if list[i].quoted && !basicOnly {
			of.f["title"] = list[i].text
			i++
			continue
		}
		end := i // forms do not reach over the name
		for end < len(list) && !skip(end) {
			end++
		}
		taken, set := 0, func() {}
		for _, form := range forms {
			if basicOnly && !form.basic || !form.on(of) {
				continue
			}
			if n, found := match(form.pattern, of, list[:end], i); n > taken {
				taken, set = n, func() { form.set(of, found) }
			}
		}
		if taken == 0 {
			h.left = append(h.left, i)
			if basicOnly || !slices.Contains(fillers, list[i].key) {
				h.unknown = append(h.unknown, i)
			}
			taken = 1
		}
		before := maps.Clone(of.f)
		if list[i].refused = said.take(of, list[i:i+taken], i, set); !list[i].refused.None() {
			clear(of.f)
			maps.Copy(of.f, before) // what was said first stays
			h.unknown = append(h.unknown, i)
			for k := range taken {
				h.left = append(h.left, i+k)
				list[i+k].refused = list[i].refused
			}
		}
		i += taken
	}
	of.bareNumber(&h, list, said, skip)
	if at, rounds := said.fields["rounds"]; of.f["pace"] == "own" && rounds && of.counted() {
		delete(of.f, "minutes")
	} else if of.f["pace"] == "own" && rounds {
		delete(of.f, "rounds")
		for i := at; i < min(at+2, len(list)); i++ { // a number and what it is a number of
			list[i].refused = fact.New("line.own-pace-timed")
			h.left = append(h.left, i)
		}
		h.unknown = append(h.unknown, at)
		slices.Sort(h.left)
	} else if of.f["pace"] == "own" {
		delete(of.f, "rounds") // those of the practice: own pace is timed
	}
	h.said = slices.Sorted(maps.Keys(said.fields))
	return h
}

// saidOnce is what a line has said of a passage, and at which of its words. To say it again would drop what was said
// before.
type saidOnce struct {
	fields map[string]int
	phases [4]bool // that have counts: inhale, hold, exhale, empty hold
}

// phaseWords begin what gives one phase another count.
var phaseWords = []string{"inhale", "in", "hold", "exhale", "out", "empty"}

// take has a form set what it sets with these words, or reports why it cannot be so: what it sets was said before.
func (said *saidOnce) take(of subject, words []token, at int, set func()) (refused fact.Fact) {
	before := maps.Clone(of.f)
	for _, field := range plan.SaidOnce { // so that it shows which of them are set, though it be to what they were
		delete(of.f, field)
	}
	set()
	for field, value := range of.f {
		if !slices.Contains(plan.SaidOnce, field) && fmt.Sprint(before[field]) != fmt.Sprint(value) {
			said.fields[field] = at
		}
	}
	for _, field := range plan.SaidOnce {
		if of.f[field] == nil {
			if value, was := before[field]; was && (plan.TwinOf(field) == "" || of.f[plan.TwinOf(field)] == nil) {
				of.f[field] = value
			}
			continue
		}
		for _, other := range []string{field, plan.TwinOf(field)} {
			if _, twice := said.fields[other]; twice &&
				!(other == field && fmt.Sprint(before[field]) == fmt.Sprint(of.f[field])) {
				return fact.New("line.field-twice", "field", fact.New("field."+other))
			}
		}
		said.fields[field] = at
	}
	whole := slices.ContainsFunc(words, func(t token) bool { return isCounts(t.text) }) &&
		!slices.Contains([]string{"beside", "choice", "choose"}, words[0].key)
	part := slices.Contains(phaseWords, words[0].key) &&
		slices.ContainsFunc(words, func(t token) bool { return t.number() != "" })
	if !whole && !part || !of.counted() {
		return fact.Fact{}
	}
	said.fields["counts"] = at
	if whole && said.phases != [4]bool{} {
		return fact.New("line.counts-twice")
	}
	for phase, counts := range of.phases() {
		if whole && counts == 0 || part && phase != phaseOf(words) {
			continue
		}
		if said.phases[phase] {
			return fact.New("line.counts-twice")
		}
		said.phases[phase] = true
	}
	return fact.Fact{}
}

// phaseOf returns the phase, from 0, to which words give counts.
func phaseOf(words []token) int {
	if slices.ContainsFunc(words, func(t token) bool { return t.key == "empty" }) {
		return 3
	}
	return map[string]int{"inhale": 0, "in": 0, "hold": 1, "exhale": 2, "out": 2}[words[0].key]
}

// phases returns the counts of each phase.
func (of subject) phases() [4]int {
	if !of.counted() {
		return [4]int{}
	}
	c := of.counts()
	return [4]int{c.Inhale, c.Hold, c.Exhale, c.Empty}
}

// leastBareStrokes is the least number that is one of strokes where nothing else says so: "kapalabhati 108".
const leastBareStrokes = 10

// bareNumber takes a number that says nothing of what it is a number, of a practice whose length is not said, for its
// rounds, or its strokes: "square, a dozen". named tells that the word before it belongs to the name.
func (of subject) bareNumber(h *heard, list []token, said saidOnce, named func(i int) bool) {
	bare := slices.DeleteFunc(slices.Clone(h.unknown), func(i int) bool { return list[i].number() == "" })
	if len(bare) != 1 || !of.practice() || of.p.FillsMinutes() || of.open() {
		return
	}
	for _, field := range []string{"rounds", "minutes", "pace", "strokes", "breaths"} {
		if _, there := said.fields[field]; there {
			return
		}
	}
	i := bare[0]
	if spelled := list[i].given != list[i].text; i > 0 && list[i-1].text != "," && !spelled && !named(i-1) && !named(i+1) {
		return // "hodl 4"
	}
	n := whole(list[i].number())
	if n < 1 || n > plan.MaxRounds || fmt.Sprint(n) != list[i].number() {
		return
	}
	field := "rounds"
	if of.strokes() && n >= leastBareStrokes {
		field = "strokes"
	}
	of.give(field, numeral(list[i].number()), plan.TwinOf(field))
	said.fields[field] = i
	other := func(k int) bool { return k == i }
	h.left, h.unknown = slices.DeleteFunc(h.left, other), slices.DeleteFunc(h.unknown, other)
}
