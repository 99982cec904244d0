package transfer

import (
	"bytes"
	"context"
	"io"
	"time"

	"vastlantern/core/fact"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// File returns everything as one file, named by the day.
func (tr *Transfer) File(ctx context.Context) (studio.File, error) {
	var text bytes.Buffer
	err := tr.Export(ctx, &text)
	return studio.File{
		Name: "vast-lantern-" + tr.studio.Now().Local().Format(time.DateOnly) + ".json",
		Type: "application/json",
		Data: text.Bytes(),
	}, err
}

// BringIn reports what a file that Export has written would change here and, with apply, changes all of it or nothing.
// Before anything is changed a copy of the data file is kept beside it. While a class is led nothing is imported. Where
// the context ends first, nothing is changed. size is that of the file in bytes, 0 or less where it is not known.
func (tr *Transfer) BringIn(ctx context.Context, r io.Reader, size int64, apply bool) (contract.Imported, error) {
	tr.progress.of.Store(max(0, size))
	defer tr.progress.note(contract.ImportProgress{})
	read, err := tr.ReadImport(ctx, r)
	if err != nil {
		return contract.Imported{}, studio.Fail(studio.ErrInvalid, "import.nothing-changed", "why", err)
	}
	would := contract.Imported{Lines: read.Lines(), Changes: read.Changing()}
	if !apply || !would.Changes {
		return would, nil
	}
	err = tr.classes.WhileNothingBegins(ctx, func(running *studio.Class) error {
		if running != nil {
			return studio.FailRunning(running, "class.running")
		}
		return nil
	})
	if err != nil {
		return would, err
	}
	would.Kept = store.Beside(tr.studio.Store.Path(), "", time.Now())
	if err := tr.studio.Store.With(ctx).Backup(would.Kept); err != nil {
		return would, fact.Wrap(err, "import.no-copy", "why", err)
	}
	if err := read.Apply(ctx); err != nil {
		return would, fact.Wrap(err, "import.failed", "why", err)
	}
	would.Done = true
	return would, nil
}
