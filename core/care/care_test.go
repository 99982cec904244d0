package care_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/core/care"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/core/sheet"
	"vastlantern/language"
)

func passage(t *testing.T, text string) (plan.Fields, *plan.Passage) {
	t.Helper()
	doc, p, err := sheet.ReadPlan(
		strings.NewReader(`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [` + text + `]}`),
	)
	require.NoError(t, err)
	return doc.Passages()[0], &p.Passages[0]
}

func of(id string) string { return fmt.Sprintf(`{"type": "practice", "practice": %q}`, id) }

func TestEveryCautionThatAPracticeNamesIsThere(t *testing.T) {
	for _, p := range practice.Catalogue() {
		for _, name := range p.Care {
			assert.True(t, care.Known(name), "%s names %q", p.ID, name)
		}
	}
	for _, c := range care.Conditions {
		assert.NotEmpty(t, language.English().Text(c.Name()))
	}
	assert.False(t, care.Condition("height").Known())
}

// Which passages carry a strong caution for anybody: full and empty holds, strokes, joy, sun and moon breath, locks.
func TestStrongCautions(t *testing.T) {
	for text, strong := range map[string]int{
		`{"type": "talk"}`: 0,
		`{"type": "practice", "practice": "counted-breath", "counts": "4:4"}`:     0,
		`{"type": "practice", "practice": "counted-breath", "counts": "4:4:4"}`:   1,
		`{"type": "practice", "practice": "counted-breath", "counts": "4:0:4:1"}`: 1,
		`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4", ` +
			`"closing": [{"breaths": 1, "counts": "4:2:4"}]}`: 1,
		`{"type": "practice", "practice": "segmented-breath", "counts": "4:4:4:4"}`: 2,
		of("surya-bhedana"): 1, of("chandra-bhedana"): 1, of("kapalabhati"): 1, of("panting-breath"): 1,
		of("breath-of-joy"): 1, of("open-holds"): 3,
		of("partner-breath"): 0, of("nadi-shodhana"): 0,
	} {
		_, p := passage(t, text)
		all := care.Of(p)
		got := 0
		for i, c := range all {
			if c.Strong {
				got++
				assert.Less(t, i, strong, "strong ones come first")
			}
		}
		assert.Equal(t, strong, got, text)
		if p.Practice != nil {
			assert.Contains(t, all, care.Everyone)
		}
	}
}

// Where the gentler lane has nothing of what is left out, the passage stays, and those people take the lane.
func TestTheGentlerLaneIsForThoseWhoLeaveSomethingOut(t *testing.T) {
	for _, c := range []struct {
		passage string
		do      care.Do
	}{
		{`{"type": "practice", "practice": "counted-breath", "counts": "4:4:4"}`, care.LeaveOut},
		{`{"type": "practice", "practice": "counted-breath", "counts": "4:4:4", "beside": "breathe"}`, care.Carefully},
		{`{"type": "practice", "practice": "counted-breath", "counts": "4:4:4", "beside": "3:3"}`, care.Carefully},
		{`{"type": "practice", "practice": "kapalabhati", "strokes": 30, "rounds": 3, "rest_between": 30, "opening": [], ` +
			`"closing": [], "beside": "3:3"}`, care.Carefully},
		{`{"type": "practice", "practice": "kapalabhati", "strokes": 30, "rounds": 3, "rest_between": 30, "opening": [], ` +
			`"closing": [], "beside": "breathe"}`, care.LeaveOut},
	} {
		_, p := passage(t, c.passage)
		who := care.Room{Present: map[care.Condition]int{care.HighBloodPressure: 2}}
		found := care.For(p, who)
		require.Len(t, found, 1, c.passage)
		assert.Equal(t, c.do, found[0].Do, c.passage)
		assert.Equal(
			t,
			c.do == care.Carefully,
			strings.Contains(
				language.English().Text(found[0].Say),
				"high blood pressure (2 people). They take the gentler lane.",
			),
			found[0].Say,
		)
		assert.Equal(t, c.do != care.Carefully, care.AsksForGentle(p, who), c.passage)
	}
	late := care.Room{Late: true}
	_, p := passage(
		t,
		`{"type": "practice", "practice": "kapalabhati", "strokes": 30, "rounds": 3, "rest_between": 30, "beside": "3:3"}`,
	)
	assert.Equal(t, care.LeaveOut, care.For(p, late)[0].Do, "late is late for both lanes")
}

