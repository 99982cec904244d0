// Command load reports what many room screens cost. It starts the program, joins the screens, leads a class with
// adjustments and measures how long each takes to arrive everywhere; then it does the same with a server that only
// broadcasts a message of 3 kB to as many connections.
package main

import (
	"bufio"
	"bytes"
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"io"
	"log"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"vastlantern/e2e/stage"
	"vastlantern/studio/contract"
)

func main() {
	screens := flag.Int("screens", 500, "how many room screens join")
	presses := flag.Int("adjustments", 200, "how many adjustments are made")
	proxy := flag.Bool(
		"proxy",
		false,
		"in the place of the bare server, the program behind nginx, which tells the screens",
	)
	hand := flag.Bool("hand", false, "lead by hand instead: go on every two seconds for two minutes")
	bare := flag.Bool("bare", false, "be the server that only broadcasts")
	flag.Parse()
	if *bare {
		log.Fatal(serveBare())
	}
	if *hand {
		if err := byHand(*screens); err != nil {
			log.Fatal(err)
		}
		return
	}
	compare := besideBare
	if *proxy {
		compare = besideProxy
	}
	if err := compare(*screens, *presses); err != nil {
		log.Fatal(err)
	}
}

// aimed is how long an adjustment is to be at most, in bytes.
const aimed = 3000

// The pace of leading by hand that is measured: a phase every two seconds for two minutes.
const (
	everyPhase = 2 * time.Second
	phases     = 60
)

// byHand measures a class that is led by hand: each press ends a phase, and its word is wanted at once on all screens.
func byHand(screens int) error {
	data, err := os.MkdirTemp("", "load")
	if err != nil {
		return err
	}
	defer os.RemoveAll(data)
	program, err := stage.Start("serve", "--data", filepath.Join(data, "lantern.db"), "--port", "0")
	if err != nil {
		return err
	}
	defer program.Kill()
	class, err := begin(program, `, "by_hand": "all"`)
	if err != nil {
		return err
	}
	measured, _, err := trial{
		name: "by hand", screens: screens, presses: phases, every: everyPhase, processes: []int{program.Process()},
		stream: program.URL + "/api/rooms/" + class.code + "/stream",
		press:  func(i int) error { return class.press(program, i, `"do": "advance"`) },
	}.run()
	if err != nil {
		return err
	}
	fmt.Printf("%d screens, %d phases by hand, one every %v\n", screens, phases, everyPhase)
	measured.tell()
	return nil
}

// alone returns the program with screens that listen to it.
func alone(screens, presses int) (result, [][]byte, error) {
	data, err := os.MkdirTemp("", "load")
	if err != nil {
		return result{}, nil, err
	}
	defer os.RemoveAll(data)
	program, err := stage.Start("serve", "--data", filepath.Join(data, "lantern.db"), "--port", "0")
	if err != nil {
		return result{}, nil, err
	}
	defer program.Kill()
	class, err := begin(program, "")
	if err != nil {
		return result{}, nil, err
	}
	return trial{
		name: "lantern", screens: screens, presses: presses, processes: []int{program.Process()},
		stream: program.URL + "/api/rooms/" + class.code + "/stream",
		press:  func(i int) error { return class.adjust(program, i) },
	}.run()
}

// besideProxy compares it with the program behind nginx, which tells the screens what the program tells it once.
func besideProxy(screens, presses int) error {
	first, _, err := alone(screens, presses)
	if err != nil {
		return err
	}
	data, err := os.MkdirTemp("", "load")
	if err != nil {
		return err
	}
	defer os.RemoveAll(data)
	address, err := stage.FreeAddress()
	if err != nil {
		return err
	}
	proxy, err := stage.NewProxy(data, address)
	if err != nil {
		return err
	}
	_, port, _ := net.SplitHostPort(address)
	program, err := stage.Start(
		"serve",
		"--data",
		filepath.Join(data, "lantern.db"),
		"--port",
		port,
		"--publish-to",
		proxy.Publish,
	)
	if err != nil {
		return err
	}
	defer program.Kill()
	if err := proxy.Start(); err != nil {
		return err
	}
	defer proxy.Stop()
	class, err := begin(program, "")
	if err != nil {
		return err
	}
	second, _, err := trial{
		name: "proxy", screens: screens, presses: presses, processes: append(proxy.Processes(), program.Process()),
		stream: proxy.URL + "/api/rooms/" + class.code + "/stream",
		press:  func(i int) error { return class.adjust(program, i) },
	}.run()
	if err != nil {
		return err
	}
	fmt.Printf(
		"%d screens, %d changes of tempo in an hour's class; behind the proxy the program itself took at most %.0f MB\n",
		screens,
		presses,
		mostMemory(program.Process()),
	)
	first.tell()
	second.tell()
	fmt.Printf("p99 through the proxy is %.2f times that without\n", second.at(0.99)/first.at(0.99))
	return nil
}

