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
	"vastlantern/web"
)

const (
	passcode  = "warm lamp oil"
	strangers = 8 // at once
	// The program may use so much memory, and holds so much at the end.
	mostMemory = 512 << 20 // bytes
	mostHeld   = 300       // MB
)

// routes returns every question of the API, as its router has them, and those of pages.
func routes() ([]web.Route, error) {
	all, err := web.Routes()
	return append(
		all,
		web.Route{Method: "GET", Path: "/"},
		web.Route{Method: "GET", Path: "/assets/*file"},
		web.Route{Method: "GET", Path: "/api/*nothing"},
	), err
}

// hostile sends requests of every wrong form, of strangers and of somebody who is signed in, while a class is led. None
// of them may cause an error of ours or be waited for longer than most, and the class is led on. The program has 512 MB
// to do it with.
func hostile(folder string, requests int, most time.Duration, random *rand.Rand) (string, error) {
	data := filepath.Join(folder, "hostile.db")
	if err := stage.SetPasscode(data, passcode); err != nil {
		return "", err
	}
	program, err := stage.Start("serve", "--data", data, "--port", "0", "--lan")
	if err != nil {
		return "", err
	}
	defer program.Kill()
	if err := limitMemory(program.Process(), mostMemory); err != nil {
		return "", err
	}
	if err := program.SignIn(passcode, "laptop"); err != nil {
		return "", err
	}
	all, err := routes()
	if err != nil {
		return "", err
	}
	shapes, err := readShapes()
	if err != nil {
		return "", err
	}
	ctx, stop := context.WithCancel(context.Background())
	defer stop()
	leader := &leader{program: program, acknowledged: map[int64][]string{}}
	var leading sync.WaitGroup
	leading.Go(func() { leader.lead(ctx) })

	h := &attack{program: program, statuses: map[int]int{}, routes: all, shapes: shapes, most: most}
	var attacking sync.WaitGroup
	warm := 0.0
	for s := range strangers {
		own := rand.New(rand.NewPCG(random.Uint64(), uint64(s)))
		attacking.Go(func() {
			for i := range requests / strangers {
				h.one(own)
				if s == 0 && i == requests/strangers/4 {
					warm = memory(program.Process())
				}
			}
		})
	}
	attacking.Wait()
	stop()
	leading.Wait()
	end := memory(program.Process())
	if h.ours != nil {
		return "", h.ours
	}
	if leader.err != nil {
		return "", leader.err
	}
	presses, err := leader.check() // by the same process: it was not started again
	if err == nil && end > mostHeld {
		err = fmt.Errorf("it holds %.0f MB at the end, at most %d are allowed", end, mostHeld)
	}
	return fmt.Sprintf(
		"%d requests of %d routes, answered %v, the slowest after %v, %d connections cut; %d presses were answered "+
			"meanwhile and are there; memory %.0f MB after a quarter, %.0f MB at the end",
		requests,
		len(all),
		h.statuses,
		h.longest.Round(time.Millisecond),
		h.cut,
		presses,
		warm,
		end,
	), err
}

// leader leads classes, presses all the time, and notes what was answered.
type leader struct {
	program      *stage.Program
	acknowledged map[int64][]string
	err          error
}

