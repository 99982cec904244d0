package plan

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/practice"
)

// reader reads the fields of one object and gathers what is wrong with them. Getters return the default where a
// field is absent or wrong, so that reading goes on and every error is found.
type reader struct {
	fields  object
	passage int
	name    string
	prefix  string
	errs    *Errors
}

func (o reader) has(field string) bool { _, there := o.fields[field]; return there }

// fail reports a field: allowed is the message that says what may be there.
func (o reader) fail(field, allowed string, args ...any) {
	o.failWith(field, fact.New(allowed, args...))
}

func (o reader) failWith(field string, allowed fact.Fact) {
	given := ""
	if value, there := o.fields[field]; there {
		given = shown(value)
	}
	*o.errs = append(
		*o.errs,
		FieldError{Passage: o.passage, Name: o.name, Field: o.prefix + field, Given: given, Allowed: allowed},
	)
}

// limits is a range of exact numbers.
type limits struct {
	low, high int64
	above     bool // low itself is not allowed
}

func (l limits) hold(x breath.Exact) bool {
	low := x.Cmp(breath.Int(l.low))
	return (low > 0 || low == 0 && !l.above) && x.Cmp(breath.Int(l.high)) <= 0
}

func (l limits) fact() fact.Fact {
	if l.above {
		return fact.New("range.above", "low", l.low, "high", l.high)
	}
	return fact.New("range.within", "low", l.low, "high", l.high)
}

func (o reader) number(field string, within limits, otherwise breath.Exact) breath.Exact {
	value, there := o.fields[field]
	if !there {
		return otherwise
	}
	if text, ok := value.(json.Number); ok {
		if x, err := breath.ParseExact(text.String()); err == nil && within.hold(x) {
			return x
		}
	}
	o.fail(field, "allowed.number", "range", within.fact())
	return otherwise
}

func (o reader) whole(field string, within limits, otherwise int) int {
	value, there := o.fields[field]
	if !there {
		return otherwise
	}
	if text, ok := value.(json.Number); ok {
		if x, err := breath.ParseExact(text.String()); err == nil && within.hold(x) {
			if n, ok := x.Whole(); ok {
				return n
			}
		}
	}
	o.fail(field, "allowed.whole", "range", within.fact())
	return otherwise
}

func (o reader) text(field string) string {
	value, there := o.fields[field]
	if !there {
		return ""
	}
	text, ok := value.(string)
	if !ok {
		o.fail(field, "allowed.text")
	}
	return text
}

func (o reader) flag(field string) bool {
	value, there := o.fields[field]
	if !there {
		return false
	}
	flag, ok := value.(bool)
	if !ok {
		o.fail(field, "allowed.flag")
	}
	return flag
}

// choice returns the first of the allowed words where the field is absent.
func choice[T ~string](o reader, field string, allowed ...T) T {
	value, there := o.fields[field]
	if !there {
		return allowed[0]
	}
	if text, ok := value.(string); ok && slices.Contains(allowed, T(text)) {
		return T(text)
	}
	words := make([]string, len(allowed))
	for i, word := range allowed {
		words[i] = string(word)
	}
	o.fail(field, "allowed.one-of", "words", strings.Join(words, ", "))
	return allowed[0]
}

func (o reader) counts(field string, otherwise breath.Counts) breath.Counts {
	value, there := o.fields[field]
	if !there {
		return otherwise
	}
	switch given := value.(type) {
	case string:
		if c, err := breath.ParseCounts(given); err == nil {
			return c
		}
	case []any:
		if terms, ok := wholes(given); ok && len(terms) == 4 {
			if c, err := breath.NewCounts(terms...); err == nil {
				return c
			}
		}
	}
	o.fail(field, "allowed.counts")
	return otherwise
}

func (o reader) airway(otherwise breath.Airway) breath.Airway {
	if !o.has("airway") {
		return otherwise
	}
	return choice(o, "airway", breath.ByNose, breath.OutByMouth, breath.InByMouth, breath.ByMouth)
}

func (o reader) aperture() practice.Aperture {
	aperture := practice.Aperture{Inhale: "wide", Exhale: "wide"}
	value, there := o.fields["aperture"]
	if !there {
		return aperture
	}
	fields, ok := value.(map[string]any)
	if !ok {
		o.fail("aperture", "allowed.aperture")
		return aperture
	}
	inside := reader{fields, o.passage, o.name, o.prefix + "aperture: ", o.errs}
	aperture.Inhale = choice(inside, "inhale", "wide", "narrow")
	aperture.Exhale = choice(inside, "exhale", "wide", "narrow")
	return aperture
}

// openSeconds reads the four planned lengths of open phases; the result is in milliseconds.
func (o reader) openSeconds(otherwise []int) (lengths [4]breath.Exact) {
	for i, s := range otherwise {
		lengths[i] = seconds(breath.Int(int64(s)))
	}
	value, there := o.fields["open_seconds"]
	if !there {
		return lengths
	}
	list, ok := value.([]any)
	ok = ok && len(list) == len(lengths)
	for i := 0; ok && i < len(list); i++ {
		text, isNumber := list[i].(json.Number)
		x, err := breath.ParseExact(text.String())
		if ok = isNumber && err == nil && openLimits.hold(x); ok {
			lengths[i] = seconds(x)
		}
	}
	if !ok {
		o.fail("open_seconds", "allowed.four-seconds", "range", openLimits.fact())
	}
	return lengths
}

func wholes(values []any) ([]int, bool) {
	terms := make([]int, 0, 4)
	for _, value := range values {
		text, ok := value.(json.Number)
		if !ok {
			return nil, false
		}
		x, err := breath.ParseExact(text.String())
		if err != nil {
			return nil, false
		}
		n, ok := x.Whole()
		if !ok {
			return nil, false
		}
		terms = append(terms, n)
	}
	return terms, true
}

// objects reads a list of objects, each with its own prefix for errors; entries that are no objects are errors.
func (o reader) objects(field string) []reader {
	value, there := o.fields[field]
	if !there {
		return nil
	}
	list, ok := value.([]any)
	if !ok {
		o.fail(field, "allowed.objects")
		return nil
	}
	objects := make([]reader, 0, len(list))
	for i, entry := range list {
		doc, ok := entry.(map[string]any)
		if !ok {
			bad := reader{object{field: entry}, o.passage, o.name, o.prefix, o.errs}
			bad.fail(field, "allowed.object-entry", "entry", i+1)
			continue
		}
		objects = append(objects, reader{doc, o.passage, o.name, fmt.Sprintf("%s%s %d: ", o.prefix, field, i+1), o.errs})
	}
	return objects
}

// screen reads what carries the count on the room's screens.
func (o reader) screen() Screen { return choice(o, "numbers", WithNumbers, WithLamps, WithNothing) }

// FingerWays are the ways of the fingers at the nose (core/school, question "fingers").
var FingerWays = []string{"folded", "brows", "little", "both"}

// ChinWays are the ways of the chin (core/school, question "chin").
var ChinWays = []string{"level", "bowed"}

// fingers reads one way of the fingers at the nose, or two with a space between.
func (o reader) fingers() []string {
	if !o.has("fingers") {
		return nil
	}
	ways := strings.Fields(o.text("fingers"))
	wrong := func(way string) bool { return !slices.Contains(FingerWays, way) }
	if len(ways) < 1 || len(ways) > 2 || slices.ContainsFunc(ways, wrong) || len(ways) == 2 && ways[0] == ways[1] {
		o.fail("fingers", "allowed.fingers", "words", strings.Join(FingerWays, ", "))
		return nil
	}
	return ways
}
