package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// misplaced measures the boxes of what is led by: what is not in its place, empty if all is.
const misplaced = `() => {
	const wrong = [];
	const slack = 1.5; // px
	const name = (e) => (e.className?.baseVal ?? e.className) + " " + (e.textContent ?? "").slice(0, 20);
	const inside = (box, of) => box.left >= of.left - slack && box.right <= of.right + slack && box.top >= of.top - slack && box.bottom <= of.bottom + slack;
	const screen = { left: 0, top: 0, right: innerWidth, bottom: innerHeight };
	if (document.documentElement.scrollWidth > innerWidth) wrong.push("wider than the screen");
	for (const key of document.querySelectorAll(".leading .key, .topbar a, .topbar button, .room footer button, .sounding")) {
		if (!key.checkVisibility()) continue;
		const box = key.getBoundingClientRect();
		if (!inside(box, screen)) wrong.push("off the screen: " + name(key));
		if (key.classList.contains("key") && (box.width < 44 || box.height < 44)) wrong.push("small: " + name(key));
		if (key.scrollHeight > key.clientHeight + slack) wrong.push("cut: " + name(key));
	}
	const keys = [...document.querySelectorAll(".leading .key")];
	const places = () => keys.map((key) => { const box = key.getBoundingClientRect(); return [box.top, box.height].map(Math.round).join(); }).join(" ");
	const moves = document.querySelectorAll(".key .moves");
	const before = places();
	moves.forEach((m) => (m.style.display = "none"));
	if (places() !== before) wrong.push("the keys move when it is known what they would do");
	moves.forEach((m) => (m.style.display = ""));
	const line = document.querySelector(".laneline");
	for (const part of line?.children ?? []) {
		if (!inside(part.getBoundingClientRect(), line.getBoundingClientRect())) wrong.push("off its line: " + name(part));
	}
	for (const key of document.querySelectorAll(".lanes button")) {
		if (!inside(key.getBoundingClientRect(), screen)) wrong.push("off the screen: " + name(key));
	}
	for (const root of document.querySelectorAll(".stage")) {
		const stage = root.getBoundingClientRect();
		const parts = [...root.children].flatMap((part) => part.matches(".saying, .patterned") ? [...part.children] : [part]);
		const boxes = parts.map((part) => [part, part.getBoundingClientRect()]);
		boxes.forEach(([part, box], i) => {
			if (!inside(box, stage)) wrong.push("off the stage: " + name(part));
			for (const [other, its] of boxes.slice(i + 1)) {
				const across = Math.min(box.right, its.right) - Math.max(box.left, its.left);
				const down = Math.min(box.bottom, its.bottom) - Math.max(box.top, its.top);
				if (across > slack && down > slack) wrong.push(name(part) + " lies over " + name(other));
			}
		});
		for (const text of root.querySelectorAll(".where > span, .word > span, p.word, .count, .besides p, .words p, .string .label, .lamp-group .named")) {
			if (text.textContent.trim() === "") continue;
			const range = document.createRange();
			range.selectNodeContents(text);
			const box = range.getBoundingClientRect();
			if (box.left < stage.left - slack || box.right > stage.right + slack) wrong.push("cut: " + name(text) + [box.left, box.right, stage.left, stage.right]);
			const lines = new Set([...range.getClientRects()].filter((r) => r.width > 0).map((r) => Math.round(r.bottom / 12))).size;
			if (lines > 2 && !text.closest(".words, p.word")) wrong.push("wrapped: " + name(text));
		}
		const sheet = root.querySelector(".lampsheet")?.getBoundingClientRect();
		for (const lamp of root.querySelectorAll(".pane, .string .label, .lamp-group .named")) {
			if (!inside(lamp.getBoundingClientRect(), sheet)) wrong.push("off the sheet: " + name(lamp));
		}
	}
	return [...new Set(wrong)].slice(0, 6).join("; ");
}`

// settles is how long a screen may take to be drawn, measured and drawn again after a change of size.
const settles = patience / 4

var sizes = [][2]int{{360, 640}, {390, 844}, {768, 1024}, {1280, 720}, {1920, 1080}, {3840, 2160}}

