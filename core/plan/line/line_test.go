package line

import (
	"encoding/json"
	"fmt"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/language"
)

// said is a line of the table and what it becomes: passages, or the word that is not understood.
type typedLine struct {
	line    string
	becomes []string
}

func typed(t *testing.T, name string) []typedLine {
	text, err := os.ReadFile("testdata/" + name)
	require.NoError(t, err)
	var list []typedLine
	for line := range strings.Lines(string(text)) {
		line = strings.TrimSuffix(line, "\n")
		if result, found := strings.CutPrefix(line, "\t"); found {
			list[len(list)-1].becomes = append(list[len(list)-1].becomes, result)
			continue
		}
		list = append(list, typedLine{line: line})
	}
	return list
}

// Lines as teachers write them, and what each becomes.
func TestTypedLines(t *testing.T) {
	all := 0
	for file, language := range map[string]string{
		"lines.txt": "en", "any.txt": "en", "lines.de.txt": "de", "lines.fr.txt": "fr", "lines.es.txt": "es",
	} {
		names := NewNames([]string{language}, nil)
		lines := typed(t, file)
		assert.GreaterOrEqual(t, len(lines), 40, file)
		all += len(lines)
		for _, l := range lines {
			passages, err := names.Read(l.line)
			var got []string
			if err != nil {
				e := AsLineError(err)
				require.NotNil(t, e, l.line)
				assert.NotContains(t, err.Error(), "-shodhana", "ids are for files")
				got = []string{"! " + e.Given + " [" + strings.Join(e.Nearest, ", ") + "]"}
				if e.Given != "" {
					assert.Equal(t, e.Given, l.line[e.At:e.End], l.line)
				}
			}
			for _, f := range passages {
				p, err := plan.One(f)
				require.NoError(t, err, l.line)
				text, err := json.Marshal(f)
				require.NoError(t, err)
				got = append(got, p.Headline()+" "+string(text))
			}
			assert.Equal(t, l.becomes, got, l.line)
		}
	}
	assert.GreaterOrEqual(t, all, 500)
}

// A whole class, as prose or as a list with times or lengths, becomes passages; a sentence that names nothing is a
// remark
// on what is above it.
func TestAClassAsItIsPasted(t *testing.T) {
	names := NewNames([]string{"en"}, nil)
	for _, c := range []struct {
		text, title string
		passages    []string
	}{
		{
			"Monday evening:\n18:30 Welcome\n18:35 Centering\n18:40 Nadi shodhana 4:4:8\n18:50 - Kapalabhati 3 x 30\n" +
				"19:00 Savasana", "Monday evening",
			[]string{"Welcome 300", "Centering 300", "nadi-shodhana 10 min", "kapalabhati x3", "Lying down 60"},
		},
		{
			"neck rolls\n", "", []string{"Neck rolls 60"}, // one line is a passage and no title
		},
		{
			"0-5 arrive\n5-12 sun salutations\n12-20 alternate nostril, 6 rounds", "",
			[]string{"Arrive 300", "sun-salutation 7 min", "nadi-shodhana x6"},
		},
		{
			"We start with three minutes of natural breath. Then nadi shodhana for 6 rounds at 4:4:8, slow. Remind them to " +
				"relax the jaw. After that kapalabhati, 3 rounds of 30, with 45 sec. rest between, followed by a long savasana " +
				"till the end.", "",
			[]string{" 180", "nadi-shodhana x6 Remind them to relax the jaw.", "kapalabhati x3", "Long savasana 60"},
		},
		{
			"slot 20\ntalk 5 min\nsit till the end", "", []string{" 300", "Sit 900"},
		},
		{
			"Soft morning\n\n- centering (3 min)\n- cat cow 8x\n1. warrior two, 5 breaths per side\n• bhramari 6x",
			"Soft morning",
			[]string{"Centering 180", "cat-cow x8", "posture x1", "bhramari x6"},
		},
	} {
		d, err := names.FromText(c.text, time.UTC)
		require.NoError(t, err, c.text)
		title, _ := d.Values()["title"].(string)
		assert.Equal(t, c.title, title)
		var got []string
		for _, f := range d.Passages() {
			v := f.Values()
			one := f.Practice()
			switch {
			case one == "":
				title, _ := v["title"].(string)
				one = fmt.Sprint(title, " ", v["seconds"])
			case v["minutes"] != nil:
				one += fmt.Sprintf(" %v min", v["minutes"])
			default:
				one += fmt.Sprintf(" x%v", v["rounds"])
			}
			if remark, there := v["remark"]; there {
				one += fmt.Sprint(" ", remark)
			}
			got = append(got, one)
		}
		assert.Equal(t, c.passages, got)
	}
}

