package web_test

import (
	"fmt"
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/language"
	"vastlantern/studio/contract"
)

// Everything goes from one machine to another by the browser: what it would change is shown first, and a copy is kept.
func TestEverythingIsTakenToAnotherMachine(t *testing.T) {
	here, there := serve(t).URL+"/api", serve(t).URL+"/api"
	var plan contract.Plan
	require.Equal(t, 200, call(t, "POST", here+"/plans", `{"document": `+document+`}`, &plan))
	response, err := http.Get(here + "/export")
	require.NoError(t, err)
	defer response.Body.Close()
	assert.Regexp(
		t,
		`^attachment; filename=vast-lantern-\d{4}-\d\d-\d\d\.json$`,
		response.Header.Get("Content-Disposition"),
	)
	file := text(t, response)

	var would contract.Imported
	require.Equal(t, 200, call(t, "POST", there+"/import", file, &would))
	assert.True(t, would.Changes)
	assert.False(t, would.Done)
	assert.Contains(t, language.English().Text(would.Lines[0]), "plan new: Lunch")
	var today contract.Today
	require.Equal(t, 200, call(t, "GET", there+"/today", "", &today))
	assert.Empty(t, today.Plans, "nothing was changed yet")

	var score contract.Score
	var other contract.Plan
	require.Equal(t, 200, call(t, "POST", there+"/plans", `{"document": `+document+`}`, &other))
	require.Equal(t, 200, call(t, "POST", there+"/classes", fmt.Sprintf(`{"plan_id": %d}`, other.ID), &score))
	var problem contract.Problem
	require.Equal(t, 409, call(t, "POST", there+"/import?apply=true", file, &problem))
	assert.Contains(t, language.English().Text(problem.Say), "being led")
	require.Equal(
		t,
		200,
		call(t, "POST", fmt.Sprintf("%s/classes/%d/adjustments", there, score.ClassID), `{"key": "e", "do": "end"}`, nil),
	)

	require.Equal(t, 200, call(t, "POST", there+"/import?apply=true", file, &would))
	assert.True(t, would.Done)
	assert.FileExists(t, would.Kept)
	require.Equal(t, 200, call(t, "GET", there+"/today", "", &today))
	assert.Len(t, today.Plans, 2)
	require.Equal(t, 200, call(t, "POST", there+"/import", file, &would))
	assert.False(t, would.Changes, "it is the same already")

	require.Equal(t, 422, call(t, "POST", there+"/import", `{"format": "something else"}`, &problem))
	assert.Contains(
		t,
		language.English().Text(problem.Say),
		"Nothing was changed: this is not a file that lantern export wrote",
	)
	require.Equal(t, 422, call(t, "POST", there+"/import", file[:len(file)/2], &problem))
	assert.Contains(t, language.English().Text(problem.Say), "not all of it")
}
