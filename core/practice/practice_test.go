package practice

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
)

func TestEveryFileOfTheCatalogueIsRead(t *testing.T) {
	files, err := files.ReadDir("catalogue")
	require.NoError(t, err)
	require.Len(t, Catalogue(), len(files))
	for _, p := range Catalogue() {
		assert.NotEmpty(t, p.About, p.ID)
		assert.Same(t, p, Find(p.ID))
		counts, err := breath.ParseCounts(p.Counts)
		require.NoError(t, err)
		round := p.Round(Setting{Counts: counts, Start: breath.Left, Airway: p.Airway})
		assert.Equal(t, breath.Inhale, round[0].Kind, p.ID)
	}
	assert.Nil(t, Find("no such practice"))
}

func sides(phases []Phase) (in, out []breath.Through) {
	for _, ph := range phases {
		switch ph.Kind {
		case breath.Inhale:
			in = append(in, ph.Through)
		case breath.Exhale:
			out = append(out, ph.Through)
		}
	}
	return in, out
}

// The figures of pacing.md section 3: which way the air goes in one round.
func TestFigures(t *testing.T) {
	type ways = []breath.Through
	for _, c := range []struct {
		id      string
		start   breath.Through
		in, out ways
	}{
		{"nadi-shodhana", breath.Left, ways{"left", "right"}, ways{"right", "left"}},
		{"nadi-shodhana", breath.Right, ways{"right", "left"}, ways{"left", "right"}},
		{"surya-bhedana", breath.Left, ways{"right"}, ways{"left"}},
		{"chandra-bhedana", breath.Left, ways{"left"}, ways{"right"}},
		{"single-nostril", breath.Right, ways{"right"}, ways{"right"}},
		{"counted-breath", breath.Left, ways{"both"}, ways{"both"}},
		{"sigh", breath.Left, ways{"both"}, ways{"mouth"}},
		{"om-chant", breath.Left, ways{"both"}, ways{"mouth"}},
	} {
		p := Find(c.id)
		in, out := sides(p.Round(Setting{Counts: breath.Counts{Inhale: 4, Exhale: 8}, Start: c.start, Airway: p.Airway}))
		assert.Equal(t, c.in, in, "%s from the %s, in", c.id, c.start)
		assert.Equal(t, c.out, out, "%s from the %s, out", c.id, c.start)
	}
}

func TestRoundLeavesOutPhasesOfNoCounts(t *testing.T) {
	set := Setting{Counts: breath.Counts{Inhale: 4, Hold: 2, Exhale: 6}, Airway: breath.ByNose, NaturalPause: breath.Int(500)}
	var kinds []breath.Phase
	for _, ph := range Find("counted-breath").Round(set) {
		kinds = append(kinds, ph.Kind)
	}
	// The natural pause stands where the empty hold is 0, and not after the inhale, which is held.
	assert.Equal(t, []breath.Phase{breath.Inhale, breath.Hold, breath.Exhale, breath.Still}, kinds)
}

// Worked values of common practice, with no source: 4:16:8 alternate nostril is 56 counts a round, square breath 16,
// the long soft exhale 13; and 56 s at 60 counts a minute.
func TestCountsOfARound(t *testing.T) {
	for _, c := range []struct {
		id     string
		counts breath.Counts
		want   int
	}{
		{"nadi-shodhana", breath.Counts{Inhale: 4, Hold: 16, Exhale: 8}, 56},
		{"counted-breath", breath.Counts{Inhale: 4, Hold: 4, Exhale: 4, Empty: 4}, 16},
		{"counted-breath", breath.Counts{Inhale: 4, Hold: 2, Exhale: 7}, 13},
	} {
		var span breath.Exact
		for _, ph := range Find(c.id).Round(Setting{Counts: c.counts, Start: breath.Left}) {
			span = span.Add(ph.Span(breath.Int(60)))
		}
		assert.EqualValues(t, c.want*1000, span.Round(), "%s %s", c.id, c.counts)
	}
}

func TestReadTellsWhatIsWrong(t *testing.T) {
	good := "id: x\nname: X\nkind: counted\ncounts: \"4:4\"\nrounds: 1\nfigure:\n  - {phase: inhale, counts: a, through: airway}\n"
	_, err := Read([]byte(good))
	require.NoError(t, err)
	for name, c := range map[string]struct{ text, says string }{
		"no figure":      {"id: x\nname: X\nkind: counted\n", "figure"},
		"unknown field":  {good + "colour: red\n", "colour"},
		"wrong counts":   {"id: x\nname: X\nkind: counted\ncounts: \"0:4\"\nrounds: 1\nfigure: [{phase: hold, counts: b}]\n", "0:4"},
		"hold with side": {good + "  - {phase: hold, counts: b, through: left}\n", "phase 2"},
		"unknown phase":  {good + "  - {phase: hum, counts: b}\n", "hum"},
		"unknown role":   {good + "  - {phase: hold, counts: z}\n", "z"},
		"no rounds":      {"id: x\nname: X\nkind: counted\ncounts: \"4:4\"\nfigure: [{phase: hold, counts: b}]\n", "rounds"},
		"not YAML":       {"id: [", ""},
	} {
		_, err := Read([]byte(c.text))
		require.Error(t, err, name)
		assert.Contains(t, err.Error(), c.says, name)
	}
}
