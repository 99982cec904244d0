package main

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestPlanCommand(t *testing.T) {
	text := "# Before the exam\nslot 25\nstarts 2026-12-01 18:30\n\ntalk 1 min\neven breath 4:4 x6\n  r3 exhale: half " +
		"of it\nrest 2 min\n"
	out, errs, code := run(t, text, "plan", "-")
	require.Equal(t, 0, code, errs)
	again, errs, code := run(t, out, "sheet", "-")
	require.Equal(t, 0, code, errs)
	assert.Contains(t, again, "counted-breath,round,6")
	cues, errs, code := run(t, out, "cues", "-")
	require.Equal(t, 0, code, errs)
	assert.Contains(t, cues, "half of it")

	out, errs, code = run(t, "nadi x6 windy\nneck rolls 1 min\n", "plan", "-")
	require.Equal(t, 0, code)
	assert.Contains(t, out, `"remark": "windy"`)
	assert.Equal(t, "passage 1: not understood, and kept as a remark: \"windy\"\n"+
		"passage 2: not in the practice book: \"Neck rolls\"\n", errs)

	_, errs, code = run(t, "# Wrong\nslot 0\neven breath 4:4 x6\neven x3000\n  r1 hodl: lock\n", "plan", "-")
	assert.Equal(t, 2, code)
	assert.Contains(t, errs, "line 5")
	_, errs, code = run(t, "slot 0\neven breath 4:4 x6\neven x3000\n", "plan", "-")
	assert.Equal(t, 2, code)
	for _, line := range []string{"line 1: “0”", "line 3: “3000”"} {
		assert.Contains(t, errs, line)
	}
	out, errs, code = run(t, "Quadrat drei Runden\n", "plan", "-", "--language", "de")
	require.Equal(t, 0, code, errs)
	assert.Contains(t, out, "4:4:4:4")
}
