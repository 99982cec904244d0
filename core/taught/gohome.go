package taught

import (
	"cmp"
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
)

// CanGoHome returns the passages of a class that can go home, by their numbers, the one that was the point of the class
// first: the one that the plan says was; else, of the figure on which it stayed longest at a stretch, the longest
// passage, which is never a try-out; of several as long the one that asks for most, and rather the last. Practices that
// settle come last. lengths is how long each passage was led, in milliseconds.
func CanGoHome(p *plan.Plan, lengths []int64) []int {
	type figure struct{ practice, pattern string }
	type candidate struct {
		number   int
		point    bool
		settling bool
		length   int64
		stay     int64 // on its figure, with the passages before and after that have the same
		held     breath.Exact
	}
	of := func(i int) figure { return figure{p.Passages[i].Practice.ID, p.Passages[i].Pattern()} }
	var list []candidate
	for i := range p.Passages {
		one := &p.Passages[i]
		if one.Practice == nil || one.Trial || lengths[i] == 0 {
			continue
		}
		list = append(
			list,
			candidate{
				number: i + 1, point: one.Point, settling: one.Practice.Settling, length: lengths[i],
				held: one.Figures().LongestHold,
			},
		)
	}
	for from := 0; from < len(list); {
		to, stay := from, int64(0)
		for ; to < len(list) && of(list[to].number-1) == of(list[from].number-1); to++ {
			stay += list[to].length
		}
		for ; from < to; from++ {
			list[from].stay = stay
		}
	}
	slices.SortStableFunc(list, func(a, b candidate) int {
		return cmp.Or(
			later(b.point, a.point), later(a.settling, b.settling),
			-cmp.Compare(a.stay, b.stay), -cmp.Compare(a.length, b.length), -a.held.Cmp(b.held),
			-cmp.Compare(a.number, b.number),
		)
	})
	numbers := make([]int, len(list))
	for i, c := range list {
		numbers[i] = c.number
	}
	return numbers
}

// later puts what is so behind what is not.
func later(a, b bool) int {
	switch {
	case a == b:
		return 0
	case a:
		return 1
	}
	return -1
}
