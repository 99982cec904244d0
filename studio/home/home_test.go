package home_test

import (
	"bytes"
	"compress/gzip"
	"encoding/base64"
	"encoding/json"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/core/sheet"
	"vastlantern/language"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
	"vastlantern/studio/home"
	"vastlantern/studio/led"
)

const (
	trial = `{"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 2, "lead_in": 0, "trial": ` +
		`true}`
	even   = `{"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 3, "lead_in": 0}`
	target = `{"type": "practice", "practice": "counted-breath", "title": "Long out", "counts": "4:2:7", "rounds": 6, ` +
		`"lead_in": 0}`
)

// class returns a class of a group on 4:2:7, led to its end except for what was pressed.
func class(t *testing.T, d *desktest.Desk, press ...string) (group, class int64) {
	t.Helper()
	g, err := d.Library.SaveGroup(t.Context(), contract.Group{Name: "Monday", Weekday: -1})
	require.NoError(t, err)
	p := d.AddPlan(trial + "," + even + "," + target)
	p, err = d.Plans.Save(t.Context(), p.ID, contract.PlanSave{Revision: p.Revision, Document: p.Document, GroupID: g.ID})
	require.NoError(t, err)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID, Acknowledged: contract.StrongCautions(p)})
	require.NoError(t, err)
	d.Pass(50) // in the second round of 4:2:7
	for _, do := range press {
		d.Do(score.ClassID, do)
	}
	d.Pass(600)
	return g.ID, score.ClassID
}

