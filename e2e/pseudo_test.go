package e2e

import (
	"encoding/json"
	"fmt"
	"net/http"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"golang.org/x/text/unicode/norm"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/core/words"
	"vastlantern/studio/contract"
)

// pseudo returns a message in a language of nobody's: a third longer, and each word marked with a dot below its first
// letter, so that what is written without a catalogue stands out. Places and the selectors of their cases stay.
func pseudo(message string) string {
	p := &pseudoWriter{rest: message}
	p.message()
	return p.out.String()
}

type pseudoWriter struct {
	rest string
	out  strings.Builder
	nth  int  // letter
	word bool // whether it is inside one
}

func (p *pseudoWriter) take(n int) {
	p.out.WriteString(p.rest[:n])
	p.rest = p.rest[n:]
}

// message writes up to the end, or to the brace that closes a case.
func (p *pseudoWriter) message() {
	for p.rest != "" && p.rest[0] != '}' {
		switch {
		case strings.HasPrefix(p.rest, "'{"), strings.HasPrefix(p.rest, "'}"):
			p.take(strings.Index(p.rest[1:], "'") + 2)
		case p.rest[0] == '{':
			p.place()
		default:
			letter := p.rest[0]
			p.take(1)
			isLetter := letter >= 'a' && letter <= 'z' || letter >= 'A' && letter <= 'Z'
			if isLetter && !p.word {
				p.out.WriteString("\u0323")
			} else if p.nth++; isLetter && p.nth%3 == 0 {
				p.out.WriteByte(letter)
			}
			p.word = isLetter || p.word && (letter == '\'' || letter >= 0x80)
		}
	}
}

func (p *pseudoWriter) place() {
	end := strings.IndexAny(p.rest[1:], "{}") + 1
	if p.rest[end] == '}' {
		p.take(end + 1)
		return
	}
	for p.rest[0] != '}' {
		p.word = false
		p.take(strings.IndexByte(p.rest[1:], '{') + 2)
		p.message()
		p.take(1)
		p.take(len(p.rest) - len(strings.TrimLeft(p.rest, " ")))
	}
	p.take(1)
}

func TestPseudo(t *testing.T) {
	for message, want := range map[string]string{
		"Stay":        "Ṣtayy",
		"{n} of {of}": "{n} ọf {of}",
		"a '{' b {x}": "ạ '{' ḅ {x}",
		"{n, plural, one {# round} other {# rounds}}": "{n, plural, one {# ṛooundd} other {# ṛooundds}}",
	} {
		assert.Equal(t, norm.NFD.String(want), norm.NFD.String(pseudo(message)))
	}
}

var textOfAChunk = regexp.MustCompile("(\"[a-z-]+\\.[\\w.-]+\"|[\\w\"-]+):`((?:[^`\\\\]|\\\\.)*)`")

// inPseudo serves the texts of the screens in the pseudo-language: those of English, or those of the room in German.
func inPseudo(t *testing.T, page *screen, files string) {
	router := page.tab.HijackRequests() // of this tab: other tests share the browser
	t.Cleanup(func() { assert.NoError(t, router.Stop()) })
	require.NoError(t, router.Add("*/assets/"+files, "", func(h *rod.Hijack) {
		if err := h.LoadResponse(http.DefaultClient, true); err != nil {
			h.OnError(err)
			return
		}
		if strings.HasPrefix(files, "room") && !strings.HasPrefix(h.Response.Body(), "var e={now:`Jetzt") {
			return // the page itself, or another language
		}
		body := textOfAChunk.ReplaceAllStringFunc(h.Response.Body(), func(entry string) string {
			parts := textOfAChunk.FindStringSubmatch(entry)
			return parts[1] + ":`" + pseudo(parts[2]) + "`"
		})
		h.Response.SetBody(body)
	}))
	go router.Run()
}

// unwritten returns the texts of the page that come neither from a catalogue nor from the program.
const unwritten = `(more) => {
	const known = new Set();
	const bare = (word) => word.replace(/['’]s?$/, "");
	const word = /[\p{L}\p{M}][\p{L}\p{M}'’-]+/gu;
	const know = (text) => (text.normalize("NFD").match(word) ?? []).forEach((one) => known.add(bare(one)));
	const read = (value) => {
		if (typeof value === "string") know(value);
		else if (value && typeof value === "object") Object.values(value).forEach(read);
	};
	know(more);
	(window.answered ?? []).forEach(read);
	const found = new Set();
	const look = (text) => {
		for (const one of text.normalize("NFD").match(word) ?? [])
			if (one.length > 2 && !one.includes("\u0323") && !known.has(bare(one))) found.add(one + ": " + text.trim().slice(0, 80));
	};
	const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
	while (walker.nextNode()) {
		const { parentElement, textContent } = walker.currentNode;
		if (!parentElement.closest("script, style, kbd, code, [lang]:not(html), article") && parentElement.checkVisibility())
			look(textContent);
	}
	for (const name of ["aria-label", "title", "placeholder", "alt"])
		for (const e of document.querySelectorAll("[" + name + "]")) look(e.getAttribute(name));
	return [...found].join("\n");
}`

