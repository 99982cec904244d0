package programme

import "strconv"

// Template is a programme of ours to begin with. All are common practice, with no source, but where handbook.md section
// 9 gives the numbers.
type Template struct {
	ID, About string
	Programme Programme
	Counts    bool // it needs a practice of counts
	Strokes   bool // it needs a practice of strokes
}

// Templates returns all of them.
func Templates() []Template {
	return []Template{
		{ID: "first-month", About: "Five minutes, then six, eight and ten, two classes each.", Programme: Programme{
			Name: "A first month", Steps: each(2, "5 min", "6 min", "8 min", "10 min"), By: Date, Days: 3, Missed: Wait,
			Eased: Wait, Ceiling: 30}},
		{
			ID:    "three-months",
			About: "Five minutes in the first month, seven to ten in the second, fifteen in the third; never more than thirty.",
			Programme: Programme{
				Name: "Three months", Steps: append(each(4, "5 min"), append(each(2, "7 min", "10 min"), each(4, "15 min")...)...),
				By: Date, Days: 7, Missed: Wait, Eased: Back, Ceiling: 30},
		},
		{ID: "seven-days", About: "One new thing a day for a week, each by itself.", Programme: Programme{
			Name: "Seven days",
			Steps: each(1, "belly breath 5 min", "counted breath 4:4 x15", "counted breath 4:6 x12", "three-part breath x8",
				"ocean breath x12", "alternate nostril 4:4 x8", "moon breath x8"),
			By: Date, Days: 1, Missed: Wait, Eased: Wait}},
		{
			ID:    "forty-days",
			About: "One practice for forty days, eleven minutes a day; a day that is missed is added.",
			Programme: Programme{
				Name: "Forty days", Steps: each(40, "11 min"), By: Date, Days: 1, Missed: Wait, Eased: Wait},
		},
		{
			ID:      "strokes",
			About:   "From 20 strokes by five to 60, each led as planned three times.",
			Strokes: true,
			Programme: Programme{
				Name: "Strokes from 20 to 60", Steps: strokes(), By: Led, Times: 3, Days: 7, Missed: Wait, Eased: Back},
		},
		{
			ID:     "ratio-ladder",
			About:  "From 1:1 to 1:4:2, one rung after the other, each led as planned three times.",
			Counts: true,
			Programme: Programme{
				Name: "The ladder of ratios", Steps: each(1, "4:4 x8", "4:8 x8", "4:4:4 x8", "4:4:8 x8", "4:8:8 x6", "4:12:8 x6",
					"4:16:8 x5"), By: Led, Times: 3, Days: 7, Missed: Wait, Eased: Back},
		},
		{ID: "to-silence", About: "From numbers to words to silence, the count the same.", Counts: true, Programme: Programme{
			Name: "From numbers to silence", Steps: each(1, "numbers", "words only", "silent"), By: Led, Times: 3, Days: 7,
			Missed: Wait, Eased: Back}},
	}
}

func each(classes int, says ...string) (steps []Step) {
	for _, one := range says {
		steps = append(steps, Step{Says: one, Classes: classes})
	}
	return steps
}

// strokes returns the numbers of handbook.md section 9.
func strokes() (steps []Step) {
	for n := 20; n <= 60; n += 5 {
		steps = append(steps, Step{Says: strconv.Itoa(n) + " strokes", Classes: 1})
	}
	return steps
}
