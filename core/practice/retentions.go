package practice

import (
	_ "embed"
	"sync"

	"github.com/goccy/go-yaml"
)

// Retentions is the eight retentions that a classical text names.
type Retentions struct {
	Text       string      `yaml:"text"`
	Verse      string      `yaml:"verse"` // that lists them
	Retentions []Retention `yaml:"retentions"`
}

// Retention is one of them: a practice of the book, or why there is none.
type Retention struct {
	Name     string `yaml:"name"`
	Verses   string `yaml:"verses"`
	Practice string `yaml:"practice"` // id
	As       string `yaml:"as"`       // how the practice is done to be it, where that is not its usual way
	Why      string `yaml:"why"`      // empty if there is a practice
}

//go:embed retentions.yaml
var retentions []byte

// Classical returns the retentions of the Hatha Yoga Pradipika and of the Gheranda Samhita. Their verses are from
// memory.
var Classical = sync.OnceValue(func() (texts []Retentions) {
	if err := yaml.Unmarshal(retentions, &texts); err != nil {
		panic(err) // a file of the program, which a test reads
	}
	return texts
})