// What a caution says of a gentler lane is so: there is one, or one can be added, or there is none at all.
func TestCautionsSayWhichLaneThereIs(t *testing.T) {
	pregnant := care.Room{Present: map[care.Condition]int{care.Pregnancy: 1}}
	const there, offered = "The gentler lane does without", "A gentler lane can be added"
	for _, c := range []struct{ passage, caution, finding string }{
		{`{"type": "practice", "practice": "counted-breath", "counts": "4:4:4"}`, "Breathe the same breath without the hold.",
			offered},
		{`{"type": "practice", "practice": "counted-breath", "counts": "4:4:4", "beside": "breathe"}`, there, "gentler lane"},
		{`{"type": "practice", "practice": "counted-breath", "counts": "4:4:4", "pace": "own"}`,
			"Breathe the same breath without the hold.", ""},
		{`{"type": "practice", "practice": "kapalabhati", "strokes": 24, "rounds": 3, "opening": [], "closing": []}`,
			"Belly breath in the meantime.", offered},
		{`{"type": "practice", "practice": "kapalabhati", "strokes": 24, "rounds": 3, "opening": [], "closing": [], ` +
			`"beside": "4:4"}`, there, "gentler lane"},
	} {
		_, p := passage(t, c.passage)
		text := language.English().Text(care.Of(p)[0].Say)
		assert.Contains(t, text, c.caution, c.passage)
		assert.Equal(t, c.caution == there, strings.Contains(text, "lane"), text)
		found := care.For(p, pregnant)[0]
		assert.Contains(t, language.English().Text(found.Instead), c.finding, c.passage)
		assert.Equal(
			t,
			c.finding == offered,
			strings.Contains(language.English().Text(found.Instead), offered),
			found.Instead,
		)
	}
	_, narrowed := passage(t, of("digital-control"))
	assert.Contains(t, language.English().Text(care.Of(narrowed)[0].Say), "Narrowing the nostrils", "both are open")
}

// Every cell of the table of cautions: what is left out, and what is done carefully, with what. The table is common
// practice of the trade, with no source; it is written down here a second time, from the trade and not from the rules.
func TestTheTableOfCautions(t *testing.T) {
	const noHoldsNoStrokes = "pregnancy high-blood-pressure heart-disease glaucoma epilepsy recent-surgery " +
		"detached-retina lung-disease reflux asthma "
	for _, row := range []struct{ passage, leaveOut, carefully string }{
		{`{"type": "practice", "practice": "counted-breath", "counts": "4:4:4"}`, noHoldsNoStrokes + "newcomers", ""},
		{`{"type": "practice", "practice": "counted-breath", "counts": "4:0:4:4"}`, noHoldsNoStrokes +
			"newcomers panic low-blood-pressure", ""},
		{`{"type": "practice", "practice": "ujjayi", "closing": [{"breaths": 1, "counts": "4:4:4"}]}`, noHoldsNoStrokes +
			"newcomers", ""},
		{of("kapalabhati"), noHoldsNoStrokes + "hernia ulcer nosebleed vertigo", "menstruation"},
		{of("panting-breath"), noHoldsNoStrokes + "hernia ulcer nosebleed vertigo", "menstruation"},
		{of("breath-of-joy"), "back-or-knee vertigo detached-retina high-blood-pressure", ""},
		{of("open-holds"), noHoldsNoStrokes + "newcomers panic low-blood-pressure hernia", ""},
		{of("surya-bhedana"), "high-blood-pressure fever", "cold"},
		{of("chandra-bhedana"), "low-blood-pressure chest-cold", "cold"},
		{of("nadi-shodhana"), "", "cold"},
		{of("single-nostril"), "", "cold"},
		{of("digital-control"), "", "cold"},
		{of("belly-breath"), "", ""},
		{`{"type": "practice", "practice": "counted-breath", "counts": "4:6"}`, "", ""},
		{`{"type": "free", "seconds": 60}`, "", ""},
	} {
		_, p := passage(t, row.passage)
		for _, condition := range care.Conditions {
			heaviest := care.Do("")
			for _, f := range care.For(p, care.Room{Present: map[care.Condition]int{condition: 1}}) {
				assert.Equal(t, condition, f.With)
				assert.NotEmpty(t, language.English().Text(f.Say))
				assert.NotEmpty(t, language.English().Text(f.Instead))
				if heaviest == "" {
					heaviest = f.Do
				}
			}
			want := care.Do("")
			switch {
			case contains(row.leaveOut, condition):
				want = care.LeaveOut
			case contains(row.carefully, condition):
				want = care.Carefully
			}
			assert.Equal(t, want, heaviest, "%s with %s", row.passage, condition)
		}
		assert.Empty(t, care.For(p, care.Room{}), "nobody, no finding: %s", row.passage)
	}
}

