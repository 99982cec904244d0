package record_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestRemarksStandBesideTheRecord(t *testing.T) {
	d := desktest.New(t)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: d.AddPlan(desktest.Rounds).ID})
	require.NoError(t, err)
	d.Pass(100)
	before, err := d.Records.Record(t.Context(), score.ClassID)
	require.NoError(t, err)
	for _, r := range []contract.RemarkAdd{{Kind: "people", Text: " 9 "}, {Kind: "took", Text: "settled"},
		{Kind: "note", Text: "cold feet"}, {Kind: "correction", Text: "two rounds were led by voice"}} {
		_, err = d.Records.AddRemark(t.Context(), score.ClassID, r)
		require.NoError(t, err)
		d.Pass(1)
	}
	after, err := d.Records.Record(t.Context(), score.ClassID)
	require.NoError(t, err)
	require.Len(t, after.Remarks, 4)
	table, err := d.Records.RecordTable(t.Context(), score.ClassID)
	require.NoError(t, err)
	assert.Contains(t, string(table.Data), ",two rounds were led by voice,", "a correction is in the exports")
	assert.Equal(t, "9", after.Remarks[0].Text)
	assert.InDelta(t, 1000, after.Remarks[1].AtMS-after.Remarks[0].AtMS, 0)
	after.Remarks = before.Remarks
	assert.Equal(t, before, after, "what happened stays what it was")
	for _, wrong := range []contract.RemarkAdd{{Kind: "people", Text: "many"}, {Kind: "people", Text: "-1"},
		{Kind: "took", Text: "great"}, {Kind: "note", Text: " "}, {Kind: "note", Text: strings.Repeat("x", 2001)},
		{Kind: "score", Text: "5"}} {
		_, err = d.Records.AddRemark(t.Context(), score.ClassID, wrong)
		assert.ErrorIs(t, err, studio.ErrInvalid, wrong)
	}
	_, err = d.Records.AddRemark(t.Context(), 99, contract.RemarkAdd{Kind: "note", Text: "x"})
	assert.ErrorIs(t, err, studio.ErrNotFound)
}
