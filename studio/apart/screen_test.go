package apart_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/sheet"
	"vastlantern/studio/apart"
	"vastlantern/studio/contract"
	"vastlantern/studio/led"
)

const plan = `{"format": "vast-lantern-plan", "version": 1, "slot_min": 10, "passages": [
	{"type": "talk", "title": "Arriving", "seconds": 20, "wait": true},
	{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "minutes": 1, "beside": "breathe"},
	{"type": "practice", "practice": "kapalabhati", "strokes": 5, "rounds": 2, "rest_between": 10},
	{"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 4, "by_hand": "all"},
	{"type": "free", "title": "Rest", "seconds": 30}]}`

// program is the side of a class that holds the data file.
type program struct {
	rows []contract.Pressed
	now  int64
}

func (p *program) take(sent contract.Presses) (taken contract.Taken, asked bool, err error) {
	meeting, err := led.Meet(p.rows, sent, p.now)
	if err != nil {
		return contract.Taken{}, false, err
	}
	p.rows = meeting.Rows
	return contract.Taken{From: meeting.From, Pressed: p.rows[meeting.From:]}, len(meeting.Others) > 0, nil
}

func (p *program) kit(origin string) contract.Kit {
	started := time.Date(2026, 11, 30, 18, 0, 0, 0, time.UTC).UnixMilli()
	return contract.Kit{ClassID: 1, StartedMS: started, Document: plan, Pressed: slices.Clone(p.rows), Origin: origin}
}

// sheetOf returns the cue sheet of a class with the rows, as it was taught.
func sheetOf(t require.TestingT, rows []contract.Pressed) string {
	class, err := led.Read([]byte(plan))
	require.NoError(t, err)
	for _, row := range rows {
		require.NoError(t, class.AddLine(row.Key, row.Origin, row.Line))
	}
	var out bytes.Buffer
	require.NoError(t, sheet.WriteCSV(&out, class.Led.Timeline()))
	return out.String()
}

func active(rows []contract.Pressed) (list []contract.Pressed) {
	for _, row := range rows {
		var line struct{ Aside json.RawMessage }
		if json.Unmarshal(row.Line, &line) == nil && line.Aside == nil {
			list = append(list, row)
		}
	}
	return list
}

func momentOf(t require.TestingT, row contract.Pressed) int64 {
	a, err := sheet.ReadAdjustment(row.Line)
	require.NoError(t, err)
	return a.At
}

// screen is a lead screen in a test: its copy, and how it meets the program.
type screen struct {
	*apart.Screen
	name    string
	pressed []string // keys, in order
	asked   bool
}

func open(t require.TestingT, p *program, name string) *screen {
	s, err := apart.Open(p.kit(name), nil)
	require.NoError(t, err)
	return &screen{Screen: s, name: name}
}

func (s *screen) press(t require.TestingT, at int64, want contract.Adjust) {
	want.Key = fmt.Sprintf("%s-%d", s.name, len(s.pressed))
	_, err := s.Press(at, want)
	require.NoError(t, err)
	s.pressed = append(s.pressed, want.Key)
}

// meet sends what is unsent. The answer can be lost on the way.
func (s *screen) meet(t require.TestingT, p *program, isApart, lost bool, choose contract.Choice) {
	sent, err := s.Unsent()
	require.NoError(t, err)
	sent.Apart, sent.Choose = isApart, choose
	if isApart {
		sent.Copy = s.Copy()
		for _, row := range sent.Copy {
			sent.Keys = append(sent.Keys, row.Key)
		}
	}
	for i := range sent.Presses {
		sent.Presses[i].Origin = s.name
	}
	taken, asked, err := p.take(sent)
	require.NoError(t, err)
	if lost {
		return
	}
	if s.asked = asked; !asked {
		require.NoError(t, s.Sync(taken.From, taken.Pressed))
	}
}

// adjusts are what can be pressed: some of it is refused where it comes.
var adjusts = rapid.Custom(func(t *rapid.T) contract.Adjust {
	number := func(from, to int) any { return float64(rapid.IntRange(from, to).Draw(t, "to")) }
	text, see := "settled", "restless"
	switch do := rapid.SampledFrom([]pace.Verb{"tempo", "advance", "pause", "resume", "next", "rounds", "release",
		"drop-holds", "by-hand", "undo", "note", "signal", "again", "last-round"}).Draw(t, "do"); do {
	case "tempo":
		return contract.Adjust{Do: do, To: number(40, 70)}
	case "rounds":
		return contract.Adjust{Do: do, To: number(1, 12)}
	case "by-hand":
		return contract.Adjust{Do: do, To: rapid.SampledFrom([]string{"all", "none"}).Draw(t, "to")}
	case "note":
		return contract.Adjust{Do: do, Text: &text}
	case "signal":
		return contract.Adjust{Do: do, See: &see}
	default:
		return contract.Adjust{Do: do}
	}
})

