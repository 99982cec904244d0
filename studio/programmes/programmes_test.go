package programmes_test

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/plan"
	"vastlantern/core/programme"
	"vastlantern/language"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

// rounds returns a programme of three steps, a week apart.
func rounds() programme.Programme {
	return programme.Programme{
		Name:    "More rounds",
		Passage: 1,
		Steps:   []programme.Step{{Says: "x3", Classes: 1}, {Says: "x4", Classes: 1}, {Says: "x5", Classes: 1}},
		By:      programme.Led,
		Times:   2,
		Days:    7,
		Missed:  programme.Wait, Eased: programme.Back,
	}
}

// begun returns a group that has begun a programme with a class in an hour.
func begun(t *testing.T, of programme.Programme) (*desktest.Desk, contract.ProgrammeSheet) {
	t.Helper()
	d := desktest.New(t)
	group, err := d.Library.AddGroup(t.Context(), "Lunch", "beginners", 12)
	require.NoError(t, err)
	document := fmt.Sprintf(
		`{"format": "vast-lantern-plan", "version": 1, "title": "Lunch", "tempo": 60, "slot_min": 30, "starts_at": %q, `+
			`"passages": [%s]}`,
		d.Time.Add(time.Hour).Format(time.RFC3339),
		desktest.Rounds,
	)
	p, err := d.Plans.Add(t.Context(), []byte(document), group.ID)
	require.NoError(t, err)
	s, err := d.Programmes.Begin(t.Context(), p.ID, of)
	require.NoError(t, err)
	return d, s
}

// next returns the class that comes next.
func next(t *testing.T, s contract.ProgrammeSheet) contract.ProgrammeClass {
	t.Helper()
	for _, c := range s.Classes {
		if c.State == contract.StateComing {
			return c
		}
	}
	require.Fail(t, "nothing comes")
	return contract.ProgrammeClass{}
}

// teach leads the next class at its time, to its end or cut short.
func teach(t *testing.T, d *desktest.Desk, short bool) contract.ProgrammeSheet {
	t.Helper()
	s, err := d.Programmes.Sheet(t.Context(), 1)
	require.NoError(t, err)
	coming := next(t, s)
	d.Time = time.UnixMilli(int64(coming.StartsMS)).UTC()
	p, err := d.Plans.Plan(t.Context(), coming.PlanID)
	require.NoError(t, err)
	class := d.Start(p)
	if short {
		d.Pass(8)
		d.Do(class, "end")
	}
	d.Pass(600)
	s, err = d.Programmes.Sheet(t.Context(), 1)
	require.NoError(t, err)
	return s
}

// says is the steps of what comes, and how many there are.
func coming(s contract.ProgrammeSheet) string {
	var list []string
	for _, c := range s.Classes {
		if c.State == contract.StateComing {
			list = append(list, c.Says)
		}
	}
	return strings.Join(list, " ")
}

func roundsOf(t *testing.T, d *desktest.Desk, c contract.ProgrammeClass) int {
	t.Helper()
	p, err := d.Plans.Plan(t.Context(), c.PlanID)
	require.NoError(t, err)
	return p.Summary.Passages[0].Rounds
}

// A group follows a programme: it goes on when it was led as planned, steps back when it had to be eased, waits when
// nobody came, and the plans that come follow; next time says so.
func TestAProgrammeIsFollowed(t *testing.T) {
	d, s := begun(t, rounds())
	assert.Equal(t, "x3 x3 x4 x4", coming(s))
	assert.Equal(t, "It begins.", desktest.Words(s.Card.Why))
	s = teach(t, d, false)
	assert.Equal(t, contract.StatePlanned, s.Classes[0].State)
	assert.Equal(t, "Led as planned once; it moves on after 2 in a row.", desktest.Words(s.Card.Why))
	assert.Equal(t, "x3 x4 x4 x5", coming(s), "four come always")
	s = teach(t, d, false)
	assert.Equal(t, 2, s.Card.Step)
	assert.Equal(t, "Step 1 is done: on to step 2.", desktest.Words(s.Card.Why))

	course, err := d.Records.GroupCourse(t.Context(), 1)
	require.NoError(t, err)
	require.Len(t, course.Practices, 1)
	assert.Equal(t, "More rounds, step 2 of 3. Step 1 is done: on to step 2.", desktest.Words(course.Practices[0].Why))
	assert.Contains(t, desktest.Words(course.Practices[0].Next), "4 rounds")
	p, err := d.Plans.Plan(t.Context(), next(t, s).PlanID)
	require.NoError(t, err)
	for _, advice := range p.Summary.Advice {
		assert.NotEqual(t, contract.ChangeAdvised, advice.Do, "the plan has it already: %s", advice.Say)
	}

	s = teach(t, d, true)
	assert.Equal(t, contract.StateEased, s.Classes[2].State)
	assert.Equal(t, "The last class was eased: back to step 1.", desktest.Words(s.Card.Why))
	assert.Equal(t, "x3 x3 x4 x4", coming(s))
	assert.Equal(t, 3, roundsOf(t, d, next(t, s)), "the plan that was made for more was made anew")

	d.Time = time.UnixMilli(int64(next(t, s).StartsMS)).UTC().Add(13 * time.Hour) // nobody came
	d.Programmes.FollowAll(t.Context())
	s, err = d.Programmes.Sheet(t.Context(), 1)
	require.NoError(t, err)
	assert.Equal(t, contract.StateMissed, s.Classes[3].State)
	assert.Equal(t, "The last class was missed: it waits at step 1.", desktest.Words(s.Card.Why))
	assert.Equal(t, "x3 x3 x4 x4", coming(s))
	for i := 1; i < len(s.Classes); i++ {
		assert.InDelta(t, s.Classes[i-1].StartsMS+7*24*3_600_000, s.Classes[i].StartsMS, 1, "a week apart")
	}
	for range 6 {
		s = teach(t, d, false)
	}
	assert.True(t, s.Card.Over)
	assert.Equal(t, "", coming(s))
	assert.Equal(t, []int{1, 1, 2, 2, 3, 3}, s.Planned)
}

