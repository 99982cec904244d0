package main

import (
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestTheNetworkNeedsAPasscode(t *testing.T) {
	data := filepath.Join(t.TempDir(), "new", "x.db")
	_, errs, code := run(t, "", "serve", "--lan", "--data", data, "--port", "0")
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "Set one first: lantern passcode --data "+data)
	_, errs, code = run(t, "short\n", "passcode", "--data", data)
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "8 to 72")
	out, _, code := run(t, "warm lamp oil\r\n", "passcode", "--data", data)
	assert.Equal(t, 0, code)
	assert.Contains(t, out, "is set")
	_, errs, code = run(t, "", "serve", "--clock-from", "2999-01-01T00:00:00Z", "--clock-rate", "2", "--data", data)
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "that is past")
}
