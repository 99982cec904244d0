package store

import (
	"cmp"
	"context"
	"database/sql"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"vastlantern/language"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// now is the moment of the tests.
var now = time.Date(2026, 3, 2, 18, 30, 0, 0, time.UTC)

func open(t *testing.T, path string) *Store {
	t.Helper()
	s, err := Open(path, "a test")
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	return s
}

func TestWhatIsStoredIsThereAfterReopening(t *testing.T) {
	path := filepath.Join(t.TempDir(), "a name with % and ?.db")
	s := open(t, path)
	g, err := s.AddGroup(Group{Name: "Lunch", Level: "beginners", Size: 12})
	require.NoError(t, err)
	at := time.Date(2026, 3, 2, 18, 30, 0, 123e6, time.FixedZone("", 3600))
	p, err := s.AddPlan(Plan{GroupID: g.ID, Title: "Monday", StartsAt: at, Document: []byte(`{}`), UpdatedAt: at})
	require.NoError(t, err)
	c, err := s.AddClass(Class{PlanID: p.ID, GroupID: g.ID, StartedAt: at, Document: []byte(`{}`)})
	require.NoError(t, err)
	require.NoError(t, s.AddAdjustments(c.ID, Adjustment{1, "k1", []byte(`{"do": "pause"}`), "phone"}))
	require.NoError(t, s.Close())

	s = open(t, path)
	again, err := s.Class(c.ID)
	require.NoError(t, err)
	assert.Equal(t, at.UTC(), again.StartedAt.UTC(), "to the millisecond")
	list, err := s.Adjustments(c.ID)
	require.NoError(t, err)
	assert.Equal(t, []Adjustment{{1, "k1", []byte(`{"do": "pause"}`), "phone"}}, list)
	plans, err := s.Plans()
	require.NoError(t, err)
	assert.Equal(t, at.UTC(), plans[0].StartsAt.UTC())
}

func TestTheFileIsKeptSafely(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	for pragma, want := range map[string]string{"journal_mode": "wal", "foreign_keys": "1", "busy_timeout": "2000",
		"synchronous": "2"} {
		var got string
		require.NoError(t, s.db.Raw("PRAGMA "+pragma).Scan(&got).Error)
		assert.Equal(t, want, got, pragma)
	}
}

func TestAPlanThatSomebodyElseSavedIsNotOverwritten(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	first, err := s.AddPlan(Plan{Title: "a", Document: []byte(`{}`)})
	require.NoError(t, err)
	first.Title = "b"
	second, err := s.SavePlan(first)
	require.NoError(t, err)
	assert.EqualValues(t, 2, second.Revision)
	_, err = s.SavePlan(first)
	assert.ErrorIs(t, err, ErrTaken)
	_, err = s.SavePlan(Plan{ID: 99, Revision: 1})
	assert.ErrorIs(t, err, ErrNotFound)
	now, err := s.Plan(first.ID)
	require.NoError(t, err)
	assert.Equal(t, "b", now.Title)
}

func TestAnAdjustmentIsKeptOnce(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	c, err := s.AddClass(Class{Document: []byte(`{}`), StartedAt: time.Now()})
	require.NoError(t, err)
	require.NoError(t, s.AddAdjustments(c.ID, Adjustment{Number: 1, Key: "k"}))
	assert.ErrorIs(t, s.AddAdjustments(c.ID, Adjustment{Number: 2, Key: "k"}), ErrTaken)
	assert.ErrorIs(t, s.AddAdjustments(c.ID, Adjustment{Number: 1, Key: "other"}), ErrTaken)
	assert.ErrorIs(t, s.AddAdjustments(99, Adjustment{Number: 1, Key: "k"}), ErrNotFound, "no such class")
}

// A context that has ended stops what reads, which does not make of the data something damaged; a change is finished.
func TestAContextThatHasEnded(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	p, err := s.AddPlan(Plan{Title: "Lunch", Document: []byte(`{}`)})
	require.NoError(t, err)
	ended, end := context.WithCancel(t.Context())
	end()
	_, err = s.With(ended).Plan(p.ID)
	require.ErrorIs(t, err, context.Canceled)
	_, err = s.With(ended).Groups()
	require.ErrorIs(t, err, context.Canceled)
	assert.Empty(t, s.Damage())
	p.Title = "Noon"
	_, err = s.With(ended).SavePlan(p)
	require.NoError(t, err)
	stored, err := s.Plan(p.ID)
	require.NoError(t, err)
	assert.Equal(t, "Noon", stored.Title)
}

func TestATransactionIsWholeOrNotAtAll(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	err := s.InTransaction(func(s *Store) error {
		_, err := s.AddGroup(Group{Name: "gone"})
		require.NoError(t, err)
		return ErrTaken
	})
	assert.ErrorIs(t, err, ErrTaken)
	groups, err := s.Groups()
	require.NoError(t, err)
	assert.Empty(t, groups)
}

func TestWhatAClassIsLedWithIsCountedWhenItChanges(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	before := s.Settled()
	changed := func(why string) {
		t.Helper()
		assert.Greater(t, s.Settled(), before, why)
		before = s.Settled()
	}
	g, err := s.AddGroup(Group{Name: "Evening"})
	require.NoError(t, err)
	changed("a group")
	_, err = s.SaveGroup(g)
	require.NoError(t, err)
	changed("a group that is saved")
	require.NoError(t, s.SaveSetting("choices", []byte(`{}`)))
	changed("a choice")
	require.NoError(t, s.ReplaceSetting("choices", []byte(`{"a": 1}`), 1))
	changed("another choice")
	v, err := s.AddVoice(Voice{Name: "mine", Language: "en"})
	require.NoError(t, err)
	changed("a voice")
	_, err = s.AddRecording(Recording{VoiceID: v.ID, Plain: "one", Sound: []byte("RIFF")})
	require.NoError(t, err)
	changed("a recording")
	require.NoError(t, s.RemoveRecording(v.ID, "one"))
	changed("a recording that is removed")
	require.NoError(t, s.Delete(Thing{KindGroup, g.ID}, false, time.Now()))
	changed("a group that is deleted")
	require.NoError(t, s.InTransaction(func(in *Store) error {
		require.NoError(t, in.PutGroup(g))
		before = s.Settled() // whoever reads now reads the old
		return nil
	}))
	changed("a whole transaction")

	c, err := s.AddClass(Class{Document: []byte(`{}`), StartedAt: time.Now()})
	require.NoError(t, err)
	before = s.Settled()
	require.NoError(t, s.AddAdjustments(c.ID, Adjustment{Number: 1, Key: "k"}))
	require.NoError(t, s.SavePassing("clock", []byte(`{}`)))
	assert.Equal(t, before, s.Settled(), "a press, and the clock")
}

func TestGroupsPracticesAndSettings(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	g, err := s.AddGroup(Group{Name: "Evening", Weekday: 3, Weektime: "18:30", Conditions: map[string]int{"asthma": 2}})
	require.NoError(t, err)
	g.Under16, g.Schools, g.Notes = true, map[string]string{"eyes": "open"}, "by the window"
	saved, err := s.SaveGroup(g)
	require.NoError(t, err)
	assert.EqualValues(t, 2, saved.Revision)
	groups, err := s.Groups()
	require.NoError(t, err)
	assert.Equal(t, []Group{saved}, groups)
	_, err = s.SaveGroup(g)
	assert.ErrorIs(t, err, ErrTaken, "somebody saved this revision before")
	_, err = s.SaveGroup(Group{ID: 99})
	assert.ErrorIs(t, err, ErrNotFound)

	at := time.Date(2026, 3, 2, 18, 30, 0, 0, time.UTC)
	for _, p := range []Practice{{"own-b", []byte("one"), 0, at}, {"own-a", []byte("two"), 0, at},
		{"own-b", []byte("three"), 1, at}} {
		_, err = s.SavePractice(p)
		require.NoError(t, err)
	}
	for _, stale := range []int64{0, 1} {
		_, err = s.SavePractice(Practice{"own-b", []byte("four"), stale, at})
		assert.ErrorIs(t, err, ErrTaken)
	}
	_, err = s.SavePractice(Practice{"own-c", []byte("five"), 1, at})
	assert.ErrorIs(t, err, ErrNotFound, "removed meanwhile")
	require.NoError(t, s.PutPractice(Practice{"own-a", []byte("six"), 0, at}), "in the place of any")
	list, err := s.Practices()
	require.NoError(t, err)
	assert.Equal(t, []Practice{{"own-a", []byte("six"), 2, at}, {"own-b", []byte("three"), 2, at}}, list)
	require.NoError(t, s.RemovePractice("own-a"))
	assert.ErrorIs(t, s.RemovePractice("own-a"), ErrNotFound)

	_, err = s.Setting("schools")
	assert.ErrorIs(t, err, ErrNotFound)
	require.NoError(t, s.SaveSetting("schools", []byte(`{}`)))
	require.NoError(t, s.SaveSetting("schools", []byte(`{"eyes": "closed"}`)))
	value, err := s.Setting("schools")
	require.NoError(t, err)
	assert.JSONEq(t, `{"eyes": "closed"}`, string(value))
}

func TestFindingClasses(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	g, err := s.AddGroup(Group{Name: "Evening"})
	require.NoError(t, err)
	day := time.Date(2026, 3, 2, 18, 30, 0, 0, time.UTC)
	for i := range 4 {
		c := Class{StartedAt: day.AddDate(0, 0, i), EndedAt: day.AddDate(0, 0, i).Add(time.Hour), Document: []byte(`{}`)}
		if i > 1 {
			c.GroupID = g.ID
		}
		c, err := s.AddClass(c)
		require.NoError(t, err)
		require.NoError(
			t,
			s.SaveDigest(
				Digest{
					ClassID:   c.ID,
					Over:      i != 3,
					Title:     "Class",
					Headlines: []string{"Sigh ×3"},
					Practices: []string{"sigh", "ujjayi"}[:1+i%2],
					Eased:     i == 2,
					Words:     []string{"Settled", "hands tire", "a Latecomer", ""}[i],
				},
			),
		)
	}
	yes := true
	for name, c := range map[string]struct {
		search Search
		ids    []int64
	}{
		"all, the newest first": {Search{}, []int64{4, 3, 2, 1}},
		"a group":               {Search{Group: g.ID}, []int64{4, 3}},
		"a practice":            {Search{Practice: "ujjayi"}, []int64{4, 2}},
		"not part of an id":     {Search{Practice: "jayi"}, nil},
		"from":                  {Search{From: day.AddDate(0, 0, 2)}, []int64{4, 3}},
		"until":                 {Search{To: day.AddDate(0, 0, 1)}, []int64{1}},
		"eased":                 {Search{Eased: &yes}, []int64{3}},
		"words":                 {Search{Words: []string{"TIRE", "hands"}}, []int64{2}},
		"more":                  {Search{Skip: 1, Most: 2}, []int64{3, 2}},
	} {
		c.search.Most = cmp.Or(c.search.Most, 10)
		list, err := s.Find(t.Context(), c.search)
		require.NoError(t, err, name)
		var ids []int64
		for _, one := range list {
			ids = append(ids, one.Class.ID)
		}
		assert.Equal(t, c.ids, ids, name)
	}
	left, err := s.Undigested(10)
	require.NoError(t, err)
	require.Len(t, left, 1, "the one that is not done")
	assert.EqualValues(t, 4, left[0])

	require.NoError(t, s.AddRemark(1, Remark{At: day, Kind: "note", Text: "warm"}))
	require.NoError(t, s.AddAdjustments(2, Adjustment{1, "k", []byte(`{}`), ""}))
	left, err = s.Undigested(10)
	require.NoError(t, err)
	assert.Len(t, left, 3, "what was changed has to be worked out again")
	remarks, err := s.Remarks(1)
	require.NoError(t, err)
	assert.Equal(t, []Remark{{1, day, "note", "warm"}}, remarks)
	assert.ErrorIs(t, s.AddRemark(99, Remark{At: day, Kind: "note", Text: "x"}), ErrNotFound)
}

func TestSessions(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	_, err := s.Session("a", now)
	assert.ErrorIs(t, err, ErrNotFound)
	phone := Session{"a", "phone", now.Add(time.Hour)}
	require.NoError(t, s.SaveSession(phone, now))
	got, err := s.Session("a", now.Add(59*time.Minute))
	require.NoError(t, err)
	assert.Equal(t, phone, got)
	_, err = s.Session("a", now.Add(time.Hour))
	assert.ErrorIs(t, err, ErrNotFound, "it has run out")

	phone.ExpiresAt = now.Add(3 * time.Hour)
	require.NoError(t, s.SaveSession(phone, now), "longer")
	require.NoError(t, s.SaveSession(Session{"b", "tablet", now.Add(9 * time.Hour)}, now.Add(4*time.Hour)))
	var left int64
	require.NoError(t, s.db.Model(&sessionRow{}).Count(&left).Error)
	assert.EqualValues(t, 1, left, "what has run out is not kept")
	require.NoError(t, s.EndSession("b"))
	_, err = s.Session("b", now)
	assert.ErrorIs(t, err, ErrNotFound)
	require.NoError(t, s.SaveSession(phone, now))
	require.NoError(t, s.EndSessions())
	_, err = s.Session("a", now)
	assert.ErrorIs(t, err, ErrNotFound)
}

// A program that was killed after it had copied the file, and before it had brought it up to date, starts again within
// the same second: a whole copy that is there is left as it is, and half a one is in nobody's way.
func TestKilledBetweenTheCopyAndTheUpdate(t *testing.T) {
	path := filepath.Join(t.TempDir(), "old.db")
	require.NoError(t, touch(path))
	pool, err := sql.Open("sqlite", dsn(path, "immediate"))
	require.NoError(t, err)
	provider, err := provider(pool)
	require.NoError(t, err)
	_, err = provider.UpTo(t.Context(), 3)
	require.NoError(t, err)
	require.NoError(t, pool.Close())
	var copies []string
	for second := range 120 { // whichever second the start falls into
		name := fmt.Sprintf(
			"%s.before-update-%s",
			path,
			time.Now().Add(time.Duration(second)*time.Second).Format("2006-01-02-150405"),
		)
		if second%2 == 1 {
			name += ".part"
		}
		require.NoError(t, os.WriteFile(name, []byte("the copy before"), 0o600))
		copies = append(copies, name)
	}
	s := open(t, path)
	assert.NotContains(t, copies, s.Opened().Copied)
	old, err := OpenToRead(s.Opened().Copied)
	require.NoError(t, err)
	require.NoError(t, old.Close())
	for _, name := range copies {
		if strings.HasSuffix(name, ".part") {
			continue
		}
		data, err := os.ReadFile(name)
		require.NoError(t, err, name)
		assert.Equal(t, "the copy before", string(data), name)
	}
	_, err = s.Groups()
	assert.NoError(t, err, "it is of the present form")
}

// A file of each earlier form is opened, and what is in it is there afterwards.
func TestFilesOfEarlierFormsAreBroughtUpToDate(t *testing.T) {
	forms, err := migrations.ReadDir("migrations")
	require.NoError(t, err)
	for form := 1; form < len(forms); form++ {
		path := filepath.Join(t.TempDir(), "old.db")
		require.NoError(t, touch(path))
		pool, err := sql.Open("sqlite", dsn(path, "immediate"))
		require.NoError(t, err)
		provider, err := provider(pool)
		require.NoError(t, err)
		_, err = provider.UpTo(t.Context(), int64(form))
		require.NoError(t, err)
		for _, statement := range []string{
			`INSERT INTO groups (name, level, size) VALUES ('Lunch', 'beginners', 12)`,
			`INSERT INTO plans (group_id, revision, title, document, updated_at) VALUES (1, 1, 'Monday', '{}', '2026-03-02 ` +
				`18:30:00')`,
			`INSERT INTO classes (plan_id, group_id, started_at, document) VALUES (1, 1, '2026-03-02 18:30:00.123', '{}')`,
			`INSERT INTO adjustments (class_id, number, key, body) VALUES (1, 1, 'k', '{"do": "pause"}')`,
		} {
			_, err := pool.Exec(statement)
			require.NoError(t, err, statement)
		}
		if form >= 2 {
			_, err = pool.Exec(`INSERT INTO settings (name, value) VALUES ('room code', 'ABCDE')`)
			require.NoError(t, err)
		}
		if form >= 3 {
			_, err = pool.Exec(`UPDATE adjustments SET origin = 'phone'`)
			require.NoError(t, err)
		}
		if form >= 5 {
			_, err = pool.Exec(`UPDATE groups SET uid = lower(hex(randomblob(16)))`)
			require.NoError(t, err)
		}
		require.NoError(t, pool.Close())

		s := open(t, path)
		assert.Regexp(t, `old\.db\.before-update-`, s.Opened().Copied, "it is kept as it was, too")
		old, err := OpenToRead(s.Opened().Copied)
		require.NoError(t, err)
		counts, err := old.Count()
		require.NoError(t, err)
		assert.Equal(t, Counts{1, 1, 1, 1}, counts)
		require.NoError(t, old.Close())
		groups, err := s.Groups()
		require.NoError(t, err)
		require.Len(t, groups, 1)
		assert.Len(t, groups[0].UID, 32, "from now on it is the same on every machine")
		groups[0].UID = ""
		assert.Equal(
			t,
			[]Group{
				{
					ID:         1,
					Name:       "Lunch",
					Level:      "beginners",
					Size:       12,
					Weekday:    -1,
					Conditions: map[string]int{},
					Schools:    map[string]string{},
					Revision:   1,
					UpdatedAt:  time.Unix(0, 0).UTC(),
				},
			},
			groups,
		)
		c, err := s.Class(1)
		require.NoError(t, err)
		assert.Equal(t, 123e6, float64(c.StartedAt.Nanosecond()))
		assert.Empty(t, c.Acknowledged)
		list, err := s.Adjustments(1)
		require.NoError(t, err)
		assert.Equal(t, []Adjustment{{1, "k", []byte(`{"do": "pause"}`), []string{"", "", "", "phone"}[min(form, 3)]}}, list)
		running, err := s.InProgress()
		require.NoError(t, err)
		assert.EqualValues(t, 1, running.ID, "the newest one may still be led")
		require.NoError(t, s.EndClass(1, now))
		left, err := s.Undigested(10)
		require.NoError(t, err)
		assert.Len(t, left, 1, "to be worked out when it is over")
		if form >= 2 {
			code, err := s.Setting("room code")
			require.NoError(t, err)
			assert.Equal(t, "ABCDE", string(code))
		}
		require.NoError(t, s.Close())
	}
}

// What is wrong with the file or the disk is told in plain words, and says what to do.
func TestTroubleWithTheFile(t *testing.T) {
	folder := t.TempDir()
	letter := filepath.Join(folder, "letter.db")
	require.NoError(t, os.WriteFile(letter, []byte(strings.Repeat("Dear all, ", 200)), 0o600))
	_, err := Open(letter, "a test")
	assert.Contains(t, language.English().Error(err), "is no data file of this application")
	_, err = Open(filepath.Join(letter, "x.db"), "a test")
	assert.Contains(t, language.English().Error(err), "the folder of the data file cannot be made")

	path := filepath.Join(folder, "x.db")
	s := open(t, path)
	require.NoError(t, s.db.Exec("PRAGMA max_page_count = 60").Error) // as a disk that has no room for more
	var full error
	for i := 0; full == nil && i < 1000; i++ {
		_, full = s.AddGroup(Group{Name: "a group", Notes: strings.Repeat("x", 4000), Weekday: -1})
	}
	assert.Contains(t, language.English().Error(full), "The disk is full: free some space")
	groups, err := s.Groups()
	require.NoError(t, err, "what is there can be read all the same")
	assert.NotEmpty(t, groups)
	require.NoError(t, s.db.Exec("PRAGMA query_only = ON").Error) // as a file that may only be read
	_, err = s.AddGroup(Group{Name: "one more", Weekday: -1})
	assert.Contains(t, language.English().Error(err), "read-only: allow writing")
	require.NoError(t, s.Close())

	// Damaged in the middle, where the pages of the groups are.
	whole, err := os.ReadFile(path)
	require.NoError(t, err)
	copy(whole[4096:], strings.Repeat("damage! ", 4096))
	require.NoError(t, os.WriteFile(path, whole, 0o600))
	s, err = Open(path, "a test")
	if err == nil {
		_, err = s.Groups()
		s.Close()
	}
	assert.Contains(t, language.English().Error(err), "lantern restore")
}

// Sums of answers grow one by one to as many as are taken, and go with their class.
func TestAnswers(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	class, err := s.AddClass(Class{StartedAt: now, EndedAt: now.Add(time.Hour), Document: []byte("{}")})
	require.NoError(t, err)
	_, err = s.Answers(class.ID)
	assert.ErrorIs(t, err, ErrNotFound)
	assert.ErrorIs(t, s.AddAnswer(class.ID, Answers{Easy: 1}), ErrNotFound, "nobody was asked")
	assert.ErrorIs(t, s.Ask(99, 3), ErrNotFound)
	require.NoError(t, s.Ask(class.ID, 3))
	for _, one := range []Answers{
		{Easy: 1, Main: 1, Amounts: map[int]int{110: 1}}, {TooMuch: 1, Beside: 1}, {Right: 1, Amounts: map[int]int{60: 1}},
	} {
		require.NoError(t, s.AddAnswer(class.ID, one))
	}
	require.NoError(t, s.Ask(class.ID, 300), "asked again: no more are taken all the same")
	assert.ErrorIs(t, s.AddAnswer(class.ID, Answers{TooMuch: 1}), ErrFull)
	sums, err := s.Answers(class.ID)
	require.NoError(t, err)
	assert.Equal(t, Answers{
		Most: 3, Easy: 1, Right: 1, TooMuch: 1, Main: 1, Beside: 1, Amounts: map[int]int{60: 1, 110: 1},
	}, sums)
	require.NoError(t, s.Delete(Thing{KindClass, class.ID}, false, now))
	require.NoError(t, s.Purge(now.Add(time.Hour)))
	_, err = s.Answers(class.ID)
	assert.ErrorIs(t, err, ErrNotFound)
}

// What was given to do at home is found by its group, class and plan, and goes with its class.
func TestHomes(t *testing.T) {
	s := open(t, filepath.Join(t.TempDir(), "x.db"))
	group, err := s.AddGroup(Group{Name: "Monday", Weekday: -1})
	require.NoError(t, err)
	plan, err := s.AddPlan(Plan{GroupID: group.ID, Document: []byte("{}")})
	require.NoError(t, err)
	class, err := s.AddClass(
		Class{PlanID: plan.ID, GroupID: group.ID, StartedAt: now, EndedAt: now, Document: []byte("{}")},
	)
	require.NoError(t, err)
	_, err = s.AddHome(Home{ClassID: 99, GivenAt: now, Document: []byte("{}")})
	assert.ErrorIs(t, err, ErrNotFound)
	before, err := s.AddHome(
		Home{
			PlanID:   plan.ID,
			GroupID:  group.ID,
			GivenAt:  now,
			Document: []byte("{}"),
			Minutes:  5,
			Pieces:   1,
			Days:     7,
			When:     "in the morning",
			Sentence: "Lightly.",
		},
	)
	require.NoError(t, err)
	after, err := s.AddHome(
		Home{ClassID: class.ID, PlanID: plan.ID, GroupID: group.ID, GivenAt: now.Add(time.Hour), Document: []byte("{}")},
	)
	require.NoError(t, err)
	for name, list := range map[string]func() ([]Home, error){
		"group": func() ([]Home, error) { return s.HomesOfGroup(group.ID, 9) },
		"class": func() ([]Home, error) { return s.HomesOfClass(class.ID, plan.ID) },
		"plan":  func() ([]Home, error) { return s.HomesOfPlan(plan.ID) },
	} {
		found, err := list()
		require.NoError(t, err)
		assert.Equal(t, []Home{after, before}, found, name)
	}
	require.NoError(t, s.AnswerHome(before.ID, before.Revision, "now and then", now))
	assert.ErrorIs(t, s.AnswerHome(before.ID, before.Revision, "hardly", now), ErrTaken)
	again, err := s.HomeOf(before.UID)
	require.NoError(t, err)
	assert.Equal(t, []any{"now and then", now}, []any{again.Answer, again.AnsweredAt})
	assert.ErrorIs(t, s.AnswerHome(99, 1, "", now), ErrNotFound)

	require.NoError(t, s.Delete(Thing{KindClass, class.ID}, false, now))
	found, err := s.HomesOfGroup(group.ID, 9)
	require.NoError(t, err)
	assert.Len(t, found, 1, "what was given in a class that was deleted is not shown")
	require.NoError(t, s.Delete(Thing{KindPlan, plan.ID}, false, now))
	require.NoError(t, s.Purge(now.Add(time.Hour)))
	every, err := s.EveryHome()
	require.NoError(t, err)
	assert.Empty(t, every)
	assert.ErrorIs(t, s.TakeBackHome(before.ID), ErrNotFound)
}
