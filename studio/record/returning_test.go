package record_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func textsOf(notes []contract.ReturningNote) (list []string) {
	for _, n := range notes {
		text := n.Text
		if n.Next {
			text = "next: " + text
		}
		list = append(list, text)
	}
	return list
}

// Notes that were made while leading and on the record come back until they are used or put away, those for next time
// first; another group does not see them.
func TestNotesComeBack(t *testing.T) {
	d := desktest.New(t)
	group := d.WithGroup(nil)
	other := d.WithGroup(func(g *contract.Group) { g.Name = "Others" })
	plan := d.AddPlan(desktest.Rounds)
	plan, err := d.Plans.Save(t.Context(), plan.ID,
		contract.PlanSave{Revision: plan.Revision, Document: plan.Document, GroupID: group.ID})
	require.NoError(t, err)
	class := d.Start(plan)
	d.Pass(10)
	seen, three := "two new people on the left", "next time three"
	for i, note := range []contract.Adjust{
		{Do: pace.Note, Text: &seen}, {Do: pace.Note, Text: &three, Carry: true},
	} {
		note.Key = string(rune('a' + i))
		_, err := d.Classes.Adjust(t.Context(), class, note)
		require.NoError(t, err)
	}
	d.Do(class, "end")
	remark := func(kind, text string) {
		_, err := d.Records.AddRemark(t.Context(), class, contract.RemarkAdd{Kind: kind, Text: text})
		require.NoError(t, err)
	}
	remark("note", "cold room")
	remark("next", "begin with belly breath")
	coming := func(group int64) []string {
		notes, err := d.Records.Returning(t.Context(), group)
		require.NoError(t, err)
		return textsOf(notes.Notes)
	}
	assert.Equal(t, []string{
		"next: next time three", "next: begin with belly breath", "two new people on the left", "cold room",
	}, coming(group.ID))
	assert.Empty(t, coming(other.ID))
	assert.Empty(t, coming(0))
	remark("used", "next time three")
	remark("put-away", "cold room")
	assert.Equal(t, []string{"next: begin with belly breath", "two new people on the left"}, coming(group.ID))
	d.Reopen()
	assert.Len(t, coming(group.ID), 2, "it is stored")
}

// What was planned and not reached is told of a class that is over, and what became of it.
func TestWhatWasNotSaid(t *testing.T) {
	d := desktest.New(t)
	plan := d.AddPlan(`{"type": "practice", "practice": "counted-breath", "rounds": 3, "lead_in": 0, "tempo": 60,
			"lines": [{"text": "soft jaw", "round": 1}, {"text": "root lock", "round": 3}]},
		{"type": "talk", "title": "Questions", "seconds": 60, "script": "how was the hold?"},
		{"type": "practice", "practice": "ujjayi", "script": "the mirror picture",
			"lines": [{"text": "fog the mirror", "round": 1}]}`)
	class := d.Start(plan)
	d.Pass(10)
	running, err := d.Records.Record(t.Context(), class)
	require.NoError(t, err)
	assert.Empty(t, running.Unsaid, "it may still come")
	d.Do(class, "end")
	record, err := d.Records.Record(t.Context(), class)
	require.NoError(t, err)
	assert.Equal(t, []contract.Unsaid{
		{Passage: 2, Name: "Questions", Kind: "talk", Text: "how was the hold?"},
		{Passage: 3, Name: "Ocean breath", Kind: "script", Text: "the mirror picture"},
		{Passage: 1, Name: "Counted breath", Kind: "line", Text: "root lock"},
		{Passage: 3, Name: "Ocean breath", Kind: "line", Text: "fog the mirror"},
	}, record.Unsaid)
	record, err = d.Records.AddRemark(t.Context(), class, contract.RemarkAdd{Kind: "next", Text: "root lock"})
	require.NoError(t, err)
	assert.Equal(t, "next", record.Unsaid[2].Settled)
}
