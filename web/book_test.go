package web_test

import (
	"bufio"
	"bytes"
	"compress/gzip"
	"encoding/base64"
	"encoding/json"
	"fmt"
	"image/png"
	"io"
	"net/http"
	"strings"
	"testing"

	"github.com/makiuchi-d/gozxing"
	"github.com/makiuchi-d/gozxing/qrcode"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/language"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestGroupsSettingsAndPracticesOverTheWire(t *testing.T) {
	at := serve(t).URL + "/api"
	var g contract.Group
	require.Equal(
		t,
		200,
		call(t, "POST", at+"/groups", `{"name": "Lunch", "weekday": -1, "conditions": {"asthma": 2}, "schools": {}}`, &g),
	)
	var groups contract.Groups
	require.Equal(t, 200, call(t, "GET", at+"/groups", "", &groups))
	assert.Equal(t, []contract.Group{g}, groups.Groups)
	assert.NotEmpty(t, groups.Conditions)

	var settings contract.Settings
	require.Equal(t, 200, call(t, "GET", at+"/settings", "", &settings))
	assert.False(t, settings.CareRead, "the caution for everyone is shown at the first start")
	assert.NotEmpty(t, settings.General)
	settings.CareRead, settings.Schools = true, map[string]string{"eyes": "tenth"}
	text, err := json.Marshal(settings)
	require.NoError(t, err)
	require.Equal(t, 200, call(t, "PUT", at+"/settings", string(text), &settings))
	assert.True(t, settings.CareRead)

	var book contract.Book
	require.Equal(t, 200, call(t, "GET", fmt.Sprintf("%s/practices?group=%d", at, g.ID), "", &book))
	assert.Len(t, book.Practices, 33)
	for _, p := range book.Practices {
		assert.Equal(
			t,
			p.Holds || p.Kind == "strokes" || p.ID == "sitali" || p.ID == "sitkari",
			len(p.Findings) > 0 && strings.Contains(language.English().Text(p.Findings[0].Say), "asthma"),
			p.ID,
		)
	}
	var file contract.PracticeFile
	require.Equal(t, 200, call(t, "POST", at+"/practices/copy", `{"id": "ujjayi", "name": "Mine"}`, &file))
	var again contract.PracticeFile
	require.Equal(t, 200, call(t, "GET", at+"/practices/own-mine/file", "", &again))
	assert.Equal(t, file.Text, again.Text)
	var drafted contract.PracticeDrafted
	require.Equal(t, 200, call(t, "POST", at+"/practices/draft", `{"text": "id: own-x\n  name: y"}`, &drafted))
	assert.Contains(t, desktest.Words(drafted.Problem), "[", "where it is broken")
	assert.Nil(t, drafted.Page)
	var sample contract.Score
	require.Equal(t, 200, call(t, "GET", at+"/practices/own-mine/sample", "", &sample))
	assert.NotEmpty(t, sample.Phases)
	var done contract.Done
	require.Equal(t, 200, call(t, "DELETE", at+"/practices/own-mine", "{}", &done))

	var problem contract.Problem
	for _, wrong := range []struct {
		method, path, in string
		status           int
	}{
		{"GET", "/practices/own-mine/file", "", 404},
		{"DELETE", "/practices/ujjayi", "{}", 404},
		{"GET", "/practices?group=99", "", 404},
		{"POST", "/groups", `{"name": ""}`, 422},
		{"PUT", "/settings", `{"language": "xx"}`, 422},
		{"POST", "/practices", `{"text": "figure: ["}`, 422},
		{"GET", "/rooms/NOBODY", "", 404},
		{"GET", "/rooms/NOBODY/stream", "", 404},
		{"POST", "/classes/9/seen", `{"key": "k", "see": "gasp"}`, 404},
		{"POST", "/classes/9/taps", `{"at_ms": [1, 2]}`, 404},
	} {
		assert.Equal(
			t,
			wrong.status,
			call(t, wrong.method, at+wrong.path, wrong.in, &problem),
			"%s %s",
			wrong.method,
			wrong.path,
		)
		assert.NotEmpty(t, language.English().Text(problem.Say))
	}
}