func TestWhatGoesHomeFromAClass(t *testing.T) {
	d := desktest.New(t)
	_, id := class(t, d)
	offer, err := d.Homes.OfferFromClass(t.Context(), id)
	require.NoError(t, err)
	require.Len(t, offer.Passages, 2, "not the try-out")
	point := offer.Passages[0]
	assert.Equal(
		t,
		contract.HomePassage{
			Passage: 3,
			Name:    "Long out",
			Says:    "Long out 4:2:7 ×6",
			Counts:  "4:2:7",
			Tempo:   60,
			Usual:   contract.HomeAmount{Minutes: 3, Pieces: 1, Days: 7, Steps: []contract.HomeStep{}},
			Grows:   point.Grows,
		},
		point,
	)
	assert.NotEmpty(t, point.Grows)
	assert.Equal(t, d.Studio.Now().Format(time.DateOnly), offer.Begins)

	offer, err = d.Homes.GiveFromClass(
		t.Context(),
		id,
		contract.HomeGive{
			Passage: 3,
			HomeAmount: contract.HomeAmount{
				Minutes:  10,
				Pieces:   2,
				Days:     7,
				When:     " in the morning ",
				Sentence: "As lightly as here.",
			},
		},
	)
	require.NoError(t, err)
	require.Len(t, offer.Given, 1)
	given := offer.Given[0]
	assert.Equal(
		t,
		[]any{
			"Long out",
			"4:2:7, 23 rounds at 60, about 5 min",
			"10 minutes a day, in 2 pieces, for 7 days, in the morning",
			id,
		},
		[]any{given.Name, given.Says, given.Amount, given.ClassID},
	)
	record, err := d.Records.Record(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, offer.Given, record.Homes, "it stands in the record")

	s, err := d.Homes.Sheet(t.Context(), given.ID)
	require.NoError(t, err)
	assert.Equal(t, "Lunch", s.From)
	assert.NotEmpty(t, s.How)
	assert.Contains(t, desktest.Words(strings.Join(s.Cautions, " ")), "Holding the breath: leave it out with")
	assert.Contains(t, s.Stop, "Stop and breathe naturally when dizzy")

	_, err = d.Homes.TakeBack(t.Context(), given.ID)
	require.NoError(t, err)
	_, err = d.Homes.Sheet(t.Context(), given.ID)
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

// What was eased goes home as it ended.
func TestItGoesHomeAsItWasLed(t *testing.T) {
	d := desktest.New(t)
	_, id := class(t, d, "drop-holds")
	offer, err := d.Homes.OfferFromClass(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, "4:7", offer.Passages[0].Counts)
	for _, c := range []struct {
		give contract.HomeGive
		says string
	}{
		{contract.HomeGive{Passage: 3}, "4:7, 16 rounds at 60, about 3 min"},
		{contract.HomeGive{Passage: 3, Counts: "5:5", Tempo: 50}, "5:5, 15 rounds at 50, about 3 min"},
		{contract.HomeGive{Passage: 2}, "4:4, 23 rounds at 60, about 3 min"},
	} {
		c.give.HomeAmount = contract.HomeAmount{Minutes: 3, Pieces: 1}
		offer, err := d.Homes.GiveFromClass(t.Context(), id, c.give)
		require.NoError(t, err)
		assert.Equal(t, c.says, offer.Given[0].Says)
	}
}

func TestWhatCannotGoHome(t *testing.T) {
	d := desktest.New(t)
	_, id := class(t, d)
	right := contract.HomeAmount{Minutes: 5, Pieces: 1, Days: 7}
	for says, give := range map[string]contract.HomeGive{
		"Passage 1 cannot be given as home practice": {Passage: 1, HomeAmount: right},
		"Passage 9 cannot be given as home practice": {Passage: 9, HomeAmount: right},
		"Minutes a day: given 0, allowed: 1 to 30":   {Passage: 3},
		`Counts: given “4-4”`:                        {Passage: 3, Counts: "4-4", HomeAmount: right},
		"It cannot go home like this":                {Passage: 3, Tempo: 3000, HomeAmount: right},
	} {
		_, err := d.Homes.GiveFromClass(t.Context(), id, give)
		assert.ErrorIs(t, err, studio.ErrInvalid, says)
		assert.Contains(t, language.English().Error(err), says)
	}
	_, err := d.Homes.GiveFromClass(t.Context(), id, contract.HomeGive{Again: 99, HomeAmount: right})
	assert.ErrorIs(t, err, studio.ErrNotFound)
	_, err = d.Homes.OfferFromPlan(t.Context(), 99)
	assert.ErrorIs(t, err, studio.ErrNotFound)
	offer, err := d.Homes.OfferFromClass(t.Context(), id)
	require.NoError(t, err)
	assert.Empty(t, offer.Given, "nothing of this was stored")
}

// A group is asked about it when it comes again, and it can be given once more.
func TestAskedAboutWhenTheGroupComesAgain(t *testing.T) {
	d := desktest.New(t)
	group, id := class(t, d)
	amount := contract.HomeAmount{Minutes: 10, Pieces: 1, Days: 7}
	_, err := d.Homes.GiveFromClass(t.Context(), id, contract.HomeGive{Passage: 3, HomeAmount: amount})
	require.NoError(t, err)
	of, err := d.Homes.OfGroup(t.Context(), group)
	require.NoError(t, err)
	assert.Empty(t, of.Ask, "not in the class in which it was given")
	d.Pass(7 * 24 * 3600)
	of, err = d.Homes.OfGroup(t.Context(), group)
	require.NoError(t, err)
	require.Equal(t, []int64{of.Homes[0].ID}, of.Ask)
	_, err = d.Homes.Answer(t.Context(), of.Ask[0], contract.HomeAnswer{Answer: "great"})
	assert.ErrorIs(t, err, studio.ErrInvalid)
	of, err = d.Homes.Answer(t.Context(), of.Ask[0], contract.HomeAnswer{Answer: of.Answers[1],
		Revision: of.Homes[0].Revision})
	require.NoError(t, err)
	assert.Empty(t, of.Ask)
	assert.Equal(t, "now-and-then", of.Homes[0].Answer)

	_, err = d.Homes.Answer(
		t.Context(),
		of.Homes[0].ID,
		contract.HomeAnswer{Answer: contract.HomeTooMuch, Revision: of.Homes[0].Revision},
	)
	require.NoError(t, err)
	record, err := d.Records.Record(t.Context(), id)
	require.NoError(t, err)
	assert.Contains(t, desktest.Words(record.Told.Unready), "for home was too much", "it counts for next time")

	p := d.AddPlan(even)
	p, err = d.Plans.Save(t.Context(), p.ID, contract.PlanSave{Revision: p.Revision, Document: p.Document, GroupID: group})
	require.NoError(t, err)
	offer, err := d.Homes.OfferFromPlan(t.Context(), p.ID)
	require.NoError(t, err)
	require.Len(t, offer.Before, 1)
	amount.Minutes = 12
	offer, err = d.Homes.GiveFromPlan(t.Context(), p.ID, contract.HomeGive{Again: offer.Before[0].ID, HomeAmount: amount})
	require.NoError(t, err)
	assert.Equal(
		t,
		"4:2:7, 55 rounds at 60, about 12 min",
		offer.Given[0].Says,
		"what was given then, and not what is planned now",
	)

	young := desktest.New(t)
	young.Import(d.Export())
	assert.Equal(t, d.Export(), young.Export(), "all of it moves to another machine")
	_, err = d.Homes.Answer(
		t.Context(),
		offer.Given[0].ID,
		contract.HomeAnswer{Answer: of.Answers[0], Revision: offer.Given[0].Revision},
	)
	require.NoError(t, err)
	assert.Contains(t, desktest.Lines(young.Import(d.Export())), "home practice changed: Long out")
	assert.Equal(t, d.Export(), young.Export())
}

const template = "<script>PRACTICE-GOES-HERE</script>"

// inPage returns what a page was made of.
func inPage(t *testing.T, page []byte) (data contract.HomePage) {
	t.Helper()
	packed := strings.TrimSuffix(strings.TrimPrefix(string(page), "<script>"), "</script>")
	small, err := base64.StdEncoding.DecodeString(packed)
	require.NoError(t, err)
	plain, err := gzip.NewReader(bytes.NewReader(small))
	require.NoError(t, err)
	require.NoError(t, json.NewDecoder(plain).Decode(&data))
	return data
}

// The page has the same counts at the same milliseconds as the sheet of what was given, in each of its choices.
func TestThePageAgreesWithTheSheet(t *testing.T) {
	kapalabhati := `{"type": "practice", "practice": "kapalabhati", "strokes": 20, "rounds": 3, "rest_between": 20}`
	for _, c := range []struct {
		passage string
		rounds  []int
	}{
		{target, []int{1, 3, 6, 9, 12}},
		{`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 40, "beside": "breathe", ` +
			`"closing": [{"breaths": 2}]}`, []int{1, 20, 40}},
		{kapalabhati, []int{1, 2, 3, 5, 6}},
		{strings.Replace(kapalabhati, `"rest_between": 20`, `"rest_between": 20, "rest_wait": true`, 1),
			[]int{1, 2, 3, 5, 6}},
	} {
		text := `{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [{"type": "talk", "seconds": 5}, ` +
			c.passage + `]}`
		doc, p, err := sheet.ReadPlan(strings.NewReader(text))
		require.NoError(t, err)
		page, err := home.PageOf([]byte(template), doc, p, 2, led.PlanScore)
		require.NoError(t, err)
		data := inPage(t, page)
		var rounds []int
		require.Len(t, data.Steps, 1)
		for i, choice := range data.Steps[0].Choices {
			score := data.Scores[choice.Score]
			n := score.Passages[0].Rounds
			rounds = append(rounds, n)
			assert.Equal(t, -1, choice.ByTouch, "nothing waits")
			assert.Equal(t, i == data.Steps[0].Given, n == p.Passages[1].TotalRounds(p.Passages[1].Measure))
			alone, _, err := sheet.ReadPlan(strings.NewReader(text))
			require.NoError(t, err)
			alone.KeepOnly(func(number int) bool { return number == 2 })
			alone.Passages()[0].SetRounds(n)
			written, err := json.Marshal(alone)
			require.NoError(t, err)
			written = bytes.Replace(
				written,
				[]byte(`"rest_wait":true`),
				[]byte(`"rest_wait":false`),
				1,
			) // at home nothing waits for a teacher
			_, one, err := sheet.ReadPlan(bytes.NewReader(written))
			require.NoError(t, err)
			tl := pace.Sheet(one)
			agrees(t, tl.Rows, score.Phases)
			if !one.Passages[0].Beside.None() {
				agrees(t, tl.Lane(one).Rows, score.Lane)
			}
			assert.Equal(t, tl.End, score.EndMS)
			assert.Nil(t, score.Wait)
			for _, cue := range score.Cues {
				assert.NotEqual(t, "teacher", string(cue.Who))
			}
		}
		assert.Equal(t, c.rounds, rounds)
	}
	doc, p, err := sheet.ReadPlan(
		strings.NewReader(
			`{"format": "vast-lantern-plan", "version": 1, "passages": [{"type": "practice", "practice": "open-holds", ` +
				`"minutes": 3}, {"type": "talk", "seconds": 5}]}`,
		),
	)
	require.NoError(t, err)
	_, err = home.PageOf([]byte(template), doc, p, 2, led.PlanScore)
	assert.Error(t, err)
	doc, p, err = sheet.ReadPlan(
		strings.NewReader(`{"format": "vast-lantern-plan", "version": 1, "passages": [` + target + `]}`),
	)
	require.NoError(t, err)
	_, err = home.PageOf([]byte("no place"), doc, p, 1, led.PlanScore)
	assert.Contains(t, language.English().Error(err), "make build")
}

func agrees(t *testing.T, rows []pace.Row, phases []contract.ScorePhase) {
	t.Helper()
	next := 0
	for _, phase := range phases {
		for i, at := range phase.AtMS {
			row := rows[next]
			require.Equal(
				t,
				[]any{row.At, row.Count, row.Phase, row.Through, row.Round},
				[]any{at, phase.First + i, phase.Kind, phase.Through, phase.Round},
			)
			next++
		}
	}
	require.Equal(t, len(rows), next)
}

// The page as it was built takes a practice.
func TestTheBuiltPage(t *testing.T) {
	built, err := os.ReadFile("../../web/dist/home.html")
	if os.IsNotExist(err) {
		t.Skip("the front end is not built")
	}
	require.NoError(t, err)
	doc, p, err := sheet.ReadPlan(
		strings.NewReader(
			`{"format": "vast-lantern-plan", "version": 1, "passages": [{"type": "practice", "practice": "nadi-shodhana", ` +
				`"counts": "4:4:8", "rounds": 20, "beside": "4:4"}]}`,
		),
	)
	require.NoError(t, err)
	page, err := home.PageOf(built, doc, p, 1, led.PlanScore)
	require.NoError(t, err)
	assert.Less(t, len(page), 250_000)
	for _, asks := range []string{`src="`, `href="`, "url(http", "//fonts", "import("} {
		assert.NotContains(t, string(page), asks, "nothing is asked of any server")
	}
}

// One that cannot be read is left out and named, and takes nothing else with it.
func TestADamagedHomePractice(t *testing.T) {
	d := desktest.New(t)
	group, id := class(t, d)
	for range 2 {
		_, err := d.Homes.GiveFromClass(
			t.Context(),
			id,
			contract.HomeGive{Passage: 3, HomeAmount: contract.HomeAmount{Minutes: 5, Pieces: 1}},
		)
		require.NoError(t, err)
	}
	d.Exec("UPDATE homes SET document = '{\"format\"' WHERE id = 1")
	of, err := d.Homes.OfGroup(t.Context(), group)
	require.NoError(t, err)
	assert.Len(t, of.Homes, 1)
	_, err = d.Homes.Sheet(t.Context(), 1)
	assert.ErrorIs(t, err, studio.ErrDamaged)
	assert.Contains(t, language.English().Error(err), "The entry of this home practice")
	var export contract.Export
	require.NoError(t, json.Unmarshal([]byte(d.Export()), &export))
	assert.Len(t, export.Homes, 1)
	require.Len(t, export.Damaged, 1)
	assert.Equal(t, "home", export.Damaged[0].Kind)
	_, err = d.Homes.TakeBack(t.Context(), 1)
	require.NoError(t, err)
	_, err = d.Homes.TakeBack(t.Context(), 1)
	assert.ErrorIs(t, err, studio.ErrNotFound)
}
