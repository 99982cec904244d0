package language

import (
	"fmt"
	"strconv"
	"strings"

	"golang.org/x/text/feature/plural"
	"golang.org/x/text/language"
	printer "golang.org/x/text/message"
	"golang.org/x/text/number"

	"vastlantern/core/fact"
)

// message is a text with places to fill in, in the syntax of ICU MessageFormat: {name}, {name, plural, one {# round}
// other {# rounds}} and {name, select, left {...} other {...}}. One addition of ours: {names, list, or} joins a list
// with a word, or with comma, space or newline. An apostrophe before a brace quotes up to the next one.
type message []piece

// piece writes one part of a message. number is what # stands for.
type piece interface {
	write(c *Catalogue, to *strings.Builder, args fact.Args, number string)
}

type (
	words    string
	hash     struct{}
	argument struct{ name string }
	list     struct{ name, with string }
	choice   struct {
		name   string
		plural bool
		cases  map[string]message
	}
)

func (w words) write(_ *Catalogue, to *strings.Builder, _ fact.Args, _ string) {
	to.WriteString(string(w))
}

func (hash) write(_ *Catalogue, to *strings.Builder, _ fact.Args, number string) {
	to.WriteString(number)
}

func (a argument) write(c *Catalogue, to *strings.Builder, args fact.Args, _ string) {
	to.WriteString(c.value(args[a.name]))
}

// separators stand between all of a list; any other word is before its last, after commas.
var separators = map[string]string{"comma": ", ", "space": " ", "newline": "\n"}

func (l list) write(c *Catalogue, to *strings.Builder, args fact.Args, _ string) {
	facts, _ := args[l.name].([]fact.Fact)
	between, last := separators[l.with], separators[l.with]
	if between == "" {
		between, last = ", ", " "+l.with+" "
	}
	for i, f := range facts {
		switch {
		case i == 0:
		case i == len(facts)-1:
			to.WriteString(last)
		default:
			to.WriteString(between)
		}
		to.WriteString(c.Text(f))
	}
}

func (ch choice) write(c *Catalogue, to *strings.Builder, args fact.Args, number string) {
	value := plain(args[ch.name])
	if f, isFact := args[ch.name].(fact.Fact); isFact {
		value = c.Text(f)
	}
	chosen, ok := ch.cases[value]
	if ch.plural {
		number = c.value(args[ch.name])
		if chosen, ok = ch.cases["="+value]; !ok {
			chosen, ok = ch.cases[pluralForm(c.tag, value)]
		}
	}
	if !ok {
		chosen = ch.cases["other"]
	}
	chosen.write(c, to, args, number)
}

func (m message) write(c *Catalogue, to *strings.Builder, args fact.Args, number string) {
	for _, p := range m {
		p.write(c, to, args, number)
	}
}

// names adds the names of the arguments that the message fills in.
func (m message) names(to map[string]bool) {
	for _, p := range m {
		switch p := p.(type) {
		case argument:
			to[p.name] = true
		case list:
			to[p.name] = true
		case choice:
			to[p.name] = true
			for _, one := range p.cases {
				one.names(to)
			}
		}
	}
}

// parse reads the text of a message.
func parse(text string) (message, error) {
	p := parser{rest: text}
	m, err := p.message(false)
	if err == nil && p.rest != "" {
		err = fmt.Errorf("a } too many before %q", p.rest)
	}
	return m, err
}

type parser struct{ rest string }

// message reads up to the end, or to the brace that closes it. inside a plural # is the number.
func (p *parser) message(inside bool) (message, error) {
	var m message
	for p.rest != "" {
		switch {
		case strings.HasPrefix(p.rest, "'{"), strings.HasPrefix(p.rest, "'}"):
			quoted, rest, _ := strings.Cut(p.rest[1:], "'")
			m, p.rest = append(m, words(quoted)), rest
		case p.rest[0] == '}':
			return m, nil
		case p.rest[0] == '{':
			one, err := p.place()
			if err != nil {
				return nil, err
			}
			m = append(m, one)
		case p.rest[0] == '#' && inside:
			m, p.rest = append(m, hash{}), p.rest[1:]
		default:
			end := strings.IndexAny(p.rest[1:], "{}#'") + 1
			if end == 0 {
				end = len(p.rest)
			}
			m, p.rest = append(m, words(p.rest[:end])), p.rest[end:]
		}
	}
	return m, nil
}

