package rehearsal_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"vastlantern/core/breath"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/rehearsal"
	"vastlantern/core/room"
	"vastlantern/core/sheet"
	"vastlantern/language"
)

// TB is a test or a property.
type TB interface {
	require.TestingT
	Helper()
}

func read(t TB, passages string) *plan.Plan {
	t.Helper()
	_, p, err := sheet.ReadPlan(
		strings.NewReader(`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [` + passages + `]}`),
	)
	require.NoError(t, err)
	return p
}

func counted(counts string, rounds int, more string) string {
	return fmt.Sprintf(
		`{"type": "practice", "practice": "counted-breath", "counts": %q, "rounds": %d, "lead_in": 0%s}`,
		counts,
		rounds,
		more,
	)
}

// newcomer returns one for whom all is new, without chance.
func newcomer() *rehearsal.Person {
	return &rehearsal.Person{
		Comfort: 10,
		Reach:   1.3,
		Full:    4,
		Empty:   2,
		Strokes: 20,
		Rate:    60,
		Growth:  0.05,
		Fade:    20,
		Limit:   0.8,
		Shows:   1,
	}
}

func follow(t TB, p *rehearsal.Person, passages string) rehearsal.Course {
	t.Helper()
	of := read(t, passages)
	return rehearsal.Of(pace.Sheet(of), of, rehearsal.Happens{}).Follow(p, 0, 1, true, false)
}

func last(c rehearsal.Course) float64 { return c.Points[len(c.Points)-1].Strain }

func ids(c rehearsal.Course) map[string]bool {
	seen := map[string]bool{}
	for _, sign := range c.Signs {
		seen[sign.ID] = true
	}
	return seen
}

// One person, phase by phase: what strains, by how much, and what is to be seen of it.
func TestOnePerson(t *testing.T) {
	for _, c := range []struct {
		passages string
		strain   float64
		signs    []string
	}{
		{counted("4:4", 6, ""), 0, nil},
		// a hold of four is easy
		{counted("4:4:4", 1, ""), 0, nil},
		// two seconds beyond: seen of nobody yet
		{counted("3:6:3", 1, ""), 0.10, nil},
		{counted("3:6:3", 2, ""), 0.20, []string{rehearsal.Rushed}}, // and again
		// an empty hold is harder
		{counted("3:0:3:3", 4, ""), 0.30, []string{rehearsal.Gasp}},
		// three seconds longer than it can be followed
		{counted("8:8", 3, ""), 0.225, []string{rehearsal.Early}},
		{counted("4:16:8", 2, ""), 0.8, []string{rehearsal.Rushed, rehearsal.Tight}}, // and one stops
		// natural breath halves it
		{counted("3:6:3", 2, "") + `, {"type": "free", "seconds": 20}`, 0.10, []string{rehearsal.Rushed}},
		{counted("3:6:3", 2, "") + "," + counted("4:4", 10, ""), 0.2 * 0.6648, []string{rehearsal.Rushed}},
		// ten strokes too many
		{`{"type": "practice", "practice": "kapalabhati", "strokes": 30, "rounds": 1, "rate": 60, "closing": []}`, 0.1, nil},
	} {
		course := follow(t, newcomer(), c.passages)
		assert.InDelta(t, c.strain, last(course), 0.005, c.passages)
		want := map[string]bool{}
		for _, id := range c.signs {
			want[id] = true
		}
		assert.Equal(t, want, ids(course), c.passages)
	}
	blocked := newcomer()
	blocked.Blocked = "right"
	sided := `{"type": "practice", "practice": "nadi-shodhana", "counts": "6:6", "rounds": 4, "lead_in": 0, "closing": []}`
	assert.Zero(t, last(follow(t, newcomer(), sided)))
	assert.Positive(t, last(follow(t, blocked, sided)), "a breath through a blocked nostril asks for more")
}

