package record

import (
	"bytes"
	"context"
	"encoding/csv"
	"encoding/json"
	"errors"
	"fmt"
	"strconv"
	"strings"
	"time"

	"vastlantern/core/taught"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

const recordsVersion = 1

// mostClassesInFile bounds a file of records: ten years of ten classes a week.
const mostClassesInFile = 5200

// chosen returns the classes that are asked for, the newest first, with what was taught in them.
func (r *Records) chosen(ctx context.Context, want contract.Search) ([]store.Listed, error) {
	if err := r.allDigested(ctx); err != nil {
		return nil, err
	}
	search, err := r.search(want)
	if err != nil {
		return nil, err
	}
	search.Records, search.Most = true, mostClassesInFile+1
	list, err := r.find(ctx, search)
	switch {
	case err != nil:
		return nil, err
	case len(list) == 0:
		return nil, studio.Fail(studio.ErrNotFound, "records.none")
	case len(list) > mostClassesInFile:
		return nil, studio.Fail(studio.ErrInvalid, "records.too-many", "most", mostClassesInFile)
	}
	return list, nil
}

// allDigested reports where classes would be missing in a sum or a file, because they have not been worked out yet.
func (r *Records) allDigested(ctx context.Context) error {
	left, err := r.studio.Store.With(ctx).WithoutDigest()
	if err == nil && left > 0 {
		err = studio.Fail(studio.ErrConflict, "records.preparing", "left", left)
	}
	return err
}

// rangeName returns the name of a file of several classes.
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

// RecordFile returns the whole record of one class as JSON, in the shape of contract.Records.
func (r *Records) RecordFile(ctx context.Context, class int64) (studio.File, error) {
	l, err := r.classes.Open(ctx, class)
	if err != nil {
		return studio.File{}, err
	}
	return r.recordsFile(ctx, l.FileName(), []int64{class})
}

// RecordsFile returns the same for all classes that are asked for.
func (r *Records) RecordsFile(ctx context.Context, want contract.Search) (studio.File, error) {
	list, err := r.chosen(ctx, want)
	if err != nil {
		return studio.File{}, err
	}
	ids := make([]int64, len(list))
	for i, one := range list {
		ids[i] = one.Class.ID
	}
	return r.recordsFile(ctx, rangeName(want), ids)
}

func (r *Records) recordsFile(ctx context.Context, name string, classes []int64) (studio.File, error) {
	file := contract.Records{Format: contract.RecordsFormat, Version: recordsVersion, Classes: []contract.RecordOfClass{}}
	for _, id := range classes {
		one, err := r.Record(ctx, id)
		if errors.Is(err, studio.ErrDamaged) && len(classes) > 1 {
			continue
		}
		if err != nil {
			return studio.File{}, err
		}
		class, err := r.classes.Open(ctx, id) // which need not be in the data file: a sample class is not
		if err != nil {
			return studio.File{}, err
		}
		file.Classes = append(file.Classes, contract.RecordOfClass{
			Class:        one.Class,
			PlannedMS:    one.PlannedMS,
			TaughtMS:     one.TaughtMS,
			Passages:     one.Passages,
			Totals:       one.Totals,
			Marks:        one.Marks,
			Remarks:      one.Remarks,
			Curve:        one.Curve,
			CheckIn:      one.CheckIn,
			Heard:        one.Heard,
			Told:         one.Told,
			Homes:        one.Homes,
			Acknowledged: one.Acknowledged, Plan: class.Stored.Document,
		})
	}
	var text bytes.Buffer
	out := json.NewEncoder(&text)
	out.SetEscapeHTML(false)
	out.SetIndent("", " ")
	err := out.Encode(file)
	return studio.File{Name: name + ".records.json", Type: "application/json", Data: text.Bytes()}, err
}

// RecordTable returns the record of one class as CSV (RFC 4180), one row a passage.
func (r *Records) RecordTable(ctx context.Context, class int64) (studio.File, error) {
	l, err := r.classes.Open(ctx, class)
	if err != nil {
		return studio.File{}, err
	}
	told, err := r.told(ctx, class)
	if err != nil {
		return studio.File{}, err
	}
	of := taught.Of(l.Plan, l.Script, l.At(r.studio.Now()))
	return r.recordTable(ctx, l.FileName(), []tableClass{{l.Stored, l.Plan.Title, of.Passages, told}})
}

// RecordsTable returns the same for all classes that are asked for.
func (r *Records) RecordsTable(ctx context.Context, want contract.Search) (studio.File, error) {
	list, err := r.chosen(ctx, want)
	if err != nil {
		return studio.File{}, err
	}
	classes := make([]tableClass, len(list))
	for i, one := range list {
		classes[i] = tableClass{stored: one.Class, title: one.Digest.Title}
		err := errors.Join(
			json.Unmarshal(one.Digest.Record, &classes[i].passages),
			json.Unmarshal(one.Digest.Told, &classes[i].told),
		)
		if err != nil {
			r.studio.NoteDamage(store.KindClass, one.Class.ID, err) // its row stays empty
		}
	}
	return r.recordTable(ctx, rangeName(want), classes)
}

type tableClass struct {
	stored   store.Class
	title    string
	passages []taught.Passage
	told     taught.Told
}

// columns is the table's, as docs/record-files.md tells.
var columns = []string{
	"class_start", "class", "group", "people", "took", "passage", "name", "practice", "counts", "counts_end", "own_pace",
	"trial", "planned_ms", "taught_ms",
	"planned_rounds", "rounds", "abandoned", "planned_tempo", "tempo_start", "tempo_end", "tempo_mean",
	"breaths_per_minute", "longest_hold_ms",
	"held_full_ms", "held_empty_ms", "left_inhales", "right_inhales", "eased", "done", "airway", "zone", "attention",
	"inhale_width", "exhale_width", "voice", "beside",
	"lanes", "gentler", "easy", "right", "too_much", "told_main", "told_beside",
	"hand_tempo", "by_hand", "counted", "corrections", "check_in", "before", "after", "heard",
}

// countedInCell writes what people counted at own pace, and how many told each number: "60:2 110:1".
func countedInCell(told taught.Told) string {
	var list []string
	for _, a := range told.Amounts {
		list = append(list, fmt.Sprintf("%d:%d", a.Number, a.People))
	}
	return strings.Join(list, " ")
}

func (r *Records) recordTable(ctx context.Context, name string, classes []tableClass) (studio.File, error) {
	groups, err := r.library.EveryGroupByID(ctx)
	if err != nil {
		return studio.File{}, err
	}
	var text bytes.Buffer
	table := csv.NewWriter(&text)
	rows := [][]string{columns}
	for _, c := range classes {
		remarks, err := r.studio.Store.With(ctx).Remarks(c.stored.ID)
		if err != nil {
			return studio.File{}, err
		}
		asked := contract.CheckInSums{}
		switch found, err := r.checkIn(ctx, c.stored.ID); {
		case err != nil:
			return studio.File{}, err
		case found != nil:
			asked = *found
		}
		heard, err := r.heardIn(ctx, c.stored.ID)
		if err != nil {
			return studio.File{}, err
		}
		group := ""
		if g := groups[c.stored.GroupID]; g != nil {
			group = g.Name
		}
		start := c.stored.StartedAt.In(r.studio.Now().Location()).Format(time.RFC3339)
		for i := range c.passages {
			p := recordPassage(c.passages[i])
			row := []string{
				start,
				c.title,
				group,
				lastRemark(remarks, remarkPeople),
				lastRemark(remarks, remarkMood),
				strconv.Itoa(i + 1),
				p.Name,
				p.Practice,
				p.Counts,
				p.CountsEnd,
			}
			for _, value := range []any{p.OwnPace, p.Trial, p.PlannedLengthMS, p.LengthMS, p.PlannedRounds, p.Rounds,
				p.Abandoned, p.PlannedTempo, p.TempoStart, p.TempoEnd, p.TempoMean, p.PerMinute, p.LongestHoldMS, p.HeldFullMS,
				p.HeldEmptyMS, p.LeftInhales, p.RightInhales, p.Eased} {
				row = append(row, fmt.Sprint(value))
			}
			row = append(
				row,
				doneInCell(p.Done),
				p.Airway,
				p.Zone,
				p.Attention,
				p.InhaleWidth,
				p.ExhaleWidth,
				p.Voice,
				p.Beside,
				lanesInCell(p.Lanes),
				lastRemark(remarks, remarkGentler),
			)
			for _, n := range []int{c.told.Easy, c.told.Right, c.told.TooMuch, c.told.Main, c.told.Beside} {
				row = append(row, strconv.Itoa(n))
			}
			row = append(row, strconv.Itoa(p.HandTempo), breathsInCell(p.Breaths), countedInCell(c.told),
				correctionsInCell(remarks), string(asked.Question), checkInCell(asked.Before), checkInCell(asked.After),
				heardInCell(heard, i+1))
			rows = append(rows, row)
		}
	}
	for _, row := range rows {
		for i, cell := range row {
			row[i] = studio.PlainCell(cell)
		}
	}
	err = table.WriteAll(rows)
	return studio.File{Name: name + ".csv", Type: "text/csv; charset=utf-8", Data: text.Bytes()}, err
}

// doneInCell returns the rounds as they were done: "24 31 28" strokes, or "5/20/8/10" seconds of each open phase.
func doneInCell(done []contract.LedRound) string {
	var rounds []string
	for _, d := range done {
		if d.Strokes > 0 {
			rounds = append(rounds, strconv.Itoa(d.Strokes))
			continue
		}
		rounds = append(rounds, inSeconds(d.InhaleMS, d.HoldMS, d.ExhaleMS, d.EmptyMS))
	}
	return strings.Join(rounds, " ")
}

// breathsInCell returns the breaths that were led by hand: "4.2/0/6.1/0" seconds of each phase.
func breathsInCell(breaths []contract.LedBreath) string {
	list := make([]string, len(breaths))
	for i, b := range breaths {
		list[i] = inSeconds(b.InhaleMS, b.HoldMS, b.ExhaleMS, b.EmptyMS)
	}
	return strings.Join(list, " ")
}

func inSeconds(phases ...int64) string {
	list := make([]string, len(phases))
	for i, ms := range phases {
		list[i] = strconv.FormatFloat(float64(ms)/1000, 'f', -1, 64)
	}
	return strings.Join(list, "/")
}

// lanesInCell returns the gentler lanes that ran beside: "4:4/32000/64000/8", when each was opened and for how long in
// milliseconds, and the breaths in it.
func lanesInCell(lanes []contract.LedLane) string {
	var cell []string
	for _, l := range lanes {
		cell = append(cell, fmt.Sprintf("%s/%d/%d/%d", l.Beside, l.AtMS, l.LengthMS, l.Breaths))
	}
	return strings.Join(cell, " ")
}

// correctionsInCell writes the corrections of a class, one after the other.
func correctionsInCell(remarks []store.Remark) string {
	var list []string
	for _, remark := range remarks {
		if remark.Kind == remarkCorrection {
			list = append(list, remark.Text)
		}
	}
	return strings.Join(list, " | ")
}

// lastRemark returns what was said of a kind last, which is what holds; empty if nothing was.
func lastRemark(remarks []store.Remark, kind string) (text string) {
	for _, r := range remarks {
		if r.Kind == kind {
			text = r.Text
		}
	}
	return text
}
