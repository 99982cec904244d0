package studio

import (
	"fmt"
	"strings"
	"time"

	"vastlantern/store"
	"vastlantern/studio/contract"
)

// kept is for how long what was deleted can be brought back.
const kept = 30 * 24 * time.Hour

// thing is what an address names.
func thing(kind string, id int64) (store.Thing, error) {
	switch k := store.Kind(kind); k {
	case store.KindGroup, store.KindPlan, store.KindClass:
		return store.Thing{Kind: k, ID: id}, nil
	}
	return store.Thing{}, fail(ErrNotFound, "There is nothing of the kind %q.", kind)
}

// Deletion tells what would go with a group, a plan or a class if it were deleted.
func (s *Studio) Deletion(kind string, id int64) (contract.Deletion, error) {
	t, err := thing(kind, id)
	if err != nil {
		return contract.Deletion{}, err
	}
	goes, err := s.store.Going(t)
	if err != nil {
		return contract.Deletion{}, missing(err, kind, id)
	}
	d := contract.Deletion{Days: int(kept / (24 * time.Hour))}
	switch t.Kind {
	case store.KindGroup:
		d.Goes = count(goes.Plans, "plan")
		d.Classes = count(goes.Classes, "taught class", "taught classes")
	case store.KindClass:
		d.Goes = join(count(goes.Adjustments, "adjustment"), count(goes.Remarks, "remark"))
	}
	return d, nil
}

// count is so many of something in words, empty for none.
func count(n int64, one string, more ...string) string {
	switch {
	case n == 0:
		return ""
	case n == 1:
		return "1 " + one
	case len(more) > 0:
		return fmt.Sprint(n, " ", more[0])
	}
	return fmt.Sprint(n, " ", one, "s")
}

func join(parts ...string) string {
	list := []string{}
	for _, part := range parts {
		if part != "" {
			list = append(list, part)
		}
	}
	return strings.Join(list, " and ")
}

// Delete puts a group, a plan or a class away; with a group its plans, and its classes where they are to go too. It can
// be brought back for 30 days. A class that is being led is not deleted.
func (s *Studio) Delete(kind string, id int64, classes bool) (contract.DeletedList, error) {
	none := contract.DeletedList{}
	t, err := thing(kind, id)
	if err != nil {
		return none, err
	}
	s.leading.Lock() // no class begins meanwhile
	defer s.leading.Unlock()
	running, err := s.running()
	if err != nil {
		return none, err
	}
	if running != nil && (t.Kind == store.KindClass && id == running.stored.ID || t.Kind == store.KindGroup && id == running.stored.GroupID) {
		return none, &Failure{ErrConflict, contract.Problem{Say: fmt.Sprintf("%q is being led just now: end it first.", running.plan.Title), ClassID: running.stored.ID}}
	}
	if err := s.purge(); err != nil {
		return none, err
	}
	if err := s.store.Delete(t, classes, s.now()); err != nil {
		return none, missing(err, kind, id)
	}
	s.notify(everyClass)
	return s.Deleted()
}

// BringBack brings back what was deleted, and what went with it.
func (s *Studio) BringBack(kind string, id int64) (contract.DeletedList, error) {
	t, err := thing(kind, id)
	if err != nil {
		return contract.DeletedList{}, err
	}
	if err := s.purge(); err != nil {
		return contract.DeletedList{}, err
	}
	if err := s.store.BringBack(t, s.now()); err != nil {
		return contract.DeletedList{}, missing(err, "deleted "+kind, id)
	}
	s.notify(everyClass)
	return s.Deleted()
}

// purge removes for good what can not be brought back any more. It writes, so that looking does not call it.
func (s *Studio) purge() error { return s.store.Purge(s.now().Add(-kept)) }

// Deleted is what can be brought back, the latest first.
func (s *Studio) Deleted() (contract.DeletedList, error) {
	list := contract.DeletedList{Deleted: []contract.Deleted{}}
	all, err := s.store.Deleted()
	for _, d := range all {
		if d.At.Before(s.now().Add(-kept)) {
			continue
		}
		one := contract.Deleted{Kind: string(d.Kind), ID: d.ID, Name: d.Name, UntilMS: millis(d.At.Add(kept))}
		if !d.StartedAt.IsZero() {
			one.StartedMS = millis(d.StartedAt)
		}
		list.Deleted = append(list.Deleted, one)
	}
	return list, err
}
