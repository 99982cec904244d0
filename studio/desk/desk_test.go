package desk_test

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	_ "modernc.org/sqlite" // another program at the data file

	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestReadingWritesNothing(t *testing.T) {
	d := desktest.New(t)
	g, err := d.Library.AddGroup(t.Context(), "Lunch", "beginners", 12)
	require.NoError(t, err)
	plan := d.AddPlan(desktest.Rounds)
	class := d.Start(plan)
	d.Pass(600)
	_, err = d.Audience.RoomCode(t.Context())
	require.NoError(t, err)
	d.Locked(func() {
		today := d.Today.Show(t.Context())
		assert.Empty(t, today.Failed)
		assert.Len(t, today.Taught, 1)
		for name, err := range map[string]error{
			"record": second(d.Records.Record(t.Context(), class)), "course": second(d.Records.GroupCourse(t.Context(), g.ID)),
			"summary": second(d.Records.Summary(t.Context(), 0)),
			"list":    second(d.Records.Find(t.Context(), contract.Search{Words: "lunch"})),
			"plan":    second(d.Plans.Plan(t.Context(), plan.ID)), "deleted": second(d.Transfer.Deleted(t.Context())),
			"settings": second(d.Library.Settings(t.Context())), "practices": second(d.Library.Practices(t.Context(), g.ID)),
			"export": d.Transfer.Export(t.Context(), &bytes.Buffer{}),
		} {
			assert.NoError(t, err, name)
		}
	})
}

func second[T any](_ T, err error) error { return err }
