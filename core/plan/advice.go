package plan

import (
	"slices"
	"time"

	"vastlantern/core/breath"
	"vastlantern/core/fact"
	"vastlantern/core/practice"
)

// Advice is something about the order or the length of a plan that a teacher may want to change. It forbids nothing.
type Advice struct {
	Passage int // from 1; 0 for the plan as a whole
	Say     fact.Fact
	Why     fact.Fact
	apply   func(Document) // makes it so; nil if that is for the teacher
}

// Key names the advice in a plan that put it away: what it says, with its arguments.
func (a Advice) Key() string { return a.Say.Error() }

// CanApply reports whether Apply can make it so.
func (a Advice) CanApply() bool { return a.apply != nil }

// Apply makes it so in the document that the advice is on.
func (a Advice) Apply(d Document) { a.apply(d) }

// What is added where advice is applied.
const (
	settling    = 60  // seconds of talk at the beginning
	closingRest = 120 // seconds
)

// lateFrom is the hour from which a class counts as late in the evening (common practice, with no source).
const lateFrom = 20

// The end of a class, in milliseconds (common practice, with no source).
const (
	fullRest   = 60_000  // of quiet at the end, at least; in a short class a tenth of it
	shortRest  = 20_000  // the least of that
	longestBye = 120_000 // of talk after it, which is a goodbye
)

// Advise returns the advice on a plan for a group of the level, one of practice.Levels or empty: first of the whole,
// then passage by passage.
func (p *Plan) Advise(level string) []Advice {
	var list []Advice
	if p.Slot.Sign() > 0 {
		if over := p.Length().Sub(p.Slot.Times(60_000)); over.Sign() > 0 {
			list = append(
				list,
				Advice{0, fact.New("advice.over-slot", "over", SpokenTime(breath.Int(over.Div(breath.Int(1000)).Round()*1000))),
					p.whatIsOver(), nil},
			)
		}
	}
	if n := len(p.Passages); n > 0 {
		if first := &p.Passages[0]; first.Type == Practice {
			list = append(list, Advice{1, fact.New("advice.settle"), fact.New("advice.settle.why"), func(d Document) {
				d.Insert(1, NewStretch(Talk, "Seat and spine", breath.Int(settling)))
			}})
		}
		if least := p.leastRest(); p.quietEnd().Less(least) {
			seconds, added := least.Div(breath.Int(1000)), breath.Int(closingRest)
			if least.Less(breath.Int(fullRest)) {
				added = seconds
			}
			list = append(
				list,
				Advice{
					n,
					fact.New("advice.close-with-rest", "seconds", int(seconds.Floor())),
					fact.New("advice.close-with-rest.why"),
					func(d Document) {
						d.Insert(p.lastDoing()+1, NewStretch(Free, "Rest", added))
					},
				},
			)
		}
	}
	return slices.Concat(list, p.adviseOnOrder(), p.adviseOnAmounts(level), p.adviseOnLanes())
}

// leastRest returns how long the quiet at the end should be at least, in milliseconds: whole tens of seconds.
func (p *Plan) leastRest() breath.Exact {
	const ten = 10_000
	tenth := breath.Int(ten).Times(int(p.Length().Div(breath.Int(10 * ten)).Floor()))
	return breath.Max(breath.Int(shortRest), breath.Min(tenth, breath.Int(fullRest)))
}

// whatIsOver returns where the time goes that a plan takes beyond its slot.
func (p *Plan) whatIsOver() fact.Fact {
	if p.quietEnd().Sign() > 0 {
		return fact.New("advice.over-slot.from-rest")
	}
	return fact.New("advice.over-slot.late")
}

// lastDoing returns the last passage, from 1, that is no talk: a goodbye comes after the rest.
func (p *Plan) lastDoing() int {
	last := len(p.Passages)
	for last > 0 && p.Passages[last-1].Type == Talk {
		last--
	}
	return last
}

