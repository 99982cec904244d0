package main

import (
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/e2e/stage"
)

// The trials in short; make trial runs them in full.
func TestNothingIsLostInShort(t *testing.T) {
	if _, err := stage.Binary(); err != nil {
		t.Skip(err)
	}
	seed := uint64(time.Now().UnixNano())
	t.Log("seed", seed)
	random := rand.New(rand.NewPCG(seed, 1))
	says, err := killing(t.TempDir(), 40, random)
	require.NoError(t, err)
	assert.Contains(t, says, "leading and saving:8")
	_, err = hostile(t.TempDir(), 4000, time.Hour, random) // how fast the machine is is not asked here
	require.NoError(t, err)
	_, err = long(t.TempDir(), 50, 10*time.Minute)
	require.NoError(t, err)
}
