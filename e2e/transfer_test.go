package e2e

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"
)

// What one machine exports is imported on another from the School screen: what it would change is read before.
func TestEverythingIsBroughtInFromTheScreen(t *testing.T) {
	th := open(t)
	defer th.recovered()
	th.plan(7)
	file := filepath.Join(t.TempDir(), "everything.json")
	everything := th.fetch("/api/export")
	require.NoError(t, os.WriteFile(file, everything, 0o600))
	wrong := filepath.Join(t.TempDir(), "wrong.json")
	require.NoError(t, os.WriteFile(wrong, []byte(`{"format": "x"}`), 0o600))

	th.program.Kill()
	th.data = filepath.Join(t.TempDir(), "other.db")
	th.start("0")
	require.NoError(t, th.program.ReadCare())
	page := th.page("/school")
	th.see(page, `a[download]`, "Export everything")
	require.NoError(t, th.element(page, "#import-file").SetFiles([]string{wrong}))
	th.see(page, `[aria-label="All your data"] .alert`, "Nothing was changed: this is not a file")
	require.NoError(t, th.element(page, "#import-file").SetFiles([]string{file}))
	th.see(page, `[aria-label="All your data"] li`, "plan new")
	th.accessible(page, "bringing in")
	th.click(page, "button", "^Cancel$")
	require.Zero(t, th.count(page, `[aria-label="All your data"] li`))
	require.NoError(t, th.element(page, "#import-file").SetFiles([]string{file}))
	th.click(page, "button", "^Import$")
	th.see(page, `[aria-label="All your data"] .alert`, "Imported. The previous data is saved in .*other.db.before-")
	require.JSONEq(t, string(everything), string(th.fetch("/api/export")))
}
