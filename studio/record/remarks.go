package record

import (
	"slices"
	"strconv"
	"strings"

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
)

// moods is how a room can be after a class.
var moods = []string{"settled", "bright", "tired", "restless", "strained"}

const longestRemark = 2000 // bytes

// AddRemark adds something to a record, with its time. The record itself is never edited.
func (r *Records) AddRemark(class int64, add contract.Remark) (contract.Record, error) {
	if err := r.AddRemarks(class, add); err != nil {
		return contract.Record{}, err
	}
	return r.Record(class)
}

// AddRemarks adds several things in their order. Where one of them is wrong none is added.
func (r *Records) AddRemarks(class int64, all ...contract.Remark) error {
	if len(all) == 0 {
		return nil
	}
	for _, add := range all {
		if err := check(add); err != nil {
			return err
		}
	}
	for _, add := range all {
		if err := r.studio.Store.AddRemark(class, store.Remark{At: r.studio.Now(), Kind: add.Kind, Text: strings.TrimSpace(add.Text)}); err != nil {
			return studio.Missing(err, "class", class)
		}
	}
	if stored, err := r.studio.Store.Class(class); err == nil {
		r.studio.ClassChanged(stored)
	}
	r.studio.NotifyAll()
	return nil
}

// check tells what is wrong with what is to be added.
func check(add contract.Remark) error {
	add.Text = strings.TrimSpace(add.Text)
	switch add.Kind {
	case remarkPeople, remarkGentler:
		if n, err := strconv.Atoi(add.Text); err != nil || n < 0 || n > contract.MostPeople {
			return studio.Fail(studio.ErrInvalid, "How many there were, and how many took the gentler lane, is a number from 0 to %d.", contract.MostPeople)
		}
	case remarkMood:
		if !slices.Contains(moods, add.Text) {
			return studio.Fail(studio.ErrInvalid, "How the room was is one of %s.", strings.Join(moods, ", "))
		}
	case remarkNote, remarkCorrection:
		if add.Text == "" || len(add.Text) > longestRemark {
			return studio.Fail(studio.ErrInvalid, "A %s has 1 to %d characters.", add.Kind, longestRemark)
		}
	default:
		return studio.Fail(studio.ErrInvalid, "There is no remark %q.", add.Kind)
	}
	return nil
}

// remarks is what was added to a record.
func (r *Records) remarks(class int64) ([]contract.Remark, error) {
	stored, err := r.studio.Store.Remarks(class)
	list := []contract.Remark{}
	for _, one := range stored {
		list = append(list, contract.Remark{AtMS: contract.Millis(one.At), Kind: one.Kind, Text: one.Text})
	}
	return list, err
}
