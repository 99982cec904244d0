package desk_test

import (
	"bytes"
	"database/sql"
	"fmt"
	"math/rand/v2"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"vastlantern/core/programme"
	"vastlantern/store"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk"
)

var yearly = []string{
	`{"type": "practice", "practice": "counted-breath", "counts": "4:6", "minutes": 4}`,
	`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 8, "closing": [{"breaths": 2, ` +
		`"counts": "4:4"}]}`,
	`{"type": "practice", "practice": "ujjayi", "counts": "5:5", "rounds": 10}`,
	`{"type": "practice", "practice": "sigh", "rounds": 3}`,
	`{"type": "practice", "practice": "kapalabhati", "strokes": 30, "rounds": 3, "rest_between": 30}`,
}

var pressedOften = []string{
	`"do": "tempo", "to": 46`, `"do": "tempo", "to": 50`, `"do": "rounds", "by": 1`, `"do": "rounds", "by": -1`,
	`"do": "note", "text": "hands tire"`, `"do": "note", "text": "settled, faces soft"`, `"do": "signal", "see": "rushed"`,
	`"do": "release"`,
}

func fill(b *testing.B, path string, years int, now time.Time) {
	b.Helper()
	s, err := store.Open(path, "a test")
	if err != nil {
		b.Fatal(err)
	}
	for g := range 10 {
		if _, err := s.AddGroup(store.Group{Name: fmt.Sprintf("Group %d", g+1), Weekday: g % 7,
			Weektime: "18:30"}); err != nil {
			b.Fatal(err)
		}
	}
	s.Close()
	db, err := sql.Open("sqlite", "file:"+path)
	if err != nil {
		b.Fatal(err)
	}
	defer db.Close()
	tx, err := db.Begin()
	if err != nil {
		b.Fatal(err)
	}
	random := rand.New(rand.NewPCG(7, 7))
	class, err := tx.Prepare(
		`INSERT INTO classes (id, group_id, started_at, ended_at, document, uid) VALUES (?, ?, ?, ?, ?, ` +
			`lower(hex(randomblob(16))))`,
	)
	if err != nil {
		b.Fatal(err)
	}
	pressed, err := tx.Prepare(`INSERT INTO adjustments (class_id, number, key, body) VALUES (?, ?, ?, ?)`)
	if err != nil {
		b.Fatal(err)
	}
	weeks := years * 52
	for i := range weeks * 10 {
		start := now.AddDate(0, 0, -7*(weeks-i/10)).Add(time.Duration(i%10) * 2 * time.Hour)
		document := fmt.Sprintf(
			`{"format": "vast-lantern-plan", "version": 1, "title": "Class %d", "tempo": 48, "passages": [{"type": "talk", `+
				`"seconds": 120}, %s, %s, {"type": "free", "seconds": 300}]}`,
			i+1,
			yearly[random.IntN(len(yearly))],
			yearly[random.IntN(len(yearly))],
		)
		const form = "2006-01-02 15:04:05.999"
		if _, err := class.Exec(i+1, i%10+1, start.UTC().Format(form), start.UTC().Add(time.Hour).Format(form),
			document); err != nil {
			b.Fatal(err)
		}
		at := 0
		for n := range 96 {
			at += random.IntN(20_000)
			body := fmt.Sprintf(`{"at_ms": %d, %s}`, at, pressedOften[random.IntN(len(pressedOften))])
			if _, err := pressed.Exec(i+1, n+1, fmt.Sprint(n), body); err != nil {
				b.Fatal(err)
			}
		}
	}
	if err := tx.Commit(); err != nil {
		b.Fatal(err)
	}
}

// plan adds many plans: half to come, half without a time.
func plan(b *testing.B, path string, plans int, now time.Time) {
	b.Helper()
	db, err := sql.Open("sqlite", "file:"+path)
	if err != nil {
		b.Fatal(err)
	}
	defer db.Close()
	_, err = db.Exec(`
		WITH RECURSIVE number (n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM number WHERE n < ?)
		INSERT INTO plans (group_id, revision, title, starts_at, document, updated_at, uid)
		SELECT 1 + n % 10, 1, 'Plan ' || n, iif(n % 2, strftime('%Y-%m-%d %H:%M:%S+00:00', ?, '+' || n || ' hours'), NULL),
			'{"format": "vast-lantern-plan", "version": 1, "title": "Plan ' || n || '", "tempo": 48, "passages": [{"type": "talk", "seconds": 120}, ' || ? || ', ' || ? || ']}',
			strftime('%Y-%m-%d %H:%M:%S+00:00', ?, '-' || n || ' minutes'), lower(hex(randomblob(16)))
		FROM number`, plans, now.Format(time.DateTime), yearly[0], yearly[1], now.Format(time.DateTime))
	if err != nil {
		b.Fatal(err)
	}
}

// imported brings the file in on an empty machine.
func imported(b *testing.B, file []byte, now time.Time) string {
	s, err := store.Open(filepath.Join(b.TempDir(), "empty.db"), "a test")
	if err != nil {
		b.Fatal(err)
	}
	defer s.Close()
	began := time.Now()
	in, err := desk.WithTime(s, func() time.Time { return now }, 1).Transfer.ReadImport(b.Context(), bytes.NewReader(file))
	if err != nil {
		b.Fatal(err)
	}
	read := time.Since(began)
	if err := in.Apply(b.Context()); err != nil {
		b.Fatal(err)
	}
	return fmt.Sprintf(
		"read in %v, imported in %v",
		read.Round(time.Millisecond),
		time.Since(began).Round(time.Millisecond),
	)
}

