package events_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/e2e/events"
)

// What go test -json of Go 1.26 prints of a test that passes, one that fails, and one whose process ended in it.
const told = `building
{"Action":"start","Package":"x"}
{"Action":"run","Package":"x","Test":"TestA"}
{"Action":"output","Package":"x","Test":"TestA","Output":"=== RUN   TestA\n"}
{"Action":"pass","Package":"x","Test":"TestA","Elapsed":1.5}
{"Action":"run","Package":"x","Test":"TestB"}
{"Action":"output","Package":"x","Test":"TestB","Output":"b_test.go:9: no\n"}
{"Action":"fail","Package":"x","Test":"TestB","Elapsed":0.1}
{"Action":"run","Package":"x","Test":"TestC"}
{"Action":"output","Package":"x","Test":"TestC","Output":"panic: c\n"}
{"Action":"fail","Package":"x","Elapsed":2}
`

func TestRead(t *testing.T) {
	var rest strings.Builder
	results, err := events.Read(strings.NewReader(told), &rest)
	require.NoError(t, err)
	assert.Equal(t, []events.Result{
		{Package: "x", Test: "TestA", Seconds: 1.5},
		{Package: "x", Test: "TestB", Seconds: 0.1, Failed: true, Output: "b_test.go:9: no\n"},
		{Package: "x", Seconds: 2, Failed: true},
		{Package: "x", Test: "TestC", Failed: true, Output: "panic: c\n"},
	}, results)
	assert.Equal(t, "building\n", rest.String())
}
