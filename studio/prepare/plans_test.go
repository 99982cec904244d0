package prepare_test

import (
	"bytes"
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	_ "modernc.org/sqlite" // another program at the data file

	"vastlantern/core/pace"
	"vastlantern/language"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestWhatIsStoredCanBeRead(t *testing.T) {
	d := desktest.New(t)
	plan := d.AddPlan(desktest.Rounds)
	save := func(document string) error {
		_, err := d.Plans.Save(t.Context(), plan.ID, contract.PlanSave{Revision: plan.Revision,
			Document: json.RawMessage(document)})
		return err
	}
	list := strings.Repeat("0,", 300_000) // 600 kB, and with its line ends over 1 MiB
	assert.Contains(
		t,
		language.English().Error(save(`{"format": "vast-lantern-plan", "version": 1, "passages": [], "x": [`+list+`0]}`)),
		"could not be read again",
	)
	assert.ErrorIs(
		t,
		save(
			`{"format": "vast-lantern-plan", "version": 1, "passages": [], "x": `+strings.Repeat(
				"[",
				9900,
			)+strings.Repeat("]", 9900)+`}`,
		),
		studio.ErrInvalid,
	)
	assert.ErrorIs(
		t,
		save(`{"format": "vast-lantern-plan", "version": 1, "passages": [], "title": "`+strings.Repeat("x", 301)+`"}`),
		studio.ErrInvalid,
	)

	class := d.Start(plan)
	long, words := strings.Repeat("x", 3000), "hands tire"
	for name, want := range map[string]contract.Adjust{
		"a key": {Key: long, Do: "pause"}, "a verb": {Key: "k", Do: pace.Verb(long)}, "a note": {Key: "k", Do: "note",
			Text: &long}, "what was seen": {Key: "k", Do: "note", Text: &words, Because: long},
	} {
		_, err := d.Classes.Adjust(t.Context(), class, want)
		assert.ErrorIs(t, err, studio.ErrInvalid, name)
	}
	again, err := d.Plans.Plan(t.Context(), plan.ID)
	require.NoError(t, err)
	assert.Equal(t, plan.Document, again.Document)
}

func TestAPlanWithErrorsIsKeptButNotLed(t *testing.T) {
	d := desktest.New(t)
	plan := d.AddPlan(
		`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:"}, {"type": "practice", "practice": "none", ` +
			`"minutes": 2}, 7`,
	)
	require.Len(t, plan.Summary.Errors, 3)
	require.Len(t, plan.Summary.Passages, 3)
	_, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: plan.ID})
	assert.ErrorIs(t, err, studio.ErrInvalid)
	empty := d.AddPlan("")
	_, err = d.Classes.Begin(t.Context(), contract.Lead{PlanID: empty.ID})
	assert.ErrorIs(t, err, studio.ErrInvalid)
	_, err = d.Plans.Add(t.Context(), []byte("not a plan"), 0)
	assert.ErrorIs(t, err, studio.ErrInvalid)
	_, err = d.Classes.Begin(t.Context(), contract.Lead{PlanID: 99})
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

// A plan that is longer than a class can be opens as what is wrong with it, costs nothing, and is mended passage by
// passage.
func TestAPlanBeyondTheBoundsIsMended(t *testing.T) {
	d := desktest.New(t)
	long := `{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 999}`
	stored := d.AddPlan(long + "," + long)
	require.NotEmpty(t, stored.Summary.Errors)
	assert.Contains(t, desktest.Words(stored.Summary.Errors[0].Allowed), "12 hours")
	assert.Empty(t, stored.Summary.Passages)
	opened, err := d.Plans.Plan(t.Context(), stored.ID)
	require.NoError(t, err)
	assert.Equal(t, stored.Summary.Errors, opened.Summary.Errors)

	draft := func(change contract.Change) contract.Drafted {
		t.Helper()
		drafted, err := d.Plans.Draft(t.Context(), contract.Draft{Document: opened.Document, Change: &change})
		require.NoError(t, err)
		return drafted
	}
	for _, whole := range contract.ChangeKinds {
		draft(contract.Change{Do: whole, Passage: 2}) // nothing falls over
	}
	assert.Contains(
		t,
		desktest.Words(draft(contract.Change{Do: contract.ChangeFit}).Problem),
		"delete or shorten passages first",
	)
	mended := draft(contract.Change{Do: contract.ChangeShort, Passage: 2, Text: "4:4:8 x3"})
	assert.Empty(t, mended.Problem)
	assert.Empty(t, mended.Summary.Errors)
	assert.Len(t, mended.Summary.Passages, 2)
}

