package main

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"math/rand/v2"
	"net"
	"net/http"
	"path/filepath"
	"strings"
	"sync"
	"time"

	"vastlantern/e2e/stage"
	"vastlantern/studio/contract"
)

const (
	passcode  = "warm lamp oil"
	strangers = 8 // at once
)

// hostile sends requests of every wrong form, of strangers and of somebody who is signed in, while a class is led. None of
// them may cause an error of ours, and the class is led on.
func hostile(folder string, requests int, random *rand.Rand) (string, error) {
	data := filepath.Join(folder, "hostile.db")
	if err := stage.SetPasscode(data, passcode); err != nil {
		return "", err
	}
	program, err := stage.Start("serve", "--data", data, "--port", "0", "--lan")
	if err != nil {
		return "", err
	}
	defer program.Kill()
	if err := program.SignIn(passcode, "laptop"); err != nil {
		return "", err
	}
	ctx, stop := context.WithCancel(context.Background())
	defer stop()
	leader := &leader{program: program, acknowledged: map[int64][]string{}}
	var leading sync.WaitGroup
	leading.Go(func() { leader.lead(ctx) })

	h := &attack{program: program, statuses: map[int]int{}}
	var all sync.WaitGroup
	warm := 0.0
	for s := range strangers {
		own := rand.New(rand.NewPCG(random.Uint64(), uint64(s)))
		all.Go(func() {
			for i := range requests / strangers {
				h.one(own)
				if s == 0 && i == requests/strangers/4 {
					warm = memory(program.Process())
				}
			}
		})
	}
	all.Wait()
	stop()
	leading.Wait()
	end := memory(program.Process())
	if h.ours != nil {
		return "", h.ours
	}
	if leader.err != nil {
		return "", leader.err
	}
	presses, err := leader.check()
	return fmt.Sprintf("%d requests, answered %v, %d connections cut; %d presses were answered meanwhile and are there; memory %.0f MB after a quarter, %.0f MB at the end",
		requests, h.statuses, h.cut, presses, warm, end), err
}

// leader leads classes, presses all the time, and notes what was answered.
type leader struct {
	program      *stage.Program
	acknowledged map[int64][]string
	err          error
}

func (l *leader) lead(ctx context.Context) {
	var plan contract.Plan
	if l.err = l.program.Post("/api/plans", `{"document": {"format": "vast-lantern-plan", "version": 1, "title": "Led all the time", "passages": [{"type": "practice", "practice": "counted-breath", "counts": "60:60", "rounds": 200}]}}`, &plan); l.err != nil {
		return
	}
	for class := int64(0); ctx.Err() == nil; time.Sleep(20 * time.Millisecond) {
		if class == 0 {
			var score contract.Score
			if l.program.Lead(plan.ID, &score) != nil { // somebody has deleted the plan
				if l.err = l.program.Post("/api/plans", `{"document": `+string(plan.Document)+`}`, &plan); l.err != nil {
					return
				}
				continue
			}
			class = score.ClassID
		}
		text := fmt.Sprintf("leader %d", len(l.acknowledged[class]))
		var done contract.Adjusted
		if l.program.Post(fmt.Sprintf("/api/classes/%d/adjustments", class), fmt.Sprintf(`{"key": %q, "do": "note", "text": %q}`, text, text), &done) != nil {
			class = 0 // somebody who was signed in has ended it
			continue
		}
		l.acknowledged[class] = append(l.acknowledged[class], text)
	}
}

// check looks for what was answered, in the classes that nobody has deleted.
func (l *leader) check() (presses int, err error) {
	for class, texts := range l.acknowledged {
		var record contract.Record
		if l.program.Get(fmt.Sprintf("/api/classes/%d/record", class), &record) != nil {
			continue
		}
		there := map[string]bool{}
		for _, mark := range record.Marks {
			there[mark.Answer.Text] = true
		}
		for _, text := range texts {
			if !there[text] {
				return 0, fmt.Errorf("%q of class %d was answered and is not there", text, class)
			}
			presses++
		}
	}
	if presses == 0 {
		err = errors.New("nothing was pressed meanwhile")
	}
	return presses, err
}

// attack is what was sent and answered.
type attack struct {
	program  *stage.Program
	mutex    sync.Mutex
	statuses map[int]int
	cut      int   // connections that were closed without an answer
	ours     error // an answer that is our fault
}

