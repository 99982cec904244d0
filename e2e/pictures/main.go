// Command pictures takes the pictures of docs/screenshots from the demo data, and the small ones that empty views show.
package main

import (
	"flag"
	"fmt"
	"log"
	"net/http"
	"os"
	"path/filepath"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/proto"

	"vastlantern/e2e/stage"
	"vastlantern/studio/contract"
)

const patience = 60 * time.Second

func main() {
	folder := flag.String("to", "docs/screenshots", "the folder of the pictures")
	small := flag.String("small", "ui/src/frame/filled", "the folder of those that empty views show")
	flag.Parse()
	if err := run(*folder, *small); err != nil {
		log.Fatal(err)
	}
}

func run(folder, small string) error {
	for _, f := range []string{folder, small} {
		if err := os.MkdirAll(f, 0o755); err != nil {
			return err
		}
	}
	data, err := os.MkdirTemp("", "pictures")
	if err != nil {
		return err
	}
	defer os.RemoveAll(data)
	program, err := stage.Start("demo", "--data", filepath.Join(data, "demo.db"), "--port", "0")
	if err != nil {
		return err
	}
	defer program.Kill()
	browser, err := stage.Open()
	if err != nil {
		return err
	}
	defer browser.Close()
	p := photographer{program, browser, folder, small}

	if err := program.ReadCare(); err != nil {
		return err
	}
	if err := program.Post("/api/practices/copy", `{"id": "counted-breath", "name": "Three steps and a rest"}`,
		&contract.PracticeFile{}); err != nil {
		return err
	}
	var code contract.RoomCode
	if err := program.Get("/api/room", &code); err != nil {
		return err
	}
	var today contract.Today
	if err := program.Get("/api/today", &today); err != nil {
		return err
	}
	var evening contract.PlanCard
	for _, plan := range today.Plans {
		if plan.Group.Level == "experienced" {
			evening = plan
		}
	}
	var record, latest contract.ClassCard
	for _, class := range today.Taught {
		if class.Group.Level == "experienced" && latest.ID == 0 {
			latest = class // after which something went home
		}
		if class.Group.Level == "experienced" && class.Eased {
			record = class // the first of the two that were eased, with the most to see
		}
	}
	rehearsed, err := p.rehearse()
	if err != nil {
		return fmt.Errorf("rehearsal: %w", err)
	}
	views := []struct {
		name, path, ready string
		width, height     int
	}{
		{"today", "/", "How was it\\?[^]*The coming week", 1280, 800},
		{"plan", fmt.Sprintf("/plan/%d", evening.ID), "Saved", 1280, 800},
		{"practices", "/practices/sun-salutation", "Worauf zu achten ist", 1280, 800},
		{"voice", "/voices/1", "through the mouth", 1280, 800},
		{"card", fmt.Sprintf("/plan/%d/card", evening.ID), "end", 1280, 1250},
		{"groups", fmt.Sprintf("/groups/%d", evening.Group.ID), "Next time[^]*Never taught", 1280, 1500},
		{"school", "/school", "Your own words", 1280, 800},
		{"taught", "/taught", "Aldersee", 1280, 800},
		{"programme", "/programmes/1", "it waits at step", 1280, 800},
		{"review", fmt.Sprintf("/rehearse/%d", rehearsed), "practise next", 1280, 1250},
		{"room-waiting", "/room/" + code.Code, "Soon[^]*today", 1280, 800},
		{"home", fmt.Sprintf("/taught/%d/home", latest.ID), "half of it in the evening", 1280, 800},
		{"record", fmt.Sprintf("/taught/%d", record.ID), "adjustments", 1280, 800},
	}
	for _, v := range views {
		if err := p.take(v.name, v.path, v.ready, v.width, v.height); err != nil {
			return fmt.Errorf("%s: %w", v.name, err)
		}
	}
	for _, v := range []struct{ name, path, ready string }{
		{"groups", fmt.Sprintf("/groups/%d", evening.Group.ID), "Next time[^]*Never taught"},
		{"taught", "/taught", "Aldersee"}, {"plan", fmt.Sprintf("/plan/%d", evening.ID), "Saved"},
	} {
		if err := p.takeSmall(v.name, v.path, v.ready); err != nil {
			return fmt.Errorf("%s, small: %w", v.name, err)
		}
	}
	return p.lead(evening)
}

// rehearse takes the picture of a rehearsal in which somebody gasps, and gives the number of one of the demo's that is
// over.
func (p photographer) rehearse() (over int64, err error) {
	var all contract.Rehearsals
	if err := p.program.Get("/api/rehearsals", &all); err != nil {
		return 0, err
	}
	for _, one := range all.Done {
		if one.Scenario == "gasp" {
			over = one.ID
			break
		}
	}
	var room contract.Rehearsing
	if err := p.program.Post("/api/rehearsals", `{"scenario": "gasp", "level": 2}`, &room); err != nil {
		return 0, err
	}
	page, err := p.browser.Page(fmt.Sprintf("%s/rehearse/%d/lead", p.program.URL, room.ID), 1280, 800, patience)
	if err != nil {
		return 0, err
	}
	defer page.Close()
	begin, err := page.ElementR("button", "Begin")
	if err != nil {
		return 0, err
	}
	if err := begin.Click(proto.InputMouseButtonLeft, 1); err != nil {
		return 0, err
	}
	if _, err := page.ElementR(".people li", "mouth open"); err != nil {
		return 0, err
	}
	picture, err := page.Screenshot(false, nil)
	if err != nil {
		return 0, err
	}
	return over, os.WriteFile(filepath.Join(p.folder, "rehearsal.png"), picture, 0o644)
}

