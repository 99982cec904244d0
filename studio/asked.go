package studio

import (
	"context"
	"errors"
	"time"

	"vastlantern/store"
)

// AskedFor is how long after its end a class is asked about on the room's page.
const AskedFor = 30 * time.Minute

// AskedUntil returns until when those who breathed may say how the class was, and the sums so far; the zero time where
// nobody is asked, or not any more: it is over for too long, or another one has begun since.
func (s *Studio) AskedUntil(ctx context.Context, class store.Class) (until time.Time, sums store.Answers, err error) {
	sums, err = s.Store.With(ctx).Answers(class.ID)
	switch {
	case errors.Is(err, store.ErrNotFound):
		return time.Time{}, sums, nil
	case err != nil:
		return time.Time{}, sums, err
	}
	newest, err := s.Store.With(ctx).NewestClass()
	if until = class.EndedAt.Add(AskedFor); err != nil || class.EndedAt.IsZero() || newest != class.ID ||
		!s.Now().Before(until) {
		return time.Time{}, sums, err
	}
	return until, sums, nil
}
