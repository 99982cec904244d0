package studio

import (
	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// MostHeard bounds what is kept of what was heard in one class: twelve times a minute for hours.
const MostHeard = 5000

// Bounds of one thing that was heard.
const (
	longestHeardMS = 10 * 60_000
	latestHeardMS  = 24 * 3600_000
)

// CheckHeard returns an error that says what is wrong with what was heard.
func CheckHeard(list []contract.Heard) error {
	if len(list) > MostHeard {
		return fact.New("heard.too-much", "given", len(list), "most", MostHeard)
	}
	for i, h := range list {
		strokes := h.Phase == breath.Stroke
		switch {
		case !strokes && !h.Phase.Moves():
			return fact.New("heard.phase", "number", i+1, "given", string(h.Phase))
		case h.FromMS < 0 || h.ToMS <= h.FromMS || h.ToMS-h.FromMS > longestHeardMS || h.ToMS > latestHeardMS:
			return fact.New("heard.time", "number", i+1, "from", h.FromMS, "to", h.ToMS)
		case strokes != (h.PerMinute > 0) || h.PerMinute < 0 || h.PerMinute > contract.FastestHeard:
			return fact.New("heard.rate", "given", h.PerMinute)
		}
	}
	return nil
}

// StoredHeard returns what was heard as it is stored.
func StoredHeard(list []contract.Heard) []store.Heard {
	stored := make([]store.Heard, len(list))
	for i, h := range list {
		stored[i] = store.Heard{Phase: string(h.Phase), FromMS: h.FromMS, ToMS: h.ToMS, PerMinute: h.PerMinute}
	}
	return stored
}
