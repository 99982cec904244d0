package plan

// Alone is the passage p of these fields as it is practised by oneself: led by its counts, no try-out, and where it was at
// own pace in rounds. Call it before its length is set.
func (f Fields) Alone(p *Passage) Fields {
	alone := f.Clone()
	for _, field := range []string{"trial", "keep", "script"} {
		delete(alone.values, field)
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

// Only makes a plan of one passage of the document, with the tempo, the words and the own practices that it is led with, and
// nothing of the class around it.
func (d Document) Only(passage Fields, title string) {
	for _, field := range []string{"starts_at", "slot_min", "course", "intent", "about"} {
		delete(d.fields, field)
	}
	d.fields["title"] = title
	d.fields["passages"] = values([]Fields{passage})
}