// place reads what is in braces.
func (p *parser) place() (piece, error) {
	i := strings.IndexAny(p.rest[1:], "{}")
	if i < 0 {
		return nil, fmt.Errorf("no } after %q", p.rest)
	}
	parts := strings.SplitN(p.rest[1:i+1], ",", 3)
	for k := range parts {
		parts[k] = strings.TrimSpace(parts[k])
	}
	closes := p.rest[i+1] == '}'
	switch {
	case closes && len(parts) == 1:
		p.rest = p.rest[i+2:]
		return argument{parts[0]}, nil
	case closes && len(parts) == 3 && parts[1] == "list":
		p.rest = p.rest[i+2:]
		return list{parts[0], parts[2]}, nil
	case len(parts) == 3 && (parts[1] == "plural" || parts[1] == "select"):
		comma := strings.Index(p.rest, parts[1]) + len(parts[1])
		p.rest = strings.TrimLeft(p.rest[comma:], ", ")
		return p.cases(choice{parts[0], parts[1] == "plural", map[string]message{}})
	}
	return nil, fmt.Errorf("not understood: %q", p.rest)
}

func (p *parser) cases(ch choice) (piece, error) {
	for {
		p.rest = strings.TrimLeft(p.rest, " ")
		if strings.HasPrefix(p.rest, "}") {
			p.rest = p.rest[1:]
			if _, ok := ch.cases["other"]; !ok {
				return nil, fmt.Errorf("%s has no case other", ch.name)
			}
			return ch, nil
		}
		name, rest, found := strings.Cut(p.rest, "{")
		if !found {
			return nil, fmt.Errorf("no { in %q", p.rest)
		}
		p.rest = rest
		one, err := p.message(ch.plural)
		if err != nil {
			return nil, err
		}
		if !strings.HasPrefix(p.rest, "}") {
			return nil, fmt.Errorf("the case %s of %s does not end", name, ch.name)
		}
		p.rest = p.rest[1:]
		ch.cases[strings.TrimSpace(name)] = one
	}
}

// forms is what ICU calls the plural forms.
var forms = map[plural.Form]string{
	plural.Zero: "zero", plural.One: "one", plural.Two: "two",
	plural.Few: "few", plural.Many: "many", plural.Other: "other",
}

// pluralForm returns which form a language takes with a number (Unicode CLDR, cardinal).
func pluralForm(tag language.Tag, number string) string {
	whole, after, _ := strings.Cut(strings.TrimPrefix(number, "-"), ".")
	i, err := strconv.Atoi(whole)
	if err != nil {
		return "other"
	}
	digits := len(after)
	visible, _ := strconv.Atoi(after)
	return forms[plural.Cardinal.MatchPlural(tag, i, digits, digits, visible, visible)]
}

// value returns one argument as it is in a text: numbers have the decimal sign of the language.
func (c *Catalogue) value(arg any) string {
	switch arg := arg.(type) {
	case fact.Fact:
		return c.Text(arg)
	case float64:
		// Ten digits, as the screens write it.
		most := number.MaxFractionDigits(10)
		return printer.NewPrinter(c.tag).Sprint(number.Decimal(arg, number.NoSeparator(), most))
	}
	return plain(arg)
}

// plain returns an argument as the program writes it.
func plain(arg any) string {
	switch arg := arg.(type) {
	case nil:
		return ""
	case string:
		return arg
	case int:
		return strconv.Itoa(arg)
	case float64:
		return strconv.FormatFloat(arg, 'f', -1, 64)
	}
	return fmt.Sprint(arg)
}
