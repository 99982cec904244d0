package room_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/breath"
	"vastlantern/core/room"
)

func TestSlowerAndFaster(t *testing.T) {
	for _, c := range []struct{ tempo, slower, faster string }{
		{"50", "48", "52"}, {"54", "52", "56"}, {"52.5", "51", "55"}, {"100", "96", "104"}, {"22", "21", "23"}, {"20", "20", "21"}, {"119", "114", "120"}, {"120", "115", "120"},
	} {
		tempo, err := breath.ParseExact(c.tempo)
		require.NoError(t, err)
		assert.Equal(t, c.slower, room.Slower(tempo).String(), "slower than %s", c.tempo)
		assert.Equal(t, c.faster, room.Faster(tempo).String(), "faster than %s", c.tempo)
	}
}
