package e2e

import (
	"encoding/binary"
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"net/url"
	"os"
	"path/filepath"
	"sync"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/e2e/stage"
	"vastlantern/studio/contract"
)

const soundRate = 48_000 // samples a second

// room is a sound of so many seconds with the noise of a quiet room.
func room(seconds float64) []float64 {
	random := rand.New(rand.NewPCG(1, 2))
	sound := make([]float64, int(seconds*soundRate))
	for i := range sound {
		sound[i] = 0.002 * random.NormFloat64()
	}
	return sound
}

// stroke adds a short hiss at a moment, in seconds.
func stroke(sound []float64, at float64) {
	random := rand.New(rand.NewPCG(uint64(at*1000), 3))
	before := 0.0
	for i := range int(0.12 * soundRate) {
		n := int(at*soundRate) + i
		if n >= len(sound) {
			return
		}
		white := random.NormFloat64()
		sound[n] += 0.15 * math.Exp(-float64(i)/(0.03*soundRate)) * (white - before) // the higher part of the noise
		before = white
	}
}

// hum adds a hum between two moments, in seconds: a low pitch with its overtones.
func hum(sound []float64, from, to float64) {
	for n := int(from * soundRate); n < int(to*soundRate) && n < len(sound); n++ {
		at := float64(n) / soundRate
		swell := math.Min(1, math.Min((at-from)/0.2, (to-at)/0.15))
		for overtone := 1.0; overtone <= 6; overtone++ {
			sound[n] += 0.2 * swell / overtone * math.Sin(2*math.Pi*140*overtone*at)
		}
	}
}

// sigh adds a breath out of an open mouth between two moments, in seconds: air that grows softer, without a pitch.
func sigh(sound []float64, from, to float64) {
	random := rand.New(rand.NewPCG(uint64(from*1000), 4))
	before := 0.0
	for n := int(from * soundRate); n < int(to*soundRate) && n < len(sound); n++ {
		at := float64(n) / soundRate
		swell := math.Min(1, math.Min((at-from)/0.2, (to-at)/0.2)) * math.Exp(-(at-from)/(to-from))
		white := random.NormFloat64()
		sound[n] += 0.08 * swell * (white - 0.7*before)
		before = white
	}
}

// written writes a sound as a WAV file of 16 bits.
func written(t *testing.T, sound []float64) string {
	t.Helper()
	data := make([]byte, 44, 44+2*len(sound))
	copy(data, "RIFF")
	binary.LittleEndian.PutUint32(data[4:], uint32(36+2*len(sound)))
	copy(data[8:], "WAVEfmt ")
	binary.LittleEndian.PutUint32(data[16:], 16)
	binary.LittleEndian.PutUint16(data[20:], 1) // PCM
	binary.LittleEndian.PutUint16(data[22:], 1)
	binary.LittleEndian.PutUint32(data[24:], soundRate)
	binary.LittleEndian.PutUint32(data[28:], 2*soundRate)
	binary.LittleEndian.PutUint16(data[32:], 2)
	binary.LittleEndian.PutUint16(data[34:], 16)
	copy(data[36:], "data")
	binary.LittleEndian.PutUint32(data[40:], uint32(2*len(sound)))
	for _, x := range sound {
		data = binary.LittleEndian.AppendUint16(data, uint16(int16(32767*math.Max(-1, math.Min(1, x)))))
	}
	file := filepath.Join(t.TempDir(), "room.wav")
	require.NoError(t, os.WriteFile(file, data, 0o600))
	return file
}

// openHearing opens a theater whose screens hear the sound, again and again, through the microphone.
func openHearing(t *testing.T, sound []float64) *theater {
	t.Helper()
	th := openAt(t, 1) // what is heard takes its time
	browser, err := stage.Open("use-file-for-fake-audio-capture=" + written(t, sound))
	require.NoError(t, err)
	t.Cleanup(browser.Close)
	th.browser = browser
	return th
}

// listen opens the pad and begins to listen.
func (th *theater) listen(page *screen) {
	th.Helper()
	th.press(page, input.Digit7)
	th.open(page, "Listen to the room")
	th.press(page, input.KeyF)
	th.element(page, ".earlight .dot:not(.out)")
}

