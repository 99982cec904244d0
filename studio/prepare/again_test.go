package prepare_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

// What is planned at own pace comes with the lines of the book that come round again; they can be taken away.
func TestWhatComesRoundAgainAtOwnPace(t *testing.T) {
	d := desktest.New(t)
	draft := func(document []byte, c contract.Change) contract.Drafted {
		drafted, err := d.Plans.Draft(t.Context(), contract.Draft{Document: document, Change: &c})
		require.NoError(t, err)
		require.Nil(t, drafted.Problem)
		return drafted
	}
	empty := []byte(`{"format": "vast-lantern-plan", "version": 1, "passages": []}`)
	added := draft(empty, contract.Change{Do: contract.ChangeAdd,
		Text: "kapalabhati own pace 3 min\nkapalabhati 20 strokes x3"})
	own, led := added.Summary.Passages[0], added.Summary.Passages[1]
	assert.Equal(t, []string{"Go on. Tired: stop, watch, begin again."}, own.Again)
	assert.True(t, own.AgainOn)
	assert.Len(t, own.Lines, 1)
	assert.Empty(t, led.Again)
	assert.Empty(t, led.Lines)
	off := draft(added.Document, contract.Change{Do: contract.ChangeAgain, Passage: 1}).Summary.Passages[0]
	assert.False(t, off.AgainOn)
	assert.NotEmpty(t, off.Again, "it can be switched on again")
	assert.Empty(t, off.Lines)
}