// A class that the teacher has changed is left as it is, and does not break what comes after it.
func TestAChangedClassIsLeftAsItIs(t *testing.T) {
	d, s := begun(t, rounds())
	second := s.Classes[1]
	p, err := d.Plans.Plan(t.Context(), second.PlanID)
	require.NoError(t, err)
	changed := strings.Replace(string(p.Document), `"rounds": 3`, `"rounds": 7`, 1)
	require.NotEqual(t, string(p.Document), changed)
	_, err = d.Plans.Save(t.Context(), p.ID, contract.PlanSave{Revision: p.Revision, Document: json.RawMessage(changed),
		GroupID: 1})
	require.NoError(t, err)
	s, err = d.Programmes.Sheet(t.Context(), 1)
	require.NoError(t, err)
	assert.True(t, s.Classes[1].Changed)
	of := rounds()
	of.Steps[0].Says = "x2"
	s, err = d.Programmes.Save(t.Context(), 1, contract.ProgrammeSave{Revision: s.Revision, Programme: of})
	require.NoError(t, err)
	assert.Equal(t, 7, roundsOf(t, d, s.Classes[1]))
	assert.Equal(t, 2, roundsOf(t, d, s.Classes[0]), "what was not changed follows")
	s = teach(t, d, false)
	s = teach(t, d, false)
	assert.Equal(t, 2, s.Card.Step, "led as planned, whatever was planned")

	before := next(t, s).StartsMS
	s, err = d.Programmes.Shift(t.Context(), 1)
	require.NoError(t, err)
	assert.InDelta(t, before+7*24*3_600_000, next(t, s).StartsMS, 1)

	file, err := d.Programmes.Files(t.Context(), 1)
	require.NoError(t, err)
	archive, err := zip.NewReader(bytes.NewReader(file.Data), int64(len(file.Data)))
	require.NoError(t, err)
	assert.Len(t, archive.File, len(s.Classes))
}

func TestWhatCannotBeAProgramme(t *testing.T) {
	d, s := begun(t, rounds())
	_, err := d.Programmes.Begin(t.Context(), s.Classes[0].PlanID, rounds())
	require.ErrorIs(t, err, studio.ErrConflict)
	timeless := d.AddPlan(desktest.Rounds)
	_, err = d.Programmes.Begin(t.Context(), timeless.ID, rounds())
	assert.Contains(t, language.English().Error(err), "Give the first class a time")
	_, err = d.Plans.Move(t.Context(), timeless.ID, contract.MovePlan{StartsMS: contract.Millis(d.Time.AddDate(0, 0, -2))})
	require.NoError(t, err)
	_, err = d.Programmes.Begin(t.Context(), timeless.ID, rounds())
	assert.Contains(t, language.English().Error(err), "day of this class is over")
	for says, want := range map[string]string{"x3 purple": "Step 2", "4:4:frog": "Step 2", "x0": "Step 2"} {
		of := rounds()
		of.Steps[1].Says = says
		_, err = d.Programmes.Save(t.Context(), 1, contract.ProgrammeSave{Revision: s.Revision, Programme: of})
		require.ErrorIs(t, err, studio.ErrInvalid, says)
		assert.Contains(t, language.English().Error(err), want, says)
	}
	of := rounds()
	of.Days = 0
	_, err = d.Programmes.Save(t.Context(), 1, contract.ProgrammeSave{Revision: s.Revision, Programme: of})
	assert.Contains(t, language.English().Error(err), "Days between two classes")
	_, err = d.Programmes.Sheet(t.Context(), 99)
	assert.ErrorIs(t, err, studio.ErrNotFound)
	none, err := d.Programmes.OfPlan(t.Context(), timeless.ID)
	require.NoError(t, err)
	assert.Nil(t, none.Sheet)
}