// The room strokes quicker than the beat: it is heard and proposed, and taken with two keys; the record tells it. What
// the page sends and keeps meanwhile is numbers.
func TestStrokesThatDriftAreHeard(t *testing.T) {
	sound := room(20)
	for at := 0.0; at < 20; at += 60.0 / 66 { // 22 strokes: it begins again with the beat
		stroke(sound, at)
	}
	th := openHearing(t, sound)
	defer th.recovered()
	page, score := th.lead(`{"type": "practice", "practice": "kapalabhati", "strokes": 200, "rounds": 2, "rate": 60, ` +
		`"lead_in": 0}`)
	sent := th.requestsOf(page)
	assert.EqualValues(t, breath.Stroke, score.Passages[0].Hears)
	assert.Zero(t, th.count(page, ".earlight"), "it is off until it is turned on")
	th.listen(page)
	th.see(page, ".pad .proposal", "The room strokes at 6[567], the beat is 60: take 6[567]")
	th.press(page, input.KeyF)
	th.closed(page)
	th.see(page, ".answer", "faster: 6[567]")
	th.see(page, ".earlight .heard", "6[567]")
	th.until(page, `!document.querySelector(".earlight.proposes")`)

	var record contract.Record
	th.asked("the strokes are in the record", func() bool {
		require.NoError(t, th.program.Get(fmt.Sprintf("/api/classes/%d/record", score.ClassID), &record))
		return len(record.Heard) > 0
	})
	heard := record.Heard[0]
	assert.Equal(t, []int{1, 1}, []int{heard.Passage, heard.Round})
	assert.InDelta(t, 66, heard.HeardRate, 2)
	assert.EqualValues(t, 60, heard.PlannedRate)
	assert.Equal(t, "heard-strokes", record.Marks[0].Answer.Because)
	th.press(page, input.Digit7, input.Digit2)
	th.until(page, `!document.querySelector(".earlight")`)
	th.numbersOnly(page, sent())
}

// requestsOf returns what the page has sent since, with the bodies.
func (th *theater) requestsOf(page *screen) func() []*proto.NetworkRequest {
	var mutex sync.Mutex
	var list []*proto.NetworkRequest
	go page.tab.EachEvent(func(e *proto.NetworkRequestWillBeSent) {
		mutex.Lock()
		defer mutex.Unlock()
		list = append(list, e.Request)
	})()
	return func() []*proto.NetworkRequest {
		mutex.Lock()
		defer mutex.Unlock()
		return append([]*proto.NetworkRequest{}, list...)
	}
}

// numbersOnly checks that no sample of the microphone left the page: what it sent is JSON of few numbers, and so is
// what it keeps on the device.
func (th *theater) numbersOnly(page *screen, sent []*proto.NetworkRequest) {
	th.Helper()
	told := 0
	for _, request := range sent {
		address, err := url.Parse(request.URL)
		require.NoError(th, err)
		assert.NotContains(th, []string{"blob", "ws", "wss"}, address.Scheme, "%s", request.URL)
		if !request.HasPostData {
			continue
		}
		var heard contract.HeardMore
		if filepath.Base(address.Path) == "heard" {
			told++
			require.NoError(th, json.Unmarshal([]byte(request.PostData), &heard))
		}
		var body any
		require.NoError(th, json.Unmarshal([]byte(request.PostData), &body), request.URL)
		assert.LessOrEqual(th, mostNumbersInARow(body), 20, "%s %s", request.URL, request.PostData)
	}
	assert.Positive(th, told, "what was heard was told")
	kept := th.eval(page, `async () => JSON.stringify({
		local: Object.values(localStorage).map((text) => text.length),
		session: Object.values(sessionStorage).map((text) => text.length),
		files: await (await navigator.storage.getDirectory()).keys().next().then((one) => one.done),
		databases: (await indexedDB.databases()).map((one) => one.name),
	})`).Str()
	var has struct {
		Local, Session []int
		Files          bool
		Databases      []string
	}
	require.NoError(th, json.Unmarshal([]byte(kept), &has))
	for _, length := range append(has.Local, has.Session...) {
		assert.Less(th, length, 4000, "a tenth of a second of sound has more letters")
	}
	assert.True(th, has.Files, "no file was written")
	assert.Subset(th, []string{"lantern"}, has.Databases, "where classes and presses are kept")
}

// mostNumbersInARow returns the length of the longest list of numbers in a value of JSON.
func mostNumbersInARow(value any) (most int) {
	switch value := value.(type) {
	case []any:
		numbers := 0
		for _, one := range value {
			if _, is := one.(float64); is {
				numbers++
			}
			most = max(most, mostNumbersInARow(one))
		}
		return max(most, numbers)
	case map[string]any:
		for _, one := range value {
			most = max(most, mostNumbersInARow(one))
		}
	}
	return most
}

