package studio_test

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

	"vastlantern/studio"
	"vastlantern/studio/contract"
)

func TestEveryTemplateCanBeLed(t *testing.T) {
	d := newDesk(t)
	list, err := d.Templates()
	require.NoError(t, err)
	require.Len(t, list, 5)
	g, err := d.SaveGroup(contract.Group{Name: "Monday", Weekday: 1, Weektime: "18:30"})
	require.NoError(t, err)
	for _, one := range list {
		p, err := d.BeginPlan(contract.Begin{Template: one.ID, GroupID: g.ID})
		require.NoError(t, err)
		assert.Empty(t, p.Summary.Errors, one.ID)
		assert.NotEmpty(t, one.About)
		assert.Equal(t, one.LengthMS, p.Summary.LengthMS)
		assert.GreaterOrEqual(t, p.Summary.SpareMS, int64(0), one.ID)
		assert.Empty(t, p.Summary.Advice, one.ID)
		assert.InDelta(t, float64(time.Date(2026, 3, 2, 18, 30, 0, 0, time.UTC).UnixMilli()), *p.Summary.StartsMS, 0, "this Monday, still to come")
	}
	_, err = d.BeginPlan(contract.Begin{Template: "../demo"})
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

func TestAgainAsPlannedOrAsTaught(t *testing.T) {
	d := newDesk(t)
	g, err := d.SaveGroup(contract.Group{Name: "Monday", Weekday: 1, Weektime: "11:00"})
	require.NoError(t, err)
	p, err := d.ImportPlan(contract.PlanText{GroupID: g.ID, Text: `{"format": "vast-lantern-plan", "version": 1, "title": "Lunch", "tempo": 60, "passages": [
		{"type": "practice", "practice": "nadi-shodhana", "counts": "2:2:2", "rounds": 3, "lead_in": 0},
		{"type": "free", "seconds": 60}, {"type": "practice", "practice": "ujjayi", "rounds": 2}]}`})
	require.NoError(t, err)
	score, err := d.Lead(contract.Lead{PlanID: p.ID, Acknowledged: studio.StrongCautions(p)})
	require.NoError(t, err)
	d.pass(1)
	slower, one := 50.0, 1
	for i, a := range []contract.Adjust{{Do: "tempo", To: &slower}, {Do: "rounds", By: &one}, {Do: "drop-holds"}} {
		a.Key = fmt.Sprintf("change %d", i)
		_, err := d.Adjust(score.ClassID, a)
		require.NoError(t, err)
	}
	d.pass(60)
	d.do(score.ClassID, "end")

	planned, err := d.BeginPlan(contract.Begin{ClassID: score.ClassID})
	require.NoError(t, err)
	assert.Equal(t, "2:2:2 x3", planned.Summary.Passages[0].Short)
	assert.Len(t, planned.Summary.Passages, 3)
	assert.Equal(t, g.ID, planned.Group.ID)
	assert.InDelta(t, float64(time.Date(2026, 3, 9, 11, 0, 0, 0, time.UTC).UnixMilli()), *planned.Summary.StartsMS, 0, "the next Monday")
	taught, err := d.BeginPlan(contract.Begin{ClassID: score.ClassID, How: "taught"})
	require.NoError(t, err)
	assert.Equal(t, "2:2 x4 @50", taught.Summary.Passages[0].Short)
	assert.Len(t, taught.Summary.Passages, 2, "what was not reached is left out")
	advised, err := d.BeginPlan(contract.Begin{ClassID: score.ClassID, How: "advised"})
	require.NoError(t, err)
	assert.Equal(t, "2:2 x4 @50", advised.Summary.Passages[0].Short, "eased: from where it ended")
	assert.Len(t, advised.Summary.Passages, 3)
	_, err = d.BeginPlan(contract.Begin{ClassID: score.ClassID, How: "somehow"})
	assert.ErrorIs(t, err, studio.ErrInvalid)
	_, err = d.BeginPlan(contract.Begin{ClassID: 99})
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

func TestACourse(t *testing.T) {
	d := newDesk(t)
	p, err := d.ImportPlan(contract.PlanText{Text: evening})
	require.NoError(t, err)
	for _, wrong := range []contract.Course{{Classes: 1, Days: 7, Grow: "nothing"}, {Classes: 5, Days: 0, Grow: "nothing"}, {Classes: 5, Days: 7, Grow: "everything"}, {Classes: 5, Days: 7, Grow: "rounds", Passage: 1}, {Classes: 60, Days: 7, Grow: "counts", Passage: 2}} {
		_, err = d.MakeCourse(p.ID, wrong)
		assert.ErrorIs(t, err, studio.ErrInvalid)
	}
	alone, err := d.Course(p.ID)
	require.NoError(t, err)
	assert.Empty(t, alone.Plans, "nothing is left of what could not be made")

	made, err := d.MakeCourse(p.ID, contract.Course{Classes: 5, Days: 7, Grow: "counts", Passage: 2})
	require.NoError(t, err)
	require.Len(t, made.Plans, 5)
	assert.Equal(t, 1, made.Place)
	starts := func() (list []string) {
		course, err := d.Course(p.ID)
		require.NoError(t, err)
		for _, card := range course.Plans {
			plan, err := d.Plan(card.ID)
			require.NoError(t, err)
			var doc struct {
				StartsAt string `json:"starts_at"`
			}
			require.NoError(t, json.Unmarshal(plan.Document, &doc))
			list = append(list, doc.StartsAt[5:16]+" "+plan.Summary.Passages[1].Counts)
		}
		return list
	}
	assert.Equal(t, []string{"03-02T18:30 4:4", "03-09T18:30 5:5", "03-16T18:30 6:6", "03-23T18:30 7:7", "03-30T18:30 8:8"}, starts())
	shifted, err := d.ShiftCourse(made.Plans[2].ID)
	require.NoError(t, err)
	assert.Equal(t, 3, shifted.Place)
	assert.Equal(t, []string{"03-02T18:30 4:4", "03-09T18:30 5:5", "03-23T18:30 6:6", "03-30T18:30 7:7", "04-06T18:30 8:8"}, starts())
	_, err = d.MakeCourse(p.ID, contract.Course{Classes: 5, Days: 7, Grow: "nothing"})
	assert.ErrorIs(t, err, studio.ErrConflict)

	file, err := d.CourseFiles(p.ID)
	require.NoError(t, err)
	archive, err := zip.NewReader(bytes.NewReader(file.Data), int64(len(file.Data)))
	require.NoError(t, err)
	require.Len(t, archive.File, 5)
	assert.True(t, strings.HasPrefix(archive.File[1].Name, "02-evening"))
	_, err = d.CourseFiles(d.addPlan(rounds).ID)
	assert.ErrorIs(t, err, studio.ErrNotFound)
	_, err = d.ShiftCourse(d.addPlan(rounds).ID)
	assert.ErrorIs(t, err, studio.ErrInvalid)
}

func TestAdviceFromTheGroupsPast(t *testing.T) {
	d := newDesk(t)
	g, err := d.SaveGroup(contract.Group{Name: "Monday", Weekday: -1})
	require.NoError(t, err)
	class := func(passages string) contract.Plan {
		t.Helper()
		p, err := d.AddPlan([]byte(`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [{"type": "talk", "seconds": 60, "wait": true}, `+passages+`, {"type": "free", "seconds": 60}]}`), g.ID)
		require.NoError(t, err)
		return p
	}
	says := func(p contract.Plan) string {
		var all []string
		for _, a := range p.Summary.Advice {
			all = append(all, a.Say+"|"+a.Do)
		}
		return strings.Join(all, "\n")
	}
	easy := class(`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4", "rounds": 2}`)
	assert.Empty(t, says(easy))
	for range 4 {
		score, err := d.Lead(contract.Lead{PlanID: easy.ID, EndRunning: true})
		require.NoError(t, err)
		d.pass(90)
		d.do(score.ClassID, "advance")
		d.pass(200)
	}
	hard := class(`{"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 2}, {"type": "practice", "practice": "nadi-shodhana", "counts": "5:10:10", "rounds": 6}`)
	assert.Contains(t, says(hard), "more than one step up")
	assert.Contains(t, says(hard), "not been prepared")
	assert.Contains(t, says(hard), "Your talks usually take 1.5 times what is planned for them.|learned")
	drafted, err := d.Draft(contract.Draft{Document: hard.Document, GroupID: g.ID, Learned: true})
	require.NoError(t, err)
	assert.Equal(t, "talks 1.5 times as long", drafted.Changed)
	assert.EqualValues(t, 90_000, drafted.Summary.Passages[0].LengthMS)
	assert.Contains(t, says(hard), "Alternate nostril breath: 4:4 x3 in the place of 5:10:10 x6.|next", "led as planned four times")
	drafted, err = d.Draft(contract.Draft{Document: hard.Document, GroupID: g.ID, Passage: 3, Next: true})
	require.NoError(t, err)
	assert.Equal(t, "4:4 x3", drafted.Summary.Passages[2].Short)
	drafted, err = d.Draft(contract.Draft{Document: hard.Document, GroupID: g.ID, Passage: 2, Next: true})
	require.NoError(t, err)
	assert.Contains(t, drafted.Problem, "advises nothing else")
	starts := d.now.Add(time.Hour).Format(time.RFC3339)
	_, err = d.AddPlan([]byte(strings.Replace(string(hard.Document), `"version"`, fmt.Sprintf(`"starts_at": %q, "version"`, starts), 1)), g.ID)
	require.NoError(t, err)
	today := d.Today()
	require.Empty(t, today.Failed)
	require.Len(t, today.Advice, 1)
	assert.Contains(t, today.Advice[0].Why, "Led as planned 4 times in a row: one step up, 4:4, 3 rounds.")
	other, err := d.AddPlan(hard.Document, 0)
	require.NoError(t, err)
	assert.NotContains(t, says(other), "step up", "of no group nothing is known")
}

func TestTheCourseOfAGroup(t *testing.T) {
	d := newDesk(t)
	g, err := d.SaveGroup(contract.Group{Name: "Monday", Weekday: -1})
	require.NoError(t, err)
	course, err := d.GroupCourse(g.ID)
	require.NoError(t, err)
	assert.Zero(t, course.Classes)
	assert.Len(t, course.Never, 17)
	var ids []int64
	for i, counts := range []string{"4:4", "4:4", "4:4", "4:4:4"} {
		p, err := d.AddPlan([]byte(fmt.Sprintf(`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [{"type": "practice", "practice": "counted-breath", "counts": %q, "rounds": 5, "lead_in": 0}, {"type": "practice", "practice": "sigh", "pace": "own", "minutes": 1}]}`, counts)), g.ID)
		require.NoError(t, err)
		score, err := d.Lead(contract.Lead{PlanID: p.ID, Acknowledged: studio.StrongCautions(p)})
		require.NoError(t, err)
		ids = append(ids, score.ClassID)
		d.pass(5)
		if i == 3 {
			d.do(score.ClassID, "drop-holds")
		}
		running, err := d.GroupCourse(g.ID)
		require.NoError(t, err)
		assert.Equal(t, i, running.Classes, "one that is led does not count yet")
		d.pass(7 * 24 * 3600)
	}
	course, err = d.GroupCourse(g.ID)
	require.NoError(t, err)
	assert.Equal(t, 4, course.Classes)
	assert.Zero(t, course.Streak, "the last one was eased")
	assert.NotContains(t, course.Never, "Counted breath")
	require.Len(t, course.Practices, 2)
	counted := course.Practices[0]
	assert.Equal(t, "Counted breath", counted.Name)
	require.Len(t, counted.Points, 4)
	last := counted.Points[3]
	assert.Equal(t, ids[3], last.ClassID)
	assert.Equal(t, "4:4", last.Counts, "at the end")
	assert.Equal(t, []int{8, 1, 5}, []int{last.Breath, last.Rung, last.Rounds})
	assert.True(t, last.Eased)
	assert.Equal(t, "4:4, 5 rounds at 60, about 40 s", counted.Next)
	assert.Equal(t, ids[3:], counted.Rests)
	assert.Empty(t, course.Practices[1].Next, "at own pace nothing is counted")
	assert.EqualValues(t, 0, course.Practices[1].Points[0].Rounds)
	_, err = d.GroupCourse(99)
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

// Before a class is begun some of its passages can be made gentler for this once: the stored plan stays as it is.
func TestAClassIsLedGentlerThanItsPlan(t *testing.T) {
	d := newDesk(t)
	p := d.addPlan(`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 3}`)
	score, err := d.Lead(contract.Lead{PlanID: p.ID, Gentle: []int{1}})
	require.NoError(t, err, "what is not led any more need not be read")
	assert.Equal(t, "4:8", score.Passages[0].Counts)
	again, err := d.Plan(p.ID)
	require.NoError(t, err)
	assert.Equal(t, p.Revision, again.Revision)
	assert.Equal(t, "4:4:8", again.Summary.Passages[0].Counts)
	_, err = d.Lead(contract.Lead{PlanID: p.ID, Gentle: []int{2}, EndRunning: true})
	assert.ErrorIs(t, err, studio.ErrInvalid)
}
