package e2e

import (
	"database/sql"
	"fmt"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	_ "modernc.org/sqlite" // a second process at the data file

	"vastlantern/core/pace"
	"vastlantern/studio/contract"
)

// Another process holds the data file: the class is bent all the same, here and in the room, the screen says what is
// not stored, and when the file is free again it is.
func TestALockedFileDoesNotStopTheClass(t *testing.T) {
	th := open(t)
	defer th.recovered()
	page, score := th.lead(
		`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:8", "rounds": 40, "lead_in": 0}`,
	)
	var code contract.RoomCode
	require.NoError(t, th.program.Get("/api/room", &code))
	room := th.page("/room/" + code.Code)
	th.see(room, `[data-testid="word"]`, ".")

	tl := pace.Sheet(storedPlan(t, th, 1))
	other, err := sql.Open("sqlite", "file:"+th.data+"?_txlock=immediate")
	require.NoError(t, err)
	defer other.Close()
	lock, err := other.Begin()
	require.NoError(t, err)
	th.press(page, input.KeyS)
	th.see(page, ".answer", "41 rounds instead of 40")
	th.see(page, ".unstored", `Not stored yet: rounds at .*The data file is locked by another program`)
	th.showsTheTrueCount(tl, score.StartedMS, 1, page, room)
	th.press(page, input.Space)
	th.see(room, `[data-testid="word"]`, "natural breath")
	th.see(page, ".unstored", "rounds at .*, natural breath at")

	require.NoError(t, lock.Rollback())
	th.until(page, `document.querySelectorAll(".unstored").length === 0`)
	th.program.Kill()
	th.restart()
	var record contract.Record
	require.NoError(t, th.program.Get(fmt.Sprintf("/api/classes/%d/record", score.ClassID), &record))
	assert.Len(t, record.Marks, 2, "what was said to be stored is")
}
