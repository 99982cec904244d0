package e2e

import (
	"fmt"
	"testing"
)

// The manual is in the program, page by page, and so are the licences of what ships inside.
func TestHelpHasTheManualAndTheLicences(t *testing.T) {
	th := open(t)
	defer th.recovered()
	page := th.page("/")
	th.click(page, "nav a", "Help")
	th.see(page, "h1", "Your first class in ten minutes")
	th.click(page, ".help nav a", "The keys of the lead screen")
	th.see(page, "td", "natural breath for everybody, at once")
	th.click(page, ".help nav a", "Licences")
	th.see(page, "pre", "modernc.org/sqlite")
	th.see(page, "pre", "MIT License")
}

// The manual is in the language of the person, and so are the names of its pages.
func TestTheManualInAnotherLanguage(t *testing.T) {
	th := open(t)
	defer th.recovered()
	for _, c := range []struct{ tag, first, keys, key string }{
		{"de", "Deine erste Stunde in zehn Minuten", "Die Tasten der Leitung", "natürlicher Atem für alle, sofort"},
		{"es", "Tu primera clase en diez minutos", "Las teclas para guiar", "respiración natural para todos, enseguida"},
		{"fr", "Ton premier cours en dix minutes", "Les touches du guidage", "respiration naturelle pour tous, aussitôt"},
	} {
		page := th.opened(th.at+"/help", 1280, 800, th.spoken(c.tag))
		th.see(page, "h1", c.first)
		th.click(page, ".help nav a", c.keys)
		th.see(page, "td", c.key)
		th.until(page, fmt.Sprintf("document.querySelector('.help').lang === %q", c.tag))
	}
}
