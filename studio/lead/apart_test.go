package lead_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/studio"
	"vastlantern/studio/apart"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

// screen is a lead screen with its own copy of a class.
type screen struct {
	*apart.Screen
	*desktest.Desk
	t       *testing.T
	class   int64
	name    string
	pressed int
}

func screenOf(t *testing.T, d *desktest.Desk, class int64, name string) *screen {
	kit, err := d.Classes.Kit(t.Context(), class, name)
	require.NoError(t, err)
	s, err := apart.Open(kit, nil)
	require.NoError(t, err)
	return &screen{Screen: s, Desk: d, t: t, class: class, name: name}
}

func (s *screen) press(at int64, want contract.Adjust) {
	s.pressed++
	want.Key = fmt.Sprintf("%s-%d", s.name, s.pressed)
	_, err := s.Press(at, want)
	require.NoError(s.t, err)
}

// send sends what is unsent, and takes the answer.
func (s *screen) send(isApart bool, choose contract.Choice) contract.Taken {
	sent, err := s.Unsent()
	require.NoError(s.t, err)
	sent.Apart, sent.Choose, sent.Copy = isApart, choose, s.Copy()
	for _, row := range sent.Copy {
		sent.Keys = append(sent.Keys, row.Key)
	}
	for i := range sent.Presses {
		sent.Presses[i].Origin = s.name
	}
	taken, err := s.Classes.Take(s.t.Context(), s.class, sent)
	require.NoError(s.t, err)
	if taken.Asked == nil {
		require.NoError(s.t, s.Sync(taken.From, taken.Pressed))
	}
	return taken
}

func begun(t *testing.T, passages string) (*desktest.Desk, int64) {
	d := desktest.New(t)
	return d, d.Start(d.AddPlan(passages))
}

// What the program makes of presses that come late is what it is after a restart, and what the screen has.
func (s *screen) agrees() {
	s.t.Helper()
	score, err := s.Classes.Score(s.t.Context(), s.class)
	require.NoError(s.t, err)
	s.Reopen()
	anew, err := s.Classes.Score(s.t.Context(), s.class)
	require.NoError(s.t, err)
	score.Edition, anew.Edition = 0, 0 // of the stream, of which a screen's own copy has none
	assert.Equal(s.t, anew, score)
	own := s.Score(s.Studio.Now().UnixMilli() - int64(score.StartedMS))
	want, err := json.Marshal(anew)
	require.NoError(s.t, err)
	has, err := json.Marshal(own)
	require.NoError(s.t, err)
	assert.JSONEq(s.t, string(want), string(has))
}

func TestPressesComeLateAndActWhenTheyWereMade(t *testing.T) {
	d, class := begun(t, desktest.Rounds)
	here := screenOf(t, d, class, "tablet")
	here.press(3_000, contract.Adjust{Do: pace.ToTempo, To: 50.0})
	here.press(9_000, contract.Adjust{Do: pace.ToPause})
	d.Pass(20)
	taken := here.send(true, "")
	require.Nil(t, taken.Asked)
	require.Len(t, taken.Pressed, 2)
	assert.JSONEq(t, `{"at_ms": 9000, "key": "tablet-2", "do": "pause"}`, string(taken.Pressed[1].Line))
	assert.Equal(t, "tablet", taken.Pressed[1].Origin)
	here.agrees()

	again, err := d.Classes.Take(t.Context(), class, contract.Presses{Apart: true, Presses: []contract.TimedPress{
		{AtMS: 9_000, Adjust: contract.Adjust{Key: "tablet-2", Do: pace.ToPause}}}})
	require.NoError(t, err)
	assert.Equal(t, 2, again.Score.Revision, "sent twice, done once")
}

func TestAClassThatEndedByTheClockGoesOn(t *testing.T) {
	d, class := begun(t, desktest.Rounds)
	here := screenOf(t, d, class, "tablet")
	here.press(9_000, contract.Adjust{Do: pace.ToPause})
	d.Pass(300)
	score, err := d.Classes.Score(t.Context(), class)
	require.NoError(t, err)
	require.True(t, score.Over, "nobody told the program of the pause")
	taken := here.send(true, "")
	assert.False(t, taken.Score.Over)
	running, err := d.Classes.Running(t.Context())
	require.NoError(t, err)
	assert.Equal(t, class, running.ClassID)
	here.agrees()

	here.press(310_000, contract.Adjust{Do: pace.End})
	d.Pass(20)
	assert.True(t, here.send(true, "").Score.Over)
	record, err := d.Records.Record(t.Context(), class)
	require.NoError(t, err)
	assert.EqualValues(t, 310_000, record.TaughtMS)
}

