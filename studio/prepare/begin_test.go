package prepare_test

import (
	"encoding/json"
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/language"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestEveryTemplateCanBeLed(t *testing.T) {
	d := desktest.New(t)
	list, err := d.Plans.Templates(t.Context())
	require.NoError(t, err)
	require.Len(t, list, 6)
	g, err := d.Library.SaveGroup(t.Context(), contract.Group{Name: "Monday", Weekday: 1, Weektime: "18:30"})
	require.NoError(t, err)
	for _, one := range list {
		p, err := d.Plans.Begin(t.Context(), contract.Begin{Template: one.ID, GroupID: g.ID})
		require.NoError(t, err)
		assert.Empty(t, p.Summary.Errors, one.ID)
		assert.NotEmpty(t, one.About)
		assert.Equal(t, one.LengthMS, p.Summary.LengthMS)
		assert.GreaterOrEqual(t, p.Summary.SpareMS, int64(0), one.ID)
		assert.Empty(t, p.Summary.Advice, one.ID)
		assert.InDelta(
			t,
			float64(time.Date(2026, 3, 2, 18, 30, 0, 0, time.UTC).UnixMilli()),
			*p.Summary.StartsMS,
			0,
			"this Monday, still to come",
		)
	}
	_, err = d.Plans.Begin(t.Context(), contract.Begin{Template: "../demo"})
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

func TestAgainAsPlannedOrAsTaught(t *testing.T) {
	d := desktest.New(t)
	g, err := d.Library.SaveGroup(t.Context(), contract.Group{Name: "Monday", Weekday: 1, Weektime: "11:00"})
	require.NoError(t, err)
	p, err := d.Plans.Import(
		t.Context(),
		contract.PlanText{
			GroupID: g.ID,
			Text: `{"format": "vast-lantern-plan", "version": 1, "title": "Lunch", "tempo": 60, "passages": [
		{"type": "practice", "practice": "nadi-shodhana", "counts": "2:2:2", "rounds": 3, "lead_in": 0},
		{"type": "free", "seconds": 60}, {"type": "practice", "practice": "ujjayi", "rounds": 2}]}`,
		},
	)
	require.NoError(t, err)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID, Acknowledged: contract.StrongCautions(p)})
	require.NoError(t, err)
	d.Pass(1)
	slower, one := 50.0, 1
	for i, a := range []contract.Adjust{{Do: "tempo", To: &slower}, {Do: "rounds", By: &one}, {Do: "drop-holds"}} {
		a.Key = fmt.Sprintf("change %d", i)
		_, err := d.Classes.Adjust(t.Context(), score.ClassID, a)
		require.NoError(t, err)
	}
	d.Pass(60)
	d.Do(score.ClassID, "end")

	planned, err := d.Plans.Begin(t.Context(), contract.Begin{ClassID: score.ClassID})
	require.NoError(t, err)
	assert.Equal(t, "2:2:2 x3", planned.Summary.Passages[0].Short)
	assert.Len(t, planned.Summary.Passages, 3)
	assert.Equal(t, g.ID, planned.Group.ID)
	assert.InDelta(
		t,
		float64(time.Date(2026, 3, 9, 11, 0, 0, 0, time.UTC).UnixMilli()),
		*planned.Summary.StartsMS,
		0,
		"the next Monday",
	)
	taught, err := d.Plans.Begin(t.Context(), contract.Begin{ClassID: score.ClassID, How: "taught"})
	require.NoError(t, err)
	assert.Equal(t, "2:2 x4 @50", taught.Summary.Passages[0].Short)
	assert.Len(t, taught.Summary.Passages, 2, "what was not reached is left out")
	advised, err := d.Plans.Begin(t.Context(), contract.Begin{ClassID: score.ClassID, How: "advised"})
	require.NoError(t, err)
	assert.Equal(t, "2:2 x4 @50", advised.Summary.Passages[0].Short, "eased: from where it ended")
	assert.Len(t, advised.Summary.Passages, 3)
	_, err = d.Plans.Begin(t.Context(), contract.Begin{ClassID: score.ClassID, How: "somehow"})
	assert.ErrorIs(t, err, studio.ErrInvalid)
	_, err = d.Plans.Begin(t.Context(), contract.Begin{ClassID: 99})
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

func TestAClassIsLedGentlerThanItsPlan(t *testing.T) {
	d := desktest.New(t)
	p := d.AddPlan(`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 3}`)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID, Gentle: []int{1}})
	require.NoError(t, err, "what is not led any more need not be read")
	assert.Equal(t, "4:8", score.Passages[0].Counts)
	again, err := d.Plans.Plan(t.Context(), p.ID)
	require.NoError(t, err)
	assert.Equal(t, p.Revision, again.Revision)
	assert.Equal(t, "4:4:8", again.Summary.Passages[0].Counts)
	_, err = d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID, Gentle: []int{2}, EndRunning: true})
	assert.ErrorIs(t, err, studio.ErrInvalid)
}

// A template is called in the language of whoever looks for one, and has the texts of the class's language: they are
// shown and said there.
func TestTemplatesInOtherLanguages(t *testing.T) {
	d := desktest.New(t)
	english, err := d.Plans.Templates(t.Context())
	require.NoError(t, err)
	_, err = d.Library.SaveSettings(t.Context(), contract.Settings{Language: "es"})
	require.NoError(t, err)
	for _, tag := range []string{"de", "es", "fr"} {
		list, err := d.Plans.Templates(language.With(t.Context(), tag))
		require.NoError(t, err)
		for i, one := range list {
			assert.NotEqual(t, english[i].Title, one.Title, tag)
			assert.NotEqual(t, english[i].About, one.About, tag)
			assert.Equal(t, english[i].LengthMS, one.LengthMS)
		}
	}
	for _, one := range english {
		p, err := d.Plans.Begin(language.With(t.Context(), "de"), contract.Begin{Template: one.ID})
		require.NoError(t, err)
		assert.Empty(t, p.Summary.Errors, one.ID)
		var document map[string]any
		require.NoError(t, json.Unmarshal(p.Document, &document))
		assert.NotEqual(t, one.Title, document["title"])
		for _, text := range textsIn(document) {
			assert.Equal(t, text, studio.Ours("de", "template.", text), "not in English any more: %q of %s", text, one.ID)
		}
	}
}

// textsIn returns the titles and words of a document.
func textsIn(value any) (texts []string) {
	switch value := value.(type) {
	case []any:
		for _, one := range value {
			texts = append(texts, textsIn(one)...)
		}
	case map[string]any:
		for field, one := range value {
			if text, ok := one.(string); ok && slices.Contains([]string{"title", "script", "text"}, field) {
				texts = append(texts, text)
			}
			texts = append(texts, textsIn(one)...)
		}
	}
	return texts
}
