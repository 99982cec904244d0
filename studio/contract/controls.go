package contract

import "vastlantern/core/pace"

// Control is a key of the lead screen: what it is pressed for, and the letter that it has where the teacher chose none.
// Its texts are the messages "control.<id>" on the button and "control.<id>.card" on the card of keys.
type Control struct {
	ID string `json:"id"`
	// Key is a letter or digit under the left hand, in lower case.
	Key string `json:"key"`
	// Verbs is what it does, the first that is met where the class is; empty for what opens a panel.
	Verbs []pace.Verb `json:"verbs,omitempty"`
	// Group is where its button is; empty for one with a place of its own.
	Group ControlGroup `json:"group,omitempty"`
	// Twice is for what cannot be taken back: it has to be pressed twice.
	Twice bool `json:"twice,omitempty"`
	// Pedal reports whether a pedal or a key of a remote can be given it.
	Pedal bool `json:"pedal,omitempty"`
}

// ControlGroup is a group of buttons; its name is the message "controls.<group>".
type ControlGroup string

// The groups of buttons.
const (
	TempoControls ControlGroup = "tempo"
	HoldControls  ControlGroup = "hold"
	RoundControls ControlGroup = "rounds"
	ClassControls ControlGroup = "class"
)

// Controls is all keys of the lead screen, in the order of the card of keys. The screens have the same list, made from
// this one. Natural breath is always on the space bar.
var Controls = []Control{
	{ID: "slower", Key: "q", Verbs: []pace.Verb{pace.ToTempo}, Group: TempoControls, Pedal: true},
	{ID: "faster", Key: "w", Verbs: []pace.Verb{pace.ToTempo}, Group: TempoControls, Pedal: true},
	{ID: "breathed", Key: "n", Verbs: []pace.Verb{pace.ToTempo}, Group: TempoControls, Pedal: true},
	{ID: "hand", Key: "h", Verbs: []pace.Verb{pace.ToHand}, Pedal: true},
	{ID: "release", Key: "e", Verbs: []pace.Verb{pace.Enough, pace.Release}, Group: HoldControls, Pedal: true},
	{ID: "holds", Key: "g", Verbs: []pace.Verb{pace.RestoreHolds, pace.DropHolds}, Group: HoldControls, Pedal: true},
	{ID: "again", Key: "r", Verbs: []pace.Verb{pace.Again}, Group: HoldControls, Pedal: true},
	{ID: "fewer", Key: "a", Verbs: []pace.Verb{pace.Rounds}, Group: RoundControls, Pedal: true},
	{ID: "more", Key: "s", Verbs: []pace.Verb{pace.Rounds}, Group: RoundControls, Pedal: true},
	{ID: "last", Key: "d", Verbs: []pace.Verb{pace.ToRecall, pace.LastRound}, Group: RoundControls, Pedal: true},
	{ID: "go-on", Key: "f", Verbs: []pace.Verb{pace.Resume, pace.Advance}, Pedal: true},
	{ID: "undo", Key: "z", Verbs: []pace.Verb{pace.Undo}, Group: ClassControls, Pedal: true},
	{ID: "close", Key: "c", Verbs: []pace.Verb{pace.Close}, Group: ClassControls},
	{ID: "next", Key: "v", Verbs: []pace.Verb{pace.Next}, Group: ClassControls, Twice: true},
	{ID: "finish", Key: "3", Verbs: []pace.Verb{pace.FinishBy}, Group: ClassControls},
	{ID: "end", Key: "x", Verbs: []pace.Verb{pace.End}, Group: ClassControls, Twice: true},
	{ID: "here", Key: "5"},
	{ID: "few", Key: "9"},
	{ID: "lane", Key: "6", Verbs: []pace.Verb{pace.ToBeside}, Pedal: true},
	{ID: "seen", Key: "1"},
	{ID: "tap", Key: "2"},
	{ID: "ear", Key: "7"},
	{ID: "counts", Key: "4"},
	{ID: "note", Key: "b"},
	{ID: "cautions", Key: "t"},
}
