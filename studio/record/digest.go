package record

import (
	"context"
	"encoding/json"
	"errors"
	"log/slog"
	"strings"

	"vastlantern/core/fold"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/taught"
	"vastlantern/store"
	"vastlantern/studio"
)

// batch is how many classes are digested at once where many have none, as after an import.
const batch = 200

// KeepLists works out what lists and searches need of the classes that have changed, which may be many after an update
// or an import, until all is done or the context ends: the next start goes on with it.
func (r *Records) KeepLists(ctx context.Context) error {
	for more := true; more && ctx.Err() == nil; {
		var err error
		if more, err = r.digestBatch(ctx); err != nil {
			return err
		}
	}
	return nil
}

// digestBatch reports whether there may be more.
func (r *Records) digestBatch(ctx context.Context) (more bool, err error) {
	r.digesting.Lock()
	defer r.digesting.Unlock()
	ids, err := r.studio.Store.With(ctx).Undigested(batch)
	if err != nil || len(ids) == 0 {
		return false, err
	}
	digests := make([]store.Digest, len(ids))
	for i, id := range ids {
		if digests[i], err = r.digest(ctx, id); err != nil {
			return false, err
		}
	}
	err = r.studio.Store.With(ctx).InTransaction(func(st *store.Store) error { // one write to the disk for all of them
		for _, d := range digests {
			if err := st.SaveDigest(d); err != nil {
				return err
			}
		}
		return nil
	})
	r.studio.NotifyAll() // there is more in the lists
	return len(ids) == batch, err
}

// digestOne works out one class after it has changed. Where that fails the class is as it was, and the next start does
// it.
func (r *Records) digestOne(ctx context.Context, stored store.Class) {
	d, err := r.digest(ctx, stored.ID)
	if err == nil {
		err = r.studio.Store.With(ctx).SaveDigest(d)
	}
	if err != nil {
		slog.Error("a class is not in the lists yet", "class", stored.ID, "error", err)
	}
}

// digest returns what lists need of a class. One that cannot be read has a digest that says so.
func (r *Records) digest(ctx context.Context, class int64) (store.Digest, error) {
	l, err := r.classes.Open(ctx, class)
	if errors.Is(err, studio.ErrDamaged) {
		return store.Digest{ClassID: class, Over: true, Damaged: err.Error()}, nil
	}
	if err != nil {
		return store.Digest{}, err
	}
	now := r.studio.Now()
	record := taught.Of(l.Plan, l.Script, l.At(now))
	d := store.Digest{
		ClassID:   class,
		Over:      !l.Running(now),
		Title:     l.Plan.Title,
		LengthMS:  record.Taught,
		Headlines: []string{},
		Practices: []string{},
	}
	words := []string{l.Plan.Title}
	for i := range l.Plan.Passages {
		passage := &l.Plan.Passages[i]
		words = append(words, namesOf(passage)...)
		d.Eased = d.Eased || record.Passages[i].Eased
		if passage.Type == plan.Practice {
			d.Headlines = append(d.Headlines, headline(passage))
			d.Practices = append(d.Practices, passage.Practice.ID)
		}
	}
	for i, a := range l.Answers {
		if a.Do == pace.Note && l.Sent[i].Aside == nil {
			words = append(words, a.Text)
		}
	}
	remarks, err := r.studio.Store.With(ctx).Remarks(class)
	for _, r := range remarks {
		words = append(words, r.Text)
	}
	if err != nil {
		return d, err
	}
	told, err := r.told(ctx, class)
	if err != nil {
		return d, err
	}
	if d.Told, err = json.Marshal(told); err != nil {
		return d, err
	}
	var sum taught.Sum
	sum.Add(record.Taught, record.Passages)
	if d.Sum, err = json.Marshal(sum); err != nil {
		return d, err
	}
	d.Words = fold.Text(strings.Join(words, "\n"))
	d.Record, err = json.Marshal(record.Passages)
	return d, err
}