// answersKept keeps what the program answers, in the page.
const answersKept = `(() => {
	window.answered = [];
	const ask = window.fetch;
	window.fetch = async (...of) => {
		const answer = await ask(...of);
		answer.clone().json().then((body) => { window.answered.push(body); }, () => {});
		return answer;
	};
})()`

// names is what no language translates, and what the browser writes itself.
const names = "today tomorrow yesterday Monday Tuesday Wednesday Thursday Friday Saturday Sunday Mon Tue Wed Thu Fri " +
	"Sat Sun " +
	"January February March April May June July August September October November December Jan Feb Mar Apr Jun Jul Aug " +
	"Sep Sept Oct Nov Dec AM PM am pm at English Deutsch Español Français Português Vast Lantern Letter min "

// crowded returns what does not fit on the page: what is cut off, and controls that lie over each other.
const crowded = `() => {
	const wrong = [];
	const name = (e) => e.tagName.toLowerCase() + "." + e.className + ": " + (e.getAttribute("aria-label") ?? e.textContent ?? "").trim().slice(0, 40);
	const right = document.documentElement.clientWidth;
	if (document.documentElement.scrollWidth > right && !document.querySelector(".papers"))
		wrong.push("wider than the screen: " + [...document.querySelectorAll("body *")]
			.filter((e) => e.checkVisibility() && e.getBoundingClientRect().right > right + 1 && !e.closest(".table-responsive, .drawn, svg"))
			.slice(-2).map(name).join(" | "));
	const shown = (e) => e.checkVisibility({ checkOpacity: true, checkVisibilityCSS: true }) && !e.closest(".visually-hidden, [inert]");
	for (const e of document.querySelectorAll("button, a, label, legend, h1, h2, h3, th, dt, dd, p")) {
		if (!shown(e) || e.classList.contains("visually-hidden")) continue;
		const hides = getComputedStyle(e).overflowX !== "visible";
		if (hides && e.scrollWidth > e.clientWidth + 1) wrong.push("cut: " + name(e));
	}
	for (const e of document.querySelectorAll("button:not(.btn-close, .dropdown-toggle-split), a.btn")) {
		if (!shown(e)) continue;
		const range = document.createRange();
		range.selectNodeContents(e);
		const text = range.getBoundingClientRect();
		const box = e.getBoundingClientRect();
		if (text.left < box.left - 1 || text.right > box.right + 1) wrong.push("runs out of its button: " + name(e));
		const texts = document.createTreeWalker(e, NodeFilter.SHOW_TEXT);
		while (texts.nextNode()) {
			// What a key does is written below its name; no dictionary of hyphens ships with the browser of the tests.
			if (texts.currentNode.parentElement.closest(".effect")) continue;
			for (const { index, 0: word } of texts.currentNode.data.matchAll(/[\p{L}\p{M}]+/gu)) {
				const lines = new Set();
				for (let at = index; at < index + word.length; at++) {
					range.setStart(texts.currentNode, at);
					range.setEnd(texts.currentNode, at + 1);
					lines.add(Math.round([...range.getClientRects()].at(-1)?.bottom)); // a hyphen before it stands first
				}
				if (lines.size > 1) wrong.push("a word is parted, " + word + ": " + name(e));
			}
		}
	}
	const controls = [...document.querySelectorAll("button, a.btn, input:not([type=checkbox]), select, textarea")].filter(shown);
	const boxes = controls.map((e) => [e, e.getBoundingClientRect()]);
	boxes.forEach(([one, a], i) => {
		for (const [other, b] of boxes.slice(i + 1)) {
			if (one.contains(other) || other.contains(one) || one.closest(".sticky-bottom, .savebar, .anywhere, .pad footer") !== other.closest(".sticky-bottom, .savebar, .anywhere, .pad footer")) continue;
			const across = Math.min(a.right, b.right) - Math.max(a.left, b.left);
			const down = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
			if (across > 2 && down > 2) wrong.push(name(one) + " lies over " + name(other));
		}
	});
	return [...new Set(wrong)].join("\n");
}`

var longerSizes = [][2]int{{1280, 800}, {390, 844}, {360, 640}, {1920, 1080}}

// fits checks that nothing of a page is cut off or covered, once what is drawn has its size.
func (th *theater) fits(page *screen, name string) {
	th.Helper()
	if !th.holds(page, settles/10, "("+crowded+")() === ''") {
		assert.Empty(th, th.eval(page, crowded).Str(), name)
	}
}

// written looks a page over in the pseudo-language, at every size.
func (th *theater) written(page *screen, name, known string) {
	th.Helper()
	th.until(
		page,
		`document.fonts.status === "loaded" && `+
			`![...document.querySelectorAll("[role=status]")].some((e) => e.textContent.endsWith("…"))`,
	)
	for _, size := range longerSizes {
		th.resize(page, size[0], size[1])
		assert.Empty(th, th.eval(page, unwritten, known).Str(), "%s at %v", name, size)
		th.fits(page, fmt.Sprintf("%s at %v", name, size))
	}
}

