package practice

import (
	"slices"
	"strings"

	"vastlantern/core/fact"
)

// OwnPrefix begins the id of every practice of a teacher's own, so that none can be taken for one of the catalogue.
const OwnPrefix = "own-"

// ReadOwn reads a teacher's own practice, as Read does, and checks it against the one that it was made from.
func ReadOwn(data []byte) (*Practice, error) {
	p, err := Read(data)
	if err != nil {
		return nil, err
	}
	if !strings.HasPrefix(p.ID, OwnPrefix) || len(p.ID) == len(OwnPrefix) {
		return nil, fact.New("practice.id", "given", p.ID, "prefix", OwnPrefix)
	}
	return p, p.checkCare()
}

// checkCare makes sure that a teacher's own practice is no less careful than the one it was made from.
func (p *Practice) checkCare() error {
	if p.From == "" {
		return nil
	}
	base := Find(p.From)
	if base == nil {
		return fact.New("practice.from", "given", p.From)
	}
	for _, care := range base.Care {
		if !slices.Contains(p.Care, care) {
			return fact.New("practice.care-missing", "aspect", care, "name", base.Name)
		}
	}
	return nil
}
