package line

import (
	"slices"
)

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
