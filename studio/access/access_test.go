package access_test

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio"
	"vastlantern/studio/access"
	"vastlantern/studio/desk/desktest"
)

func TestThePasscodeAndTheDevices(t *testing.T) {
	d := desktest.New(t)
	has, err := d.Access.HasPasscode(t.Context())
	require.NoError(t, err)
	assert.False(t, has)
	for _, short := range []string{"", "seven77", " eight888", strings.Repeat("x", 73)} {
		assert.ErrorIs(t, d.Access.SetPasscode(t.Context(), short), studio.ErrInvalid, short)
	}
	require.NoError(t, d.Access.SetPasscode(t.Context(), "warm lamp oil"))
	has, err = d.Access.HasPasscode(t.Context())
	require.NoError(t, err)
	assert.True(t, has)
	_, err = d.Access.SignIn(t.Context(), "warm lamp oi", "phone")
	assert.ErrorIs(t, err, access.ErrPasscode)

	phone, err := d.Access.SignIn(t.Context(), "warm lamp oil", "  "+strings.Repeat("ö", 50))
	require.NoError(t, err)
	tablet, err := d.Access.SignIn(t.Context(), "warm lamp oil", "")
	require.NoError(t, err)
	device, renewed, err := d.Access.SignedIn(t.Context(), phone)
	require.NoError(t, err)
	assert.Equal(t, strings.Repeat("ö", 40), device)
	assert.False(t, renewed)
	d.Time = d.Time.Add(access.SessionTime - time.Minute)
	_, renewed, err = d.Access.SignedIn(t.Context(), phone)
	require.NoError(t, err)
	assert.True(t, renewed, "a device in use stays signed in")
	d.Time = d.Time.Add(2 * time.Minute)
	device, _, err = d.Access.SignedIn(t.Context(), phone)
	require.NoError(t, err)
	assert.NotEmpty(t, device)
	_, _, err = d.Access.SignedIn(t.Context(), tablet)
	assert.ErrorIs(t, err, studio.ErrNotFound, "one that was not used has run out")

	require.NoError(t, d.Access.SignOut(t.Context(), phone))
	_, _, err = d.Access.SignedIn(t.Context(), phone)
	assert.ErrorIs(t, err, studio.ErrNotFound)
	phone, err = d.Access.SignIn(t.Context(), "warm lamp oil", "phone")
	require.NoError(t, err)
	require.NoError(t, d.Access.SetPasscode(t.Context(), "another one"))
	_, _, err = d.Access.SignedIn(t.Context(), phone)
	assert.ErrorIs(t, err, studio.ErrNotFound, "a new passcode signs everybody out")
}
