package desk_test

import (
	"errors"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/programme"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

// edit saves what a screen typed over the revision that it knows, and returns the revision that is stored then.
type edit func(typed string, revision int64) (int64, error)

// Two screens have opened the same thing. What one saves is not overwritten by the other, which is told that it was
// changed and can save once it has seen the newer revision.
func TestTwoScreensNeverOverwriteEachOther(t *testing.T) {
	for kind, open := range map[string]func(*testing.T, *desktest.Desk) (edit, int64){
		"group": groupEdit, "settings": settingsEdit, "own practice": practiceEdit, "programme": programmeEdit,
		"plan":          planEdit,
		"home practice": homeEdit, "remark": remarkEdit,
	} {
		t.Run(kind, func(t *testing.T) {
			save, first := open(t, desktest.New(t))
			second, err := save("11", first)
			require.NoError(t, err)
			require.Greater(t, second, first)

			_, err = save("12", first)
			require.ErrorIs(t, err, studio.ErrConflict)
			var failure *studio.Failure
			require.True(t, errors.As(err, &failure))
			assert.True(t, failure.Problem.Changed, "the screen compares the two")
			assert.Contains(t, desktest.Words(err), "Not saved")

			again, err := save("11", first)
			require.NoError(t, err, "the same save once more, where its answer was lost")
			assert.Equal(t, second, again)
			_, err = save("12", second)
			require.NoError(t, err, "after the newer revision was seen")
			_, err = save("11", second)
			assert.ErrorIs(t, err, studio.ErrConflict)
		})
	}
}

func groupEdit(t *testing.T, d *desktest.Desk) (edit, int64) {
	group := d.WithGroup(nil)
	return func(typed string, revision int64) (int64, error) {
		g := group
		g.Notes, g.Revision = typed, revision
		saved, err := d.Library.SaveGroup(t.Context(), g)
		return saved.Revision, err
	}, group.Revision
}

func settingsEdit(t *testing.T, d *desktest.Desk) (edit, int64) {
	settings, err := d.Library.Settings(t.Context())
	require.NoError(t, err)
	return func(typed string, revision int64) (int64, error) {
		s := settings
		s.Bring, s.Revision = typed, revision
		saved, err := d.Library.SaveSettings(t.Context(), s)
		return saved.Revision, err
	}, settings.Revision
}

func practiceEdit(t *testing.T, d *desktest.Desk) (edit, int64) {
	practice, err := d.Library.CopyPractice(t.Context(), "ujjayi", "Slow waves")
	require.NoError(t, err)
	return func(typed string, revision int64) (int64, error) {
		text := strings.Replace(practice.Text, "name: Slow waves", "name: Slow waves "+typed, 1)
		saved, err := d.Library.SavePractice(t.Context(), contract.PracticeText{Text: text, Revision: revision})
		return saved.Revision, err
	}, practice.Revision
}

func planEdit(t *testing.T, d *desktest.Desk) (edit, int64) {
	plan := d.AddPlan(desktest.Rounds)
	return func(typed string, revision int64) (int64, error) {
		document := strings.Replace(string(plan.Document), "Lunch", typed, 1)
		saved, err := d.Plans.Save(t.Context(), plan.ID, contract.PlanSave{Revision: revision, Document: []byte(document)})
		return saved.Revision, err
	}, plan.Revision
}

func programmeEdit(t *testing.T, d *desktest.Desk) (edit, int64) {
	d.WithGroup(nil)
	plan, err := d.Plans.Add(
		t.Context(),
		[]byte(
			`{"format": "vast-lantern-plan", "version": 1, "starts_at": "2026-03-02T18:30:00Z", "passages": [`+desktest.Rounds+
				`]}`,
		),
		1,
	)
	require.NoError(t, err)
	grows := programme.Programme{
		Name: "Grows", Passage: 1, By: programme.Led, Times: 1, Days: 7, Missed: programme.Wait, Eased: programme.Wait,
		Steps: []programme.Step{{Says: "x3"}, {Says: "x4"}},
	}
	sheet, err := d.Programmes.Begin(t.Context(), plan.ID, grows)
	require.NoError(t, err)
	return func(typed string, revision int64) (int64, error) {
		p := grows
		p.Name = typed
		saved, err := d.Programmes.Save(t.Context(), sheet.Card.ID, contract.ProgrammeSave{Revision: revision, Programme: p})
		return saved.Revision, err
	}, sheet.Revision
}

func homeEdit(t *testing.T, d *desktest.Desk) (edit, int64) {
	_, class := d.TaughtOnce()
	given, err := d.Homes.GiveFromClass(
		t.Context(),
		class,
		contract.HomeGive{Passage: 1, HomeAmount: contract.HomeAmount{Minutes: 5, Pieces: 1}},
	)
	require.NoError(t, err)
	home := given.Given[0]
	answers := map[string]string{"11": "hardly", "12": "every-day"}
	return func(typed string, revision int64) (int64, error) {
		of, err := d.Homes.Answer(t.Context(), home.ID, contract.HomeAnswer{Answer: answers[typed], Revision: revision})
		if err != nil {
			return 0, err
		}
		return of.Homes[0].Revision, nil
	}, home.Revision
}

func remarkEdit(t *testing.T, d *desktest.Desk) (edit, int64) {
	_, class := d.TaughtOnce()
	first, err := d.Records.AddRemark(t.Context(), class, contract.RemarkAdd{Kind: "gentler", Text: "2"})
	require.NoError(t, err)
	newest := func(r contract.Record) int64 { return r.Remarks[len(r.Remarks)-1].ID }
	return func(typed string, known int64) (int64, error) {
		record, err := d.Records.AddRemark(t.Context(), class, contract.RemarkAdd{Kind: "gentler", Text: typed,
			Newest: known})
		if err != nil {
			return 0, err
		}
		return newest(record), nil
	}, newest(first)
}

// Notes stand beside each other: two of them never collide.
func TestNotesOfTwoScreensStandBesideEachOther(t *testing.T) {
	d := desktest.New(t)
	_, class := d.TaughtOnce()
	for _, text := range []string{"cold feet", "a warm room"} {
		_, err := d.Records.AddRemark(t.Context(), class, contract.RemarkAdd{Kind: "note", Text: text})
		require.NoError(t, err)
	}
	record, err := d.Records.Record(t.Context(), class)
	require.NoError(t, err)
	assert.Len(t, record.Remarks, 3)
}

func TestAnImportedPracticeReplacesNoneByItself(t *testing.T) {
	d := desktest.New(t)
	practice, err := d.Library.CopyPractice(t.Context(), "ujjayi", "Slow waves")
	require.NoError(t, err)
	changed := strings.Replace(practice.Text, "name: Slow waves", "name: Other waves", 1)
	_, err = d.Library.SavePractice(t.Context(), contract.PracticeText{Text: changed})
	require.ErrorIs(t, err, studio.ErrConflict)
	assert.Contains(t, desktest.Words(err), `you already have a practice “own-slow-waves”`)
	_, err = d.Library.RemovePractice(t.Context(), "own-slow-waves")
	require.NoError(t, err)
	_, err = d.Library.SavePractice(t.Context(), contract.PracticeText{Text: changed, Revision: practice.Revision})
	require.ErrorIs(t, err, studio.ErrNotFound, "it was removed meanwhile")
	_, err = d.Library.SavePractice(t.Context(), contract.PracticeText{Text: changed})
	assert.NoError(t, err, "and can be added again")
}
