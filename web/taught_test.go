package web_test

import (
	"encoding/csv"
	"encoding/json"
	"fmt"
	"io"
	"mime"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/fact"
	"vastlantern/language"
	"vastlantern/studio/contract"
)

// taught leads a class to its end for a new group, and returns both.
func taught(t *testing.T, at string) (group, class int64) {
	t.Helper()
	var g contract.Group
	require.Equal(t, 200, call(t, "POST", at+"/groups", `{"name": "Lunch", "weekday": -1}`, &g))
	var plan contract.Plan
	require.Equal(
		t,
		200,
		call(t, "POST", at+"/plans", fmt.Sprintf(`{"group_id": %d, "document": %s}`, g.ID, document), &plan),
	)
	var score contract.Score
	require.Equal(t, 200, call(t, "POST", at+"/classes", fmt.Sprintf(`{"plan_id": %d}`, plan.ID), &score))
	require.Equal(
		t,
		200,
		call(t, "POST", fmt.Sprintf("%s/classes/%d/adjustments", at, score.ClassID), `{"key": "b", "do": "end"}`, nil),
	)
	return g.ID, score.ClassID
}

func TestDeletingAndBringingBack(t *testing.T) {
	at := serve(t).URL + "/api"
	group, class := taught(t, at)
	var goes contract.Deletion
	require.Equal(t, 200, call(t, "GET", fmt.Sprintf("%s/groups/%d/deletion", at, group), "", &goes))
	assert.Equal(
		t,
		contract.Deletion{
			Goes:    fact.New("goes.plans", "plans", 1).Pointer(),
			Classes: fact.New("goes.classes", "classes", 1).Pointer(),
			Days:    30,
		},
		goes,
	)
	var list contract.DeletedList
	require.Equal(t, 200, call(t, "DELETE", fmt.Sprintf("%s/groups/%d?classes=true", at, group), "{}", &list))
	assert.Len(t, list.Deleted, 1)
	assert.Equal(
		t,
		404,
		call(t, "GET", fmt.Sprintf("%s/classes/%d/record", at, class), "", nil),
		"its classes went with it",
	)
	require.Equal(t, 200, call(t, "POST", fmt.Sprintf("%s/deleted/group/%d/back", at, group), "{}", &list))
	assert.Empty(t, list.Deleted)
	assert.Equal(t, 200, call(t, "GET", fmt.Sprintf("%s/classes/%d/record", at, class), "", nil))

	require.Equal(t, 200, call(t, "DELETE", fmt.Sprintf("%s/groups/%d", at, group), "{}", nil))
	var record contract.Record
	require.Equal(
		t,
		200,
		call(t, "GET", fmt.Sprintf("%s/classes/%d/record", at, class), "", &record),
		"not asked for, they stay",
	)
	assert.Equal(t, "Lunch (deleted)", record.Class.Group.Name)
	require.Equal(t, 200, call(t, "GET", at+"/deleted", "", &list))
	assert.Equal(t, "Lunch", list.Deleted[0].Name)

	var problem contract.Problem
	for _, path := range []string{"/groups/99", "/plans/99", "/classes/99"} {
		assert.Equal(t, 404, call(t, "DELETE", at+path, "{}", &problem), path)
		assert.Equal(t, 404, call(t, "GET", at+path+"/deletion", "", &problem), path)
		assert.NotEmpty(t, language.English().Text(problem.Say))
	}
	assert.Equal(t, 404, call(t, "POST", at+"/deleted/teacher/1/back", "{}", &problem))
}

// fetch reads a file that is to be saved, and its name.
func fetch(t *testing.T, url string) (name, text string) {
	t.Helper()
	response, err := http.Get(url)
	require.NoError(t, err)
	defer response.Body.Close()
	data, err := io.ReadAll(response.Body)
	require.NoError(t, err)
	_, said, err := mime.ParseMediaType(response.Header.Get("Content-Disposition"))
	require.NoError(t, err, "status %d: %s", response.StatusCode, data)
	return said["filename"], string(data)
}

func TestTheFilesOfASearch(t *testing.T) {
	at := serve(t).URL + "/api"
	taught(t, at)
	taught(t, at)
	for query, rows := range map[string]int{"": 2, "?practice=nadi-shodhana": 2, "?words=lunch": 2,
		"?from=2001-01-01": 2} {
		name, text := fetch(t, at+"/classes/table"+query)
		table, err := csv.NewReader(strings.NewReader(text)).ReadAll()
		require.NoError(t, err)
		assert.Len(t, table, 1+rows, query)
		assert.True(t, strings.HasPrefix(name, "taught") && strings.HasSuffix(name, ".csv"), name)
	}
	name, text := fetch(t, at+"/classes/file?from=2001-01-01&to=2099-12-31")
	assert.Equal(t, "taught-from-2001-01-01-to-2099-12-31.records.json", name)
	var records contract.Records
	require.NoError(t, json.Unmarshal([]byte(text), &records))
	assert.Len(t, records.Classes, 2)
	var problem contract.Problem
	assert.Equal(t, 404, call(t, "GET", at+"/classes/table?practice=sigh", "", &problem))
	assert.Equal(t, 422, call(t, "GET", at+"/classes/file?from=soon", "", &problem))
	assert.Equal(t, 422, call(t, "GET", at+"/classes/table?group=x", "", &problem))

	var summary contract.Summary
	require.Equal(t, 200, call(t, "GET", at+"/summary", "", &summary))
	assert.Equal(t, 2, summary.Classes)
	require.Equal(t, 200, call(t, "GET", at+"/summary?year=2001", "", &summary))
	assert.Zero(t, summary.Classes)
}
