package e2e

import (
	"fmt"
	"regexp"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/studio/contract"
)

// What is seen is said with one key, what to do about it is shown, and taken with one more; counts, undo and the room's
// own tempo by keyboard too.
func TestWhatIsSeenInTheRoom(t *testing.T) {
	onBothAddresses(t, whatIsSeenInTheRoom)
}

func whatIsSeenInTheRoom(t *testing.T, th *theater) {
	var plan contract.Plan
	require.NoError(
		t,
		th.program.Post(
			"/api/plans",
			`{"document": {"format": "vast-lantern-plan", "version": 1, "title": "Held", "tempo": 60, "slot_min": 20, "passages": [
		{"type": "practice", "practice": "counted-breath", "counts": "4:8:8", "rounds": 60, "lead_in": 0}]}}`,
			&plan,
		),
	)
	var score contract.Score
	require.NoError(t, th.program.Lead(plan.ID, &score))
	page := th.page(fmt.Sprintf("/lead/%d", score.ClassID))
	th.see(page, `[data-testid="word"]`, "inhale|hold|exhale")

	th.press(page, input.Digit1)
	th.see(page, ".signals button", "a rushed exhale after the hold")
	th.press(page, input.KeyW)
	th.see(page, ".proposal", "hold 8 to 6, from (this breath|the next round)")
	th.press(page, input.KeyF)
	th.see(page, ".answer", "counts 4:8:8 to 4:6:8")

	th.press(page, input.Digit4)
	th.until(page, `document.querySelectorAll(".fourcounts input").length === 4`)
	th.fill(page, ".fourcounts :nth-child(3) input, .fourcounts input:nth-of-type(3)", "7")
	th.press(page, input.Enter)
	th.see(page, ".answer", "counts 4:6:8 to 4:6:7 from the next round")
	th.press(page, input.KeyZ)
	th.see(page, ".answer", "undone: counts")

	th.press(page, input.Digit2)
	th.see(page, ".proposal", "two taps or more")
	th.press(page, input.Digit2, input.Digit2, input.Digit2, input.Digit2, input.Digit2)
	th.note(page, ".proposal") // which follows each tap
	th.see(page, ".proposal", `^tempo \d+, one count in`)
	th.press(page, input.KeyF)
	tempo := regexp.MustCompile(`\d+`).FindString(th.read(page, ".answer", `faster: \d+`))
	th.noted(page, "tempo "+tempo+", one count in")

	th.press(page, input.Digit3)
	th.see(page, ".answer", "on time")
	th.sent(page)

	var record contract.Record
	require.NoError(t, th.program.Get(fmt.Sprintf("/api/classes/%d/record", score.ClassID), &record))
	var marks []string
	for _, mark := range record.Marks {
		assert.Empty(t, mark.Answer.Refused)
		marks = append(marks, string(mark.Answer.Do))
	}
	assert.Equal(t, []string{"signal", "counts", "counts", "undo", "tempo", "finish-by"}, marks)
	assert.Equal(t, "rushed", record.Marks[1].Answer.Because)
}

// The room's page waits before a class, shows the same count as the lead screen, follows an adjustment, and thanks at
// the end. It holds nothing that could change the class.
func TestTheRoomFollowsTheClass(t *testing.T) {
	onBothAddresses(t, theRoomFollowsTheClass)
}

func theRoomFollowsTheClass(t *testing.T, th *theater) {
	var code contract.RoomCode
	require.NoError(t, th.program.Get("/api/room", &code))
	assert.Regexp(t, "^[A-Z]{5}$", code.Code)
	room := th.page("/room/" + code.Code)
	th.see(room, ".quietly", "No class in progress")

	stored := th.plan(60)
	require.NoError(t, th.program.ChangeSettings(func(s *contract.Settings) { s.Bring = "a blanket" }))
	waiting := th.page("/room/" + code.Code)
	th.see(
		waiting,
		".quietly",
		`Soon[^]*Short lesson[^]*, in \d+ minutes[^]*Alternate nostril breath[^]*Please bring a blanket`,
	)
	var score contract.Score
	require.NoError(t, th.program.Lead(stored.ID, &score))
	th.see(waiting, `[data-testid="word"]`, ".")
	lead := th.page(fmt.Sprintf("/lead/%d", score.ClassID))
	tl := pace.Sheet(storedPlan(t, th, stored.ID))
	th.see(lead, `[data-testid="word"]`, "inhale|exhale")
	th.see(room, `[data-testid="word"]`, "inhale|exhale")
	th.showsTheTrueCount(tl, score.StartedMS, 0, lead, room)
	late := th.page("/room/" + strings.ToLower(code.Code))
	th.see(late, `[data-testid="word"]`, "inhale|exhale")
	th.showsTheTrueCount(tl, score.StartedMS, 0, late)

	th.press(lead, input.Space)
	th.see(room, `[data-testid="word"]`, "natural breath")
	th.press(room, input.KeyF, input.Space, input.KeyX, input.KeyX) // keys of the lead screen mean nothing here
	th.press(lead, input.KeyF)
	th.see(room, `[data-testid="word"]`, "inhale")
	th.end(lead)
	th.see(room, ".quietly", "The class has ended")

	stranger := th.page("/room/NOBODY")
	th.see(stranger, ".alert", "There is no room")
	var public contract.Room
	require.NoError(t, th.program.Get("/api/rooms/"+code.Code, &public))
	assert.Nil(t, public.Score, "nothing is led any more")
}

