//go:build unix

package store

import (
	"path/filepath"
	"syscall"
	"testing"
	"time"

	"vastlantern/language"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is no file is refused at once: to open a pipe waits for somebody to write to it.
func TestAPipeIsNoBackup(t *testing.T) {
	folder := t.TempDir()
	pipe := filepath.Join(folder, "pipe")
	require.NoError(t, syscall.Mkfifo(pipe, 0o600))
	_, err := Restore(pipe, filepath.Join(folder, "x.db"), time.Now(), false)
	assert.Contains(t, language.English().Error(err), "no file but a pipe")
}