// quietEnd returns how long nobody has anything to do at the end, in milliseconds: free breathing, and what is not
// counted in the closing of the practice before it. A goodbye may follow.
func (p *Plan) quietEnd() breath.Exact {
	last := len(p.Passages) - 1
	for talk := (breath.Exact{}); last >= 0 && p.Passages[last].Type == Talk; last-- {
		if talk = talk.Add(p.Passages[last].Length); breath.Int(longestBye).Less(talk) {
			return breath.Exact{}
		}
	}
	var quiet breath.Exact
	for ; last >= 0; last-- {
		passage := &p.Passages[last]
		if passage.Type != Free {
			for _, step := range slices.Backward(passage.ClosingSteps) {
				if step.Breaths > 0 {
					break
				}
				quiet = quiet.Add(step.Length)
			}
			break
		}
		quiet = quiet.Add(passage.Length)
	}
	return quiet
}

// adviseOnAmounts tells of which practice there is more than is advised in one class.
func (p *Plan) adviseOnAmounts(level string) []Advice {
	var list []Advice
	type key struct {
		practice string
		with     practice.With
	}
	taken, told := map[key]breath.Exact{}, map[key]bool{}
	for i := range p.Passages {
		passage := &p.Passages[i]
		if passage.Type != Practice {
			continue
		}
		bounds := passage.Practice.Bounds.Of(passage.Measure.Counts)
		most := bounds.For(level)
		of := key{passage.Practice.ID, bounds.With}
		if most.Rounds > 0 {
			if rounds := passage.TotalRounds(passage.Measure); passage.HasRounds() && rounds > most.Rounds && !told[of] {
				told[of] = true
				list = append(
					list,
					Advice{
						i + 1,
						fact.New("advice.fewer-rounds", "name", passage.Name(), "most", most.Rounds, "planned", rounds),
						whyAmount(level),
						func(d Document) {
							d.Passages()[i].SetRounds(most.Rounds)
						},
					},
				)
			}
			continue
		}
		span := passage.Millis()
		if passage.HasRounds() {
			span = passage.RoundsSpan()
		}
		before := taken[of]
		taken[of] = before.Add(span)
		if limit := breath.Int(int64(most.Minutes) * 60_000); limit.Less(taken[of]) && !told[of] {
			told[of] = true
			list = append(
				list,
				Advice{
					i + 1,
					fact.New(
						"advice.less-time",
						"name",
						passage.Practice.Name,
						"most",
						most.Minutes,
						"planned",
						SpokenTime(taken[of]),
					),
					whyAmount(level),
					passage.shortened(i, limit.Sub(before)),
				},
			)
		}
	}
	return list
}

// shortened makes the passage of the index as long as the milliseconds allow; nil if nothing of it would be left.
func (p *Passage) shortened(i int, left breath.Exact) func(Document) {
	minutes := breath.Ratio(left.Div(breath.Int(6000)).Floor(), 10) // to a tenth
	switch {
	case minutes.Sign() <= 0:
		return nil
	case p.HasRounds() && !p.ByMinutes():
		rounds := RoundsWithin(left, p.RoundSpan(p.Measure), p.RestBetween)
		return func(d Document) { d.Passages()[i].SetRounds(rounds) }
	}
	return func(d Document) { d.Passages()[i].SetMinutes(minutes) }
}

func whyAmount(level string) fact.Fact {
	if level == practice.Levels[0] {
		return fact.New("advice.amount.beginners")
	}
	return fact.New("advice.amount.usual")
}

// shortestBreath is how long a breath of the gentler lane takes at least, in milliseconds, before check reports it
// (pacing.md section 6).
const shortestBreath = 4000

