package lead_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

// taps returns a script of as many changes of tempo, half a second apart.
func taps(n int) []contract.Tried {
	var script []contract.Tried
	for i := range n {
		tempo := float64(60 + i%2)
		script = append(
			script,
			contract.Tried{AtMS: int64(5000 + 500*i), Adjust: contract.Adjust{Key: fmt.Sprint(i), Do: "tempo", To: &tempo}},
		)
	}
	return script
}

// A try-out asks for the same adjustments and one more with each press: it is followed from where it was, and is what
// it is from the start.
func TestATryOutIsFollowedPressByPress(t *testing.T) {
	d, fresh := desktest.New(t), desktest.New(t)
	p, q := d.AddPlan(desktest.Rounds), fresh.AddPlan(desktest.Rounds)
	script := taps(30)
	for n := range script {
		step := contract.Try{Script: script[:n+1], AtMS: script[n].AtMS}
		followed, err := d.Classes.Try(t.Context(), p.ID, step)
		require.NoError(t, err)
		if n%10 == 9 {
			anew, err := fresh.Classes.Try(t.Context(), q.ID, step)
			require.NoError(t, err)
			assert.Equal(t, anew, followed, "press %d", n+1)
		}
	}
	undone, err := d.Classes.Try(t.Context(), p.ID, contract.Try{Script: script[:3], AtMS: script[2].AtMS})
	require.NoError(t, err, "another way than before")
	anew, err := desktest.New(t).Classes.Try(t.Context(), 1, contract.Try{})
	assert.ErrorIs(t, err, studio.ErrNotFound)
	assert.Empty(t, anew.Phases)
	other, err := fresh.Classes.Try(t.Context(), q.ID, contract.Try{Script: script[:3], AtMS: script[2].AtMS})
	require.NoError(t, err)
	assert.Equal(t, other, undone)
}

// One request does not ask for the work of thousands: a long class with hundreds of adjustments that is not known is
// begun again.
func TestATryOutIsNoMoreWorkThanAPress(t *testing.T) {
	d := desktest.New(t)
	p := d.AddPlan(`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 600, "tempo": 100}`)
	script := taps(80)
	_, err := d.Classes.Try(t.Context(), p.ID, contract.Try{Script: script})
	require.ErrorIs(t, err, studio.ErrInvalid)
	assert.Contains(t, desktest.Words(err), "begin it again")
	for n := 40; n <= 80; n += 40 {
		_, err := d.Classes.Try(t.Context(), p.ID, contract.Try{Script: script[:n]})
		require.NoError(t, err, "what is known is not done again")
	}
}
