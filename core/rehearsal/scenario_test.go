package rehearsal_test

import (
	"bytes"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/core/rehearsal"
	"vastlantern/core/room"
	"vastlantern/core/sheet"
)

// teacher leads a class second by second: says what is seen a few seconds later, and takes what is proposed.
type teacher struct {
	*rehearsal.Led
	class   *pace.Class
	handled map[string]int64
	paused  int64
}

func (th *teacher) press(a pace.Adjustment) {
	if th.class.Adjust(a).Refused.None() {
		th.Script = append(th.Script, a)
	}
}

const reacts, step = 4000, 1000 // ms

func (th *teacher) look(now int64, propose bool) {
	th.Now = now
	for _, course := range th.Courses() {
		for _, sign := range course.Signs {
			if now < sign.At+reacts || now >= sign.At+reacts+step ||
				now-th.handled[sign.ID] < 40_000 && th.handled[sign.ID] > 0 {
				continue
			}
			th.handled[sign.ID] = now
			th.press(pace.Adjustment{At: now, Do: pace.Signal, See: sign.ID})
			scene := room.Scene{Now: th.class.At(now), Before: 1, SlotEnd: th.Plan.Slot.Times(60_000).Round()}
			if !propose || scene.Now.Passage == 0 {
				continue
			}
			scene.Passage = &th.Plan.Passages[scene.Now.Passage-1]
			proposal, _ := room.Propose(sign.ID, scene)
			for _, do := range proposal.Do {
				do.At = now
				if th.press(do); do.Do == pace.ToPause {
					th.paused = now
				}
			}
		}
	}
}

// breathe goes on where the teacher's breath is over, which takes so many milliseconds in or out.
func (th *teacher) breathe(now, takes int64) {
	timeline := th.class.Timeline()
	if !timeline.Open {
		return
	}
	last := timeline.Rows[len(timeline.Rows)-1]
	if last.Phase.Moves() && now >= last.At+takes {
		th.press(pace.Adjustment{At: now, Do: pace.Advance})
	}
}

// unhurried is how long a breath in or out takes a teacher who waits for the room, in milliseconds.
const unhurried = 5000

// leads goes through a whole level. Without acts nobody does anything.
func leads(t *testing.T, level *rehearsal.Level, acts bool) (*rehearsal.Review, []rehearsal.Reached) {
	t.Helper()
	return leadsBreathing(t, level, acts, unhurried)
}

func leadsBreathing(
	t *testing.T, level *rehearsal.Level, acts bool, takes int64,
) (*rehearsal.Review, []rehearsal.Reached) {
	t.Helper()
	document, err := level.Document("a task")
	require.NoError(t, err)
	_, p, err := sheet.ReadPlan(bytes.NewReader(document))
	require.NoError(t, err)
	people, err := level.Seat(level.Seed)
	require.NoError(t, err)
	th := &teacher{
		Led:   &rehearsal.Led{Plan: p, People: people, Seed: level.Seed, Latecomer: level.Latecomer * 1000},
		class: pace.Begin(p), handled: map[string]int64{},
	}
	now := int64(0)
	for ; acts && th.class.At(now).Passage > 0; now += step {
		th.look(now, true)
		th.breathe(now, takes)
		if th.paused > 0 && now > th.paused+25_000 {
			th.press(pace.Adjustment{At: now, Do: pace.Resume})
			th.paused = 0
		}
		slot := p.Slot.Times(60_000).Round()
		if slot > 0 && now%10_000 == 0 && th.class.Timeline().End > slot && th.paused == 0 {
			scene := room.Scene{Now: th.class.At(now), SlotEnd: slot}
			scene.Passage = &p.Passages[scene.Now.Passage-1]
			proposal, err := room.Propose("clock", scene)
			require.NoError(t, err)
			for _, do := range proposal.Do {
				do.At = now
				th.press(do)
			}
		}
	}
	th.Now = max(now, th.class.Timeline().End)
	review := th.Review()
	return &review, level.Reached(&review, 0)
}

// Each level shows what is to be learned in it to somebody who only watches, and is reached by somebody who looks, says
// what is seen and takes what is proposed.
func TestEveryLevelCanBeLearned(t *testing.T) {
	list, err := rehearsal.Scenarios()
	require.NoError(t, err)
	require.Len(t, list, 10)
	for _, scenario := range list {
		require.Len(t, scenario.Levels, 3, scenario.Name)
		for i := range scenario.Levels {
			level := &scenario.Levels[i]
			t.Run(fmt.Sprintf("%s %d", scenario.Name, i+1), func(t *testing.T) {
				if testing.Short() && i > 0 {
					t.Skip("the higher levels take ten seconds")
				}
				idle, watched := leads(t, level, false)
				missed := 0
				for _, aim := range watched {
					if !aim.Done {
						missed++
					}
				}
				assert.Positive(t, missed, "it is not reached by watching")
				assert.LessOrEqual(t, idle.End, int64(9*60_000), "it is short")
				review, reached := leads(t, level, true)
				for _, aim := range reached {
					assert.True(t, aim.Done, "%s\n%s", aim.Says, told(review))
				}
			})
		}
	}
}

// Who leads by breathing and hurries has a room that is behind, and sees it.
func TestAHurriedBreathLeavesTheRoomBehind(t *testing.T) {
	for number := 1; number <= 3; number++ {
		_, level, err := rehearsal.FindScenario("by-breath", number)
		require.NoError(t, err)
		hurried, reached := leadsBreathing(t, &level, true, 1500)
		assert.Greater(t, hurried.HurriedCount(), 8, "level %d", number)
		assert.False(t, reached[0].Done, reached[0].Says)
		patient, _ := leadsBreathing(t, &level, true, unhurried)
		assert.Zero(t, patient.HurriedCount())
		behind := func(r *rehearsal.Review) (signs int) {
			for _, course := range r.Courses {
				for _, sign := range course.Signs {
					if sign.ID == rehearsal.Late {
						signs++
					}
				}
			}
			return signs
		}
		assert.Greater(t, behind(hurried), 2*behind(patient), "to be seen by who is late")
	}
}

func told(r *rehearsal.Review) string {
	text := ""
	for _, m := range r.Moments {
		text += fmt.Sprintf(
			"%6.1f %s of %d, few %v, named %d, pressed %d by %s\n",
			float64(m.At)/1000,
			m.ID,
			len(m.People),
			m.Few,
			m.Named,
			m.Pressed,
			m.By,
		)
	}
	for _, e := range r.Eased {
		text += fmt.Sprintf("%6.1f %s: %d strained, %d at ease\n", float64(e.At)/1000, e.Do, e.Strained, e.AtEase)
	}
	return text + fmt.Sprintf(
		"end %d late %d rest %d of %d over %v; %s",
		r.End,
		r.Late,
		r.Rest,
		r.Planned,
		r.Over,
		r.Next.Says,
	)
}
