package transfer

import (
	"bytes"
	"encoding/json"
	"errors"
	"reflect"
	"slices"
	"time"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/core/sheet"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

func (i *Import) choices(here, in *contract.Choices) error {
	if in == nil {
		return nil
	}
	chosen, err := i.transfer.library.CheckChoices(*in)
	if err != nil {
		return fact.Wrap(err, "entry.choices", "why", err)
	}
	change := Change{Kind: "choices", Name: fact.New("import.choices-name"), Does: doesAdd}
	if here != nil {
		if change.Does, change.What = doesChange, differing(*here, chosen); len(change.What) == 0 {
			i.Same++
			return nil
		}
	}
	return i.put(change, func(st *store.Store) error { return i.transfer.library.SaveChoices(st, chosen) })
}

func (i *Import) practice(here *contract.ExportPractice, in contract.ExportPractice) error {
	id, name, err := i.transfer.library.CheckPractice(in.File)
	if err != nil {
		return err
	}
	if id != in.ID {
		return fact.New("entry.other-id", "id", in.ID, "file", id)
	}
	change := Change{Kind: "practice", Name: named(name), Does: doesAdd}
	if here != nil {
		if change.Does, _ = does(here, in, here.UpdatedAt, in.UpdatedAt); change.Does == "" {
			i.Same++
			return nil
		}
	}
	if change.Does == doesKeep {
		return i.put(change, nil)
	}
	return i.put(change, func(st *store.Store) error {
		return st.PutPractice(store.Practice{ID: in.ID, Document: []byte(in.File), UpdatedAt: in.UpdatedAt})
	})
}

func (i *Import) group(here *contract.ExportGroup, in contract.ExportGroup) error {
	if here == nil {
		i.groups[in.UID] = 0 // known from when it is stored; also where it is wrong, which is told once
	}
	row, err := i.transfer.library.CheckGroup(contract.Group{
		Name:       in.Name,
		Level:      practice.ID(in.Level),
		Size:       in.Size,
		Weekday:    in.Weekday,
		Weektime:   in.Weektime,
		Under16:    in.Under16,
		Conditions: in.Conditions,
		Schools:    in.Schools, Notes: in.Notes,
	})
	if err != nil {
		return err
	}
	row.UID, row.UpdatedAt, row.DeletedAt = in.UID, in.UpdatedAt, orZero(in.DeletedAt)
	change := Change{Kind: "group", Name: named(in.Name), Does: doesAdd}
	if here == nil {
		return i.put(change, func(st *store.Store) error {
			added, err := st.AddGroup(row)
			i.groups[in.UID] = added.ID
			return err
		})
	}
	change.Does, change.What = does(
		here,
		in,
		changedAt(here.UpdatedAt, here.DeletedAt),
		changedAt(in.UpdatedAt, in.DeletedAt),
	)
	return i.replace(change, here.DeletedAt, in.DeletedAt, func(st *store.Store) error { return st.PutGroup(row) })
}

// replace is what is done with a thing that is on both sides.
func (i *Import) replace(change Change, here, in *time.Time, step func(*store.Store) error) error {
	switch change.Does {
	case "":
		i.Same++
		return nil
	case doesKeep:
		return i.put(change, nil)
	}
	switch {
	case here == nil && in != nil:
		change.Does, change.What = doesDelete, nil
	case here != nil && in == nil:
		change.Does, change.What = doesReturn, nil
	}
	return i.put(change, step)
}

// refer checks that what is referred to is here or in the file.
func (i *Import) refer(group, plan string) error {
	if _, known := i.groups[group]; group != "" && !known {
		return fact.New("entry.no-group", "group", group)
	}
	if _, known := i.plans[plan]; plan != "" && !known {
		return fact.New("entry.no-plan", "plan", plan)
	}
	return nil
}

func (i *Import) plan(here *contract.ExportPlan, in contract.ExportPlan) error {
	if here == nil {
		i.plans[in.UID] = 0
	}
	if err := i.refer(in.Group, ""); err != nil {
		return err
	}
	document, p, err := rewritten(in.Document)
	if p == nil {
		return err
	}
	row := store.Plan{
		Title:     p.Title,
		StartsAt:  p.StartsAt,
		Document:  document,
		UpdatedAt: in.UpdatedAt,
		UID:       in.UID,
		DeletedAt: orZero(in.DeletedAt),
	}
	change := Change{Kind: "plan", Name: named(titled(row.Title, row.StartsAt)), Does: doesAdd}
	if here == nil {
		return i.put(change, func(st *store.Store) error {
			row.GroupID = i.groups[in.Group]
			added, err := st.AddPlan(row)
			i.plans[in.UID] = added.ID
			return err
		})
	}
	change.Does, change.What = does(
		here,
		in,
		changedAt(here.UpdatedAt, here.DeletedAt),
		changedAt(in.UpdatedAt, in.DeletedAt),
	)
	return i.replace(change, here.DeletedAt, in.DeletedAt, func(st *store.Store) error {
		row.GroupID = i.groups[in.Group]
		return st.PutPlan(row)
	})
}

// rewritten returns a plan document as the application stores it. The plan is there also where its fields have errors.
func rewritten(document []byte) ([]byte, *plan.Plan, error) {
	doc, p, err := sheet.ReadPlan(bytes.NewReader(document))
	if p == nil {
		return nil, nil, err
	}
	var text bytes.Buffer
	err = errors.Join(err, sheet.WritePlan(&text, doc))
	return text.Bytes(), p, err
}

func titled(title string, at time.Time) string {
	if title == "" {
		title = "untitled"
	}
	if at.IsZero() {
		return title
	}
	return title + ", " + at.Local().Format("2 Jan 2006 15:04")
}

// checkClass reads what is in a class of the file. It asks for nothing else, so that many are read at once.
func checkClass(in contract.ExportClass) (title string, ended time.Time, err error) {
	document, p, err := rewritten(in.Document)
	if err != nil {
		return "", ended, fact.Wrap(err, "entry.plan-unreadable", "why", err)
	}
	keys := map[string]bool{}
	before := int64(0)
	for n, a := range in.Adjustments {
		read, err := sheet.ReadAdjustment(a.Line)
		switch {
		case err != nil:
			return p.Title, ended, fact.Wrap(err, "entry.adjustment", "number", n+1, "why", err)
		case read.At < before:
			return p.Title, ended, fact.New("entry.adjustment-time", "number", n+1, "given", read.At, "before", before)
		case keys[a.Key]:
			return p.Title, ended, fact.New("entry.adjustment-key", "number", n+1, "key", a.Key)
		}
		before, keys[a.Key] = read.At, true
	}
	if err := errors.Join(checkAnswers(in.Answers), checkCheckIn(in.CheckIn), studio.CheckHeard(in.Heard)); err != nil {
		return p.Title, ended, err
	}
	ended, err = endOf(in, document)
	return p.Title, ended, err
}

func (i *Import) class(here *contract.ExportClass, in *fileClass) error {
	if err := i.refer(in.Group, in.Plan); err != nil {
		return err
	}
	if in.err != nil {
		return in.err
	}
	change := Change{Kind: "class", Name: named(titled(in.title, in.StartedAt)), Does: doesAdd}
	if here == nil {
		i.Changes = append(i.Changes, change)
		i.steps = append(i.steps, i.addClass(in))
		return nil
	}
	return i.longer(change, here, in)
}

// addClass stores a class of the file that is not here.
func (i *Import) addClass(in *fileClass) step {
	var document []byte
	var rows []store.Adjustment
	var unread error
	return step{
		ahead: func() { _, document, rows, unread = in.whole() },
		do: func(st *store.Store) error {
			if unread != nil {
				return unread
			}
			added, err := st.AddClass(store.Class{
				PlanID:       i.plans[in.Plan],
				GroupID:      i.groups[in.Group],
				StartedAt:    in.StartedAt,
				EndedAt:      in.ended,
				Document:     document,
				Acknowledged: in.Acknowledged,
				UID:          in.UID, DeletedAt: orZero(in.DeletedAt),
			})
			if err != nil {
				return err
			}
			if err := st.AddAdjustments(added.ID, rows...); err != nil {
				return err
			}
			document, rows = nil, nil // thousands come after it
			return errors.Join(addRemarks(st, added.ID, in.Remarks), putAnswers(st, added.ID, in.Answers),
				putCheckIn(st, added.ID, in.CheckIn), addHeard(st, added.ID, in.Heard))
		},
	}
}

// endOf returns when a class of the file came to its end. One that was in progress when the file was written is over
// here: at the end of its plan as it was, or with the last that was pressed where it waited for the teacher.
func endOf(in contract.ExportClass, document []byte) (time.Time, error) {
	if in.EndedAt != nil {
		return in.EndedAt.UTC(), nil
	}
	rows := make([]store.Adjustment, len(in.Adjustments))
	for n, a := range in.Adjustments {
		rows[n] = store.Adjustment{Number: n + 1, Key: a.Key, Body: a.Line, Origin: a.Origin}
	}
	l, err := studio.ReadClass(store.Class{StartedAt: in.StartedAt, Document: document}, rows)
	if err != nil {
		return time.Time{}, err
	}
	end := l.Led.Timeline().End
	if l.Led.Timeline().Open {
		end = l.LastPress()
	}
	return in.StartedAt.Add(time.Duration(end) * time.Millisecond).UTC(), nil
}

// longer makes a class that is on both sides longer by what only the file has.
func (i *Import) longer(change Change, here *contract.ExportClass, file *fileClass) error {
	in, _, rows, err := file.whole()
	if err != nil {
		return err
	}
	ended := file.ended
	both := min(len(here.Adjustments), len(in.Adjustments))
	for n := range both {
		if one, other := &here.Adjustments[n], &in.Adjustments[n]; one.Key != other.Key || one.Origin != other.Origin ||
			!sameJSON(one.Line, other.Line) {
			return fact.New("entry.led-differently", "name", change.Name, "number", n+1)
		}
	}
	other := ""
	switch {
	case !sameJSON(here.Document, in.Document):
		other = "document"
	case !here.StartedAt.Equal(in.StartedAt):
		other = "started_at"
	}
	if other != "" {
		return fact.New("entry.differs", "name", change.Name, "what", other)
	}
	var remarks []contract.ExportRemark
	for _, r := range in.Remarks {
		same := func(other contract.ExportRemark) bool {
			return other.At.Equal(r.At) && other.Kind == r.Kind && other.Text == r.Text
		}
		if !slices.ContainsFunc(here.Remarks, same) {
			remarks = append(remarks, r)
		}
	}
	deleted := in.DeletedAt != nil && here.DeletedAt == nil
	if len(rows) > both {
		change.What = append(change.What, count("adjustments", int64(len(rows)-both)))
	}
	if len(remarks) > 0 {
		change.What = append(change.What, count("remarks", int64(len(remarks))))
	}
	later := here.EndedAt != nil && ended.After(*here.EndedAt)
	if later {
		change.What = append(change.What, fact.New("what.end"))
	}
	var answers *contract.ExportAnswers // of the machine on which more have answered: they come to one only
	if given(in.Answers) > given(here.Answers) || here.Answers == nil && in.Answers != nil {
		answers = in.Answers
		change.What = append(change.What, fact.New("what.answers"))
	}
	var checked *contract.ExportCheckIn // likewise
	if checkedIn(in.CheckIn) > checkedIn(here.CheckIn) || here.CheckIn == nil && in.CheckIn != nil {
		checked = in.CheckIn
		change.What = append(change.What, fact.New("what.check-in"))
	}
	heard := notYetHeard(here.Heard, in.Heard)
	if len(heard) > 0 {
		change.What = append(change.What, fact.New("what.heard"))
	}
	if len(change.What) == 0 && !deleted {
		i.Same++
		return nil
	}
	if change.Does = doesChange; deleted {
		change.Does = doesDelete
	}
	return i.put(change, func(st *store.Store) error {
		id, err := st.ClassOf(in.UID)
		if err != nil {
			return err
		}
		if err := st.AddAdjustments(id, rows[both:]...); err != nil {
			return err
		}
		if later {
			if err := st.EndClass(id, ended); err != nil {
				return err
			}
		}
		err = errors.Join(
			addRemarks(st, id, remarks), putAnswers(st, id, answers), putCheckIn(st, id, checked), addHeard(st, id, heard),
		)
		if err != nil || !deleted {
			return err
		}
		return st.Delete(store.Thing{Kind: store.KindClass, ID: id}, false, *in.DeletedAt)
	})
}

// sameJSON reports whether two texts say the same; nearly all are equal to the letter.
func sameJSON(a, b []byte) bool {
	if bytes.Equal(a, b) {
		return true
	}
	var one, other any
	return json.Unmarshal(a, &one) == nil && json.Unmarshal(b, &other) == nil && reflect.DeepEqual(one, other)
}

func addRemarks(st *store.Store, class int64, remarks []contract.ExportRemark) error {
	for _, r := range remarks {
		if err := st.AddRemark(class, store.Remark{At: r.At, Kind: r.Kind, Text: r.Text}); err != nil {
			return err
		}
	}
	return nil
}

// given returns how many answers there are.
func given(a *contract.ExportAnswers) int {
	if a == nil {
		return 0
	}
	return a.Easy + a.Right + a.TooMuch
}

func checkAnswers(a *contract.ExportAnswers) error {
	if a == nil {
		return nil
	}
	if given(a) > a.Most {
		return fact.New("entry.answers-over", "given", given(a), "most", a.Most)
	}
	people := 0
	for amount, n := range a.Amounts {
		if amount < 1 || amount > contract.MostCounted || n < 1 {
			return fact.New("entry.amount", "given", amount, "most", contract.MostCounted)
		}
		people += n
	}
	if people > given(a) {
		return fact.New("entry.amounts-over", "given", people, "most", given(a))
	}
	if a.Main+a.Beside > given(a) {
		return fact.New("entry.lanes-over", "given", a.Main+a.Beside, "most", given(a))
	}
	return nil
}

func putAnswers(st *store.Store, class int64, a *contract.ExportAnswers) error {
	if a == nil {
		return nil
	}
	return st.PutAnswers(
		class,
		store.Answers{
			Most: a.Most, Easy: a.Easy, Right: a.Right, TooMuch: a.TooMuch, Main: a.Main, Beside: a.Beside, Amounts: a.Amounts,
		},
	)
}
