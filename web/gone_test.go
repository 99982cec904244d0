package web_test

import (
	"bytes"
	"context"
	"fmt"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/desk/desktest"
	"vastlantern/web"
)

// A phone that goes away stops what it asked for, quietly; what it pressed is carried out all the same.
func TestWhoGoesAwayStopsReadingButNotAPress(t *testing.T) {
	d := desktest.New(t)
	class := d.Start(d.AddPlan(desktest.Rounds))
	handler, err := web.Handler(t.Context(), d.Desk, web.Options{Reach: web.ThisMachine})
	require.NoError(t, err)
	var log bytes.Buffer
	before := slog.Default()
	slog.SetDefault(slog.New(slog.NewTextHandler(&log, nil)))
	defer slog.SetDefault(before)
	gone, leave := context.WithCancel(t.Context())
	leave()
	ask := func(method, path, body string) *httptest.ResponseRecorder {
		request := httptest.NewRequestWithContext(gone, method, "http://localhost"+path, strings.NewReader(body))
		request.RemoteAddr = "127.0.0.1:40000"
		request.Header.Set("Content-Type", "application/json")
		answer := httptest.NewRecorder()
		handler.ServeHTTP(answer, request)
		return answer
	}

	assert.Empty(t, ask(http.MethodGet, "/api/groups", "").Body.String(), "nothing was read")
	press := ask(http.MethodPost, fmt.Sprintf("/api/classes/%d/adjustments", class),
		`{"key": "a", "do": "note", "text": "late"}`)
	assert.Equal(t, http.StatusOK, press.Code, press.Body)
	stored, err := d.Store.Adjustments(class)
	require.NoError(t, err)
	require.Len(t, stored, 1)
	assert.Empty(t, log.String(), "that somebody goes away is no failure")
}