var methods = []string{"GET", "GET", "GET", "POST", "POST", "PUT", "DELETE", "PATCH", "HEAD", "OPTIONS"}

var paths = []string{
	"/", "/assets/", "/nothing", "/api", "/api/", "/api/today", "/api/running", "/api/clock", "/api/session", "/api/rooms/%s", "/api/practices", "/api/practices/%s/sample",
	"/api/practices/%s/file", "/api/practices/%s", "/api/practices/copy", "/api/practices/draft", "/api/groups", "/api/groups/%d", "/api/groups/%d/course", "/api/settings", "/api/plans", "/api/plans/%d",
	"/api/plans/%d/course", "/api/plans/%d/course/shift", "/api/plans/%d/file", "/api/plans/%d/sheet/%s", "/api/plans/%d/calendar", "/api/plans/%d/try", "/api/plans/begin", "/api/plans/import",
	"/api/calendar", "/api/templates", "/api/draft", "/api/classes", "/api/classes?words=%s&from=%s", "/api/classes/table?practice=%s", "/api/classes/file?group=%d", "/api/summary?year=%d", "/api/classes/%d/remarks",
	"/api/classes/%d/sheet/%s", "/api/classes/%d/table", "/api/classes/%d/file", "/api/classes/%d/score", "/api/classes/%d/adjustments", "/api/classes/%d/would", "/api/classes/%d/gap?from_ms=%d", "/api/classes/%d/again",
	"/api/classes/%d/record", "/api/classes/%d/seen", "/api/classes/%d/taps", "/api/classes/%d/deletion", "/api/room", "/api/room/qr.png", "/api/signals", "/api/deleted", "/api/deleted/%s/%d/back",
}

var words = []string{
	"", "csv", "vtt", "json", "ujjayi", "own-x", "group", "plan", "class", "..", "%2e%2e%2f", "%00", "%ff", "'", "\"", "a'; DROP TABLE plans; --", "<script>", "ABCDE", "2026-02-31", strings.Repeat("x", 5000), "💡", "%F0%9F",
}

// bodies are nearly right; what is in them is changed at random.
var bodies = []string{
	`{"document": {"format": "vast-lantern-plan", "version": 1, "title": "x", "tempo": 60, "slot_min": 25, "starts_at": "2026-12-01T18:30:00+01:00", "passages": [{"type": "practice", "practice": "nadi-shodhana", "counts": "4:4:8", "rounds": 6, "closing": [{"breaths": 2}]}, {"type": "talk", "wait": true}]}, "group_id": 0, "revision": 1}`,
	`{"plan_id": 1, "end_running": true, "fit": true, "acknowledged": ["x"]}`,
	`{"key": "k", "do": "tempo", "to": 50, "carry": true, "because": "restless", "pressed_ms": 1}`,
	`{"key": "k", "do": "counts", "counts": [4, 4, 6, 0]}`, `{"key": "k", "do": "finish-by", "to_ms": 900000}`, `{"key": "k", "do": "pause"}`, `{"key": "k", "do": "note", "text": "x"}`,
	`{"key": "k", "see": "gasp", "pressed_ms": 5}`, `{"at_ms": [1, 2000, 4000], "breaths": true}`, `[{"key": "", "do": "rounds", "by": 1}]`, `{"key": "k", "from_ms": 3}`,
	`{"id": 0, "name": "Lunch", "level": "beginners", "size": 12, "weekday": 1, "weektime": "12:30", "conditions": {"asthma": 1}, "schools": {}}`,
	`{"schools": {"eyes": "closed"}, "language": "en", "own_words": {"inhale": "in"}, "care_read": true, "bring": "a cushion", "keys": {"letters": {"slower": "y"}, "no_letters": false, "remote": [{"key": "PageDown", "press": "long", "means": "pause"}]}}`,
	`{"text": "id: own-x\nname: X\nkind: counted\nfigure: [{phase: inhale, counts: a}]"}`, `{"id": "ujjayi", "name": "Mine"}`, `{"kind": "note", "text": "x"}`, `{"template": "settle", "group_id": 0}`, `{"class_id": 1, "how": "taught"}`,
	`{"classes": 4, "days": 7, "grow": "rounds", "passage": 1}`, `{"script": [{"at_ms": 5, "adjust": {"key": "", "do": "pause"}}], "at_ms": 9}`, `{"passcode": "guess", "device": "x"}`, `{}`, `[]`, `null`, `7`, `"x"`, ``, `{`,
}