// A time that could not be read again is refused where it is typed and where a class is moved, and one that is stored
// is mended.
func TestTimesOutsideTheCalendar(t *testing.T) {
	d := desktest.New(t)
	for _, at := range []string{"9999-12-31T23:59:59-12:00", "2201-01-01T00:00:00Z", "1969-12-31T23:59:59Z"} {
		document := strings.Replace(
			string(desktest.Document(desktest.Rounds)),
			`"tempo"`,
			`"starts_at": "`+at+`", "tempo"`,
			1,
		)
		stored, err := d.Plans.Add(t.Context(), []byte(document), 0)
		require.NoError(t, err, at)
		require.Len(t, stored.Summary.Errors, 1, at)
		assert.Equal(t, "a time from 1970 to 2200", desktest.Words(stored.Summary.Errors[0].Allowed))
		_, err = d.Plans.Plan(t.Context(), stored.ID)
		require.NoError(t, err, "it opens")
		_, err = d.Plans.Move(t.Context(), stored.ID, contract.MovePlan{StartsMS: 1_900_000_000_000})
		require.NoError(t, err, "and is mended")
	}
	stored := d.AddPlan(desktest.Rounds)
	for _, ms := range []float64{253402300800000, 7_289_654_400_001, -1, 1e300} {
		_, err := d.Plans.Move(t.Context(), stored.ID, contract.MovePlan{StartsMS: ms})
		assert.ErrorIs(t, err, studio.ErrInvalid, "%g", ms)
	}
	opened, err := d.Plans.Plan(t.Context(), stored.ID)
	require.NoError(t, err)
	assert.Empty(t, opened.Summary.Errors)
}

func TestTwoWindowsDoNotOverwriteEachOther(t *testing.T) {
	d := desktest.New(t)
	plan := d.AddPlan(desktest.Rounds)
	_, err := d.Plans.Save(t.Context(), plan.ID, contract.PlanSave{Revision: 1, Document: plan.Document})
	require.NoError(t, err)
	again, err := d.Plans.Save(t.Context(), plan.ID, contract.PlanSave{Revision: 1, Document: plan.Document})
	require.NoError(t, err, "the same save, whose answer was lost")
	assert.EqualValues(t, 2, again.Revision)
	other := bytes.Replace(plan.Document, []byte(`"passages"`), []byte(`"title": "Theirs", "passages"`), 1)
	_, err = d.Plans.Save(t.Context(), plan.ID, contract.PlanSave{Revision: 1, Document: other})
	assert.ErrorIs(t, err, studio.ErrConflict)
	_, err = d.Plans.Save(t.Context(), 77, contract.PlanSave{Revision: 1, Document: plan.Document})
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

func TestWordsToLookForAreBounded(t *testing.T) {
	d := desktest.New(t)
	d.AddPlan(desktest.Rounds)
	found, err := d.Plans.Find(t.Context(), "lunch", 0)
	require.NoError(t, err)
	assert.Len(t, found.Plans, 1)
	_, err = d.Plans.Find(t.Context(), strings.Repeat("x ", 50_000), 0)
	assert.ErrorIs(t, err, studio.ErrInvalid, "each word is a condition of the search")
}
