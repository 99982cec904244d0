package e2e

import (
	"database/sql"
	"fmt"
	"math/rand/v2"
	"path/filepath"
	"sync"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	_ "modernc.org/sqlite" // a second process at the data file

	"vastlantern/core/pace"
	"vastlantern/e2e/stage"
	"vastlantern/studio/contract"
)

// The program is killed at random moments of a class, many times, while two screens press as fast as they are answered:
// what was acknowledged is there afterwards, once, and in its place.
func TestKilledAtRandomMomentsNothingAcknowledgedIsLost(t *testing.T) {
	t.Parallel()
	const kills = 12
	data := filepath.Join(t.TempDir(), "lantern.db")
	start := func() *stage.Program {
		program, err := stage.Start("serve", "--data", data, "--port", "0")
		require.NoError(t, err)
		t.Cleanup(program.Kill)
		return program
	}
	program := start()
	var plan contract.Plan
	require.NoError(t, program.Post("/api/plans", `{"document": {"format": "vast-lantern-plan", "version": 1, "title": "Long", "passages": [{"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 400}]}}`, &plan))
	var score contract.Score
	require.NoError(t, program.Lead(plan.ID, &score))

	acknowledged := map[string]contract.Answer{} // by what was noted
	var mutex sync.Mutex
	for kill := range kills {
		before := len(acknowledged)
		var screens sync.WaitGroup
		for screen := range 2 {
			screens.Go(func() {
				for i := 0; ; i++ {
					key := fmt.Sprintf("%d.%d.%d", kill, screen, i)
					var done contract.Adjusted
					if program.Post(fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID), fmt.Sprintf(`{"key": %q, "do": "note", "text": %q}`, key, key), &done) != nil {
						return // it was killed
					}
					mutex.Lock()
					acknowledged[key] = done.Answer
					mutex.Unlock()
				}
			})
		}
		for { // at least one press is answered each time
			mutex.Lock()
			now := len(acknowledged)
			mutex.Unlock()
			if now > before {
				break
			}
			time.Sleep(time.Millisecond)
		}
		time.Sleep(time.Duration(rand.IntN(60)) * time.Millisecond) // the moment is what is tried, not waited for
		program.Kill()
		screens.Wait()
		program = start()
		var record contract.Record
		require.NoError(t, program.Get(fmt.Sprintf("/api/classes/%d/record", score.ClassID), &record))
		found := map[string]int{}
		for i, mark := range record.Marks {
			assert.Equal(t, i+1, mark.Answer.Number)
			found[mark.Answer.Text]++
			if answer, told := acknowledged[mark.Answer.Text]; told {
				assert.Equal(t, answer, mark.Answer, "as it was answered")
			}
		}
		for key := range acknowledged {
			assert.Equal(t, 1, found[key], "%s after kill %d", key, kill+1)
		}
		var after contract.Score
		require.NoError(t, program.Get(fmt.Sprintf("/api/classes/%d/score", score.ClassID), &after))
		assert.Equal(t, score.StartedMS, after.StartedMS, "the class goes on at its own clock")
	}
	assert.Greater(t, len(acknowledged), kills)
}

// Another process holds the data file: a press is answered in plain words and the count goes on, here and in the room.
// Nothing of it is stored then, and when the file is free again the same key works.
func TestALockedFileDoesNotStopTheClass(t *testing.T) {
	th := open(t)
	page, score := th.lead(`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:8", "rounds": 40, "lead_in": 0}`)
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
	th.see(page, "[role=alert], .answer", "The data file is locked by another program: .*This was not stored")
	showsTheTrueCount(t, tl, score.StartedMS, page, room)

	require.NoError(t, lock.Rollback())
	th.press(page, input.KeyS)
	th.see(page, ".answer", "41 rounds instead of 40")
	var record contract.Record
	require.NoError(t, th.program.Get(fmt.Sprintf("/api/classes/%d/record", score.ClassID), &record))
	assert.Len(t, record.Marks, 1, "what was refused is not stored, and what was taken is once")
}