// demoViews returns the addresses of the views of the demo data.
func demoViews(today contract.Today) []string {
	next := today.Next
	return []string{
		"/", fmt.Sprintf("/plan/%d", next.ID), fmt.Sprintf("/plan/%d/card", next.ID), fmt.Sprintf("/plan/%d/home", next.ID),
		fmt.Sprintf("/plan/%d/text", next.ID), "/practices", "/practices/kapalabhati", "/practices/own-mine/edit", "/groups",
		fmt.Sprintf("/groups/%d", next.Group.ID), "/school", "/programmes/1", "/rehearse", "/rehearse/1", "/keys", "/voices",
		"/voices/1", "/taught/year/2026", "/taught", fmt.Sprintf("/taught/%d", today.Taught[0].ID), "/nothing/here",
	}
}

// Every view in a language a third longer: nothing is left untranslated, cut off or covered.
func TestALongerLanguage(t *testing.T) {
	t.Parallel()
	th, today := openDemo(t)
	defer th.recovered()
	program := th.program
	known := names + roomTexts(t)
	page := th.page("/api/clock")
	inPseudo(t, page, "*texts-en-*.js")
	th.onNewDocument(page, answersKept)
	next := today.Next
	for _, path := range demoViews(today) {
		th.visit(page, th.at+path)
		th.see(page, "body", "\u0323")
		th.written(page, path, known)
	}

	var score contract.Score
	require.NoError(t, program.Lead(next.ID, &score))
	spoken, err := json.Marshal(score)
	require.NoError(t, err)
	known += string(spoken)
	th.visit(page, th.at+fmt.Sprintf("/lead/%d", score.ClassID))
	th.see(page, `[data-testid="word"]`, ".")
	th.written(page, "lead", known)
	for _, key := range []input.Key{input.Digit1, input.Digit2, input.Digit7, input.KeyB, input.KeyT} {
		th.press(page, key)
		th.see(page, ".pad", ".")
		th.written(page, fmt.Sprintf("lead, key %v", key), known)
		th.press(page, input.Escape)
		th.closed(page)
	}
	for _, path := range []string{fmt.Sprintf("/remote/%d", score.ClassID), fmt.Sprintf("/try/%d", next.ID)} {
		th.visit(page, th.at+path)
		th.see(page, "main, .remote, .leading", "\u0323")
		th.written(page, path, known)
	}
}

// The room's screens in a language a third longer, before a class, in it and after it.
func TestALongerRoom(t *testing.T) {
	t.Parallel()
	th, today := openDemo(t)
	defer th.recovered()
	var code contract.RoomCode
	require.NoError(t, th.program.Get("/api/room", &code))
	known := names + " heute morgen gestern " + inGerman(t)
	page := th.page("/api/clock")
	inPseudo(t, page, "room-*.js")
	th.onNewDocument(page, answersKept)
	th.visit(page, th.at+"/room/"+code.Code)
	th.click(page, "footer button", "This screen")
	th.pick(page, "#language", "Deutsch")
	th.see(page, ".modal", "\u0323")
	th.written(page, "this screen", known)
	th.press(page, input.Escape)
	th.closed(page)
	th.see(page, "body", "\u0323")
	th.written(page, "the room before a class", known)
	var score contract.Score
	require.NoError(t, th.program.Lead(today.Next.ID, &score))
	led, err := json.Marshal(score)
	require.NoError(t, err)
	known += string(led)
	for i := range 4 {
		th.see(page, `[data-testid="word"]`, ".")
		th.written(page, fmt.Sprintf("the room in passage %d", i+1), known)
		var done contract.Adjusted
		require.NoError(t, th.program.Post(fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID),
			fmt.Sprintf(`{"key": "next %d", "do": "next"}`, i), &done))
	}
	var done contract.Adjusted
	require.NoError(t, th.program.Post(fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID),
		`{"key": "end", "do": "end"}`, &done))
	th.see(page, "h1", "\u0323")
	th.written(page, "the room after a class", known)
}

// inGerman returns what is said in class in German, and what practices are called.
func inGerman(t *testing.T) string {
	said, err := json.Marshal(words.German)
	require.NoError(t, err)
	list := []string{string(said)}
	for _, p := range practice.Catalogue() {
		list = append(list, p.NameIn("de"))
		for _, preset := range p.Presets {
			list = append(list, plan.Capital(preset.NameIn("de")))
		}
	}
	for _, stretch := range plan.Stretches {
		list = append(list, plan.Capital(stretch.Called["de"][0]))
	}
	return strings.Join(list, " ")
}

// roomTexts returns what stands around the count, which the screens have in English until another language is loaded.
func roomTexts(t *testing.T) string {
	texts, err := os.ReadFile(filepath.Join("..", "language", "en", "room.json"))
	require.NoError(t, err)
	return string(texts)
}
