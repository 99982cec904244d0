package studio

import (
	"context"
	"encoding/json"
	"errors"
	"log/slog"
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

// batch is how many classes are digested at once where many have none, as after an import.
const batch = 200

// Prepare does at the start what nobody waits for: it removes for good what was deleted long ago, and works out what
// lists and searches need of the classes that have changed, which may be many after an update.
func (s *Studio) Prepare(ctx context.Context) error {
	if err := s.purge(); err != nil {
		return err
	}
	for {
		if ctx.Err() != nil {
			return nil // the next start goes on with it
		}
		more, err := s.digestBatch()
		if err != nil || !more {
			return err
		}
	}
}

// digestBatch tells whether there may be more.
func (s *Studio) digestBatch() (more bool, err error) {
	s.digesting.Lock()
	defer s.digesting.Unlock()
	classes, err := s.store.Undigested(batch)
	if err != nil || len(classes) == 0 {
		return false, err
	}
	digests := make([]store.Digest, len(classes))
	for i, stored := range classes {
		if digests[i], err = s.digest(stored); err != nil {
			return false, err
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
	s.notify(everyClass) // there is more in the lists
	return len(classes) == batch, err
}

// digestOne works out one class after it has changed. Where that fails the class is as it was, and the next start does it.
func (s *Studio) digestOne(stored store.Class) {
	d, err := s.digest(stored)
	if err == nil {
		err = s.store.SaveDigest(d)
	}
	if err != nil {
		slog.Error("a class is not in the lists yet", "class", stored.ID, "error", err)
	}
}

// digest is what lists need of a class. One that cannot be read has a digest that says so.
func (s *Studio) digest(stored store.Class) (store.Digest, error) {
	l, err := s.open(stored.ID)
	if errors.Is(err, ErrDamaged) {
		return store.Digest{ClassID: stored.ID, Over: true, Damaged: err.Error()}, nil
	}
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
	left, err := s.store.WithoutDigest()
	if err != nil {
		return found, err
	}
	found.Left = left
	running, err := s.running()
	if err != nil {
		return found, err
	}
	groups, err := s.groupsEver()
	if err != nil {
		return found, err
	}
	search, err := s.search(want)
	if err != nil {
		return found, err
	}
	search.Skip, search.Most = max(0, want.Skip), shownClasses+1
	list, err := s.find(search)
	if err != nil {
		return found, err
	}
	if len(list) > shownClasses {
		list, found.More = list[:shownClasses], true
	}
	for _, one := range list {
		card := contract.ClassCard{
			ID: one.Class.ID, Title: one.Digest.Title, Group: groups[one.GroupID], StartedMS: millis(one.StartedAt), LengthMS: one.Digest.LengthMS,
			Passages: one.Digest.Headlines, Eased: one.Digest.Eased,
		}
		if running != nil && running.stored.ID == card.ID {
			card.Running, card.LengthMS = true, running.at(s.now())
		}
		found.Classes = append(found.Classes, card)
	}
	return found, nil
}

// Bounds of a search: what is looked for in ten years of classes must not keep the machine busy.
const (
	mostWords     = 20
	longestSearch = 300 // bytes
	searchTime    = 2 * time.Second
)

// find is a search that is given up where it takes too long.
func (s *Studio) find(search store.Search) ([]store.Listed, error) {
	ctx, cancel := context.WithTimeout(context.Background(), searchTime)
	defer cancel()
	list, err := s.store.Find(ctx, search)
	if ctx.Err() != nil && err != nil {
		return nil, fail(ErrInvalid, "This search takes too long. Choose fewer days, or a group.")
	}
	return list, err
}

// search is what is asked for, in the store's terms.
func (s *Studio) search(want contract.Search) (search store.Search, err error) {
	if len(want.Words) > longestSearch || len(strings.Fields(want.Words)) > mostWords || len(want.Practice) > longestLabel {
		return search, fail(ErrInvalid, "A search has at most %d words and %d characters.", mostWords, longestSearch)
	}
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
			return contract.Record{}, fail(ErrInvalid, "Attendance is a number from 0 to %d.", mostPeople)
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
	if stored, err := s.store.Class(class); err == nil {
		s.digestOne(stored)
	}
	s.notify(everyClass)
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
