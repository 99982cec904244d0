package practice

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/language"
)

// waysOf returns the ways of a practice that a prompt can be for.
func waysOf(p *Practice) []map[string]string {
	ways := []map[string]string{{}}
	for field, takes := range map[string]string{"zone": "zone", "attention": "attention", "width": "aperture"} {
		if !p.TakesField(takes) {
			continue
		}
		var more []map[string]string
		for _, way := range ways {
			for _, value := range PromptFields[field] {
				one := map[string]string{field: value}
				for k, v := range way {
					one[k] = v
				}
				more = append(more, one)
			}
		}
		ways = more
	}
	return ways
}

func TestPromptsOfAFile(t *testing.T) {
	for text, want := range map[string]Prompt{
		"Soft jaw.":                         {Text: "Soft jaw."},
		"Into the sides. [attention sides]": {Text: "Into the sides.", For: map[string][]string{"attention": {"sides"}}},
		"Float. [zone all chest, stage rest]": {Text: "Float.", For: map[string][]string{"zone": {"all", "chest"},
			"stage": {"rest"}}},
		"Say [softly] what you see.": {Text: "Say [softly] what you see."},
		"Narrow, not closed. [ width   narrow ]": {Text: "Narrow, not closed.",
			For: map[string][]string{"width": {"narrow"}}},
	} {
		got, err := ParsePrompt(text)
		require.NoError(t, err, text)
		assert.Equal(t, want, got, text)
	}
	for text, says := range map[string]string{
		"Softly. [attention]":      "allowed: zone, attention, width, airway or stage",
		"Softly. [mood calm]":      "given [mood calm]",
		"Softly. [attention left]": `given “left” for attention, allowed: front, sides, back, round`,
	} {
		_, err := ParsePrompt(text)
		assert.Contains(t, language.English().Error(err), says, text)
	}
}

func TestEveryFileOfTheCatalogueIsRead(t *testing.T) {
	files, err := files.ReadDir("catalogue")
	require.NoError(t, err)
	require.Len(t, Catalogue(), len(files))
	for _, p := range Catalogue() {
		for _, text := range []string{p.About, p.Level, p.Seat, p.Hands, p.Eyes, p.Gentler, p.Harder, p.Finish} {
			assert.NotEmpty(t, text, p.ID)
		}
		assert.NotEmpty(t, p.Also, p.ID)
		assert.NotEmpty(t, p.Intents, p.ID)
		assert.NotEmpty(t, p.How, p.ID)
		assert.NotEmpty(t, p.Watch, p.ID)
		assert.NotEmpty(t, p.Course, p.ID)
		for _, way := range waysOf(p) {
			fitting := 0
			for _, prompt := range p.Prompts {
				if prompt.Fits(way) {
					fitting++
				}
			}
			assert.Contains(t, []int{2, 3}, fitting, "two or three short prompts: %s, %v", p.ID, way)
		}
		assert.Same(t, p, Find(p.ID))
		assert.NotEmpty(t, File(p.ID), "the file is named by its id: %s", p.ID)
		round := p.Round(
			Setting{Counts: breath.Counts{Inhale: 4, Exhale: 4}, Strokes: 1, Start: breath.Left, Airway: p.Airway},
		)
		assert.Contains(t, []breath.Phase{breath.Inhale, breath.Stroke}, round[0].Kind, p.ID)
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
		{"three-part-breath", breath.Left, ways{"both"}, ways{"both"}},
		{"digital-control", breath.Left, ways{"both"}, ways{"both"}},
		{"breath-of-joy", breath.Left, ways{"both"}, ways{"mouth"}},
	} {
		p := Find(c.id)
		in, out := sides(p.Round(Setting{Counts: breath.Counts{Inhale: 4, Exhale: 8}, Start: c.start, Airway: p.Airway}))
		assert.Equal(t, c.in, in, "%s from the %s, in", c.id, c.start)
		assert.Equal(t, c.out, out, "%s from the %s, out", c.id, c.start)
	}
}

