// Package access decides who may lead from another device: the passcode, and the devices that are signed in.
package access

import (
	"context"
	"crypto/hmac"
	"crypto/rand"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"strings"
	"time"

	"golang.org/x/crypto/bcrypt"

	"vastlantern/core/fact"
	"vastlantern/store"
	"vastlantern/studio"
)

// Access is the room.
type Access struct{ studio *studio.Studio }

// New returns the room of a studio.
func New(s *studio.Studio) *Access { return &Access{s} }

const passcodeName = "passcode"

// Bounds of a passcode, in bytes: long enough that the few guesses a minute that are allowed lead nowhere, and no
// longer than bcrypt reads.
const (
	shortestPasscode = 8
	longestPasscode  = 72
)

// SessionTime is how long a device stays signed in after it was last used.
const SessionTime = 7 * 24 * time.Hour

const longestDevice = 40 // letters of a device's name

// ErrPasscode says that the passcode is not this one.
var ErrPasscode = fact.New("passcode.wrong")

// SetPasscode sets what the teacher's side asks for on the local network, and signs every device out.
func (a *Access) SetPasscode(ctx context.Context, passcode string) error {
	if n := len(passcode); n < shortestPasscode || n > longestPasscode || strings.TrimSpace(passcode) != passcode {
		return studio.Fail(studio.ErrInvalid, "passcode.length", "least", shortestPasscode, "most", longestPasscode)
	}
	hash, err := bcrypt.GenerateFromPassword([]byte(passcode), bcrypt.DefaultCost)
	if err != nil {
		return err
	}
	defer a.studio.NotifySessions()
	return a.studio.Store.With(ctx).InTransaction(func(st *store.Store) error {
		if err := st.EndSessions(); err != nil {
			return err
		}
		return st.SaveSetting(passcodeName, hash)
	})
}

// Mark returns what a device that gave the passcode keeps for later, so that wrong guesses of others do not keep it
// waiting. It lets nobody in. Another passcode ends it.
func (a *Access) Mark(ctx context.Context) (string, error) {
	hash, err := a.studio.Store.With(ctx).Setting(passcodeName)
	id := rand.Text()
	return id + "." + seal(hash, id), err
}

// IsMarked returns the device that keeps a mark, and whether the mark is one of ours.
func (a *Access) IsMarked(ctx context.Context, mark string) (device string, is bool) {
	hash, err := a.studio.Store.With(ctx).Setting(passcodeName)
	id, sum, _ := strings.Cut(mark, ".")
	return id, err == nil && hmac.Equal([]byte(sum), []byte(seal(hash, id)))
}

func seal(passcodeHash []byte, id string) string {
	mac := hmac.New(sha256.New, passcodeHash)
	mac.Write([]byte("device " + id))
	return hex.EncodeToString(mac.Sum(nil))
}

// HasPasscode reports whether one is set.
func (a *Access) HasPasscode(ctx context.Context) (bool, error) {
	_, err := a.studio.Store.With(ctx).Setting(passcodeName)
	if errors.Is(err, store.ErrNotFound) {
		return false, nil
	}
	return err == nil, err
}

// SignIn lets a device in, which keeps the token. ErrPasscode says that the passcode is wrong.
func (a *Access) SignIn(ctx context.Context, passcode, device string) (token string, err error) {
	hash, err := a.studio.Store.With(ctx).Setting(passcodeName)
	if err != nil {
		return "", err
	}
	if bcrypt.CompareHashAndPassword(hash, []byte(passcode)) != nil {
		return "", ErrPasscode
	}
	token = rand.Text()
	return token, a.keepSession(ctx, token, deviceName(device))
}

func deviceName(given string) string {
	letters := []rune(strings.TrimSpace(given))
	if len(letters) == 0 {
		return "another device"
	}
	return string(letters[:min(len(letters), longestDevice)])
}

func (a *Access) keepSession(ctx context.Context, token, device string) error {
	now := a.studio.Now()
	return a.studio.Store.With(ctx).SaveSession(
		store.Session{TokenHash: hashOf(token), Device: device, ExpiresAt: now.Add(SessionTime)},
		now,
	)
}

// hashOf returns what is stored of a token. It is long and random, so that a quick hash is enough.
func hashOf(token string) string {
	sum := sha256.Sum256([]byte(token))
	return hex.EncodeToString(sum[:])
}

// SignedIn returns the name of the device that keeps the token; renewed says that its time was made longer.
// studio.ErrNotFound says that nobody keeps it, or not any more.
func (a *Access) SignedIn(ctx context.Context, token string) (device string, renewed bool, err error) {
	now := a.studio.Now()
	session, err := a.studio.Store.With(ctx).Session(hashOf(token), now)
	if errors.Is(err, store.ErrNotFound) {
		return "", false, studio.ErrNotFound
	}
	if err != nil {
		return "", false, err
	}
	if session.ExpiresAt.Sub(now) > SessionTime-time.Hour {
		return session.Device, false, nil
	}
	if err := a.keepSession(ctx, token, session.Device); err != nil {
		if !studio.FileProblem(err).None() { // it holds as it is: nobody is shut out because the disk is full
			return session.Device, false, nil
		}
		return "", false, err
	}
	return session.Device, true, nil
}

// Device returns the name of the device that keeps the token, or studio.ErrNotFound. Its time is not made longer.
func (a *Access) Device(ctx context.Context, token string) (string, error) {
	session, err := a.studio.Store.With(ctx).Session(hashOf(token), a.studio.Now())
	if errors.Is(err, store.ErrNotFound) {
		return "", studio.ErrNotFound
	}
	return session.Device, err
}

// SignOut forgets the device that keeps the token.
func (a *Access) SignOut(ctx context.Context, token string) error {
	defer a.studio.NotifySessions()
	return a.studio.Store.With(ctx).EndSession(hashOf(token))
}
