package line

import (
	"errors"
	"math"
	"slices"
	"strings"

	"vastlantern/core/plan"
)

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
	named := h.entry != nil && h.entry.p != nil && h.entry.p.ID == "posture" // by that word alone: "posture du guerrier"
	if err != nil || read != nil && !(named && remarks(read)) {
		return read, h.entry, err
	}
	if named || posture(list) {
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
		if !whole(b) || and < 1 || list[and].key != "and" || b.entry.Title == "Rest" ||
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
	"dog", "rolls", "circles", "massage", "namaskar", "namaskara",
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
	"pose", "posture", "warrior", "plank", "lunge", "fold", "twist", "dog", "cobra", "mountain", "pigeon",
	"camel", "boat", "sphinx", "locust", "squat",
}

// onSides reports whether a part speaks of both sides of the body.
func onSides(list []token) bool {
	return slices.ContainsFunc(list, func(t token) bool {
		return !t.quoted && slices.Contains([]string{"bothsides", "right-left", "left-right"}, t.key)
	})
}
