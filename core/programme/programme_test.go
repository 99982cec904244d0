package programme_test

import (
	"bytes"
	"fmt"
	"strings"
	"testing"

	"vastlantern/core/plan/line"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/programme"
	"vastlantern/core/sheet"
	"vastlantern/language"
)

func ExampleProgramme_Follow() {
	strokes := programme.Programme{
		Steps:  []programme.Step{{Says: "20 strokes"}, {Says: "25 strokes"}},
		By:     programme.Led,
		Times:  2,
		Missed: programme.Wait,
		Eased:  programme.Back,
	}
	_, at := strokes.Follow(
		[]programme.Class{{Outcome: programme.Planned}, {Outcome: programme.Planned}, {Outcome: programme.Eased}}, 0,
	)
	fmt.Println(at.Step+1, language.English().Text(at.Why))
	// Output: 1 The last class was eased: back to step 1.
}

func classes(short string) (list []programme.Class) {
	of := map[rune]programme.Class{
		'p': {Outcome: programme.Planned}, 'e': {Outcome: programme.Eased}, 'm': {Outcome: programme.Missed},
		't': {Outcome: programme.TooMuch, Why: fact.New("unrest.too-much", "some", 3, "of", 10)},
	}
	for _, letter := range short {
		list = append(list, of[letter])
	}
	return list
}

func steps(n, classes int) (list []programme.Step) {
	for range n {
		list = append(list, programme.Step{Says: "x6", Classes: classes})
	}
	return list
}

// Where a group is follows from how its classes went, case by case.
func TestWhereAGroupStands(t *testing.T) {
	led := programme.Programme{
		Steps:  steps(3, 1),
		By:     programme.Led,
		Times:  3,
		Missed: programme.Wait,
		Eased:  programme.Back,
	}
	date := programme.Programme{Steps: steps(3, 2), By: programme.Date, Missed: programme.Wait, Eased: programme.Wait}
	back := programme.Programme{Steps: steps(3, 2), By: programme.Date, Missed: programme.Back, Eased: programme.Back}
	on := programme.Programme{Steps: steps(3, 2), By: programme.Date, Missed: programme.On, Eased: programme.Wait}
	for _, c := range []struct {
		of    programme.Programme
		went  string
		stood []int
		step  int
		times int
		over  bool
		why   string
	}{
		{led, "", nil, 0, 0, false, "It begins."},
		{led, "pp", []int{0, 0}, 0, 2, false, "Led as planned twice; it moves on after 3 in a row."},
		{led, "ppp", []int{0, 0, 0}, 1, 0, false, "Step 1 is done: on to step 2."},
		{led, "ppmp", []int{0, 0, 0, 0}, 0, 1, false, "Led as planned once; it moves on after 3 in a row."},
		{led, "pppe", []int{0, 0, 0, 1}, 0, 0, false, "The last class was eased: back to step 1."},
		{led, "e", []int{0}, 0, 0, false, "The last class was eased: it waits at step 1."},
		{led, "pppt", []int{0, 0, 0, 1}, 1, 0, false,
			"In the last class for 3 of the 10 who answered it was too much: it waits at step 2."},
		{led, "ppppppppp", []int{0, 0, 0, 1, 1, 1, 2, 2, 2}, 2, 3, true, "The last step is done: it stays there."},
		{led, "pppppppppp", []int{0, 0, 0, 1, 1, 1, 2, 2, 2, 2}, 2, 3, true, "The last step is done: it stays there."},
		{led, "pppppppppe", []int{0, 0, 0, 1, 1, 1, 2, 2, 2, 2}, 1, 0, false, "The last class was eased: back to step 2."},
		{date, "p", []int{0}, 0, 1, false, "Class 2 of 2 of step 1."},
		{date, "pp", []int{0, 0}, 1, 0, false, "Step 1 is done: on to step 2."},
		{date, "pmp", []int{0, 0, 0}, 1, 0, false, "Step 1 is done: on to step 2."},
		{date, "pm", []int{0, 0}, 0, 1, false, "The last class was missed: it waits at step 1."},
		{back, "ppm", []int{0, 0, 1}, 0, 0, false, "The last class was missed: back to step 1."},
		{on, "pm", []int{0, 0}, 1, 0, false, "The last class was missed; it moves on by date. Step 1 is done: on to step 2."},
	} {
		stood, at := c.of.Follow(classes(c.went), 0)
		assert.Equal(t, c.stood, stood, c.went)
		assert.Equal(
			t,
			[]any{c.step, c.times, c.over, c.why},
			[]any{at.Step, at.Times, at.Over, language.English().Text(at.Why)},
			c.went,
		)
	}
	_, at := led.Follow(classes("pp"), 0)
	assert.Equal(t, []int{0, 1, 1, 1, 2}, led.Coming(at, 5))
	assert.Equal(t, []int{0, 0, 1, 1, 2, 2}, date.Coming(programme.Place{}, 99), "it comes to its end")
}