// What carries the count on the room's screens is the plan's to say, and the passage's; the lead screen has it always.
func TestNumbersAreHiddenInTheRoom(t *testing.T) {
	th := open(t)
	defer th.recovered()
	page := th.page("/")
	th.click(page, "button", "New plan")
	th.see(page, "span", "^Saved$")
	th.add(page, "counted 4:6 x40, lead-in 0", "Counted breath")
	th.add(page, "counted 4:4 x40, lead-in 0, numbers hidden", "Counted breath")
	th.until(page, `document.querySelectorAll(".passage").length === 2`)
	th.pick(page, "#room-numbers", "lamps only")
	th.see(page, ".says", "numbers hidden")
	th.see(page, "span", "^Saved$")
	th.click(page, "button", "Lead$")
	th.click(page, ".modal button", "[Bb]egin$")
	th.see(page, `[data-testid="count"]`, "[0-9]")
	var code contract.RoomCode
	require.NoError(t, th.program.Get("/api/room", &code))
	room := th.page("/room/" + code.Code)
	phone := th.phone("/room/" + code.Code)
	th.see(room, `.stage [data-testid="word"]`, "inhale|exhale")
	th.see(room, ".lampsheet", ".")
	assert.Zero(t, th.count(room, `[data-testid="count"]`), "lamps carry the count")
	th.see(phone, `.stage [data-testid="word"]`, "inhale|exhale")
	th.twice(page, input.KeyV, `document.querySelector(".orderlist .past")`)
	th.until(room, `!document.querySelector(".lampsheet")`)
	th.see(room, `.stage [data-testid="word"]`, "inhale|exhale")
	assert.Zero(t, th.count(room, `[data-testid="count"]`), "neither numbers nor lamps")
	th.see(page, `[data-testid="count"]`, "[0-9]")
}

// The hand is drawn where a practice needs it: two ways of the fingers where the plan leaves it to people, the place of
// a hand on the body, thumb to fingertip with each syllable. The seal is a cue of its own.
func TestTheHandIsDrawn(t *testing.T) {
	th := openAt(t, 8)
	defer th.recovered()
	page := th.page("/")
	th.click(page, "button", "New plan")
	th.see(page, "span", "^Saved$")
	th.add(page, "alternate nostril 4:4:8 x60, lead-in 0, seal", "Alternate nostril breath")
	th.add(page, "belly breath 4:4 x60, the sides, lead-in 0", "Belly breath")
	th.add(page, "breath in four steps x60, saying sa ta na ma, lead-in 0", "Breath in four steps")
	th.pick(page, "#room-fingers", "between the brows")
	th.pick(page, "#room-fingers-too", "Thumb with the little")
	th.see(page, "span", "^Saved$")
	th.click(page, "button", "Lead$")
	th.click(page, ".modal button", "[Bb]egin$")
	th.see(page, `[data-testid="count"]`, "[0-9]")
	var code contract.RoomCode
	require.NoError(t, th.program.Get("/api/room", &code))
	room, phone := th.page("/room/"+code.Code), th.phone("/room/"+code.Code)
	th.see(room, ".cues .hand", "^seal$")
	th.see(phone, ".cues .hand", "^seal$")
	assert.Equal(t, 2, th.count(room, ".pair .nose"), "each way has its drawing")
	th.twice(page, input.KeyV, `document.querySelectorAll(".orderlist .past").length === 1`)
	th.see(room, `.body[data-place="sides"]`, "")
	th.twice(page, input.KeyV, `document.querySelectorAll(".orderlist .past").length === 2`)
	for i, syllable := range []string{"sa", "ta", "na", "ma"} {
		th.until(room, fmt.Sprintf(
			`document.querySelector("[data-testid=count]")?.innerText === %q && document.querySelector('[data-finger="%d"]')`,
			syllable, i,
		))
	}
}
