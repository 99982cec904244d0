// Package language turns facts into sentences, for the commands and for the pages and files that are handed out. The
// screens use the same catalogue, en.json (ui/src/language).
package language

import (
	_ "embed"
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"
	"sync"

	"vastlantern/core/fact"
)

//go:embed en.json
var english []byte

// Catalogue is the messages of one language by their ids.
type Catalogue struct{ messages map[string]message }

// English is the catalogue that ships. It is read once.
var English = sync.OnceValue(func() *Catalogue {
	c, err := read(english)
	if err != nil {
		panic(err) // it is part of the program, and a test reads it
	}
	return c
})

func read(data []byte) (*Catalogue, error) {
	var texts map[string]string
	if err := json.Unmarshal(data, &texts); err != nil {
		return nil, err
	}
	c := &Catalogue{make(map[string]message, len(texts))}
	var errs []error
	for id, text := range texts {
		m, err := parse(text)
		if err != nil {
			errs = append(errs, fmt.Errorf("%s: %w", id, err))
		}
		c.messages[id] = m
	}
	return c, errors.Join(errs...)
}

// Text returns the fact in words. One that the catalogue does not have is shown as it is, so that nothing is lost.
func (c *Catalogue) Text(f fact.Fact) string {
	if f.None() {
		return ""
	}
	m, known := c.messages[f.ID]
	if !known {
		return f.Error()
	}
	var text strings.Builder
	m.write(c, &text, f.Args, "")
	return text.String()
}

// Error returns an error in words: what it tells, and what those who wrapped it said around it.
func (c *Catalogue) Error(err error) string {
	var teller fact.Teller
	if err == nil {
		return ""
	}
	if !errors.As(err, &teller) {
		return err.Error()
	}
	return strings.Replace(err.Error(), teller.Error(), c.Text(teller.Tell()), 1)
}

// IDs returns every message that there is, sorted.
func (c *Catalogue) IDs() []string { return slices.Sorted(maps.Keys(c.messages)) }

// Args returns the names of the arguments that the message fills in, sorted.
func (c *Catalogue) Args(id string) []string {
	names := map[string]bool{}
	c.messages[id].names(names)
	return slices.Sorted(maps.Keys(names))
}