func names() *line.Names { return line.NewNames([]string{"en"}, nil) }

func base(passages string) func([]byte) (plan.Document, error) {
	return func(whole []byte) (plan.Document, error) {
		if whole != nil {
			return sheet.ReadDocument(bytes.NewReader(whole))
		}
		return sheet.ReadDocument(
			strings.NewReader(
				`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "slot_min": 12, "passages": [` + passages + `]}`,
			),
		)
	}
}

// Every template of ours can be made on a practice that it is for, from the first step to the last.
func TestEveryTemplateCanBeMade(t *testing.T) {
	for _, template := range programme.Templates() {
		of := template.Programme
		of.Passage, of.Name = 1, template.ID
		assert.Empty(t, of.Check(), template.ID)
		practiceID := "nadi-shodhana"
		if template.Strokes {
			practiceID = "kapalabhati"
		}
		long := func([]byte) (plan.Document, error) {
			return sheet.ReadDocument(
				strings.NewReader(
					`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [{"type": "practice", "practice": "` +
						practiceID + `"}]}`,
				),
			)
		}
		said := map[string]bool{}
		for step := range of.Steps {
			made, err := of.Make(step, long, names())
			require.NoError(t, err, "%s, step %d", template.ID, step+1)
			assert.Equal(t, step, made.Step, template.ID)
			assert.Empty(t, language.English().Text(made.Why), template.ID)
			text, err := made.Document.MarshalJSON()
			require.NoError(t, err)
			said[string(text)] = true
		}
		assert.Len(t, said, len(of.Steps), "%s: each step asks for something else", template.ID)
	}
}

// Growth never overruns the slot or the ceiling: the highest step that fits is taken, and it is said.
func TestTheSlotIsNeverOverrun(t *testing.T) {
	of := programme.Programme{
		Name:    "Longer",
		Passage: 2,
		Steps:   []programme.Step{{Says: "5 min"}, {Says: "8 min"}, {Says: "15 min"}, {Says: "20 min"}},
		By:      programme.Led,
		Times:   1,
		Days:    7,
		Missed:  programme.Wait,
		Eased:   programme.Wait,
	}
	class := base(`{"type": "talk", "seconds": 120}, {"type": "practice", "practice": "counted-breath", "counts": "5:5"}`)
	made, err := of.Make(3, class, names())
	require.NoError(t, err)
	assert.Equal(t, 1, made.Step)
	assert.Equal(t, "Step 4 would overrun the slot: it stays below.", language.English().Text(made.Why))
	assert.False(t, made.Plan.Slot.Times(60_000).Less(made.Plan.Length()))
	of.Ceiling = 6
	made, err = of.Make(1, class, names())
	require.NoError(t, err)
	assert.Equal(t, 0, made.Step)
	assert.Equal(
		t,
		"Step 2 would take more than the ceiling of 6 minutes: it stays below.",
		language.English().Text(made.Why),
	)
	made, err = of.Make(
		0,
		base(`{"type": "talk", "seconds": 700}, {"type": "practice", "practice": "counted-breath"}`),
		names(),
	)
	require.NoError(t, err)
	assert.Equal(
		t,
		"Step 1 would overrun the slot: make the slot longer, or the step shorter.",
		language.English().Text(made.Why),
	)
}

// After a gap it repeats, once for each gap; a class that was missed is none that was held.
func TestAfterAGapItRepeats(t *testing.T) {
	of := programme.Programme{Steps: steps(5, 1), By: programme.Date, Days: 7, Missed: programme.Wait,
		Eased: programme.Wait,
		Gap:   14, Repeat: 2}
	assert.Empty(t, of.Check()[1:], "but for the name")
	on := func(went string, days ...int) []programme.Class {
		list := classes(went)
		for i := range list {
			list[i].Day = days[i]
		}
		return list
	}
	for _, c := range []struct {
		name  string
		past  []programme.Class
		next  int
		stood []int
		step  int
		why   string
	}{
		{"none", on("ppp", 1, 8, 15), 22, []int{0, 1, 2}, 3, "Step 3 is done: on to step 4."},
		{"two weeks", on("ppp", 1, 8, 15), 29, []int{0, 1, 2}, 1, "14 days without a class: it repeats from step 2."},
		{"not known when the next one is", on("ppp", 1, 8, 15), 0, []int{0, 1, 2}, 3, "Step 3 is done: on to step 4."},
		{"missed twice", on("pppmm", 1, 8, 15, 22, 29), 36, []int{0, 1, 2, 3, 1}, 1,
			"The last class was missed: it waits at step 2."},
		{"once for a gap", on("pppp", 1, 8, 15, 40), 47, []int{0, 1, 2, 1}, 2, "Step 2 is done: on to step 3."},
		{"twice for two", on("pppp", 1, 8, 15, 40), 60, []int{0, 1, 2, 1}, 0,
			"20 days without a class: it repeats from step 1."},
		{"before the first", nil, 99, nil, 0, "It begins."},
	} {
		stood, at := of.Follow(c.past, c.next)
		assert.Equal(t, c.stood, stood, c.name)
		assert.Equal(t, []any{c.step, c.why}, []any{at.Step, language.English().Text(at.Why)}, c.name)
	}
}