func BenchmarkYears(b *testing.B) {
	for _, years := range []int{1, 10} {
		now := time.Date(2036, 3, 3, 12, 0, 0, 0, time.UTC)
		path := filepath.Join(b.TempDir(), "years.db")
		fill(b, path, years, now)
		s, err := store.Open(path, "a test")
		if err != nil {
			b.Fatal(err)
		}
		d := desk.WithTime(s, func() time.Time { return now }, 1)
		began := time.Now()
		if err := d.Prepare(b.Context()); err != nil { // every class is digested, once in the life of the file
			b.Fatal(err)
		}
		b.Logf("%d years: digested in %v", years, time.Since(began).Round(time.Millisecond))
		began = time.Now()
		var export bytes.Buffer
		if err := d.Transfer.Export(b.Context(), &export); err != nil {
			b.Fatal(err)
		}
		b.Logf("%d years: exported in %v, %d MB", years, time.Since(began).Round(time.Millisecond), export.Len()>>20)
		b.Logf("%d years: %s", years, imported(b, export.Bytes(), now))
		for _, one := range []struct {
			name string
			ask  func(i int) error
		}{
			{"list", func(int) error { _, err := d.Records.Find(b.Context(), contract.Search{}); return err }},
			{"last page", func(int) error {
				_, err := d.Records.Find(b.Context(), contract.Search{Skip: years*520 - 50})
				return err
			}},
			{"search", func(i int) error {
				_, err := d.Records.Find(b.Context(), contract.Search{GroupID: int64(i%10 + 1), Practice: "nadi-shodhana",
					Words: "hands tire", Eased: true})
				return err
			}},
			{"course, not known yet", func(i int) error {
				_, err := desk.WithTime(s, func() time.Time { return now }, 1).Records.GroupCourse(b.Context(), int64(i%10+1))
				return err
			}},
			{"course", func(i int) error { _, err := d.Records.GroupCourse(b.Context(), int64(i%10+1)); return err }},
			{"summary", func(int) error { _, err := d.Records.Summary(b.Context(), 2035); return err }},
			{"today", func(int) error { d.Today.Show(b.Context()); return nil }},
		} {
			asking(b, fmt.Sprintf("%d/%s", years, one.name), one.ask)
		}
		s.Close()
	}
}

// asking measures what a screen asks for.
func asking(b *testing.B, name string, ask func(i int) error) {
	b.Run(name, func(b *testing.B) {
		var took []float64
		for i := 0; b.Loop(); i++ {
			began := time.Now()
			if err := ask(i); err != nil {
				b.Fatal(err)
			}
			took = append(took, float64(time.Since(began).Microseconds())/1000)
		}
		slices.Sort(took)
		b.ReportMetric(took[len(took)*95/100], "p95-ms")
	})
}

// Ten years of classes, and plans as only a program makes them.
func BenchmarkManyPlans(b *testing.B) {
	const plans = 100_000
	now := time.Date(2036, 3, 3, 12, 0, 0, 0, time.UTC)
	path := filepath.Join(b.TempDir(), "plans.db")
	fill(b, path, 10, now)
	plan(b, path, plans, now)
	s, err := store.Open(path, "a test")
	if err != nil {
		b.Fatal(err)
	}
	defer s.Close()
	d := desk.WithTime(s, func() time.Time { return now }, 1)
	if err := d.Prepare(b.Context()); err != nil {
		b.Fatal(err)
	}
	if _, err := d.Voices.Add(b.Context(), contract.VoiceName{Name: "Anna", Language: "en"}); err != nil {
		b.Fatal(err)
	}
	steps := programme.Programme{
		Name: "Grows", Passage: 2, By: programme.Led, Times: 1, Days: 7, Missed: programme.Wait, Eased: programme.Wait,
		Steps: []programme.Step{{Says: "4:6 5 min"}, {Says: "4:6 6 min"}},
	}
	if _, err := d.Programmes.Begin(b.Context(), 1, steps); err != nil {
		b.Fatal(err)
	}
	for _, one := range []struct {
		name string
		ask  func(i int) error
	}{
		{"today", func(int) error { d.Today.Show(b.Context()); return nil }},
		{"room", func(int) error { _, err := d.Plans.Upcoming(b.Context()); return err }},
		{"voices", func(int) error { _, err := d.Voices.All(b.Context()); return err }},
		{"find a plan", func(i int) error { _, err := d.Plans.Find(b.Context(), fmt.Sprint("Plan ", i%90), 0); return err }},
		{"phrases", func(int) error { _, err := d.Plans.Phrases(b.Context(), "nadi-shodhana"); return err }},
		{"rehearsals", func(int) error { _, err := d.Rehearse.All(b.Context()); return err }},
		{"a programme", func(int) error { _, err := d.Programmes.Sheet(b.Context(), 1); return err }},
	} {
		asking(b, one.name, one.ask)
	}
}
