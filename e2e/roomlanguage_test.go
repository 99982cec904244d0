package e2e

import (
	"fmt"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// Each phone in the room chooses its language, for what it shows and for what it writes around it: the count
// is the same, also after a press, and others stay as they are.
func TestAPhoneChoosesItsLanguage(t *testing.T) {
	onBothAddresses(t, func(t *testing.T, th *theater) {
		var code contract.RoomCode
		require.NoError(t, th.program.Get("/api/room", &code))
		phone, other := th.phone("/room/"+code.Code), th.phone("/room/"+code.Code)
		th.see(phone, "h1", "Soon")
		th.click(phone, "footer button", "This screen")
		th.pick(phone, "#language", "Français")
		th.see(phone, ".modal", "Cet écran")
		th.accessible(phone, "the screen's card in French")
		th.press(phone, input.Escape)
		th.see(phone, "h1", "Bientôt")
		score := th.begin(`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:2:4", "rounds": 40, "lead_in": 0}`)
		th.see(phone, `[data-testid="word"]`, `inspire\s+à gauche|retiens|expire\s+à droite`)
		th.see(phone, ".where", `Respiration alternée\s+cycle 1 sur 40`)
		th.see(other, `[data-testid="word"]`, `inhale\s+left|hold|exhale\s+right`)
		th.see(other, ".where", `Alternate nostril breath\s+round 1 of 40`)
		assert.Equal(t, "fr", th.eval(phone, "() => document.documentElement.lang").Str())
		th.accessible(phone, "the room in French")
		var done contract.Adjusted
		require.NoError(t, th.program.Post(fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID),
			`{"key": "no holds", "do": "drop-holds"}`, &done))
		require.NoError(t, th.program.Post(fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID),
			`{"key": "pause", "do": "pause"}`, &done))
		th.see(phone, `[data-testid="word"]`, "respiration naturelle")
		th.see(other, `[data-testid="word"]`, "natural breath")
		th.reload(phone)
		th.see(phone, `[data-testid="word"]`, "respiration naturelle") // it is remembered
		require.NoError(t, th.program.Post(fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID),
			`{"key": "resume", "do": "resume"}`, &done))
		th.see(phone, `[data-testid="word"]`, `inspire\s+à gauche|expire`)
		require.NoError(t, th.program.Post(fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID),
			`{"key": "end", "do": "end"}`, &done))
		th.see(phone, "h1", "Merci")
		th.see(other, "h1", "Thank you")
	})
}
