package main

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// run runs a command as main does, and returns what it printed and its exit code.
func run(t *testing.T, stdin string, args ...string) (out, errs string, code int) {
	t.Helper()
	root := rootCommand()
	var stdout, stderr bytes.Buffer
	root.SetArgs(args)
	root.SetIn(strings.NewReader(stdin))
	root.SetOut(&stdout)
	root.SetErr(&stderr)
	code = exitCode(root.Execute(), &stderr)
	return stdout.String(), stderr.String(), code
}

func file(t *testing.T, text string) string {
	t.Helper()
	path := filepath.Join(t.TempDir(), "file")
	require.NoError(t, os.WriteFile(path, []byte(text), 0o600))
	return path
}

// The plan of the documentation of the plan file.
const lunch = `{"format": "vast-lantern-plan", "version": 1, "title": "Monday lunch hour", "slot_min": 25, "tempo": 54, "passages": [
	{"type": "talk", "title": "Seat and spine", "seconds": 60, "wait": true},
	{"type": "free", "title": "Find the breath", "breaths": 10},
	{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 6, "side": "left",
	 "closing": [{"breaths": 2}, {"breaths": 1, "counts": "4:5:6"}, {"seconds": 30, "text": "hand down, notice"}]},
	{"type": "practice", "practice": "surya-bhedana", "pace": "own", "minutes": 2},
	{"type": "free", "title": "Rest", "seconds": 120, "keep": true}]}`

func TestSheetCommand(t *testing.T) {
	out, errs, code := run(t, "", "sheet", file(t, lunch))
	require.Equal(t, 0, code, errs)
	rows, err := csv.NewReader(strings.NewReader(out)).ReadAll()
	require.NoError(t, err)
	// Header, talk, free; four of the lead-in; six rounds of 32; breaths of 12, 12 and 15, a free step; own pace, recall;
	// free.
	assert.Len(t, rows, 1+2+4+6*32+12+12+15+1+2+1)
	assert.Equal(t, []string{"120000", "1111", "3", "nadi-shodhana", "setup"}, rows[3][:5], "one count at 54 is 1111.1 ms")
	again, _, code := run(t, lunch, "sheet", "-")
	assert.Equal(t, 0, code)
	assert.Equal(t, out, again, "from standard input the same")
	asJSON, _, _ := run(t, lunch, "sheet", "-", "--format", "json")
	var objects []any
	require.NoError(t, json.Unmarshal([]byte(asJSON), &objects))
	assert.Len(t, objects, len(rows)-1)
	asVTT, _, _ := run(t, lunch, "sheet", "-", "--format", "vtt")
	assert.True(t, strings.HasPrefix(asVTT, "WEBVTT\n"))
}

func TestReplayCommand(t *testing.T) {
	script := `{"at_ms": 0, "do": "finish-by", "to_ms": 1000}
		{"at_ms": 500, "do": "release"}
		{"at_ms": 700, "do": "end"}`
	out, errs, code := run(t, script, "replay", file(t, lunch), "-")
	assert.Equal(t, 0, code)
	assert.Equal(
		t,
		"at_ms,dur_ms,passage,practice,stage,round,breath,phase,through,count,of,part,say,kept\n0,700,1,,talk,0,0,talk,,1,"+
			"1,,,yes\n",
		out,
	)
	assert.Regexp(t, `(?m)^late by \d+ ms$`, errs)
	assert.Contains(t, errs, "refused at 500 ms: release: no hold in progress\n")
	out, _, code = run(t, `{"at_ms": 0, "do": "end"}`, "replay", file(t, lunch), "-")
	assert.Equal(t, 0, code)
	assert.Len(t, strings.Split(strings.TrimSpace(out), "\n"), 1, "a class ended at 0 is a header line only")
}

// Two rounds of 4:6 by hand, planned at 60: the first inhale took 5 s and its exhale 7, so that ten counts took
// twelve seconds.
func TestReplayTellsTheTempoOfTheHand(t *testing.T) {
	plan := `{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [
		{"type": "practice", "practice": "counted-breath", "counts": "4:6", "rounds": 2, "lead_in": 0, "by_hand": "all"}]}`
	script := `{"at_ms": 5000, "do": "advance"}
		{"at_ms": 12000, "do": "advance"}
		{"at_ms": 13000, "do": "by-hand", "to": "none"}`
	out, errs, code := run(t, script, "replay", file(t, plan), "-")
	assert.Equal(t, 0, code)
	assert.Equal(t, "breathed at 50\n", errs)
	assert.Contains(t, out, "5000,7000,1,counted-breath,round,1,1,exhale,both,1,1,,exhale,yes\n")
}

// A class with strong breaths, holds and its own words: what every command is asked to read.
const mixed = `{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [
	{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:4", "rounds": 3, "side": "left", "beside": "breathe",
	 "lines": [{"text": "soft, \"easy\"", "phase": "exhale", "round": 2, "who": "all"}, {"text": "never", "round": 9}]}]}`

