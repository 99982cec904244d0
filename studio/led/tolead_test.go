package led_test

import (
	"encoding/json"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/led"
)

const late = `{"format": "vast-lantern-plan", "version": 1, "slot_min": 10, "starts_at": "2026-11-30T18:00:00Z",
	"tempo": 60, "passages": [{"type": "practice", "practice": "counted-breath", "counts": "5:5", "rounds": 60, "lead_in": 0},
	{"type": "practice", "practice": "kapalabhati", "strokes": 60, "rounds": 3}]}`

// A class that begins four minutes late ends when it was planned to.
func TestAClassIsFittedIntoWhatIsLeft(t *testing.T) {
	at := time.Date(2026, 11, 30, 18, 4, 0, 0, time.UTC)
	document, err := led.ToLead([]byte(late), nil, at, "experienced")
	require.NoError(t, err)
	class, err := led.Read(document)
	require.NoError(t, err)
	length := class.Led.Timeline().End
	assert.LessOrEqual(t, length, int64(6*60_000))
	assert.Greater(t, length, int64(5*60_000), "and not by more than a round")

	_, err = led.ToLead([]byte(late), nil, at.Add(10*time.Minute), "")
	assert.ErrorContains(t, err, "plan.time-passed")
	noEnd := `{"format": "vast-lantern-plan", "version": 1, "passages": [{"type": "free", "seconds": 9}]}`
	_, err = led.ToLead([]byte(noEnd), nil, at, "")
	assert.ErrorContains(t, err, "plan.no-end")
}

func TestPassagesAreLedInTheirGentleVariant(t *testing.T) {
	document, err := led.ToLead([]byte(late), []int{2}, time.Time{}, "")
	require.NoError(t, err)
	plain, err := led.ToLead([]byte(late), nil, time.Time{}, "")
	require.NoError(t, err)
	passages := func(document []byte) []json.RawMessage {
		var file struct{ Passages []json.RawMessage }
		require.NoError(t, json.Unmarshal(document, &file))
		return file.Passages
	}
	assert.JSONEq(t, string(passages(plain)[0]), string(passages(document)[0]))
	assert.NotEqual(t, string(passages(plain)[1]), string(passages(document)[1]))
}