// Those who begin to strain take the gentler lane where there is one; those who push through do not.
func TestTheGentlerLaneIsTaken(t *testing.T) {
	held := counted("3:7:3", 9, "")
	beside := counted("3:7:3", 9, `, "beside": "breathe"`)
	assert.Greater(t, last(follow(t, newcomer(), held)), 2*last(follow(t, newcomer(), beside)))
	pushes := newcomer()
	pushes.Limit = 1
	assert.Equal(t, last(follow(t, pushes, held)), last(follow(t, pushes, beside)))
}

func TestTheRoomsAreRead(t *testing.T) {
	rooms, err := rehearsal.Rooms()
	require.NoError(t, err)
	assert.Len(t, rooms, 8)
	for _, r := range rooms {
		people := r.Seat(7)
		assert.Len(t, people, r.Size())
		assert.Equal(t, people, r.Seat(7), "the same seed, the same room")
		assert.NotEqual(t, people, r.Seat(8))
		for _, kind := range r.People {
			// What the handbook names, section 10.
			assert.GreaterOrEqual(t, kind.Comfort[0], 8.0, r.Name)
			assert.LessOrEqual(t, kind.Comfort[1], 14.0, r.Name)
			assert.LessOrEqual(t, kind.Full[1], 25.0, r.Name)
			assert.LessOrEqual(t, kind.Empty[1], 12.0, r.Name)
		}
	}
	_, err = rehearsal.Find("strangers")
	assert.Contains(t, language.English().Error(err), "newcomers")
}

// Every sign is one that the pad of the lead screen has.
func TestSignsAreThoseOfThePad(t *testing.T) {
	for _, id := range []string{rehearsal.Gasp, rehearsal.Rushed, rehearsal.Early, rehearsal.Late, rehearsal.Tight,
		rehearsal.Restless, rehearsal.Strokes, rehearsal.Unwell} {
		found := false
		for _, seen := range room.Signals {
			found = found || seen.ID == id
		}
		assert.True(t, found, id)
	}
}

func anyone(t *rapid.T) (rehearsal.Person, int, int64) {
	rooms, err := rehearsal.Rooms()
	require.NoError(t, err)
	seed := rapid.Int64Range(1, 1000).Draw(t, "seed")
	people := rapid.SampledFrom(rooms).Draw(t, "room").Seat(seed)
	who := rapid.IntRange(0, len(people)-1).Draw(t, "who")
	return people[who], who, seed
}

// Shorter holds never leave anybody with more strain, at any breath; longer ones never with less. The past is the same.
func TestEasingNeverRaisesStrain(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		person, who, seed := anyone(t)
		in, hold, out := rapid.IntRange(2, 8).
			Draw(t, "in"),
			rapid.IntRange(0, 20).
				Draw(t, "hold"),
			rapid.IntRange(2, 12).
				Draw(t, "out")
		rounds := rapid.IntRange(2, 12).Draw(t, "rounds")
		of := read(t, counted(fmt.Sprintf("%d:%d:%d", in, hold, out), rounds, ""))
		led := pace.Begin(of)
		before := rehearsal.Of(led.Timeline(), of, rehearsal.Happens{}).Follow(&person, who, seed, true, false)
		at := rapid.Int64Range(0, led.Timeline().End-1).Draw(t, "at")
		less := rapid.IntRange(0, hold).Draw(t, "less")
		led.Adjust(pace.Adjustment{At: at, Do: pace.ToCounts, Counts: [4]int{in, less, out, 0}})
		after := rehearsal.Of(led.Timeline(), of, rehearsal.Happens{}).Follow(&person, who, seed, true, false)
		for i := 0; i < len(before.Points) && before.Points[i].At <= at; i++ {
			require.Equal(t, before.Points[i].Strain, after.Points[i].Strain, "the past")
		}
		assert.LessOrEqual(t, last(after), last(before)+1e-9)
		for i := range before.Highest {
			assert.LessOrEqual(t, after.Highest[i], before.Highest[i]+1e-9)
		}
	})
}

