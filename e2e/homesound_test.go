package e2e

import (
	"bytes"
	"encoding/base64"
	"fmt"
	"io"
	"math"
	"strings"
	"testing"

	"github.com/go-audio/wav"
	"github.com/hajimehoshi/go-mp3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/core/sheet"
	"vastlantern/studio/contract"
)

// saved returns the file that a page makes when the button is pressed, in place of saving it.
func saved(t *testing.T, th *theater, page *screen) []byte {
	t.Helper()
	th.eval(page, `() => {
		window.made = null;
		URL.createObjectURL = (blob) => { window.made = blob; return "data:,"; };
	}`)
	th.click(page, ".modal button", "Make the file")
	th.see(page, ".modal [role=status]", "is ready")
	text := th.eval(page, `async () => {
		const bytes = new Uint8Array(await window.made.arrayBuffer());
		let text = "";
		for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192));
		return btoa(text);
	}`).Str()
	file, err := base64.StdEncoding.DecodeString(text)
	require.NoError(t, err)
	return file
}

// onsets returns where sound begins after silence, in milliseconds, and in which channel it is louder.
func onsets(left, right []float64, rate int) (at []float64, sides []string) {
	const threshold = 0.004
	quiet := rate
	for i := range left {
		if math.Abs(left[i])+math.Abs(right[i]) <= threshold {
			quiet++
			continue
		}
		if quiet > rate/40 {
			var l, r float64
			for j := i; j < min(i+rate/35, len(left)); j++ {
				l, r = l+left[j]*left[j], r+right[j]*right[j]
			}
			at = append(at, 1000*float64(i)/float64(rate))
			side := "both"
			if l > 2*r {
				side = "left"
			} else if r > 2*l {
				side = "right"
			}
			sides = append(sides, side)
		}
		quiet = 0
	}
	return at, sides
}

// What goes home as sound has each tick within five milliseconds of the sheet, on its side; read back by libraries that
// are not ours.
func TestTheSoundThatGoesHome(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var plan contract.Plan
	const document = `{"format": "vast-lantern-plan", "version": 1, "tempo": 53, "passages": [{"type": "practice", ` +
		`"practice": "nadi-shodhana", "counts": "2:2", "rounds": %d, "closing": []}]}`
	require.NoError(t, th.program.Post("/api/plans", `{"document": `+fmt.Sprintf(document, 20)+`}`, &plan))
	var offer contract.HomeOffer
	require.NoError(
		t,
		th.program.Post(
			fmt.Sprintf("/api/plans/%d/home", plan.ID),
			`{"passage": 1, "minutes": 2, "pieces": 1, "days": 7}`,
			&offer,
		),
	)
	var score contract.Score
	require.NoError(t, th.program.Get(fmt.Sprintf("/api/homes/%d/score", offer.Given[0].ID), &score))
	page := th.page(fmt.Sprintf("/plan/%d/home", plan.ID))
	th.click(page, ".given button", "^Sound$")
	for _, off := range []string{"#heard-tones", "#heard-calls"} {
		th.tap(page, off, "")
	}
	th.accessible(page, "sound of a home practice")

	rounds := score.Passages[0].Rounds
	_, p, err := sheet.ReadPlan(strings.NewReader(fmt.Sprintf(document, rounds)))
	require.NoError(t, err)
	var due []float64
	var through []string
	rows := pace.Sheet(p).Rows
	for i, row := range rows {
		if row.Phase == "free" || row.Phase == "still" {
			continue
		}
		side := string(row.Through)
		if side == "" {
			side = "both"
		}
		due, through = append(due, float64(row.At)), append(through, side)
		if row.Stage == pace.Round && row.Phase == "inhale" && row.Count == row.Of &&
			i+1 < len(rows) { // two before the nostril changes
			due, through = append(due, float64(row.At)+110), append(through, side)
		}
	}

	th.pick(page, "#soundform", "WAV: exact, for working on it")
	decoder := wav.NewDecoder(bytes.NewReader(saved(t, th, page)))
	buffer, err := decoder.FullPCMBuffer()
	require.NoError(t, err)
	require.Equal(
		t,
		[]int{2, 24_000, 16},
		[]int{buffer.Format.NumChannels, buffer.Format.SampleRate, buffer.SourceBitDepth},
	)
	assert.EqualValues(t, score.EndMS, len(buffer.Data)/2/24, "as long as the practice")
	left, right := make([]float64, len(buffer.Data)/2), make([]float64, len(buffer.Data)/2)
	for i := range left {
		left[i], right[i] = float64(buffer.Data[2*i])/32768, float64(buffer.Data[2*i+1])/32768
	}
	at, sides := onsets(left, right, 24_000)
	require.Len(t, at, len(due))
	for i := range due {
		assert.InDelta(t, due[i], at[i], 5, "tick %d", i+1)
	}
	assert.Equal(t, through, sides)
	loudness := func(at float64) (sum float64) {
		for i := int(at * 24); i < int(at*24)+700; i++ {
			sum += left[i]*left[i] + right[i]*right[i]
		}
		return math.Sqrt(sum)
	}
	middle := len(due) / 2
	assert.Less(t, 2*loudness(due[1]), loudness(due[middle]), "the beginning is softer")
	assert.Less(t, 2*loudness(due[len(due)-2]), loudness(due[middle]), "and the end")

	th.pick(page, "#soundform", "MP3: small, for a message")
	small := saved(t, th, page)
	assert.Less(t, 8*len(small), len(buffer.Data)*2, "an eighth of the samples")
	stream, err := mp3.NewDecoder(bytes.NewReader(small))
	require.NoError(t, err)
	assert.Equal(t, 24_000, stream.SampleRate())
	samples, err := io.ReadAll(stream)
	require.NoError(t, err)
	assert.InDelta(t, float64(score.EndMS), float64(len(samples))/4/24, 200, "as long, but for the encoder's own edges")
}