// A class that one screen led apart, and nobody else adjusted, is the class that it would have been with the program
// there all along: the same rows, and the same sheet byte for byte (docs/rules/apart.md section 7).
func TestApartIsTheSameClass(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p, q := &program{}, &program{}
		gone, there := open(t, p, "a"), open(t, q, "a")
		for range rapid.IntRange(1, 30).Draw(t, "presses") {
			p.now += rapid.Int64Range(0, 20_000).Draw(t, "ms")
			q.now = p.now
			press := adjusts.Draw(t, "press")
			gone.press(t, p.now, press)
			there.press(t, q.now, press)
			there.meet(t, q, false, false, "")
			if rapid.IntRange(0, 3).Draw(t, "reached") == 0 {
				gone.meet(t, p, true, rapid.Bool().Draw(t, "lost"), "")
			}
		}
		p.now += 60_000
		gone.meet(t, p, true, false, "")
		require.Equal(t, q.rows, p.rows)
		require.Equal(t, sheetOf(t, q.rows), sheetOf(t, p.rows))
		require.Equal(t, q.rows, currentRows(t, gone))
	})
}

// currentRows returns the rows of a screen's copy, all of which the program knows.
func currentRows(t require.TestingT, s *screen) []contract.Pressed {
	sent, err := s.Unsent()
	require.NoError(t, err)
	require.Empty(t, sent.Presses)
	return s.Rows()
}

// Whatever two screens do, in whatever order they meet the program and whatever is chosen: no press is lost or made
// twice, times never fall, and both come to the program's class (docs/rules/apart.md section 7).
func TestTwoScreensApart(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := &program{}
		screens := []*screen{open(t, p, "a"), open(t, p, "b")}
		choose := rapid.SampledFrom([]contract.Choice{contract.ChooseScreen, contract.ChooseProgram})
		for range rapid.IntRange(1, 40).Draw(t, "steps") {
			p.now += rapid.Int64Range(0, 8_000).Draw(t, "ms")
			s := screens[rapid.IntRange(0, 1).Draw(t, "screen")]
			switch rapid.IntRange(0, 2).Draw(t, "step") {
			case 0, 1:
				s.press(t, p.now, adjusts.Draw(t, "press"))
			default:
				s.meet(t, p, rapid.Bool().Draw(t, "apart"), rapid.Bool().Draw(t, "lost"), "")
				if s.asked {
					before := slices.Clone(p.rows)
					s.chooses(t, p, choose.Draw(t, "choice"), before)
				}
			}
			checkRows(t, p.rows)
		}
		for range 2 { // the second time for what the first one changed
			for _, s := range screens {
				s.meet(t, p, true, false, choose.Draw(t, "choice"))
				require.False(t, s.asked)
			}
		}
		for _, s := range screens {
			require.Equal(t, p.rows, currentRows(t, s), s.name)
			for _, key := range s.pressed {
				require.True(t, slices.ContainsFunc(p.rows, func(r contract.Pressed) bool { return r.Key == key }), key)
			}
			require.Equal(t, sheetOf(t, p.rows), s.sheet(t))
		}
	})
}

// chooses meets the program with a choice, and holds the sheet to it: the class that is chosen is the class.
func (s *screen) chooses(t require.TestingT, p *program, choice contract.Choice, before []contract.Pressed) {
	mine := s.sheet(t)
	s.meet(t, p, true, false, choice)
	require.False(t, s.asked)
	if choice == contract.ChooseProgram {
		require.Equal(t, sheetOf(t, before), sheetOf(t, p.rows))
	} else {
		require.Equal(t, mine, sheetOf(t, p.rows))
	}
}

func (s *screen) sheet(t require.TestingT) string { return sheetOf(t, s.Rows()) }

func checkRows(t require.TestingT, rows []contract.Pressed) {
	keys, last := map[string]bool{}, int64(0)
	for _, row := range rows {
		require.False(t, keys[row.Key], "twice: %s", row.Key)
		keys[row.Key] = true
		at := momentOf(t, row)
		require.GreaterOrEqual(t, at, last, "times fall at %s", row.Key)
		last = at
	}
}