func contains(words string, c care.Condition) bool {
	for word := range strings.FieldsSeq(words) {
		if word == string(c) {
			return true
		}
	}
	return false
}

func TestAgeHourAndSchool(t *testing.T) {
	find := func(text string, room care.Room) (list []string) {
		_, p := passage(t, text)
		for _, f := range care.For(p, room) {
			list = append(list, fmt.Sprintf("%s: %s", f.Do, f.Aspect))
		}
		return list
	}
	equal, longer := `{"type": "practice", "practice": "counted-breath", "counts": "4:4:4"}`,
		`{"type": "practice", "practice": "counted-breath", "counts": "4:5:4"}`
	assert.Empty(t, find(equal, care.Room{Under16: true}), "equal holds are allowed under 16")
	assert.Equal(t, []string{"gentle-variant: full-hold"}, find(longer, care.Room{Under16: true}))
	assert.Equal(t, []string{"gentle-variant: full-hold"}, find(of("open-holds"), care.Room{Under16: true})[:1])
	assert.Equal(t, []string{"leave-out: strokes"}, find(of("kapalabhati"), care.Room{Late: true}))
	assert.Equal(t, []string{"leave-out: sun"}, find(of("surya-bhedana"), care.Room{Late: true}))
	assert.Empty(t, find(of("chandra-bhedana"), care.Room{Late: true}))
	assert.Equal(
		t,
		[]string{"carefully: partner"},
		find(of("partner-breath"), care.Room{}),
		"everybody is asked before touching",
	)

	pressure := care.Room{Present: map[care.Condition]int{care.HighBloodPressure: 2}}
	assert.Equal(t, []string{"leave-out: strokes"}, find(of("kapalabhati"), pressure))
	pressure.Rules.SlowStrokes = true
	assert.Equal(t, []string{"carefully: strokes"}, find(of("kapalabhati"), pressure))
	newcomers := care.Room{Present: map[care.Condition]int{care.Newcomers: 3}, Rules: care.Rules{NewcomersMay: true}}
	assert.Equal(t, []string{"carefully: full-hold"}, find(equal, newcomers))
	assert.Equal(t, []string{"leave-out: full-hold"}, find(longer, newcomers))
	menses := care.Room{Present: map[care.Condition]int{care.Menstruation: 1}, Rules: care.Rules{LeaveOutAtMenses: true}}
	assert.Equal(t, []string{"leave-out: strokes"}, find(of("kapalabhati"), menses))
}

// The gentle variant is of nearly equal length, and nothing in it is left out for anybody who is pregnant.
func TestGentleVariants(t *testing.T) {
	for text, want := range map[string]string{
		`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", ` +
			`"rounds": 6, "side": "right"}`: "nadi-shodhana 4:8 ×8",
		`{"type": "practice", "practice": "counted-breath", "counts": "4:4:4:4", "minutes": 3, "closing": [{"breaths": 2, ` +
			`"counts": "4:4:4"}]}`: "counted-breath 4:4 ×23",
		of("kapalabhati"): "belly-breath 4:4 ×15", of("panting-breath"): "belly-breath 4:4 ×8",
		of("breath-of-joy"): "counted-breath 4:4 ×7",
		of("surya-bhedana"): "nadi-shodhana 4:4 ×5", of("chandra-bhedana"): "nadi-shodhana 4:4 ×5",
		of("open-holds"): "counted-breath 4:4 own",
		`{"type": "practice", "practice": "segmented-breath", "pace": "own", "minutes": 4}`: "segmented-breath 4:4 own",
		`{"type": "practice", "practice": "ujjayi", "rounds": 3}`:                           "",
	} {
		doc, p := passage(t, text)
		soft, words := care.GentleOf(doc, p)
		if want == "" {
			assert.Empty(t, words)
			assert.Equal(t, doc, soft)
			continue
		}
		assert.NotEmpty(t, words)
		gentle, err := plan.OneAt(breath.Int(60), soft)
		require.NoError(t, err, text)
		length := fmt.Sprintf("×%d", gentle.Rounds)
		if gentle.OwnPace {
			length = "own"
		}
		assert.Equal(t, want, fmt.Sprintf("%s %s %s", gentle.Practice.ID, gentle.Measure.Counts, length))
		assert.Empty(t, care.For(&gentle, care.Room{Present: map[care.Condition]int{care.Pregnancy: 1}}), text)
		round := gentle.RoundSpan(gentle.Measure).Float()
		assert.InDelta(
			t,
			p.PlannedLength().Float(),
			gentle.PlannedLength().Float(),
			max(round, 15_000),
			"%s: within a round",
			text,
		)
	}
}