// Om that is led by hand goes on by itself a second after the room has fallen silent, if the teacher wants it; the
// length is in the record.
func TestAChantEndsAndThePassageGoesOn(t *testing.T) {
	sound := room(14)
	hum(sound, 3, 9)
	th := openHearing(t, sound)
	defer th.recovered()
	page, score := th.lead(`{"type": "practice", "practice": "om-chant", "counts": "4:8", "rounds": 9, "lead_in": 0, ` +
		`"by_hand": ["exhale"]}`)
	th.listen(page)
	th.see(page, ".pad .proposal", "The room sounds: [2-9] s")
	th.flip(page, "#ear-goes-on")
	th.see(page, ".pad .proposal", `Silent. It lasted (5\.[789]|6\.?[0-4]?) s`)
	th.press(page, input.Escape)
	th.closed(page)
	th.see(page, `[data-testid="word"]`, "chant om")
	th.see(page, `[data-testid="word"]`, "inhale")
	var record contract.Record
	th.asked("the chant is in the record", func() bool {
		require.NoError(t, th.program.Get(fmt.Sprintf("/api/classes/%d/record", score.ClassID), &record))
		return len(record.Heard) > 0
	})
	assert.InDelta(t, 6000, record.Heard[0].HeardMS, 600)
	assert.EqualValues(t, 8000, record.Heard[0].PlannedMS)
	for _, mark := range record.Marks {
		assert.Equal(t, "heard-silence", mark.Answer.Because)
	}
}

// A sigh is heard too, and the program is not needed for it: what was heard while it was gone is in the record when it
// is back.
func TestASighIsHeardWithoutTheProgram(t *testing.T) {
	sound := room(12)
	sigh(sound, 3, 6)
	th := openHearing(t, sound)
	defer th.recovered()
	page, score := th.lead(`{"type": "practice", "practice": "sigh", "counts": "4:6", "rounds": 9, "lead_in": 0, ` +
		`"by_hand": ["exhale"]}`)
	assert.True(t, score.Passages[0].HearsBreath)
	th.leadsAlone(page)
	th.listen(page)
	th.see(page, `[data-testid="word"]`, "exhale")
	th.program.Kill()
	th.see(page, ".pad .proposal", `The room sounds: [12] s`)
	th.see(page, ".pad .proposal", `Silent. It lasted (2\.[6789]|3\.?[0-3]?) s`)
	th.flip(page, "#ear-goes-on")
	th.press(page, input.Escape)
	th.closed(page)
	th.see(page, `[data-testid="word"]`, "inhale") // the sigh after, or the one before the switch
	th.restart()
	var record contract.Record
	th.asked("the sigh is in the record", func() bool {
		require.NoError(t, th.program.Get(fmt.Sprintf("/api/classes/%d/record", score.ClassID), &record))
		return len(record.Heard) > 0
	})
	assert.EqualValues(t, breath.Exhale, record.Heard[0].Phase)
	assert.InDelta(t, 3000, record.Heard[0].HeardMS, 400)
}

// Where there is no microphone, the pad says why and what to do, and the class goes on. A microphone that is unplugged
// gives way to another one.
func TestWhereThereIsNoMicrophone(t *testing.T) {
	th := open(t)
	defer th.recovered()
	score := th.begin(held)
	page := th.page("/help")
	th.onNewDocument(page, `
		const open = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices);
		window.refuses = "NotAllowedError";
		navigator.mediaDevices.getUserMedia = async (wanted) => {
			if (window.refuses) throw new DOMException("", window.refuses);
			return window.stream = await open(wanted);
		};`)
	th.visit(page, th.at+fmt.Sprintf("/lead/%d", score.ClassID))
	th.see(page, `[data-testid="word"]`, ".")
	th.press(page, input.Digit7)
	th.open(page, "Listen to the room")
	for _, c := range []struct{ refuses, says string }{
		{"NotAllowedError", "does not let this page use the microphone"},
		{"NotFoundError", "has no microphone"},
		{"NotReadableError", "used by something else"},
	} {
		th.eval(page, `(name) => { window.refuses = name }`, c.refuses)
		th.press(page, input.KeyF)
		th.see(page, `.pad [role="alert"]`, c.says)
		th.see(page, ".earlight .heard .still", "cannot hear")
	}
	th.eval(page, `() => { window.refuses = "" }`)
	th.press(page, input.KeyF)
	th.element(page, ".earlight .dot:not(.out)")
	th.see(page, ".pad .proposal", "nothing to listen for in this part")

	const unplug = `() => window.stream.getTracks()[0].dispatchEvent(new Event("ended"))`
	th.eval(page, unplug)
	th.see(page, ".pad", "The microphone was unplugged. .* hears now")
	th.eval(page, `() => { window.refuses = "NotFoundError" }`)
	th.eval(page, unplug)
	th.see(page, `.pad [role="alert"]`, "unplugged, and there is no other one")
	th.press(page, input.Escape)
	th.closed(page)
	th.see(page, `[data-testid="word"]`, ".") // and the class goes on
}

