package transfer

import (
	"encoding/json"

	"vastlantern/core/fact"
	"vastlantern/core/programme"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// programme is what is done with a programme of the file: the form that was changed last counts. Its plans come by
// themselves.
func (i *Import) programme(here *contract.ExportProgramme, in contract.ExportProgramme) error {
	if err := i.refer(in.Group, ""); err != nil {
		return err
	}
	var of programme.Programme
	if err := json.Unmarshal(in.Programme, &of); err != nil {
		return fact.Wrap(err, "entry.steps-unreadable", "why", err)
	}
	if wrong := of.Check(); len(wrong) > 0 {
		return fact.New("several", "list", wrong)
	}
	base, p, err := rewritten(in.Base)
	if p == nil {
		return fact.Wrap(err, "entry.class-unreadable", "why", err)
	}
	row := store.Programme{
		UID:       in.UID,
		Programme: compact(in.Programme),
		Base:      base,
		UpdatedAt: in.UpdatedAt,
		DeletedAt: orZero(in.DeletedAt),
	}
	change := Change{Kind: "programme", Name: named(of.Name), Does: doesAdd}
	if here == nil {
		return i.put(change, func(st *store.Store) error {
			row.GroupID = i.groups[in.Group]
			_, err := st.AddProgramme(row)
			return err
		})
	}
	change.Does, change.What = does(
		here,
		in,
		changedAt(here.UpdatedAt, here.DeletedAt),
		changedAt(in.UpdatedAt, in.DeletedAt),
	)
	return i.replace(change, here.DeletedAt, in.DeletedAt, func(st *store.Store) error {
		row.GroupID = i.groups[in.Group]
		return st.PutProgramme(row)
	})
}