func (l *leader) lead(ctx context.Context) {
	var plan contract.Plan
	if l.err = l.program.Post("/api/plans",
		`{"document": {"format": "vast-lantern-plan", "version": 1, "title": "Led all the time", "passages": [{"type": `+
			`"practice", "practice": "counted-breath", "counts": "60:60", "rounds": 200}]}}`, &plan); l.err != nil {
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
		if l.program.Post(
			fmt.Sprintf("/api/classes/%d/adjustments", class),
			fmt.Sprintf(`{"key": %q, "do": "note", "text": %q}`, text, text),
			&done,
		) != nil {
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
	cut      int           // connections that were closed without an answer
	longest  time.Duration // that one was waited for
	most     time.Duration // that one may be waited for
	ours     error         // an answer that is our fault
	routes   []web.Route
	shapes   *shapes
}

var methods = []string{"GET", "GET", "GET", "POST", "POST", "PUT", "DELETE", "PATCH", "HEAD", "OPTIONS"}

var words = []string{
	"", "csv", "vtt", "json", "ujjayi", "own-x", "group", "plan", "class", "..", "%2e%2e%2f", "%00", "%ff", "'", "\"",
	"a'; DROP TABLE plans; --", "<script>", "ABCDE", "2026-02-31", strings.Repeat("x", 5000), "💡", "%F0%9F",
}

// values take the place of a part of a body.
var values = []string{
	"null", "-1", "0", "1e400", "9223372036854775808", "1.5", `""`, `"\u0000"`, `"\ud800"`, "[]", "{}", "true",
	`"` + strings.Repeat("y", 3000) + `"`, strings.Repeat("[", 500), strings.Repeat(`{"a":`, 2000), "\xff", `"4:4:4:4:4"`,
}

func (h *attack) one(random *rand.Rand) {
	if random.IntN(20) == 0 {
		h.raw(random)
		return
	}
	route := h.routes[random.IntN(len(h.routes))]
	method := route.Method
	if random.IntN(10) == 0 {
		method = methods[random.IntN(len(methods))]
	}
	body := h.shapes.of(route.Body, random)
	for range random.IntN(2) {
		if len(body) < 2 {
			break
		}
		from := random.IntN(len(body))
		to := min(len(body), from+random.IntN(12))
		body = body[:from] + values[random.IntN(len(values))] + body[to:]
	}
	path := address(route.Path, random)
	path = strings.NewReplacer(" ", "+", "~", "%", "\"", "%22", "<", "%3C", "💡", "%F0%9F%92%A1").Replace(path)
	ctx, cancel := context.WithTimeout(context.Background(), 10*time.Second)
	defer cancel()
	request, err := http.NewRequestWithContext(ctx, method, h.program.URL+path, strings.NewReader(body))
	if err != nil {
		return // not even a client can say it
	}
	if random.IntN(10) > 0 {
		request.Header.Set("Content-Type", "application/json")
	}
	if random.IntN(8) == 0 {
		request.Header.Set(
			[]string{"Origin", "Referer", "Sec-Fetch-Site", "Cookie", "Accept-Encoding", "Content-Type"}[random.IntN(6)],
			[]string{"http://elsewhere.example", "cross-site", "lantern=x", "gzip", "null", "text/html"}[random.IntN(6)],
		)
	}
	if random.IntN(10) == 0 {
		request.Host = []string{"elsewhere.example", "localhost:1", "127.0.0.1", "[::1]", "x y"}[random.IntN(5)]
	}
	if random.IntN(3) > 0 { // as somebody who is signed in
		for _, cookie := range h.program.Cookies {
			if !(request.Method == http.MethodDelete && strings.Contains(path, "/session")) { // it would sign out who leads
				request.AddCookie(cookie)
			}
		}
	}
	began := time.Now()
	response, err := http.DefaultClient.Do(request)
	if err != nil {
		h.count(0, "", "")
		h.late(began, method+" "+path)
		return
	}
	defer response.Body.Close()
	if strings.HasPrefix(response.Header.Get("Content-Type"), "text/event-stream") {
		h.count(response.StatusCode, "", "")
		return
	}
	answer, _ := io.ReadAll(response.Body)
	h.late(began, method+" "+path)
	h.count(response.StatusCode, method+" "+path+" "+body, string(answer[:min(len(answer), 1<<10)]))
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

// late notes a request that was answered too late. The first one tells.
func (h *attack) late(began time.Time, asked string) {
	took := time.Since(began)
	h.mutex.Lock()
	defer h.mutex.Unlock()
	if h.longest = max(h.longest, took); took > h.most && h.ours == nil {
		h.ours = fmt.Errorf("%.400s was answered after %v; at most %v is allowed", asked, took, h.most)
	}
}

// queries is what addresses can ask besides.
var queries = []string{
	"words",
	"from",
	"to",
	"skip",
	"group",
	"group_id",
	"practice",
	"year",
	"at_ms",
	"from_ms",
	"room",
	"classes",
	"voice",
	"apply",
	"eased",
}

// address returns a path of the router with something in the place of each parameter, and perhaps a query.
func address(pattern string, random *rand.Rand) string {
	parts := strings.Split(pattern, "/")
	for i, part := range parts {
		switch {
		case part == ":id":
			parts[i] = fmt.Sprint([]int64{0, 1, 1, 2, 3, 4, -1, 1 << 62}[random.IntN(8)])
		case strings.HasPrefix(part, ":"), strings.HasPrefix(part, "*"):
			parts[i] = strings.ReplaceAll(words[random.IntN(len(words))], "%", "~")
		}
	}
	path := strings.Join(parts, "/")
	for n := range random.IntN(3) {
		path += []string{"?", "&"}[min(n, 1)] + pick(
			random,
			queries...) + "=" + strings.ReplaceAll(
			pick(random, pick(random, words...), pick(random, numbers...), pick(random, moments...)),
			"%",
			"~",
		)
	}
	return path
}

// raw sends what is no HTTP, or half of it.
func (h *attack) raw(random *rand.Rand) {
	connection, err := net.DialTimeout("tcp", strings.TrimPrefix(h.program.URL, "http://"), time.Second)
	if err != nil {
		h.count(0, "", "")
		return
	}
	defer connection.Close()
	text := []byte(
		"POST /api/plans HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: " +
			"1000000\r\n\r\n{\"document\":",
	)
	for range 3 {
		text[random.IntN(len(text))] = byte(random.IntN(256))
	}
	_, _ = connection.Write(text[:random.IntN(len(text))])
	if random.IntN(2) == 0 {
		_, _ = connection.Write(bytes.Repeat([]byte{byte(random.IntN(256))}, random.IntN(100_000)))
	}
	h.count(0, "", "")
}
