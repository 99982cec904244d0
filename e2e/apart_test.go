package e2e

import (
	"fmt"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// leadsAlone waits until a lead screen could go on without the program.
func (th *theater) leadsAlone(page *screen) {
	th.Helper()
	th.element(page, `.leading[data-alone="true"]`)
}

// The program is stopped in the middle of a class. The teacher goes on pressing keys, which act; the record has each
// press at its moment when the program is back.
func TestTheClassGoesOnWithoutTheProgram(t *testing.T) {
	onBothAddresses(t, func(t *testing.T, th *theater) {
		page, score := th.lead(`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:4", "rounds": 40, "tempo": 60}`)
		th.leadsAlone(page)
		th.see(page, `[data-testid="word"]`, "hold")
		th.program.Kill()
		th.see(page, ".offline", "Leading from this device; nothing to send")

		th.press(page, 'q')
		th.see(page, ".answer", "slower: 58")
		th.see(page, ".offline", "Leading from this device; 1 change to send")
		th.press(page, input.Space)
		th.see(page, `[data-testid="word"]`, "breathe as you like|natural")
		th.see(page, ".offline", "2 changes to send")
		th.press(page, 'b')
		th.write(page, `input[aria-label="Note"]`, "the lamp went out")
		th.press(page, input.Enter)
		th.see(page, ".offline", "3 changes to send")

		th.restart()
		th.until(page, `document.querySelector(".topbar") && !document.querySelector(".offline")`)
		var record contract.Record
		require.NoError(t, th.program.Get(fmt.Sprintf("/api/classes/%d/record", score.ClassID), &record))
		var did []string
		for _, mark := range record.Marks {
			did = append(did, string(mark.Answer.Do))
			assert.Nil(t, mark.Answer.Refused)
		}
		assert.Equal(t, []string{"tempo", "pause", "note"}, did)
		assert.Equal(t, "the lamp went out", record.Marks[2].Answer.Text)
	})
}
