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
	st, err := store.Open(data, "a test")
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
	assert.Contains(t, errs, "is in use by a test (process ")
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

// Every command that writes is refused while another program has the data file, and says who.
func TestCommandsThatWriteAreRefusedWhileTheFileIsInUse(t *testing.T) {
	folder := t.TempDir()
	data, other := filepath.Join(folder, "x.db"), filepath.Join(folder, "y.db")
	st, err := store.Open(data, "lantern serve")
	require.NoError(t, err)
	defer st.Close()
	st.ServedAt("http://127.0.0.1:7777")
	file := filepath.Join(folder, "all.json")
	for _, args := range [][]string{
		{"serve", "--data", data, "--port", "0"}, {"demo", "--data", data, "--port", "0"}, {"passcode", "--data", data},
		{"restore", other, "--data", data}, {"import", file, "--data", data},
	} {
		if args[0] == "restore" || args[0] == "import" {
			_, errs, code := run(
				t,
				"",
				map[string]string{"restore": "backup", "import": "export"}[args[0]],
				args[1],
				"--data",
				data,
			)
			require.Zero(t, code, "to read it is open: %s", errs)
		}
		_, errs, code := run(t, "warm lamp oil\n", args...)
		assert.Equal(t, 1, code, args[0])
		assert.Regexp(
			t,
			`in use by lantern serve \(process \d+, since .*\), at http://127\.0\.0\.1:7777: end that program first`,
			errs,
			args[0],
		)
	}
}

// A copy of a file in use is restored only where it is said that something may be missing.
func TestAnIncompleteCopyIsRestoredOnRequest(t *testing.T) {
	folder := t.TempDir()
	data, plain := filepath.Join(folder, "x.db"), filepath.Join(folder, "copy.db")
	st, err := store.Open(data, "a test")
	require.NoError(t, err)
	content, err := os.ReadFile(data)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(plain, content, 0o600))
	require.NoError(t, st.Close())
	_, errs, code := run(t, "", "restore", plain, "--data", data)
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "it may be incomplete")
	assert.Contains(t, errs, "It has groups: 0")
	_, errs, code = run(t, "", "restore", plain, "--data", data, "--incomplete-too")
	assert.Zero(t, code, errs)
}

func TestANewDataFileIsSaid(t *testing.T) {
	data := filepath.Join(t.TempDir(), "mistyped.db")
	_, errs, code := run(t, "warm lamp oil\n", "passcode", "--data", data)
	assert.Zero(t, code)
	assert.Contains(t, errs, "There was no data file "+data+": a new one was made.")
	_, errs, _ = run(t, "warm lamp oil\n", "passcode", "--data", data)
	assert.NotContains(t, errs, "a new one was made")
}