// besideBare compares it with a server that only broadcasts.
func besideBare(screens, presses int) error {
	first, events, err := alone(screens, presses)
	if err != nil {
		return err
	}
	bare, err := startBare()
	if err != nil {
		return err
	}
	defer bare.kill()
	message := append(append([]byte("data: "), bytes.Repeat([]byte("a"), aimed)...), "\n\n"...)
	theirs := trial{
		name: "bare", screens: screens, presses: presses, processes: []int{bare.cmd.Process.Pid},
		stream: bare.url + "/stream",
		press:  func(int) error { return bare.broadcast(message) },
	}
	second, _, err := theirs.run()
	if err != nil {
		return err
	}
	bytes := 0
	for _, event := range events {
		bytes += len(event)
	}
	fmt.Printf(
		"%d screens, %d changes of tempo in an hour's class, %d bytes each, beside a message of %d\n",
		screens,
		presses,
		bytes/len(events),
		len(message),
	)
	first.tell()
	second.tell()
	fmt.Printf("p99 of lantern is %.2f times that of the bare server\n", first.at(0.99)/second.at(0.99))
	return nil
}

// class is a class of an hour that is led.
type class struct {
	id   int64
	code string
}

// begin starts a class of an hour; fields are more of its one passage.
func begin(program *stage.Program, fields string) (class, error) {
	var plan contract.Plan
	document := `{"document": {"format": "vast-lantern-plan", "version": 1, "title": "An hour", "tempo": 60, "passages": [
		{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "lead_in": 0, "rounds": 110` + fields + `}]}}`
	if err := program.Post("/api/plans", document, &plan); err != nil {
		return class{}, err
	}
	var score contract.Score
	if err := program.Lead(plan.ID, &score); err != nil {
		return class{}, err
	}
	var code contract.RoomCode
	err := program.Get("/api/room", &code)
	return class{score.ClassID, code.Code}, err
}

func (c class) adjust(program *stage.Program, i int) error {
	return c.press(program, i, fmt.Sprintf(`"do": "tempo", "to": %.1f`, 60+float64(i%20)/10))
}

// press makes an adjustment.
func (c class) press(program *stage.Program, i int, adjustment string) error {
	body := fmt.Sprintf(`{"key": "load %d", %s}`, i, adjustment)
	var done json.RawMessage // reading it would take the time in which the screens are told
	if err := program.Post(fmt.Sprintf("/api/classes/%d/adjustments", c.id), body, &done); err != nil {
		return err
	}
	if !bytes.Contains(done, []byte(`"refused":null`)) {
		return fmt.Errorf("adjustment %d was refused: %.200s", i, done)
	}
	return nil
}

// trial is screens that look at a stream on which something is sent now and then.
type trial struct {
	name             string
	screens, presses int
	every            time.Duration // from press to press; 0 for at once
	processes        []int
	stream           string
	press            func(i int) error
}

type result struct {
	name            string
	arrivals        []float64 // ms, of each adjustment at each screen
	megabytes       float64   // the most memory that the server took
	seconds, lasted float64   // of the processor, and of the clock
}

// arrival is an event that has come whole to one screen.
type arrival struct {
	at   time.Time
	data []byte // from the first screen only
}

