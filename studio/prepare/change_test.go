package prepare_test

import (
	"encoding/json"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestALateClassIsFittedToItsEnd(t *testing.T) {
	d := desktest.New(t)
	p, err := d.Plans.Import(t.Context(), contract.PlanText{Text: evening})
	require.NoError(t, err)
	d.Time = time.Date(2026, 3, 2, 17, 40, 0, 0, time.UTC) // ten minutes late: ten are left
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID, Fit: true})
	require.NoError(t, err)
	assert.Equal(t, 52, score.Passages[1].Rounds, "60 + 52 x 8 + 120 s = 596 s")
	assert.EqualValues(t, 596_000, score.EndMS)
	assert.EqualValues(t, 600_000, score.SlotMS, "to spare and late are told against the real end")
	stored, err := d.Plans.Plan(t.Context(), p.ID)
	require.NoError(t, err)
	assert.Equal(t, 60, stored.Summary.Passages[1].Rounds, "the plan stays as it is")
	d.Do(score.ClassID, "end")

	d.Time = d.Time.Add(10 * time.Minute)
	_, err = d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID, Fit: true})
	assert.ErrorIs(t, err, studio.ErrInvalid, "its time is over")
	_, err = d.Classes.Begin(t.Context(), contract.Lead{PlanID: d.AddPlan(desktest.Rounds).ID, Fit: true})
	assert.ErrorIs(t, err, studio.ErrInvalid, "it has no time")
}

func TestFittingADraft(t *testing.T) {
	d := desktest.New(t)
	draft := func(document string, change contract.Draft) contract.Drafted {
		t.Helper()
		change.Document = json.RawMessage(document)
		drafted, err := d.Plans.Draft(t.Context(), change)
		require.NoError(t, err)
		return drafted
	}
	fitted := draft(evening, contract.Draft{Change: &contract.Change{Do: contract.ChangeFit}})
	assert.Empty(t, fitted.Problem)
	assert.Equal(t, 75, fitted.Summary.Passages[1].Rounds, "ten minutes of an even breath at most")
	assert.Equal(
		t,
		"fitted to the slot, with 7 min to spare: more of a practice is not advised in one class",
		desktest.Words(fitted.Changed),
	)
	assert.Equal(
		t,
		[]contract.Addition{{Passage: 1 + 1, Rounds: 15, LengthMS: 120_000}, {LengthMS: 540_000}},
		draft(evening, contract.Draft{}).Summary.Additions,
	)
	short := strings.Replace(evening, `"slot_min": 20`, `"slot_min": 3`, 1)
	assert.Contains(
		t,
		desktest.Words(draft(short, contract.Draft{Change: &contract.Change{Do: contract.ChangeFit}}).Problem),
		"still 8 s too long",
	)

	more := draft(evening, contract.Draft{Change: &contract.Change{Do: contract.ChangeRounds, Passage: 2, Rounds: 5}})
	assert.Equal(t, 65, more.Summary.Passages[1].Rounds)
	rest := draft(evening, contract.Draft{Change: &contract.Change{Do: contract.ChangeRest, LengthMS: 30_000}})
	assert.EqualValues(t, 150_000, rest.Summary.Passages[2].LengthMS, "the rest that is there becomes longer")

	end := int64(300_000)
	assert.Equal(
		t,
		30,
		draft(evening, contract.Draft{Change: &contract.Change{Do: contract.ChangeRoundsToEnd, Passage: 2,
			EndMS: end}}).Summary.Passages[1].Rounds,
	)
	end = 299_000
	assert.Contains(
		t,
		desktest.Words(
			draft(
				evening,
				contract.Draft{Change: &contract.Change{Do: contract.ChangeTempoToEnd, Passage: 2, EndMS: end}},
			).Problem,
		),
		"at tempo 120, the fastest",
	)
	end = 301_000
	assert.Equal(
		t,
		"tempo 119.51",
		desktest.Words(
			draft(
				evening,
				contract.Draft{Change: &contract.Change{Do: contract.ChangeTempoToEnd, Passage: 2, EndMS: end}},
			).Changed,
		),
	)
	assert.Contains(
		t,
		desktest.Words(
			draft(
				evening,
				contract.Draft{Change: &contract.Change{Do: contract.ChangeTempoToEnd, Passage: 1, EndMS: end}},
			).Problem,
		),
		"no rounds",
	)

	split := draft(evening, contract.Draft{Change: &contract.Change{Do: contract.ChangeSplit, Passage: 2}})
	require.Len(t, split.Summary.Passages, 4)
	assert.Equal(t, 30, split.Summary.Passages[2].Rounds)
	assert.Contains(
		t,
		desktest.Words(
			draft(evening, contract.Draft{Change: &contract.Change{Do: contract.ChangeSplit, Passage: 9}}).Problem,
		),
		"no passage 9",
	)
}

