package demo

import (
	"strconv"
	"time"

	"vastlantern/core/pace"
	"vastlantern/core/programme"
	"vastlantern/store"
	"vastlantern/studio/contract"
)

// changes is what was changed in a group's plan for one week: by passage, the short way.
type changes = map[int]string

// at returns an adjustment some seconds into a passage.
func at(passage int, after float64, do contract.Adjust) press { return press{passage, after, do} }

func on() contract.Adjust                 { return contract.Adjust{Do: "advance"} }
func plain(do string) contract.Adjust     { return contract.Adjust{Do: pace.Verb(do)} }
func tempo(value float64) contract.Adjust { return contract.Adjust{Do: "tempo", To: &value} }
func rounds(by int) contract.Adjust       { return contract.Adjust{Do: "rounds", By: &by} }
func note(text string) contract.Adjust    { return contract.Adjust{Do: "note", Text: &text} }
func carried(value float64) contract.Adjust {
	return contract.Adjust{Do: "tempo", To: &value, Carry: true}
}

// taught returns a class of the past: what was changed in its plan, what was pressed, how many came and how the room
// was.
func taught(plan changes, people int, mood string, pressed ...press) week {
	return week{
		changes: plan,
		pressed: pressed,
		after:   []contract.RemarkAdd{{Kind: "people", Text: strconv.Itoa(people)}, {Kind: "took", Text: mood}},
	}
}

// mixed returns a class of the past with a gentler lane beside: how many took it, as was counted, and what the room
// answered.
func (w week) mixed(gentler int, told store.Answers) week {
	w.after = append(w.after, contract.RemarkAdd{Kind: "gentler", Text: strconv.Itoa(gentler)})
	w.told = told
	return w
}

// checked returns a class before and after which the room said how calm it was: how many gave each answer from 1 on.
func (w week) checked(before, after []int) week {
	w.before, w.then = sums(before), sums(after)
	return w
}

func sums(people []int) map[string]int {
	list := map[string]int{}
	for i, n := range people {
		if n > 0 {
			list[strconv.Itoa(i+1)] = n
		}
	}
	return list
}

// withHome returns a class after which something went home: a passage, how much of it, and how it was.
func (w week) withHome(passage, minutes, pieces, days int, when, sentence, answer string) week {
	w.home = &contract.HomeGive{
		Passage:    passage,
		HomeAmount: contract.HomeAmount{Minutes: minutes, Pieces: pieces, Days: days, When: when, Sentence: sentence},
	}
	w.atHome = answer
	return w
}

// growing has what went home grow by these steps, with half of it in the evening.
func (w week) growing(steps ...contract.HomeStep) week {
	w.home.Steps, w.home.Evening, w.home.Ask = steps, "half", "Ilse, 555 0142, after 6 pm"
	return w
}