// BenchmarkLine reads lines as teachers write them: one of them is to take less than 2 ms.
func BenchmarkLine(b *testing.B) {
	text, err := os.ReadFile("testdata/any.txt")
	require.NoError(b, err)
	var lines []string
	for line := range strings.Lines(string(text)) {
		if line[0] != '\t' {
			lines = append(lines, strings.TrimSpace(line))
		}
	}
	names := NewNames([]string{"en"}, nil)
	for i := 0; b.Loop(); i++ {
		_, _ = names.Read(lines[i%len(lines)])
	}
}

// What is written out is read back as the same passage.
func TestWhatIsWrittenOutIsReadBack(t *testing.T) {
	names := NewNames([]string{"en"}, nil)
	d := plan.NewDocument()
	for _, l := range typed(t, "lines.txt") {
		if passages, err := names.Read(l.line); err == nil && len(d.Passages()) < 190 {
			d.Append(passages...)
		}
	}
	d.Values()["title"], d.Values()["slot_min"], d.Values()["tempo"], d.Values()["intent"] = "All of it", n("600"), n(
		"60",
	), "settle"
	d.SetStart(time.Date(2026, 12, 1, 18, 30, 0, 0, time.FixedZone("", 3600)))
	last := d.Passages()[0]
	last.Values()["closing"] = []any{
		map[string]any{
			"breaths": n("2"),
			"counts":  "4:5:6",
			"airway":  "mouth",
		}, map[string]any{"breaths": n("1"), "airway": "out-mouth"},
		map[string]any{"seconds": n("30"), "text": "hand down, notice"},
	}
	last.Values()["script"] = "As it is, for a while."
	require.NoError(t, SetOwnWords(last, "r3 hold: root lock\nclosing b2 exhale (all): softly"))
	p, err := plan.Read(d)
	require.NoError(t, err)
	text, left := names.ToText(d, p)
	assert.Empty(t, left)
	again, err := names.FromText(text, time.UTC)
	require.NoError(t, err, text)
	q, err := plan.Read(again)
	require.NoError(t, err)
	require.Len(t, q.Passages, len(p.Passages))
	for i := range p.Passages {
		assert.Equal(t, p.Passages[i], q.Passages[i], "%d", i)
	}
	assert.True(t, p.StartsAt.Equal(q.StartsAt))
	assert.Equal(t, []any{p.Title, p.Intent, p.Slot, p.Tempo}, []any{q.Title, q.Intent, q.Slot, q.Tempo})
	d.Values()["room"] = "upstairs"
	_, left = names.ToText(d, p)
	assert.Equal(t, []string{"room"}, left, "it is said what the text leaves out")
}

// Of a text that is far too long no more is read than a class can have, and the line is told.
func TestATextThatIsTooLong(t *testing.T) {
	names := NewNames([]string{"en"}, nil)
	_, err := names.FromText("tempo 50\n"+strings.Repeat("even breath 4:4 x6\n", 5000), time.UTC)
	var wrong TextErrors
	require.ErrorAs(t, err, &wrong)
	require.Len(t, wrong, 1)
	assert.Equal(t, 1+plan.MaxPassages+1, wrong[0].Line)
	assert.Contains(t, language.English().Error(err), "up to 200 passages")
	passages, _ := names.ReadLines(strings.Repeat("even breath 4:4 x6; rest 1 min\n", 5000))
	assert.LessOrEqual(t, len(passages), plan.MaxPassages+2)
}