func TestTheTeacherChooses(t *testing.T) {
	p := &program{}
	here, there := open(t, p, "here"), open(t, p, "there")
	p.now = 5_000
	here.press(t, 5_000, contract.Adjust{Do: "advance"})
	here.meet(t, p, false, false, "")
	require.NoError(t, there.Sync(0, p.rows))

	here.press(t, 20_000, contract.Adjust{Do: "tempo", To: 44.0})
	p.now = 30_000
	there.press(t, 30_000, contract.Adjust{Do: "pause"})
	there.meet(t, p, false, false, "")
	p.now = 40_000
	here.meet(t, p, true, false, "")
	assert.True(t, here.asked, "nothing is guessed")
	assert.Len(t, p.rows, 2, "nothing is added yet")

	here.meet(t, p, true, false, contract.ChooseScreen)
	require.Len(t, p.rows, 3)
	assert.Len(t, active(p.rows), 2)
	assert.Equal(t, "there-0", p.rows[2].Key)
	assert.JSONEq(t, `{"at_ms": 30000, "do": "note", "text": "0:30 pause", "aside": {"at_ms": 30000, "key": "there-0",
		"do": "pause"}}`, string(p.rows[2].Line))
	class, err := led.Read([]byte(plan))
	require.NoError(t, err)
	for _, row := range p.rows {
		require.NoError(t, class.AddLine(row.Key, row.Origin, row.Line))
	}
	assert.Equal(t, "did.aside", class.Answer(3).Did.ID)
	assert.Equal(t, "there", class.Answer(3).Origin)
	assert.Equal(t, breath.Int(44), class.Led.Passages()[1].Tempo)
}

// A remark has no effect on time: nobody is asked, and each keeps its moment.
func TestRemarksNeedNoChoice(t *testing.T) {
	p := &program{now: 1_000}
	here, there := open(t, p, "here"), open(t, p, "there")
	text := "settled"
	here.press(t, 1_000, contract.Adjust{Do: "note", Text: &text})
	here.press(t, 9_000, contract.Adjust{Do: "note", Text: &text})
	p.now = 5_000
	there.press(t, 5_000, contract.Adjust{Do: "advance"})
	there.meet(t, p, false, false, "")
	p.now = 10_000
	here.meet(t, p, true, false, "")
	assert.False(t, here.asked)
	moments := []int64{}
	for _, row := range p.rows {
		moments = append(moments, momentOf(t, row))
	}
	assert.Equal(t, []int64{1_000, 5_000, 9_000}, moments)
}

// Two people who press at about the same time are both obeyed, as they arrive.
func TestTogetherTheOrderOfArrivalDecides(t *testing.T) {
	p := &program{now: 6_000}
	here, there := open(t, p, "here"), open(t, p, "there")
	there.press(t, 6_000, contract.Adjust{Do: "advance"})
	here.press(t, 5_900, contract.Adjust{Do: "tempo", To: 44.0})
	there.meet(t, p, false, false, "")
	here.meet(t, p, false, false, "")
	require.Len(t, p.rows, 2)
	assert.EqualValues(t, 6_000, momentOf(t, p.rows[1]), "never before the row before it")
}

func TestAClockThatIsAheadActsNow(t *testing.T) {
	for ahead, want := range map[int64]int64{100: 5_100, 250: 5_250, 251: 5_000, 60_000: 5_000} {
		p := &program{now: 5_000}
		here := open(t, p, "here")
		here.press(t, 5_000+ahead, contract.Adjust{Do: "advance"})
		here.meet(t, p, false, false, "")
		assert.Equal(t, want, momentOf(t, p.rows[0]), "%d ms ahead", ahead)
		assert.Equal(t, p.rows, currentRows(t, here))
	}
}

func TestAKeyTwiceInOneGoIsOnePress(t *testing.T) {
	p := &program{now: 5_000}
	pause := contract.TimedPress{AtMS: 5_000, Adjust: contract.Adjust{Key: "k", Do: "pause"}}
	_, _, err := p.take(contract.Presses{Presses: []contract.TimedPress{pause, pause}})
	require.NoError(t, err)
	assert.Len(t, p.rows, 1)
}

func TestQuestionsThatCannotBeAnswered(t *testing.T) {
	var w apart.Worker
	for question, id := range map[string]string{
		`{"ask": "score"}`:                           "apart.no-class",
		`{"ask": "open", "kit": {"document": "{}"}}`: "class.plan-unreadable",
	} {
		var answer struct{ Wrong struct{ ID string } }
		require.NoError(t, json.Unmarshal(w.Answer([]byte(question)), &answer))
		assert.Equal(t, id, answer.Wrong.ID, question)
	}
}
