// Command load tells what many room screens cost. It starts the program, joins the screens, leads a class with
// adjustments and measures how long each takes to arrive everywhere; then it does the same with a server that only
// broadcasts the same bytes to as many connections.
package main

import (
	"bufio"
	"bytes"
	"errors"
	"flag"
	"fmt"
	"io"
	"log"
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
	presses := flag.Int("adjustments", 100, "how many adjustments are made")
	bare := flag.Bool("bare", false, "be the server that only broadcasts")
	flag.Parse()
	if *bare {
		log.Fatal(serveBare())
	}
	if err := run(*screens, *presses); err != nil {
		log.Fatal(err)
	}
}

func run(screens, presses int) error {
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
	class, err := begin(program)
	if err != nil {
		return err
	}
	ours := trial{
		name: "lantern", screens: screens, presses: presses, process: program.Process(),
		stream: program.URL + "/api/rooms/" + class.code + "/stream",
		press:  func(i int) error { return class.adjust(program, i) },
	}
	first, events, err := ours.run()
	if err != nil {
		return err
	}
	bare, err := startBare()
	if err != nil {
		return err
	}
	defer bare.kill()
	theirs := trial{
		name: "bare", screens: screens, presses: presses, process: bare.cmd.Process.Pid,
		stream: bare.url + "/stream",
		press:  func(i int) error { return bare.broadcast(events[i]) },
	}
	second, _, err := theirs.run()
	if err != nil {
		return err
	}
	fmt.Printf("%d screens, %d adjustments, %d kB each\n", screens, presses, len(events[0])/1000)
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

func begin(program *stage.Program) (class, error) {
	var plan contract.Plan
	if err := program.Post("/api/plans", `{"document": {"format": "vast-lantern-plan", "version": 1, "title": "An hour", "tempo": 60, "passages": [
		{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 110}]}}`, &plan); err != nil {
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
	body := fmt.Sprintf(`{"key": "load %d", "do": "rounds", "to": %d}`, i, 109+i%2)
	var done contract.Adjusted
	if err := program.Post(fmt.Sprintf("/api/classes/%d/adjustments", c.id), body, &done); err != nil {
		return err
	}
	if done.Answer.Refused != "" {
		return errors.New(done.Answer.Refused)
	}
	return nil
}

// trial is screens that look at a stream on which something is sent now and then.
type trial struct {
	name             string
	screens, presses int
	process          int
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
		response, err := client.Get(t.stream)
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
	cpu, began := processor(t.process), time.Now()
	for i := range t.presses {
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
	r.seconds, r.lasted = processor(t.process)-cpu, time.Since(began).Seconds()
	r.megabytes = mostMemory(t.process)
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

// processor is the seconds of processor that a process has taken, of Linux's /proc (proc(5)): fields 14 and 15, in
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

// mostMemory is the most that a process has held, in MB.
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
