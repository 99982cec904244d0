package line

import (
	"encoding/json"
	"strconv"
	"strings"

	"vastlantern/core/breath"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
)

// form is one way to say something of a passage in a line. Words of its pattern stand for themselves, alternatives are
// parted by |, what ends in ? may be missing, and the capital ones stand for: N a number, COUNTS as 4:4:8, TIME as 2
// min or 1m30s, WORDS all up to the next comma, LIST counts one after the other, PHASES phases one after the other.
type form struct {
	pattern string
	on      func(of subject) bool
	set     func(of subject, found matched)
	// basic forms say the counts, the length, the tempo and the side: those of the short way of writing them.
	basic bool
}

// subject is the passage that a line speaks of.
type subject struct {
	f map[string]any
	p *practice.Practice // nil for talks and free breathing
}

// matched is what a pattern found.
type matched struct {
	words   []string // the alternatives that was there
	numbers []string
	counts  string
	seconds breath.Exact
	rest    string // the WORDS
	list    []any  // the LIST, or the PHASES
}

func (of subject) practice() bool { return of.p != nil }

func (of subject) stretch() bool { return of.p == nil }

func (of subject) free() bool { return of.p == nil && of.f["type"] == string(plan.Free) }

func (of subject) counted() bool { return of.p != nil && of.p.Kind.TakesCounts() }

func (of subject) strokes() bool { return of.p != nil && of.p.Kind.CountsStrokes() }

func (of subject) open() bool { return of.p != nil && of.p.Kind.HasOpenPhases() }

func takes(field string) func(subject) bool {
	return func(of subject) bool { return of.p != nil && of.p.TakesField(field) }
}

// oneBreath reports whether a round of it is one breath, so that breaths are rounds.
func (of subject) oneBreath() bool {
	return of.counted() && of.p.BreathsInFigure() == 1 && !of.p.TakesField("sides")
}

// setCounts puts a number in the place of one of the counts of the passage.
func (of subject) setCounts(change func(*breath.Counts)) {
	c := of.counts()
	change(&c)
	of.f["counts"] = c.String()
}

// counts returns those of the passage, or the practice's own.
func (of subject) counts() breath.Counts {
	text, _ := of.f["counts"].(string)
	c, err := breath.ParseCounts(text)
	if err != nil {
		c, _ = breath.ParseCounts(of.p.Counts)
	}
	return c
}

// give sets one of the fields that exclude each other, and takes the others away.
func (of subject) give(field string, value any, others ...string) {
	of.f[field] = value
	for _, other := range others {
		delete(of.f, other)
	}
}

func setByHand(of subject, found matched) { of.f["by_hand"] = found.list }

// setHeldByCount has the teacher's breath set the pace of in and out, while holds are counted: to the number, if
// there is
// one.
func setHeldByCount(of subject, found matched) {
	of.f["by_hand"] = []any{string(breath.Inhale), string(breath.Exhale)}
	if len(found.numbers) > 0 {
		of.setCounts(func(c *breath.Counts) { c.Hold = whole(found.numbers[0]) })
	}
}

func setWord(field, word string) func(subject, matched) {
	return func(of subject, _ matched) { of.f[field] = word }
}

func setNumber(field string) func(subject, matched) {
	return func(of subject, found matched) { of.f[field] = numeral(found.numbers[0]) }
}

func setFlag(field string) func(subject, matched) {
	return func(of subject, _ matched) { of.f[field] = true }
}

func setWhole(field string) func(subject, matched) {
	return func(of subject, found matched) { of.f[field] = found.words[0] }
}

// secondsOf writes the time that was found, or the bare number as seconds.
func secondsOf(found matched) json.Number {
	if len(found.numbers) > 0 {
		return numeral(found.numbers[0])
	}
	return json.Number(found.seconds.String())
}

