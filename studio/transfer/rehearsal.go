package transfer

import (
	"bytes"
	"cmp"
	"context"
	"encoding/json"

	"vastlantern/core/fact"
	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// rehearsals returns what was led with simulated rooms.
func (tr *Transfer) rehearsals(ctx context.Context) ([]contract.ExportRehearsal, error) {
	stored, err := tr.studio.Store.With(ctx).EveryRehearsal()
	var list []contract.ExportRehearsal
	for _, r := range stored {
		_, err := sheet.ReadDocument(bytes.NewReader(r.Document))
		for what, text := range map[string][]byte{"setting": r.Setting, "script": r.Script, "digest": r.Digest} {
			if len(text) > 0 && !json.Valid(text) {
				err = cmp.Or(err, error(fact.New("entry.not-json", "what", what)))
			}
		}
		if err != nil {
			tr.studio.NoteDamage(store.KindRehearsal, r.ID, err)
			continue
		}
		one := contract.ExportRehearsal{
			UID:       r.UID,
			StartedAt: r.StartedAt,
			UpdatedAt: r.UpdatedAt,
			EndedAt:   ifAny(r.EndedAt),
			DeletedAt: ifAny(r.DeletedAt),
			AtMS:      r.AtMS,
			Looks:     r.Looks,
			Setting:   compact(r.Setting), Script: compact(r.Script), Document: compact(r.Document),
		}
		if len(r.Digest) > 0 {
			one.Digest = compact(r.Digest)
		}
		list = append(list, one)
	}
	return list, err
}

// rehearsal is what is done with a rehearsal of the file: the form that was changed last counts.
func (i *Import) rehearsal(here *contract.ExportRehearsal, in contract.ExportRehearsal) error {
	document, p, err := rewritten(in.Document)
	if p == nil {
		return fact.Wrap(err, "entry.plan-unreadable", "why", err)
	}
	row := store.Rehearsal{
		UID:       in.UID,
		StartedAt: in.StartedAt,
		UpdatedAt: in.UpdatedAt,
		EndedAt:   orZero(in.EndedAt),
		DeletedAt: orZero(in.DeletedAt),
		AtMS:      in.AtMS,
		Looks:     in.Looks,
		Setting:   compact(in.Setting), Script: compact(in.Script), Document: document,
	}
	if len(in.Digest) > 0 {
		row.Digest = compact(in.Digest)
	}
	change := Change{Kind: "rehearsal", Name: named(p.Title), Does: doesAdd}
	if here == nil {
		return i.put(change, func(st *store.Store) error {
			_, err := st.AddRehearsal(row)
			return err
		})
	}
	row.ID = i.rehearsals[in.UID]
	change.Does, change.What = does(
		here,
		in,
		changedAt(here.UpdatedAt, here.DeletedAt),
		changedAt(in.UpdatedAt, in.DeletedAt),
	)
	return i.replace(change, here.DeletedAt, in.DeletedAt, func(st *store.Store) error { return st.SaveRehearsal(row) })
}
