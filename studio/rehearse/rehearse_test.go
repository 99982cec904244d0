package rehearse_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/language"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

// A hold that is too long for newcomers is called so on the plan, with what would make it easier.
func TestAPlanAgainstARoom(t *testing.T) {
	d := desktest.New(t)
	p := d.AddPlan(
		`{"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 3}, {"type": "practice", ` +
			`"practice": "counted-breath", "counts": "4:8:8", "rounds": 6}`,
	)
	e, err := d.Rehearse.Expected(t.Context(), p.ID, "newcomers")
	require.NoError(t, err)
	require.Len(t, e.Passages, 2)
	assert.Zero(t, e.Passages[0].High)
	assert.Empty(t, e.Passages[0].Ways)
	held := e.Passages[1]
	assert.Positive(t, held.Median)
	require.Len(t, held.Ways, 2)
	assert.Equal(t, "with a gentler lane", desktest.Words(held.Ways[0].Says))
	assert.Equal(t, "at 4:6:8", desktest.Words(held.Ways[1].Says))
	for _, way := range held.Ways {
		assert.LessOrEqual(t, way.Median, held.Median, way.Says)
	}
	assert.Contains(t, desktest.Words(e.Limits), "not a measurement")
	assert.Len(t, e.Rooms, 8)
	_, err = d.Rehearse.Expected(t.Context(), p.ID, "strangers")
	require.ErrorIs(t, err, studio.ErrNotFound)
	_, err = d.Rehearse.Expected(t.Context(), 99, "newcomers")
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

func pressed(at float64) *float64 { return &at }

// A task is led, said and eased; what came of it is in its own list and in no record of classes; it goes to another
// machine and back, and is deleted and brought back.
func TestATaskIsRehearsed(t *testing.T) {
	d := desktest.New(t)
	all, err := d.Rehearse.All(t.Context())
	require.NoError(t, err)
	require.Len(t, all.Scenarios, 10)
	assert.Empty(t, all.Done)
	assert.Equal(t, "See the gasp", all.Scenarios[0].Title)
	assert.Equal(t, 14, all.Scenarios[0].Levels[0].People)
	assert.Positive(t, all.Scenarios[0].Levels[0].LengthMS)

	now, err := d.Rehearse.Begin(t.Context(), contract.Rehearse{Scenario: "gasp", Level: 1})
	require.NoError(t, err)
	require.Len(t, now.People, 14)
	assert.Equal(t, -now.ID, now.Score.ClassID)
	assert.Zero(t, now.Score.StartedMS)
	assert.Equal(t, "See the gasp", now.Task.Title)
	gasp := int64(-1)
	later, err := d.Rehearse.At(t.Context(), now.ID, 30_000)
	require.NoError(t, err)
	for _, person := range later.People {
		assert.NotEmpty(t, person.Acts)
		for _, sign := range person.Signs {
			if sign.ID == "gasp" && (gasp < 0 || sign.AtMS < gasp) {
				gasp = sign.AtMS
			}
		}
	}
	require.Positive(t, gasp, "newcomers gasp after an empty hold of four")

	_, err = d.Rehearse.Review(t.Context(), now.ID)
	require.ErrorIs(t, err, studio.ErrConflict, "it has not ended")
	saw := contract.Saw{Key: "s1", See: "gasp", PressedMS: pressed(float64(gasp + 3000))}
	seen, err := d.Rehearse.Saw(t.Context(), now.ID, saw)
	require.NoError(t, err)
	require.NotEmpty(t, seen.Proposed.Do)
	again, err := d.Rehearse.Saw(t.Context(), now.ID, saw)
	require.NoError(t, err)
	assert.Equal(t, seen.Now.Score.Revision, again.Now.Score.Revision, "sent twice, it counts once")
	would, err := d.Rehearse.Would(t.Context(), now.ID, contract.RehearsalWould{AtMS: gasp + 4000, Do: seen.Proposed.Do})
	require.NoError(t, err)
	assert.Empty(t, would[0].Answer.Refused)
	for i, do := range seen.Proposed.Do {
		do.Key, do.PressedMS = fmt.Sprint("a", i), pressed(float64(gasp+5000))
		adjusted, err := d.Rehearse.Adjust(t.Context(), now.ID, do)
		require.NoError(t, err)
		assert.Empty(t, adjusted.Answer.Refused)
		assert.Equal(t, gasp+5000, adjusted.Now.AtMS)
	}
	tapped, err := d.Rehearse.Tapped(t.Context(), now.ID,
		contract.Taps{AtMS: []int64{gasp + 6000, gasp + 7000, gasp + 8000}})
	require.NoError(t, err)
	assert.InDelta(t, 60, tapped.Tempo, 0.01)
	came, err := d.Rehearse.Came(t.Context(), now.ID, contract.RehearsalMoment{AtMS: gasp + 20_000, Looked: true})
	require.NoError(t, err)
	assert.Equal(t, 1, came.Looks)
	resumed, err := d.Rehearse.At(t.Context(), now.ID, 0)
	require.NoError(t, err)
	assert.Equal(t, gasp+20_000, resumed.AtMS, "it is taken up again where it was left")

	review, err := d.Rehearse.End(t.Context(), now.ID, contract.RehearsalMoment{AtMS: 10 * 60_000})
	require.NoError(t, err)
	require.Len(t, review.Aims, 2)
	for _, aim := range review.Aims {
		assert.True(t, aim.Done, aim.Says)
	}
	assert.Equal(t, now.Score.EndMS > 0, review.EndMS > 0)
	assert.Less(t, review.EndMS, int64(10*60_000), "not beyond the end of the class")
	assert.NotEmpty(t, review.Digest.Next)
	_, err = d.Rehearse.Adjust(t.Context(), now.ID, contract.Adjust{Key: "late", Do: pace.ToPause})
	require.ErrorIs(t, err, studio.ErrConflict)
	same, err := d.Rehearse.Review(t.Context(), now.ID)
	require.NoError(t, err)
	assert.Equal(t, review, same)

	all, err = d.Rehearse.All(t.Context())
	require.NoError(t, err)
	require.Len(t, all.Done, 1)
	assert.Equal(t, review.Digest, all.Done[0].Digest)
	assert.True(t, all.Scenarios[0].Levels[0].Reached)
	found, err := d.Records.Find(t.Context(), contract.Search{})
	require.NoError(t, err)
	assert.Empty(t, found.Classes, "it is in no record of classes")
	running, err := d.Classes.Running(t.Context())
	require.NoError(t, err)
	assert.Zero(t, running.ClassID)

	file := d.Export()
	desktest.FitsSchema(t, "export.schema.json", []byte(file))
	_, err = d.Transfer.Delete(t.Context(), "rehearsal", now.ID, false)
	require.NoError(t, err)
	all, err = d.Rehearse.All(t.Context())
	require.NoError(t, err)
	assert.Empty(t, all.Done)
	_, err = d.Transfer.BringBack(t.Context(), "rehearsal", now.ID)
	require.NoError(t, err)
	away := desktest.New(t)
	assert.Len(t, away.Import(file).Changes, 1)
	assert.Equal(t, 1, away.Import(file).Same, "and once only")
	there, err := away.Rehearse.All(t.Context())
	require.NoError(t, err)
	require.Len(t, there.Done, 1)
	assert.Equal(t, review.Digest, there.Done[0].Digest)
}

// A plan is rehearsed with any room, from any of its passages; nothing of the plan changes.
func TestAPlanIsRehearsedFromAPassage(t *testing.T) {
	d := desktest.New(t)
	p := d.AddPlan(
		`{"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 3}, {"type": "practice", ` +
			`"practice": "nadi-shodhana", "counts": "4:4", "rounds": 6}`,
	)
	now, err := d.Rehearse.Begin(t.Context(), contract.Rehearse{PlanID: p.ID, Room: "mixed-evening", Passage: 2, Seed: 3})
	require.NoError(t, err)
	require.Len(t, now.Score.Passages, 1)
	assert.Equal(t, "nadi-shodhana", now.Score.Passages[0].Practice)
	assert.Nil(t, now.Task)
	stored, err := d.Plans.Plan(t.Context(), p.ID)
	require.NoError(t, err)
	assert.Equal(t, p.Revision, stored.Revision)
	other, err := d.Rehearse.Begin(t.Context(), contract.Rehearse{PlanID: p.ID, Room: "mixed-evening", Passage: 2,
		Seed: 3})
	require.NoError(t, err)
	assert.Equal(t, now.People, other.People, "the same seed, the same room")

	for name, wrong := range map[string]contract.Rehearse{
		"Choose a task":         {},
		"there is no task":      {Scenario: "gasp", Level: 4},
		"there is no room":      {PlanID: p.ID, Room: "strangers"},
		"there is no passage 9": {PlanID: p.ID, Room: "newcomers", Passage: 9},
	} {
		_, err := d.Rehearse.Begin(t.Context(), wrong)
		require.ErrorIs(t, err, studio.ErrInvalid, name)
		assert.Contains(t, language.English().Error(err), name)
	}
	_, err = d.Rehearse.At(t.Context(), 99, 0)
	require.ErrorIs(t, err, studio.ErrNotFound)
	d.Exec("UPDATE rehearsals SET script = 'no' WHERE id = ?", now.ID)
	_, err = d.Rehearse.At(t.Context(), now.ID, 0)
	require.ErrorIs(t, err, studio.ErrDamaged)
	_, err = d.Rehearse.At(t.Context(), other.ID, 0)
	require.NoError(t, err, "one that is damaged stops no other")
}
