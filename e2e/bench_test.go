package e2e

import (
	"bytes"
	"fmt"
	"os/exec"
	"slices"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/stretchr/testify/require"

	"vastlantern/e2e/stage"
	"vastlantern/studio/contract"
)

// BenchmarkSheetProcess runs lantern sheet as a whole process, on a class of 5,400 counts and on one of a tenth of it.
func BenchmarkSheetProcess(b *testing.B) {
	binary, err := stage.Binary()
	require.NoError(b, err)
	for _, rounds := range []int{36, 360} {
		plan := fmt.Sprintf(`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [
			{"type": "practice", "practice": "counted-breath", "counts": "4:4:4:3", "rounds": %d, "lead_in": 0}]}`, rounds)
		b.Run(fmt.Sprintf("%d-counts", rounds*15), func(b *testing.B) {
			for b.Loop() {
				cmd := exec.Command(binary, "sheet", "-")
				cmd.Stdin = bytes.NewBufferString(plan)
				out, err := cmd.Output()
				if err != nil || len(out) == 0 {
					b.Fatal(err)
				}
			}
		})
	}
}

// BenchmarkAPressIsDrawn is from a key of the lead screen to the first frame that shows what it did, in a class of an
// hour: on the screen's own copy of the class, on it while no press arrives, and asking the program, as a page without
// the core does. The answer of the page is the median of 40 presses.
func BenchmarkAPressIsDrawn(b *testing.B) {
	program, browser, end, err := stage.OnFreshData()
	require.NoError(b, err)
	defer end()
	var plan contract.Plan
	require.NoError(b, program.Post("/api/plans", `{"document": {"format": "vast-lantern-plan", "version": 1, "tempo": 60,
		"passages": [{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 110}]}}`, &plan))
	var score contract.Score
	require.NoError(b, program.Lead(plan.ID, &score))
	for _, way := range []struct{ name, before, ready string }{
		{"own-copy", "", `document.querySelector(".leading")?.dataset.alone === "true"`},
		{"own-copy-apart", `const real = fetch; window.fetch = (path, init) => String(path).endsWith("/presses")
			? Promise.reject(new TypeError("down")) : real(path, init);`,
			`document.querySelector(".leading")?.dataset.alone === "true"`},
		{"program", "delete window.Worker;", `document.querySelector(".stage")`},
	} {
		b.Run(way.name, func(b *testing.B) {
			page, err := browser.Page("about:blank", 1280, 800, time.Minute)
			require.NoError(b, err)
			defer page.Close()
			_, err = page.EvalOnNewDocument(way.before)
			require.NoError(b, err)
			require.NoError(b, page.Navigate(fmt.Sprintf("%s/lead/%d", program.URL, score.ClassID)))
			require.NoError(b, page.Wait(rod.Eval("() => Boolean("+way.ready+")")))
			var drawn float64
			for b.Loop() {
				took, err := page.Eval(`async () => {
					const took = [];
					for (let i = 0; i < 40; i++) {
						const before = document.querySelector(".stage").dataset.revision;
						const began = performance.now();
						const key = i % 2 ? "w" : "q";
						window.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true }));
						do await new Promise(requestAnimationFrame);
						while (document.querySelector(".stage").dataset.revision === before);
						took.push(performance.now() - began);
						await new Promise((later) => setTimeout(later, 150));
					}
					return took.sort((a, b) => a - b)[20];
				}`)
				require.NoError(b, err)
				drawn = took.Value.Num()
			}
			b.ReportMetric(drawn, "ms/press")
		})
	}
}

// BenchmarkTheCoreOfAnHour is the memory that the compiled core takes for a class of an hour with a hundred presses,
// and how long it takes to open that class, in Node.
func BenchmarkTheCoreOfAnHour(b *testing.B) {
	const hour = `{"format": "vast-lantern-plan", "version": 1, "tempo": 60,
		"passages": [{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 110}]}`
	var opened time.Duration
	var memory float64
	for b.Loop() {
		c := startCore(b)
		began := time.Now()
		c.ask(contract.CoreQuestion{Ask: contract.AskOpen, Kit: &contract.Kit{ClassID: 1, Document: hour}})
		opened = time.Since(began)
		for i := range int64(100) {
			press := contract.Adjust{Key: fmt.Sprint(i), Do: "tempo", To: 60 + float64(i%10)}
			c.ask(contract.CoreQuestion{Ask: contract.AskPress, AtMS: i * 1000, Presses: []contract.Adjust{press}})
			c.ask(contract.CoreQuestion{Ask: contract.AskScore, AtMS: i * 1000})
		}
		memory = c.memory()
	}
	b.ReportMetric(memory/1e6, "MB")
	b.ReportMetric(float64(opened.Milliseconds()), "ms/open")
}

// BenchmarkALeadPageIsUsable is from the opening of a lead page to the first word on it, with the core, which is loaded
// afterwards, and without. The answer is the median of nine pages.
func BenchmarkALeadPageIsUsable(b *testing.B) {
	program, browser, end, err := stage.OnFreshData()
	require.NoError(b, err)
	defer end()
	var plan contract.Plan
	require.NoError(b, program.Post("/api/plans", `{"document": {"format": "vast-lantern-plan", "version": 1, "tempo": 60,
		"passages": [{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 110}]}}`, &plan))
	var score contract.Score
	require.NoError(b, program.Lead(plan.ID, &score))
	for _, way := range []struct{ name, before string }{{"core", ""}, {"without", "delete window.Worker;"}} {
		b.Run(way.name, func(b *testing.B) {
			var took []float64
			for b.Loop() {
				took = took[:0]
				for range 9 {
					page, err := browser.Page("about:blank", 1280, 800, time.Minute)
					require.NoError(b, err)
					_, err = page.EvalOnNewDocument(way.before + `
						new MutationObserver((_, all) => {
							if (!document.querySelector('[data-testid="word"]')) return;
							window.usable = performance.now();
							all.disconnect();
						}).observe(document, { childList: true, subtree: true });`)
					require.NoError(b, err)
					require.NoError(b, page.Navigate(fmt.Sprintf("%s/lead/%d", program.URL, score.ClassID)))
					require.NoError(b, page.Wait(rod.Eval("() => window.usable > 0")))
					usable, err := page.Eval("() => window.usable")
					require.NoError(b, err)
					took = append(took, usable.Value.Num())
					require.NoError(b, page.Close())
				}
				slices.Sort(took)
			}
			b.ReportMetric(took[len(took)/2], "ms/page")
		})
	}
}