func (t trial) run() (result, [][]byte, error) {
	arrivals := make(chan arrival, t.screens)
	failed := make(chan error, t.screens)
	client := &http.Client{Transport: &http.Transport{DisableCompression: true}}
	defer client.CloseIdleConnections()
	var streams []io.Closer
	defer func() {
		for _, s := range streams {
			s.Close()
		}
	}()
	for i := range t.screens {
		request, err := http.NewRequest(http.MethodGet, t.stream, nil)
		if err != nil {
			return result{}, nil, err
		}
		request.Header.Set("Accept", "text/event-stream") // as browsers say
		response, err := client.Do(request)
		if err != nil {
			return result{}, nil, err
		}
		streams = append(streams, response.Body)
		go func() { failed <- read(response.Body, arrivals, i == 0) }()
	}
	gather := func() ([]arrival, error) {
		list := make([]arrival, 0, t.screens)
		for len(list) < t.screens {
			select {
			case a := <-arrivals:
				list = append(list, a)
			case err := <-failed:
				return nil, fmt.Errorf("%s: a stream ended: %w", t.name, err)
			case <-time.After(20 * time.Second):
				return nil, fmt.Errorf("%s: %d of %d screens were told", t.name, len(list), t.screens)
			}
		}
		return list, nil
	}
	if _, err := gather(); err != nil { // what everybody gets who comes in
		return result{}, nil, err
	}
	r := result{name: t.name}
	var events [][]byte
	cpu, began := t.processor(), time.Now()
	for i := range t.presses {
		time.Sleep(time.Until(began.Add(time.Duration(i) * t.every)))
		pressed := time.Now()
		if err := t.press(i); err != nil {
			return result{}, nil, err
		}
		list, err := gather()
		if err != nil {
			return result{}, nil, err
		}
		for _, a := range list {
			r.arrivals = append(r.arrivals, float64(a.at.Sub(pressed).Microseconds())/1000)
			if a.data != nil {
				events = append(events, a.data)
			}
		}
	}
	slices.Sort(r.arrivals)
	r.seconds, r.lasted = t.processor()-cpu, time.Since(began).Seconds()
	r.megabytes = t.mostMemory()
	return r, events, nil
}

// read tells of each event of a stream when it has come whole, which an empty line says.
func read(stream io.Reader, arrivals chan<- arrival, keep bool) error {
	lines := bufio.NewReaderSize(stream, 1<<16)
	var event bytes.Buffer
	something := false
	for {
		line, err := lines.ReadSlice('\n')
		if err != nil && !errors.Is(err, bufio.ErrBufferFull) {
			return err
		}
		if keep {
			event.Write(line)
		}
		if len(line) > 1 {
			something = something || !bytes.HasPrefix(line, []byte(":"))
			continue
		}
		if something {
			a := arrival{at: time.Now()}
			if keep {
				a.data = bytes.Clone(event.Bytes())
			}
			arrivals <- a
		}
		something = false
		event.Reset()
	}
}

func (r result) at(share float64) float64 { return r.arrivals[int(share*float64(len(r.arrivals)-1))] }

func (r result) tell() {
	fmt.Printf("%-8s p50 %6.1f ms  p99 %6.1f ms  most %6.1f ms  memory %5.0f MB  processor %4.1f s of %4.1f s\n",
		r.name, r.at(0.5), r.at(0.99), r.at(1), r.megabytes, r.seconds, r.lasted)
}

// processor returns the seconds of processor that a process has taken, of Linux's /proc (proc(5)): fields 14 and 15, in
// hundredths.
func processor(process int) float64 {
	text, err := os.ReadFile(fmt.Sprintf("/proc/%d/stat", process))
	if err != nil {
		return 0
	}
	var user, system float64
	fields := strings.Fields(string(text[bytes.LastIndexByte(text, ')')+1:]))
	fmt.Sscan(fields[11], &user)
	fmt.Sscan(fields[12], &system)
	return (user + system) / 100
}

// mostMemory returns the most that a process has held, in MB.
func mostMemory(process int) float64 {
	text, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", process))
	if err != nil {
		return 0
	}
	var kilobytes float64
	_, after, _ := strings.Cut(string(text), "VmHWM:")
	fmt.Sscan(after, &kilobytes)
	return kilobytes / 1000
}

func (t *trial) processor() (seconds float64) {
	for _, process := range t.processes {
		seconds += processor(process)
	}
	return seconds
}

func (t *trial) mostMemory() (megabytes float64) {
	for _, process := range t.processes {
		megabytes += mostMemory(process)
	}
	return megabytes
}
