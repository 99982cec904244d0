package record

import (
	"context"
	"errors"
	"maps"
	"slices"
	"strconv"

	"vastlantern/core/plan"
	"vastlantern/core/taught"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// toldOf is told for a screen, with until when more can come.
func (r *Records) toldOf(ctx context.Context, class store.Class, p *plan.Plan) (contract.Told, error) {
	until, sums, err := r.studio.AskedUntil(ctx, class)
	known, toldErr := r.told(ctx, class.ID)
	told := contract.Told{
		Easy:    sums.Easy,
		Right:   sums.Right,
		TooMuch: sums.TooMuch,
		Main:    sums.Main,
		Beside:  sums.Beside,
		Most:    sums.Most,
		Unready: known.Unready().Pointer(),
		Counted: counted(known, p),
	}
	if !until.IsZero() {
		told.UntilMS = contract.Millis(until)
	}
	return told, errors.Join(err, toldErr)
}

// told returns what is known of those who breathed in a class: what was answered afterwards, what the teacher counted,
// and how it was at home.
func (r *Records) told(ctx context.Context, class int64) (taught.Told, error) {
	answers, err := r.studio.Store.With(ctx).Answers(class)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return taught.Told{}, err
	}
	remarks, err := r.studio.Store.With(ctx).Remarks(class)
	if err != nil {
		return taught.Told{}, err
	}
	told := taught.Told{
		Amounts: amounts(answers.Amounts),
		Easy:    answers.Easy,
		Right:   answers.Right,
		TooMuch: answers.TooMuch,
		Main:    answers.Main,
		Beside:  answers.Beside,
	}
	told.Attended, _ = strconv.Atoi(lastRemark(remarks, remarkPeople)) // nobody counted if there is none
	homes, err := r.studio.Store.With(ctx).HomesOfClass(class, 0)
	told.HomeTooMuch = slices.ContainsFunc(homes, func(h store.Home) bool { return h.Answer == contract.HomeTooMuch })
	told.Gentler, _ = strconv.Atoi(lastRemark(remarks, remarkGentler))
	return told, err
}

// amounts returns what people counted, the least first.
func amounts(told map[int]int) []taught.Amount {
	var list []taught.Amount
	for _, number := range slices.Sorted(maps.Keys(told)) {
		list = append(list, taught.Amount{Number: number, People: told[number]})
	}
	return list
}

// counted returns what people counted at own pace in the class of a plan; nil if nobody told it.
func counted(told taught.Told, p *plan.Plan) *contract.Counted {
	people, least, most, median := told.Counted()
	if people == 0 {
		return nil
	}
	return &contract.Counted{
		Of: taught.CountedAlone(p), People: people, Least: least, Most: most, Median: median.Float(),
	}
}
