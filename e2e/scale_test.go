package e2e

import (
	"fmt"
	"net"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/e2e/stage"
	"vastlantern/studio/contract"
)

// Behind nginx, as docs/scale.md has it, a screen loads its page, follows the class and says how it was; the program is
// told how many listen there, and the streams are not its own.
func TestTheRoomBehindAProxyThatTellsItsScreens(t *testing.T) {
	address, err := stage.FreeAddress()
	require.NoError(t, err)
	proxy, err := stage.NewProxy(t.TempDir(), address)
	require.NoError(t, err)
	th := openWith(t, clockRate, func(th *theater) {
		require.NoError(t, stage.SetPasscode(th.data, passcode))
		_, port, err := net.SplitHostPort(address)
		require.NoError(t, err)
		th.start(port, "--base-url", proxy.URL, "--trusted-proxy", "127.0.0.1", "--publish-to", proxy.Publish)
		require.NoError(t, proxy.Start())
		t.Cleanup(proxy.Stop)
		th.at, th.program.URL = proxy.URL, proxy.URL // the teacher too comes by way of it
		require.NoError(t, th.program.SignIn(passcode, "laptop"))
	})
	defer th.recovered()
	require.NoError(t, th.program.ChangeSettings(func(s *contract.Settings) { s.AskAfter = true }))
	var code contract.RoomCode
	require.NoError(t, th.program.Get("/api/room", &code))
	require.Equal(t, proxy.URL+"/room/"+code.Code, code.Address)
	phone := th.phone("/room/" + strings.ToLower(code.Code)) // as somebody types it
	th.see(phone, "body", "No class|not begun|soon|next|here")
	lead, score := th.lead(held)
	th.see(phone, `[data-testid="word"]`, ".")
	for _, press := range []string{`"do": "pause"`, `"do": "resume"`, `"do": "tempo", "to": 50`} {
		var done contract.Adjusted
		require.NoError(
			t,
			th.program.Post(
				fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID),
				fmt.Sprintf(`{"key": %q, %s}`, press, press),
				&done,
			),
		)
		require.Empty(t, done.Answer.Refused)
		if strings.Contains(press, "pause") {
			th.see(phone, `[data-testid="word"]`, "natural breath")
			th.see(lead, `[data-testid="word"]`, "natural breath")
		}
	}
	th.until(phone, `!document.querySelector('[data-testid="word"]').innerText.includes("natural")`)

	th.end(lead)
	th.click(phone, ".asking .ways button", "^right$")
	th.see(phone, "[role=status]", "your answer was received")
	var record contract.Record
	require.NoError(t, th.program.Get(fmt.Sprintf("/api/classes/%d/record", score.ClassID), &record))
	assert.Equal(t, 1, record.Told.Most, "the proxy told that one screen listens")
}