// Whatever is pressed, what was before is the same: strain, what was seen, and what everybody did.
func TestThePastNeverChanges(t *testing.T) {
	passages := []string{
		counted("4:6:6:3", 9, ""), counted("3:8:5", 9, `, "beside": "breathe"`),
		`{"type": "practice", "practice": "nadi-shodhana", "counts": "5:5", "rounds": 6, "lead_in": 2}`,
		`{"type": "practice", "practice": "kapalabhati", "strokes": 40, "rounds": 3, "rate": 80}`,
	}
	presses := []pace.Adjustment{
		{
			Do: pace.ToPause,
		}, {Do: pace.DropHolds}, {Do: pace.Release}, {Do: pace.LastRound}, {Do: pace.Enough}, {Do: pace.Next},
		{Do: pace.Again}, {Do: pace.Close},
		{
			Do: pace.ToTempo,
			To: breath.Int(45),
		}, {Do: pace.ToTempo, To: breath.Int(75)}, {Do: pace.ToCounts, Counts: [4]int{3, 2, 4, 0}},
		{Do: pace.ToBeside, Text: "breathe"},
		{Do: pace.ToStrokes, To: breath.Int(60)},
	}
	rapid.Check(t, func(t *rapid.T) {
		person, who, seed := anyone(t)
		latecomer := rapid.Bool().Draw(t, "late")
		happens := rehearsal.Happens{Latecomer: rapid.Int64Range(0, 60_000).Draw(t, "latecomer")}
		of := read(t, rapid.SampledFrom(passages).Draw(t, "passage")+`, {"type": "free", "seconds": 30}`)
		led := pace.Begin(of)
		at := int64(0)
		for range rapid.IntRange(1, 4).Draw(t, "presses") {
			at = rapid.Int64Range(at, at+60_000).Draw(t, "at")
			happens.Now = at
			before := rehearsal.Of(led.Timeline(), of, happens).Follow(&person, who, seed, true, latecomer)
			press := rapid.SampledFrom(presses).Draw(t, "press")
			press.At = at
			led.Adjust(press)
			happens.Prompts = append(happens.Prompts, at)
			after := rehearsal.Of(led.Timeline(), of, happens).Follow(&person, who, seed, true, latecomer)
			require.Equal(t, until(before.Signs, at), until(after.Signs, at))
			require.Equal(t, doing(before.Acts, at), doing(after.Acts, at))
			for then := int64(0); then <= at; then += 500 {
				require.InDelta(t, before.StrainAt(then), after.StrainAt(then), 0.003, "at %d, pressed at %d", then, at)
			}
		}
	})
}

func until(signs []rehearsal.Sign, at int64) []rehearsal.Sign {
	list := []rehearsal.Sign{}
	for _, sign := range signs {
		if sign.At < at {
			list = append(list, sign)
		}
	}
	return list
}

// doing returns what was begun before a moment.
func doing(acts []rehearsal.Act, at int64) []string {
	list := []string{}
	for _, act := range acts {
		if act.At < at {
			list = append(list, fmt.Sprintf("%d %s %s", act.At, act.Do, act.Through))
		}
	}
	return list
}

