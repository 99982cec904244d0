package main

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/store"
)

func TestBackupAndRestore(t *testing.T) {
	folder := t.TempDir()
	data, copied := filepath.Join(folder, "x.db"), filepath.Join(folder, "copy.db")
	_, errs, code := run(t, "", "backup", copied, "--data", data)
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "no data file")
	st, err := store.Open(data)
	require.NoError(t, err)
	_, err = st.AddGroup(store.Group{Name: "Evening", Weekday: -1})
	require.NoError(t, err)

	out, errs, code := run(t, "", "backup", copied, "--data", data)
	require.Zero(t, code, errs)
	assert.Contains(t, out, "groups: 1, plans: 0")
	_, errs, code = run(t, "", "backup", copied, "--data", data)
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "is there already")
	_, errs, code = run(t, "", "restore", copied, "--data", data)
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "is in use")
	require.NoError(t, st.Close())
	out, errs, code = run(t, "", "restore", copied, "--data", data)
	require.Zero(t, code, errs)
	assert.Contains(t, out, "What was there before is "+data+".before-")

	letter := filepath.Join(folder, "letter.txt")
	require.NoError(t, os.WriteFile(letter, []byte("Dear all"), 0o600))
	_, errs, code = run(t, "", "restore", letter, "--data", data)
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "nothing was changed")
}
