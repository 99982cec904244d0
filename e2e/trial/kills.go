package main

import (
	"bytes"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"reflect"
	"strings"
	"sync"
	"time"

	_ "modernc.org/sqlite" // makes files of an earlier form

	"vastlantern/e2e/stage"
	"vastlantern/studio/contract"
)

// killing kills the program at random moments of leading and saving, of import, backup, restore and of bringing a file
// of an earlier form up to date. What was acknowledged is there afterwards; what was begun is whole or not at all.
func killing(folder string, kills int, random *rand.Rand) (string, error) {
	binary, err := stage.Binary()
	if err != nil {
		return "", err
	}
	k := &killer{folder: folder, binary: binary, random: random, usual: map[string]time.Duration{}}
	if err := k.prepare(); err != nil {
		return "", err
	}
	server, err := newLedClass(filepath.Join(folder, "led.db"))
	if err != nil {
		return "", err
	}
	defer func() { server.program.Kill() }() // the one that runs then
	tried := map[string]int{}
	for i := range kills {
		kinds := []struct {
			name string
			run  func() error
		}{{"leading and saving", func() error { return server.killed(i, random) }}, {"importing", k.importing},
			{"backing up", k.backup}, {"restoring", k.restore}, {"migrating", k.migrate}}
		kind := kinds[i%len(kinds)]
		tried[kind.name]++
		if err := kind.run(); err != nil {
			return "", fmt.Errorf("kill %d, %s: %w", i+1, kind.name, err)
		}
	}
	return fmt.Sprintf(
		"%d kills %v, %d commands were cut short and %d had ended before, %d acknowledged presses and %d saves, nothing lost",
		kills,
		tried,
		k.cut,
		k.whole,
		len(server.acknowledged),
		server.saves,
	), nil
}

// killer kills commands on data files.
type killer struct {
	folder, binary string
	random         *rand.Rand
	before, after  string // the exports of two data files
	backupFile     string
	usual          map[string]time.Duration // how long each command takes, about
	cut, whole     int
}

func (k *killer) path(name string) string { return filepath.Join(k.folder, name) }

// prepare makes two data files, of which the one has all of the other and more, an export and a backup of the second.
func (k *killer) prepare() error {
	for _, name := range []string{"before.db", "after.db"} {
		program, err := stage.Start("demo", "--data", k.path(name), "--port", "0")
		if err != nil {
			return err
		}
		if name == "after.db" { // something in the one that is not in the other
			err = program.Post("/api/groups", `{"name": "Added later", "weekday": -1}`, &contract.Group{})
		}
		program.Kill()
		if err != nil {
			return err
		}
	}
	var err error
	if k.before, err = k.export("before.db"); err != nil {
		return err
	}
	if k.after, err = k.export("after.db"); err != nil {
		return err
	}
	if err := os.WriteFile(k.path("after.json"), []byte(k.after), 0o600); err != nil {
		return err
	}
	k.backupFile = k.path("after.backup")
	return k.command("backup", k.backupFile, "--data", k.path("after.db")).Run()
}

func (k *killer) command(args ...string) *exec.Cmd { return exec.Command(k.binary, args...) }

func (k *killer) export(name string) (string, error) {
	var out, errs bytes.Buffer
	cmd := k.command("export", "-", "--data", k.path(name))
	cmd.Stdout, cmd.Stderr = &out, &errs
	if err := cmd.Run(); err != nil {
		return "", fmt.Errorf("export of %s: %w: %s", name, err, errs.String())
	}
	return out.String(), nil
}

// fresh returns a data file as before.db is, closed.
func (k *killer) fresh() (string, error) {
	for _, rest := range []string{"-wal", "-shm", ".lock", ".reserve"} {
		os.Remove(k.path("tried.db" + rest))
	}
	content, err := os.ReadFile(k.path("before.db"))
	if err != nil {
		return "", err
	}
	return k.path("tried.db"), os.WriteFile(k.path("tried.db"), content, 0o600)
}

// kill starts a command and kills it at a random moment, unless it has ended.
func (k *killer) kill(args ...string) error {
	usual := k.usual[args[0]]
	if usual == 0 {
		usual = 50 * time.Millisecond
	}
	cmd := k.command(args...)
	if err := cmd.Start(); err != nil {
		return err
	}
	time.Sleep(time.Duration(k.random.Int64N(int64(usual)))) // the moment is what is tried, not waited for
	_ = cmd.Process.Kill()                                   // it may have ended
	err := cmd.Wait()
	var exit *exec.ExitError
	switch {
	case err == nil:
		k.whole++
		k.usual[args[0]] = usual * 9 / 10 // so that most are cut short, at any moment
	case errors.As(err, &exit) && exit.ExitCode() == -1:
		k.cut++
		k.usual[args[0]] = usual * 103 / 100
	default:
		return fmt.Errorf("%v: %w", args, err)
	}
	return nil
}