// The room's page gets what everybody may see, and nothing of the teacher's.
func TestTheRoomSeesNothingOfTheTeachers(t *testing.T) {
	server := serve(t)
	at := server.URL + "/api"
	var code contract.RoomCode
	require.Equal(t, 200, call(t, "GET", at+"/room", "", &code))
	var same contract.RoomCode
	require.Equal(t, 200, call(t, "GET", at+"/room", "", &same))
	assert.Equal(t, code, same, "the same code for every class")
	var g contract.Group
	require.Equal(
		t,
		200,
		call(t, "POST", at+"/groups", `{"name": "Secret circle", "weekday": -1, "conditions": {"cold": 1}}`, &g),
	)
	var plan contract.Plan
	require.Equal(
		t,
		200,
		call(
			t,
			"POST",
			at+"/plans",
			fmt.Sprintf(
				`{"group_id": %d, "document": {"format": "vast-lantern-plan", "version": 1, "title": "Lunch", "slot_min": 20,
		"passages": [{"type": "practice", "practice": "nadi-shodhana", "script": "for my eyes only", "prompts": [{"round": 1, "text": "whispered"}]}]}}`,
				g.ID,
			),
			&plan,
		),
	)
	var score contract.Score
	require.Equal(t, 200, call(t, "POST", at+"/classes", fmt.Sprintf(`{"plan_id": %d}`, plan.ID), &score))
	require.Equal(
		t,
		200,
		call(
			t,
			"POST",
			fmt.Sprintf("%s/classes/%d/adjustments", at, score.ClassID),
			`{"key": "n", "do": "note", "text": "somebody coughs"}`,
			nil,
		),
	)

	response, err := http.Get(at + "/rooms/" + strings.ToLower(code.Code))
	require.NoError(t, err)
	defer response.Body.Close()
	text, err := io.ReadAll(response.Body)
	require.NoError(t, err)
	var room contract.Room
	require.NoError(t, json.Unmarshal(text, &room))
	require.NotNil(t, room.Score)
	assert.NotEmpty(t, room.Score.Phases)
	for _, private := range []string{"Secret", "my eyes only", "whispered", "coughs", "last-round"} {
		assert.NotContains(t, string(text), private)
	}

	stream, err := http.Get(at + "/rooms/" + code.Code + "/stream")
	require.NoError(t, err)
	defer stream.Body.Close()
	assert.Equal(t, room, unpack[contract.Room](t, bufio.NewReader(stream.Body)), "the stream sends the same, packed")

	picture, err := http.Get(at + "/room/qr.png")
	require.NoError(t, err)
	defer picture.Body.Close()
	image, err := io.ReadAll(picture.Body)
	require.NoError(t, err)
	drawn, err := png.Decode(bytes.NewReader(image))
	require.NoError(t, err)
	bitmap, err := gozxing.NewBinaryBitmapFromImage(drawn)
	require.NoError(t, err)
	alone := map[gozxing.DecodeHintType]any{
		gozxing.DecodeHintType_PURE_BARCODE: true,
	} // its search in a photograph misses one in hundreds
	read, err := qrcode.NewQRCodeReader().Decode(bitmap, alone)
	require.NoError(t, err, "another reader reads it")
	assert.Equal(t, code.Address, read.GetText())
}

// unpack reads the next event of a stream, as its page does: gzip in base64.
func unpack[News any](t *testing.T, lines *bufio.Reader) (news News) {
	t.Helper()
	for {
		line, err := lines.ReadString('\n')
		require.NoError(t, err)
		data, ok := strings.CutPrefix(strings.TrimSpace(line), "data: ")
		if !ok {
			continue
		}
		plain, err := gzip.NewReader(base64.NewDecoder(base64.StdEncoding, strings.NewReader(data)))
		require.NoError(t, err)
		require.NoError(t, json.NewDecoder(plain).Decode(&news))
		return news
	}
}
