package studio

import (
	"archive/zip"
	"bytes"
	"fmt"
	"io"
	"slices"
	"strings"
	"time"
	"unicode"

	ical "github.com/arran4/golang-ical"

	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/core/taught"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// File is something to be saved on disk.
type File struct {
	Name string
	Type string // of its content, as HTTP names it
	Data []byte
}

// PlanFile is a plan as the file that every command reads.
func (s *Studio) PlanFile(id int64) (File, error) {
	stored, err := s.store.Plan(id)
	if err != nil {
		return File{}, missing(err, "plan", id)
	}
	return File{fileName(stored.Title) + ".plan.json", "application/json", stored.Document}, nil
}

// ImportPlan stores a plan file that was written elsewhere. What is wrong in its fields is shown where it is edited;
// what is no plan file at all is refused.
func (s *Studio) ImportPlan(in contract.PlanText) (contract.Plan, error) {
	return s.AddPlan([]byte(in.Text), in.GroupID)
}

// CourseFiles is all plans of a course in one archive, to hand it to a substitute.
func (s *Studio) CourseFiles(id int64) (File, error) {
	course, err := s.Course(id)
	if err != nil {
		return File{}, err
	}
	if len(course.Plans) == 0 {
		return File{}, fail(ErrNotFound, "This plan belongs to no course.")
	}
	var archive bytes.Buffer
	writer := zip.NewWriter(&archive)
	for i, card := range course.Plans {
		file, err := s.PlanFile(card.ID)
		if err != nil {
			return File{}, err
		}
		entry, err := writer.Create(fmt.Sprintf("%02d-%s", i+1, file.Name))
		if err != nil {
			return File{}, err
		}
		if _, err := entry.Write(file.Data); err != nil {
			return File{}, err
		}
	}
	err = writer.Close()
	return File{fileName(course.Plans[0].Title) + "-course.zip", "application/zip", archive.Bytes()}, err
}

// sheets is the forms of a cue sheet.
var sheets = map[string]struct {
	kind  string
	write func(io.Writer, pace.Timeline) error
}{
	"csv":  {"text/csv; charset=utf-8", writeForSpreadsheets},
	"json": {"application/json", sheet.WriteJSON},
	"vtt":  {"text/vtt; charset=utf-8", sheet.WriteVTT},
}

// writeForSpreadsheets writes a cue sheet as CSV in which no spreadsheet takes a teacher's own word for a formula. The
// commands, whose sheets other programs read, write the words as they are.
func writeForSpreadsheets(w io.Writer, t pace.Timeline) error {
	t.Rows = slices.Clone(t.Rows)
	for i, row := range t.Rows {
		t.Rows[i].Say, t.Rows[i].Practice = harmless(row.Say), harmless(row.Practice)
	}
	return sheet.WriteCSV(w, t)
}

// PlanSheet is the cue sheet of a plan as written, in the form: csv, json or vtt.
func (s *Studio) PlanSheet(id int64, form string) (File, error) {
	stored, err := s.store.Plan(id)
	if err != nil {
		return File{}, missing(err, "plan", id)
	}
	as, known := sheets[form]
	if !known {
		return File{}, fail(ErrNotFound, "A cue sheet is csv, json or vtt, not %q.", form)
	}
	_, p, err := sheet.ReadPlan(bytes.NewReader(stored.Document))
	if err != nil {
		return File{}, &Failure{ErrInvalid, contract.Problem{Say: "This plan has no cue sheet yet. Mend what is marked in it first.", Fields: fieldErrors(err)}}
	}
	var text bytes.Buffer
	err = as.write(&text, pace.Sheet(p))
	return File{fileName(stored.Title) + "." + form, as.kind, text.Bytes()}, err
}

// TaughtSheet is the cue sheet of what was taught, so far where the class is running.
func (s *Studio) TaughtSheet(class int64, form string) (File, error) {
	l, err := s.open(class)
	if err != nil {
		return File{}, err
	}
	as, known := sheets[form]
	if !known {
		return File{}, fail(ErrNotFound, "A cue sheet is csv, json or vtt, not %q.", form)
	}
	var text bytes.Buffer
	err = as.write(&text, taught.Until(l.class.Timeline(), l.at(s.now())))
	return File{l.fileName() + "." + form, as.kind, text.Bytes()}, err
}

// fileName is the day and the title of a class.
func (l *led) fileName() string {
	return l.stored.StartedAt.Local().Format(time.DateOnly) + "-" + fileName(l.plan.Title)
}

// Calendar is the plans that have a time, as an iCalendar file (RFC 5545); of one plan where id is not 0.
func (s *Studio) Calendar(id int64) (File, error) {
	all, err := s.store.Plans()
	if err != nil {
		return File{}, err
	}
	groups, err := s.groups()
	if err != nil {
		return File{}, err
	}
	name := "classes"
	calendar := ical.NewCalendarFor("Vast Lantern")
	calendar.SetMethod(ical.MethodPublish)
	for _, stored := range all {
		if stored.StartsAt.IsZero() || id != 0 && stored.ID != id {
			continue
		}
		if id != 0 {
			name = fileName(stored.Title)
		}
		addEvent(calendar, stored, groups[stored.GroupID])
	}
	if len(calendar.Events()) == 0 {
		return File{}, fail(ErrNotFound, "There is no plan with a time to put into a calendar. Give it one first.")
	}
	return File{name + ".ics", "text/calendar; charset=utf-8", []byte(calendar.Serialize())}, nil
}

func addEvent(calendar *ical.Calendar, stored store.Plan, group *contract.Group) {
	card := planCard(stored, map[int64]*contract.Group{stored.GroupID: group})
	length := time.Duration(max(card.LengthMS, card.SlotMS)) * time.Millisecond
	event := calendar.AddEvent(fmt.Sprintf("plan-%d@vast-lantern", stored.ID))
	event.SetDtStampTime(stored.UpdatedAt)
	event.SetModifiedAt(stored.UpdatedAt)
	event.SetStartAt(stored.StartsAt)
	event.SetEndAt(stored.StartsAt.Add(max(length.Round(time.Second), time.Minute)))
	event.SetSummary(stored.Title)
	if group != nil {
		event.SetSummary(stored.Title + ", " + group.Name)
	}
	event.SetDescription(strings.Join(card.Passages, "\n"))
}

// fileName is a title as a file's name on any system.
func fileName(title string) string {
	name := strings.Map(func(r rune) rune {
		if unicode.IsLetter(r) || unicode.IsDigit(r) {
			return unicode.ToLower(r)
		}
		return '-'
	}, title)
	name = strings.Join(strings.FieldsFunc(name, func(r rune) bool { return r == '-' }), "-")
	if name == "" {
		return "class"
	}
	return name
}

// late is the document fitted to what is left of its slot: its end stays where it was planned.
func (s *Studio) late(doc plan.Doc, p *plan.Plan) error {
	if p.Slot.Sign() == 0 || p.StartsAt.IsZero() {
		return fail(ErrInvalid, "This plan has no time or no slot: there is no end to fit it to.")
	}
	left := p.StartsAt.Add(time.Duration(p.Slot.Times(60_000).Round()) * time.Millisecond).Sub(s.now())
	if left < time.Minute {
		return fail(ErrInvalid, "Its time is over: lead it as it is, or make a shorter plan.")
	}
	fitInto(doc, p, left)
	return nil
}
