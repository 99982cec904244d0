package studio_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio"
	"vastlantern/studio/contract"
)

const holds = `{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 6, "lead_in": 0}`

// group stores a group in which somebody is pregnant.
func (d *desk) group(change func(*contract.Group)) contract.Group {
	g := contract.Group{Name: "Lunch", Level: "beginners", Weekday: 1, Weektime: "12:30", Conditions: map[string]int{"pregnancy": 1}}
	if change != nil {
		change(&g)
	}
	stored, err := d.SaveGroup(g)
	require.NoError(d.t, err)
	return stored
}

func document(passages string) json.RawMessage {
	return json.RawMessage(`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [` + passages + `]}`)
}

func TestAGroupIsWarnedAtEachPlace(t *testing.T) {
	d := newDesk(t)
	g := d.group(nil)
	book, err := d.Practices(g.ID)
	require.NoError(t, err)
	for _, p := range book.Practices {
		if p.ID == "segmented-breath" { // has holds by itself
			assert.EqualValues(t, "leave out", p.Findings[0].Do, "in the practice book")
		}
	}

	drafted, err := d.Draft(contract.Draft{Document: document(holds), GroupID: g.ID})
	require.NoError(t, err)
	passage := drafted.Summary.Passages[0]
	require.Len(t, passage.Findings, 1, "in the plan, as it is typed")
	assert.Contains(t, passage.Findings[0].Say, "pregnancy")
	assert.True(t, passage.Gentler)
	soft, err := d.Draft(contract.Draft{Document: document(holds), GroupID: g.ID, Passage: 1, Gentle: true})
	require.NoError(t, err)
	assert.Empty(t, soft.Summary.Passages[0].Findings, "the gentle variant needs no warning")
	assert.Equal(t, "Alternate nostril breath without holds", soft.Changed)
	assert.Equal(t, "4:8", soft.Summary.Passages[0].Counts)
	again, err := d.Draft(contract.Draft{Document: soft.Document, GroupID: g.ID, Passage: 1, Gentle: true})
	require.NoError(t, err)
	assert.Contains(t, again.Problem, "no gentler variant")

	plan, err := d.AddPlan(document(holds), g.ID)
	require.NoError(t, err)
	_, err = d.Lead(contract.Lead{PlanID: plan.ID})
	require.ErrorIs(t, err, studio.ErrInvalid, "before leading: strong cautions must be acknowledged")
	assert.Contains(t, err.Error(), "Holding the breath")
	score, err := d.Lead(contract.Lead{PlanID: plan.ID, Acknowledged: studio.StrongCautions(plan)})
	require.NoError(t, err)
	assert.EqualValues(t, "leave out", score.Passages[0].Findings[0].Do, "while leading")
	record, err := d.Record(score.ClassID)
	require.NoError(t, err)
	assert.Equal(t, studio.StrongCautions(plan), record.Acknowledged, "it is recorded that they were read")
	nobody, err := d.Draft(contract.Draft{Document: document(holds)})
	require.NoError(t, err)
	assert.Empty(t, nobody.Summary.Passages[0].Findings)
}

func TestGroupsAreChecked(t *testing.T) {
	d := newDesk(t)
	g := d.group(nil)
	g.Size, g.Notes = 12, "by the window"
	_, err := d.SaveGroup(g)
	require.NoError(t, err)
	groups, err := d.Groups()
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
		_, err := d.SaveGroup(bad)
		require.ErrorIs(t, err, studio.ErrInvalid)
		assert.Contains(t, err.Error(), says)
	}
	g.ID = 99
	_, err = d.SaveGroup(g)
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