// takeSmall takes the picture that an empty view shows of itself filled.
func (p photographer) takeSmall(name, path, ready string) error {
	page, err := p.browser.Page(p.program.URL+path, 1280, 800, patience)
	if err != nil {
		return err
	}
	defer page.Close()
	if err := (proto.EmulationSetDeviceMetricsOverride{Width: 1280, Height: 800,
		DeviceScaleFactor: 0.5}).Call(page); err != nil {
		return err
	}
	if _, err := page.ElementR("body", ready); err != nil {
		return err
	}
	quality := 72
	picture, err := page.Screenshot(
		false,
		&proto.PageCaptureScreenshot{Format: proto.PageCaptureScreenshotFormatWebp, Quality: &quality},
	)
	if err != nil {
		return err
	}
	return os.WriteFile(filepath.Join(p.small, name+".webp"), picture, 0o644)
}

type photographer struct {
	program *stage.Program
	browser *stage.Browser
	folder  string
	small   string
}

// take waits for the text, then takes the picture.
// inGerman is the view that shows the screens in another language.
const inGerman = "practices"

func (p photographer) take(name, path, ready string, width, height int) error {
	var cookies []*http.Cookie
	if name == inGerman {
		cookies = append(cookies, &http.Cookie{Name: "language", Value: "de", Path: "/"})
	}
	page, err := p.browser.Page(p.program.URL+path, width, height, patience, cookies...)
	if err != nil {
		return err
	}
	defer page.Close()
	if _, err := page.ElementR("body", ready); err != nil {
		return err
	}
	drawn := rod.Eval(
		`() => !document.body.innerText.includes("Drawing …") && [...document.querySelectorAll(".plot")].every((plot) => ` +
			`plot.querySelector("svg circle"))`,
	)
	if err := page.Wait(drawn); err != nil {
		return err
	}
	return p.save(page, name)
}

func (p photographer) save(page *rod.Page, name string) error {
	if _, err := page.Eval(`() => document.fonts.ready.then(() => true)`); err != nil {
		return err
	}
	picture, err := page.Screenshot(false, nil)
	if err != nil {
		return err
	}
	return os.WriteFile(filepath.Join(p.folder, name+".png"), picture, 0o644)
}

// lead leads the class to its alternate nostril breath, and takes the lead screen in it, large and on a phone.
func (p photographer) lead(plan contract.PlanCard) error {
	var score contract.Score
	if err := p.program.Lead(plan.ID, &score); err != nil {
		return err
	}
	for i := range 3 {
		var adjusted contract.Adjusted
		body := fmt.Sprintf(`{"key": "to the practice %d", "do": "next"}`, i)
		if err := p.program.Post(fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID), body, &adjusted); err != nil {
			return err
		}
	}
	for _, v := range []struct {
		name, phase   string
		width, height int
	}{{"lead", `exhale\s*right`, 1280, 800}, {"lead-phone", `exhale\s*left`, 390, 844}} {
		page, err := p.browser.Page(fmt.Sprintf("%s/lead/%d", p.program.URL, score.ClassID), v.width, v.height, patience)
		if err != nil {
			return err
		}
		if _, err := page.ElementR(`[data-testid="word"]`, v.phase); err != nil {
			return err
		}
		if _, err := page.ElementR(`[data-testid="count"]`, "3"); err != nil {
			return err
		}
		if err := p.save(page, v.name); err != nil {
			return err
		}
		page.Close()
	}
	return p.room()
}

// room is what everybody sees of the class that is led.
func (p photographer) room() error {
	var code contract.RoomCode
	if err := p.program.Get("/api/room", &code); err != nil {
		return err
	}
	for _, v := range []struct {
		name, phase   string
		width, height int
	}{{"room", "hold", 1280, 800}, {"room-phone", `exhale\s*right`, 390, 844}, {"room-large", `inhale\s*left`, 1920,
		1080}} {
		page, err := p.browser.Page(p.program.URL+"/room/"+code.Code, v.width, v.height, patience)
		if err != nil {
			return err
		}
		if _, err := page.ElementR(`[data-testid="word"]`, v.phase); err != nil {
			return err
		}
		if _, err := page.ElementR(`[data-testid="count"]`, "2"); err != nil {
			return err
		}
		if err := p.save(page, v.name); err != nil {
			return err
		}
		page.Close()
	}
	return nil
}
