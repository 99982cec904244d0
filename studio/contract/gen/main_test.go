package main

import (
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The committed schemas are those of the Go structs; make check then holds the TypeScript against the first.
func TestTheCommittedSchemasAreNotStale(t *testing.T) {
	t.Chdir("../../..")
	files, err := made()
	require.NoError(t, err)
	for path, want := range files {
		got, err := os.ReadFile(path)
		require.NoError(t, err)
		assert.Equal(t, string(want), string(got), "run: make types")
	}
}
