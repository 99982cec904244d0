package main

import (
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The committed schema is that of the Go structs; make check then holds the TypeScript against the schema.
func TestTheCommittedSchemaIsNotStale(t *testing.T) {
	want, err := schema()
	require.NoError(t, err)
	got, err := os.ReadFile("../../../ui/contract.schema.json")
	require.NoError(t, err)
	assert.Equal(t, string(want), string(got), "run: make types")
}
