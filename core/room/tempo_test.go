package room_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/core/room"
)

func TestSlowerAndFaster(t *testing.T) {
	counted, strokes := plan.Of(practice.Find("nadi-shodhana")), plan.Of(practice.Find("kapalabhati"))
	for _, c := range []struct{ tempo, slower, faster string }{
		{"50", "48", "52"}, {"54", "52", "56"}, {"52.5", "51", "55"}, {"100", "96", "104"}, {"22", "21", "23"},
		{"20", "20", "21"}, {"119", "114", "120"}, {"120", "115", "120"},
	} {
		tempo, err := breath.ParseExact(c.tempo)
		require.NoError(t, err)
		assert.Equal(t, c.slower, room.Slower(&counted, tempo).String(), "slower than %s", c.tempo)
		assert.Equal(t, c.faster, room.Faster(&counted, tempo).String(), "faster than %s", c.tempo)
	}
	assert.Equal(t, "30", room.Slower(&strokes, breath.Int(30)).String(), "strokes have a range of their own")
	assert.Equal(t, "140", room.Faster(&strokes, breath.Int(139)).String())
}
