package lead_test

import (
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

// ledApart are the classes that are led while the program is stopped: with a beat, by hand, with strokes and what
// waits.
var ledApart = []string{
	desktest.Rounds,
	`{"type": "talk", "seconds": 20, "wait": true}, {"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8",
		"minutes": 2, "beside": "breathe"}`,
	`{"type": "practice", "practice": "counted-breath", "counts": "4:2:6", "rounds": 5, "by_hand": "all"}`,
	`{"type": "practice", "practice": "kapalabhati", "strokes": 20, "rounds": 3, "rest_between": 10}, {"type": "free",
		"breaths": 5}`,
	`{"type": "practice", "practice": "surya-bhedana", "pace": "own", "minutes": 1, "lead_in": 4}, ` + desktest.Rounds,
}

// ledClasses is how many classes are led.
var ledClasses = 200

// pressAt is a press, so many milliseconds after the one before it.
type pressAt struct {
	after int64
	press contract.Adjust
}

func drawPresses(random *rand.Rand) []pressAt {
	text, see, by := "the lamp went out", "restless", 1
	all := []contract.Adjust{
		{Do: pace.ToTempo, To: 52.0}, {Do: pace.ToTempo, To: 66.0, Carry: true},
		{Do: "counts", To: []any{4.0, 0.0, 6.0, 0.0}},
		{Do: "advance"}, {Do: "advance"}, {Do: "advance"}, {Do: "advance"}, {Do: "by-hand", To: "all"},
		{Do: "by-hand", To: "none"}, {Do: pace.ToPause}, {Do: pace.Resume}, {Do: "release"}, {Do: "drop-holds"},
		{Do: "rounds", By: &by}, {Do: "last-round"}, {Do: pace.Again}, {Do: pace.Undo}, {Do: "next"},
		{Do: pace.Note, Text: &text}, {Do: pace.Note, Text: &text, Carry: true}, {Do: pace.Signal, See: &see},
	}
	list := make([]pressAt, 4+random.IntN(16))
	for i := range list {
		list[i] = pressAt{random.Int64N(9_000), all[random.IntN(len(all))]}
	}
	return list
}

// leadThrough leads a class by the presses and ends it. The program is stopped before one press and started again
// before a later one; the screen leads on. It returns the adjustments as they are kept, and the record.
func leadThrough(
	t *testing.T, d *desktest.Desk, plan contract.Plan, presses []pressAt, stopped, started int,
) ([]contract.Pressed, contract.Record) {
	score, err := d.Classes.Begin(t.Context(), contract.Lead{PlanID: plan.ID, Acknowledged: contract.StrongCautions(plan)})
	require.NoError(t, err)
	class := score.ClassID
	began := d.Time
	s := screenOf(t, d, class, "tablet")
	for i, one := range presses {
		d.Time = d.Time.Add(time.Duration(one.after) * time.Millisecond)
		s.press(d.Time.Sub(began).Milliseconds(), one.press)
		if i >= stopped && i < started {
			continue
		}
		if i == started && stopped < started {
			d.Reopen()
		}
		require.NoError(t, d.Classes.Settle(t.Context()))
		s.send(i == started, "")
	}
	d.Pass(5)
	s.press(d.Time.Sub(began).Milliseconds(), contract.Adjust{Do: pace.End})
	s.send(true, "")
	d.Pass(1)
	kit, err := d.Classes.Kit(t.Context(), class, "")
	require.NoError(t, err)
	require.NotNil(t, kit.EndedMS)
	record, err := d.Records.Record(t.Context(), class)
	require.NoError(t, err)
	return kit.Pressed, record
}

// The program is stopped at a random press in 200 classes and started at a later one: the record is that of a class in
// which it was there all along, press by press.
func TestTheProgramIsStoppedInTwoHundredClasses(t *testing.T) {
	classes := ledClasses
	if testing.Short() {
		classes = 20
	}
	d := desktest.New(t)
	plans := make([]contract.Plan, len(ledApart))
	for i, passages := range ledApart {
		plans[i] = d.AddPlan(passages)
	}
	random := rand.New(rand.NewPCG(36, 8))
	for n := range classes {
		presses := drawPresses(random)
		stopped := random.IntN(len(presses))
		started := stopped + 1 + random.IntN(len(presses)-stopped)
		what := fmt.Sprintf("class %d, stopped at press %d of %d, started at %d", n, stopped, len(presses), started)
		plan := plans[n%len(plans)]
		rows, record := leadThrough(t, d, plan, presses, 0, 0)
		d.Pass(60)
		gone, after := leadThrough(t, d, plan, presses, stopped, started)
		d.Pass(60)
		require.Equal(t, rows, gone, what)
		for _, r := range []*contract.Record{&record, &after} {
			r.Class.ID, r.Class.StartedMS = 0, 0
		}
		require.Equal(t, record.Marks, after.Marks, what)
		require.Equal(t, record.Totals, after.Totals, what)
		require.Equal(t, record.Passages, after.Passages, what)
		assert.Equal(t, record.TaughtMS, after.TaughtMS, what)
	}
}