// A course of an earlier version becomes a programme once: its plans are the classes, and what grew are the steps.
func TestACourseBecomesAProgramme(t *testing.T) {
	d := desktest.New(t)
	group, err := d.Library.AddGroup(t.Context(), "Lunch", "beginners", 12)
	require.NoError(t, err)
	for i, rounds := range []int{3, 4, 4, 5} {
		document := fmt.Sprintf(
			`{"format": "vast-lantern-plan", "version": 1, "title": "Lunch", "tempo": 60, "starts_at": %q, "course": {"name": "7-abc", "class": %d, "of": 4, "days": 7}, "passages": [
			{"type": "talk", "seconds": 30}, {"type": "practice", "practice": "nadi-shodhana", "counts": "2:2", "rounds": %d, "lead_in": 0}]}`,
			d.Time.AddDate(0, 0, 7*i+1).Format(time.RFC3339),
			i+1,
			rounds,
		)
		_, err := d.Store.AddPlan(
			store.Plan{
				GroupID:   group.ID,
				Title:     "Lunch",
				StartsAt:  d.Time.AddDate(0, 0, 7*i+1),
				Document:  []byte(document),
				UpdatedAt: d.Time,
			},
		)
		require.NoError(t, err)
	}
	before, err := d.Store.Plans()
	require.NoError(t, err)
	for range 2 {
		require.NoError(t, d.Prepare(t.Context()))
	}
	s, err := d.Programmes.Sheet(t.Context(), 1)
	require.NoError(t, err)
	assert.Equal(t, "Lunch", s.Programme.Name)
	assert.Equal(t, 2, s.Programme.Passage)
	assert.Equal(
		t,
		[]int{1, 2, 1},
		[]int{s.Programme.Steps[0].Classes, s.Programme.Steps[1].Classes, s.Programme.Steps[2].Classes},
	)
	require.Len(t, s.Classes, 4)
	after, err := d.Store.Plans()
	require.NoError(t, err)
	require.Len(t, after, len(before), "none was made anew, none is gone")
	for i, c := range s.Classes {
		assert.Equal(t, []int{3, 4, 4, 5}[i], roundsOfPassage(t, d, c, 1))
		assert.Equal(t, contract.StateComing, c.State)
		assert.False(t, c.Changed)
		assert.Empty(t, plan.CourseIn(after[i].Document).Name)
	}
}

func roundsOfPassage(t *testing.T, d *desktest.Desk, c contract.ProgrammeClass, passage int) int {
	t.Helper()
	p, err := d.Plans.Plan(t.Context(), c.PlanID)
	require.NoError(t, err)
	return p.Summary.Passages[passage].Rounds
}

// A programme moves to another machine with its plans and classes, and is there where it was here.
func TestAProgrammeMoves(t *testing.T) {
	here, _ := begun(t, rounds())
	s := teach(t, here, false)
	away := desktest.New(t)
	away.Time = here.Time
	away.Import(here.Export())
	there, err := away.Programmes.Sheet(t.Context(), 1)
	require.NoError(t, err)
	assert.Equal(t, s.Card.Why, there.Card.Why)
	assert.Equal(t, len(s.Classes), len(there.Classes))
	assert.Equal(t, here.Export(), away.Export())
	_, err = away.Transfer.Delete(t.Context(), "programme", 1, false)
	require.NoError(t, err)
	_, err = away.Programmes.Sheet(t.Context(), 1)
	require.ErrorIs(t, err, studio.ErrNotFound)
	_, err = away.Plans.Plan(t.Context(), next(t, there).PlanID)
	require.NoError(t, err, "its plans stay")
	_, err = away.Transfer.BringBack(t.Context(), "programme", 1)
	require.NoError(t, err)
	_, err = away.Programmes.Sheet(t.Context(), 1)
	assert.NoError(t, err)
}

// A weekly class stays at its time of day where the clocks are changed between, also where its plan is written in
// another zone, as a browser may.
func TestAClassStaysAtItsTimeOfDay(t *testing.T) {
	berlin, err := time.LoadLocation("Europe/Berlin")
	require.NoError(t, err)
	before := time.Local
	time.Local = berlin
	t.Cleanup(func() { time.Local = before })
	_, s := begun(t, rounds()) // at 14:00 on the 2nd of March; summer time begins on the 29th
	var times []string
	for _, c := range s.Classes {
		times = append(times, time.UnixMilli(int64(c.StartsMS)).In(berlin).Format("2 Jan 15:04"))
	}
	assert.Equal(t, []string{"2 Mar 14:00", "9 Mar 14:00", "16 Mar 14:00", "23 Mar 14:00"}, times)
	of := rounds()
	of.Days = 14
	_, s = begun(t, of)
	last := s.Classes[len(s.Classes)-1]
	assert.Equal(t, "13 Apr 14:00", time.UnixMilli(int64(last.StartsMS)).In(berlin).Format("2 Jan 15:04"))
}