func TestAClassApartEndsWhereAnotherWasBegun(t *testing.T) {
	d, class := begun(t, desktest.Rounds)
	here := screenOf(t, d, class, "tablet")
	here.press(9_000, contract.Adjust{Do: pace.ToPause})
	d.Pass(300)
	other, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: d.AddPlan(desktest.Rounds).ID})
	require.NoError(t, err)
	d.Pass(5)
	taken := here.send(true, "")
	assert.True(t, taken.Score.Over)
	require.Len(t, taken.Pressed, 2)
	assert.JSONEq(t, `{"at_ms": 305000, "key": "", "do": "end"}`, string(taken.Pressed[1].Line))
	running, err := d.Classes.Running(t.Context())
	require.NoError(t, err)
	assert.Equal(t, other.ClassID, running.ClassID, "the other one goes on")
	here.agrees()
}

func TestTwoDevicesAndTheChoice(t *testing.T) {
	for _, choice := range []contract.Choice{contract.ChooseScreen, contract.ChooseProgram} {
		d, class := begun(t, desktest.Rounds)
		here, there := screenOf(t, d, class, "tablet"), screenOf(t, d, class, "phone")
		here.press(3_000, contract.Adjust{Do: pace.ToTempo, To: 50.0})
		d.Pass(5)
		there.press(5_000, contract.Adjust{Do: pace.ToPause})
		there.send(false, "")
		d.Pass(2)

		taken := here.send(true, "")
		require.Len(t, taken.Asked, 1)
		assert.Equal(t, pace.ToPause, taken.Asked[0].Do)
		assert.Equal(t, "phone", taken.Asked[0].Origin)
		assert.Equal(t, 1, taken.Score.Revision, "nothing is added before the teacher chooses")

		taken = here.send(true, choice)
		require.Nil(t, taken.Asked)
		require.Equal(t, 2, taken.Score.Revision)
		assert.Equal(t, "did.aside", taken.Score.Answer.Did.ID)
		here.agrees()
		there.send(false, "")
		there.agrees()
		paused := taken.Score.Phases[0].Stage == pace.Pause
		assert.Equal(t, choice == contract.ChooseProgram, paused, string(choice))
		record, err := d.Records.Record(t.Context(), class)
		require.NoError(t, err)
		assert.Len(t, record.Marks, 2, "nothing is lost")
	}
}

func TestWhatAScreenSendsIsChecked(t *testing.T) {
	d, class := begun(t, desktest.Rounds)
	for what, sent := range map[string]contract.Presses{
		"since":    {Since: -1, Presses: []contract.TimedPress{{Adjust: contract.Adjust{Key: "k", Do: pace.ToPause}}}},
		"too many": {Presses: make([]contract.TimedPress, 501)},
		"no key":   {Presses: []contract.TimedPress{{Adjust: contract.Adjust{Do: pace.ToPause}}}},
		"no verb":  {Presses: []contract.TimedPress{{Adjust: contract.Adjust{Key: "k", Do: "fly"}}}},
		"no choice": {Since: 3, Last: "x", Apart: true, Choose: "me",
			Presses: []contract.TimedPress{{Adjust: contract.Adjust{Do: "x"}}}},
		"long label": {Presses: []contract.TimedPress{{Adjust: contract.Adjust{Key: "k", Do: pace.Verb(make([]byte, 200))}}}},
	} {
		_, err := d.Classes.Take(t.Context(), class, sent)
		assert.ErrorIs(t, err, studio.ErrInvalid, what)
	}
	score, err := d.Classes.Score(t.Context(), class)
	require.NoError(t, err)
	assert.Zero(t, score.Revision)
	_, err = d.Classes.Take(t.Context(), 99, contract.Presses{})
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

// A kit leaves the teacher's notes on the group out, and tells of conditions how many people have them.
func TestAKitHasNoNotes(t *testing.T) {
	d := desktest.New(t)
	group := d.WithGroup(func(g *contract.Group) { g.Notes = "Ada sits by the door" })
	plan, err := d.Plans.Add(t.Context(), desktest.Document(desktest.Rounds), group.ID)
	require.NoError(t, err)
	kit, err := d.Classes.Kit(t.Context(), d.Start(plan), "tablet")
	require.NoError(t, err)
	text, err := json.Marshal(kit)
	require.NoError(t, err)
	assert.NotContains(t, string(text), "Ada")
	assert.Equal(t, group.Name, kit.Group.Name)
	assert.Equal(t, 1, kit.Group.Conditions["pregnancy"])
}