// forms is the grammar of what is said of a passage, beside its name. At each place the longest that fits is taken; of
// two as long the first. docs/manual/typing.md has it for teachers.
var forms = []form{
	// Counts, and the length of a round.
	{
		pattern: "COUNTS",
		on:      subject.counted,
		basic:   true,
		set:     func(of subject, found matched) { of.f["counts"] = found.counts },
	},
	{pattern: "COUNTS", on: subject.open, basic: true, set: func(of subject, found matched) {
		lengths := []any{}
		for term := range strings.SplitSeq(found.counts, ":") {
			lengths = append(lengths, numeral(term))
		}
		of.f["open_seconds"] = lengths
	}},
	{pattern: "inhale|in N", on: subject.counted, set: func(of subject, found matched) {
		of.setCounts(func(c *breath.Counts) { c.Inhale = whole(found.numbers[0]) })
	}},
	{pattern: "hold for|of? N", on: subject.counted, set: func(of subject, found matched) {
		of.setCounts(func(c *breath.Counts) { c.Hold = whole(found.numbers[0]) })
	}},
	{pattern: "exhale|out N", on: subject.counted, set: func(of subject, found matched) {
		of.setCounts(func(c *breath.Counts) { c.Exhale = whole(found.numbers[0]) })
	}},
	{pattern: "hold? empty N", on: subject.counted, set: func(of subject, found matched) {
		of.setCounts(func(c *breath.Counts) { c.Empty = whole(found.numbers[0]) })
	}},
	{pattern: "without|no any? holds|hold|holding", on: subject.counted, set: func(of subject, _ matched) {
		of.setCounts(func(c *breath.Counts) { c.Hold, c.Empty = 0, 0 })
	}},
	{pattern: "equal? holds|hold", on: subject.counted, set: func(of subject, _ matched) {
		of.setCounts(func(c *breath.Counts) { c.Hold = c.Inhale })
	}},
	{pattern: "short|small holds|hold", on: subject.counted, set: func(of subject, _ matched) {
		of.setCounts(func(c *breath.Counts) { c.Hold = max(1, c.Inhale/2) })
	}},
	{pattern: "N strokes|stroke|pumps a|per second", on: takes("rate"), set: func(of subject, found matched) {
		of.f["rate"] = numeral(strconv.Itoa(60 * whole(found.numbers[0])))
	}},
	{pattern: "N strokes|stroke|pumps a|per minute|min", on: takes("rate"), set: setTempo},
	{pattern: "at? N breaths a|per minute|min", on: subject.counted, set: func(of subject, found matched) {
		c := of.counts()
		of.f["tempo"] = numeral(strconv.Itoa(whole(found.numbers[0]) * (c.Inhale + c.Hold + c.Exhale + c.Empty)))
	}},
	{pattern: "N count|counts bothsides?", on: subject.counted, set: eachPhase},
	{pattern: "N second|seconds|sec|s bothsides", on: subject.oneBreath, set: func(of subject, found matched) {
		eachPhase(of, found)
		of.f["tempo"] = json.Number("60")
	}},
	{pattern: "N a|per minute|min", on: subject.oneBreath, set: func(of subject, found matched) {
		if n := whole(found.numbers[0]); n < breath.SlowestTempo { // so few are breaths
			c := of.counts()
			found.numbers[0] = strconv.Itoa(n * (c.Inhale + c.Hold + c.Exhale + c.Empty))
		}
		setTempo(of, found)
	}},
	{
		pattern: "inhale|in left|right ,? exhale|out left|right ,? inhale|in left|right ,? exhale|out left|right",
		on:      takes("entry"), set: func(of subject, found matched) { of.f["side"] = found.words[1] },
	},
	{pattern: "inhale|in left|right ,? and? exhale|out left|right", on: subject.sidesFixed,
		set: func(subject, matched) {}},
	{pattern: "left|right in|inhale ,? and? left|right out|exhale", on: subject.sidesFixed,
		set: func(subject, matched) {}},
	{pattern: "hold|holding for? TIME", on: takes("after"), set: func(of subject, found matched) {
		counts := found.seconds.Times(plan.DefaultTempo).Div(breath.Int(60)).Add(breath.Ratio(1, 2)).Floor()
		of.setAfter(func(c *breath.Counts) { c.Hold = int(counts) })
	}},
	{
		pattern: "@|at COUNTS", on: subject.counted,
		set: func(of subject, found matched) { of.f["counts"] = found.counts },
	},
	{pattern: "N strokes|stroke|st|pumps|pump|pulls|blows|puffs", on: takes("strokes"), basic: true,
		set: setNumber("strokes")},

	// How long.
	{pattern: "x N", on: subject.practice, basic: true, set: setRounds},
	{
		pattern: "N x|times|rounds|round|sets|set|reps|rep|repetitions|cycles|cycle|goes|turns",
		on:      subject.practice, basic: true, set: setRounds,
	},
	{pattern: "N times|rounds|sets|cycles of", on: subject.practice, set: setRounds},
	{pattern: "N breaths|breath", on: takes("breaths"), set: setNumber("breaths")},
	{pattern: "x N", on: subject.free, set: setBreaths},
	{pattern: "N x|times|reps|rep|repetitions|rounds", on: subject.free, set: setBreaths},
	{pattern: "N breaths|breath", on: subject.oneBreath, set: setRounds},
	{pattern: "N x COUNTS", on: subject.counted, set: func(of subject, found matched) {
		setRounds(of, found)
		of.f["counts"] = found.counts
	}},
	{pattern: "N x|times|rounds|sets of? N strokes|stroke|st|pumps|pulls", on: takes("strokes"), set: roundsOfStrokes},
	{pattern: "N rounds|sets of N", on: takes("strokes"), set: roundsOfStrokes},
	{pattern: "N each", on: takes("strokes"), set: setNumber("strokes")},
	{pattern: "N rounds|sets zu je|each? N strokes?", on: takes("strokes"), set: roundsOfStrokes},
	{pattern: "N x|times|rounds|sets of TIME", on: takes("strokes"), set: strokesFor},
	{pattern: "N x|times|rounds|sets ,? TIME each", on: takes("strokes"), set: strokesFor},
	{pattern: "N x|times|rounds|sets of TIME", on: subject.stretch, set: timesSeconds},
	{pattern: "N x|times|rounds|sets ,? TIME each", on: subject.stretch, set: timesSeconds},
	{pattern: "N x TIME", on: subject.counted, set: repeatFor},
	{pattern: "N times|sets|rounds of TIME", on: subject.counted, set: repeatFor},
	{pattern: "N x|times|sets|rounds of? N breaths", on: takes("breaths"), set: func(of subject, found matched) {
		setRounds(of, found)
		of.f["breaths"] = numeral(found.numbers[1])
	}},
	{pattern: "N deep|full|slow|big|easy|long breaths|breath", on: subject.free, set: func(of subject, found matched) {
		setBreaths(of, found)
		of.f["title"] = plan.Capital(found.words[0]) + " breaths"
	}},
	{pattern: "N x|times N strokes?", on: takes("strokes"), set: roundsOfStrokes},
	{pattern: "for? TIME", on: subject.practice, basic: true, set: func(of subject, found matched) {
		of.give("minutes", json.Number(found.seconds.Div(breath.Int(60)).String()), "rounds")
	}},
	{pattern: "for? TIME", on: subject.stretch, basic: true, set: func(of subject, found matched) {
		of.give("seconds", json.Number(found.seconds.String()), "breaths")
	}},
	{pattern: "N natural? breaths|breath|b", on: subject.free, basic: true, set: func(of subject, found matched) {
		of.give("breaths", numeral(found.numbers[0]), "seconds")
	}},
	{pattern: "until|till WORDS", on: subject.stretch, set: setFlag("wait")},
	{pattern: "totheend", on: subject.timed, set: setWord("fill", "end")},
	{pattern: "untilclock CLOCK", on: subject.timed, set: func(of subject, found matched) { of.f["fill"] = found.counts }},
	{pattern: "at least for? TIME", on: subject.timed, set: func(of subject, found matched) {
		of.f["fill_least"] = json.Number(found.seconds.String())
	}},
	{pattern: "minimum|min TIME", on: subject.timed, set: func(of subject, found matched) {
		of.f["fill_least"] = json.Number(found.seconds.String())
	}},
	{pattern: "wait|waits", on: subject.stretch, set: setFlag("wait")},
	{
		pattern: "at? their|your|our|its|the? own pace|tempo?",
		on:      subject.practice,
		basic:   true,
		set:     func(of subject, _ matched) { of.f["pace"] = "own" },
	},

	{
		pattern: "choice|choose of|from? LIST",
		on:      subject.counted,
		set:     func(of subject, found matched) { of.f["choices"] = found.list },
	},
	{pattern: "by hand", on: subject.counted, set: setWord("by_hand", "all")},
	{pattern: "my breath", on: subject.counted, set: setWord("by_hand", "all")},
	{pattern: "no|without counting|counts", on: subject.counted, set: setWord("by_hand", "all")},
	{pattern: "not counted", on: subject.counted, set: setWord("by_hand", "all")},
	{pattern: "by hand PHASES", on: subject.counted, set: setByHand},
	{pattern: "PHASES by|my hand|breath", on: subject.counted, set: setByHand},
	{pattern: "by? my own? hand|breath ,? hold|holds counted N", on: subject.counted, set: setHeldByCount},
	{pattern: "by my own? hand|breath", on: subject.counted, set: setWord("by_hand", "all")},
	{pattern: "by|my hand|breath ,? hold N counted", on: subject.counted, set: setHeldByCount},
	{pattern: "hold N counted ,? by|my hand|breath", on: subject.counted, set: setHeldByCount},
	{pattern: "by|my hand|breath ,? hold|holds counted", on: subject.counted, set: setHeldByCount},

	// Who breathes through the holds.
	{pattern: "no|without holds|hold for the? new? people|beginners|newcomers|others|some|those|anyone|ones",
		on: subject.practice, set: setWord("beside", "breathe")},
	{
		pattern: "new? people|beginners|newcomers|others no|without holds|hold|holding",
		on:      subject.practice, set: setWord("beside", "breathe"),
	},
	{
		pattern: "new? people|beginners|newcomers|others|some breathe|breathes|breathing through",
		on:      subject.practice, set: setWord("beside", "breathe"),
	},
	{pattern: "gentle|gentler lane", on: subject.practice, set: setWord("beside", "breathe")},

	// On which side of the body.
	{pattern: "bothsides", on: subject.mirrored, set: setWord("sides", "right-left")},
	{pattern: "bothsides", on: subject.oneSided, set: func(subject, matched) {}}, // onBothSides
	{pattern: "right-left|left-right", on: subject.oneSided, set: func(subject, matched) {}},
	{pattern: "right-left|left-right", on: subject.mirrored, set: setWhole("sides")},
	{pattern: "right|left side? only?", on: subject.mirrored, set: setWhole("sides")},
	{pattern: "right|left side? first", on: subject.mirrored, set: func(of subject, found matched) {
		of.f["sides"] = map[string]string{"right": "right-left", "left": "left-right"}[found.words[0]]
	}},
	{pattern: "no sides", on: subject.mirrored, set: setWord("sides", "none")},
	{pattern: "right-left|left-right", on: takes("entry"), set: func(of subject, found matched) {
		of.f["side"], _, _ = strings.Cut(found.words[0], "-")
	}},

	// The breath after strokes.
	{pattern: "after none", on: takes("after"), set: setWord("after", "none")},
	{pattern: "after|then COUNTS", on: takes("after"), set: func(of subject, found matched) {
		of.f["after"] = found.counts
	}},
	{pattern: "hold|holding for? N", on: takes("after"), set: func(of subject, found matched) {
		of.setAfter(func(c *breath.Counts) { c.Hold = whole(found.numbers[0]) })
	}},
	{pattern: "without|no any? holds|hold|holding", on: takes("after"), set: func(of subject, _ matched) {
		of.setAfter(func(c *breath.Counts) { c.Hold = 0 })
	}},

	// How fast.
	{pattern: "very slow|slowly", on: isPaced, set: setSpeed(60)},
	{pattern: "slow|slowly|slower|langsam|langsamer", on: isPaced, set: setSpeed(80)},
	{pattern: "brisk|briskly|fast|faster|quick|quickly|quicker|schnell|schneller|zugig", on: isPaced, set: setSpeed(120)},
	{pattern: "very brisk|fast|quick", on: isPaced, set: setSpeed(140)},
	{pattern: "@|tempo N bpm?", on: isPaced, basic: true, set: setTempo},
	{pattern: "N bpm", on: isPaced, set: setTempo},
	{pattern: "at tempo? N bpm?", on: isPaced, set: setTempo},
	{pattern: "N a|per minute|min", on: isPaced, set: setTempo},

	// Where the air goes.
	{pattern: "left|right", on: takes("side"), basic: true, set: setWhole("side")},
	{pattern: "exhale|out first", on: takes("entry"), set: setWord("entry", "exhale")},
	{pattern: "inhale|in first", on: takes("entry"), set: setWord("entry", "inhale")},
	{
		pattern: "inhale|in left|right first",
		on:      takes("entry"),
		set:     func(of subject, found matched) { of.f["side"] = found.words[1] },
	},
	{pattern: "breathe? by|through? the? mouth", on: takes("airway"), set: setWord("airway", "mouth")},
	{pattern: "by|through? the? nose", on: takes("airway"), set: setWord("airway", "nose")},
	{pattern: "exhale|out by|through? the? mouth", on: takes("airway"), set: setWord("airway", "out-mouth")},
	{
		pattern: "inhale|in by|through the? nose ,? and? exhale|out by|through the? mouth",
		on:      takes("airway"), set: setWord("airway", "out-mouth"),
	},
	{
		pattern: "inhale|in by|through the? mouth ,? and? exhale|out by|through the? nose",
		on:      takes("airway"), set: setWord("airway", "in-mouth"),
	},
	{pattern: "inhale|in by|through the? mouth", on: takes("airway"), set: setWord("airway", "in-mouth")},
	{pattern: "narrow in|inhale", on: takes("aperture"), set: setWidths("narrow", "wide")},
	{pattern: "narrow out|exhale", on: takes("aperture"), set: setWidths("wide", "narrow")},
	{pattern: "narrow both", on: takes("aperture"), set: setWidths("narrow", "narrow")},
	{pattern: "both narrow", on: takes("aperture"), set: setWidths("narrow", "narrow")},
	{pattern: "wide both?", on: takes("aperture"), set: setWidths("wide", "wide")},
	{pattern: "belly|ribs|chest", on: takes("zone"), set: setWhole("zone")},
	{pattern: "all zones?", on: takes("zone"), set: setWord("zone", "all")},
	{pattern: "stacked", on: takes("zone"), set: setWord("zone", "all")},
	{
		pattern: "the? front|sides",
		on:      takes("attention"),
		set:     func(of subject, found matched) { of.f["attention"] = found.words[len(found.words)-1] },
	},
	{pattern: "the? low? back", on: takes("attention"), set: setWord("attention", "back")},
	{pattern: "all? round", on: takes("attention"), set: setWord("attention", "round")},

	// What is said.
	{pattern: "words only?", on: subject.practice, set: setWord("voice", string(plan.Words))},
	{pattern: "numbers up?", on: subject.practice, set: setWord("voice", string(plan.Numbers))},
	{pattern: "up and? down", on: subject.practice, set: setWord("voice", string(plan.UpDown))},
	{pattern: "numbers in|only in? holds", on: subject.practice, set: setWord("voice", string(plan.HoldsOnly))},
	{pattern: "silent|silently", on: subject.practice, set: setWord("voice", string(plan.Silent))},
	{pattern: "syllables|saying|mantra in holds WORDS", on: subject.practice, set: setSyllables(plan.HoldSyllables)},
	{pattern: "syllables|saying|mantra WORDS", on: subject.practice, set: setSyllables(plan.Syllables)},
	{
		pattern: "words after N",
		on:      subject.practice,
		set:     func(of subject, found matched) { of.fade("words_after", found) },
	},
	{
		pattern: "silent after N",
		on:      subject.practice,
		set:     func(of subject, found matched) { of.fade("silent_after", found) },
	},
	{pattern: "seal|sealed|sealing", on: func(of subject) bool { return of.p != nil && of.p.Sided() },
		set: func(of subject, _ matched) { of.f["seal"] = true }},
	{pattern: "lamps only?", on: subject.practice, set: setWord("numbers", string(plan.WithLamps))},
	{pattern: "numbers shown", on: subject.practice, set: setWord("numbers", string(plan.WithNumbers))},
	{pattern: "numbers hidden", on: subject.practice, set: setWord("numbers", string(plan.WithNothing))},
	{pattern: "hide|without numbers", on: subject.practice, set: setWord("numbers", string(plan.WithNothing))},
	{pattern: "word before", on: subject.counted, set: setWord("word", "before")},
	{pattern: "word on", on: subject.counted, set: setWord("word", "on")},

	// What is before, between and beside.
	{pattern: "count in N", on: subject.practice, set: setNumber("count_in")},
	{pattern: "count in N by N", on: subject.practice, set: func(of subject, found matched) {
		of.f["count_in"], of.f["count_in_by"] = numeral(found.numbers[0]), numeral(found.numbers[1])
	}},
	{pattern: "count in by N", on: subject.practice, set: setNumber("count_in_by")},
	{pattern: "lead in N", on: subject.practice, set: setNumber("lead_in")},
	{pattern: "no lead in", on: subject.practice, set: func(of subject, _ matched) { of.f["lead_in"] = json.Number("0") }},
	{
		pattern: "rest|rests N",
		on:      subject.practice,
		set:     func(of subject, found matched) { of.f["rest_between"] = secondsOf(found) },
	},
	{pattern: "rest|rests N breaths|breath", on: subject.practice, set: func(of subject, found matched) {
		of.give("rest_breaths", numeral(found.numbers[0]), "rest_between")
	}},
	{
		pattern: "TIME between|apart rounds?",
		on:      subject.practice,
		set:     func(of subject, found matched) { of.f["rest_between"] = secondsOf(found) },
	},
	{pattern: "N breaths|breath between|rest", on: subject.practice, set: func(of subject, found matched) {
		of.give("rest_breaths", numeral(found.numbers[0]), "rest_between")
	}},
	{
		pattern: "rest|rests|pause|pauses|break|breaks of|for? TIME between? rounds?",
		on:      subject.practice,
		set:     func(of subject, found matched) { of.f["rest_between"] = secondsOf(found) },
	},
	{
		pattern: "TIME of? rest|rests|pause|pauses|break|breaks between? rounds?",
		on:      subject.practice,
		set:     func(of subject, found matched) { of.f["rest_between"] = secondsOf(found) },
	},
	{pattern: "rest|rests wait|waits", on: subject.practice, set: setFlag("rest_wait")},
	{pattern: "rest|rests until WORDS", on: subject.practice, set: setFlag("rest_wait")},
	{pattern: "rest|rests lead in N", on: subject.practice, set: setNumber("rest_lead_in")},
	{pattern: "pause|pauses N", on: subject.counted, set: setNumber("natural_pause")},
	{pattern: "recall N", on: subject.practice, set: setNumber("recall")},
	{
		pattern: "recall TIME",
		on:      subject.practice,
		set:     func(of subject, found matched) { of.f["recall"] = secondsOf(found) },
	},
	{pattern: "beside breathe", on: subject.practice, set: setWord("beside", "breathe")},
	{
		pattern: "beside COUNTS",
		on:      subject.practice,
		set:     func(of subject, found matched) { of.f["beside"] = found.counts },
	},
	{pattern: "the point of? the? class?", on: subject.practice, set: setFlag("point")},
	{pattern: "trial|try|tryout", on: subject.practice, set: setFlag("trial")},
	{pattern: "try out", on: subject.practice, set: setFlag("trial")},
	{pattern: "keep|kept", on: func(subject) bool { return true }, set: setFlag("keep")},
}

// breathsAMinute reports whether a part says how many breaths a minute there are.
func breathsAMinute(list []token) bool {
	for i := range list {
		if n, _ := match("N breaths a|per minute|min", subject{}, list, i); n > 0 {
			return true
		}
	}
	return false
}