func TestCuesCommand(t *testing.T) {
	out, errs, code := run(t, "", "cues", file(t, mixed))
	require.Equal(t, 0, code, errs)
	rows, err := csv.NewReader(strings.NewReader(out)).ReadAll()
	require.NoError(t, err)
	assert.Equal(t, []string{"at_ms", "until_ms", "passage", "stage", "round", "who", "kind", "text"}, rows[0])
	assert.Contains(
		t,
		rows,
		[]string{"36000", "40000", "1", "round", "2", "all", "line", `soft, "easy"`},
		"at the first exhale of round 2",
	)
	asJSON, _, _ := run(t, mixed, "cues", "-", "--format", "json")
	var objects []struct {
		At    int64  `json:"at_ms"`
		Until *int64 `json:"until_ms"`
		Kind  string
		Text  string
	}
	require.NoError(t, json.Unmarshal([]byte(asJSON), &objects))
	require.Len(t, objects, len(rows)-1)
	for i, one := range objects {
		assert.Equal(t, rows[i+1][0], strconv.FormatInt(one.At, 10))
		assert.Equal(t, rows[i+1][7], one.Text)
	}

	cut, errs, code := run(t, `{"at_ms": 0, "do": "release"}
		{"at_ms": 1000, "do": "end"}`, "cues", file(t, mixed), "-")
	assert.Equal(t, 0, code)
	assert.Contains(t, errs, "refused at 0 ms: release: no hold in progress\n")
	for _, row := range strings.Split(strings.TrimSpace(cut), "\n")[1:] {
		assert.Regexp(t, `^\d+,1000,1,`, row, "nothing stays when the class has ended")
	}
	for _, c := range []struct{ args, says string }{
		{"--format vtt", `--format: given "vtt", allowed: csv, json`},
		{"--lane left", `--lane: given "left", allowed: beside`},
	} {
		_, errs, code := run(t, mixed, append([]string{"cues", "-"}, strings.Fields(c.args)...)...)
		assert.Equal(t, 1, code)
		assert.Contains(t, errs, c.says)
	}
	told, _, code := run(t, mixed, "check", "-")
	assert.Equal(t, 0, code)
	assert.Contains(t, told, `The line “never” fits nowhere in this passage.`)
}

func TestTheLaneOfFiles(t *testing.T) {
	main, _, _ := run(t, mixed, "sheet", "-")
	beside, errs, code := run(t, mixed, "sheet", "-", "--lane", "beside")
	require.Equal(t, 0, code, errs)
	assert.Contains(t, main, ",hold,")
	assert.NotContains(t, beside, ",hold,", "nobody on the gentler lane holds")
	ends := func(out string) string {
		rows, err := csv.NewReader(strings.NewReader(out)).ReadAll()
		require.NoError(t, err)
		last := rows[len(rows)-1]
		at, _ := strconv.Atoi(last[0])
		dur, _ := strconv.Atoi(last[1])
		return strconv.Itoa(at + dur)
	}
	assert.Equal(t, ends(main), ends(beside), "both end together")
	replayed, _, code := run(t, "", "replay", file(t, mixed), file(t, ""), "--lane", "beside")
	assert.Equal(t, 0, code)
	assert.Equal(t, beside, replayed, "a class without an adjustment is its plan")
	cues, _, code := run(t, mixed, "cues", "-", "--lane", "beside")
	assert.Equal(t, 0, code)
	assert.NotContains(t, cues, "hold", "and the words of it neither")
	for _, command := range []string{"sheet", "cues"} {
		_, errs, code = run(t, mixed, command, "-", "--lane", "right")
		assert.Equal(t, 1, code)
		assert.Contains(t, errs, `--lane: given "right", allowed: beside`)
	}
}

func TestWrongFiles(t *testing.T) {
	wrong := `{"format": "vast-lantern-plan", "version": 1, "passages": [{"type": "talk", "seconds": 0}, {"type": ` +
		`"practice", "practice": "kapalabhati", "rate": 7, "counts": "4:4"}]}`
	for _, command := range []string{"sheet", "check"} {
		out, errs, code := run(t, wrong, command, "-")
		assert.Equal(t, 2, code)
		assert.Empty(t, out)
		assert.Contains(t, errs, "passage 1 (talk), seconds: given 0")
		assert.Contains(t, errs, "passage 2 (kapalabhati), rate: given 7, allowed: a number, 30 to 140")
		assert.Contains(t, errs, `passage 2 (kapalabhati), counts: given "4:4", allowed: only on counted practices`)
	}
	_, errs, code := run(t, "", "replay", file(t, wrong), file(t, `{"at_ms": 5}`))
	assert.Equal(t, 2, code)
	assert.Contains(t, errs, "passage 1 (talk)", "both files are reported")
	assert.Contains(t, errs, "line 1: do")
	_, errs, code = run(t, "", "sheet", filepath.Join(t.TempDir(), "nothing"))
	assert.Equal(t, 2, code)
	assert.Contains(t, errs, "no such file")
	_, errs, code = run(t, lunch, "sheet", "-", "--format", "pdf")
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "allowed: csv, json, vtt")
}

func TestCheckCommand(t *testing.T) {
	out, errs, code := run(t, lunch, "check", "-")
	require.Equal(t, 0, code, errs)
	for _, line := range []string{
		"11:06 planned of 25:00, 13:54 to spare",
		"Alternate nostril breath: 4:4:8, 6 rounds of 35.556 s, 3.375 breaths a minute, true ratio 4:4:8, longest hold " +
			"5.556 s",
		"- passage 3: Holding the breath: leave it out with pregnancy",
		"- passage 4 (Sun breath): Move Sun breath before Alternate nostril breath.",
		"ask a doctor or another licensed professional",
	} {
		assert.Contains(t, out, line)
	}
	// 4:16:8 with the word on a beat of its own really runs 5:17:9: the rules of pacing give this example.
	out, _, _ = run(
		t,
		`{"format": "vast-lantern-plan", "version": 1, "slot_min": 1, "starts_at": "2026-03-02T20:30:00+01:00", "passages": [
		{"type": "practice", "practice": "nadi-shodhana", "counts": "4:16:8", "word": "before"}, {"type": "practice", "practice": "kapalabhati"}]}`,
		"check",
		"-",
	)
	for _, line := range []string{"true ratio 5:17:9", "too long", "Let the room settle",
		"Close with 50 s or more of rest", "Put a breath without holds before", "not taught late in the evening"} {
		assert.Contains(t, out, line)
	}
}
