package programme

import "strconv"

// Template is a programme of ours to begin with. What it is called and what it is are the messages
// programme-template.<id>.name and .about. All are common practice, with no source, but where handbook.md section
// 9 gives the numbers.
type Template struct {
	ID        string
	Programme Programme
	Counts    bool // it needs a practice of counts
	Strokes   bool // it needs a practice of strokes
}

// Templates returns all of them.
func Templates() []Template {
	return []Template{
		{ID: "first-month", Programme: Programme{
			Steps: each(2, "5 min", "6 min", "8 min", "10 min"), By: Date, Days: 3, Missed: Wait,
			Eased: Wait, Ceiling: 30}},
		{
			ID: "three-months",
			Programme: Programme{
				Steps: append(each(4, "5 min"), append(each(2, "7 min", "10 min"), each(4, "15 min")...)...),
				By:    Date, Days: 7, Missed: Wait, Eased: Back, Ceiling: 30},
		},
		{ID: "seven-days", Programme: Programme{
			Steps: each(1, "belly breath 5 min", "counted breath 4:4 x15", "counted breath 4:6 x12", "three-part breath x8",
				"ocean breath x12", "alternate nostril 4:4 x8", "moon breath x8"),
			By: Date, Days: 1, Missed: Wait, Eased: Wait}},
		{
			ID: "forty-days",
			Programme: Programme{
				Steps: each(40, "11 min"), By: Date, Days: 1, Missed: Wait, Eased: Wait},
		},
		{
			ID:      "strokes",
			Strokes: true,
			Programme: Programme{
				Steps: strokes(), By: Led, Times: 3, Days: 7, Missed: Wait, Eased: Back},
		},
		{
			ID:     "ratio-ladder",
			Counts: true,
			Programme: Programme{
				Steps: each(1, "4:4 x8", "4:8 x8", "4:4:4 x8", "4:4:8 x8", "4:8:8 x6", "4:12:8 x6",
					"4:16:8 x5"), By: Led, Times: 3, Days: 7, Missed: Wait, Eased: Back},
		},
		{ID: "to-silence", Counts: true, Programme: Programme{
			Steps: each(1, "numbers", "words only", "silent"), By: Led, Times: 3, Days: 7,
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
