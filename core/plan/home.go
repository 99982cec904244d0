package plan

import "vastlantern/core/breath"

// restAlone is the rest between rounds, in seconds, where in class it lasted until the teacher went on: common
// practice, with no source.
const restAlone = 30

// Alone returns the passage p of these fields as it is practised by oneself: led by its counts, no try-out, its rests
// of their own length without waiting for anybody, and where it was at own pace in rounds. Call it before its length is
// set.
func (f Fields) Alone(p *Passage) Fields {
	alone := f.Clone()
	for _, field := range []string{"trial", "keep", "script", "rest_wait"} {
		delete(alone.values, field)
	}
	if p.RestWait && p.RestBetween.Sign() == 0 {
		alone.set("rest_between", breath.Int(restAlone))
	}
	if p.OwnPace {
		for _, field := range []string{"pace", "recall", "minutes"} {
			delete(alone.values, field)
		}
		if !p.Practice.FillsMinutes() {
			alone.SetRounds(1)
		}
	}
	return alone
}

// Only makes a plan of one passage of the document, with the tempo, the words and the own practices that it is led
// with, and nothing of the class around it.
func (d Document) Only(passage Fields, title string) {
	for _, field := range []string{"starts_at", "slot_min", "course", "programme", "intent", "about"} {
		delete(d.fields, field)
	}
	d.fields["title"] = title
	d.fields["passages"] = values([]Fields{passage})
}

// WithoutAmount returns the fields without how much of the practice there is, rounds or minutes.
func (f Fields) WithoutAmount() Fields {
	without := f.Clone()
	delete(without.values, "rounds")
	delete(without.values, "minutes")
	return without
}

// Amount reports whether the fields give how many rounds, or how many minutes.
func (f Fields) Amount() (rounds, minutes bool) {
	_, rounds = f.values["rounds"]
	_, minutes = f.values["minutes"]
	return rounds, minutes
}

// ByBeat has the beat set the pace of what was by hand.
func (f Fields) ByBeat() { delete(f.values, "by_hand") }

// AllAlone has the whole class, whose plan is p, be practised by oneself: practices are led by their counts and rests
// end
// by themselves, but own pace stays what it is; talks are left out, for nobody is there to give them. It reports
// whether
// a practice is left.
func (d Document) AllAlone(p *Plan) bool {
	var left []Fields
	practices := false
	for i, fields := range d.Passages() {
		one := &p.Passages[i]
		switch {
		case one.Type == Talk:
			continue
		case one.Type == Practice && !one.OwnPace:
			fields = fields.Alone(one)
		default:
			fields = fields.Clone()
			for _, field := range []string{"wait", "script", "keep", "trial"} {
				delete(fields.values, field)
			}
		}
		practices = practices || one.Type == Practice
		left = append(left, fields)
	}
	d.Undate()
	d.fields["passages"] = values(left)
	return practices
}
