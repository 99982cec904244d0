package e2e

import "testing"

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
