package plan

import (
	"regexp"
	"strings"
)

// cardEnd is a line of three or more hyphens.
var cardEnd = regexp.MustCompile(`(?m)^[ \t]*-{3,}[ \t]*$`)

// Cards returns the parts of the teacher's own words for a talk or a rest, which are divided by lines of three hyphens.
// The teacher turns one after the other while it runs. Other passages have one part; none if nothing is written.
func (p *Passage) Cards() []string {
	parts := []string{p.Script}
	if p.Type != Practice {
		parts = cardEnd.Split(p.Script, -1)
	}
	var cards []string
	for _, part := range parts {
		if part = strings.Trim(part, "\n"); strings.TrimSpace(part) != "" {
			cards = append(cards, part)
		}
	}
	return cards
}
