package plan

import (
	"slices"
)

// place tells to which passages a field belongs: as a rule, and as the message that says so.
type place struct {
	message string
	holds   func(p *Passage, field string) bool
}

var (
	onAll  = place{"", func(*Passage, string) bool { return true }}
	onSome = place{"allowed.only-some", func(p *Passage, field string) bool { // practices that name it in the catalogue
		return p.Type == Practice && (p.Practice == nil || p.Practice.TakesField(field))
	}}
	onPlan    = place{"allowed.only-plan", func(*Passage, string) bool { return false }}
	onStretch = place{"allowed.only-talk-free", func(p *Passage, _ string) bool { return p.Type != Practice }}
	onBreaths = place{"allowed.only-breaths", func(p *Passage, field string) bool {
		return p.Type == Free || onSome.holds(p, field)
	}}
	onPractice = place{"allowed.only-practice", func(p *Passage, _ string) bool { return p.Type == Practice }}
	onCounted  = place{"allowed.only-counted", func(p *Passage, _ string) bool {
		return p.Type == Practice && (p.Practice == nil || p.Practice.Kind.TakesCounts())
	}}
	onTempo = place{"allowed.only-counted-fixed", func(p *Passage, _ string) bool {
		return p.Type == Practice &&
			(p.Practice == nil || p.Practice.Kind.HasTempo())
	}}
	onSeveral = place{"allowed.only-led-rounds-own", func(p *Passage, _ string) bool {
		return p.Type == Practice &&
			(p.Practice == nil || p.Practice.Kind.TakesCounts() || p.Led() && !p.Practice.FillsMinutes())
	}}
	onLedCounted = place{"allowed.only-led-counted", func(p *Passage, _ string) bool {
		return p.Led() && (p.Practice == nil || p.Practice.Kind.TakesCounts())
	}}
	onOwnCounted = place{"allowed.only-own-counted", func(p *Passage, _ string) bool {
		return p.Type == Practice && p.OwnPace && (p.Practice == nil || p.Practice.Kind.TakesCounts())
	}}
	onSided = place{"allowed.only-sided", func(p *Passage, _ string) bool {
		return p.Type == Practice && (p.Practice == nil || p.Practice.Sided())
	}}
	onRounds = place{"allowed.only-led", func(p *Passage, _ string) bool { return p.Led() }}
	onOwn    = place{"allowed.only-own", func(p *Passage, _ string) bool { return p.Type == Practice && p.OwnPace }}
)

// refuseMisplaced reports the known fields that do not belong to the passage. Where the type or the practice is
// not known, nobody can tell, and nothing is reported.
func (o reader) refuseMisplaced(p *Passage) {
	if p.Type == "" {
		return
	}
	fields := make([]string, 0, len(o.fields))
	for field := range o.fields {
		fields = append(fields, field)
	}
	slices.Sort(fields) // the order of errors is part of the answer, and a map has none
	for _, field := range fields {
		if f := fieldNamed[field]; f != nil && !f.on.holds(p, field) {
			o.fail(field, f.on.message)
		}
	}
}
