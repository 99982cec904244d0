package studio

import (
	"bytes"
	"embed"
	"encoding/json"
	"errors"
	"fmt"
	"path"
	"slices"
	"strconv"
	"strings"
	"time"

	"vastlantern/core/plan"
	"vastlantern/core/sheet"
	"vastlantern/core/taught"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

//go:embed templates/*.plan.json
var templates embed.FS

// Templates is the plans of ours to begin with.
func (s *Studio) Templates() ([]contract.Template, error) {
	files, err := templates.ReadDir("templates")
	if err != nil {
		return nil, err
	}
	list := []contract.Template{}
	for _, file := range files {
		doc, p, err := template(file.Name())
		if err != nil {
			return nil, err
		}
		about, _ := doc["about"].(string)
		list = append(list, contract.Template{ID: strings.TrimSuffix(file.Name(), ".plan.json"), Title: p.Title, About: about, LengthMS: p.Length().Round()})
	}
	return list, nil
}

func template(name string) (plan.Doc, *plan.Plan, error) {
	text, err := templates.ReadFile(path.Join("templates", name))
	if err != nil {
		return nil, nil, fail(ErrNotFound, "There is no template %q.", strings.TrimSuffix(name, ".plan.json"))
	}
	return sheet.ReadPlan(bytes.NewReader(text))
}

// BeginPlan makes a new plan from a template, or from a class that was led, for the group's next time.
func (s *Studio) BeginPlan(want contract.Begin) (contract.Plan, error) {
	var doc plan.Doc
	var err error
	if want.ClassID == 0 {
		doc, _, err = template(want.Template + ".plan.json")
		delete(doc, "about")
	} else {
		doc, want.GroupID, err = s.again(want)
	}
	if err != nil {
		return contract.Plan{}, err
	}
	group, err := s.group(want.GroupID)
	if err != nil {
		return contract.Plan{}, err
	}
	if at := nextTime(group, s.now()); !at.IsZero() {
		doc["starts_at"] = at.Format(time.RFC3339)
	} else {
		delete(doc, "starts_at")
	}
	var text bytes.Buffer
	if err := sheet.WritePlan(&text, doc); err != nil {
		return contract.Plan{}, err
	}
	return s.AddPlan(text.Bytes(), want.GroupID)
}

// again is the plan of a class that was led, as planned or as taught.
func (s *Studio) again(want contract.Begin) (plan.Doc, int64, error) {
	l, err := s.open(want.ClassID)
	if err != nil {
		return nil, 0, err
	}
	doc, err := sheet.ReadDoc(bytes.NewReader(l.stored.Document))
	if err != nil {
		return nil, 0, err
	}
	delete(doc, "course")
	group := want.GroupID
	if group == 0 {
		group = l.stored.GroupID
	}
	switch want.How {
	case "", "planned":
	case "taught":
		taught.Of(l.plan, l.script, l.at(s.now())).Plan(doc, l.plan)
	case "advised":
		h, err := s.history(group)
		if err != nil {
			return nil, 0, err
		}
		list, _ := doc["passages"].([]any)
		for i := range l.plan.Passages {
			if fields, ok := list[i].(map[string]any); ok {
				advised(fields, &l.plan.Passages[i], h)
			}
		}
	default:
		return nil, 0, fail(ErrInvalid, "A class is planned again as planned, taught or advised, not %q.", want.How)
	}
	return doc, group, nil
}

// nextTime is when the group's weekly class is next; zero where it has none.
func nextTime(group *contract.Group, now time.Time) time.Time {
	if group == nil || group.Weekday < 0 {
		return time.Time{}
	}
	clock, err := time.Parse("15:04", group.Weektime)
	if err != nil {
		return time.Time{}
	}
	at := time.Date(now.Year(), now.Month(), now.Day(), clock.Hour(), clock.Minute(), 0, 0, now.Location())
	for int(at.Weekday()) != group.Weekday || !at.After(now) {
		at = at.AddDate(0, 0, 1)
	}
	return at
}

// Bounds of a course.
const (
	mostClasses = 60
	mostDays    = 60
)

// MakeCourse adds the other classes of a course to the plan, which becomes its first.
func (s *Studio) MakeCourse(id int64, want contract.Course) (contract.CourseCard, error) {
	if want.Classes < 2 || want.Classes > mostClasses || want.Days < 1 || want.Days > mostDays {
		return contract.CourseCard{}, fail(ErrInvalid, "A course has 2 to %d classes, 1 to %d days apart.", mostClasses, mostDays)
	}
	if !slices.Contains([]string{plan.GrowNothing, plan.GrowRounds, plan.GrowCounts}, want.Grow) {
		return contract.CourseCard{}, fail(ErrInvalid, "Nothing grows in a course, or rounds, or counts; not %q.", want.Grow)
	}
	stored, err := s.store.Plan(id)
	if err != nil {
		return contract.CourseCard{}, missing(err, "plan", id)
	}
	doc, p, err := sheet.ReadPlan(bytes.NewReader(stored.Document))
	switch {
	case err != nil:
		return contract.CourseCard{}, &Failure{ErrInvalid, contract.Problem{Say: "Mend what is marked in this plan first.", Fields: fieldErrors(err)}}
	case doc["course"] != nil:
		return contract.CourseCard{}, fail(ErrConflict, "This plan belongs to a course already.")
	case p.StartsAt.IsZero():
		return contract.CourseCard{}, fail(ErrInvalid, "Give the first class a time: the others follow from it.")
	}
	if want.Grow != plan.GrowNothing {
		if want.Passage < 1 || want.Passage > len(p.Passages) || !p.Passages[want.Passage-1].Led() {
			return contract.CourseCard{}, fail(ErrInvalid, "Say which practice grows.")
		}
	}
	name := strconv.FormatInt(id, 10) + "-" + strconv.FormatInt(s.now().UnixMilli(), 36)
	all := make([]store.Plan, want.Classes)
	for i := range all {
		next, err := sheet.ReadDoc(bytes.NewReader(stored.Document))
		if err != nil {
			return contract.CourseCard{}, err
		}
		next["course"] = map[string]any{"name": name, "class": i + 1, "of": want.Classes, "days": want.Days}
		next["starts_at"] = p.StartsAt.AddDate(0, 0, i*want.Days).Format(time.RFC3339)
		if err := grown(plan.Grow(next, p, want.Passage, want.Grow, i), i+1); err != nil {
			return contract.CourseCard{}, err
		}
		of := stored
		if i > 0 {
			of.ID = 0 // a new one
		}
		if all[i], err = s.courseClass(next, of); err != nil {
			return contract.CourseCard{}, err
		}
	}
	err = s.store.InTransaction(func(st *store.Store) error { // a course is made whole or not at all
		_, err := st.SavePlan(all[0])
		for _, next := range all[1:] {
			if err == nil {
				_, err = st.AddPlan(next)
			}
		}
		return err
	})
	if err != nil {
		return contract.CourseCard{}, changedElsewhere(err)
	}
	return s.Course(id)
}

// courseClass is a document as it is stored, in the place of the plan or, added, as another one beside it.
func (s *Studio) courseClass(doc plan.Doc, of store.Plan) (store.Plan, error) {
	var text bytes.Buffer
	if err := sheet.WritePlan(&text, doc); err != nil {
		return store.Plan{}, err
	}
	row, err := s.toStore(text.Bytes(), of.GroupID)
	row.ID, row.Revision = of.ID, of.Revision
	return row, err
}

// changedElsewhere tells that a plan was changed while its course was.
func changedElsewhere(err error) error {
	if errors.Is(err, store.ErrTaken) {
		return fail(ErrConflict, "This plan was changed in another window meanwhile. Nothing was changed: try again.")
	}
	return err
}

// grown tells why a class of a course cannot be.
func grown(err error, class int) error {
	var beyond plan.Errors
	switch {
	case err == nil:
		return nil
	case errors.As(err, &beyond):
		return &Failure{ErrInvalid, contract.Problem{Say: fmt.Sprintf("Class %d would grow beyond what is allowed: make the course shorter.", class), Fields: fieldErrors(err)}}
	}
	return fail(ErrInvalid, "It cannot grow so: %v.", err)
}

// course is the mark in a plan that belongs to one.
type course struct {
	Name  string `json:"name"`
	Class int    `json:"class"`
	Of    int    `json:"of"`
	Days  int    `json:"days"`
}

func courseOf(document []byte) (c course) {
	var marked struct {
		Course course `json:"course"`
	}
	if json.Unmarshal(document, &marked) != nil {
		return course{}
	}
	return marked.Course
}

// Course is the course that a plan belongs to; without plans where it belongs to none.
func (s *Studio) Course(id int64) (contract.CourseCard, error) {
	card := contract.CourseCard{Plans: []contract.PlanCard{}}
	stored, err := s.store.Plan(id)
	if err != nil {
		return card, missing(err, "plan", id)
	}
	mine := courseOf(stored.Document)
	if mine.Name == "" {
		return card, nil
	}
	card.Place, card.Days = mine.Class, mine.Days
	groups, err := s.groups()
	if err != nil {
		return card, err
	}
	all, err := s.store.Plans()
	for _, one := range all {
		if courseOf(one.Document).Name == mine.Name {
			card.Plans = append(card.Plans, planCard(one, groups))
		}
	}
	return card, err
}

// ShiftCourse moves a plan and the later ones of its course on by the days between two of them: a day was missed.
func (s *Studio) ShiftCourse(id int64) (contract.CourseCard, error) {
	stored, err := s.store.Plan(id)
	if err != nil {
		return contract.CourseCard{}, missing(err, "plan", id)
	}
	mine := courseOf(stored.Document)
	if mine.Name == "" {
		return contract.CourseCard{}, fail(ErrInvalid, "This plan belongs to no course.")
	}
	all, err := s.store.Plans()
	if err != nil {
		return contract.CourseCard{}, err
	}
	var moved []store.Plan
	for _, one := range all {
		if c := courseOf(one.Document); c.Name != mine.Name || c.Class < mine.Class || one.StartsAt.IsZero() {
			continue
		}
		doc, p, err := sheet.ReadPlan(bytes.NewReader(one.Document))
		if p == nil {
			return contract.CourseCard{}, err
		}
		doc["starts_at"] = p.StartsAt.AddDate(0, 0, mine.Days).Format(time.RFC3339) // in the zone that it was written in
		row, err := s.courseClass(doc, one)
		if err != nil {
			return contract.CourseCard{}, err
		}
		moved = append(moved, row)
	}
	err = s.store.InTransaction(func(st *store.Store) error {
		for _, row := range moved {
			if _, err := st.SavePlan(row); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		return contract.CourseCard{}, changedElsewhere(err)
	}
	return s.Course(id)
}