func TestAClassFromText(t *testing.T) {
	names := NewNames([]string{"en"}, nil)
	d, err := names.FromText(`# Before the exam
slot 25
tempo 52
starts 2026-12-01 18:30
for before an exam

talk 1 min "Seat and spine"
even breath 4:4 x6
  r1 inhale: fill from below
  every exhale (all, aloud, 4 s ahead): let it go

nadi 4:4 x6
  closing: none
rest 2 min
`, time.FixedZone("", 3600))
	require.NoError(t, err)
	p, err := plan.Read(d)
	require.NoError(t, err)
	assert.Equal(t, "Before the exam", p.Title)
	assert.Equal(t, "2026-12-01T18:30:00+01:00", p.StartsAt.Format(time.RFC3339))
	require.Len(t, p.Passages, 4)
	assert.Equal(t, "let it go", p.Passages[1].Lines[1].Text)
	assert.Equal(t, plan.ForAll, p.Passages[1].Lines[1].Who)
	assert.Empty(t, p.Passages[2].ClosingSteps)

	_, err = names.FromText(
		"# Wrong\nslot much\n  stray: words\neven 4:4 x6\n  r3 hodl: root lock\njuggling\neven x4\n  closing: soon\n",
		time.UTC,
	)
	var errs TextErrors
	require.ErrorAs(t, err, &errs)
	lines := make([]int, len(errs))
	for i, e := range errs {
		lines[i] = e.Line
	}
	assert.Equal(t, []int{2, 3, 5, 8}, lines, "every line that is wrong, in order: %v", err)
	assert.Contains(t, language.English().Error(err), `line 5: “hodl” is not understood`)
}

// The class that the manual shows is read as it is there.
func TestTheManualsClass(t *testing.T) {
	manual, err := os.ReadFile("../../../docs/manual/typing.md")
	require.NoError(t, err)
	blocks := strings.Split(string(manual), "```")
	require.Len(t, blocks, 3)
	d, err := NewNames([]string{"en"}, nil).FromText(blocks[1], time.UTC)
	require.NoError(t, err)
	p, err := plan.Read(d)
	require.NoError(t, err)
	assert.Equal(t, "Before the exam", p.Title)
	require.Len(t, p.Passages, 4)
	assert.Len(t, p.Passages[2].ClosingSteps, 2)
}

