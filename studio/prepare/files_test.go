package prepare_test

import (
	"bytes"
	"strings"
	"testing"
	"time"

	ical "github.com/emersion/go-ical"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/core/sheet"
	"vastlantern/language"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

const evening = `{"format": "vast-lantern-plan", "version": 1, "title": "Evening: quiet, & warm", "slot_min": 20, "tempo": 60, "starts_at": "2026-03-02T18:30:00+01:00", "room": "blue",
	"passages": [{"type": "talk", "seconds": 60}, {"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 60, "lead_in": 0}, {"type": "free", "seconds": 120}]}`

func TestPlanFilesInAndOut(t *testing.T) {
	d := desktest.New(t)
	p, err := d.Plans.Import(t.Context(), contract.PlanText{Text: evening})
	require.NoError(t, err)
	file, err := d.Plans.File(t.Context(), p.ID)
	require.NoError(t, err)
	assert.Equal(t, "evening-quiet-warm.plan.json", file.Name)
	assert.JSONEq(t, evening, string(file.Data), "what nobody knows is kept")
	again, err := d.Plans.Import(t.Context(), contract.PlanText{Text: string(file.Data)})
	require.NoError(t, err)
	assert.Equal(t, p.Summary, again.Summary)

	wrong, err := d.Plans.Import(t.Context(), contract.PlanText{Text: strings.Replace(evening, `"4:4"`, `"4:x"`, 1)})
	require.NoError(t, err, "kept, to be mended where it is edited")
	assert.Len(t, wrong.Summary.Errors, 1)
	_, err = d.Plans.Sheet(t.Context(), wrong.ID, "csv")
	assert.ErrorIs(t, err, studio.ErrInvalid)
	_, err = d.Plans.Import(t.Context(), contract.PlanText{Text: "{\n\"format\": 1,\n}"})
	require.ErrorIs(t, err, studio.ErrInvalid)
	assert.Contains(t, language.English().Error(err), "line 3")
	_, err = d.Plans.File(t.Context(), 99)
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

func TestCueSheetsAreThoseOfTheFile(t *testing.T) {
	d := desktest.New(t)
	stored, err := d.Plans.Import(t.Context(), contract.PlanText{Text: evening})
	require.NoError(t, err)
	exported, err := d.Plans.File(t.Context(), stored.ID)
	require.NoError(t, err)
	_, p, err := sheet.ReadPlan(bytes.NewReader(exported.Data))
	require.NoError(t, err)
	tl := pace.Sheet(p)
	assert.Equal(t, stored.Summary.LengthMS, tl.End)
	var csv, vtt, text bytes.Buffer
	require.NoError(t, sheet.WriteCSV(&csv, tl))
	require.NoError(t, sheet.WriteVTT(&vtt, tl))
	require.NoError(t, sheet.WriteJSON(&text, tl))
	for form, want := range map[string][]byte{"csv": csv.Bytes(), "vtt": vtt.Bytes(), "json": text.Bytes()} {
		file, err := d.Plans.Sheet(t.Context(), stored.ID, form)
		require.NoError(t, err)
		assert.Equal(t, string(want), string(file.Data))
		assert.Equal(t, "evening-quiet-warm."+form, file.Name)
	}
	_, err = d.Plans.Sheet(t.Context(), stored.ID, "pdf")
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

func TestTheCalendarIsReadBack(t *testing.T) {
	d := desktest.New(t)
	_, err := d.Plans.Calendar(t.Context(), 0)
	assert.ErrorIs(t, err, studio.ErrNotFound, "nothing has a time")
	g, err := d.Library.SaveGroup(t.Context(), contract.Group{Name: "Aldersee", Weekday: -1})
	require.NoError(t, err)
	p, err := d.Plans.Import(t.Context(), contract.PlanText{Text: evening, GroupID: g.ID})
	require.NoError(t, err)
	d.AddPlan(desktest.Rounds) // has no time, and is in no calendar
	for _, id := range []int64{0, p.ID} {
		file, err := d.Plans.Calendar(t.Context(), id)
		require.NoError(t, err)
		calendar, err := ical.NewDecoder(bytes.NewReader(file.Data)).Decode()
		require.NoError(t, err)
		events := calendar.Events()
		require.Len(t, events, 1)
		start, err := events[0].DateTimeStart(time.UTC)
		require.NoError(t, err)
		end, err := events[0].DateTimeEnd(time.UTC)
		require.NoError(t, err)
		assert.Equal(t, time.Date(2026, 3, 2, 17, 30, 0, 0, time.UTC), start.UTC())
		assert.Equal(t, 20*time.Minute, end.Sub(start), "the slot")
		summary, err := events[0].Props.Text(ical.PropSummary)
		require.NoError(t, err)
		assert.Equal(t, "Evening: quiet, & warm, Aldersee", summary)
		description, err := events[0].Props.Text(ical.PropDescription)
		require.NoError(t, err)
		assert.Contains(t, description, "Counted breath 4:4 ×60")
		uid, err := events[0].Props.Text(ical.PropUID)
		require.NoError(t, err)
		assert.NotEmpty(t, uid)
	}
}
