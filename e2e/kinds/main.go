// Command kinds leads every kind of class to its end, by the keyboard alone and by one pedal alone, and reports what
// the lead screen showed at the moment that is hardest to lead. It ends with an error where a class was not led to its
// end, a press was refused, or the moment never came.
package main

import (
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"log"
	"regexp"
	"strconv"
	"strings"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"

	"vastlantern/e2e/stage"
	"vastlantern/language"
	"vastlantern/studio/contract"
)

const rate = 8 // of the clock; faster, and a shared machine cannot draw every count

func main() {
	only := flag.String("only", "", "a pattern of the names of those that are led")
	flag.Parse()
	if err := run(regexp.MustCompile(*only)); err != nil {
		log.Fatal(err)
	}
}

func run(only *regexp.Regexp) error {
	program, browser, end, err := stage.OnFreshData("--clock-rate", strconv.Itoa(rate))
	if err != nil {
		return err
	}
	defer end()
	var failed []error
	for _, k := range stage.Kinds {
		if !only.MatchString(k.Name) {
			continue
		}
		fmt.Printf("%s\n", k.Name)
		for _, by := range []hand{keyboard, pedal} {
			if err := lead(program, browser, k, by); err != nil {
				err = fmt.Errorf("%s, by %s: %w", k.Name, by.name, err)
				fmt.Println("  ", err)
				failed = append(failed, err)
			}
		}
	}
	return errors.Join(failed...)
}

// hand is what a class is led with: keys to go on, and to give natural breath.
type hand struct {
	name      string
	on, pause []input.Key
	more      []input.Key // what is pressed besides, once
}

var (
	keyboard = hand{"the keyboard", []input.Key{input.KeyF}, []input.Key{input.Space}, []input.Key{input.KeyQ}}
	pedal    = hand{"one pedal", []input.Key{input.PageDown}, []input.Key{input.PageDown, input.PageDown}, nil}
)

// noting keeps everything that the lead screen shows, each once.
const noting = `() => {
	window.noted = [];
	const text = (selector) => [...document.querySelectorAll(selector)].map((e) => e.innerText.replace(/\s+/g, " ").trim()).filter(Boolean).join(" ");
	const look = () => {
		const shown = [".stage .word, .stage .where [data-testid=word]", ".stage .count", ".words.pattern", ".next", ".cues", ".words:not(.pattern)"].map(text).join(" ").replace(/\s+/g, " ");
		if (!window.noted.includes(shown)) window.noted.push(shown);
	};
	new MutationObserver(look).observe(document.querySelector(".leading"), { subtree: true, childList: true, characterData: true });
	look();
}`

func lead(program *stage.Program, browser *stage.Browser, k stage.Kind, by hand) error {
	text, err := json.Marshal(contract.PlanText{Text: k.File()})
	if err != nil {
		return err
	}
	var plan contract.Plan
	if err := program.Post("/api/plans/import", string(text), &plan); err != nil {
		return err
	}
	if len(plan.Summary.Errors) > 0 {
		return plan.Summary.Errors[0].Say
	}
	var score contract.Score
	if err := program.Lead(plan.ID, &score); err != nil {
		return err
	}
	page, err := browser.Page(fmt.Sprintf("%s/lead/%d", program.URL, score.ClassID), 1280, 800, 6*time.Minute)
	if err != nil {
		return err
	}
	defer page.Close()
	if _, err := page.ElementR(`[data-testid="word"]`, "."); err != nil {
		return err
	}
	if _, err := page.Eval(noting); err != nil {
		return err
	}
	if err := toItsEnd(program, page, score.ClassID, by); err != nil {
		return err
	}
	return tell(program, page, score.ClassID, k, by)
}

// toItsEnd goes on where the class waits, and lets everybody breathe naturally once on the way.
func toItsEnd(program *stage.Program, page *rod.Page, class int64, by hand) error {
	paused, more := false, by.more
	for {
		var score contract.Score
		if err := program.Get(fmt.Sprintf("/api/classes/%d/score", class), &score); err != nil {
			return err
		}
		var clock contract.Clock
		if err := program.Get("/api/clock", &clock); err != nil {
			return err
		}
		at := int64(clock.SentMS - score.StartedMS)
		if score.Wait == nil && at >= score.EndMS {
			return nil
		}
		here := score.Phases[0]
		for _, phase := range score.Phases {
			if phase.AtMS[0] <= at {
				here = phase
			}
		}
		var keys []input.Key
		switch {
		case here.EndMS < 0 && at > here.AtMS[0]+3000:
			keys = by.on
		case here.Stage == "round" && here.Round > 1 && len(more) > 0:
			keys, more = more, nil
		case (here.Stage == "own" || here.Stage == "round" && here.Round > 1) && !paused && here.EndMS > at+1500:
			keys, paused = by.pause, true
		}
		if len(keys) > 0 {
			if err := page.Keyboard.Type(keys...); err != nil {
				return err
			}
			time.Sleep(600 * time.Millisecond) // a press of a pedal is told from two after a while
		}
		time.Sleep(100 * time.Millisecond)
	}
}

func tell(program *stage.Program, page *rod.Page, class int64, k stage.Kind, by hand) error {
	if _, err := page.ElementR(".over", "The class has ended"); err != nil {
		return err
	}
	text, err := page.Eval(`() => JSON.stringify(window.noted)`)
	if err != nil {
		return err
	}
	var noted []string
	if err := json.Unmarshal([]byte(text.Value.Str()), &noted); err != nil {
		return err
	}
	var record contract.Record
	if err := program.Get(fmt.Sprintf("/api/classes/%d/record", class), &record); err != nil {
		return err
	}
	var pressed []string
	for _, mark := range record.Marks {
		if mark.Answer.Refused != nil {
			return fmt.Errorf("%s was refused: %s", mark.Answer.Do, language.English().Text(*mark.Answer.Refused))
		}
		pressed = append(pressed, string(mark.Answer.Do))
	}
	hardest := regexp.MustCompile(k.When)
	for _, shown := range noted {
		if hardest.MatchString(shown) {
			fmt.Printf("  by %s (%s), %s: %s\n", by.name, strings.Join(pressed, ", "), k.Hardest, shown)
			return nil
		}
	}
	return fmt.Errorf("%q was never shown, but\n    %s", k.When, strings.Join(noted, "\n    "))
}
