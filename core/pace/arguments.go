package pace

import (
	"vastlantern/core/breath"
)

// Argument is one value that comes with an adjustment: its name in a script, what it is, and where it goes. A value of
// the wrong kind makes a script invalid; one that is out of range is refused when the adjustment is made.
type Argument struct {
	Name string
	Kind ArgumentKind
	// Or is the argument that can be given in the place of this one: exactly one of the two comes.
	Or *Argument
	// Set keeps a value of the kind: a breath.Exact, int64, [4]int, string, bool or []string.
	Set func(*Adjustment, any)
	// get is the value as a script has it, nil if it does not come.
	get func(*Adjustment) any
}

// ArgumentKind is what a value is.
type ArgumentKind int

// The kinds of values. A Flag need not be given.
const (
	Number     ArgumentKind = iota // a decimal number
	Whole                          // a whole number
	FourWholes                     // inhale, hold, exhale, empty hold
	Text
	Flag
	TextOrList // a word, or a list of words
)

var (
	toNumber = Argument{Name: "to", Kind: Number, Set: func(a *Adjustment, v any) { a.To = v.(breath.Exact) }, get: number}
	toWhole  = Argument{
		Name: "to",
		Kind: Whole,
		Set:  setTo,
		get:  func(a *Adjustment) any { return unless(a.Relative, a.To.Round()) },
	}
	deadline = Argument{Name: "to_ms", Kind: Whole, Set: setTo, get: func(a *Adjustment) any { return a.To.Round() }}
	toCounts = Argument{
		Name: "to",
		Kind: FourWholes,
		Set:  func(a *Adjustment, v any) { a.Counts = v.([4]int) },
		get:  func(a *Adjustment) any { return a.Counts },
	}
	toText   = Argument{Name: "to", Kind: Text, Set: setText, get: given}
	toPhases = Argument{Name: "to", Kind: TextOrList, Set: setWords, get: func(a *Adjustment) any {
		if a.Phases != nil {
			return a.Phases
		}
		return a.Text
	}}
	wholeRounds = Argument{Name: "rounds", Kind: Whole, Set: setTo, get: func(a *Adjustment) any { return a.To.Round() }}
	text        = Argument{Name: "text", Kind: Text, Set: setText, get: given}
	see         = Argument{
		Name: "see",
		Kind: Text,
		Set:  func(a *Adjustment, v any) { a.See = v.(string) },
		get:  func(a *Adjustment) any { return a.See },
	}
	carry = Argument{
		Name: "carry",
		Kind: Flag,
		Set:  func(a *Adjustment, v any) { a.Carry = v.(bool) },
		get:  func(a *Adjustment) any { return unless(!a.Carry, true) },
	}
	byOrTo = Argument{Name: "by", Kind: Whole, Or: &toWhole, Set: func(a *Adjustment, v any) {
		a.Relative, a.By = true, int(v.(int64))
	}, get: func(a *Adjustment) any { return unless(!a.Relative, a.By) }}
)

func setTo(a *Adjustment, v any) { a.To = breath.Int(v.(int64)) }

func setText(a *Adjustment, v any) { a.Text = v.(string) }

func setWords(a *Adjustment, v any) {
	switch v := v.(type) {
	case string:
		a.Text = v
	case []string:
		a.Phases = v
	}
}

func number(a *Adjustment) any { return a.To.Float() }

func given(a *Adjustment) any { return a.Text }

func unless(not bool, value any) any {
	if not {
		return nil
	}
	return value
}

// Values returns what comes with the adjustment, by the names in a script.
func (a Adjustment) Values() map[string]any {
	values := map[string]any{}
	for _, arg := range a.Do.Takes() {
		for one := &arg; one != nil; one = one.Or {
			if value := one.get(&a); value != nil {
				values[one.Name] = value
			}
		}
	}
	return values
}
