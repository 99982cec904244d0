package record

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"strings"

	"vastlantern/core/plan"
	"vastlantern/core/taught"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// fewestShown is how many must have answered before a sum is shown: of fewer it would tell who said what (common
// practice of statistics, with no source).
const fewestShown = 3

// checkIn returns what the room answered before and after a class; nil where it was not asked.
func (r *Records) checkIn(ctx context.Context, class int64) (*contract.CheckInSums, error) {
	stored, err := r.studio.Store.With(ctx).CheckInOfClass(class)
	if errors.Is(err, store.ErrNotFound) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	shown := checkInOf(stored)
	return &shown, nil
}

func checkInOf(stored store.CheckIn) contract.CheckInSums {
	question := plan.CheckIn(stored.Question)
	before, after := shownSums(stored.Before), shownSums(stored.After)
	c := contract.CheckInSums{
		Question: question, Before: sumsInOrder(question, before), After: sumsInOrder(question, after),
		People: contract.CheckInPeople{Before: store.People(stored.Before), After: store.People(stored.After)},
	}
	if mean, people := question.Mean(before); people > 0 {
		c.MeanBefore = mean.Float()
	}
	if mean, people := question.Mean(after); people > 0 {
		c.MeanAfter = mean.Float()
	}
	return c
}

// shownSums returns the sums, none of too few people.
func shownSums(sums map[string]int) map[string]int {
	if store.People(sums) < fewestShown {
		return nil
	}
	return sums
}

func sumsInOrder(question plan.CheckIn, sums map[string]int) []contract.CheckInSum {
	list := []contract.CheckInSum{}
	if len(sums) == 0 {
		return list
	}
	for _, answer := range question.Answers() {
		list = append(list, contract.CheckInSum{Answer: answer, People: sums[answer]})
	}
	return list
}

// checkIns returns what a group answered in its classes, beside what was breathed in them.
func (r *Records) checkIns(
	ctx context.Context, group int64, past *past, book map[string]string,
) ([]contract.CheckInPoint, error) {
	list := []contract.CheckInPoint{}
	if len(past.classes) == 0 {
		return list, nil
	}
	stored, err := r.studio.Store.With(ctx).CheckInsOfGroup(group, past.classes[0].stored.StartedAt)
	for _, class := range past.classes {
		of, asked := stored[class.stored.ID]
		if !asked || store.People(of.Before)+store.People(of.After) == 0 {
			continue
		}
		list = append(list, contract.CheckInPoint{
			ClassID: class.stored.ID, StartedMS: contract.Millis(class.stored.StartedAt), Breathed: breathed(class.record, book),
			CheckInSums: checkInOf(of),
		})
	}
	return list, err
}

// breathed returns the practices of a class as they were led, without try-outs.
func breathed(record taught.Record, book map[string]string) []string {
	list := []string{}
	for _, p := range record.Passages {
		if p.Practice == "" || p.Trial || p.Length == 0 {
			continue
		}
		one := cmp.Or(book[p.Practice], p.Name)
		if p.Counts.Inhale > 0 {
			one += " " + p.Counts.String()
		}
		if p.Rounds > 0 {
			one += fmt.Sprintf(" ×%d", p.Rounds)
		}
		list = append(list, one)
	}
	return list
}

// checkInCell writes the sums of an answer in a cell, in the order of the question: "left:3 both:2 right:4".
func checkInCell(sums []contract.CheckInSum) string {
	var list []string
	for _, s := range sums {
		list = append(list, fmt.Sprintf("%s:%d", s.Answer, s.People))
	}
	return strings.Join(list, " ")
}