func TestRoundLeavesOutPhasesOfNoCounts(t *testing.T) {
	set := Setting{
		Counts:       breath.Counts{Inhale: 4, Hold: 2, Exhale: 6},
		Airway:       breath.ByNose,
		NaturalPause: breath.Int(500),
	}
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

// The three zones are taught as about 60, 30 and 10 percent (common practice, with no source); how whole counts are
// shared, with these examples, is in pacing.md section 3.
func TestZones(t *testing.T) {
	for n, want := range map[int][3]int{3: {1, 1, 1}, 4: {2, 1, 1}, 5: {3, 1, 1}, 6: {3, 2, 1}, 10: {6, 3, 1},
		13: {8, 4, 1}, 60: {36, 18, 6}} {
		got := [3]int{}
		for _, zone := range Zones(n) {
			got[map[string]int{"belly": 0, "ribs": 1, "chest": 2}[zone]]++
		}
		assert.Equal(t, want, got, n)
	}
	three := Find("three-part-breath").Round(Setting{Counts: breath.Counts{Inhale: 3, Hold: 1, Exhale: 4}, Zone: "all"})
	assert.Equal(t, []string{"belly", "ribs", "chest"}, three[0].Parts, "fill from below")
	assert.Empty(t, three[1].Part(1), "a hold has no part")
	assert.Equal(t, []string{"chest", "ribs", "belly", "belly"}, three[2].Parts, "empty from above")
	one := Find("three-part-breath").Round(Setting{Counts: breath.Counts{Inhale: 2, Exhale: 2}, Zone: "ribs"})
	assert.Equal(
		t,
		[]string{"ribs", "ribs", "ribs"},
		[]string{one[0].Part(0), one[0].Part(1), one[1].Part(2)},
		"also of the word's own beat",
	)
}

func TestPartsStrokesAndOpenPhases(t *testing.T) {
	joy := Find("breath-of-joy").Round(Setting{})
	assert.Equal(t, []string{"forward", "side", "up"}, []string{joy[0].Part(1), joy[0].Part(2), joy[0].Part(3)})
	assert.Equal(t, []int{3, 1}, []int{joy[0].Counts, joy[1].Counts})

	narrow := Find(
		"digital-control",
	).Round(Setting{Counts: breath.Counts{Inhale: 5, Exhale: 5}, Aperture: Aperture{"narrow", "wide"}})
	assert.Equal(t, []string{"narrow", "wide"}, []string{narrow[0].Part(1), narrow[1].Part(5)})

	for airway, through := range map[breath.Airway]breath.Through{breath.ByNose: breath.Both,
		breath.OutByMouth: breath.Mouth, breath.ByMouth: breath.Mouth} {
		strokes := Find("kapalabhati").Round(Setting{Strokes: 20, Airway: airway})
		assert.Equal(t, []Phase{{Kind: breath.Stroke, Through: through, Counts: 20}}, strokes, "a stroke is an exhale")
	}
	assert.Equal(t, breath.Mouth, Find("panting-breath").Round(Setting{Strokes: 1, Airway: breath.ByNose})[0].Through)

	open := Setting{Counts: breath.Counts{Inhale: 1, Exhale: 1}, Airway: breath.ByNose}
	open.Open[2] = breath.Int(8000)
	phases := Find("open-holds").Round(open)
	require.Len(t, phases, 2, "the holds are left out")
	assert.True(t, phases[1].Waits && phases[1].Timed && phases[1].Length.Equal(breath.Int(8000)))
	assert.Equal(t, 1, phases[1].Breath)
}

func TestReadTellsWhatIsWrong(t *testing.T) {
	good := "id: x\nname: X\nkind: counted\nairway: nose\ncounts: \"4:4\"\nrounds: 1\nfigure:\n  - {phase: inhale, " +
		"counts: a, through: airway}\n"
	_, err := Read([]byte(good))
	require.NoError(t, err)
	for name, c := range map[string]struct{ text, says string }{
		"no figure":     {"id: x\nname: X\nkind: counted\nairway: nose\n", "figure"},
		"unknown field": {good + "colour: red\n", "colour"},
		"wrong counts": {"id: x\nname: X\nkind: counted\nairway: nose\ncounts: \"0:4\"\nrounds: 1\nfigure: [{phase: " +
			"hold, counts: b}]\n", "0:4"},
		"hold with side":      {good + "  - {phase: hold, counts: b, through: left}\n", "phase 2"},
		"unknown phase":       {good + "  - {phase: hum, counts: b}\n", "hum"},
		"unknown role":        {good + "  - {phase: hold, counts: z}\n", "z"},
		"strokes in a breath": {good + "  - {phase: stroke, counts: strokes, through: both}\n", "strokes"},
		"a word too few":      {good + "  - {phase: exhale, counts: 3, through: mouth, parts: [one, two]}\n", "parts"},
		"no kind":             {strings.Replace(good, "counted", "sung", 1), "sung"},
		"no rate":             {strings.Replace(good, "kind: counted", "kind: strokes", 1), "rate"},
		"no open lengths":     {strings.Replace(good, "kind: counted", "kind: open", 1), "open_seconds"},
		"rounds and minutes":  {good + "minutes: 2\n", "one of them"},
		"no rounds": {"id: x\nname: X\nkind: counted\nairway: nose\ncounts: \"4:4\"\nfigure: [{phase: hold, " +
			"counts: b}]\n", "rounds"},
		"not YAML": {"id: [", ""},
	} {
		_, err := Read([]byte(c.text))
		require.Error(t, err, name)
		assert.Contains(t, language.English().Error(err), c.says, name)
	}
}

// A file that is hostile or broken is refused quickly, and says why.
// staircase is objects in each other, each a line that is one space further in.
func staircase(steps int) string {
	var text strings.Builder
	for i := range steps {
		text.WriteString(strings.Repeat(" ", i+1) + "a:\n")
	}
	return text.String()
}

func TestHostileFiles(t *testing.T) {
	good := "id: own-x\nname: X\nkind: counted\nairway: nose\ncounts: \"4:4\"\nrounds: 1\nfigure:\n  - {phase: inhale, " +
		"counts: a, through: airway}\n"
	bomb := "a: &a [x, x, x, x, x, x, x, x, x]\n"
	for i := range 8 {
		bomb += fmt.Sprintf(
			"%c: &%c [*%c, *%c, *%c, *%c, *%c, *%c, *%c, *%c]\n",
			'b'+i,
			'b'+i,
			'a'+i,
			'a'+i,
			'a'+i,
			'a'+i,
			'a'+i,
			'a'+i,
			'a'+i,
			'a'+i,
		)
	}
	for name, c := range map[string]struct{ text, says string }{
		"aliases that explode": {bomb, "anchors and aliases"},
		"a merge":              {good + "<<: {rounds: 3}\n", ""},
		"too large":            {good + "about: " + strings.Repeat("x", MostBytes), "64 KiB"},
		"a long text":          {good + "about: " + strings.Repeat("x", 3000) + "\n", "3000 bytes"},
		"many texts":           {good + "how: [" + strings.Repeat("a, ", 500) + "b]\n", "texts"},
		"a huge number":        {strings.Replace(good, "rounds: 1", "rounds: 99999999999999999999", 1), ""},
		"a million rounds":     {strings.Replace(good, "rounds: 1", "rounds: 1000000", 1), "0 to 999"},
		"a wrong type":         {strings.Replace(good, "rounds: 1", "rounds: [1]", 1), ""},
		"a figure of a thousand": {strings.Replace(good, "figure:",
			"figure:"+strings.Repeat("\n  - {phase: hold, counts: b}", 1000), 1), "1 to 60"},
		"deep lists":             {"id: " + strings.Repeat("[", 50_000), "line 1: lists and objects are nested"},
		"deep objects":           {good + "how: " + strings.Repeat("{a: ", 14_000), "line 9: lists and objects are nested"},
		"deep objects, by lines": {good + "how: " + strings.Repeat("{a:\n", 12_000), "nested more than 32 deep"},
		"deep dashes": {good + "how:\n  " + strings.Repeat("- ", 30_000) + "x",
			"line 10: lists and objects are nested"},
		"deep keys":                {good + "how:\n" + staircase(350), "nested more than 32 deep"},
		"less careful than before": {good + "from: kapalabhati\ncare: []\n", "not remove any"},
		"from nowhere":             {good + "from: juggling\n", "juggling"},
		"a word for no phase":      {good + "words: {sing: la}\n", "sing"},
	} {
		_, err := ReadOwn([]byte(c.text))
		require.Error(t, err, name)
		assert.Contains(t, language.English().Error(err), c.says, name)
	}
	more, err := ReadOwn([]byte(good + "from: nadi-shodhana\ncare: [one-sided, partner]\nwords: {inhale: in}\n"))
	require.NoError(t, err)
	assert.Equal(t, []string{"one-sided", "partner"}, more.Care)
	_, err = ReadOwn([]byte(strings.Replace(good, "own-x", "nadi-shodhana", 1)))
	assert.Contains(t, language.English().Error(err), "begins with own-")
}

func FuzzRead(f *testing.F) {
	names, err := files.ReadDir("catalogue")
	require.NoError(f, err)
	for _, name := range names {
		data, err := files.ReadFile("catalogue/" + name.Name())
		require.NoError(f, err)
		f.Add(data)
	}
	f.Fuzz(func(t *testing.T, data []byte) {
		p, err := Read(data)
		if err != nil {
			return
		}
		for _, ph := range p.Round(Setting{Counts: breath.Counts{Inhale: 3, Hold: 1, Exhale: 3, Empty: 1}, Strokes: 1,
			Zone: "all", Airway: p.Airway}) {
			if ph.Counts < 1 || ph.Counts > breath.MostHoldCounts {
				t.Fatalf("a phase of %d counts", ph.Counts)
			}
			ph.Part(1)
		}
	})
}

// A practice is called as its file says in a language, else by its Sanskrit term, else in English.
func TestNamesInOtherLanguages(t *testing.T) {
	for _, c := range []struct{ id, tag, name string }{
		{"nadi-shodhana", "en", "Alternate nostril breath"},
		{"nadi-shodhana", "de", "Wechselatmung"},
		{"nadi-shodhana", "fr", "Respiration alternée"},
		{"counted-breath", "es", "Respiración contada"},
		{"nadi-shodhana", "pt", "Nadi shodhana"},
		{"belly-breath", "pt", "Belly breath"},
	} {
		assert.Equal(t, c.name, Find(c.id).NameIn(c.tag), c.id+" "+c.tag)
	}
}

func TestEveryPracticeIsWholeInEachLanguage(t *testing.T) {
	for _, p := range Catalogue() {
		for _, tag := range []string{"en", "de", "es", "fr"} {
			one, whole := p.Translated(tag)
			assert.True(t, whole, "%s %s", p.ID, tag)
			assert.Equal(t, p.Counts, one.Counts)
			for i, prompt := range one.Prompts {
				assert.Equal(t, p.Prompts[i].For, prompt.For, "%s %s: %s", p.ID, tag, prompt.Text)
			}
			if tag != "en" {
				assert.NotEqual(t, p.About, one.About, "%s %s", p.ID, tag)
			}
		}
		same, whole := p.Translated("pt")
		assert.Same(t, p, same)
		assert.False(t, whole)
	}
}

func TestTextsThatAreMissingAreEnglish(t *testing.T) {
	p, err := Read([]byte(`{id: own-x, name: Slow, kind: counted, counts: "4:4", rounds: 3, airway: nose, figure: [{phase: inhale, counts: a, through: airway}],
		about: In and out., how: [One., Two.], in: {de: {name: Langsam, how: [Eins., Zwei.]}}}`))
	require.NoError(t, err)
	one, whole := p.Translated("de")
	assert.False(t, whole)
	assert.Equal(t, []string{"Langsam", "In and out.", "Eins."}, []string{one.Name, one.About, one.How[0]})
	_, err = Read([]byte(`{id: own-x, name: Slow, kind: counted, counts: "4:4", rounds: 3, airway: nose, figure: [{phase: inhale, counts: a, through: airway}],
		how: [One., Two.], in: {de: {how: [Eins.]}}}`))
	assert.Contains(t, language.English().Error(err), "in de, how: given 1 texts, allowed: 2")
}
