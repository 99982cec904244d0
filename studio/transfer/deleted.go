package transfer

import (
	"context"
	"time"

	"vastlantern/core/fact"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// kept is for how long what was deleted can be brought back.
const kept = 30 * 24 * time.Hour

// thing returns what an address names.
func thing(kind string, id int64) (store.Thing, error) {
	switch k := store.Kind(kind); k {
	case store.KindGroup, store.KindPlan, store.KindClass, store.KindVoice, store.KindProgramme, store.KindRehearsal:
		return store.Thing{Kind: k, ID: id}, nil
	}
	return store.Thing{}, studio.Fail(studio.ErrNotFound, "deleted.kind", "given", kind)
}

// Deletion reports what would go with a group, a plan, a class, a voice, a programme or a rehearsal if it were deleted.
func (tr *Transfer) Deletion(ctx context.Context, kind string, id int64) (contract.Deletion, error) {
	t, err := thing(kind, id)
	if err != nil {
		return contract.Deletion{}, err
	}
	goes, err := tr.studio.Store.With(ctx).Going(t)
	if err != nil {
		return contract.Deletion{}, studio.Missing(err, t.Kind, id)
	}
	d := contract.Deletion{Days: int(kept / (24 * time.Hour))}
	switch t.Kind {
	case store.KindGroup:
		d.Goes = count("plans", goes.Plans).Pointer()
		d.Classes = count("classes", goes.Classes).Pointer()
	case store.KindClass:
		d.Goes = both(count("adjustments", goes.Adjustments), count("remarks", goes.Remarks)).Pointer()
	case store.KindVoice:
		d.Goes = count("recordings", goes.Recordings).Pointer()
	}
	return d, nil
}

// count returns so many of something, by the message "goes.<what>"; none for 0.
func count(what string, n int64) fact.Fact {
	if n == 0 {
		return fact.Fact{}
	}
	return fact.New("goes."+what, what, n)
}

func both(one, other fact.Fact) fact.Fact {
	switch {
	case one.None():
		return other
	case other.None():
		return one
	}
	return fact.New("goes.both", "one", one, "other", other)
}

// Delete puts a group, a plan, a class, a voice, a programme or a rehearsal away; with a group its plans, and its
// classes where they are to go too. It can be brought back for 30 days. A class that is being led is not deleted.
func (tr *Transfer) Delete(ctx context.Context, kind string, id int64, classes bool) (contract.DeletedList, error) {
	t, err := thing(kind, id)
	if err != nil {
		return contract.DeletedList{}, err
	}
	err = tr.classes.WhileNothingBegins(ctx, func(running *studio.Class) error {
		if running != nil &&
			(t.Kind == store.KindClass && id == running.Stored.ID || t.Kind == store.KindGroup && id == running.Stored.GroupID) {
			return studio.FailRunning(running, "class.running")
		}
		if err := tr.Purge(ctx); err != nil {
			return err
		}
		return studio.Missing(tr.studio.Store.With(ctx).Delete(t, classes, tr.studio.Now()), t.Kind, id)
	})
	if err != nil {
		return contract.DeletedList{}, err
	}
	tr.studio.NotifyAll()
	return tr.Deleted(ctx)
}

// BringBack restores what was deleted, and what was deleted with it.
func (tr *Transfer) BringBack(ctx context.Context, kind string, id int64) (contract.DeletedList, error) {
	t, err := thing(kind, id)
	if err != nil {
		return contract.DeletedList{}, err
	}
	if err := tr.Purge(ctx); err != nil {
		return contract.DeletedList{}, err
	}
	if err := tr.studio.Store.With(ctx).BringBack(t, tr.studio.Now()); err != nil {
		return contract.DeletedList{}, studio.MissingDeleted(err, t.Kind, id)
	}
	tr.studio.NotifyAll()
	return tr.Deleted(ctx)
}

// Purge removes for good what cannot be brought back any more. It writes, so that looking does not call it.
func (tr *Transfer) Purge(ctx context.Context) error {
	return tr.studio.Store.With(ctx).Purge(tr.studio.Now().Add(-kept))
}

// Deleted returns what can be brought back, the latest first.
func (tr *Transfer) Deleted(ctx context.Context) (contract.DeletedList, error) {
	list := contract.DeletedList{Deleted: []contract.Deleted{}}
	all, err := tr.studio.Store.With(ctx).Deleted()
	for _, d := range all {
		if d.At.Before(tr.studio.Now().Add(-kept)) {
			continue
		}
		one := contract.Deleted{Kind: string(d.Kind), ID: d.ID, Name: d.Name, UntilMS: contract.Millis(d.At.Add(kept))}
		if !d.StartedAt.IsZero() {
			one.StartedMS = contract.Millis(d.StartedAt)
		}
		list.Deleted = append(list.Deleted, one)
	}
	return list, err
}
