// Package language turns facts into sentences, for the commands and for the pages and files that are handed out. The
// screens use the same catalogues (ui/src/language).
package language

import (
	"context"
	"embed"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"maps"
	"slices"
	"strings"
	"sync"

	"golang.org/x/text/language"

	"vastlantern/core/fact"
)

// Each language is a folder named by its tag (BCP 47).
//
//go:embed */facts.json */leading.json */planning.json
var files embed.FS

// parts is the files of a language with facts, by what the screens load together: those that every view needs, those of
// a class in progress, and those of preparing and looking back.
var parts = []string{"facts.json", "leading.json", "planning.json"}

// Catalogue is the messages of one language by their ids.
type Catalogue struct {
	tag      language.Tag
	messages map[string]message
}

// English is the catalogue that every other one is measured by.
func English() *Catalogue { return In("en") }

var catalogues sync.Map // Catalogue by tag

// In returns the catalogue of a language, such as "de"; English for one that there is not. Each is read once.
func In(tag string) *Catalogue {
	if there, ok := catalogues.Load(tag); ok {
		return there.(*Catalogue)
	}
	if !slices.Contains(Tags(), tag) {
		return In("en")
	}
	c := empty(tag)
	for _, name := range parts {
		data, err := files.ReadFile(tag + "/" + name)
		if errors.Is(err, fs.ErrNotExist) {
			data, err = files.ReadFile("en/" + name) // a language can lack a file
		}
		if err := errors.Join(err, c.read(data)); err != nil {
			panic(err) // it is part of the program, and a test reads it
		}
	}
	there, _ := catalogues.LoadOrStore(tag, c)
	return there.(*Catalogue)
}

// Tags returns the tags of the languages that there are, sorted.
func Tags() []string {
	folders, err := files.ReadDir(".")
	if err != nil {
		panic(err) // the folders are part of the program
	}
	var tags []string
	for _, f := range folders {
		tags = append(tags, f.Name())
	}
	return tags
}

// whole reports whether a language has all files of facts.
func whole(tag string) bool {
	return !slices.ContainsFunc(parts, func(name string) bool {
		_, err := fs.Stat(files, tag+"/"+name)
		return err != nil
	})
}

func empty(tag string) *Catalogue { return &Catalogue{language.Make(tag), map[string]message{}} }

// read adds the messages of a file.
func (c *Catalogue) read(data []byte) error {
	var texts map[string]string
	if err := json.Unmarshal(data, &texts); err != nil {
		return err
	}
	var errs []error
	for id, text := range texts {
		m, err := parse(text)
		if err != nil {
			errs = append(errs, fmt.Errorf("%s: %w", id, err))
		}
		c.messages[id] = m
	}
	return errors.Join(errs...)
}

type personsTag struct{}

// With returns the context of a person who reads a language.
func With(ctx context.Context, tag string) context.Context {
	return context.WithValue(ctx, personsTag{}, tag)
}

// Of returns the tag of the language of the person who asks, English if none is known.
func Of(ctx context.Context) string {
	if tag, ok := ctx.Value(personsTag{}).(string); ok {
		return tag
	}
	return "en"
}

// Wanted returns the language that a person wants: the one that was chosen, else the best of those that the browser
// accepts (RFC 9110, Accept-Language), else English. A language with only some of the files has to be chosen.
func Wanted(chosen, accepted string) string {
	tags := Tags()
	if slices.Contains(tags, chosen) {
		return chosen
	}
	there := []language.Tag{language.English} // the first is taken where none fits
	for _, tag := range tags {
		if whole(tag) {
			there = append(there, language.Make(tag))
		}
	}
	wanted, _, err := language.ParseAcceptLanguage(accepted)
	if err != nil {
		return "en"
	}
	_, i, _ := language.NewMatcher(there).Match(wanted...)
	return there[i].String()
}

// Tag returns the tag of the language.
func (c *Catalogue) Tag() string { return c.tag.String() }

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
