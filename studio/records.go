package studio

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"errors"
	"fmt"
	"strconv"
	"strings"
	"time"

	"vastlantern/core/taught"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

const recordsVersion = 1

// mostClassesInFile bounds a file of records: ten years of ten classes a week.
const mostClassesInFile = 5200

// chosen is the classes that are asked for, the newest first, with what was taught in them.
func (s *Studio) chosen(want contract.Search) ([]store.Listed, error) {
	if err := s.allDigested(); err != nil {
		return nil, err
	}
	search, err := s.search(want)
	if err != nil {
		return nil, err
	}
	search.Records, search.Most = true, mostClassesInFile+1
	list, err := s.find(search)
	switch {
	case err != nil:
		return nil, err
	case len(list) == 0:
		return nil, fail(ErrNotFound, "No classes match. Try fewer words or a longer time.")
	case len(list) > mostClassesInFile:
		return nil, fail(ErrInvalid, "These are over %d classes: choose fewer days. lantern export writes everything.", mostClassesInFile)
	}
	return list, nil
}

// allDigested tells where classes would be missing in a sum or a file, because they have not been worked out yet.
func (s *Studio) allDigested() error {
	left, err := s.store.WithoutDigest()
	if err == nil && left > 0 {
		err = fail(ErrConflict, "%d classes are still being prepared, as after an import. Try again in a moment.", left)
	}
	return err
}

// rangeName is the name of a file of several classes.
func rangeName(want contract.Search) string {
	name := "taught"
	if want.From != "" {
		name += "-from-" + want.From
	}
	if want.To != "" {
		name += "-to-" + want.To
	}
	return name
}

// RecordFile is the whole record of one class as JSON, in the shape of contract.Records.
func (s *Studio) RecordFile(class int64) (File, error) {
	l, err := s.open(class)
	if err != nil {
		return File{}, err
	}
	return s.recordsFile(l.fileName(), []int64{class})
}

// RecordsFile is the same for all classes that are asked for.
func (s *Studio) RecordsFile(want contract.Search) (File, error) {
	list, err := s.chosen(want)
	if err != nil {
		return File{}, err
	}
	ids := make([]int64, len(list))
	for i, one := range list {
		ids[i] = one.Class.ID
	}
	return s.recordsFile(rangeName(want), ids)
}

func (s *Studio) recordsFile(name string, classes []int64) (File, error) {
	file := contract.Records{Format: contract.RecordsFormat, Version: recordsVersion, Classes: []contract.RecordOfClass{}}
	for _, id := range classes {
		r, err := s.Record(id)
		if errors.Is(err, ErrDamaged) && len(classes) > 1 {
			continue
		}
		if err != nil {
			return File{}, err
		}
		stored, err := s.store.Class(id)
		if err != nil {
			return File{}, err
		}
		file.Classes = append(file.Classes, contract.RecordOfClass{
			Class: r.Class, PlannedMS: r.PlannedMS, TaughtMS: r.TaughtMS, Passages: r.Passages, Totals: r.Totals, Marks: r.Marks, Remarks: r.Remarks, Curve: r.Curve,
			Acknowledged: r.Acknowledged, Plan: stored.Document,
		})
	}
	var text bytes.Buffer
	out := json.NewEncoder(&text)
	out.SetEscapeHTML(false)
	out.SetIndent("", " ")
	err := out.Encode(file)
	return File{name + ".records.json", "application/json", text.Bytes()}, err
}

// RecordTable is the record of one class as CSV (RFC 4180), one row a passage.
func (s *Studio) RecordTable(class int64) (File, error) {
	l, err := s.open(class)
	if err != nil {
		return File{}, err
	}
	of := taught.Of(l.plan, l.script, l.at(s.now()))
	return s.recordTable(l.fileName(), []tableClass{{l.stored, l.plan.Title, of.Passages}})
}

// RecordsTable is the same for all classes that are asked for.
func (s *Studio) RecordsTable(want contract.Search) (File, error) {
	list, err := s.chosen(want)
	if err != nil {
		return File{}, err
	}
	classes := make([]tableClass, len(list))
	for i, one := range list {
		classes[i] = tableClass{one.Class, one.Digest.Title, nil}
		if err := json.Unmarshal(one.Digest.Record, &classes[i].passages); err != nil {
			s.noteDamage(store.KindClass, one.Class.ID, err) // its row stays empty
		}
	}
	return s.recordTable(rangeName(want), classes)
}

type tableClass struct {
	stored   store.Class
	title    string
	passages []taught.Passage
}

// columns is the table's, as docs/record-files.md tells.
var columns = []string{
	"class_start", "class", "group", "people", "took", "passage", "name", "practice", "counts", "counts_end", "own_pace", "trial", "planned_ms", "taught_ms",
	"planned_rounds", "rounds", "abandoned", "planned_tempo", "tempo_start", "tempo_end", "tempo_mean", "breaths_per_minute", "longest_hold_ms",
	"held_full_ms", "held_empty_ms", "left_inhales", "right_inhales", "eased",
}

func (s *Studio) recordTable(name string, classes []tableClass) (File, error) {
	groups, err := s.groupsEver()
	if err != nil {
		return File{}, err
	}
	var text bytes.Buffer
	table := csv.NewWriter(&text)
	rows := [][]string{columns}
	for _, c := range classes {
		remarks, err := s.store.Remarks(c.stored.ID)
		if err != nil {
			return File{}, err
		}
		group := ""
		if g := groups[c.stored.GroupID]; g != nil {
			group = g.Name
		}
		start := c.stored.StartedAt.In(s.now().Location()).Format(time.RFC3339)
		for i := range c.passages {
			p := recordPassage(c.passages[i])
			row := []string{start, c.title, group, lastRemark(remarks, remarkPeople), lastRemark(remarks, remarkTook), strconv.Itoa(i + 1), p.Name, p.Practice, p.Counts, p.CountsEnd}
			for _, value := range []any{p.OwnPace, p.Trial, p.PlannedLengthMS, p.LengthMS, p.PlannedRounds, p.Rounds, p.Abandoned, p.PlannedTempo, p.TempoStart, p.TempoEnd, p.TempoMean, p.PerMinute, p.LongestHoldMS, p.HeldFullMS, p.HeldEmptyMS, p.LeftInhales, p.RightInhales, p.Eased} {
				row = append(row, fmt.Sprint(value))
			}
			rows = append(rows, row)
		}
	}
	for _, row := range rows {
		for i, cell := range row {
			row[i] = harmless(cell)
		}
	}
	err = table.WriteAll(rows)
	return File{name + ".csv", "text/csv; charset=utf-8", text.Bytes()}, err
}

// lastRemark is what was said of a kind last, which is what holds; empty where nothing was.
func lastRemark(remarks []store.Remark, kind string) (text string) {
	for _, r := range remarks {
		if r.Kind == kind {
			text = r.Text
		}
	}
	return text
}

// harmless is a cell that no spreadsheet takes for a formula (common practice, as OWASP's "CSV Injection" advises).
func harmless(cell string) string {
	if cell != "" && strings.ContainsRune("=+-@\t\r", rune(cell[0])) {
		return "'" + cell
	}
	return cell
}