// wholeOrNot reports whether a data file is as it was before or after.
func (k *killer) wholeOrNot(name string) error {
	now, err := k.export(name)
	if err == nil && now != k.before && now != k.after {
		err = errors.New("the data file is neither as before nor as after")
	}
	return err
}

func (k *killer) importing() error {
	data, err := k.fresh()
	if err != nil {
		return err
	}
	if err := k.kill("import", k.path("after.json"), "--yes", "--data", data); err != nil {
		return err
	}
	return k.sameThings("tried.db")
}

// sameThings compares what an import was killed in: what it has imported has the numbers of this file, so that it is
// compared by what the export says of groups.
func (k *killer) sameThings(name string) error {
	now, err := k.export(name)
	if err != nil {
		return err
	}
	groups := func(export string) int { return strings.Count(export, `"weektime"`) }
	if n := groups(now); n != groups(k.before) && n != groups(k.before)+groups(k.after) {
		return fmt.Errorf("there are %d groups, neither as before nor as after", n)
	}
	return nil
}

func (k *killer) backup() error {
	file := k.path("tried.backup")
	os.Remove(file)
	if err := k.kill("backup", file, "--data", k.path("after.db")); err != nil {
		return err
	}
	if _, err := os.Stat(file); err != nil { // it was not there yet: then its name is free
		if out, err := k.command("backup", file, "--data", k.path("after.db")).CombinedOutput(); err != nil {
			return fmt.Errorf("the next backup: %w: %s", err, out)
		}
	}
	for _, rest := range []string{"", "-wal", "-shm", ".lock"} {
		os.Remove(k.path("restored.db" + rest))
	}
	if out, err := k.command("restore", file, "--data", k.path("restored.db")).CombinedOutput(); err != nil {
		return fmt.Errorf("restore: %w: %s", err, out)
	}
	now, err := k.export("restored.db")
	if err == nil && now != k.after {
		err = errors.New("the backup is not what was backed up")
	}
	return err
}

func (k *killer) restore() error {
	data, err := k.fresh()
	if err != nil {
		return err
	}
	if err := k.kill("restore", k.backupFile, "--data", data); err != nil {
		return err
	}
	kept, err := filepath.Glob(data + ".before-*")
	for _, file := range kept {
		os.Remove(file)
	}
	return errors.Join(err, k.wholeOrNot("tried.db"))
}

func (k *killer) migrate() error {
	data, err := k.fresh()
	if err != nil {
		return err
	}
	if err := olderForm(data); err != nil {
		return err
	}
	if err := k.kill("export", k.path("nothing.json"), "--data", data); err != nil {
		return err
	}
	os.Remove(k.path("nothing.json"))
	kept, err := filepath.Glob(data + ".before-update-*")
	for _, file := range kept {
		os.Remove(file)
	}
	now, exportErr := k.export("tried.db")
	if err := errors.Join(err, exportErr); err != nil {
		return err
	}
	const ofAClass = `"acknowledged"` // each has it, and nothing else
	if strings.Count(now, ofAClass) != strings.Count(k.before, ofAClass) {
		return errors.New("classes are missing")
	}
	return nil
}

// olderForm takes the last changes of form back, as an earlier version has left the file.
func olderForm(path string) error {
	db, err := sql.Open("sqlite", path)
	if err != nil {
		return err
	}
	defer db.Close()
	for _, statement := range []string{ // the newest first, to before the sixth
		"DROP TABLE heard",
		"DROP TABLE check_ins",
		"DROP INDEX classes_of_programme", "DROP INDEX plans_of_programme", "DROP INDEX plans_by_change",
		"DROP INDEX plans_without_time", "DROP INDEX plans_coming",
		"CREATE INDEX plans_by_start ON plans (starts_at)",
		"ALTER TABLE groups DROP COLUMN revision", "ALTER TABLE practices DROP COLUMN revision",
		"ALTER TABLE settings DROP COLUMN revision",
		"ALTER TABLE digests DROP COLUMN sum", "DROP TABLE rehearsals", "DROP TABLE programmes", "DROP TABLE recordings",
		"DROP TABLE voices", "DROP TABLE homes", "DROP TABLE answers", "ALTER TABLE digests DROP COLUMN told",
		"ALTER TABLE digests DROP COLUMN damaged", "DROP INDEX classes_in_progress",
		"ALTER TABLE classes DROP COLUMN ended_at",
		"DELETE FROM goose_db_version WHERE version_id >= 6", "PRAGMA user_version = 0", "PRAGMA application_id = 0",
	} {
		if _, err := db.Exec(statement); err != nil {
			return fmt.Errorf("%s: %w", statement, err)
		}
	}
	return nil
}