func TestTheSchoolIsPlannedCuedShownAndCaredFor(t *testing.T) {
	d := newDesk(t)
	settings, err := d.Settings()
	require.NoError(t, err)
	settings.Schools = map[string]string{"start": "right", "sides": "hand", "palms": "down", "pressure": "slow"}
	settings.OwnWords = map[string]string{"inhale": "breathe in", "hold": ""}
	_, err = d.SaveSettings(settings)
	require.NoError(t, err)
	g := d.group(func(g *contract.Group) { g.Schools = map[string]string{"start": "exhale"} })

	short := "nadi 4:4 x2"
	planned, err := d.Draft(contract.Draft{Document: document(""), Short: &short})
	require.NoError(t, err)
	assert.Contains(t, string(planned.Document), `"side": "right"`)
	differs, err := d.Draft(contract.Draft{Document: document(""), Short: &short, GroupID: g.ID})
	require.NoError(t, err)
	assert.Contains(t, string(differs.Document), `"entry": "exhale"`, "where the group differs")
	assert.NotContains(t, string(differs.Document), `"side"`)

	plan, err := d.AddPlan(planned.Document, 0)
	require.NoError(t, err)
	score, err := d.Lead(contract.Lead{PlanID: plan.ID})
	require.NoError(t, err)
	inhale := score.Strands[1]
	assert.Equal(t, []string{"breathe in", "close the left"}, []string{inhale.Word, inhale.Side})
	assert.Equal(t, "breathe in close the left", inhale.Says[0])

	settings.OwnWords, settings.Language = map[string]string{}, "de"
	_, err = d.SaveSettings(settings)
	require.NoError(t, err)
	still, err := d.Score(score.ClassID)
	require.NoError(t, err)
	assert.Equal(t, score.Strands, still.Strands, "a class keeps the words that it was led with")
	german, err := d.Lead(contract.Lead{PlanID: plan.ID, EndRunning: true})
	require.NoError(t, err)
	assert.Equal(t, "ein links schließen", german.Strands[1].Says[0])

	book, err := d.Practices(0)
	require.NoError(t, err)
	for _, p := range book.Practices {
		if p.ID == "ujjayi" {
			assert.Contains(t, p.Shown, "Palms down.")
		}
	}
	for says, change := range map[string]func(*contract.Settings){
		"Language": func(s *contract.Settings) { s.Language = "xx" },
		"School":   func(s *contract.Settings) { s.Schools = map[string]string{"eyes": "crossed"} },
		"Words":    func(s *contract.Settings) { s.OwnWords = map[string]string{"nonsense": "x"} },
	} {
		bad := settings
		change(&bad)
		_, err := d.SaveSettings(bad)
		assert.ErrorContains(t, err, says)
	}
}

func TestAPracticeOfOnesOwn(t *testing.T) {
	d := newDesk(t)
	file, err := d.CopyPractice("surya-bhedana", "Sun, slowly")
	require.NoError(t, err)
	assert.Contains(t, file.Text, "id: own-sun-slowly\nname: Sun, slowly\n")
	second, err := d.CopyPractice("surya-bhedana", "Sun slowly!")
	require.NoError(t, err)
	assert.Contains(t, second.Text, "id: own-sun-slowly-2\n", "ids are not taken twice")

	changed := strings.Replace(file.Text, "4:6", "4:8", 1)
	_, err = d.SavePractice(changed)
	require.NoError(t, err)
	draft := d.DraftPractice(strings.Replace(changed, "- sun\n", "", 1))
	assert.Contains(t, draft.Problem, "none taken away", "cautions can be added only")
	draft = d.DraftPractice(changed)
	require.Empty(t, draft.Problem)
	assert.Equal(t, "4:8", draft.Page.Pattern)
	assert.NotEmpty(t, draft.Sample.Strands)
	_, err = d.SavePractice("id: [")
	assert.ErrorIs(t, err, studio.ErrInvalid)

	short := "own-sun-slowly x3"
	planned, err := d.Draft(contract.Draft{Document: document(""), Short: &short})
	require.NoError(t, err)
	require.Empty(t, planned.Problem)
	plan, err := d.AddPlan(planned.Document, 0)
	require.NoError(t, err)
	score, err := d.Lead(contract.Lead{PlanID: plan.ID, Acknowledged: studio.StrongCautions(plan)})
	require.NoError(t, err)

	_, err = d.RemovePractice("own-sun-slowly")
	require.NoError(t, err)
	_, err = d.RemovePractice("own-sun-slowly")
	assert.ErrorIs(t, err, studio.ErrNotFound)
	after, err := d.Score(score.ClassID)
	require.NoError(t, err)
	assert.Equal(t, score, after, "the class of the past stays what it was")
	kept, err := d.Plan(plan.ID)
	require.NoError(t, err)
	assert.Empty(t, kept.Summary.Errors, "and a plan keeps what it uses")
	_, err = d.Sample("own-sun-slowly")
	assert.ErrorIs(t, err, studio.ErrNotFound)
	_, err = d.CopyPractice("juggling", "")
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

// Every practice of the book is planned with its course, led, and closes as its figure says.
func TestEveryPracticeIsPlannedAndLed(t *testing.T) {
	d := newDesk(t)
	book, err := d.Practices(0)
	require.NoError(t, err)
	for _, p := range book.Practices {
		line := p.ID
		drafted, err := d.Draft(contract.Draft{Document: document(""), Short: &line})
		require.NoError(t, err, p.ID)
		require.Empty(t, drafted.Problem, p.ID)
		assert.Len(t, drafted.Summary.Passages, len(p.Course), p.ID)
		plan, err := d.AddPlan(drafted.Document, 0)
		require.NoError(t, err, p.ID)
		score, err := d.Lead(contract.Lead{PlanID: plan.ID, EndRunning: true, Acknowledged: studio.StrongCautions(plan)})
		require.NoError(t, err, p.ID)
		require.NotEmpty(t, score.Strands, p.ID)
		for _, strand := range score.Strands {
			assert.NotEmpty(t, strand.Word, "%s, %s", p.ID, strand.Phase)
		}
		sample, err := d.Sample(p.ID)
		require.NoError(t, err)
		assert.Positive(t, sample.EndMS)
	}
}
