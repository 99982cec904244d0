package web_test

import (
	"encoding/json"
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// The practice book is in the language that a person chose, else in that of the browser.
func TestThePracticeBookInAPersonsLanguage(t *testing.T) {
	at := serve(t).URL + "/api/practices"
	for _, c := range []struct{ chosen, accepted, name, language string }{
		{"", "", "Moon breath", "en"},
		{"", "fr-FR,fr;q=0.8", "Souffle de la lune", "fr"},
		{"de", "fr-FR", "Mondatmung", "de"},
		{"", "ja", "Moon breath", "en"},
	} {
		request, err := http.NewRequestWithContext(t.Context(), http.MethodGet, at, nil)
		require.NoError(t, err)
		request.Header.Set("Accept-Language", c.accepted)
		if c.chosen != "" {
			request.AddCookie(&http.Cookie{Name: "language", Value: c.chosen})
		}
		answer, err := http.DefaultClient.Do(request)
		require.NoError(t, err)
		var book contract.Book
		require.NoError(t, json.NewDecoder(answer.Body).Decode(&book))
		require.NoError(t, answer.Body.Close())
		for _, p := range book.Practices {
			if p.ID == "chandra-bhedana" {
				assert.Equal(t, []string{c.name, c.language}, []string{p.Name, p.Language}, "%+v", c)
			}
		}
	}
}
