package taught

import (
	"cmp"
	"slices"

	"vastlantern/core/plan"
)

// Sum is what several classes come to, as for a year's summary. Times are milliseconds.
type Sum struct {
	Classes   int
	Taught    int64 // the classes from their start to their end
	Talks     int64 // of this, talks
	Free      int64 // natural breath and rests, planned as passages of their own
	Practices []PracticeSum
}

// PracticeSum is one practice of a Sum. Its time is that of its passages, from the lead-in to the closing. Led time,
// own pace and try-outs are told apart: nobody has counted the second, and the third was not yet teaching.
type PracticeSum struct {
	Practice string
	Name     string // as it was called last
	Classes  int    // in which it was taught, try-outs too
	Rounds   int    // led and kept, without try-outs
	Led      int64
	OwnPace  int64
	Trial    int64
}

// All returns all time of the practice.
func (p *PracticeSum) All() int64 { return p.Led + p.OwnPace + p.Trial }

// Add adds a class of so many milliseconds. Classes are added from the oldest on.
func (s *Sum) Add(length int64, passages []Passage) {
	s.Classes++
	s.Taught += length
	here := map[string]bool{}
	for _, p := range passages {
		switch {
		case p.Length == 0: // not reached
		case p.Type == plan.Talk:
			s.Talks += p.Length
		case p.Practice == "":
			s.Free += p.Length
		default:
			s.practice(p, !here[p.Practice])
			here[p.Practice] = true
		}
	}
}

// Join adds a sum of later classes.
func (s *Sum) Join(later Sum) {
	s.Classes += later.Classes
	s.Taught += later.Taught
	s.Talks += later.Talks
	s.Free += later.Free
	for _, p := range later.Practices {
		one := s.of(p.Practice)
		one.Name = p.Name
		one.Classes += p.Classes
		one.Rounds += p.Rounds
		one.Led += p.Led
		one.OwnPace += p.OwnPace
		one.Trial += p.Trial
	}
}

// of returns the sum of a practice.
func (s *Sum) of(practice string) *PracticeSum {
	i := slices.IndexFunc(s.Practices, func(one PracticeSum) bool { return one.Practice == practice })
	if i < 0 {
		i = len(s.Practices)
		s.Practices = append(s.Practices, PracticeSum{Practice: practice})
	}
	return &s.Practices[i]
}

func (s *Sum) practice(p Passage, first bool) {
	one := s.of(p.Practice)
	one.Name = p.Name
	if first {
		one.Classes++
	}
	switch {
	case p.Trial:
		one.Trial += p.Length
	case p.OwnPace:
		one.OwnPace += p.Length
	default:
		one.Led += p.Length
		one.Rounds += p.Rounds
	}
}

// Sort puts the practices in the order of their time, the longest first.
func (s *Sum) Sort() {
	slices.SortFunc(s.Practices, func(a, b PracticeSum) int {
		return cmp.Or(cmp.Compare(b.All(), a.All()), cmp.Compare(a.Practice, b.Practice))
	})
}