// ledClass is a class that is led while the program is killed again and again.
type ledClass struct {
	data         string
	program      *stage.Program
	score        contract.Score
	plan         contract.Plan
	acknowledged map[string]contract.Answer // by what was noted
	saves        int
}

func newLedClass(data string) (*ledClass, error) {
	l := &ledClass{data: data, acknowledged: map[string]contract.Answer{}}
	if err := l.start(); err != nil {
		return nil, err
	}
	const document = `{"document": {"format": "vast-lantern-plan", "version": 1, "title": "save 0", "passages": ` +
		`[{"type": "practice", "practice": "counted-breath", "counts": "60:60", "rounds": 200}]}}`
	if err := l.program.Post("/api/plans", document, &l.plan); err != nil {
		return nil, err
	}
	return l, l.program.Lead(l.plan.ID, &l.score)
}

func (l *ledClass) start() (err error) {
	l.program, err = stage.Start("serve", "--data", l.data, "--port", "0")
	return err
}

// killed presses and saves as fast as it is answered, kills the program, starts it anew and looks for what was
// acknowledged: each press once and as it was answered, the plan as it was saved last or as it was on its way.
func (l *ledClass) killed(number int, random *rand.Rand) error {
	var screens sync.WaitGroup
	var mutex sync.Mutex
	begun := make(chan struct{}, 100_000)
	for screen := range 2 {
		screens.Go(func() {
			for i := 0; ; i++ {
				key := fmt.Sprintf("%d.%d.%d", number, screen, i)
				var done contract.Adjusted
				if l.program.Post(
					fmt.Sprintf("/api/classes/%d/adjustments", l.score.ClassID),
					fmt.Sprintf(`{"key": %q, "do": "note", "text": %q}`, key, key),
					&done,
				) != nil {
					return // it was killed
				}
				mutex.Lock()
				l.acknowledged[key] = done.Answer
				mutex.Unlock()
				begun <- struct{}{}
			}
		})
	}
	saved, onItsWay := l.plan, ""
	screens.Go(func() {
		for {
			onItsWay = fmt.Sprintf("save %d", l.saves+1)
			body, _ := json.Marshal(
				contract.PlanSave{
					Revision: saved.Revision,
					Document: []byte(strings.Replace(string(saved.Document), saved.Summary.Title, onItsWay, 1)),
				},
			)
			var next contract.Plan
			if l.program.Put(fmt.Sprintf("/api/plans/%d", saved.ID), string(body), &next) != nil {
				return
			}
			saved = next
			l.saves++
		}
	})
	select {
	case <-begun:
	case <-time.After(20 * time.Second):
		return errors.New("no press was answered")
	}
	time.Sleep(time.Duration(random.IntN(60)) * time.Millisecond) // the moment is what is tried, not waited for
	l.program.Kill()
	screens.Wait()
	if err := l.start(); err != nil {
		return err
	}
	var record contract.Record
	if err := l.program.Get(fmt.Sprintf("/api/classes/%d/record", l.score.ClassID), &record); err != nil {
		return err
	}
	found := map[string]contract.Answer{}
	for i, mark := range record.Marks {
		if _, twice := found[mark.Answer.Text]; twice || mark.Answer.Number != i+1 {
			return fmt.Errorf("adjustment %d is there twice, or out of its place", mark.Answer.Number)
		}
		found[mark.Answer.Text] = mark.Answer
	}
	for key, answer := range l.acknowledged {
		if !reflect.DeepEqual(found[key], answer) {
			return fmt.Errorf("the press %s was answered with %+v, and is %+v", key, answer, found[key])
		}
	}
	if !record.Class.Running {
		return errors.New("the class is not led any more")
	}
	if err := l.program.Get(fmt.Sprintf("/api/plans/%d", saved.ID), &l.plan); err != nil {
		return err
	}
	switch l.plan.Summary.Title {
	case saved.Summary.Title:
	case onItsWay:
		l.saves++
	default:
		return fmt.Errorf("the plan is %q, saved last was %q", l.plan.Summary.Title, saved.Summary.Title)
	}
	return nil
}
