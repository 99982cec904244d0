package studio_test

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio"
	"vastlantern/studio/contract"
)

func TestThePasscodeAndTheDevices(t *testing.T) {
	d := newDesk(t)
	has, err := d.HasPasscode()
	require.NoError(t, err)
	assert.False(t, has)
	for _, short := range []string{"", "seven77", " eight888", strings.Repeat("x", 73)} {
		assert.ErrorIs(t, d.SetPasscode(short), studio.ErrInvalid, short)
	}
	require.NoError(t, d.SetPasscode("warm lamp oil"))
	has, err = d.HasPasscode()
	require.NoError(t, err)
	assert.True(t, has)
	_, err = d.SignIn("warm lamp oi", "phone")
	assert.ErrorIs(t, err, studio.ErrPasscode)

	phone, err := d.SignIn("warm lamp oil", "  "+strings.Repeat("ö", 50))
	require.NoError(t, err)
	tablet, err := d.SignIn("warm lamp oil", "")
	require.NoError(t, err)
	device, renewed, err := d.SignedIn(phone)
	require.NoError(t, err)
	assert.Equal(t, strings.Repeat("ö", 40), device)
	assert.False(t, renewed)
	d.now = d.now.Add(studio.SessionTime - time.Minute)
	_, renewed, err = d.SignedIn(phone)
	require.NoError(t, err)
	assert.True(t, renewed, "a device in use stays signed in")
	d.now = d.now.Add(2 * time.Minute)
	device, _, err = d.SignedIn(phone)
	require.NoError(t, err)
	assert.NotEmpty(t, device)
	_, _, err = d.SignedIn(tablet)
	assert.ErrorIs(t, err, studio.ErrNotFound, "one that was not used has run out")

	require.NoError(t, d.SignOut(phone))
	_, _, err = d.SignedIn(phone)
	assert.ErrorIs(t, err, studio.ErrNotFound)
	phone, err = d.SignIn("warm lamp oil", "phone")
	require.NoError(t, err)
	require.NoError(t, d.SetPasscode("another one"))
	_, _, err = d.SignedIn(phone)
	assert.ErrorIs(t, err, studio.ErrNotFound, "a new passcode signs everybody out")
}

func TestAnAdjustmentHasItsOrigin(t *testing.T) {
	d := newDesk(t)
	score, err := d.Lead(contract.Lead{PlanID: d.addPlan(rounds).ID})
	require.NoError(t, err)
	_, err = d.Adjust(score.ClassID, contract.Adjust{Key: "k", Do: "pause", Origin: "phone"})
	require.NoError(t, err)
	_, err = d.Saw(score.ClassID, contract.Saw{Key: "l", See: "rushed", Origin: "tablet"})
	require.NoError(t, err)
	record, err := d.Record(score.ClassID)
	require.NoError(t, err)
	assert.Equal(t, "phone", record.Marks[0].Answer.Origin)
	assert.Equal(t, "tablet", record.Marks[1].Answer.Origin)
}
