package main

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const long = `{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [
	{"type": "practice", "practice": "counted-breath", "counts": "4:4", "rounds": 6},
	{"type": "practice", "practice": "counted-breath", "counts": "4:16:8", "rounds": 6}]}`

func TestRehearseCommand(t *testing.T) {
	out, errs, code := run(t, long, "rehearse", "-", "--room", "newcomers")
	require.Equal(t, 0, code, errs)
	assert.Equal(t, "Newcomers: a model, not a measurement\n"+
		"passage 1, Counted breath 4:4 ×6: easy for all 14\n"+
		"passage 2, Counted breath 4:16:8 ×6: from round 1 14 of 14 beyond what is easy\n", out)
	asJSON, _, _ := run(t, long, "rehearse", "-", "--room", "newcomers", "--seeds", "20", "--format", "json")
	var objects []map[string]int
	require.NoError(t, json.Unmarshal([]byte(asJSON), &objects))
	assert.Equal(t, []map[string]int{
		{"passage": 1, "from_round": 0, "people": 14, "low": 0, "median": 0, "high": 0},
		{"passage": 2, "from_round": 1, "people": 14, "low": 14, "median": 14, "high": 14},
	}, objects)
	rooms, _, code := run(t, "", "rehearse", "--rooms")
	assert.Equal(t, 0, code)
	assert.Contains(t, rooms, "mixed-evening   14 people")
	for want, args := range map[string][]string{
		"there is no room “x”; there are": {"rehearse", "-", "--room", "x"},
		"say which room":                  {"rehearse", "-"},
		"--seeds: given 0, allowed":       {"rehearse", "-", "--room", "tired", "--seeds", "0"},
		"--format: given \"vtt\"":         {"rehearse", "-", "--room", "tired", "--format", "vtt"},
	} {
		_, errs, code := run(t, long, args...)
		assert.NotZero(t, code)
		assert.Contains(t, errs, want)
	}
}
