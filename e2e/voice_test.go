package e2e

import (
	"bytes"
	"encoding/base64"
	"encoding/json"
	"fmt"
	"math"
	"os"
	"path/filepath"
	"testing"

	"github.com/go-audio/wav"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/voice"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// word returns a sound that stands for a word: a tone of so many seconds, which begins at once.
func word(t *testing.T, pitch, seconds float64) []byte {
	t.Helper()
	const rate = 24_000
	r := voice.Recording{Rate: rate, Samples: make([]float64, int(seconds*rate))}
	for i := range r.Samples {
		r.Samples[i] = 0.1 * math.Sin(2*math.Pi*pitch*float64(i)/rate)
	}
	file, err := studio.WriteWave(r)
	require.NoError(t, err)
	return file
}

// speaks records words over the wire, and has the voice speak.
func (th *theater) speaks(t *testing.T, texts ...string) {
	t.Helper()
	var sheet contract.VoiceSheet
	require.NoError(t, th.program.Post("/api/voices", `{"name": "Ilse", "language": "en"}`, &sheet))
	for i, text := range texts {
		body, err := json.Marshal(contract.VoiceRecording{Text: text, Sound: word(t, 300+20*float64(i), 0.25)})
		require.NoError(t, err)
		require.NoError(t, th.program.Post(fmt.Sprintf("/api/voices/%d/words", sheet.Voice.ID), string(body), &sheet))
	}
	require.Equal(t, len(texts), sheet.Voice.Recorded)
	require.NoError(t, th.program.ChangeSettings(func(s *contract.Settings) { s.Voice = sheet.Voice.UID }))
}

// A teacher records words by the microphone and from files, hears them, takes one back, and the voice speaks.
func TestATeacherRecordsTheWords(t *testing.T) {
	th := open(t)
	defer th.recovered()
	page := th.page("/voices")
	th.see(page, "h2", "Begin with yours")
	th.write(page, "#whose-voice", "Ilse")
	th.press(page, input.Enter)
	th.see(page, ".onebyone .say", "^inhale$")
	th.accessible(page, "recording a voice")
	th.click(page, "h1", "") // away from the field
	th.press(page, input.Space)
	th.see(page, ".onebyone button", "Stop")
	// The microphone that the browser makes up beeps: two beeps are heard to their end.
	th.until(page, `(() => {
		const level = document.querySelector(".onebyone [role=progressbar]").ariaValueNow;
		const heard = (window.heard ??= { beeps: 0, beeping: false });
		if (level > 5 && !heard.beeping) heard.beeps++;
		heard.beeping = level > 1;
		return heard.beeps >= 2 && !heard.beeping;
	})()`)
	th.press(page, input.Space)
	th.see(page, ".onebyone .say", "^exhale$")
	th.see(page, ".voicewords li", `inhale\s*\d\.\d s`)
	th.click(page, ".voicewords button", "^Hear$")

	folder := t.TempDir()
	var files []string
	for name, sound := range map[string][]byte{
		"Exhale.wav": word(t, 300, 0.3), "close_the-left.wav": word(t, 350, 0.4), "mine.wav": word(t, 400, 0.3),
		"hold.wav": word(t, 0, 0.5), // silence
		"one.wav":  []byte("no sound at all"),
	} {
		files = append(files, filepath.Join(folder, name))
		require.NoError(t, os.WriteFile(files[len(files)-1], sound, 0o600))
	}
	require.NoError(t, th.element(page, "#voice-files").SetFiles(files))
	th.see(page, ".voicefiles [role=status]", "2 recordings were taken")
	th.see(page, ".voicefiles", "nothing was heard in the recording")
	th.see(page, ".voicefiles", "no sound that this browser reads")
	th.pick(page, `select[aria-label="The word of mine.wav"]`, "half way")
	for _, out := range []string{"hold", "one"} {
		th.pick(page, fmt.Sprintf(`select[aria-label="The word of %s.wav"]`, out), "leave it out")
	}
	th.click(page, ".voicefiles button", "Take them")
	th.see(page, ".voicefiles [role=status]", "One recording was taken")
	th.see(page, ".voicewords li", `half way\s*0\.\d s`)

	var sheet contract.VoiceSheet
	require.NoError(t, th.program.Get("/api/voices/1", &sheet))
	assert.Equal(t, 4, sheet.Voice.Recorded)
	assert.True(t, sheet.Voice.Speaks, "the first voice speaks at once")
	th.tap(page, `button[aria-label="Take back: half way"]`, "")
	th.see(page, ".voicewords li", "half way not recorded")

	th.click(page, "button", "Delete this voice")
	th.see(page, ".modal", "Also deletes 3 recordings")
	th.click(page, ".modal button", "^Delete$")
	th.see(page, "h2", "Begin with yours")
	th.click(page, "[role=status] + button", "Restore")
	th.see(page, "h2", "^Ilse$")
	require.NoError(t, th.program.Get("/api/voices/1", &sheet))
	assert.Equal(t, 3, sheet.Voice.Recorded)
}

// listening notes each recording that is played, and when it is heard by what the device tells, in ms of the page's
// clock (Web Audio API, getOutputTimestamp). The audio clock of a machine without a loudspeaker may be still for a
// while, so a moment of it alone says nothing; and how late this is asked makes no difference.
const listening = `(() => {
	window.heard = [];
	const start = AudioBufferSourceNode.prototype.start;
	AudioBufferSourceNode.prototype.start = function (when, offset) {
		const { contextTime, performanceTime } = this.context.getOutputTimestamp();
		const now = performance.now(), told = contextTime + (now - performanceTime) / 1000;
		const heard = contextTime > 0 && Math.abs(told - this.context.currentTime) < 1 ? told : this.context.currentTime;
		window.heard.push({ when: now + 1000 * (when - heard), drift: now - 1000 * this.context.currentTime, offset });
		return start.call(this, when, offset);
	};
})()`

// tooLate is how late a word is said at most, in ms; later it is left out (ui/src/player/sound/ownVoice.ts).
const tooLate = 150

// heardOnCounts waits until so many recordings were played, and sees that each is on a count, so many ms apart. On a
// busy machine one may be missing or late within what is allowed, and the audio clock may be still for a while: it
// tells no time then.
func heardOnCounts(t *testing.T, th *theater, page *screen, count float64) {
	t.Helper()
	th.until(page, "window.heard.length >= 8")
	var heard []struct{ When, Drift float64 }
	require.NoError(t, json.Unmarshal([]byte(th.eval(page, "() => JSON.stringify(window.heard)").Str()), &heard))
	const steady = 20 // ms: an audio clock that went on beside the page's
	compared := 0
	for i := 2; i < len(heard); i++ { // the first may wait for what is loaded
		if math.Abs(heard[i].Drift-heard[i-1].Drift) > steady {
			continue
		}
		compared++
		counts := (heard[i].When - heard[i-1].When) / count
		assert.InDelta(t, math.Round(counts), counts, 0.05+tooLate/count, "recording %d", i+1)
		assert.Greater(t, math.Round(counts), 0.0, "one at a time")
	}
	t.Logf("%d of %d recordings were compared", compared, len(heard))
}

// The recorded voice speaks where a class is led and in the room, and what it does not say is told beforehand.
func TestTheRecordedVoiceIsHeardInAClass(t *testing.T) {
	th := open(t)
	defer th.recovered()
	th.speaks(t, "inhale", "exhale", "one", "two", "three")
	var plan contract.Plan
	require.NoError(
		t,
		th.program.Post("/api/plans", `{"document": {"format": "vast-lantern-plan", "version": 1, "tempo": 20, "passages": [
		{"type": "practice", "practice": "counted-breath", "counts": "3:4", "rounds": 60, "lead_in": 0}]}}`, &plan),
	)
	var score contract.Score
	require.NoError(t, th.program.Lead(plan.ID, &score))
	require.NotNil(t, score.Speaker)
	assert.Equal(t, "Ilse", score.Speaker.Name)
	assert.Contains(t, score.Speaker.Missing, "four")
	assert.Len(t, score.Speaker.Said["inhale"], 1)
	for _, path := range []string{"lead", "room"} {
		address := fmt.Sprintf("/lead/%d", score.ClassID)
		if path == "room" {
			var code contract.RoomCode
			require.NoError(t, th.program.Get("/api/room", &code))
			address = "/room/" + code.Code
		}
		page := th.page("/help")
		th.onNewDocument(page, listening)
		th.visit(page, th.at+address)
		th.see(page, `[data-testid="word"]`, "inhale|exhale")
		if path == "room" {
			th.tap(page, "button", "Sound")
		} else {
			th.tap(page, `button[aria-label="Sound"]`, "")
		}
		th.flip(page, "#sound-on")
		th.pick(page, "#voice", "words and counts")
		th.see(page, "body", "Not recorded: .*four")
		heardOnCounts(t, th, page, 750) // three seconds of the class, whose clock runs four times as fast
	}
}

// The words are in the sound that goes home, at their milliseconds, and in the page that plays without a network.
func TestTheRecordedVoiceGoesHome(t *testing.T) {
	th := open(t)
	defer th.recovered()
	th.speaks(t, "inhale", "exhale", "one", "two", "three", "four", "one more the last")
	var plan contract.Plan
	require.NoError(
		t,
		th.program.Post("/api/plans", `{"document": {"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [
		{"type": "practice", "practice": "counted-breath", "counts": "3:4", "rounds": 9, "lead_in": 0}]}}`, &plan),
	)
	var offer contract.HomeOffer
	require.NoError(
		t,
		th.program.Post(
			fmt.Sprintf("/api/plans/%d/home", plan.ID),
			`{"passage": 1, "minutes": 1, "pieces": 1, "days": 7}`,
			&offer,
		),
	)
	home := offer.Given[0].ID
	var score contract.Score
	require.NoError(t, th.program.Get(fmt.Sprintf("/api/homes/%d/score", home), &score))
	page := th.page(fmt.Sprintf("/plan/%d/home", plan.ID))
	th.click(page, ".given button", "^Sound$")
	for _, off := range []string{"#heard-tones", "#heard-calls", "#heard-ticks"} {
		th.tap(page, off, "")
	}
	th.pick(page, "#heard-voice", "words and counts")
	th.pick(page, "#soundform", "WAV: exact, for working on it")
	decoder := wav.NewDecoder(bytes.NewReader(saved(t, th, page)))
	buffer, err := decoder.FullPCMBuffer()
	require.NoError(t, err)
	left, right := make([]float64, len(buffer.Data)/2), make([]float64, len(buffer.Data)/2)
	for i := range left {
		left[i], right[i] = float64(buffer.Data[2*i])/32768, float64(buffer.Data[2*i+1])/32768
	}
	at, _ := onsets(left, right, 24_000)
	var due []float64
	for _, phase := range score.Phases {
		for n, text := range phase.Says {
			if text != "" && score.Speaker.Said[text] != nil {
				due = append(due, float64(phase.AtMS[n]))
			}
		}
	}
	require.Greater(t, len(due), 20)
	for _, one := range due { // a call may be heard between
		nearest := math.Inf(1)
		for _, heard := range at {
			nearest = min(nearest, math.Abs(heard-one))
		}
		assert.LessOrEqual(t, nearest, 5.0, "the word at %.0f ms", one)
	}
	assert.GreaterOrEqual(t, len(at), len(due))

	th.click(page, ".modal button", "^$|Close") // of the dialog
	th.click(page, ".given button", "Page with your voice")
	th.eval(page, `() => {
		window.made = null;
		URL.createObjectURL = (blob) => { window.made = blob; return "data:,"; };
	}`)
	th.see(page, ".modal", "recordings of Ilse")
	th.click(page, ".modal button", "Make the page")
	th.see(page, ".modal [role=status]", "is ready")
	html := th.eval(page, "() => window.made.text()").Str()
	assert.Less(t, len(html), 250_000)
	path := filepath.Join(t.TempDir(), "home.html")
	require.NoError(t, os.WriteFile(path, []byte(html), 0o600))

	alone := th.page("/help")
	th.onNewDocument(alone, listening)
	require.NoError(t, proto.NetworkEmulateNetworkConditions{Offline: true}.Call(alone.tab))
	th.visit(alone, "file://"+path)
	th.see(alone, "h1", "Counted breath")
	th.pick(alone, ".choices label:last-child select", "tones, and a voice that counts")
	th.click(alone, ".keys button", "^Start$")
	heardOnCounts(t, th, alone, 1000)
	var lead float64
	require.NoError(t, json.Unmarshal([]byte(th.eval(alone, "() => JSON.stringify(window.heard[0].offset)").Str()), &lead))
	assert.Positive(t, lead, "what the encoder puts before is left out")
	assert.Less(t, lead, 0.1)
}

// A recording is asked for by its sum alone, also by a room's page; and it never changes.
func TestARecordingIsKeptByBrowsers(t *testing.T) {
	th := open(t)
	defer th.recovered()
	th.speaks(t, "inhale")
	var sheet contract.VoiceSheet
	require.NoError(t, th.program.Get("/api/voices/1", &sheet))
	page := th.page("/help")
	got := th.eval(page, `async (sum) => {
		const answer = await fetch("/api/sounds/" + sum);
		const bytes = new Uint8Array(await answer.arrayBuffer());
		return answer.headers.get("Cache-Control") + " " + btoa(String.fromCharCode(...bytes.subarray(0, 12)));
	}`, sheet.Words[0].Recorded.Sum).Str()
	assert.Regexp(t, "^public, max-age=31536000, immutable ", got)
	start, err := base64.StdEncoding.DecodeString(got[len(got)-16:])
	require.NoError(t, err)
	assert.Regexp(t, "^RIFF....WAVE$", string(start))
}
