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
	g, err := d.Library.AddGroup("Lunch", "beginners", 12)
	require.NoError(t, err)
	plan := d.AddPlan(desktest.Rounds)
	class := d.Start(plan)
	d.Pass(600)
	_, err = d.Audience.RoomCode()
	require.NoError(t, err)
	d.Locked(func() {
		today := d.Today.Show()
		assert.Empty(t, today.Failed)
		assert.Len(t, today.Taught, 1)
		for name, err := range map[string]error{
			"record": second(d.Records.Record(class)), "course": second(d.Records.GroupCourse(g.ID)), "summary": second(d.Records.Summary(0)), "list": second(d.Records.Find(contract.Search{Words: "lunch"})),
			"plan": second(d.Plans.Plan(plan.ID)), "deleted": second(d.Transfer.Deleted()), "settings": second(d.Library.Settings()), "practices": second(d.Library.Practices(g.ID)), "export": d.Transfer.Export(&bytes.Buffer{}),
		} {
			assert.NoError(t, err, name)
		}
	})
}

func second[T any](_ T, err error) error { return err }