func TestOwnWords(t *testing.T) {
	names := NewNames([]string{"en"}, nil)
	for text, want := range map[string]string{
		"r3 hold: root lock":            `{"phase":"hold","round":3,"text":"root lock"}`,
		"every inhale: fill from below": `{"phase":"inhale","text":"fill from below"}`,
		"1:30: half of it is done":      `{"second":90,"text":"half of it is done"}`,
		"rounds 2-4, exhale (room, aloud): softly": `{"phase":"exhale","round":[2,4],"say":true,"text":"softly",` +
			`"who":"room"}`,
		"round 2 breath 1: the left side": `{"breath":1,"round":2,"text":"the left side"}`,
		"r2 b2 inhale (4 s ahead): now the other side": `{"ahead":4,"breath":2,"phase":"inhale","round":2,"text":"now the ` +
			`other side"}`,
		"rest 1: notice":                  `{"round":1,"stage":"rest","text":"notice"}`,
		"throughout closing: let go":      `{"stage":"closing","text":"let go"}`,
		"90s: half":                       `{"second":90,"text":"half"}`,
		"throughout: light: as a feather": `{"text":"light: as a feather"}`,
		"last: let it fade":               `{"round":"last","text":"let it fade"}`,
		"last round, left inhale (aloud): slow": `{"round":"last","phase":"inhale","through":"left","say":true,` +
			`"text":"slow"}`,
		"every pause: nothing to do":                  `{"phase":"still","text":"nothing to do"}`,
		"exhale through the right: soften":            `{"phase":"exhale","through":"right","text":"soften"}`,
		"closing, through the mouth: sigh":            `{"stage":"closing","through":"mouth","text":"sigh"}`,
		"1:00 every 30 s: soften the jaw":             `{"second":60,"every":30,"text":"soften the jaw"}`,
		"every 2 min: how is it":                      `{"second":120,"every":120,"text":"how is it"}`,
		"every inhale: fill from below (aloud, room)": `{"phase":"inhale","say":true,"who":"room","text":"fill from below"}`,
		"r1: (aloud) begin":                           `{"round":1,"say":true,"text":"begin"}`,
		"r1: begin (softly)":                          `{"round":1,"text":"begin (softly)"}`,
		"r1 every exhale: let go":                     `{"round":1,"phase":"exhale","text":"let go"}`,
		"rest before the last: one more":              "",
		"r1 hold empty: wait":                         `{"round":1,"phase":"empty","text":"wait"}`,
	} {
		f, err := names.Read("nadi 4:4:4 x6")
		require.NoError(t, err)
		err = SetOwnWords(f[0], text)
		if want == "" {
			require.Error(t, err, text)
			continue
		}
		require.NoError(t, err, text)
		list := f[0].Values()["lines"].([]any)
		got, err := json.Marshal(list[0])
		require.NoError(t, err)
		assert.JSONEq(t, want, string(got), text)
		p, err := plan.One(f[0])
		require.NoError(t, err, text)
		again := f[0].Clone()
		require.NoError(t, SetOwnWords(again, OwnWords(&p)))
		q, err := plan.One(again)
		require.NoError(t, err)
		assert.Equal(t, p.Lines, q.Lines, "written %q", OwnWords(&p))
	}
	f := plan.NewFields("ujjayi")
	err := SetOwnWords(f, "r3 hold: root lock\nsomewhere: this\nno colon\nr1 (loudly): that")
	var errs TextErrors
	require.ErrorAs(t, err, &errs)
	assert.Len(t, errs, 3)
	assert.Nil(t, f.Values()["lines"], "nothing is taken of a text that is wrong")
	for text, says := range map[string]string{
		"r1 every: x": "line 1: every: of what? Leave it out, or write what comes in this round, for example r1 " +
			"every exhale",
		"r1 r2: x":          "line 1: r2: this line already has another round",
		"inhale, exhale: x": "line 1: exhale: this line already has another phase",
		"last hald: x": "line 1: “hald” is not understood: " + language.English().Text(fact.New("own-words.place")) +
			". Do you mean hold?",
		"every 30 s 1:00: x": "line 1: 1:00: this line already has another time",
	} {
		assert.Equal(t, says, language.English().Error(SetOwnWords(f, text)), text)
	}
}

// What is no step by itself belongs to the step before it: nothing in an opening or a closing needs a comma to be
// right.
func TestSteps(t *testing.T) {
	for text, want := range map[string]string{
		"30 s hand down; notice":                `[{"seconds":30,"text":"hand down; notice"}]`,
		"30 s hand down, notice the difference": `[{"seconds":30,"text":"hand down, notice the difference"}]`,
		"2 breaths, 30 s hand down, notice;":    `[{"breaths":2},{"seconds":30,"text":"hand down, notice"}]`,
		"2 breaths 4:5:6, through the mouth":    `[{"breaths":2,"counts":"4:5:6","airway":"mouth"}]`,
		"30 s; let go":                          `[{"seconds":30,"text":"let go"}]`,
		"; 1 min":                               `[{"seconds":60}]`,
		`20 s "sit, 2 breaths"; 1 breath`:       `[{"seconds":20,"text":"sit, 2 breaths"},{"breaths":1}]`,
		"let go":                                "write breaths such as",
		"2 breaths, softly":                     "write breaths such as",
		";":                                     "write breaths such as",
	} {
		f := plan.NewFields("ujjayi")
		taken, err := setPart(f, "closing", text)
		require.True(t, taken)
		if want[0] != '[' {
			require.Contains(t, language.English().Error(err), want, text)
			continue
		}
		require.NoError(t, err, text)
		got, err := json.Marshal(f.Values()["closing"])
		require.NoError(t, err)
		assert.JSONEq(t, want, string(got), text)
		p, err := plan.One(f)
		require.NoError(t, err, text)
		again := plan.NewFields("ujjayi")
		_, err = setPart(again, "closing", stepsText(p.ClosingSteps))
		require.NoError(t, err, stepsText(p.ClosingSteps))
		q, err := plan.One(again)
		require.NoError(t, err)
		assert.Equal(t, p.ClosingSteps, q.ClosingSteps, "written %q", stepsText(p.ClosingSteps))
	}
}

