package prepare_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

func TestAdviceFromTheGroupsPast(t *testing.T) {
	d := desktest.New(t)
	g, err := d.Library.SaveGroup(t.Context(), contract.Group{Name: "Monday", Weekday: -1})
	require.NoError(t, err)
	class := func(passages string) contract.Plan {
		t.Helper()
		p, err := d.Plans.Add(
			t.Context(),
			[]byte(
				`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [{"type": "talk", "seconds": 60, "wait": `+
					`true}, `+passages+`, {"type": "free", "seconds": 60}]}`,
			),
			g.ID,
		)
		require.NoError(t, err)
		return p
	}
	says := func(p contract.Plan) string {
		var all []string
		for _, a := range p.Summary.Advice {
			all = append(all, desktest.Words(a.Say)+"|"+string(a.Do))
		}
		return strings.Join(all, "\n")
	}
	easy := class(`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4", "rounds": 2}`)
	assert.Empty(t, says(easy))
	for range 5 {
		score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: easy.ID, EndRunning: true})
		require.NoError(t, err)
		d.Pass(90)
		d.Do(score.ClassID, "advance")
		d.Pass(200)
	}
	hard := class(
		`{"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 2}, {"type": "practice", ` +
			`"practice": "nadi-shodhana", "counts": "5:10:10", "rounds": 6}`,
	)
	assert.Contains(t, says(hard), "more than one step up")
	assert.Contains(t, says(hard), "not been prepared")
	assert.Contains(t, says(hard), "Talks with this group usually take 1.5 times what is planned for them.|talks")
	drafted, err := d.Plans.Draft(
		t.Context(),
		contract.Draft{Document: hard.Document, GroupID: g.ID, Change: &contract.Change{Do: contract.ChangeTalks}},
	)
	require.NoError(t, err)
	assert.Equal(t, "talks 1.5 times as long", desktest.Words(drafted.Changed))
	assert.EqualValues(t, 90_000, drafted.Summary.Passages[0].LengthMS)
	assert.Contains(
		t,
		says(hard),
		"Alternate nostril breath: 4:4 x3 in place of 5:10:10 x6.|advised",
		"led as planned five times",
	)
	drafted, err = d.Plans.Draft(
		t.Context(),
		contract.Draft{
			Document: hard.Document,
			GroupID:  g.ID,
			Change:   &contract.Change{Do: contract.ChangeAdvised, Passage: 3},
		},
	)
	require.NoError(t, err)
	assert.Equal(t, "4:4 x3", drafted.Summary.Passages[2].Short)
	drafted, err = d.Plans.Draft(
		t.Context(),
		contract.Draft{
			Document: hard.Document,
			GroupID:  g.ID,
			Change:   &contract.Change{Do: contract.ChangeAdvised, Passage: 2},
		},
	)
	require.NoError(t, err)
	assert.Contains(t, desktest.Words(drafted.Problem), "advises nothing else")
	starts := d.Time.Add(time.Hour).Format(time.RFC3339)
	_, err = d.Plans.Add(
		t.Context(),
		[]byte(strings.Replace(string(hard.Document), `"version"`, fmt.Sprintf(`"starts_at": %q, "version"`, starts), 1)),
		g.ID,
	)
	require.NoError(t, err)
	today := d.Today.Show(t.Context())
	require.Empty(t, today.Failed)
	require.Len(t, today.Advice, 1)
	assert.Contains(
		t,
		desktest.Words(today.Advice[0].Why),
		"Led as planned 5 times in a row: one step up, 4:4, 3 rounds. The plan is more than one step above that.",
	)
	more := class(`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4", "rounds": 6}`)
	assert.Contains(t, says(more), "Alternate nostril breath: 4:4 x3 in place of 4:4 x6.|advised")
	for _, a := range more.Summary.Advice {
		if a.Do == contract.ChangeAdvised {
			assert.Contains(
				t,
				desktest.Words(a.Why),
				"one step up, 4:4, 3 rounds. The plan asks for more than this step.",
				"less time is proposed with its reason",
			)
		}
	}
	second, err := d.Library.SaveGroup(t.Context(), contract.Group{Name: "Without a class", Weekday: -1})
	require.NoError(t, err)
	none, err := d.Plans.Draft(t.Context(), contract.Draft{Document: hard.Document, GroupID: second.ID})
	require.NoError(t, err)
	for _, a := range none.Summary.Advice {
		assert.NotContains(t, a.Say, "Talks", "of another group's classes nothing follows")
	}
	other, err := d.Plans.Add(t.Context(), hard.Document, 0)
	require.NoError(t, err)
	assert.NotContains(t, says(other), "step up", "of no group nothing is known")
}
