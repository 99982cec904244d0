package record_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestTheCourseOfAGroup(t *testing.T) {
	d := desktest.New(t)
	g, err := d.Library.SaveGroup(t.Context(), contract.Group{Name: "Monday", Weekday: -1})
	require.NoError(t, err)
	course, err := d.Records.GroupCourse(t.Context(), g.ID)
	require.NoError(t, err)
	assert.Zero(t, course.Classes)
	assert.Len(t, course.Never, 33)
	var ids []int64
	for i, counts := range []string{"4:4", "4:4", "4:4", "4:4:4"} {
		p, err := d.Plans.Add(
			t.Context(),
			[]byte(
				fmt.Sprintf(
					`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [{"type": "practice", "practice": `+
						`"counted-breath", "counts": %q, "rounds": 5, "lead_in": 0}, {"type": "practice", "practice": "sigh", "pace": `+
						`"own", "minutes": 1}]}`,
					counts,
				),
			),
			g.ID,
		)
		require.NoError(t, err)
		score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID, Acknowledged: contract.StrongCautions(p)})
		require.NoError(t, err)
		ids = append(ids, score.ClassID)
		d.Pass(5)
		if i == 3 {
			d.Do(score.ClassID, "drop-holds")
		}
		running, err := d.Records.GroupCourse(t.Context(), g.ID)
		require.NoError(t, err)
		assert.Equal(t, i, running.Classes, "one that is led does not count yet")
		d.Pass(7 * 24 * 3600)
	}
	course, err = d.Records.GroupCourse(t.Context(), g.ID)
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
	assert.Equal(t, "4:4, 5 rounds at 60, about 40 s", desktest.Words(counted.Next))
	assert.Equal(t, ids[3:], counted.BasedOn)
	assert.Empty(t, course.Practices[1].Next, "at own pace nothing is counted")
	assert.EqualValues(t, 0, course.Practices[1].Points[0].Rounds)
	_, err = d.Records.GroupCourse(t.Context(), 99)
	assert.ErrorIs(t, err, studio.ErrNotFound)
}
