package studio

import (
	"crypto/rand"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"strings"
	"time"

	"golang.org/x/crypto/bcrypt"

	"vastlantern/store"
)

const passcodeName = "passcode"

// Bounds of a passcode, in bytes: long enough that the few tries a minute that the door allows lead nowhere, and no
// longer than bcrypt reads.
const (
	shortestPasscode = 8
	longestPasscode  = 72
)

// SessionTime is how long a device stays signed in after it was last used.
const SessionTime = 7 * 24 * time.Hour

const longestDevice = 40 // letters of a device's name

// ErrPasscode says that the passcode is not this one.
var ErrPasscode = errors.New("wrong passcode")

// SetPasscode sets what the teacher's side asks for on the local network, and signs every device out.
func (s *Studio) SetPasscode(passcode string) error {
	if n := len(passcode); n < shortestPasscode || n > longestPasscode || strings.TrimSpace(passcode) != passcode {
		return fail(ErrInvalid, "A passcode has %d to %d characters and no space at its ends.", shortestPasscode, longestPasscode)
	}
	hash, err := bcrypt.GenerateFromPassword([]byte(passcode), bcrypt.DefaultCost)
	if err != nil {
		return err
	}
	defer s.wake(everySession)
	return s.store.InTransaction(func(st *store.Store) error {
		if err := st.EndSessions(); err != nil {
			return err
		}
		return st.SaveSetting(passcodeName, hash)
	})
}

// HasPasscode tells whether one is set.
func (s *Studio) HasPasscode() (bool, error) {
	_, err := s.store.Setting(passcodeName)
	if errors.Is(err, store.ErrNotFound) {
		return false, nil
	}
	return err == nil, err
}

// SignIn lets a device in, which keeps the token. ErrPasscode says that the passcode is wrong.
func (s *Studio) SignIn(passcode, device string) (token string, err error) {
	hash, err := s.store.Setting(passcodeName)
	if err != nil {
		return "", err
	}
	if bcrypt.CompareHashAndPassword(hash, []byte(passcode)) != nil {
		return "", ErrPasscode
	}
	token = rand.Text()
	return token, s.keepSession(token, deviceName(device))
}

func deviceName(given string) string {
	letters := []rune(strings.TrimSpace(given))
	if len(letters) == 0 {
		return "another device"
	}
	return string(letters[:min(len(letters), longestDevice)])
}

func (s *Studio) keepSession(token, device string) error {
	now := s.now()
	return s.store.SaveSession(store.Session{TokenHash: hashOf(token), Device: device, ExpiresAt: now.Add(SessionTime)}, now)
}

// hashOf is what is stored of a token. It is long and random, so that a quick hash is enough.
func hashOf(token string) string {
	sum := sha256.Sum256([]byte(token))
	return hex.EncodeToString(sum[:])
}

// SignedIn is the name of the device that keeps the token; renewed says that its time was made longer. ErrNotFound
// says that nobody keeps it, or not any more.
func (s *Studio) SignedIn(token string) (device string, renewed bool, err error) {
	now := s.now()
	session, err := s.store.Session(hashOf(token), now)
	if errors.Is(err, store.ErrNotFound) {
		return "", false, ErrNotFound
	}
	if err != nil {
		return "", false, err
	}
	if session.ExpiresAt.Sub(now) > SessionTime-time.Hour {
		return session.Device, false, nil
	}
	if err := s.keepSession(token, session.Device); err != nil {
		if Trouble(err) != "" { // it holds as it is: nobody is shut out because the disk is full
			return session.Device, false, nil
		}
		return "", false, err
	}
	return session.Device, true, nil
}

// Device is the name of the device that keeps the token, or ErrNotFound. Its time is not made longer.
func (s *Studio) Device(token string) (string, error) {
	session, err := s.store.Session(hashOf(token), s.now())
	if errors.Is(err, store.ErrNotFound) {
		return "", ErrNotFound
	}
	return session.Device, err
}

// SignOut forgets the device that keeps the token.
func (s *Studio) SignOut(token string) error {
	defer s.wake(everySession)
	return s.store.EndSession(hashOf(token))
}

// WatchSessions is told when a device was signed out.
func (s *Studio) WatchSessions() (ended <-chan struct{}, stop func()) { return s.Watch(everySession) }
