package record

import (
	"context"
	"encoding/json"
	"slices"
	"time"

	"vastlantern/core/taught"
	"vastlantern/store"
)

// remembered is how many classes back a group's past is looked at: about a year of weekly ones.
const remembered = 52

// past is what a group was taught, the oldest class first.
type past struct {
	classes []pastClass
	history taught.History
}

type pastClass struct {
	stored store.Class
	record taught.Record
}

// pasts is what was worked out, good until a class changes: a plan that is being written asks for it at every
// keystroke.
type pasts struct {
	changes int64
	byGroup map[int64]*past
}

// History returns what a group has been taught; all groups together where it is 0.
func (r *Records) History(ctx context.Context, group int64) (*taught.History, error) {
	p, err := r.past(ctx, group)
	if err != nil {
		return nil, err
	}
	return &p.history, nil
}

// Since returns the records of the classes of a group that began then or later and are over, by their number; of all
// groups where it is 0.
func (r *Records) Since(ctx context.Context, group int64, from time.Time) (map[int64]taught.Record, error) {
	const most = 1000 // of a programme of sixty steps
	classes, err := r.find(ctx, store.Search{Group: group, From: from, Over: true, Records: true, Most: most})
	records := map[int64]taught.Record{}
	for _, listed := range classes {
		var record taught.Record
		if json.Unmarshal(listed.Digest.Record, &record.Passages) != nil ||
			json.Unmarshal(listed.Digest.Told, &record.Told) != nil {
			continue // it is told where the past is read
		}
		records[listed.Class.ID] = record
	}
	return records, err
}

// Last returns the class that a group was taught last and that is over, 0 if there was none.
func (r *Records) Last(ctx context.Context, group int64) (int64, error) {
	p, err := r.past(ctx, group)
	if err != nil || len(p.classes) == 0 {
		return 0, err
	}
	return p.classes[len(p.classes)-1].stored.ID, nil
}

// past returns the classes of a group that are over.
func (r *Records) past(ctx context.Context, group int64) (*past, error) {
	r.remembering.Lock()
	defer r.remembering.Unlock()
	if changes := r.studio.Changes(); r.pasts.byGroup == nil || r.pasts.changes != changes {
		r.pasts = pasts{changes, map[int64]*past{}}
	}
	if known := r.pasts.byGroup[group]; known != nil {
		return known, nil
	}
	classes, err := r.find(ctx, store.Search{Group: group, Over: true, Records: true, Most: remembered})
	if err != nil {
		return nil, err
	}
	of, err := r.library.Group(ctx, group)
	if err != nil {
		return nil, err
	}
	p := &past{}
	if of != nil {
		p.history.Level = of.Level
	}
	for _, listed := range slices.Backward(classes) {
		var record taught.Record
		if err := json.Unmarshal(listed.Digest.Record, &record.Passages); err != nil {
			r.studio.NoteDamage(store.KindClass, listed.Class.ID, err)
			continue
		}
		if err := json.Unmarshal(listed.Digest.Told, &record.Told); err != nil {
			r.studio.NoteDamage(store.KindClass, listed.Class.ID, err)
			continue
		}
		p.classes = append(p.classes, pastClass{listed.Class, record})
		p.history.Add(record)
	}
	guides, err := r.programmes.Guides(ctx, group)
	if err != nil {
		return nil, err
	}
	for _, guide := range guides {
		p.history.Follow(guide)
	}
	r.pasts.byGroup[group] = p
	return p, nil
}
