package e2e

import (
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is typed under School stays while the page is read again, also where another screen has saved meanwhile.
func TestWhatIsTypedUnderSchoolStays(t *testing.T) {
	th := open(t)
	save := func(bring string) {
		request, err := http.NewRequest(http.MethodPut, th.program.URL+"/api/settings", strings.NewReader(`{"schools": {}, "language": "en", "own_words": {}, "care_read": true, "bring": "`+bring+`"}`))
		require.NoError(t, err)
		request.Header.Set("Content-Type", "application/json")
		response, err := http.DefaultClient.Do(request)
		require.NoError(t, err)
		response.Body.Close()
		require.Equal(t, http.StatusOK, response.StatusCode)
	}
	page := th.page("/school")
	readAgain := func() {
		page.MustEval(`() => document.dispatchEvent(new Event("visibilitychange", { bubbles: true }))`)
	}
	bring := func(is string) { th.until(page, `document.querySelector("#bring").value === "`+is+`"`) }

	th.see(page, "h1", "Your school")
	save("a mat") // nothing was typed here: what another screen saved is shown
	readAgain()
	bring("a mat")
	page.MustElement("#bring").MustSelectAllText().MustInput("two blankets")
	save("a chair")
	readAgain()
	th.see(page, ".alert", "changed on another screen")
	bring("two blankets")
	th.accessible(page, "changed on another screen")
	th.click(page, "button", "^Save$")
	th.see(page, ".alert", "^Saved")
	assert.Contains(t, string(th.fetch("/api/settings")), "two blankets")

	page.MustElement("#bring").MustSelectAllText().MustInput("a cushion")
	save("a strap")
	readAgain()
	th.click(page, "button", "^Show theirs$")
	bring("a strap")
	th.until(page, `!document.querySelector(".alert")`)
}