// values take the place of a part of a body.
var values = []string{
	"null", "-1", "0", "1e400", "9223372036854775808", "1.5", `""`, `"\u0000"`, `"\ud800"`, "[]", "{}", "true", `"` + strings.Repeat("y", 3000) + `"`, strings.Repeat("[", 500), strings.Repeat(`{"a":`, 2000), "\xff", `"4:4:4:4:4"`,
}

func (h *attack) one(random *rand.Rand) {
	if random.IntN(20) == 0 {
		h.raw(random)
		return
	}
	body := bodies[random.IntN(len(bodies))]
	for range random.IntN(3) {
		if len(body) < 2 {
			break
		}
		from := random.IntN(len(body))
		to := min(len(body), from+random.IntN(12))
		body = body[:from] + values[random.IntN(len(values))] + body[to:]
	}
	path := paths[random.IntN(len(paths))]
	for strings.ContainsAny(path, "%") {
		next := strings.Replace(path, "%d", fmt.Sprint([]int64{0, 1, 2, 3, -1, 1 << 62}[random.IntN(6)]), 1)
		if next == path {
			next = strings.Replace(path, "%s", strings.ReplaceAll(words[random.IntN(len(words))], "%", "~"), 1)
		}
		if path = next; !strings.Contains(path, "%d") && !strings.Contains(path, "%s") {
			break
		}
	}
	path = strings.NewReplacer(" ", "+", "~", "%", "\"", "%22", "<", "%3C", "💡", "%F0%9F%92%A1").Replace(path)
	ctx, cancel := context.WithTimeout(context.Background(), 10*time.Second)
	defer cancel()
	request, err := http.NewRequestWithContext(ctx, methods[random.IntN(len(methods))], h.program.URL+path, strings.NewReader(body))
	if err != nil {
		return // not even a client can say it
	}
	if random.IntN(10) > 0 {
		request.Header.Set("Content-Type", "application/json")
	}
	if random.IntN(8) == 0 {
		request.Header.Set([]string{"Origin", "Referer", "Sec-Fetch-Site", "Cookie", "Accept-Encoding", "Content-Type"}[random.IntN(6)], []string{"http://elsewhere.example", "cross-site", "lantern=x", "gzip", "null", "text/html"}[random.IntN(6)])
	}
	if random.IntN(10) == 0 {
		request.Host = []string{"elsewhere.example", "localhost:1", "127.0.0.1", "[::1]", "x y"}[random.IntN(5)]
	}
	if random.IntN(3) > 0 { // as somebody who is signed in
		for _, cookie := range h.program.Cookies {
			if !(request.Method == http.MethodDelete && strings.HasSuffix(path, "/session")) {
				request.AddCookie(cookie)
			}
		}
	}
	response, err := http.DefaultClient.Do(request)
	if err != nil {
		h.count(0, "", "")
		return
	}
	defer response.Body.Close()
	if strings.HasPrefix(response.Header.Get("Content-Type"), "text/event-stream") {
		h.count(response.StatusCode, "", "")
		return
	}
	answer, _ := io.ReadAll(io.LimitReader(response.Body, 1<<20))
	h.count(response.StatusCode, request.Method+" "+path+" "+body, string(answer))
}

func (h *attack) count(status int, asked, answer string) {
	h.mutex.Lock()
	defer h.mutex.Unlock()
	if status == 0 {
		h.cut++
		return
	}
	h.statuses[status]++
	if status >= 500 && h.ours == nil {
		h.ours = fmt.Errorf("status %d to %.400s: %.400s", status, asked, answer)
	}
}

// raw sends what is no HTTP, or half of it.
func (h *attack) raw(random *rand.Rand) {
	connection, err := net.DialTimeout("tcp", strings.TrimPrefix(h.program.URL, "http://"), time.Second)
	if err != nil {
		h.count(0, "", "")
		return
	}
	defer connection.Close()
	text := []byte("POST /api/plans HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: 1000000\r\n\r\n{\"document\":")
	for range 3 {
		text[random.IntN(len(text))] = byte(random.IntN(256))
	}
	_, _ = connection.Write(text[:random.IntN(len(text))])
	if random.IntN(2) == 0 {
		_, _ = connection.Write(bytes.Repeat([]byte{byte(random.IntN(256))}, random.IntN(100_000)))
	}
	h.count(0, "", "")
}