func (p *Plan) adviseOnLanes() []Advice {
	var list []Advice
	for i := range p.Passages {
		passage := &p.Passages[i]
		counts := passage.Beside.Inhale + passage.Beside.Exhale
		switch {
		case passage.Beside.Breathe && !passage.Holds():
			list = append(
				list,
				Advice{
					i + 1,
					fact.New("advice.lane-without-hold", "name", passage.Name()),
					fact.New("advice.lane-without-hold.why"),
					func(d Document) {
						delete(d.Passages()[i].values, "beside")
					},
				},
			)
		case passage.Beside.Shorter() && passage.rowLength().Times(counts).Less(breath.Int(shortestBreath)):
			list = append(
				list,
				Advice{
					i + 1,
					fact.New("advice.lane-too-short", "name", passage.Name()),
					fact.New("advice.lane-too-short.why"),
					nil,
				},
			)
		}
	}
	return list
}

// rowLength returns how long a count or a stroke of the rounds lasts as planned, in milliseconds.
func (p *Passage) rowLength() breath.Exact { return breath.CountLength(p.Measure.Tempo) }

// Holds reports whether there is a hold anywhere in the passage.
func (p *Passage) Holds() bool {
	for _, ph := range slices.Concat(p.Opening(), p.Round(p.Measure), p.Closing()) {
		if ph.Kind.Held() {
			return true
		}
	}
	return false
}

// Late reports whether the time is late in the evening where it was written; no time is not.
func Late(at time.Time) bool { return !at.IsZero() && (at.Hour() >= lateFrom || at.Hour() < 4) }

// adviseOnOrder reports what should be elsewhere, each kind of hint once, with all the passages that it is for.
func (p *Plan) adviseOnOrder() []Advice {
	calmed, breathed := 0, false
	late := Late(p.StartsAt)
	var tooLate, tooWarm, held passagesOf
	before, beforeNumber := "", 0
	for i := range p.Passages {
		passage := &p.Passages[i]
		if passage.Type != Practice {
			continue
		}
		switch as := passage.Practice.TaughtAs; {
		case as == practice.Calming:
			calmed = i + 1
		case as == practice.Warming && late:
			tooLate.add(i+1, passage)
		case as == practice.Warming && calmed > 0:
			if before == "" {
				before, beforeNumber = p.Passages[calmed-1].Name(), calmed
			}
			tooWarm.add(i+1, passage)
		}
		holds := passage.Measure.Counts.Holds()
		if holds && !breathed {
			held.add(i+1, passage)
		}
		breathed = breathed || !holds
	}
	var list []Advice
	if held.first > 0 {
		list = append(
			list,
			Advice{
				held.first,
				fact.New("advice.holds-first", "name", held.names[0]),
				fact.New("advice.holds-first.why"),
				func(d Document) {
					even := NewFields("counted-breath")
					even.SetCounts(breath.Counts{Inhale: 4, Exhale: 4})
					even.SetRounds(6)
					d.Insert(held.first, even)
				},
			},
		)
	}
	if tooLate.first > 0 {
		list = append(
			list,
			Advice{
				tooLate.first,
				fact.New("advice.too-late", "names", fact.Names(tooLate.names)),
				fact.New("advice.too-late.why"),
				func(d Document) {
					d.KeepOnly(func(number int) bool { return !slices.Contains(tooLate.numbers, number) })
				},
			},
		)
	}
	if tooWarm.first > 0 {
		list = append(
			list,
			Advice{
				tooWarm.first,
				fact.New("advice.warm-first", "names", fact.Names(tooWarm.names), "before", before),
				fact.New("advice.warm-first.why"),
				func(d Document) {
					all := d.Passages()
					d.KeepOnly(func(number int) bool { return !slices.Contains(tooWarm.numbers, number) })
					for i, number := range tooWarm.numbers {
						d.Insert(beforeNumber+i, all[number-1])
					}
				},
			},
		)
	}
	slices.SortStableFunc(list, func(a, b Advice) int { return a.Passage - b.Passage })
	return list
}

// passagesOf is the passages that one hint is for.
type passagesOf struct {
	first   int // from 1; 0 for none
	numbers []int
	names   []string
}

func (of *passagesOf) add(number int, p *Passage) {
	if of.first == 0 {
		of.first = number
	}
	of.numbers = append(of.numbers, number)
	if !slices.Contains(of.names, p.Name()) {
		of.names = append(of.names, p.Name())
	}
}
