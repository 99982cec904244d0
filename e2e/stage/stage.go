// Package stage starts the built program and headless Chromium, for tests and pictures of the real interface.
package stage

import (
	"bufio"
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

	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// Program is a running lantern.
type Program struct {
	URL string
	cmd *exec.Cmd
}

// Binary is the program that make build has built.
func Binary() (string, error) {
	_, file, _, _ := runtime.Caller(0)
	path := filepath.Join(filepath.Dir(file), "..", "..", "bin", "lantern")
	if _, err := os.Stat(path); err != nil {
		return "", errors.New("bin/lantern is not there: run make build first")
	}
	return path, nil
}

var printedAddress = regexp.MustCompile(`http://\S+`)

// Start starts the program with the arguments and waits for the address that it prints.
func Start(args ...string) (*Program, error) {
	path, err := Binary()
	if err != nil {
		return nil, err
	}
	cmd := exec.Command(path, args...)
	cmd.Stderr = os.Stderr
	out, err := cmd.StdoutPipe()
	if err != nil {
		return nil, err
	}
	if err := cmd.Start(); err != nil {
		return nil, err
	}
	lines := bufio.NewScanner(out)
	for lines.Scan() {
		if address := printedAddress.FindString(lines.Text()); address != "" {
			return &Program{address, cmd}, nil
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

// Process is its number.
func (p *Program) Process() int { return p.cmd.Process.Pid }

// Get reads JSON from the program.
func (p *Program) Get(path string, out any) error {
	response, err := http.Get(p.URL + path)
	return decode(response, err, out)
}

// Post sends JSON to the program and reads the answer.
func (p *Program) Post(path, body string, out any) error {
	response, err := http.Post(p.URL+path, "application/json", strings.NewReader(body))
	return decode(response, err, out)
}

// Put sends JSON to the program in the place of what was there, and reads the answer.
func (p *Program) Put(path, body string, out any) error {
	request, err := http.NewRequest(http.MethodPut, p.URL+path, strings.NewReader(body))
	if err != nil {
		return err
	}
	request.Header.Set("Content-Type", "application/json")
	response, err := http.DefaultClient.Do(request)
	return decode(response, err, out)
}

// ReadCare says that the caution for everyone was read, which else stands before every view at the first start.
func (p *Program) ReadCare() error {
	var settings contract.Settings
	return p.Put("/api/settings", `{"schools": {}, "language": "en", "own_words": {}, "care_read": true}`, &settings)
}

// Lead begins a class from the plan, with its cautions read.
func (p *Program) Lead(plan int64, score *contract.Score) error {
	var stored contract.Plan
	if err := p.Get(fmt.Sprintf("/api/plans/%d", plan), &stored); err != nil {
		return err
	}
	body, err := json.Marshal(contract.Lead{PlanID: plan, EndRunning: true, Acknowledged: studio.StrongCautions(stored)})
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

// Open starts Chromium. Patience is how long every wait of its pages may take.
func Open() (*Browser, error) {
	l := launcher.New().Bin("/usr/bin/chromium").NoSandbox(true).Leakless(true)
	for _, flag := range []flags.Flag{
		"disable-gpu", "disable-quic", "no-first-run", "disable-background-networking", "disable-component-update", "disable-sync", "disable-dev-shm-usage",
	} {
		l.Set(flag)
	}
	l.Set("window-size", "1280,800")
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

// Close ends Chromium and removes its profile.
func (b *Browser) Close() {
	b.Browser.Close()
	b.launched.Kill()
	b.launched.Cleanup()
}

// Page opens an address in a window of the size, with a context of its own: of two tabs of one context the one
// behind gets no frames.
func (b *Browser) Page(url string, width, height int, patience time.Duration) (*rod.Page, error) {
	context, err := b.Incognito()
	if err != nil {
		return nil, err
	}
	page, err := context.Page(proto.TargetCreateTarget{URL: "about:blank"})
	if err != nil {
		return nil, err
	}
	page = page.Timeout(patience)
	err = page.SetViewport(&proto.EmulationSetDeviceMetricsOverride{Width: width, Height: height, DeviceScaleFactor: 1, Mobile: width < 760})
	if err != nil {
		return nil, err
	}
	return page, page.Navigate(url)
}
