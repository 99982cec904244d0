package library_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/language"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestAGroupIsWarnedAtEachPlace(t *testing.T) {
	d := desktest.New(t)
	g := d.WithGroup(nil)
	book, err := d.Library.Practices(t.Context(), g.ID)
	require.NoError(t, err)
	for _, p := range book.Practices {
		if p.ID == "segmented-breath" { // has holds by itself
			assert.EqualValues(t, "leave-out", p.Findings[0].Do, "in the practice book")
		}
	}

	drafted, err := d.Plans.Draft(t.Context(), contract.Draft{Document: desktest.Document(desktest.Holds), GroupID: g.ID})
	require.NoError(t, err)
	passage := drafted.Summary.Passages[0]
	require.Len(t, passage.Findings, 1, "in the plan, as it is typed")
	assert.Contains(t, desktest.Words(passage.Findings[0].Say), "pregnancy")
	assert.True(t, passage.Gentler)
	soft, err := d.Plans.Draft(
		t.Context(),
		contract.Draft{
			Document: desktest.Document(desktest.Holds),
			GroupID:  g.ID,
			Change:   &contract.Change{Do: contract.ChangeGentle, Passage: 1},
		},
	)
	require.NoError(t, err)
	assert.Empty(t, soft.Summary.Passages[0].Findings, "the gentle variant needs no warning")
	assert.Equal(t, "Alternate nostril breath without holds", desktest.Words(soft.Changed))
	assert.Equal(t, "4:8", soft.Summary.Passages[0].Counts)
	again, err := d.Plans.Draft(
		t.Context(),
		contract.Draft{
			Document: soft.Document,
			GroupID:  g.ID,
			Change:   &contract.Change{Do: contract.ChangeGentle, Passage: 1},
		},
	)
	require.NoError(t, err)
	assert.Contains(t, desktest.Words(again.Problem), "no gentler variant")

	plan, err := d.Plans.Add(t.Context(), desktest.Document(desktest.Holds), g.ID)
	require.NoError(t, err)
	_, err = d.Classes.Begin(t.Context(), contract.Lead{PlanID: plan.ID})
	require.ErrorIs(t, err, studio.ErrInvalid, "before leading: strong cautions must be acknowledged")
	assert.Contains(t, desktest.Words(err), "Holding the breath")
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: plan.ID, Acknowledged: contract.StrongCautions(plan)})
	require.NoError(t, err)
	assert.EqualValues(t, "leave-out", score.Passages[0].Findings[0].Do, "while leading")
	record, err := d.Records.Record(t.Context(), score.ClassID)
	require.NoError(t, err)
	assert.Equal(t, contract.StrongCautions(plan), record.Acknowledged, "it is recorded that they were read")
	nobody, err := d.Plans.Draft(t.Context(), contract.Draft{Document: desktest.Document(desktest.Holds)})
	require.NoError(t, err)
	assert.Empty(t, nobody.Summary.Passages[0].Findings)
}

func TestGroupsAreChecked(t *testing.T) {
	d := desktest.New(t)
	g := d.WithGroup(nil)
	g.Size, g.Notes = 12, "by the window"
	g, err := d.Library.SaveGroup(t.Context(), g)
	require.NoError(t, err)
	groups, err := d.Library.Groups(t.Context())
	require.NoError(t, err)
	assert.Equal(t, []contract.Group{g}, groups.Groups)
	for says, change := range map[string]func(*contract.Group){
		"needs a name": func(g *contract.Group) { g.Name = "  " },
		"too long":     func(g *contract.Group) { g.Name = strings.Repeat("x", 300) },
		"Level":        func(g *contract.Group) { g.Level = "champions" },
		"People":       func(g *contract.Group) { g.Size = -1 },
		"Weekday":      func(g *contract.Group) { g.Weekday = 7 },
		"Time":         func(g *contract.Group) { g.Weektime = "25:00" },
		"Conditions":   func(g *contract.Group) { g.Conditions = map[string]int{"Anna": 1} },
		"School":       func(g *contract.Group) { g.Schools = map[string]string{"eyes": "crossed"} },
	} {
		bad := g
		change(&bad)
		_, err := d.Library.SaveGroup(t.Context(), bad)
		require.ErrorIs(t, err, studio.ErrInvalid)
		assert.Contains(t, desktest.Words(err), says)
	}
	g.ID = 99
	_, err = d.Library.SaveGroup(t.Context(), g)
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

// Groups and practices are in the order of the teacher's language, and a group that was deleted says so in it.
func TestNamesAreInTheOrderOfTheTeachersLanguage(t *testing.T) {
	d := desktest.New(t)
	german := language.With(t.Context(), "de")
	for _, name := range []string{"Zeit", "Übung am Abend", "Umkehr", "abends"} {
		_, err := d.Library.SaveGroup(german, contract.Group{Name: name, Size: 3, Weekday: -1})
		require.NoError(t, err)
	}
	groups, err := d.Library.Groups(german)
	require.NoError(t, err)
	var names []string
	for _, g := range groups.Groups {
		names = append(names, g.Name)
	}
	assert.Equal(t, []string{"abends", "Übung am Abend", "Umkehr", "Zeit"}, names)
	_, err = d.Library.CopyPractice(german, "counted-breath", "Öffnen")
	require.NoError(t, err)
	book, err := d.Library.Practices(german, 0)
	require.NoError(t, err)
	names = nil
	for _, p := range book.Practices {
		names = append(names, p.Name)
	}
	require.Contains(t, names, "Öffnen")
	assert.Less(t, slices.Index(names, "Öffnen"), slices.Index(names, "Ozeanatem"), "%s", names)
	_, err = d.Transfer.Delete(german, "group", groups.Groups[0].ID, false)
	require.NoError(t, err)
	every, err := d.Library.EveryGroupByID(german)
	require.NoError(t, err)
	assert.Equal(t, "abends (gelöscht)", every[groups.Groups[0].ID].Name)
}
