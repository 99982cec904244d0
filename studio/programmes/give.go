package programmes

import (
	"bytes"
	"context"
	"encoding/json"
	"time"

	"vastlantern/core/plan"
	"vastlantern/core/programme"
	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Give has another group follow the same programme from its first step on, at its own speed.
func (ps *Programmes) Give(ctx context.Context, id int64, to contract.ProgrammeGive) (contract.ProgrammeSheet, error) {
	stored, err := ps.studio.Store.With(ctx).Programme(id)
	if err != nil {
		return contract.ProgrammeSheet{}, studio.Missing(err, store.KindProgramme, id)
	}
	var of programme.Programme
	if err := json.Unmarshal(stored.Programme, &of); err != nil {
		return contract.ProgrammeSheet{}, studio.Fail(studio.ErrDamaged, "programme.unreadable", "why", err)
	}
	return ps.start(ctx, stored.Base, of, to)
}

// start has a group follow a programme whose first class is at a time.
func (ps *Programmes) start(
	ctx context.Context, base []byte, of programme.Programme, to contract.ProgrammeGive,
) (contract.ProgrammeSheet, error) {
	starts, err := time.Parse(time.RFC3339, to.StartsAt)
	if err != nil || !plan.InCalendar(starts) {
		return contract.ProgrammeSheet{}, studio.Fail(studio.ErrInvalid, "programme.starts", "given", to.StartsAt)
	}
	if starts.Add(missedAfter).Before(ps.studio.Now()) {
		return contract.ProgrammeSheet{}, studio.Fail(studio.ErrInvalid, "programme.day-over")
	}
	if to.GroupID != 0 {
		if group, err := ps.library.Group(ctx, to.GroupID); err != nil || group == nil {
			if err == nil {
				err = studio.Fail(studio.ErrNotFound, "missing.group", "id", to.GroupID)
			}
			return contract.ProgrammeSheet{}, err
		}
	}
	row, err := ps.checked(ctx, store.Programme{GroupID: to.GroupID, Base: base}, of)
	if err != nil {
		return contract.ProgrammeSheet{}, err
	}
	err = ps.studio.Store.With(ctx).InTransaction(func(st *store.Store) error {
		if row, err = st.AddProgramme(row); err != nil {
			return err
		}
		first, err := ps.making(row, of).plan(ctx, 0, starts, 1)
		if err != nil {
			return err
		}
		_, err = st.AddPlan(first)
		return err
	})
	if err != nil {
		return contract.ProgrammeSheet{}, err
	}
	return ps.moved(ctx, row.ID)
}

// fileFormat and fileVersion mark a programme as a file.
const (
	fileFormat  = "vast-lantern-programme"
	fileVersion = 1
)

// File returns a programme as a file that another machine can begin: its steps, and the class it was begun with.
// Neither
// groups nor days are in it.
func (ps *Programmes) File(ctx context.Context, id int64) (studio.File, error) {
	now, err := ps.standing(ctx, id)
	if err != nil {
		return studio.File{}, err
	}
	file := contract.ProgrammeFile{Format: fileFormat, Version: fileVersion, Programme: now.programme}
	if file.Base, err = ps.handed(ctx, now.row.Base, now.row.GroupID); err != nil {
		return studio.File{}, err
	}
	for i := range file.Programme.Steps {
		if step := &file.Programme.Steps[i]; step.Whole() {
			if step.Plan, err = ps.handed(ctx, step.Plan, now.row.GroupID); err != nil {
				return studio.File{}, err
			}
		}
	}
	data, err := json.MarshalIndent(file, "", "  ")
	return studio.File{
		Name: studio.FileName(now.programme.Name) + ".programme.json", Type: "application/json", Data: data,
	}, err
}

// handed returns a plan file with the practices of the teacher's own that it is led with, and without a day.
func (ps *Programmes) handed(ctx context.Context, document []byte, group int64) ([]byte, error) {
	doc, _, err := ps.read(ctx, document, group)
	if err != nil {
		return nil, err
	}
	doc.Undate()
	return json.Marshal(doc)
}

// Bring begins a programme from a file, for a group and from a time on.
func (ps *Programmes) Bring(ctx context.Context, in contract.ProgrammeBring) (contract.ProgrammeSheet, error) {
	if in.File.Format != fileFormat || in.File.Version != fileVersion {
		return contract.ProgrammeSheet{}, studio.Fail(studio.ErrInvalid, "programme.file", "format", fileFormat)
	}
	if _, _, err := sheet.ReadPlan(bytes.NewReader(in.File.Base)); err != nil {
		return contract.ProgrammeSheet{}, studio.FailInPlan(err, "programme.file-base")
	}
	return ps.start(ctx, in.File.Base, in.File.Programme, in.ProgrammeGive)
}