func TestDraftsFollowEachChange(t *testing.T) {
	d := desktest.New(t)
	plan := d.AddPlan(desktest.Rounds)
	short := "4:4:8 x6 @50"
	got, err := d.Plans.Draft(
		t.Context(),
		contract.Draft{Document: plan.Document, Change: &contract.Change{Do: contract.ChangeShort, Passage: 1, Text: short}},
	)
	require.NoError(t, err)
	p := got.Summary.Passages[0]
	assert.Equal(t, []any{"4:4:8", 6, int64(38_400), short}, []any{p.Counts, p.Rounds, p.RoundMS, p.Short})
	// Lead-in 4 counts less: 2 at 1.2 s, six rounds of 32, closing of one breath 4:8.
	assert.EqualValues(t, (2+6*32+12)*1200, p.LengthMS)
	assert.EqualValues(t, 120_000-got.Summary.LengthMS, got.Summary.SpareMS)

	wrong := "4:4:8 y6"
	got, err = d.Plans.Draft(
		t.Context(),
		contract.Draft{Document: plan.Document, Change: &contract.Change{Do: contract.ChangeShort, Passage: 1, Text: wrong}},
	)
	require.NoError(t, err)
	assert.Contains(t, desktest.Words(got.Problem), "y6")
	assert.JSONEq(t, string(plan.Document), string(got.Document), "nothing is lost")

	add := "rest 2m"
	got, err = d.Plans.Draft(
		t.Context(),
		contract.Draft{Document: plan.Document, Change: &contract.Change{Do: contract.ChangeAdd, Text: add}},
	)
	require.NoError(t, err)
	assert.Equal(t, "Rest", got.Summary.Passages[1].Name)
}

// What lasts until the end of the slot follows it: when the slot or another passage changes, and where a class that
// begins late is fitted, before any round is left out.
func TestWhatIsLeftOfTheSlot(t *testing.T) {
	d := desktest.New(t)
	p, err := d.Plans.Import(t.Context(), contract.PlanText{Text: "# Late\nslot 20\nstarts 2026-03-02 17:30\n\n" +
		"talk 2 min\nrest till the end, at least 3 min\n"})
	require.NoError(t, err)
	length := func(p contract.Plan) int64 { return p.Summary.Passages[1].LengthMS }
	assert.EqualValues(t, 18*60_000, length(p))
	shorter := strings.Replace(string(p.Document), `"slot_min": 20`, `"slot_min": 10`, 1)
	require.NotEqual(t, string(p.Document), shorter)
	p, err = d.Plans.Save(t.Context(), p.ID, contract.PlanSave{Revision: p.Revision, Document: []byte(shorter)})
	require.NoError(t, err)
	assert.EqualValues(t, 8*60_000, length(p))
	drafted, err := d.Plans.Draft(t.Context(), contract.Draft{
		Document: p.Document, Change: &contract.Change{Do: contract.ChangeAdd, Text: "sit 4 min"},
	})
	require.NoError(t, err)
	assert.EqualValues(t, 4*60_000, drafted.Summary.Passages[1].LengthMS)
	d.Time = time.Date(2026, 3, 2, 17, 34, 0, 0, time.UTC)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID, Fit: true})
	require.NoError(t, err)
	assert.EqualValues(t, 6*60_000, score.EndMS, "two minutes of talk, and four of rest in place of eight")
}
