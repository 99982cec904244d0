package e2e

import (
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The page to try the application with is led and rehearsed on without any server: from a folder that any server shows,
// and as a file.
func TestThePageThatNeedsNoServer(t *testing.T) {
	folder, err := filepath.Abs("../bin/tryout")
	require.NoError(t, err)
	t.Run("file", func(t *testing.T) { tryoutAt(t, "file://"+folder+"/index.html") })
	t.Run("folder", func(t *testing.T) {
		var asked []string
		files := http.FileServer(http.Dir(folder))
		server := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			asked = append(asked, r.URL.Path)
			files.ServeHTTP(w, r)
		}))
		t.Cleanup(func() {
			server.Close()
			for _, path := range asked {
				assert.Contains(t, []string{"/", "/favicon.ico"}, path, "the page is all that it asks for")
			}
		})
		tryoutAt(t, server.URL+"/")
	})
}

func tryoutAt(t *testing.T, url string) {
	t.Parallel()
	th := &theater{T: t, browser: sharedBrowser(t)}
	defer th.recovered()
	page := th.opened(url, 1280, 800)
	th.see(page, ".modal", "licensed|professional|doctor")
	th.press(page, input.Escape)
	th.closed(page)
	th.see(page, "h1", "Try Vast Lantern")

	th.click(page, "button", "Lead the sample class")
	th.see(page, ".leading main", "Say a sentence")
	th.press(page, input.KeyF)
	th.see(page, `[data-testid="word"]`, "inhale|exhale")
	th.press(page, 'q')
	th.see(page, ".answer", "slower: 58")
	th.press(page, input.Digit1)
	th.see(page, ".pad", ".")
	th.press(page, input.Escape)
	th.closed(page)
	th.twice(page, input.KeyX, `document.querySelector(".over")`)
	th.see(page, ".over", "Sample class finished")
	th.click(page, ".over a", "Back to the start")
	th.see(page, "h1", "Try Vast Lantern")

	th.click(page, "main a", "See the tasks")
	th.click(page, ".levels button", "Level 1")
	th.click(page, "button", "Begin")
	th.see(page, ".people, [class*=people]", "")
	th.press(page, input.Space)
	th.see(page, ".answer", ".")
	th.click(page, "button", "End and look back")
	th.see(page, "h1, h2", ".")
	th.until(page, `/#\/rehearse\/1$/.test(location.href)`)
	th.click(page, "nav a", "Rehearse")
	th.see(page, ".rehearsed a", "level 1|Level 1")

	th.click(page, "nav a", "Try it")
	th.pick(page, "#screen-language", "Deutsch")
	th.see(page, "h1", "Vast Lantern ausprobieren")
}
