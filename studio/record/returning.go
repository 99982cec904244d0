package record

import (
	"context"
	"strings"

	"vastlantern/core/cue"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/store"
	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// lookedBack is in how many classes of a group notes are looked for: what was not used in so many classes will not be.
const lookedBack = 12

// Returning returns the notes of a group's classes that nobody has used or put away, those for next time first, then
// the newest.
func (r *Records) Returning(ctx context.Context, group int64) (contract.ReturningNotes, error) {
	out := contract.ReturningNotes{Notes: []contract.ReturningNote{}}
	if group == 0 {
		return out, nil
	}
	found, err := r.studio.Store.With(ctx).Find(ctx, store.Search{Group: group, Most: lookedBack})
	if err != nil {
		return out, err
	}
	var others []contract.ReturningNote
	for _, listed := range found {
		class, err := r.classes.Open(ctx, listed.ID)
		if err != nil {
			continue // the lists name what is damaged
		}
		notes, err := r.notesOf(ctx, class)
		if err != nil {
			return out, err
		}
		for _, note := range notes {
			if note.Next {
				out.Notes = append(out.Notes, note)
			} else {
				others = append(others, note)
			}
		}
	}
	out.Notes = append(out.Notes, others...)
	return out, nil
}

// notesOf returns the notes of a class that are not settled, in the order in which they were made.
func (r *Records) notesOf(ctx context.Context, class *studio.Class) ([]contract.ReturningNote, error) {
	remarks, err := r.studio.Store.With(ctx).Remarks(class.Stored.ID)
	if err != nil {
		return nil, err
	}
	settled := map[string]bool{}
	for _, remark := range remarks {
		if remark.Kind == remarkUsed || remark.Kind == remarkPutAway {
			settled[remark.Text] = true
		}
	}
	var list []contract.ReturningNote
	add := func(text string, at float64, next bool) {
		if !settled[text] {
			list = append(list, contract.ReturningNote{
				ClassID: class.Stored.ID, Title: class.Plan.Title, AtMS: at, Text: text, Next: next,
			})
		}
	}
	for i, a := range class.Script {
		if a.Do == pace.Note && class.Sent[i].Aside == nil {
			add(strings.TrimSpace(a.Text), contract.Millis(class.Stored.StartedAt)+float64(a.At), a.Carry)
		}
	}
	for _, remark := range remarks {
		if remark.Kind == remarkNote || remark.Kind == remarkNext {
			add(remark.Text, contract.Millis(remark.At), remark.Kind == remarkNext)
		}
	}
	return list, nil
}

// unsaid returns what a class was planned to have and did not reach: own words whose place did not come, talks and what
// is said in them, and strong cautions that nobody read before. What was settled since is marked.
func unsaid(ctx context.Context, l *studio.Class, remarks []contract.Remark) []contract.Unsaid {
	list := []contract.Unsaid{}
	settled := map[string]string{}
	for _, remark := range remarks {
		switch remark.Kind {
		case remarkNext, remarkUsed, remarkPutAway:
			settled[remark.Text] = remark.Kind
		}
	}
	type words struct {
		passage int
		text    string
	}
	seen := map[words]bool{}
	add := func(passage int, kind, text string) {
		if w := (words{passage, text}); text != "" && !seen[w] {
			seen[w] = true
			list = append(list, contract.Unsaid{
				Passage: passage, Name: studio.Called(ctx, l.Plan.Passages[passage-1]), Kind: kind, Text: text,
				Settled: settled[text],
			})
		}
	}
	tl := l.Led.Timeline()
	reached := map[int]bool{}
	for _, row := range tl.Rows {
		reached[row.Passage] = true
	}
	for i := range l.Plan.Passages {
		p := &l.Plan.Passages[i]
		if reached[i+1] {
			continue
		}
		if p.Type == plan.Talk {
			text := studio.Called(ctx, *p)
			if p.Script != "" {
				text = p.Script
			}
			add(i+1, contract.UnsaidTalk, text)
		} else {
			add(i+1, contract.UnsaidScript, p.Script)
		}
	}
	planned := cue.Reached(l.Plan, pace.Sheet(l.Plan).Rows, pace.Begin(l.Plan).Passages())
	for i, lines := range cue.Reached(l.Plan, tl.Rows, l.Led.Passages()) {
		for n, there := range lines {
			if !there && planned[i][n] {
				add(i+1, contract.UnsaidLine, l.Plan.Passages[i].Lines[n].Text)
			}
		}
	}
	return list
}
