package led

import (
	"cmp"
	"slices"

	"vastlantern/core/voice"
	"vastlantern/studio/contract"
)

// Speaker returns how a recorded voice says the texts: those that are made of them,
// and what is missing, the shortest first.
func Speaker(by *contract.KitVoice, texts []string) *contract.Speaker {
	speaker := &contract.Speaker{Name: by.Name, Said: map[string][]string{}, Missing: []string{}}
	recorded := func(plain string) bool { return by.Recordings[plain] != "" }
	for _, text := range texts {
		if text == "" || speaker.Said[text] != nil {
			continue
		}
		pieces := voice.Pieces(text, recorded)
		if pieces == nil {
			speaker.Missing = append(speaker.Missing, text)
			continue
		}
		for _, piece := range pieces {
			speaker.Said[text] = append(speaker.Said[text], by.Recordings[piece])
		}
	}
	slices.SortFunc(
		speaker.Missing,
		func(a, b string) int { return cmp.Or(cmp.Compare(len(a), len(b)), cmp.Compare(a, b)) },
	)
	speaker.Missing = slices.Compact(speaker.Missing)
	return speaker
}
