package lead_test

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/studio"
	"vastlantern/studio/apart"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

const name = "0123456789abcdef0123456789abcdef"

// beginsApart has a lead screen begin a class of the plan by itself, and returns it with what the program is told of
// it.
func beginsApart(t *testing.T, d *desktest.Desk, plan contract.Plan, uid string) (*screen, contract.BegunApart) {
	t.Helper()
	kit, err := d.Classes.PlanKit(t.Context(), plan.ID, "tablet")
	require.NoError(t, err)
	started := d.Studio.Now().UnixMilli()
	told := contract.BegunApart{
		UID: uid, PlanID: kit.PlanID, StartedMS: started, Document: kit.Document,
		Acknowledged: contract.StrongCautions(plan),
	}
	if kit.Group != nil {
		told.GroupID = kit.Group.ID
	}
	kit.ClassID, kit.StartedMS = -1, started
	s, err := apart.Open(kit, nil)
	require.NoError(t, err)
	return &screen{Screen: s, Desk: d, t: t, name: "tablet " + uid}, told
}

// tells has the program have the class that the screen began.
func (s *screen) tells(told contract.BegunApart) {
	s.t.Helper()
	kit, err := s.Classes.BeginApart(s.t.Context(), told, "tablet")
	require.NoError(s.t, err)
	s.class = kit.ClassID
	s.Adopt(kit)
}

func (s *screen) endedAt() time.Time {
	s.t.Helper()
	class, err := s.Classes.Open(s.t.Context(), s.class)
	require.NoError(s.t, err)
	return class.EndedAt
}

func TestAClassIsBegunApart(t *testing.T) {
	d := desktest.New(t)
	plan := d.AddPlan(desktest.Rounds)
	here, told := beginsApart(t, d, plan, name)
	here.press(3_000, contract.Adjust{Do: pace.ToTempo, To: 50.0})
	d.Pass(20)
	here.tells(told)
	here.tells(told)
	here.send(true, "")
	here.press(21_000, contract.Adjust{Do: pace.ToPause})
	d.Pass(2)
	here.send(false, "")
	here.agrees()

	class, err := d.Classes.Open(t.Context(), here.class)
	require.NoError(t, err)
	assert.Equal(t, told.StartedMS, class.StartedAt.UnixMilli())
	assert.Equal(t, plan.ID, class.Stored.PlanID)
	assert.Len(t, class.Script, 2)
	found, err := d.Records.Find(t.Context(), contract.Search{})
	require.NoError(t, err)
	assert.Len(t, found.Classes, 1, "told twice, there once")

	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: plan.ID, UID: name})
	require.NoError(t, err)
	assert.Equal(t, here.class, score.ClassID, "begun under the same name")
}

// A class that ended while the program was away is in the record with the length that it had.
func TestAClassIsLedApartToItsEnd(t *testing.T) {
	d := desktest.New(t)
	here, told := beginsApart(t, d, d.AddPlan(desktest.Rounds), name)
	here.press(9_000, contract.Adjust{Do: pace.End})
	d.Pass(3600)
	here.tells(told)
	here.send(true, "")
	assert.Equal(t, told.StartedMS+9_000, here.endedAt().UnixMilli())
	running, err := d.Classes.Running(t.Context())
	require.NoError(t, err)
	assert.Zero(t, running.ClassID)
}

// Of a class that was begun apart and another one, the one that was begun last goes on.
func TestTheClassThatWasBegunLastGoesOn(t *testing.T) {
	t.Run("apart", func(t *testing.T) {
		d, other := begun(t, desktest.Rounds)
		d.Pass(10)
		here, told := beginsApart(t, d, d.AddPlan(desktest.Rounds), name)
		d.Pass(5)
		here.tells(told)
		ended, err := d.Classes.Open(t.Context(), other)
		require.NoError(t, err)
		assert.Equal(t, int64(10_000), ended.EndedAt.Sub(ended.StartedAt).Milliseconds(), "when the other one was begun")
		running, err := d.Classes.Running(t.Context())
		require.NoError(t, err)
		assert.Equal(t, here.class, running.ClassID)
	})
	t.Run("the other", func(t *testing.T) {
		d := desktest.New(t)
		plan := d.AddPlan(desktest.Rounds)
		here, told := beginsApart(t, d, plan, name)
		d.Pass(10)
		score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: plan.ID})
		require.NoError(t, err)
		d.Pass(5)
		here.press(8_000, contract.Adjust{Do: pace.ToPause})
		here.tells(told)
		here.send(true, "")
		running, err := d.Classes.Running(t.Context())
		require.NoError(t, err)
		assert.Equal(t, score.ClassID, running.ClassID)
		assert.Equal(t, told.StartedMS+15_000, here.endedAt().UnixMilli(), "it waited in natural breath until now")
		d.Reopen()
		running, err = d.Classes.Running(t.Context())
		require.NoError(t, err)
		assert.Equal(t, score.ClassID, running.ClassID, "also after a restart")
	})
}

// The device's clock may be ahead: a class has no presses in the future.
func TestAClassFromTheFutureBeganEarlier(t *testing.T) {
	d := desktest.New(t)
	here, told := beginsApart(t, d, d.AddPlan(desktest.Rounds), name)
	told.StartedMS += 600_000
	told.AtMS = 30_000
	here.tells(told)
	class, err := d.Classes.Open(t.Context(), here.class)
	require.NoError(t, err)
	assert.Equal(t, d.Studio.Now().UnixMilli()-30_000, class.StartedAt.UnixMilli())
}

// The plan and the group may be gone when the class comes: it was taught all the same.
func TestAClassIsBegunApartOfAPlanThatIsGone(t *testing.T) {
	d := desktest.New(t)
	here, told := beginsApart(t, d, d.AddPlan(desktest.Rounds), name)
	told.PlanID, told.GroupID = 77, 88
	here.tells(told)
	here.send(true, "")
	class, err := d.Classes.Open(t.Context(), here.class)
	require.NoError(t, err)
	assert.Zero(t, class.Stored.PlanID)
	assert.Zero(t, class.Stored.GroupID)
	assert.JSONEq(t, told.Document, string(class.Document))
}

func TestWhatIsWrongWithAClassBegunApart(t *testing.T) {
	d := desktest.New(t)
	strong := `{"type": "practice", "practice": "kapalabhati", "strokes": 20, "rounds": 2}`
	_, told := beginsApart(t, d, d.AddPlan(strong), name)
	require.NotEmpty(t, told.Acknowledged)
	for wrong, change := range map[string]func(*contract.BegunApart){
		"apart.uid":       func(b *contract.BegunApart) { b.UID = strings.ToUpper(b.UID) },
		"apart.start":     func(b *contract.BegunApart) { b.StartedMS = -1 << 62 },
		"apart.at":        func(b *contract.BegunApart) { b.AtMS = 1 << 62 },
		"lead.plan-wrong": func(b *contract.BegunApart) { b.Document = `{"format": "vast-lantern-plan"}` },
		"lead.read-first": func(b *contract.BegunApart) { b.Acknowledged = nil },
	} {
		one := told
		change(&one)
		_, err := d.Classes.BeginApart(t.Context(), one, "tablet")
		var failure *studio.Failure
		require.ErrorAs(t, err, &failure, wrong)
		assert.Equal(t, wrong, failure.Problem.Say.ID)
	}
	found, err := d.Records.Find(t.Context(), contract.Search{})
	require.NoError(t, err)
	assert.Empty(t, found.Classes)
}
