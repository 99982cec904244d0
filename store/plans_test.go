package store

import (
	"fmt"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestPlansAmongMany(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	titles := func(list []Plan) (titles []string) {
		for _, p := range list {
			titles = append(titles, p.Title)
		}
		return titles
	}
	for i, title := range []string{"Over", "Tonight", "Tomorrow", "100% calm", "Calm waves"} {
		p := Plan{Title: title, Document: []byte("{}"), UpdatedAt: now.Add(time.Duration(i) * time.Minute)}
		if i < 3 {
			p.StartsAt = now.AddDate(0, 0, i-1)
		}
		_, err := s.AddPlan(p)
		require.NoError(t, err)
	}
	gone, err := s.AddPlan(Plan{Title: "Calm, deleted", Document: []byte("{}"), StartsAt: now, UpdatedAt: now})
	require.NoError(t, err)
	require.NoError(t, s.Delete(Thing{KindPlan, gone.ID}, false, now))

	coming, err := s.PlansFrom(now, 1)
	require.NoError(t, err)
	assert.Equal(t, []string{"Tonight"}, titles(coming))
	n, err := s.CountPlansFrom(now)
	require.NoError(t, err)
	assert.EqualValues(t, 2, n)
	timeless, err := s.PlansWithoutTime(9)
	require.NoError(t, err)
	assert.Equal(t, []string{"Calm waves", "100% calm"}, titles(timeless))
	n, err = s.CountPlansWithoutTime()
	require.NoError(t, err)
	assert.EqualValues(t, 2, n)
	newest, err := s.NewestPlans(3)
	require.NoError(t, err)
	assert.Equal(t, []string{"Calm waves", "100% calm", "Tomorrow"}, titles(newest))

	for _, c := range []struct {
		words []string
		skip  int
		found []string
		more  bool
	}{
		{[]string{"calm"}, 0, []string{"Calm waves", "100% calm"}, false},
		{[]string{"calm", "waves"}, 0, []string{"Calm waves"}, false},
		{[]string{"100%"}, 0, []string{"100% calm"}, false},
		{[]string{"_"}, 0, nil, false},
		{nil, 0, []string{"Calm waves", "100% calm"}, true},
		{nil, 4, []string{"Over"}, false},
	} {
		list, more, err := s.PlansTitled(c.words, c.skip, 2)
		require.NoError(t, err)
		assert.Equal(t, c.found, titles(list), fmt.Sprint(c.words))
		assert.Equal(t, c.more, more, fmt.Sprint(c.words))
	}
}
