package language_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"vastlantern/language"
)

func TestNamesStandInTheOrderOfTheirLanguage(t *testing.T) {
	for tag, want := range map[string][]string{
		"en": {"abend", "Élan", "evening", "Zeit"},
		"de": {"Abend", "Übung", "Umkehr", "zuletzt"}, // DIN 5007-1: Ü as U
		"es": {"nube", "nunca", "ñandú", "ojo"},       // ñ is a letter of its own, after n
		"fr": {"côté", "école", "Élan", "expire"},
	} {
		names := slices.Clone(want)
		slices.Reverse(names)
		slices.SortFunc(names, language.Order(tag))
		assert.Equal(t, want, names, tag)
	}
}