// Strain is within bounds, natural breath lets it fall, and of a room at ease nothing of strain is seen.
func TestStrainAndWhatIsSeenOfIt(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		person, who, seed := anyone(t)
		counts := fmt.Sprintf(
			"%d:%d:%d:%d",
			rapid.IntRange(2, 8).Draw(t, "in"),
			rapid.IntRange(0, 16).Draw(t, "hold"),
			rapid.IntRange(2, 10).Draw(t, "out"),
			rapid.IntRange(0, 6).Draw(t, "empty"),
		)
		of := read(t, counted(counts, rapid.IntRange(1, 10).Draw(t, "rounds"), "")+`, {"type": "free", "seconds": 30}`)
		course := rehearsal.Of(pace.Sheet(of), of, rehearsal.Happens{}).Follow(&person, who, seed, true, false)
		again := rehearsal.Of(pace.Sheet(of), of, rehearsal.Happens{}).Follow(&person, who, seed, true, false)
		require.Equal(t, course, again, "the same seed, the same class")
		for _, p := range course.Points {
			require.GreaterOrEqual(t, p.Strain, 0.0)
			require.LessOrEqual(t, p.Strain, person.Limit)
		}
		n := len(course.Points)
		if course.Points[n-2].Strain > 0 {
			assert.Less(t, course.Points[n-1].Strain, course.Points[n-2].Strain, "natural breath")
		}
		for _, sign := range course.Signs {
			if rehearsal.OfStrain(sign.ID) {
				assert.GreaterOrEqual(t, course.Highest[sign.Passage-1], rehearsal.Visible, sign.ID)
			}
			if slices.Contains([]string{rehearsal.Gasp, rehearsal.Rushed, rehearsal.Early, rehearsal.Strokes}, sign.ID) {
				cause := func(l rehearsal.Load) bool { return l.Sign == sign.ID && l.Beyond > 0 && l.At <= sign.At }
				assert.True(t, slices.ContainsFunc(course.Loads, cause), "%s at %d has a cause", sign.ID, sign.At)
			}
		}
	})
}

// A hold that is too long for newcomers is called what it is before anybody has to hold it; the same is easy for the
// practised.
func TestAPlanAgainstARoom(t *testing.T) {
	of := read(t, counted("4:4", 6, "")+`, {"type": "free", "seconds": 60},`+counted("4:16:8", 6, ""))
	newcomers, err := rehearsal.Find("newcomers")
	require.NoError(t, err)
	list := rehearsal.Expect(of, newcomers, 200)
	require.Len(t, list, 3)
	assert.Equal(t, rehearsal.Expectation{Passage: 1, People: 14}, list[0], "an even breath is easy")
	assert.Equal(t, rehearsal.Expectation{Passage: 3, FromRound: 1, People: 14, Low: 14, Median: 14, High: 14}, list[2])
	practised, err := rehearsal.Find("experienced")
	require.NoError(t, err)
	for _, one := range rehearsal.Expect(of, practised, 200) {
		assert.LessOrEqual(t, one.Low, one.Median)
		assert.LessOrEqual(t, one.Median, one.High)
		assert.LessOrEqual(t, one.Median, 7, "not all of them")
	}
	assert.Equal(t, list, rehearsal.Expect(of, newcomers, 200), "the same seeds, the same numbers")
}

func ExampleExpect() {
	_, p, _ := sheet.ReadPlan(strings.NewReader(`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [
		{"type": "practice", "practice": "counted-breath", "counts": "4:16:8", "rounds": 6}]}`))
	newcomers, _ := rehearsal.Find("newcomers")
	for _, e := range rehearsal.Expect(p, newcomers, 50) {
		fmt.Printf(
			"passage %d from round %d: %d to %d of %d beyond an easy breath\n",
			e.Passage,
			e.FromRound,
			e.Low,
			e.High,
			e.People,
		)
	}
	// Output: passage 1 from round 1: 14 to 14 of 14 beyond an easy breath
}

// 200 rooms of fourteen follow a class of forty minutes.
func BenchmarkExpect(b *testing.B) {
	of := read(
		b,
		counted("4:4", 60, "")+`, {"type": "free", "seconds": 60},`+counted(
			"4:4:8",
			45,
			"",
		)+`, {"type": "free", "seconds": 120},`+counted(
			"5:5",
			90,
			"",
		),
	)
	newcomers, err := rehearsal.Find("newcomers")
	require.NoError(b, err)
	for b.Loop() {
		rehearsal.Expect(of, newcomers, 200)
	}
}
