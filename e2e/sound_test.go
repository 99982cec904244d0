package e2e

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/go-rod/rod"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/studio/contract"
)

// rendered renders the ticks of a score's first ten seconds offline, which is exact, and returns where sound begins after
// silence, in milliseconds, and how much of each tick is in the left channel.
const rendered = `async (score, channel) => {
	const rate = 8000, seconds = 10;
	const context = new OfflineAudioContext(2, rate * seconds, rate);
	const { tonesOf, play } = window.lanternSound;
	for (const tone of tonesOf(score.phases)) {
		if (tone.length < 40 && tone.at < (seconds - 0.5) * 1000) play(context, context.destination, tone, tone.at / 1000, tone.length / 1000, channel);
	}
	const buffer = await context.startRendering();
	const [left, right] = [buffer.getChannelData(0), buffer.getChannelData(1)];
	const onsets = [], sides = [];
	for (let i = 0, quiet = rate; i < left.length; i++) {
		const sounds = Math.abs(left[i]) + Math.abs(right[i]) > 0.004;
		if (sounds && quiet > rate * 0.02) {
			onsets.push(i / rate * 1000);
			let l = 0, r = 0;
			for (let j = i; j < i + rate * 0.03; j++) { l += left[j] ** 2; r += right[j] ** 2; }
			sides.push(l > 2 * r ? "left" : r > 2 * l ? "right" : "both");
		}
		quiet = sounds ? 0 : quiet + 1;
	}
	return JSON.stringify({ onsets, sides });
}`

type heard struct {
	Onsets []float64
	Sides  []string
}

func listen(t *testing.T, page *rod.Page, score contract.Score, channel map[string]bool) (h heard) {
	t.Helper()
	result, err := page.Eval(rendered, score, channel)
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal([]byte(result.Value.Str()), &h))
	return h
}

// Sound is scheduled as the timeline says: a tick at each count, on the side that breathes, and a second one where the
// nostril changes after the phase.
func TestSoundIsScheduledAsTheTimelineSays(t *testing.T) {
	th := open(t)
	var plan contract.Plan
	require.NoError(t, th.program.Post("/api/plans", `{"document": {"format": "vast-lantern-plan", "version": 1, "tempo": 53, "passages": [
		{"type": "practice", "practice": "nadi-shodhana", "counts": "2:2", "rounds": 40, "lead_in": 0}]}}`, &plan))
	var score contract.Score
	require.NoError(t, th.program.Lead(plan.ID, &score))
	page := th.page(fmt.Sprintf("/lead/%d", score.ClassID))
	th.see(page, `[data-testid="word"]`, "inhale|exhale")

	got := listen(t, page, score, map[string]bool{"mono": false, "swap": false})
	var onsets []float64
	var sides []string
	for _, row := range pace.Sheet(storedPlan(t, th, plan.ID)).Rows {
		if row.At >= 9500 {
			break
		}
		onsets, sides = append(onsets, float64(row.At)), append(sides, string(row.Through))
		if row.Phase == "inhale" && row.Count == row.Of { // the exhale goes out by the other side
			onsets, sides = append(onsets, float64(row.At)+110), append(sides, string(row.Through))
		}
	}
	require.Len(t, got.Onsets, len(onsets))
	for i := range onsets {
		assert.InDelta(t, onsets[i], got.Onsets[i], 4, "tick %d", i+1)
	}
	assert.Equal(t, sides, got.Sides)

	swapped := listen(t, page, score, map[string]bool{"mono": false, "swap": true})
	assert.Equal(t, "right", swapped.Sides[0], "speakers that face the class")
	mono := listen(t, page, score, map[string]bool{"mono": true, "swap": false})
	assert.Equal(t, "both", mono.Sides[0])

	th.see(page, `button[aria-label="Sound"]`, "^").MustEval("() => this.click()")
	page.MustElement("#sound-on").MustClick()
	th.see(page, "button", "Test left").MustEval("() => { if (this.disabled) throw new Error('still silent') }")
}
