package audience_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/fact"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

const mixed = `{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 2, "lead_in": 0, ` +
	`"closing": [], "beside": "breathe"}`

// room returns a desk whose room is asked, with its code.
func room(t *testing.T, ask bool) (*desktest.Desk, string) {
	d := desktest.New(t)
	_, err := d.Library.SaveSettings(t.Context(), contract.Settings{Language: "en", AskAfter: ask})
	require.NoError(t, err)
	code, err := d.Audience.RoomCode(t.Context())
	require.NoError(t, err)
	return d, code
}

func answers(
	d *desktest.Desk,
	t *testing.T,
	code string,
) func(class int64, how contract.How, lane, ballot string) (contract.RoomAnswered, error) {
	return func(class int64, how contract.How, lane, ballot string) (contract.RoomAnswered, error) {
		t.Helper()
		return d.Audience.Answer(
			t.Context(),
			code,
			contract.RoomAnswer{ClassID: class, How: how, Lane: lane, Ballot: fmt.Sprintf("%16s", ballot)},
		)
	}
}

// Lead leads a class of 64 s with so many phones in the room.
func lead(d *desktest.Desk, t *testing.T, passages string, phones int) int64 {
	t.Helper()
	p := d.AddPlan(passages)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID, Acknowledged: contract.StrongCautions(p)})
	require.NoError(t, err)
	for range phones {
		defer d.Audience.Join(t.Context())()
	}
	d.Pass(65)
	return score.ClassID
}

func TestTheRoomIsAskedAfterAClass(t *testing.T) {
	d, code := room(t, true)
	class := lead(d, t, mixed, 3)
	shown, err := d.Audience.Room(t.Context(), code)
	require.NoError(t, err)
	require.NotNil(t, shown.Asked)
	assert.Equal(t, []any{class, true}, []any{shown.Asked.ClassID, shown.Asked.Lanes})
	assert.Equal(
		t,
		contract.Millis(d.Time)+29*60_000+59_000,
		shown.Asked.UntilMS,
		"half an hour from its end, a second ago",
	)

	answer := answers(d, t, code)
	done, err := answer(class, contract.TooMuch, "beside", "a")
	require.NoError(t, err)
	assert.True(t, done.Counted)
	done, err = answer(class, contract.TooMuch, "beside", "a")
	require.NoError(t, err)
	assert.True(t, done.Counted, "sent again, as where the receipt was lost")
	_, err = answer(class, contract.Right, "main", "b")
	require.NoError(t, err)
	_, err = answer(class, contract.Easy, "", "c")
	require.NoError(t, err)
	done, err = answer(class, contract.Easy, "", "d")
	require.NoError(t, err)
	assert.False(t, done.Counted, "there were three phones")

	record, err := d.Records.Record(t.Context(), class)
	require.NoError(t, err)
	assert.Equal(t, contract.Told{
		Easy:    1,
		Right:   1,
		TooMuch: 1,
		Main:    1,
		Beside:  1,
		Most:    3,
		UntilMS: shown.Asked.UntilMS,
		Unready: fact.New("unrest.too-much", "some", 1, "of", 3).Pointer(),
	}, record.Told)
	require.Len(t, record.Passages[0].Lanes, 1)
	past, err := d.Records.History(t.Context(), 0)
	require.NoError(t, err)
	_, known := past.Next("nadi-shodhana")
	assert.True(t, known)

	for name, wrong := range map[string]contract.RoomAnswer{
		"no such answer": {ClassID: class, How: "great", Ballot: "0123456789abcdef"},
		"no such lane":   {ClassID: class, How: contract.Easy, Lane: "left", Ballot: "0123456789abcdef"},
		"no ballot":      {ClassID: class, How: contract.Easy},
	} {
		_, err := d.Audience.Answer(t.Context(), code, wrong)
		assert.ErrorIs(t, err, studio.ErrInvalid, name)
	}
	_, err = d.Audience.Answer(
		t.Context(),
		"NOBODY",
		contract.RoomAnswer{ClassID: class, How: contract.Easy, Ballot: "0123456789abcdef"},
	)
	assert.ErrorIs(t, err, studio.ErrNotFound)
}

