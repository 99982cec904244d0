package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// What ends by itself is long enough for a page that opens slowly: the clock runs eight times as fast.
// Kinds of class in which the teacher, or each person, sets the pace, as they are typed.
var ownBreath = []struct {
	name, typed, called string
	waits               bool // phases wait for the teacher
}{
	{"zones", "three-part breath 6:6 x2 by hand, lead-in 0", "Three-part breath", true},
	{"a counted hold", "alternate nostril 4:4:6 x2 by hand inhale exhale, lead-in 0", "Alternate nostril breath", true},
	{"narrowed, with rests of breaths", "finger-narrowed breath narrow in 5:5 x2 by hand, rest 2 breaths, lead-in 0",
		"Finger-narrowed breath", true},
	{"partners", "back to back breath 5:5 x2 my breath, lead-in 0", "Back to back breath", true},
	{"square", "square breath x2 by hand, lead-in 0", "Square breath", true},
	{"ocean", "ocean breath 5:5 x2 no counting, lead-in 0", "Ocean breath", true},
	{"a mantra in the holds", "breath in four steps x2, by hand inhale exhale, lead-in 0, mantra in holds sa ta na ma",
		"Breath in four steps", true},
	{"strokes at own pace", "kapalabhati own pace 9 min", "Skull-shining breath", false},
	{"panting", "panting breath 2 min lead-in 0", "Panting breath", false},
	{"a flow on one side", "sun salutation x1, left side, by hand, lead-in 0", "Sun salutation", true},
	{"a posture with a change of sides", "warrior two, 2 breaths each side, by hand, lead-in 0", "Warrior two", true},
	{"three options at own pace", "even breath 4:4 own pace 9 min, choice of 4:4 or 4:6 or 4:4:4", "Even breath", false},
}

// Each of them is planned by typing and led to its end three times: by the keyboard alone, by one pedal alone, and by a
// phone remote. Two room phones show the same, and once the server is killed in the middle.
func TestOwnBreathInEveryKind(t *testing.T) {
	for _, kind := range ownBreath {
		t.Run(kind.name, func(t *testing.T) {
			th := openAt(t, 8)
			defer th.recovered()
			page := th.page("/")
			th.click(page, "button", "New plan")
			th.see(page, "span", "^Saved$")
			th.add(page, kind.typed, kind.called)
			th.see(page, "span", "^Saved$")
			plan := strings.TrimPrefix(th.eval(page, `() => location.pathname`).Str(), "/plan/")
			var number int64
			_, err := fmt.Sscan(plan, &number)
			require.NoError(t, err)
			var code contract.RoomCode
			require.NoError(t, th.program.Get("/api/room", &code))
			phones := []*screen{th.phone("/room/" + code.Code), th.phone("/room/" + code.Code)}
			for _, by := range []string{"keyboard", "pedal", "remote"} {
				var score contract.Score
				require.NoError(t, th.program.Lead(number, &score))
				view := "lead"
				if by == "remote" {
					view = "remote"
				}
				leader := th.page(fmt.Sprintf("/%s/%d", view, score.ClassID))
				th.see(leader, `[data-testid="word"]`, ".")
				waited := th.ownBreathToItsEnd(leader, phones, score, by)
				th.sent(leader)
				verbs := th.marks(score.ClassID)
				assert.NotContains(t, strings.Join(verbs, " "), "refused", by)
				if kind.waits {
					assert.GreaterOrEqual(t, waited, 4, "%s: two rounds have two breaths at least", by)
					assert.GreaterOrEqual(t, len(verbs), waited, by)
				}
				require.NoError(t, leader.tab.Close())
			}
		})
	}
}

// ownBreathToItsEnd goes on wherever the class waits, and from own pace, until the class is over. It returns how often
// a phase waited, and sees that everybody is shown what came with each press.
func (th *theater) ownBreathToItsEnd(leader *screen, phones []*screen, began contract.Score, by string) (waited int) {
	th.Helper()
	press := map[string]func(){
		"keyboard": func() { th.press(leader, input.KeyF) },
		"pedal":    func() { th.pedal(leader, 1) },
		"remote":   func() { th.tap(leader, ".area", "Go on|Call|Next") },
	}[by]
	killed := by != "keyboard"
	for {
		var score contract.Score
		var here contract.ScorePhase
		var at int64
		over := false
		th.asked("something to go on from, or the end", func() bool {
			var clock contract.Clock
			require.NoError(th, th.program.Get("/api/clock", &clock))
			require.NoError(th, th.program.Get(fmt.Sprintf("/api/classes/%d/score", began.ClassID), &score))
			at = int64(clock.SentMS - score.StartedMS)
			if over = score.Over || score.Wait == nil && at >= score.EndMS; over {
				return true
			}
			for _, phase := range score.Phases {
				if phase.AtMS[0] <= at {
					here = phase
				}
			}
			inOwn := (here.Stage == "own" || here.Stage == "recall") && at < here.EndMS-2500
			return (here.EndMS < 0 || inOwn) && at > here.AtMS[0]+2500
		})
		if over {
			return waited
		}
		open := here.EndMS < 0
		next := ""
		if open && len(score.Wait.Phases) > 0 {
			next = score.Wait.Phases[0].Word
		}
		if open {
			waited++
		}
		if !killed {
			killed = true
			th.program.Kill()
			press()
			th.restart()
		} else {
			press()
		}
		th.asked("the press", func() bool {
			var now contract.Score
			require.NoError(th, th.program.Get(fmt.Sprintf("/api/classes/%d/score", began.ClassID), &now))
			return now.Revision > score.Revision
		})
		if open && next != "" && len(score.Wait.Phases) > 1 && score.Wait.Phases[0].Open {
			for _, phone := range phones { // it waits too, so that it stays to be seen
				th.see(phone, `[data-testid="word"]`, next)
			}
		}
	}
}
