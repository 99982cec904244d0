package main

import (
	"bufio"
	"errors"
	"fmt"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"sync/atomic"
	"time"

	"vastlantern/e2e/stage"
	"vastlantern/studio/contract"
)

const rate = 100 // times the speed

// long leads a class at a hundred times the speed before many screens of the room. It is bent all the time; every
// screen is notified of every change, what was answered is in the record, and memory does not grow.
func long(folder string, screens int, length time.Duration) (string, error) {
	program, err := stage.Start(
		"serve",
		"--data",
		filepath.Join(folder, "long.db"),
		"--port",
		"0",
		"--clock-rate",
		fmt.Sprint(rate),
	)
	if err != nil {
		return "", err
	}
	defer program.Kill()
	const counts, tempo = 16, 60 // a round of two breaths 4:4
	rounds := int(length.Seconds()) * tempo / 60 / counts
	passages := []string{}
	for left := rounds; left > 0; left -= 900 {
		passages = append(
			passages,
			fmt.Sprintf(
				`{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4", "lead_in": 0, "rounds": %d}`,
				min(left, 900),
			),
		)
	}
	var plan contract.Plan
	if err := program.Post("/api/plans",
		fmt.Sprintf(`{"document": {"format": "vast-lantern-plan", "version": 1, "title": "Long", "tempo": %d, "passages": `+
			`[%s]}}`, tempo, strings.Join(passages, ",")), &plan); err != nil {
		return "", err
	}
	var score contract.Score
	if err := program.Lead(plan.ID, &score); err != nil {
		return "", err
	}
	var code contract.RoomCode
	if err := program.Get("/api/room", &code); err != nil {
		return "", err
	}
	room := &audience{}
	defer room.leave()
	if err := room.join(program.URL+"/api/rooms/"+code.Code+"/stream", screens); err != nil {
		return "", err
	}
	joined := memory(program.Process())
	presses, began := 0, time.Now()
	for {
		var done contract.Adjusted
		tempo := 58 + presses%4
		err := program.Post(
			fmt.Sprintf("/api/classes/%d/adjustments", score.ClassID),
			fmt.Sprintf(`{"key": "p%d", "do": "tempo", "to": %d}`, presses, tempo),
			&done,
		)
		if err != nil {
			break // it is over
		}
		presses++
		if time.Since(began) > 10*length/rate {
			return "", errors.New("the class does not come to its end")
		}
		time.Sleep(3 * time.Second)
	}
	end := memory(program.Process())
	var record contract.Record
	if err := program.Get(fmt.Sprintf("/api/classes/%d/record", score.ClassID), &record); err != nil {
		return "", err
	}
	if len(record.Marks) != presses {
		return "", fmt.Errorf("%d presses were answered, and %d are in the record", presses, len(record.Marks))
	}
	if record.Totals.LeftInhales != record.Totals.RightInhales {
		return "", errors.New("left and right are not equal")
	}
	if err := room.told(presses, 30*time.Second); err != nil {
		return "", err
	}
	return fmt.Sprintf(
		"%d screens, a class of %s with %d adjustments; memory %.0f MB when all had joined, %.0f MB at the end",
		screens,
		time.Duration(record.TaughtMS)*time.Millisecond,
		presses,
		joined,
		end,
	), nil
}

// audience is screens of the room.
type audience struct {
	streams []*http.Response
	events  []atomic.Int64 // by screen
	reading sync.WaitGroup
}

func (a *audience) join(address string, screens int) error {
	a.events = make([]atomic.Int64, screens)
	client := &http.Client{Transport: &http.Transport{DisableCompression: true}}
	for i := range screens {
		response, err := client.Get(address)
		if err != nil {
			return err
		}
		if response.StatusCode != http.StatusOK {
			return fmt.Errorf("screen %d: status %d", i, response.StatusCode)
		}
		a.streams = append(a.streams, response)
		a.reading.Go(func() {
			lines := bufio.NewReaderSize(response.Body, 1<<12)
			for begins := true; ; {
				line, prefix, err := lines.ReadLine()
				if err != nil {
					return
				}
				if begins && strings.HasPrefix(string(line), "event: room") {
					a.events[i].Add(1)
				}
				begins = !prefix
			}
		})
	}
	return nil
}

// told waits until every screen has been told so often at least; several changes may be told at once.
func (a *audience) told(changes int, patience time.Duration) error {
	until := time.Now().Add(patience)
	for i := range a.events {
		for int(a.events[i].Load()) < changes/2 {
			if time.Now().After(until) {
				return fmt.Errorf("screen %d was told %d times of %d changes", i, a.events[i].Load(), changes)
			}
			time.Sleep(10 * time.Millisecond)
		}
	}
	return nil
}

func (a *audience) leave() {
	for _, stream := range a.streams {
		stream.Body.Close()
	}
	a.reading.Wait()
}

// memory returns what a process holds, in MB, of Linux's /proc (proc(5)).
func memory(process int) float64 {
	text, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", process))
	if err != nil {
		return 0
	}
	var kilobytes float64
	_, after, _ := strings.Cut(string(text), "VmRSS:")
	fmt.Sscan(after, &kilobytes)
	return kilobytes / 1000
}