// On plain http from another machine there is no microphone: the pad says so, and where there is one.
func TestListeningOnPlainHTTP(t *testing.T) {
	th := openWith(t, clockRate, func(th *theater) {
		require.NoError(t, stage.SetPasscode(th.data, passcode))
		th.start("", "--lan", "--no-name")
		require.NoError(t, th.program.SignIn(passcode, "laptop"))
		th.at = th.program.Named()
	})
	defer th.recovered()
	page, _ := th.lead(held)
	th.press(page, input.Digit7)
	th.open(page, "Listen to the room")
	th.press(page, input.KeyF)
	th.see(page, `.pad [role="alert"]`, "only on the computer that runs the program, or at an address that .* with https")
}

// Of two lead screens the one that began later listens; the other says so, and can take it back.
func TestTwoScreensListen(t *testing.T) {
	th := open(t)
	defer th.recovered()
	first, score := th.lead(held)
	second := th.page(fmt.Sprintf("/lead/%d", score.ClassID))
	th.see(second, `[data-testid="word"]`, ".")
	th.listen(first)
	th.listen(second)
	th.see(first, `.pad [role="alert"]`, "Another screen listens now")
	th.press(first, input.KeyF)
	th.element(first, ".earlight .dot:not(.out)")
	th.see(second, `.pad [role="alert"]`, "Another screen listens now")
	th.press(first, input.Escape)
	th.closed(first)
	th.end(first)
	th.until(first, `!document.querySelector(".earlight")`) // nobody is listened to after the class
}

// A rehearsal makes the sounds of its people, so that listening can be practised without a microphone.
func TestListeningIsRehearsed(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var plan contract.Plan
	require.NoError(t, th.program.Post("/api/plans", `{"document": {"format": "vast-lantern-plan", "version": 1, `+
		`"title": "To listen to", "passages": [{"type": "practice", "practice": "kapalabhati", "rate": 60, "strokes": 200, `+
		`"rounds": 2, "lead_in": 0}]}}`, &plan))
	var begun contract.Rehearsing
	require.NoError(t, th.program.Post("/api/rehearsals", fmt.Sprintf(`{"plan_id": %d, "room": "experienced"}`, plan.ID),
		&begun))
	page := th.page(fmt.Sprintf("/rehearse/%d/lead", begun.ID))
	th.onNewDocument(page, `navigator.mediaDevices.getUserMedia = () =>
		Promise.reject(new DOMException("", "NotFoundError"))`)
	th.reload(page)
	th.click(page, "button", "^Begin$")
	th.see(page, `[data-testid="word"]`, "out")
	th.listen(page)
	th.see(page, `button[aria-pressed="true"]`, "Hear the room")
	th.see(page, ".pad", "hears the simulated room")
	th.see(page, ".pad .proposal", "The room strokes at (59|60|61), the beat is 60")
}

// A key comes first: what the teacher ended is not ended again by what was heard in it.
func TestAKeyComesBeforeWhatIsHeard(t *testing.T) {
	sound := room(12)
	hum(sound, 2, 7)
	th := openHearing(t, sound)
	defer th.recovered()
	page, score := th.lead(`{"type": "practice", "practice": "bhramari", "counts": "3:8", "rounds": 9, "lead_in": 0, ` +
		`"by_hand": "all"}`)
	th.listen(page)
	th.see(page, `[data-testid="word"]`, "inhale")
	th.see(page, ".pad .proposal", "The room sounds: [1-9] s")
	th.press(page, input.Escape)
	th.closed(page)
	th.press(page, input.KeyF) // the hum, in which the room is heard
	th.see(page, `[data-testid="word"]`, "hum")
	th.press(page, input.Digit7)
	th.flip(page, "#ear-goes-on")
	th.press(page, input.Escape)
	th.closed(page)
	th.press(page, input.KeyF) // before it is silent
	th.see(page, `[data-testid="word"]`, "inhale")
	th.press(page, input.Digit7)
	th.see(page, ".pad .proposal", "Silent")
	th.see(page, ".pad .proposal", "The room sounds") // a second of silence and more have passed
	th.see(page, `[data-testid="word"]`, "inhale")
	for _, mark := range th.pressesOf(score.ClassID) {
		assert.Empty(t, mark.Answer.Because, "each going on was a key")
	}
}
