package desktest

import (
	"strings"

	"vastlantern/core/fact"
	"vastlantern/language"
	"vastlantern/studio/transfer"
)

// Words returns a fact, a pointer to one or an error as a person reads it; empty for none.
func Words(told any) string {
	switch told := told.(type) {
	case fact.Fact:
		return language.English().Text(told)
	case *fact.Fact:
		if told != nil {
			return language.English().Text(*told)
		}
	case error:
		return language.English().Error(told)
	case string:
		return told
	}
	return ""
}

// Lines returns what an import would change, as a person reads it.
func Lines(i *transfer.Import) string {
	var lines []string
	for _, line := range i.Lines() {
		lines = append(lines, Words(line))
	}
	return strings.Join(lines, "\n")
}