// A step can be a class of its own, and rests lie between steps.
func TestStepsOfWholeClasses(t *testing.T) {
	lesson := func(title string) []byte {
		return []byte(`{"format": "vast-lantern-plan", "version": 1, "title": "` + title + `", "starts_at": "2026-11-30T18:00:00Z",
			"slot_min": 1, "passages": [{"type": "talk", "seconds": 300}, {"type": "practice", "practice": "ujjayi"}]}`)
	}
	of := programme.Programme{Name: "Lessons", Passage: 1, By: programme.Date, Days: 2, Missed: programme.Wait,
		Eased: programme.Wait, Steps: []programme.Step{{Says: "One", Classes: 2, Rest: 5, Plan: lesson("One")},
			{Says: "x4", Classes: 1}, {Says: "Broken", Classes: 1, Plan: []byte(`{"passages": 3}`)}}}
	assert.Empty(t, of.Check())
	class := base(`{"type": "practice", "practice": "counted-breath", "counts": "5:5", "rounds": 2}`)
	made, err := of.Make(0, class, names())
	require.NoError(t, err)
	assert.Equal(t, []any{"One", 2, true}, []any{made.Plan.Title, len(made.Plan.Passages), made.Plan.StartsAt.IsZero()})
	assert.True(t, made.Why.None(), "a whole class is taken as it is, its slot too")
	made, err = of.Make(1, class, names())
	require.NoError(t, err)
	assert.Equal(t, []any{1, 4}, []any{len(made.Plan.Passages), made.Plan.Passages[0].Rounds})
	_, err = of.Make(2, class, names())
	assert.Contains(t, language.English().Error(err), "Step 3, “Broken”")
	assert.Equal(t, []int{2, 7, 2}, []int{of.Between(0, 0), of.Between(0, 1), of.Between(1, 2)})
}

func TestAStepSaysWhatItChangesAndLeavesAllElse(t *testing.T) {
	class := base(
		`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4", "rounds": 3, "tempo": 50, "voice": "words"}`,
	)
	for says, want := range map[string]string{
		"4:4:8 x6":              `"practice":"nadi-shodhana","counts":"4:4:8","tempo":50,"rounds":6,"voice":"words"`,
		"silent":                `"practice":"nadi-shodhana","counts":"4:4","tempo":50,"rounds":3,"voice":"silent"`,
		"5 min":                 `"practice":"nadi-shodhana","counts":"4:4","tempo":50,"minutes":5,"voice":"words"`,
		"counted breath 5:5 x9": `"practice":"counted-breath"`,
	} {
		of := programme.Programme{Passage: 1, Steps: []programme.Step{{Says: says}}}
		made, err := of.Make(0, class, names())
		require.NoError(t, err, says)
		text, err := made.Document.MarshalJSON()
		require.NoError(t, err)
		assert.Contains(t, string(text), want, says)
	}
	for _, wrong := range []string{"4:4:frog", "purple", "x0", "99:99:999"} {
		of := programme.Programme{Passage: 1, Steps: []programme.Step{{Says: wrong}}}
		_, err := of.Make(0, class, names())
		assert.Contains(t, language.English().Error(err), "Step 1", wrong)
	}
}

func TestWhatIsWrongWithAProgramme(t *testing.T) {
	wrong := (&programme.Programme{By: "whim", Times: 0, Days: 99, Missed: "ignore", Eased: "on", Ceiling: -1,
		Steps: []programme.Step{{}}}).Check()
	for i, want := range []string{"name has 0", "Days between", "ceiling", "not by", "missed class", "eased class",
		"Step 1 is empty"} {
		require.Greater(t, len(wrong), i)
		assert.Contains(t, language.English().Text(wrong[i]), want)
	}
}
