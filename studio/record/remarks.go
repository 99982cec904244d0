package record

import (
	"context"
	"errors"
	"slices"
	"strconv"
	"strings"

	"vastlantern/core/fact"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Kinds of remarks. A mood is one word of a short list.
const (
	remarkPeople     = "people"
	remarkGentler    = "gentler"
	remarkMood       = "took" // as files and the data file have it
	remarkNote       = "note"
	remarkCorrection = "correction"
	remarkNext       = "next"     // a note for next time
	remarkUsed       = "used"     // the note of this text came back and was used
	remarkPutAway    = "put-away" // the note of this text, or what was not said, is not wanted any more
)

// standing are the kinds that stand beside each other: the newest does not take the place of those before.
var standing = []string{remarkNote, remarkCorrection, remarkNext, remarkUsed, remarkPutAway}

// moods is how a room can be after a class.
var moods = []string{"settled", "bright", "tired", "restless", "strained"}

const longestRemark = 2000 // bytes

// AddRemark adds something to a record, with its time. The record itself is never edited.
func (r *Records) AddRemark(ctx context.Context, class int64, add contract.RemarkAdd) (contract.Record, error) {
	if err := r.AddRemarks(ctx, class, add); err != nil {
		return contract.Record{}, err
	}
	return r.Record(ctx, class)
}

// AddRemarks adds several things in their order. Where one of them is wrong none is added.
func (r *Records) AddRemarks(ctx context.Context, class int64, all ...contract.RemarkAdd) error {
	if len(all) == 0 {
		return nil
	}
	for _, add := range all {
		if err := check(add); err != nil {
			return err
		}
	}
	for _, add := range all {
		if err := r.add(ctx, class, add); err != nil {
			return err
		}
	}
	if stored, err := r.studio.Store.With(ctx).Class(class); err == nil {
		r.studio.ClassChanged(ctx, stored)
	}
	r.studio.NotifyAll()
	return nil
}

// add adds one. Of most kinds the newest counts: it is added in the place of the one that the screen showed, so that of
// two screens none hides what the other said. The same may come twice, where the answer to the first was lost.
func (r *Records) add(ctx context.Context, class int64, add contract.RemarkAdd) error {
	remark := store.Remark{At: r.studio.Now(), Kind: add.Kind, Text: strings.TrimSpace(add.Text)}
	if slices.Contains(standing, add.Kind) {
		return studio.Missing(r.studio.Store.With(ctx).AddRemark(class, remark), store.KindClass, class)
	}
	err := r.studio.Store.With(ctx).ReplaceRemark(class, remark, add.Newest)
	if !errors.Is(err, store.ErrTaken) {
		return studio.Missing(err, store.KindClass, class)
	}
	there, err := r.studio.Store.With(ctx).Remarks(class)
	if err != nil {
		return err
	}
	newest := store.Remark{}
	for _, one := range there {
		if one.Kind == add.Kind {
			newest = one
		}
	}
	if newest.Text == remark.Text {
		return nil
	}
	return studio.ChangedMeanwhile(fact.New("changed.remark", "there", newest.Text, "yours", remark.Text))
}

// check reports what is wrong with what is to be added.
func check(add contract.RemarkAdd) error {
	add.Text = strings.TrimSpace(add.Text)
	switch add.Kind {
	case remarkPeople, remarkGentler:
		if n, err := strconv.Atoi(add.Text); err != nil || n < 0 || n > contract.MostPeople {
			return studio.Fail(studio.ErrInvalid, "remark.people", "most", contract.MostPeople)
		}
	case remarkMood:
		if !slices.Contains(moods, add.Text) {
			return studio.Fail(studio.ErrInvalid, "remark.mood", "allowed", strings.Join(moods, ", "))
		}
	case remarkNote, remarkCorrection, remarkNext, remarkUsed, remarkPutAway:
		if add.Text == "" || len(add.Text) > longestRemark {
			return studio.Fail(studio.ErrInvalid, "remark.length", "kind", add.Kind, "most", longestRemark)
		}
	default:
		return studio.Fail(studio.ErrInvalid, "remark.unknown", "kind", add.Kind)
	}
	return nil
}

// remarks returns what was added to a record.
func (r *Records) remarks(ctx context.Context, class int64) ([]contract.Remark, error) {
	stored, err := r.studio.Store.With(ctx).Remarks(class)
	list := []contract.Remark{}
	for _, one := range stored {
		list = append(list, contract.Remark{ID: one.ID, AtMS: contract.Millis(one.At), Kind: one.Kind, Text: one.Text})
	}
	return list, err
}
