package record

import (
	"context"
	"errors"
	"strings"
	"time"

	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// shownClasses is how many taught classes a list shows at once.
const shownClasses = 50

// Find returns the classes that are asked for, the newest first.
func (r *Records) Find(ctx context.Context, want contract.Search) (contract.Found, error) {
	found := contract.Found{Classes: []contract.ClassCard{}}
	left, err := r.studio.Store.With(ctx).WithoutDigest()
	if err != nil {
		return found, err
	}
	found.Preparing = left
	running, err := r.classes.InProgress(ctx)
	if err != nil {
		return found, err
	}
	groups, err := r.library.EveryGroupByID(ctx)
	if err != nil {
		return found, err
	}
	book, err := r.library.PracticeNames(ctx)
	if err != nil {
		return found, err
	}
	search, err := r.search(want)
	if err != nil {
		return found, err
	}
	search.Skip, search.Most = max(0, want.Skip), shownClasses+1
	list, err := r.find(ctx, search)
	if err != nil {
		return found, err
	}
	if len(list) > shownClasses {
		list, found.More = list[:shownClasses], true
	}
	for _, one := range list {
		card := contract.ClassCard{
			ID:        one.Class.ID,
			Title:     one.Digest.Title,
			Group:     groups[one.GroupID],
			StartedMS: contract.Millis(one.StartedAt),
			LengthMS:  one.Digest.LengthMS,
			Passages:  headlines(ctx, one.Digest.Headlines, book), Eased: one.Digest.Eased,
		}
		if running != nil && running.Stored.ID == card.ID {
			card.Running, card.LengthMS = true, running.At(r.studio.Now())
		}
		found.Classes = append(found.Classes, card)
	}
	return found, nil
}

// Bounds of a search: what is looked for in ten years of classes must not keep the machine busy.
const (
	mostWords     = 20
	longestSearch = 300 // bytes
	longestID     = 100
	searchTime    = 2 * time.Second
)

// find returns a search that is given up where it takes too long.
func (r *Records) find(ctx context.Context, search store.Search) ([]store.Listed, error) {
	ctx, cancel := context.WithTimeout(ctx, searchTime)
	defer cancel()
	list, err := r.studio.Store.With(ctx).Find(ctx, search)
	if errors.Is(ctx.Err(), context.DeadlineExceeded) && err != nil {
		return nil, studio.Fail(studio.ErrInvalid, "records.slow")
	}
	return list, err
}

// search returns what is asked for, in the store's terms.
func (r *Records) search(want contract.Search) (search store.Search, err error) {
	if len(want.Words) > longestSearch || len(strings.Fields(want.Words)) > mostWords || len(want.Practice) > longestID {
		return search, studio.Fail(studio.ErrInvalid, "records.search-long", "words", mostWords, "most", longestSearch)
	}
	search = store.Search{Group: want.GroupID, Practice: want.Practice, Words: strings.Fields(want.Words)}
	if want.Eased {
		search.Eased = &want.Eased
	}
	if search.From, err = day(want.From, 0, r.studio.Now().Location()); err != nil {
		return search, err
	}
	search.To, err = day(want.To, 1, r.studio.Now().Location())
	return search, err
}

// day returns the beginning of a day, or of one some days later; zero for none.
func day(text string, later int, zone *time.Location) (time.Time, error) {
	if text == "" {
		return time.Time{}, nil
	}
	at, err := time.ParseInLocation(time.DateOnly, text, zone)
	if err != nil {
		return at, studio.Fail(studio.ErrInvalid, "records.date", "given", text)
	}
	return at.AddDate(0, 0, later), nil
}
