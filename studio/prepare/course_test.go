package prepare_test

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestACourse(t *testing.T) {
	d := desktest.New(t)
	p, err := d.Plans.Import(contract.PlanText{Text: strings.Replace(evening, `"rounds": 60`, `"rounds": 30`, 1)})
	require.NoError(t, err)
	for _, wrong := range []contract.Course{{Classes: 1, Days: 7, Grow: "nothing"}, {Classes: 5, Days: 0, Grow: "nothing"}, {Classes: 5, Days: 7, Grow: "everything"}, {Classes: 5, Days: 7, Grow: "rounds", Passage: 1}} {
		_, err = d.Plans.MakeCourse(p.ID, wrong)
		assert.ErrorIs(t, err, studio.ErrInvalid)
	}
	alone, err := d.Plans.Course(p.ID)
	require.NoError(t, err)
	assert.Empty(t, alone.Plans, "nothing is left of what could not be made")

	made, err := d.Plans.MakeCourse(p.ID, contract.Course{Classes: 5, Days: 7, Grow: "counts", Passage: 2})
	require.NoError(t, err)
	require.Len(t, made.Plans, 5)
	assert.Equal(t, 1, made.Place)
	starts := func() (list []string) {
		course, err := d.Plans.Course(p.ID)
		require.NoError(t, err)
		for _, card := range course.Plans {
			plan, err := d.Plans.Plan(card.ID)
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
	shifted, err := d.Plans.ShiftCourse(made.Plans[2].ID)
	require.NoError(t, err)
	assert.Equal(t, 3, shifted.Place)
	assert.Equal(t, []string{"03-02T18:30 4:4", "03-09T18:30 5:5", "03-23T18:30 6:6", "03-30T18:30 7:7", "04-06T18:30 8:8"}, starts())
	_, err = d.Plans.MakeCourse(p.ID, contract.Course{Classes: 5, Days: 7, Grow: "nothing"})
	assert.ErrorIs(t, err, studio.ErrConflict)

	assert.Empty(t, made.Stopped)
	_, err = d.Plans.MakeCourse(d.AddPlan(desktest.Rounds).ID, contract.Course{Classes: 2, Days: 1, Grow: "rounds", Passage: 1})
	assert.ErrorIs(t, err, studio.ErrInvalid, "it has no time")

	file, err := d.Plans.CourseFiles(p.ID)
	require.NoError(t, err)
	archive, err := zip.NewReader(bytes.NewReader(file.Data), int64(len(file.Data)))
	require.NoError(t, err)
	require.Len(t, archive.File, 5)
	assert.True(t, strings.HasPrefix(archive.File[1].Name, "02-evening"))
	_, err = d.Plans.CourseFiles(d.AddPlan(desktest.Rounds).ID)
	assert.ErrorIs(t, err, studio.ErrNotFound)
	_, err = d.Plans.ShiftCourse(d.AddPlan(desktest.Rounds).ID)
	assert.ErrorIs(t, err, studio.ErrInvalid)
}

// The slot of two minutes has room for twelve rounds of ten seconds.
func TestACourseStopsGrowingWhereTheSlotIsFull(t *testing.T) {
	d := desktest.New(t)
	p := d.AddPlan(`{"type": "practice", "practice": "counted-breath", "counts": "5:5", "rounds": 10, "lead_in": 0}`)
	timed := bytes.Replace(p.Document, []byte(`"tempo"`), []byte(`"starts_at": "2026-03-02T18:30:00Z", "tempo"`), 1)
	_, err := d.Plans.Save(p.ID, contract.PlanSave{Document: timed, Revision: p.Revision})
	require.NoError(t, err)
	made, err := d.Plans.MakeCourse(p.ID, contract.Course{Classes: 5, Days: 1, Grow: "rounds", Passage: 1})
	require.NoError(t, err)
	assert.Equal(t, "From class 4 on Counted breath does not grow any more: it would overrun the slot, or be more than is advised in one class.", made.Stopped)
	var rounds []int
	for _, card := range made.Plans {
		class, err := d.Plans.Plan(card.ID)
		require.NoError(t, err)
		rounds = append(rounds, class.Summary.Passages[0].Rounds)
	}
	assert.Equal(t, []int{10, 11, 12, 12, 12}, rounds)
}