// On every screen, from a small phone to a large wall, nothing of what is led by is cut, covered or wrapped over
// something else, and the number in the room is at least a fifth of the screen's height (interface.md).
func TestTheStageFitsEveryScreen(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var code contract.RoomCode
	require.NoError(t, th.program.Get("/api/room", &code))
	lead, room := th.page("/api/clock"), th.page("/api/clock")
	line := `"lines": [{"text": "Fill from below, as water fills a jar, and let the ribs open to both sides like the ` +
		`pages of a book.", "who": "all"}]`
	for _, passage := range []string{
		`"type": "practice", "practice": "nadi-shodhana", "counts": "4:16:8", "rounds": 60, "script": "Shoulders low.", ` +
			line,
		`"type": "practice", "practice": "nadi-shodhana", "counts": "4:16:8", "rounds": 60, "beside": "breathe"`,
		`"type": "practice", "practice": "three-part-breath", "counts": "9:12", "rounds": 60`,
		`"type": "practice", "practice": "segmented-breath", "rounds": 60`,
		`"type": "practice", "practice": "kapalabhati", "strokes": 90, "rounds": 30`,
		`"type": "practice", "practice": "breath-of-joy", "rounds": 200`,
		`"type": "practice", "practice": "digital-control", "counts": "12:12", "rounds": 60, "aperture": {"inhale": ` +
			`"narrow", "exhale": "wide"}`,
		`"type": "practice", "practice": "sigh", "rounds": 60`,
		`"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:4", "pace": "own", "minutes": 30`,
		`"type": "practice", "practice": "open-holds", "rounds": 9`,
		`"type": "talk", "seconds": 600, "script": "` +
			strings.Repeat("Let the hands rest, and feel the weight of the sit bones. ", 6) + `"`,
		`"type": "free", "seconds": 600`,
	} {
		if !strings.Contains(passage, "talk") && !strings.Contains(passage, "free") {
			passage += `, "lead_in": 0`
		}
		score := th.begin("{" + passage + `}, {"type": "practice", "practice": "counted-breath", "rounds": 5}`)
		for path, page := range map[string]*screen{fmt.Sprintf("/lead/%d", score.ClassID): lead, "/room/" + code.Code: room} {
			th.visit(page, th.at+path)
			th.see(page, `[data-testid="word"]`, ".")
			for _, size := range sizes {
				th.resize(page, size[0], size[1])
				th.until(page, fmt.Sprintf(`innerWidth === %d && document.fonts.status === "loaded"`, size[0]))
				// A change of size is drawn, measured and drawn again.
				if !th.holds(page, settles, `(`+misplaced+`)() === ""`) {
					assert.Empty(t, th.eval(page, misplaced).Str(), "%s at %v: %s", path, size, passage)
				}
				if strings.HasPrefix(path, "/room") && strings.Contains(passage, "nadi-shodhana") &&
					!strings.Contains(passage, "own") {
					const high = `() => parseFloat(getComputedStyle(document.querySelector(".count")).fontSize) * 0.7 / innerHeight`
					if !th.holds(page, settles, "("+high+")() >= 0.2") {
						assert.GreaterOrEqual(t, th.eval(page, high).Num(), 0.2, "%v: the number's share of the screen", size)
					}
				}
			}
		}
	}
}

// The running order keeps the passage in progress in view, and says what tells like passages apart.
func TestTheRunningOrderFollows(t *testing.T) {
	th := open(t)
	defer th.recovered()
	var passages []string
	for i := range 14 {
		passages = append(
			passages,
			fmt.Sprintf(
				`{"type": "practice", "practice": "digital-control", "title": "A set with quite a long name, number %d", `+
					`"rounds": 60, "lead_in": 0, "aperture": {"inhale": "narrow", "exhale": "wide"}}`,
				i,
			),
		)
	}
	page, score := th.lead(strings.Join(passages, ","))
	for i := range 12 {
		require.NoError(
			t,
			th.program.Post(
				fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID),
				fmt.Sprintf(`{"key": "%d", "do": "next"}`, i),
				&contract.Adjusted{},
			),
		)
	}
	th.see(page, ".orderlist .here", `number 12[^]*set 13 of 14, narrow in`)
	th.until(
		page,
		`(() => { const box = document.querySelector(".orderlist .here").getBoundingClientRect(); return box.top > 0 && `+
			`box.bottom < innerHeight; })()`,
	)
	require.Equal(
		t,
		0,
		th.eval(page, `() => document.querySelector(".orderlist").scrollWidth - `+
			`document.querySelector(".orderlist").clientWidth`).
			Int(),
		"no title is cut",
	)
}
