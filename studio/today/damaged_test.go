package today_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	_ "modernc.org/sqlite" // another program at the data file

	"vastlantern/language"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestDamagedEntriesAreLeftOutAndNamed(t *testing.T) {
	d := desktest.New(t)
	g, err := d.Library.AddGroup(t.Context(), "Lunch", "beginners", 12)
	require.NoError(t, err)
	plan := d.AddPlan(desktest.Rounds)
	damaged := d.Start(plan)
	d.Pass(600)
	whole := d.Start(plan)
	d.Pass(600)
	d.Exec("UPDATE classes SET document = '{\"format\"' WHERE id = ?", damaged)
	d.Exec("DELETE FROM digests")
	d.Exec("UPDATE settings SET value = 'x' WHERE name = 'teacher'")
	d.Exec("INSERT INTO settings VALUES ('teacher', '{\"language\": 7}', 1) ON CONFLICT DO NOTHING")
	d.Exec("INSERT INTO practices (id, document, updated_at) VALUES ('own-x', 'id: [', '2026-03-02 12:00:00')")
	d.Reopen()
	require.NoError(t, d.Prepare(t.Context()))
	found, err := d.Records.Find(t.Context(), contract.Search{})
	require.NoError(t, err)
	require.Len(t, found.Classes, 1)
	assert.Equal(t, whole, found.Classes[0].ID)
	assert.Zero(t, found.Preparing)
	_, err = d.Records.Record(t.Context(), damaged)
	assert.ErrorIs(t, err, studio.ErrDamaged)
	assert.Contains(t, language.English().Error(err), "lantern restore")
	sum, err := d.Records.Summary(t.Context(), 0)
	require.NoError(t, err)
	assert.Equal(t, 1, sum.Classes)
	_, err = d.Records.RecordsFile(t.Context(), contract.Search{})
	require.NoError(t, err)
	_, err = d.Library.Practices(t.Context(), g.ID)
	require.NoError(t, err)
	d.Start(plan)
	var names []string
	for _, entry := range d.Today.Show(t.Context()).Damaged {
		names = append(names, entry.Name)
	}
	assert.Equal(t, []string{fmt.Sprintf("class %d", damaged), "setting teacher"}, names)

	var file bytes.Buffer
	require.NoError(t, d.Transfer.Export(t.Context(), &file))
	desktest.FitsSchema(t, "export.schema.json", file.Bytes())
	var export contract.Export
	require.NoError(t, json.Unmarshal(file.Bytes(), &export))
	assert.Len(t, export.Classes, 2)
	assert.Len(t, export.Damaged, 3)
	assert.Equal(t, "own-x", export.Damaged[1].Name)
	other := desktest.New(t)
	other.Import(file.String())
	here, err := other.Records.Find(t.Context(), contract.Search{})
	require.NoError(t, err)
	assert.Len(t, here.Classes, 2)
	_, err = d.Transfer.Delete(t.Context(), "class", damaged, false)
	require.NoError(t, err)
	_, err = d.Transfer.Deleted(t.Context())
	require.NoError(t, err)
}

// One row that cannot be read is left out and named; every list, the export and the clearing away of what was deleted
// work.
func TestOneDamagedRowStopsNothingElse(t *testing.T) {
	for says, damage := range map[string]struct{ statement, named string }{
		"sums of answers": {"UPDATE answers SET easy = 'many' WHERE class_id = (SELECT min(class_id) FROM answers)",
			"answers "},
		"what a rehearsal came to": {"UPDATE rehearsals SET digest = '{' WHERE id = (SELECT min(id) FROM rehearsals)",
			"rehearsal "},
		"a language of a voice": {"UPDATE voices SET language = 'xx'", "voice 1"},
		"when a plan went":      {"UPDATE plans SET deleted_at = 'yesterday' WHERE id = 1", "plan 1"},
		"when a class went":     {"UPDATE classes SET deleted_at = '' WHERE id = 1", "class 1"},
		"when a group went":     {"UPDATE groups SET deleted_at = 'x' WHERE id = 1", "group 1"},
		"when a rehearsal began": {"UPDATE rehearsals SET started_at = 'soon', deleted_at = '2026-03-01 12:00:00' WHERE " +
			"id = (SELECT min(id) FROM rehearsals)", "rehearsal "},
	} {
		t.Run(says, func(t *testing.T) {
			d := desktest.NewFilled(t)
			d.Exec(damage.statement)
			d.Reopen()
			require.NoError(t, d.Prepare(t.Context()))
			require.NoError(t, d.Transfer.Purge(t.Context()))
			_, err := d.Transfer.Deleted(t.Context())
			require.NoError(t, err)
			_, err = d.Voices.All(t.Context())
			require.NoError(t, err)
			_, err = d.Rehearse.All(t.Context())
			require.NoError(t, err)
			found, err := d.Records.Find(t.Context(), contract.Search{})
			require.NoError(t, err)
			for _, class := range found.Classes {
				_, err := d.Records.Record(t.Context(), class.ID)
				require.NoError(t, err)
			}
			var export contract.Export
			require.NoError(t, json.Unmarshal([]byte(d.Export()), &export))
			require.Len(t, export.Damaged, 1)
			names := d.Today.Show(t.Context()).Damaged
			require.Len(t, names, 1)
			assert.Contains(t, names[0].Name, damage.named)
		})
	}
}
