package e2e

import (
	"fmt"
	"net/http"
	"net/url"
	"testing"

	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// spoken returns the cookie of a device whose screens are in a language.
func (th *theater) spoken(tag string) *http.Cookie {
	address, err := url.Parse(th.at)
	require.NoError(th, err)
	return &http.Cookie{Name: "language", Value: tag, Path: "/", Domain: address.Hostname()}
}

// Every view in each language says which it is, fits, and keeps the rules of axe-core.
func TestEveryViewInEachLanguage(t *testing.T) {
	t.Parallel()
	th, today := openDemo(t)
	defer th.recovered()
	var score contract.Score
	require.NoError(t, th.program.Lead(today.Next.ID, &score))
	for _, tag := range []string{"de", "es", "fr"} {
		page := th.opened(th.at+"/api/clock", 1280, 800, th.spoken(tag))
		for _, path := range append(demoViews(today), fmt.Sprintf("/lead/%d", score.ClassID)) {
			th.visit(page, th.at+path)
			th.until(page, fmt.Sprintf("document.documentElement.lang === %q", tag))
			th.see(page, "main, .leading, .papers", ".")
			th.until(
				page,
				`document.fonts.status === "loaded" && `+
					`![...document.querySelectorAll("[role=status]")].some((e) => e.textContent.endsWith("…"))`,
			)
			th.accessible(page, tag+" "+path)
			for _, size := range longerSizes {
				th.resize(page, size[0], size[1])
				th.fits(page, fmt.Sprintf("%s %s at %v", tag, path, size))
			}
			th.resize(page, 1280, 800)
		}
	}
}

// A person chooses a language under School: the screen is written anew at once, and so is every page opened later.
func TestAPersonChoosesALanguage(t *testing.T) {
	th := open(t)
	defer th.recovered()
	page := th.page("/school")
	th.see(page, "h1", "^Your school$")
	th.pick(page, "#screen-language", "Deutsch")
	th.see(page, "h1", "^Deine Schule$")
	th.visit(page, th.at+"/")
	th.see(page, "nav", "Übungen")
	th.until(page, `document.documentElement.lang === "de"`)
	th.visit(page, th.at+"/practices")
	th.fill(page, "input[type=search]", "schadelleuchten") // as it is typed without an umlaut
	th.see(page, ".booklist", "Schädelleuchten-Atem")
	th.until(page, `!document.querySelector(".booklist").innerText.includes("Bienenatmung")`)
	th.visit(page, th.at+"/school")
	th.pick(page, "#screen-language", "English")
	th.see(page, "h1", "^Your school$")
}

// A browser's own language is taken at first, where all screens are written in it.
func TestTheBrowsersLanguageIsTaken(t *testing.T) {
	th := open(t)
	defer th.recovered()
	for _, c := range []struct{ browser, tag, today string }{
		{"fr-CA,fr", "fr", "Aujourd’hui"}, {"de-AT", "de", "Heute"}, {"es-MX", "es", "Hoy"},
		{"pt-BR", "en", "Today"}, {"fi,de", "de", "Heute"},
	} {
		page := th.page("/api/clock")
		override := proto.EmulationSetUserAgentOverride{UserAgent: "a browser of the tests", AcceptLanguage: c.browser}
		require.NoError(t, override.Call(page.tab))
		th.visit(page, th.at+"/")
		th.see(page, "nav", c.today)
		th.until(page, fmt.Sprintf("document.documentElement.lang === %q", c.tag))
	}
}

// A language is chosen over the network too, and a language that cannot be loaded says so: the screen stays as it is.
func TestALanguageWhenTheProgramIsGone(t *testing.T) {
	onBothAddresses(t, func(t *testing.T, th *theater) {
		page := th.page("/school")
		th.see(page, "h1", "^Your school$")
		th.pick(page, "#screen-language", "Français")
		th.see(page, "h1", "^Ton école$")
		th.program.Kill()
		th.pick(page, "#screen-language", "Deutsch")
		th.see(page, "[role=alert]", "Cette langue ne s’est pas chargée, car le programme ne répond pas")
		th.see(page, "h1", "^Ton école$")
		th.until(page, `document.querySelector("#screen-language").value === "fr"`)
	})
}
