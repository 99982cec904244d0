// Package stage starts the built program and headless Chromium, for tests and pictures of the real interface.
package stage

import (
	"bufio"
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"runtime"
	"strings"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/launcher"
	"github.com/go-rod/rod/lib/launcher/flags"
	"github.com/go-rod/rod/lib/proto"
	"github.com/go-rod/rod/lib/utils"

	"vastlantern/studio/contract"
	"vastlantern/web/certificates"
)

// Program is a running lantern.
type Program struct {
	URL     string
	Cookies []*http.Cookie
	cmd     *exec.Cmd
}

// Binary returns the program that make build has built.
func Binary() (string, error) {
	_, file, _, _ := runtime.Caller(0)
	path := filepath.Join(filepath.Dir(file), "..", "..", "bin", "lantern")
	if _, err := os.Stat(path); err != nil {
		return "", errors.New("bin/lantern is not there: run make build first")
	}
	return path, nil
}

var printedAddress = regexp.MustCompile(`https?://\S+`)

// Start starts the program with the arguments and waits for the address that it prints.
func Start(args ...string) (*Program, error) {
	path, err := Binary()
	if err != nil {
		return nil, err
	}
	cmd := exec.Command(path, args...)
	cmd.Stderr = os.Stderr
	EndWithParent(cmd)
	out, err := cmd.StdoutPipe()
	if err != nil {
		return nil, err
	}
	if err := cmd.Start(); err != nil {
		return nil, err
	}
	p := &Program{cmd: cmd}
	lines := bufio.NewScanner(out)
	for lines.Scan() {
		switch address := printedAddress.FindString(lines.Text()); {
		case address != "" && p.URL == "":
			p.URL = address
		case strings.HasPrefix(lines.Text(), "Ctrl-C"): // the last line
			return p, nil
		}
	}
	return nil, fmt.Errorf("the program ended without an address: %w", cmd.Wait())
}

// SetPasscode sets the passcode of a data file, as the program's own command does.
func SetPasscode(data, passcode string) error {
	path, err := Binary()
	if err != nil {
		return err
	}
	cmd := exec.Command(path, "passcode", "--data", data)
	cmd.Stdin = strings.NewReader(passcode + "\n")
	return cmd.Run()
}

// Kill ends the program as a crash would: at once, with nothing put in order.
func (p *Program) Kill() {
	if p.cmd.ProcessState == nil {
		p.cmd.Process.Kill()
		p.cmd.Wait()
	}
}

// Named returns the program's address under Name: what another machine would open, but on the loopback interface.
func (p *Program) Named() string {
	return "http://" + Name + p.URL[strings.LastIndex(p.URL, ":"):]
}

// Process returns its number.
func (p *Program) Process() int { return p.cmd.Process.Pid }

// SignIn signs in with the passcode, for every request that follows and for the pages of a browser that get Cookies.
func (p *Program) SignIn(passcode, device string) error {
	body, err := json.Marshal(contract.SignIn{Passcode: passcode, Device: device})
	if err != nil {
		return err
	}
	response, err := http.Post(p.URL+"/api/session", "application/json", bytes.NewReader(body))
	if err == nil {
		p.Cookies = response.Cookies()
	}
	return decode(response, err, &contract.Session{})
}

// Get reads JSON from the program.
func (p *Program) Get(path string, out any) error { return p.call(http.MethodGet, path, "", out) }

// Post sends JSON to the program and reads the answer.
func (p *Program) Post(path, body string, out any) error {
	return p.call(http.MethodPost, path, body, out)
}

// Put sends JSON to the program in the place of what was there, and reads the answer.
func (p *Program) Put(path, body string, out any) error {
	return p.call(http.MethodPut, path, body, out)
}

func (p *Program) call(method, path, body string, out any) error {
	request, err := http.NewRequest(method, p.URL+path, strings.NewReader(body))
	if err != nil {
		return err
	}
	if body != "" {
		request.Header.Set("Content-Type", "application/json")
	}
	for _, cookie := range p.Cookies {
		request.AddCookie(cookie)
	}
	response, err := http.DefaultClient.Do(request)
	return decode(response, err, out)
}

// ReadCare says that the caution for everyone was read, which else is before every view at the first start.
func (p *Program) ReadCare() error {
	return p.ChangeSettings(func(s *contract.Settings) { s.CareRead = true })
}

// ChangeSettings changes what the teacher has chosen, as another screen would.
func (p *Program) ChangeSettings(change func(*contract.Settings)) error {
	var settings contract.Settings
	if err := p.Get("/api/settings", &settings); err != nil {
		return err
	}
	change(&settings)
	body, err := json.Marshal(settings)
	if err != nil {
		return err
	}
	return p.Put("/api/settings", string(body), &settings)
}

// Lead begins a class from the plan, with its cautions read.
func (p *Program) Lead(plan int64, score *contract.Score) error {
	var stored contract.Plan
	if err := p.Get(fmt.Sprintf("/api/plans/%d", plan), &stored); err != nil {
		return err
	}
	body, err := json.Marshal(contract.Lead{PlanID: plan, EndRunning: true, Acknowledged: contract.StrongCautions(stored)})
	if err != nil {
		return err
	}
	return p.Post("/api/classes", string(body), score)
}

