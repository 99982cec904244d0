package stage

// Kind is a kind of class as practitioners plan it, and the moment in it that is hardest to lead.
type Kind struct {
	Name    string
	Text    string // as it is typed into the plan
	Hardest string // what is said of that moment
	When    string // a pattern of what the lead screen shows then
}

// File returns the kind as a whole class, in plain text.
func (k Kind) File() string { return "# " + k.Name + "\ntempo 60\nslot 30\n\n" + k.Text + "\n" }

// Kinds is classes as practitioners plan them, each short: what is wanted is every change of what is said and done.
var Kinds = []Kind{
	{"zones, stacked, with an image for each phase",
		`three-part breath belly 4:4 x2
three-part breath ribs 4:4 x2 no lead-in
three-part breath all zones 6:6 x3 no lead-in
  every inhale: as water fills a jar
  every exhale: as it is poured out`,
		"the zone changes within the inhale", "inhale ribs.*as water fills a jar"},
	{"alternate nostril, own count, each holding or not",
		`alternate nostril 4:4:4 x2 beside breathe
alternate nostril 4:4:4 own pace 1 min
  throughout: hold, or breathe through`,
		"everybody at the own count", "at your own pace.*in left, out right.*hold, or breathe through"},
	{"square breath tapped on the fingers, words only, then numbers again",
		`counted breath 4:4:4:4 x2 words only count-in 4
  throughout: thumb to each finger
counted breath 4:4:4:4 x2 no lead-in`,
		"the voice gives words only, the number is shown", "empty 3 .*thumb to each finger"},
	{"growing counts on one side and then the other",
		`one nostril left 4:4 x2
one nostril left 6:6 x2 no lead-in
one nostril right 4:4 x2
one nostril right 6:6 x2 no lead-in`,
		"the other side comes, across passages", "breathe out.*hand up, then close the left"},
	{"an image for each round",
		`counted breath 4:6 x4
  r1: a lamp is lit
  r2-3: the flame stands still
  r4: it is carried home`,
		"the last round has its own image and its call", "one more, the last.*it is carried home"},
	{"partners, counting down",
		`back to back 6:6 x3 up and down`,
		"the exhale is counted down, and shown so", "exhale 2 "},
	{"open holds",
		`open holds x2 no lead-in`,
		"the empty hold waits for the teacher", "^empty 0:0\\d"},
	{"sun breath at own pace, and the way back through both",
		`sun breath own pace 1 min
  closing: 3 breaths 4:4`,
		"they are called back", "finish the round.*exhale left, hand down"},
	{"natural pauses, from the right",
		`alternate nostril right 4:4 x3 pause 2`,
		"stillness that is not counted", "be still"},
	{"each side, then both",
		`one nostril left 4:4 x2
one nostril right 4:4 x2
counted breath 4:4 x2`,
		"the hand comes down for both", "hand down"},
	{"three sips and a throw, standing",
		`breath of joy x8`,
		"the second sip, at 88 a minute", "inhale to the side 2"},
	{"learned in stages, through the mouth and then the nose",
		`ocean breath 4:4 x2 through the mouth
ocean breath 4:4 x2 out through the mouth no lead-in
ocean breath 4:4 x2 no lead-in`,
		"out through the mouth after in through the nose", "exhale through the mouth"},
	{"words only, switching after the inhale",
		`alternate nostril 4:4 x3 words only`,
		"the last count before the switch", "inhale left 4 next exhale right, 4"},
	{"own number of strokes in five minutes",
		`kapalabhati own pace 5 min`,
		"half a minute is left", "thirty seconds left"},
	{"4:2:7, in stages",
		`counted breath 4:7 x2
counted breath 4:2:7 x3 no lead-in`,
		"the short hold", "hold 2 next exhale, 7"},
	{"natural pauses, waits and Om",
		`talk 30 s "How Om is formed" until I go on
  script: A, u, m, and the silence after it.
om x3 pause 1 rest 8 rests wait`,
		"the rest waits for the teacher", "rest natural breath"},
	{"a mantra on the fingers",
		`breath in four steps x3 saying sa ta na ma`,
		"the third syllable", "inhale na "},
	{"four sets of narrowed nostrils, the hand up before each",
		`finger-narrowed breath 5:5 x2
finger-narrowed breath 6:4 x2 narrow in
  setup: hand up, narrow both
finger-narrowed breath 4:6 x2 narrow out
  setup: hand up, narrow both
finger-narrowed breath 5:5 x2 narrow both
  setup: hand up, narrow both`,
		"before a set", "breathe out.*hand up, narrow both"},
	{"directions, at two speeds",
		`belly breath the front 4:4 x2
belly breath the sides 4:4 x2 no lead-in
belly breath the low back 4:4 x2 @40 no lead-in
belly breath all round 4:4 x2 @40 no lead-in`,
		"the direction changes with the speed", "exhale 4 .*inhale, into the back"},
	{"exhale first",
		`alternate nostril left exhale first 4:4 x3`,
		"in by both, and the hand comes up for the exhale", "inhale .*hand up, then close the right"},
	{"panting to a clock",
		`panting breath 1 min`,
		"half a minute is left", "out .*thirty seconds left"},
}
