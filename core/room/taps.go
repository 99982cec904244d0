package room

import (
	"slices"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/plan"
)

// Beat is the room's own pace, from what was tapped.
type Beat struct {
	Interval breath.Exact // milliseconds, the median
	Spread   breath.Exact // half the range of the intervals that count, milliseconds
	Used     int          // intervals
	Aside    int          // intervals set aside
}

// ErrTaps says that a beat cannot be told from so few taps.
var ErrTaps = fact.New("taps.two")

// Taps tells the beat from the moments of taps, in milliseconds and in order: the median of their intervals. Those
// that differ from it by more than a third are set aside, as a tap that was missed or doubled (common practice, with
// no source).
func Taps(at []int64) (Beat, error) {
	var intervals []int64
	for i := 1; i < len(at); i++ {
		if d := at[i] - at[i-1]; d > 0 {
			intervals = append(intervals, d)
		}
	}
	if len(intervals) == 0 {
		return Beat{}, ErrTaps
	}
	slices.Sort(intervals)
	// The middle one itself, and not the mean of two: so at least one is never set aside.
	first := breath.Int(intervals[(len(intervals)-1)/2])
	kept := slices.DeleteFunc(slices.Clone(intervals), func(d int64) bool {
		away := breath.Int(d).Sub(first)
		if away.Sign() < 0 {
			away = away.Neg()
		}
		return first.Less(away.Times(3))
	})
	return Beat{
		Interval: median(kept),
		Spread:   breath.Ratio(kept[len(kept)-1]-kept[0], 2),
		Used:     len(kept),
		Aside:    len(intervals) - len(kept),
	}, nil
}

// median of a sorted list that is not empty.
func median(sorted []int64) breath.Exact {
	n := len(sorted)
	return breath.Ratio(sorted[(n-1)/2]+sorted[n/2], 2)
}

// Tempo returns the tempo, whole and within the range of the passage, at which one count, or where breaths were tapped
// one breath of the counts in force, takes as long as the room takes.
func (b Beat) Tempo(p *plan.Passage, m plan.Measure, breaths bool) breath.Exact {
	counts, still := 1, breath.Exact{}
	if breaths && !p.CountsStrokes() {
		counts = 0
		for _, ph := range p.Round(m) {
			switch {
			case ph.Breath > 1:
			case ph.Timed:
				still = still.Add(ph.Length)
			default:
				counts += ph.Counts + 1 - ph.First()
			}
		}
	}
	slowest, fastest := bounds(p)
	moving := b.Interval.Sub(still)
	if moving.Sign() <= 0 || counts == 0 {
		return fastest
	}
	tempo := breath.Int(60_000).Times(counts).Div(moving)
	return breath.Max(slowest, breath.Min(fastest, breath.Int(tempo.Round())))
}
