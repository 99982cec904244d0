package studio

import (
	"encoding/json"
	"slices"
	"strconv"
	"strings"
	"time"

	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/taught"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// shownClasses is how many taught classes a list shows at once.
const shownClasses = 50

// batch is how many classes are digested at once where many have none, as after an update.
const batch = 200

// digestAll works out what lists and searches need of the classes that have changed or have come to their end since.
func (s *Studio) digestAll() error {
	s.digesting.Lock()
	defer s.digesting.Unlock()
	for {
		if more, err := s.digestBatch(); err != nil || !more {
			return err
		}
	}
}

// Prepare is for the start, where nobody waits for it: it removes for good what was deleted long ago, and does what
// digestAll does, which may be much after an update.
func (s *Studio) Prepare() error {
	if err := s.purge(); err != nil {
		return err
	}
	for {
		s.digesting.Lock()
		more, err := s.digestBatch()
		s.digesting.Unlock()
		if err != nil || !more {
			return err
		}
	}
}

// digestSome is one batch of it, unless it is being done already, and tells how many classes are still without.
func (s *Studio) digestSome() (left int64, err error) {
	if s.digesting.TryLock() {
		more, err := s.digestBatch()
		s.digesting.Unlock()
		if err != nil || !more {
			return 0, err
		}
	}
	return s.store.WithoutDigest()
}

// digestBatch tells whether there may be more. Who calls it holds s.digesting.
func (s *Studio) digestBatch() (more bool, err error) {
	classes, err := s.store.Undigested(batch)
	if err != nil {
		return false, err
	}
	over, digests := 0, make([]store.Digest, len(classes))
	for i, stored := range classes {
		if digests[i], err = s.digest(stored); err != nil {
			return false, err
		}
		if digests[i].Over {
			over++
		}
	}
	err = s.store.InTransaction(func(st *store.Store) error { // one write to the disk for all of them
		for _, d := range digests {
			if err := st.SaveDigest(d); err != nil {
				return err
			}
		}
		return nil
	})
	return over > 0 && len(classes) == batch, err // else what is left is running
}

func (s *Studio) digest(stored store.Class) (store.Digest, error) {
	l, err := s.fold(stored)
	if err != nil {
		return store.Digest{}, err
	}
	now := s.now()
	record := taught.Of(l.plan, l.script, l.at(now))
	d := store.Digest{ClassID: stored.ID, Over: !l.running(now), Title: l.plan.Title, LengthMS: record.Taught, Headlines: []string{}, Practices: []string{}}
	words := []string{l.plan.Title}
	for i := range l.plan.Passages {
		passage := &l.plan.Passages[i]
		words = append(words, passage.Name())
		d.Eased = d.Eased || record.Passages[i].Eased
		if passage.Type == plan.Practice {
			d.Headlines = append(d.Headlines, headline(passage))
			d.Practices = append(d.Practices, passage.Practice.ID)
		}
	}
	for _, a := range l.answers {
		if a.Do == pace.Note {
			words = append(words, a.Text)
		}
	}
	remarks, err := s.store.Remarks(stored.ID)
	for _, r := range remarks {
		words = append(words, r.Text)
	}
	if err != nil {
		return d, err
	}
	d.Words = strings.Join(words, "\n")
	d.Record, err = json.Marshal(record.Passages)
	return d, err
}

// Find is the classes that are asked for, the newest first.
func (s *Studio) Find(want contract.Search) (contract.Found, error) {
	found := contract.Found{Classes: []contract.ClassCard{}}
	left, err := s.digestSome()
	if err != nil {
		return found, err
	}
	found.Left = left
	groups, err := s.groupsEver()
	if err != nil {
		return found, err
	}
	search, err := s.search(want)
	if err != nil {
		return found, err
	}
	search.Skip, search.Most = max(0, want.Skip), shownClasses+1
	list, err := s.store.Find(search)
	if err != nil {
		return found, err
	}
	if len(list) > shownClasses {
		list, found.More = list[:shownClasses], true
	}
	for _, one := range list {
		card := contract.ClassCard{
			ID: one.Class.ID, Title: one.Digest.Title, Group: groups[one.GroupID], StartedMS: millis(one.StartedAt), LengthMS: one.Digest.LengthMS,
			Running: !one.Digest.Over, Passages: one.Digest.Headlines, Eased: one.Digest.Eased,
		}
		found.Classes = append(found.Classes, card)
	}
	return found, nil
}

// search is what is asked for, in the store's terms.
func (s *Studio) search(want contract.Search) (search store.Search, err error) {
	search = store.Search{Group: want.GroupID, Practice: want.Practice, Words: strings.Fields(want.Words)}
	if want.Eased {
		search.Eased = &want.Eased
	}
	if search.From, err = day(want.From, 0, s.now().Location()); err != nil {
		return search, err
	}
	search.To, err = day(want.To, 1, s.now().Location())
	return search, err
}

// day is the beginning of a day, or of one some days later; zero for none.
func day(text string, later int, zone *time.Location) (time.Time, error) {
	if text == "" {
		return time.Time{}, nil
	}
	at, err := time.ParseInLocation(time.DateOnly, text, zone)
	if err != nil {
		return at, fail(ErrInvalid, "A date is written as 2026-03-02, not %q.", text)
	}
	return at.AddDate(0, 0, later), nil
}

// Kinds of remarks. Took has one word of a short list.
const (
	remarkPeople     = "people"
	remarkTook       = "took"
	remarkNote       = "note"
	remarkCorrection = "correction"
)

// took is how a room can have taken a class.
var took = []string{"settled", "bright", "tired", "restless", "strained"}

const longestRemark = 2000 // bytes

// AddRemark adds something to a record, with its time. The record itself is never edited.
func (s *Studio) AddRemark(class int64, r contract.Remark) (contract.Record, error) {
	r.Text = strings.TrimSpace(r.Text)
	switch r.Kind {
	case remarkPeople:
		if n, err := strconv.Atoi(r.Text); err != nil || n < 0 || n > mostPeople {
			return contract.Record{}, fail(ErrInvalid, "How many were there? A number from 0 to %d.", mostPeople)
		}
	case remarkTook:
		if !slices.Contains(took, r.Text) {
			return contract.Record{}, fail(ErrInvalid, "How the room took it is one of %s.", strings.Join(took, ", "))
		}
	case remarkNote, remarkCorrection:
		if r.Text == "" || len(r.Text) > longestRemark {
			return contract.Record{}, fail(ErrInvalid, "A %s has 1 to %d characters.", r.Kind, longestRemark)
		}
	default:
		return contract.Record{}, fail(ErrInvalid, "There is no remark %q.", r.Kind)
	}
	if err := s.store.AddRemark(class, store.Remark{At: s.now(), Kind: r.Kind, Text: r.Text}); err != nil {
		return contract.Record{}, missing(err, "class", class)
	}
	return s.Record(class)
}

// remarks is what was added to a record.
func (s *Studio) remarks(class int64) ([]contract.Remark, error) {
	stored, err := s.store.Remarks(class)
	list := []contract.Remark{}
	for _, r := range stored {
		list = append(list, contract.Remark{AtMS: millis(r.At), Kind: r.Kind, Text: r.Text})
	}
	return list, err
}
