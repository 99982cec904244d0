package studio_test

import (
	"bytes"
	"encoding/json"
	"strings"
	"testing"
	"time"

	ical "github.com/emersion/go-ical"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/core/sheet"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

const evening = `{"format": "vast-lantern-plan", "version": 1, "title": "Evening: quiet, & warm", "slot_min": 20, "tempo": 60, "starts_at": "2026-03-02T18:30:00+01:00", "room": "blue",
	"passages": [{"type": "talk", "seconds": 60}, {"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 60, "lead_in": 0}, {"type": "free", "seconds": 120}]}`

func TestPlanFilesInAndOut(t *testing.T) {
	d := newDesk(t)
	p, err := d.ImportPlan(contract.PlanText{Text: evening})
	require.NoError(t, err)
	file, err := d.PlanFile(p.ID)
	require.NoError(t, err)
	assert.Equal(t, "evening-quiet-warm.plan.json", file.Name)
	assert.JSONEq(t, evening, string(file.Data), "what nobody knows is kept")
	again, err := d.ImportPlan(contract.PlanText{Text: string(file.Data)})
	require.NoError(t, err)
	assert.Equal(t, p.Summary, again.Summary)

	wrong, err := d.ImportPlan(contract.PlanText{Text: strings.Replace(evening, `"4:4"`, `"4:x"`, 1)})
	require.NoError(t, err, "kept, to be mended where it is edited")
	assert.Len(t, wrong.Summary.Errors, 1)
	_, err = d.PlanSheet(wrong.ID, "csv")
	assert.ErrorIs(t, err, studio.ErrInvalid)
	_, err = d.ImportPlan(contract.PlanText{Text: "{\n\"format\": 1,\n}"})
	require.ErrorIs(t, err, studio.ErrInvalid)
	assert.ErrorContains(t, err, "line 3")
	_, err = d.PlanFile(99)
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

// What the screen hands out is what the commands print of the exported file.
func TestCueSheetsAreThoseOfTheFile(t *testing.T) {
	d := newDesk(t)
	stored, err := d.ImportPlan(contract.PlanText{Text: evening})
	require.NoError(t, err)
	exported, err := d.PlanFile(stored.ID)
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
		file, err := d.PlanSheet(stored.ID, form)
		require.NoError(t, err)
		assert.Equal(t, string(want), string(file.Data))
		assert.Equal(t, "evening-quiet-warm."+form, file.Name)
	}
	_, err = d.PlanSheet(stored.ID, "pdf")
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

// The timetable is read back by a parser that did not write it (RFC 5545).
func TestTheCalendarIsReadBack(t *testing.T) {
	d := newDesk(t)
	_, err := d.Calendar(0)
	assert.ErrorIs(t, err, studio.ErrNotFound, "nothing has a time")
	g, err := d.SaveGroup(contract.Group{Name: "Aldersee", Weekday: -1})
	require.NoError(t, err)
	p, err := d.ImportPlan(contract.PlanText{Text: evening, GroupID: g.ID})
	require.NoError(t, err)
	d.addPlan(rounds) // has no time, and is in no calendar
	for _, id := range []int64{0, p.ID} {
		file, err := d.Calendar(id)
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

func TestALateClassIsFittedToItsEnd(t *testing.T) {
	d := newDesk(t)
	p, err := d.ImportPlan(contract.PlanText{Text: evening})
	require.NoError(t, err)
	d.now = time.Date(2026, 3, 2, 17, 40, 0, 0, time.UTC) // ten minutes late: ten are left
	score, err := d.Lead(contract.Lead{PlanID: p.ID, Fit: true})
	require.NoError(t, err)
	assert.Equal(t, 52, score.Passages[1].Rounds, "60 + 52 x 8 + 120 s = 596 s")
	assert.EqualValues(t, 596_000, score.EndMS)
	assert.EqualValues(t, 600_000, score.SlotMS, "to spare and late are told against the real end")
	stored, err := d.Plan(p.ID)
	require.NoError(t, err)
	assert.Equal(t, 60, stored.Summary.Passages[1].Rounds, "the plan stays as it is")
	d.do(score.ClassID, "end")

	d.now = d.now.Add(10 * time.Minute)
	_, err = d.Lead(contract.Lead{PlanID: p.ID, Fit: true})
	assert.ErrorIs(t, err, studio.ErrInvalid, "its time is over")
	_, err = d.Lead(contract.Lead{PlanID: d.addPlan(rounds).ID, Fit: true})
	assert.ErrorIs(t, err, studio.ErrInvalid, "it has no time")
}

func TestFittingADraft(t *testing.T) {
	d := newDesk(t)
	draft := func(document string, change contract.Draft) contract.Drafted {
		t.Helper()
		change.Document = json.RawMessage(document)
		drafted, err := d.Draft(change)
		require.NoError(t, err)
		return drafted
	}
	fitted := draft(evening, contract.Draft{Fit: true})
	assert.Empty(t, fitted.Problem)
	assert.Equal(t, 127, fitted.Summary.Passages[1].Rounds)
	assert.Equal(t, []contract.Addition{{Passage: 1 + 1, Rounds: 67, LengthMS: 536_000}, {LengthMS: 540_000}}, draft(evening, contract.Draft{}).Summary.Could)
	short := strings.Replace(evening, `"slot_min": 20`, `"slot_min": 3`, 1)
	assert.Contains(t, draft(short, contract.Draft{Fit: true}).Problem, "still 8 s too long")

	more := draft(evening, contract.Draft{More: &contract.Addition{Passage: 2, Rounds: 5}})
	assert.Equal(t, 65, more.Summary.Passages[1].Rounds)
	rest := draft(evening, contract.Draft{More: &contract.Addition{LengthMS: 30_000}})
	assert.EqualValues(t, 150_000, rest.Summary.Passages[2].LengthMS, "the rest that is there becomes longer")

	end := int64(300_000)
	assert.Equal(t, 30, draft(evening, contract.Draft{Passage: 2, EndMS: &end, By: "rounds"}).Summary.Passages[1].Rounds)
	end = 299_000
	assert.Contains(t, draft(evening, contract.Draft{Passage: 2, EndMS: &end, By: "tempo"}).Problem, "at tempo 120, the quickest")
	end = 301_000
	assert.Equal(t, "tempo 119.51", draft(evening, contract.Draft{Passage: 2, EndMS: &end, By: "tempo"}).Changed)
	assert.Contains(t, draft(evening, contract.Draft{Passage: 1, EndMS: &end, By: "tempo"}).Problem, "no rounds")

	split := draft(evening, contract.Draft{Passage: 2, Split: true})
	require.Len(t, split.Summary.Passages, 4)
	assert.Equal(t, 30, split.Summary.Passages[2].Rounds)
	assert.Contains(t, draft(evening, contract.Draft{Passage: 9, Split: true}).Problem, "no passage 9")
}
