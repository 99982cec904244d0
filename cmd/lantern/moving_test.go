package main

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/store"
)

func TestExportAndImport(t *testing.T) {
	folder := t.TempDir()
	data, file, other := filepath.Join(folder, "x.db"), filepath.Join(
		folder,
		"all.json",
	), filepath.Join(folder, "new", "y.db")
	_, errs, code := run(t, "", "export", file, "--data", data)
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "no data file")
	st, err := store.Open(data, "a test")
	require.NoError(t, err)
	_, err = st.AddGroup(store.Group{Name: "Evening", Level: "beginners", Weekday: -1})
	require.NoError(t, err)
	out, errs, code := run(t, "", "export", file, "--data", data)
	require.Zero(t, code, errs)
	assert.Contains(t, out, "groups: 1")
	_, errs, code = run(t, "", "export", file, "--data", data)
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "is there already")
	_, errs, code = run(t, "", "import", file, "--data", data)
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "is in use")
	require.NoError(t, st.Close())

	for _, answer := range []string{"", "no\n", "yes, later\n"} {
		out, errs, code = run(t, answer, "import", file, "--data", other)
		require.Zero(t, code, errs)
		assert.Contains(t, out, "group new: Evening")
		assert.Contains(t, out, "Nothing was changed.")
	}
	out, errs, code = run(t, "yes\n", "import", file, "--data", other)
	require.Zero(t, code, errs)
	assert.Contains(t, out, "Done. To take it back: lantern restore "+other+".before-")
	written, err := os.ReadFile(file)
	require.NoError(t, err)
	out, errs, code = run(t, "", "export", "-", "--data", other)
	require.Zero(t, code, errs)
	assert.Equal(t, string(written), out)
	out, errs, code = run(t, string(written), "import", "-", "--yes", "--data", other)
	require.Zero(t, code, errs)
	assert.Contains(t, out, "Nothing is to be changed.")

	_, errs, code = run(
		t,
		strings.Replace(string(written), "beginners", "wizards", 1),
		"import",
		"-",
		"--yes",
		"--data",
		other,
	)
	assert.Equal(t, 2, code)
	assert.Contains(t, errs, "group 1: Level: given “wizards”")
	assert.Contains(t, errs, "Nothing was changed.")
}