func decode(response *http.Response, err error, out any) error {
	if err != nil {
		return err
	}
	defer response.Body.Close()
	if response.StatusCode != http.StatusOK {
		return fmt.Errorf("status %d", response.StatusCode)
	}
	return json.NewDecoder(response.Body).Decode(out)
}

// Browser is headless Chromium with a profile of its own.
type Browser struct {
	*rod.Browser
	launched *launcher.Launcher
}

// Name is a host name that the program answers to when it is open to the network. Every browser of the stage finds it
// on the loopback interface, so a page opened under it is plain http from elsewhere to the browser, which then gives it
// no secure context, while nothing leaves this machine.
const Name = certificates.Name

// Open starts Chromium, with flags besides, each NAME or NAME=VALUE. It is the one that Debian builds without windows:
// each context of the other one opens a window that nobody sees, and takes twice the time.
func Open(more ...string) (*Browser, error) {
	l := launcher.New().Bin("/usr/bin/chromium-headless-shell").NoSandbox(true).Leakless(true)
	for _, flag := range []flags.Flag{
		"disable-gpu", "disable-quic", "no-first-run", "disable-background-networking", "disable-component-update",
		"disable-sync", "disable-dev-shm-usage",
		"use-fake-ui-for-media-stream", "use-fake-device-for-media-stream", // a microphone that beeps once a second
	} {
		l.Set(flag)
	}
	l.Set("window-size", "1280,800")
	l.Set("host-resolver-rules", "MAP "+Name+" 127.0.0.1")
	for _, flag := range more {
		name, value, _ := strings.Cut(flag, "=")
		l.Set(flags.Flag(name), value)
	}
	control, err := l.Launch()
	if err != nil {
		return nil, err
	}
	b := rod.New().ControlURL(control)
	if err := b.Connect(); err != nil {
		l.Kill()
		return nil, err
	}
	return &Browser{b, l}, nil
}

// Kill ends Chromium at once, as a crash does, and leaves its profile.
func (b *Browser) Kill() { b.launched.Kill() }

// Close ends Chromium and removes its profile.
func (b *Browser) Close() {
	b.Browser.Close()
	b.launched.Kill()
	b.launched.Cleanup()
}

// Page opens an address in a window of the size, with a context of its own: of two tabs of one context the one
// behind gets no frames.
func (b *Browser) Page(
	url string,
	width, height int,
	patience time.Duration,
	cookies ...*http.Cookie,
) (*rod.Page, error) {
	context, err := b.Incognito()
	if err != nil {
		return nil, err
	}
	return Tab(context, url, width, height, patience, cookies...)
}

// pollInterval looks again after 50 to 130 ms. Rod's own rhythm ends at a look a second, which beats with a class of
// two counts at 60: what is there for half of each second would never be seen.
func pollInterval() utils.Sleeper {
	return utils.BackoffSleeper(50*time.Millisecond, 130*time.Millisecond, nil)
}

// Tab opens an address in a context of a browser: several tabs of one context share what a browser shares. The page can
// be used for as long as patience, or without a limit where patience is 0 and the caller bounds each wait.
func Tab(
	context *rod.Browser,
	url string,
	width, height int,
	patience time.Duration,
	cookies ...*http.Cookie,
) (*rod.Page, error) {
	page, err := Blank(context, url, width, height, patience, cookies...)
	if err != nil {
		return nil, err
	}
	return page, page.Navigate(url)
}

// Blank is a Tab that has not opened its address yet.
func Blank(
	context *rod.Browser,
	url string,
	width, height int,
	patience time.Duration,
	cookies ...*http.Cookie,
) (*rod.Page, error) {
	page, err := context.Page(proto.TargetCreateTarget{URL: "about:blank"})
	if err != nil {
		return nil, err
	}
	page = page.Sleeper(pollInterval)
	if patience > 0 {
		page = page.Timeout(patience)
	}
	for _, cookie := range cookies {
		if err := page.SetCookies([]*proto.NetworkCookieParam{{Name: cookie.Name, Value: cookie.Value, URL: url,
			Path: cookie.Path, HTTPOnly: cookie.HttpOnly}}); err != nil {
			return nil, err
		}
	}
	// dates and times follow the region
	if err := (proto.EmulationSetLocaleOverride{Locale: "en-GB"}).Call(page); err != nil {
		return nil, err
	}
	return page, page.SetViewport(
		&proto.EmulationSetDeviceMetricsOverride{Width: width, Height: height, DeviceScaleFactor: 1, Mobile: width < 760},
	)
}

// OnFreshData serves an empty data file in a folder of its own, with the caution for everyone read, and opens a
// browser. end stops both and removes the folder.
func OnFreshData(args ...string) (program *Program, browser *Browser, end func(), err error) {
	data, err := os.MkdirTemp("", "stage")
	if err != nil {
		return nil, nil, nil, err
	}
	end = func() {
		if browser != nil {
			browser.Close()
		}
		if program != nil {
			program.Kill()
		}
		_ = os.RemoveAll(data) // what is left of it is in the folder for what nobody keeps
	}
	program, err = Start(append([]string{"serve", "--data", filepath.Join(data, "lantern.db"), "--port", "0"}, args...)...)
	if err == nil {
		err = program.ReadCare()
	}
	if err == nil {
		browser, err = Open()
	}
	if err != nil {
		end()
		return nil, nil, nil, err
	}
	return program, browser, end, nil
}