func TestWhenTheRoomIsNotAsked(t *testing.T) {
	asked := func(d *desktest.Desk, code string) *contract.Asked {
		t.Helper()
		shown, err := d.Audience.Room(t.Context(), code)
		require.NoError(t, err)
		return shown.Asked
	}
	off, code := room(t, false)
	lead(off, t, mixed, 3)
	assert.Nil(t, asked(off, code), "the teacher has not switched it on")

	empty, code := room(t, true)
	lead(empty, t, mixed, 0)
	leave := empty.Audience.Join(t.Context()) // who comes afterwards did not breathe here
	assert.Nil(t, asked(empty, code), "no phone was there")
	leave()

	d, code := room(t, true)
	first := lead(d, t, desktest.Rounds, 2)
	require.NotNil(t, asked(d, code))
	assert.False(t, asked(d, code).Lanes)
	d.Reopen()
	assert.NotNil(t, asked(d, code), "after a restart too")
	second := lead(d, t, mixed, 1)
	require.Equal(t, second, asked(d, code).ClassID)
	_, err := answers(d, t, code)(first, contract.Easy, "", "a")
	assert.ErrorIs(t, err, studio.ErrConflict, "only the last class")
	_, err = d.Records.AddRemark(t.Context(), first, contract.RemarkAdd{Kind: "gentler", Text: "2"})
	require.NoError(t, err)
	d.Pass(29 * 60)
	assert.NotNil(t, asked(d, code))
	d.Pass(60)
	assert.Nil(t, asked(d, code), "half an hour is over")
	_, err = answers(d, t, code)(second, contract.Easy, "", "b")
	assert.ErrorIs(t, err, studio.ErrConflict)
	record, err := d.Records.Record(t.Context(), second)
	require.NoError(t, err)
	assert.Equal(t, contract.Told{Most: 1}, record.Told)
}

// What is added to an older record while a class is led leaves the count of the phones alone.
func TestPhonesAreCountedWhileAClassIsLed(t *testing.T) {
	d, code := room(t, true)
	older := lead(d, t, desktest.Rounds, 1)
	p := d.AddPlan(desktest.Rounds)
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: p.ID})
	require.NoError(t, err)
	one, two := d.Audience.Join(t.Context()), d.Audience.Join(t.Context())
	one()
	one() // once is enough
	_, err = d.Records.AddRemark(t.Context(), older, contract.RemarkAdd{Kind: "people", Text: "5"})
	require.NoError(t, err)
	two()
	three := d.Audience.Join(t.Context())
	defer three()
	d.Pass(120)
	shown, err := d.Audience.Room(t.Context(), code)
	require.NoError(t, err)
	require.NotNil(t, shown.Asked)
	record, err := d.Records.Record(t.Context(), score.ClassID)
	require.NoError(t, err)
	assert.Equal(t, 2, record.Told.Most, "two at once, three in all")
}

// Answers move with everything else, to the machine that has fewer of them.
func TestAnswersMoveToAnotherMachine(t *testing.T) {
	d, code := room(t, true)
	class := lead(d, t, mixed, 3)
	answer := answers(d, t, code)
	_, err := answer(class, contract.Right, "main", "a")
	require.NoError(t, err)
	young := desktest.New(t)
	young.Import(d.Export())
	assert.Equal(t, d.Export(), young.Export())
	_, err = answer(class, contract.Easy, "", "b")
	require.NoError(t, err)
	older := young.Export()
	assert.Contains(t, desktest.Lines(young.Import(d.Export())), "(answers)")
	assert.Equal(t, d.Export(), young.Export())
	young.Import(older)
	assert.Equal(t, d.Export(), young.Export(), "fewer change nothing")
}

// People who breathed alone may tell how many rounds or strokes they counted: sums, which go to other machines too.
func TestWhatWasCountedAloneIsTold(t *testing.T) {
	d, code := room(t, true)
	alone := `{"type": "practice", "practice": "kapalabhati", "pace": "own", "minutes": 1, "recall": 4}`
	class := lead(d, t, alone, 4)
	shown, err := d.Audience.Room(t.Context(), code)
	require.NoError(t, err)
	require.NotNil(t, shown.Asked)
	assert.Equal(t, "strokes", shown.Asked.Counted)
	for ballot, amount := range map[string]int{"a": 60, "b": 180, "c": 110, "d": 0} {
		done, err := d.Audience.Answer(t.Context(), code, contract.RoomAnswer{
			ClassID: class, How: contract.Right, Amount: amount, Ballot: fmt.Sprintf("%16s", ballot),
		})
		require.NoError(t, err)
		assert.True(t, done.Counted)
	}
	record, err := d.Records.Record(t.Context(), class)
	require.NoError(t, err)
	assert.Equal(t, &contract.Counted{Of: "strokes", People: 3, Least: 60, Most: 180, Median: 110}, record.Told.Counted)
	for _, wrong := range []int{-1, contract.MostCounted + 1} {
		_, err := d.Audience.Answer(t.Context(), code, contract.RoomAnswer{
			ClassID: class, How: contract.Easy, Amount: wrong, Ballot: "0123456789abcdef",
		})
		assert.ErrorIs(t, err, studio.ErrInvalid)
	}
	young := desktest.New(t)
	young.Import(d.Export())
	assert.Equal(t, d.Export(), young.Export())
}

func TestNothingIsCountedInAClassThatWasLed(t *testing.T) {
	d, code := room(t, true)
	lead(d, t, mixed, 2)
	shown, err := d.Audience.Room(t.Context(), code)
	require.NoError(t, err)
	require.NotNil(t, shown.Asked)
	assert.Empty(t, shown.Asked.Counted)
}
