package studio

import (
	"crypto/rand"
	"errors"
	"slices"
	"strings"
	"time"

	"vastlantern/store"
	"vastlantern/studio/contract"
)

// everyClass is what to watch for a change of any class, and for one that begins.
const everyClass = 0

// everySession is what to watch for a device that is signed out.
const everySession = -1

const roomCodeName = "room code"

// letters of a room's code: none that can be taken for another when it is read from a distance.
const letters = "ABCDEFGHJKLMNPRSTUVWXYZ"

const codeLength = 5

// RoomCode is the short code that joins this teacher's room. It stays the same, so that an address that was shared
// once is good for every class.
func (s *Studio) RoomCode() (string, error) {
	s.leading.Lock()
	defer s.leading.Unlock()
	code, err := s.knownCode()
	if err != nil || code != "" {
		return code, err
	}
	random := make([]byte, codeLength)
	rand.Read(random) // never fails
	for i, b := range random {
		random[i] = letters[int(b)%len(letters)]
	}
	if err := s.store.SaveSetting(roomCodeName, random); err != nil {
		return "", err
	}
	return s.knownCode()
}

// knownCode is the room's code, empty where there is none yet. It never changes, so that it is read once: screens join
// also while the data file cannot be read.
func (s *Studio) knownCode() (string, error) {
	if code := s.code.Load(); code != nil {
		return *code, nil
	}
	value, err := s.store.Setting(roomCodeName)
	if errors.Is(err, store.ErrNotFound) {
		return "", nil
	}
	if err != nil {
		return "", err
	}
	code := string(value)
	s.code.Store(&code)
	return code, nil
}

// IsRoom tells whether the code is the room's.
func (s *Studio) IsRoom(code string) (bool, error) {
	known, err := s.knownCode()
	return known != "" && strings.EqualFold(known, code), err
}

// Room is what a room screen shows: the class that is led, without what is only for the teacher, or nothing yet.
func (s *Studio) Room(code string) (contract.Room, error) {
	is, err := s.IsRoom(code)
	if err != nil {
		return contract.Room{}, err
	}
	if !is {
		return contract.Room{}, fail(ErrNotFound, "There is no room %q. Ask for its code again.", code)
	}
	if public := s.public.Load(); public != nil && public.changes == s.Changes() && s.now().Before(public.until) {
		return contract.Room{Score: &public.score}, nil
	}
	running, err := s.running()
	if err != nil || running == nil {
		return contract.Room{}, err
	}
	score, err := s.score(running)
	if err != nil {
		return contract.Room{}, err
	}
	public := forTheRoom(score)
	return contract.Room{Score: &public}, nil
}

// published is what the room gets of the last change: everybody asks for it at once, and it need not be worked out again.
type published struct {
	changes int64
	until   time.Time
	score   contract.Score
}

// fresh is how long it serves: who comes in later gets the score from the stage in progress on.
const fresh = time.Second

// tellScore works out the score after a change and tells every screen of it.
func (s *Studio) tellScore(l *led) (contract.Score, error) {
	score, err := s.score(l)
	if err == nil {
		now := s.now()
		until := now.Add(fresh)
		if end := l.stored.StartedAt.Add(time.Duration(score.EndMS) * time.Millisecond); score.Wait == nil && end.Before(until) {
			until = end
		}
		s.public.Store(&published{s.Changes() + 1, until, forTheRoom(score)}) // the change that is told next
	}
	s.notify(l.stored.ID)
	return score, err
}

// forTheRoom leaves out what is only for the teacher: scripts, prompts, cautions, the group, what was pressed.
func forTheRoom(s contract.Score) contract.Score {
	s.Group, s.Answer, s.Calls, s.SlotMS, s.Unstored = nil, nil, []contract.Call{}, 0, nil
	passages := make([]contract.ScorePassage, len(s.Passages))
	for i, p := range s.Passages {
		passages[i] = contract.ScorePassage{
			Name: p.Name, Type: p.Type, Rounds: p.Rounds, StartMS: p.StartMS, EndMS: p.EndMS, Counts: p.Counts, Tempo: p.Tempo,
			Cautions: []contract.Caution{}, Findings: []contract.Finding{}, Steps: []string{},
		}
	}
	s.Passages, s.Strands = passages, silent(s.Strands)
	if s.Wait != nil {
		wait := *s.Wait
		wait.Strands = silent(wait.Strands)
		s.Wait = &wait
	}
	return s
}

func silent(strands []contract.Strand) []contract.Strand {
	strands = slices.Clone(strands)
	for i := range strands {
		strands[i].Verbs, strands[i].Practice = nil, ""
	}
	return strands
}
