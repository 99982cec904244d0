package e2e

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// The plan has the room asked: on the phones before the first practice and after the class, once each; the record and
// the
// course of the group show the sums.
func TestTheRoomChecksInBeforeAndAfter(t *testing.T) {
	onBothAddresses(t, func(t *testing.T, th *theater) {
		var group contract.Group
		require.NoError(t, th.program.Post("/api/groups", `{"name": "Monday", "weekday": -1}`, &group))
		var plan contract.Plan
		require.NoError(t, th.program.Post("/api/plans", fmt.Sprintf(`{"group_id": %d, "document": {"format": "vast-lantern-plan",
			"version": 1, "title": "Asked", "tempo": 60, "starts_at": %q, "passages": [{"type": "talk", "seconds": 60, "wait": true},
			{"type": "practice", "practice": "ujjayi", "counts": "4:6", "rounds": 40, "lead_in": 0}]}}`, group.ID,
			time.Now().Add(20*time.Minute).Format(time.RFC3339)), &plan))
		editor := th.page(fmt.Sprintf("/plan/%d", plan.ID))
		th.pick(editor, "#room-check-in", "How calm are you?")
		th.see(editor, "body", "Saved")
		var code contract.RoomCode
		require.NoError(t, th.program.Get("/api/room", &code))
		first, second, third := th.phone("/room/"+code.Code), th.phone("/room/"+code.Code), th.phone("/room/"+code.Code)
		th.see(first, ".checkin", "How calm are you\\?[\\s\\S]*Only sums are stored")
		th.accessible(first, "check-in while the room waits")
		th.click(first, ".checkin button", "^2$")
		th.see(first, "body", "your answer was received")
		th.reload(first)
		th.see(first, "body", "Asked") // the next class, and no question
		th.until(first, `document.querySelector(".checkin") === null`)
		var score contract.Score
		require.NoError(t, th.program.Lead(plan.ID, &score))
		th.see(second, ".checkin", "Before class")
		th.accessible(second, "check-in while the class begins")
		th.click(second, ".checkin button", "4")
		th.see(third, ".checkin", "Before class")
		th.click(third, ".checkin button", "Not now")
		th.until(third, `document.querySelector(".checkin") === null`)
		leader := th.page(fmt.Sprintf("/lead/%d", score.ClassID))
		th.see(leader, ".controls", "")
		var done contract.Adjusted
		for i, do := range []string{"advance", "end"} {
			if do == "end" {
				th.see(second, `[data-testid="word"]`, "inhale|exhale")
				th.until(second, `document.querySelector(".checkin") === null`)
			}
			require.NoError(t, th.program.Post(fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID),
				fmt.Sprintf(`{"key": "asked %d", "do": %q}`, i, do), &done))
		}
		for phone, answer := range map[*screen]string{first: "4", second: "^5", third: "3"} {
			th.see(phone, ".checkin", "After class")
			th.click(phone, ".checkin button", answer)
			th.see(phone, "body", "your answer was received")
		}
		record := th.page(fmt.Sprintf("/taught/%d", score.ClassID))
		th.see(record, ".told.checkin", "Before: 2 answers")
		th.see(record, ".told.checkin", "Too few to show")
		th.see(record, ".told.checkin", "After: 3 answers, 4 on average")
		th.see(record, ".told.checkin", "do not say what caused")
		course := th.page(fmt.Sprintf("/groups/%d", group.ID))
		th.see(course, ".checkins", "4 \\(3 answers\\)")
		th.see(course, ".checkins", "Ocean breath 4:6")
		th.accessible(course, "course with check-ins")
	})
}
