package pace

import (
	"strconv"

	"vastlantern/core/breath"
)

// Words is the one table of what is said while a class is led. A teacher's own words, or another language, are
// another table of the same shape. Sides are everyone's own left and right.
type Words struct {
	Phase   map[breath.Phase]string
	Through map[breath.Through]string
	Stage   map[Stage]string
	Part    map[string]string
	Numbers []string // from zero; what is beyond is said as digits
	HandUp  string
	Shut    map[breath.Through]string // this nostril
	Finish  string                    // the call back from own pace
	Out     string                    // before a side: where the last breath goes out
	Calls   map[CallKind]string
}

// English is the table that ships.
var English = Words{
	Phase: map[breath.Phase]string{
		breath.Inhale: "inhale", breath.Hold: "hold", breath.Exhale: "exhale", breath.Empty: "empty", breath.Stroke: "out",
	},
	Through: map[breath.Through]string{breath.Left: "left", breath.Right: "right", breath.Mouth: "by the mouth"},
	Stage:   map[Stage]string{Free: "natural breath", Pause: "natural breath", Rest: "rest, natural breath", Own: "at your own pace", Closing: "natural breath", Opening: "natural breath"},
	Part: map[string]string{
		"belly": "belly", "ribs": "ribs", "chest": "chest", "forward": "forward", "side": "to the side", "up": "up", "wide": "wide", "narrow": "narrow",
	},
	Numbers: []string{"zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve", "thirteen", "fourteen", "fifteen", "sixteen", "seventeen", "eighteen", "nineteen", "twenty"},
	HandUp:  "hand up",
	Shut:    map[breath.Through]string{breath.Left: "close the left", breath.Right: "close the right"},
	Finish:  "finish this round",
	Out:     "out on the",
	Calls:   map[CallKind]string{CallLast: "one more, the last", CallHalf: "half way", CallMinute: "one minute left", CallHalfMinute: "thirty seconds left"},
}

func (w *Words) number(n int) string {
	if n < len(w.Numbers) {
		return w.Numbers[n]
	}
	return strconv.Itoa(n)
}