// Every preset of every practice is a right passage, and its name means it.
func TestPresets(t *testing.T) {
	names := NewNames([]string{"de"}, nil)
	for _, p := range practice.Catalogue() {
		for _, preset := range p.Presets {
			for _, name := range append([]string{preset.Name}, append(preset.Also, preset.Called["de"]...)...) {
				passages, err := names.Read(name)
				require.NoError(t, err, name)
				assert.Equal(t, p.ID, passages[0].Practice(), name)
				_, err = plan.One(passages[0])
				assert.NoError(t, err, name)
				for field, value := range preset.With {
					assert.EqualValues(
						t,
						mustFields(t, map[string]any{field: value}).Values()[field],
						passages[0].Values()[field],
						"%s: %s",
						name,
						field,
					)
				}
			}
		}
		for _, name := range append([]string{p.Name, p.ID}, append(p.Also, p.Called["de"]...)...) {
			passages, err := names.Read(name)
			require.NoError(t, err, name)
			assert.Equal(t, p.ID, passages[0].Practice(), name)
		}
	}
}

func mustFields(t *testing.T, values map[string]any) plan.Fields {
	f, err := plan.FieldsOf(values)
	require.NoError(t, err)
	return f
}

func TestNamesOfATeachersOwn(t *testing.T) {
	own := *practice.Find("ujjayi")
	own.ID, own.Name, own.Also, own.Term, own.Presets, own.Called = "own-harbour", "Harbour at dusk", nil, "", nil, nil
	evening, err := NewNames([]string{"en"}, nil).Read("even 4:6 x4 then rest 2 min")
	require.NoError(t, err)
	names := NewNames([]string{"en"}, []*practice.Practice{&own}, Template{"Evening quiet", evening})
	for line, want := range map[string][]string{"harbour 4:4 x3": {"own-harbour"}, "dusk": {"own-harbour"},
		"evening quiet": {"counted-breath", ""}} {
		passages, err := names.Read(line)
		require.NoError(t, err, line)
		var ids []string
		for _, f := range passages {
			ids = append(ids, f.Practice())
		}
		assert.Equal(t, want, ids, line)
	}
	_, err = names.Read("evening quiet x3")
	assert.Contains(t, language.English().Error(err), "added whole")
}

func TestCompletions(t *testing.T) {
	names := NewNames([]string{"en"}, nil)
	for typed, want := range map[string]string{
		"alt":                 "alternate nostril breath",
		"three rounds of squ": "three rounds of square breath",
		"even x6 then re":     "even x6 then rest",
		"nadi 4:4 x6 le":      "nadi 4:4 x6 left",
		"kapalabhati 3 stro":  "kapalabhati 3 strokes",
	} {
		var lines []string
		for _, c := range names.Complete(typed) {
			lines = append(lines, c.Line)
		}
		assert.Contains(t, lines, want, typed)
	}
	assert.Empty(t, names.Complete("even 4:4 x6 "))
	assert.Empty(t, names.Complete("rest 3 min"), "a time is whole")
}

func FuzzLine(f *testing.F) {
	text, err := os.ReadFile("testdata/lines.txt")
	require.NoError(f, err)
	for line := range strings.Lines(string(text)) {
		if line[0] != '\t' {
			f.Add(strings.TrimSpace(line))
		}
	}
	names := NewNames([]string{"de"}, nil)
	f.Fuzz(func(t *testing.T, line string) {
		names.Complete(line)
		passages, err := names.Read(line)
		if err != nil {
			if e := AsLineError(err); e == nil || e.End > len(line) || e.At > e.End {
				t.Fatalf("%q: %#v", line, err)
			}
			return
		}
		d := plan.NewDocument()
		d.Append(passages...)
		p, err := plan.Read(d)
		if err != nil {
			return // understood, but out of range: that is for Read to say
		}
		written, _ := names.ToText(d, p)
		again, err := names.FromText(written, time.UTC)
		if err != nil {
			t.Fatalf("%q is written %q, which is not read: %v", line, written, err)
		}
		if q, err := plan.Read(again); err != nil || len(q.Passages) != len(p.Passages) || !q.Length().Equal(p.Length()) {
			t.Fatalf("%q is written %q, which is another class: %v", line, written, err)
		}
	})
}