// The four groups: one that climbs, one that was eased back, one of teenagers, one that is irregular. The last week of
// each is the one to come.
var groups = []group{
	{
		name: "Birkholm House, offices", level: "beginners", size: 14, file: "settle",
		conditions: map[string]int{
			"newcomers":           3,
			"pregnancy":           1,
			"high-blood-pressure": 2,
		}, notes: "Chairs, shoes on. The room is free until five past.",
		weeks: []week{
			taught(
				changes{3: "4:4 2m", 5: "4:4 x1 @46"},
				11,
				"restless",
				at(1, 190, on()),
				at(4, 160, on()),
				at(5, 15, note("the hand shown twice")),
			),
			taught(changes{3: "4:4 2m", 5: "4:4 x2 @46"}, 13, "settled", at(1, 171, on()), at(4, 118, on())),
			taught(changes{3: "4:4 2m", 5: "4:4 x2 @46"}, 12, "settled", at(1, 160, on()), at(4, 90, on())),
			taught(
				changes{3: "4:4 3m", 5: "4:4 x2 @46"},
				14,
				"bright",
				at(1, 155, on()),
				at(4, 84, on()),
				at(5, 50, note("one more would have been good")),
			),
			taught(nil, 13, "settled", at(1, 151, on()), at(4, 80, on())),
			taught(nil, 14, "tired", at(1, 148, on()), at(4, 131, on()), at(5, 31, tempo(44)), at(5, 40, note("hands tire"))),
			taught(nil, 12, "settled", at(1, 133, on()), at(4, 74, on()), at(5, 33, plain("again")), at(5, 62, rounds(1))).
				withHome(3, 5, 1, 7, "in the morning", "Even in, even out, nothing more.", "now-and-then"),
			taught(nil, 15, "settled", at(1, 126, on()), at(4, 52, on()), at(5, 24, plain("pause")), at(5, 50, plain("resume")),
				at(5, 95, plain("last-round")), at(5, 96, note("a latecomer, settled at once"))).
				withHome(5, 6, 3, 7, "while waiting for something", "Two minutes each, on the chair where you are.", ""),
			{changes: changes{3: "4:4 3m", 5: "4:4 x4 @46"}},
		},
		programme: &programme.Programme{
			Name:    "A round more",
			Passage: 5,
			By:      programme.Led,
			Times:   2,
			Days:    7,
			Missed:  programme.Wait,
			Eased:   programme.Wait,
			Ceiling: 5,
			Steps: []programme.Step{
				{Says: "x2", Classes: 1},
				{Says: "x3", Classes: 1},
				{Says: "x4", Classes: 1},
				{Says: "x5", Classes: 1},
				{Says: "x6", Classes: 1},
				{Says: "x8", Classes: 1},
			},
		},
		from: 3,
	},
	{
		name:       "Evening circle, Aldersee",
		level:      "experienced",
		size:       9,
		conditions: map[string]int{"reflux": 1, "high-blood-pressure": 1},
		file:       "evening",
		inDays:     1,
		at:         18*time.Hour + 30*time.Minute,
		weeks: []week{
			taught(changes{4: "4:8 x10"}, 8, "settled", at(1, 210, on()), at(7, 300, on())),
			taught(changes{4: "4:4:4 x8"}, 9, "settled", at(1, 200, on()), at(7, 310, on())),
			taught(changes{4: "4:4:8 x8"}, 9, "settled", at(1, 195, on()), at(7, 290, on())),
			taught(
				changes{4: "4:8:8 x8"},
				8,
				"strained",
				at(1, 188, on()),
				at(4, 55, plain("release")),
				at(4, 57, note("shoulders lifting, tight faces")),
				at(4, 90, plain("drop-holds")),
				at(7, 320, on()),
			).
				mixed(3, store.Answers{Most: 7, Right: 3, TooMuch: 3, Main: 3, Beside: 2}).
				checked([]int{0, 3, 2, 1}, []int{1, 2, 2, 1}),
			taught(
				changes{4: "4:4:4 x6"},
				7,
				"settled",
				at(1, 199, on()),
				at(7, 301, on()),
			).mixed(1, store.Answers{Most: 6, Easy: 1, Right: 4, Main: 4, Beside: 1}).
				checked([]int{1, 2, 3}, []int{0, 0, 2, 3}),
			taught(
				changes{4: "4:4:4 x8"},
				9,
				"settled",
				at(1, 204, on()),
				at(4, 70, carried(46)),
				at(7, 262, on()),
			).mixed(2, store.Answers{Most: 8, Easy: 1, Right: 5, Main: 4, Beside: 2}).
				checked([]int{1, 3, 2, 1}, []int{0, 1, 2, 4}),
			taught(
				changes{4: "4:4:8 x6"},
				9,
				"restless",
				at(1, 171, on()),
				at(4, 88, plain("release")),
				at(4, 94, note("a rushed exhale after the hold")),
				at(4, 120, tempo(50)),
				at(6, 30, rounds(-1)),
				at(7, 355, on()),
			).mixed(3, store.Answers{Most: 8, Right: 4, TooMuch: 3, Main: 4, Beside: 3}).
				checked([]int{2, 3, 2}, []int{1, 2, 3, 1}),
			taught(
				changes{4: "4:4:8 x8"},
				9,
				"settled",
				at(1, 190, on()),
				at(4, 300, rounds(1)),
				at(7, 330, on()),
			).mixed(2, store.Answers{Most: 9, Easy: 1, Right: 6, TooMuch: 1, Main: 5, Beside: 2}).
				checked([]int{1, 2, 4, 1}, []int{0, 1, 2, 4, 1}).
				withHome(4, 10, 1, 7, "", "As lightly as here; the hold may be left out on any evening.", "").
				growing(
					contract.HomeStep{Says: "4:4:8 x6", For: 5, Unit: "day"},
					contract.HomeStep{Says: "4:4:8 x12", For: 1, Unit: "week"},
					contract.HomeStep{Says: "5:5:10 x12", For: 2, Unit: "week"},
				),
			{changes: changes{4: "4:4:8 x8"}},
		},
	},
	{
		name:       "Class 10b, Ostrand School",
		level:      "beginners",
		size:       21,
		under16:    true,
		conditions: map[string]int{"asthma": 2},
		file:       "teens",
		inDays:     2,
		at:         10*time.Hour + 15*time.Minute,
		weeks: []week{
			taught(
				changes{4: "4:4 x3", 5: "4:4 1m"},
				22,
				"restless",
				at(1, 190, on()),
				at(4, 12, plain("pause")),
				at(4, 70, plain("resume")),
				at(4, 72, note("giggles, then quiet")),
			),
			taught(changes{4: "4:4 x4", 5: "4:4 1m"}, 21, "restless", at(1, 175, on()), at(4, 20, plain("again"))),
			taught(changes{4: "4:4 x6", 5: "4:4 1m"}, 20, "bright", at(1, 170, on())),
			taught(changes{4: "4:4 x6", 5: "4:4 2m"}, 21, "settled", at(1, 150, on()), at(5, 33, tempo(54))),
			taught(changes{4: "4:4 x6", 5: "4:4 2m"}, 19, "tired", at(1, 166, on()), at(5, 20, note("after a test"))),
			taught(
				changes{4: "4:4 x6", 5: "4:4 2m"},
				21,
				"restless",
				at(1, 161, on()),
				at(4, 30, plain("pause")),
				at(4, 75, plain("resume")),
				at(5, 40, plain("next")),
			),
			taught(changes{4: "4:4 x10", 5: "4:5 3m"}, 22, "settled", at(1, 140, on()), at(4, 41, tempo(56))),
			taught(nil, 20, "settled", at(1, 122, on()), at(5, 21, plain("resume")), at(5, 90, tempo(54))),
			{},
		},
	},
	{
		name:       "Sunday drop-in, Fellgard",
		level:      "beginners",
		size:       6,
		conditions: map[string]int{"newcomers": 2},
		file:       "dropin",
		inDays:     4,
		at:         17 * time.Hour,
		notes:      "Nobody signs up: it may be two, it may be twelve.",
		weeks: []week{
			taught(changes{5: "4:4 x3"}, 4, "settled", at(1, 240, on())),
			{missed: true},
			taught(changes{5: "4:4 x3"}, 12, "restless", at(1, 310, on()), at(3, 40, tempo(44)), at(5, 30, plain("last-round"))),
			taught(changes{5: "4:4 x3"}, 5, "settled", at(1, 205, on())),
			{missed: true},
			{missed: true},
			taught(
				changes{5: "4:4 x2"},
				2,
				"bright",
				at(1, 130, on()),
				at(5, 20, rounds(2)),
				at(6, 30, note("both have been here before")),
			),
			taught(nil, 7, "settled", at(1, 222, on())),
			{},
		},
	},
}
