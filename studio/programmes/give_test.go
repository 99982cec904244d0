package programmes_test

import (
	"bytes"
	"compress/gzip"
	"encoding/base64"
	"encoding/json"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/programme"
	"vastlantern/language"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

const lesson = `{"format": "vast-lantern-plan", "version": 1, "title": "Lesson", "tempo": 60, "starts_at": "2026-01-01T10:00:00Z",
	"passages": [{"type": "talk", "seconds": 60, "script": "for the class"},
	{"type": "practice", "practice": "ujjayi", "counts": "4:6", "rounds": 2, "lead_in": 0},
	{"type": "practice", "practice": "nadi-shodhana", "counts": "4:8", "rounds": 1, "lead_in": 0},
	{"type": "free", "seconds": 20}]}`

// lessons is two whole classes with days of rest between, and a step that changes the first class.
func lessons() programme.Programme {
	return programme.Programme{
		Name: "Lessons", Passage: 1, By: programme.Date, Days: 2, Missed: programme.Wait, Eased: programme.Wait,
		Gap: 21, Repeat: 1,
		Steps: []programme.Step{{Says: "x4", Classes: 1}, {Classes: 2, Rest: 3, Plan: []byte(lesson)},
			{Says: "x5", Classes: 1}},
	}
}

func days(s contract.ProgrammeSheet) (list []int) {
	for _, c := range s.Classes {
		first := time.UnixMilli(int64(s.Classes[0].StartsMS))
		list = append(list, 1+int(time.UnixMilli(int64(c.StartsMS)).Sub(first).Hours()/24))
	}
	return list
}

// A step can be a whole class; rests lie between steps; after a gap it repeats.
func TestAProgrammeOfWholeClasses(t *testing.T) {
	d, s := begun(t, lessons())
	assert.Equal(t, "x4 Lesson Lesson x5", coming(s), "a whole class is called by its title")
	assert.Equal(t, []int{1, 3, 5, 10}, days(s), "two days, and three of rest")
	p, err := d.Plans.Plan(t.Context(), s.Classes[1].PlanID)
	require.NoError(t, err)
	assert.Len(t, p.Summary.Passages, 4)
	s = teach(t, d, false)
	assert.Equal(t, 2, s.Card.Step)
	s = teach(t, d, true)
	assert.Equal(t, contract.StateMissed, s.Classes[1].State, "it was ended in its talk")
	s = teach(t, d, false)
	assert.Equal(t, contract.StatePlanned, s.Classes[2].State, "all of its practices were led")

	d.Pass(30 * 24 * 3600)
	d.Programmes.FollowAll(t.Context())
	s, err = d.Programmes.Sheet(t.Context(), 1)
	require.NoError(t, err)
	assert.Equal(t, 1, s.Card.Step)
	assert.Contains(t, desktest.Words(s.Card.Why), "days without a class: it repeats from step 1.")
}

// Several groups follow one programme, each at its own speed.
func TestAProgrammeForSeveralGroups(t *testing.T) {
	d, s := begun(t, rounds())
	other, err := d.Library.AddGroup(t.Context(), "Evening", "experienced", 8)
	require.NoError(t, err)
	starts := d.Time.Add(48 * time.Hour)
	given, err := d.Programmes.Give(t.Context(), s.Card.ID, contract.ProgrammeGive{
		GroupID: other.ID, StartsAt: starts.Format(time.RFC3339)})
	require.NoError(t, err)
	assert.Equal(t, []any{"Evening", 1, "x3 x3 x4 x4"}, []any{given.Card.Group.Name, given.Card.Step, coming(given)})
	assert.Equal(t, contract.Millis(starts), given.Classes[0].StartsMS)
	teach(t, d, false)
	teach(t, d, false)
	first, err := d.Programmes.Sheet(t.Context(), s.Card.ID)
	require.NoError(t, err)
	second, err := d.Programmes.Sheet(t.Context(), given.Card.ID)
	require.NoError(t, err)
	assert.Equal(t, []int{2, 1}, []int{first.Card.Step, second.Card.Step}, "each at its own speed")
	for name, to := range map[string]contract.ProgrammeGive{
		"no such group": {GroupID: 99, StartsAt: d.Time.Add(48 * time.Hour).Format(time.RFC3339)},
		"no time":       {GroupID: other.ID, StartsAt: "soon"},
		"a day over":    {GroupID: other.ID, StartsAt: d.Time.Add(-48 * time.Hour).Format(time.RFC3339)},
	} {
		_, err := d.Programmes.Give(t.Context(), s.Card.ID, to)
		assert.Error(t, err, name)
	}
}

// A programme goes to another teacher as a file, and is begun there for a group.
func TestAProgrammeAsAFile(t *testing.T) {
	d, s := begun(t, lessons())
	file, err := d.Programmes.File(t.Context(), s.Card.ID)
	require.NoError(t, err)
	assert.Equal(t, "lessons.programme.json", file.Name)
	assert.NotContains(t, string(file.Data), "starts_at")
	var of contract.ProgrammeFile
	require.NoError(t, json.Unmarshal(file.Data, &of))

	there := desktest.New(t)
	brought, err := there.Programmes.Bring(t.Context(), contract.ProgrammeBring{File: of,
		ProgrammeGive: contract.ProgrammeGive{StartsAt: there.Time.Add(time.Hour).Format(time.RFC3339)}})
	require.NoError(t, err)
	assert.Equal(t, "x4 Lesson Lesson x5", coming(brought))
	again, err := there.Programmes.File(t.Context(), brought.Card.ID)
	require.NoError(t, err)
	assert.JSONEq(t, string(file.Data), string(again.Data), "it comes out as it went in")
	for says, change := range map[string]func(*contract.ProgrammeFile){
		"is no file of a programme":         func(f *contract.ProgrammeFile) { f.Format = "vast-lantern-plan" },
		"The class in this programme":       func(f *contract.ProgrammeFile) { f.Base = []byte(`{"passages": 3}`) },
		"Days between two classes: given 0": func(f *contract.ProgrammeFile) { f.Programme.Days = 0 },
		"given 61": func(f *contract.ProgrammeFile) {
			f.Programme.Steps = make([]programme.Step, 61)
		},
	} {
		wrong := of
		change(&wrong)
		_, err := there.Programmes.Bring(t.Context(), contract.ProgrammeBring{File: wrong,
			ProgrammeGive: contract.ProgrammeGive{StartsAt: there.Time.Add(time.Hour).Format(time.RFC3339)}})
		assert.ErrorIs(t, err, studio.ErrInvalid, says)
		assert.Contains(t, language.English().Error(err), says)
	}
}

// A programme goes home as a page: each class on its days, without talks, by touch where it was by hand.
func TestAProgrammeAtHome(t *testing.T) {
	of := lessons()
	hand := strings.Replace(lesson, `"counts": "4:8"`, `"counts": "4:8", "by_hand": "all"`, 1)
	of.Steps[1].Plan = []byte(strings.Replace(hand, `"seconds": 20`, `"seconds": 20, "wait": true`, 1))
	d, s := begun(t, of)
	const template = "<script>PRACTICE-GOES-HERE</script>"
	file, err := d.Programmes.HomePage(t.Context(), s.Card.ID, "2026-11-30", []byte(template))
	require.NoError(t, err)
	packed := strings.TrimSuffix(strings.TrimPrefix(string(file.Data), "<script>"), "</script>")
	small, err := base64.StdEncoding.DecodeString(packed)
	require.NoError(t, err)
	plain, err := gzip.NewReader(bytes.NewReader(small))
	require.NoError(t, err)
	var page contract.HomePage
	require.NoError(t, json.NewDecoder(plain).Decode(&page))
	var got [][2]int
	for _, step := range page.Steps {
		got = append(got, [2]int{step.First, step.Last})
	}
	assert.Equal(t, [][2]int{{1, 2}, {3, 6}, {10, 11}}, got, "days 7 to 9 are of rest")
	whole := page.Steps[1]
	assert.Equal(t, []string{"Ocean breath 4:6 ×2", "Alternate nostril breath 4:8 ×1", "Natural breath"},
		whole.How)
	assert.NotEmpty(t, whole.Cautions)
	choice := whole.Choices[0]
	require.GreaterOrEqual(t, choice.ByTouch, 0)
	assert.Len(t, page.Scores[choice.Score].Passages, 3, "nobody is there to talk")
	for _, phase := range page.Scores[choice.Score].Phases {
		assert.False(t, phase.Open)
	}
	assert.NotContains(t, string(file.Data), "for the class")
	assert.NotEmpty(t, page.Key)
	_, err = d.Programmes.HomePage(t.Context(), s.Card.ID, "tomorrow", []byte(template))
	assert.ErrorIs(t, err, studio.ErrInvalid)
}
