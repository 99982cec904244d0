package e2e

import (
	"encoding/csv"
	"encoding/json"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/studio/contract"
)

// rendered renders the ticks of a score's first ten seconds offline, which is exact, and returns where sound begins
// after silence, in milliseconds, and how much of each tick is in the left channel.
const rendered = `async (score, channel) => {
	const rate = 8000, seconds = 10;
	const context = new OfflineAudioContext(2, rate * seconds, rate);
	const { tonesOf, play } = await window.lanternSound();
	for (const tone of tonesOf(score)) {
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

// unpacked is a score as the views of a page have it.
type unpacked contract.Score

func listen(t *testing.T, th *theater, page *screen, score contract.Score, channel map[string]bool) (h heard) {
	t.Helper()
	require.NoError(t, json.Unmarshal([]byte(th.eval(page, rendered, unpacked(score), channel).Str()), &h))
	return h
}

// Sound is scheduled as the timeline says: a tick at each count, on the side that breathes, and a second one where the
// nostril changes after the phase.
func TestSoundIsScheduledAsTheTimelineSays(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var plan contract.Plan
	require.NoError(
		t,
		th.program.Post("/api/plans", `{"document": {"format": "vast-lantern-plan", "version": 1, "tempo": 53, "passages": [
		{"type": "practice", "practice": "nadi-shodhana", "counts": "2:2", "rounds": 40, "lead_in": 0}]}}`, &plan),
	)
	var score contract.Score
	require.NoError(t, th.program.Lead(plan.ID, &score))
	page := th.page(fmt.Sprintf("/lead/%d", score.ClassID))
	th.see(page, `[data-testid="word"]`, "inhale|exhale")

	got := listen(t, th, page, score, map[string]bool{"mono": false, "swap": false})
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

	swapped := listen(t, th, page, score, map[string]bool{"mono": false, "swap": true})
	assert.Equal(t, "right", swapped.Sides[0], "speakers that face the class")
	mono := listen(t, th, page, score, map[string]bool{"mono": true, "swap": false})
	assert.Equal(t, "both", mono.Sides[0])

	th.tap(page, `button[aria-label="Sound"]`, "^")
	th.flip(page, "#sound-on")
	assert.False(t, th.act(page, "button", "Test left", "(e) => e.disabled").Bool(), "still silent")
}

// called renders the signs of a class offline, and returns when each begins, in milliseconds.
const called = `async (score) => {
	const { signsOf, sign } = await window.lanternSound();
	const rate = 8000, signs = signsOf(score);
	const context = new OfflineAudioContext(2, rate * (signs.at(-1).at / 1000 + 5), rate);
	for (const one of signs) sign(context, context.destination, one.which, "left", one.at / 1000);
	const buffer = await context.startRendering();
	const [left, right] = [buffer.getChannelData(0), buffer.getChannelData(1)];
	const onsets = [];
	let other = 0;
	for (let i = 0, quiet = rate; i < left.length; i++) {
		other = Math.max(other, Math.abs(right[i]));
		const sounds = Math.abs(left[i]) > 0.004;
		if (sounds && quiet > rate * 0.5) onsets.push(i / rate * 1000); // the notes of one sign are nearer
		quiet = sounds ? 0 : quiet + 1;
	}
	return JSON.stringify({ onsets, other });
}`

// With closed eyes the teacher hears the calls when the cues of the class have them, what waits, and again after twenty
// seconds, and that the slot is nearly over; in one ear, if wanted.
func TestTheCallsAreHeardWhenTheCuesHaveThem(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var plan contract.Plan
	require.NoError(
		t,
		th.program.Post(
			"/api/plans",
			`{"document": {"format": "vast-lantern-plan", "version": 1, "tempo": 60, "slot_min": 12, "passages": [
		{"type": "practice", "practice": "counted-breath", "counts": "6:2:12", "rounds": 12, "lead_in": 0},
		{"type": "practice", "practice": "counted-breath", "counts": "4:4", "minutes": 3, "lead_in": 0},
		{"type": "practice", "practice": "nadi-shodhana", "pace": "own", "minutes": 3},
		{"type": "talk", "seconds": 30, "wait": true}]}}`,
			&plan,
		),
	)
	var score contract.Score
	require.NoError(t, th.program.Lead(plan.ID, &score))
	page := th.page(fmt.Sprintf("/lead/%d", score.ClassID))
	th.see(page, `[data-testid="word"]`, ".")

	out := lantern(t, plan.Document, "cues", "-")
	rows, err := csv.NewReader(strings.NewReader(out)).ReadAll()
	require.NoError(t, err)
	var want []float64
	for _, row := range rows[1:] {
		if slices.Contains([]string{"last", "half", "minute", "half-minute"}, row[6]) {
			at, err := strconv.ParseFloat(row[0], 64)
			require.NoError(t, err)
			want = append(want, at)
		}
	}
	require.GreaterOrEqual(t, len(want), 6, "there are calls of each kind")
	waits := float64(score.Wait.PlannedEndMS)
	want = append(want, waits, waits+20_000, 10*60_000)
	slices.Sort(want)

	var got struct {
		Onsets []float64
		Other  float64
	}
	require.NoError(t, json.Unmarshal([]byte(th.eval(page, called, unpacked(score)).Str()), &got))
	require.Len(t, got.Onsets, len(want), "%v, not %v", got.Onsets, want)
	for i := range want {
		assert.InDelta(t, want[i], got.Onsets[i], 5, "sign %d", i+1)
	}
	assert.Zero(t, got.Other, "nothing is in the other ear")
}
