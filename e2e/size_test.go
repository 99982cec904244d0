package e2e

import (
	"fmt"
	"net/url"
	"strings"
	"sync"
	"testing"

	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// A phone in a hall loads the room's page over a network that it shares with everybody: all in all little comes,
// packed, of scripts, styles, fonts and drawings. So does the teacher's first view.
func TestWhatAPageLoads(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var code contract.RoomCode
	require.NoError(t, th.program.Get("/api/room", &code))
	th.begin(held)
	for _, c := range []struct {
		path, ready string
		most        float64
	}{{"/room/" + code.Code, "[data-testid=word]", 125_000}, {"/", "h1", 250_000}} {
		page := th.page("/api/clock") // of the same origin, with nothing of the application in it
		require.NoError(t, proto.NetworkEnable{}.Call(page.tab))
		require.NoError(t, proto.NetworkSetCacheDisabled{CacheDisabled: true}.Call(page.tab))
		var mutex sync.Mutex
		addresses, loaded := map[proto.NetworkRequestID]string{}, map[string]float64{}
		wait := page.tab.EachEvent(func(e *proto.NetworkRequestWillBeSent) {
			mutex.Lock()
			defer mutex.Unlock()
			addresses[e.RequestID] = e.Request.URL
		}, func(e *proto.NetworkLoadingFinished) {
			mutex.Lock()
			defer mutex.Unlock()
			if address, err := url.Parse(addresses[e.RequestID]); err == nil && !strings.HasPrefix(address.Path, "/api/") {
				loaded[address.Path] += e.EncodedDataLength
			}
		})
		go wait()
		th.visit(page, th.at+c.path)
		th.see(page, c.ready, ".")
		// A font is asked for when a text needs it, which is a moment after the text is there.
		th.until(
			page,
			`document.fonts.check("700 20px 'Atkinson Hyperlegible'") && [...document.fonts].every((font) => font.status !== `+
				`"loading")`,
		)
		mutex.Lock()
		all, list := 0.0, ""
		for path, size := range loaded {
			all += size
			list += fmt.Sprintf("%s %.0f\n", path, size)
		}
		mutex.Unlock()
		assert.Greater(t, all, 50_000.0, "something was measured")
		assert.Less(t, all, c.most, "%s:\n%s", c.path, list)
		t.Logf("%s: %.0f kB\n%s", c.path, all/1000, list)
	}
}
