package main

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"time"

	"vastlantern/e2e/stage"
)

// webkit is WebKitGTK's MiniBrowser, by the WebDriver protocol (W3C).
type webkit struct {
	driver, display *exec.Cmd
	at              string // of the session
}

func startWebkit() (engine, error) {
	display := exec.Command("Xvfb", ":97", "-screen", "0", "1400x1000x24", "-nolisten", "tcp")
	if err := display.Start(); err != nil {
		return nil, fmt.Errorf("no display: %w (make engines installs what this needs)", err)
	}
	address, err := stage.FreeAddress()
	if err != nil {
		return nil, err
	}
	w := &webkit{display: display, at: "http://" + address + "/session"}
	w.driver = exec.Command("WebKitWebDriver", "--host=127.0.0.1", "--port="+address[len("127.0.0.1:"):])
	w.driver.Env = append(
		os.Environ(),
		"DISPLAY=:97",
		"WEBKIT_DISABLE_COMPOSITING_MODE=1",
		"LIBGL_ALWAYS_SOFTWARE=1",
		"GDK_BACKEND=x11",
	)
	w.driver.Stderr = io.Discard // of a desktop that is not there
	if err := w.driver.Start(); err != nil {
		w.Close()
		return nil, fmt.Errorf("no WebKit: %w (make engines installs what this needs)", err)
	}
	browsers, err := filepath.Glob("/usr/lib/*/webkit2gtk-4.*/MiniBrowser")
	if err != nil || len(browsers) == 0 {
		w.Close()
		return nil, fmt.Errorf("there is no MiniBrowser: make engines installs it")
	}
	ask := map[string]any{"capabilities": map[string]any{"alwaysMatch": map[string]any{
		"webkitgtk:browserOptions": map[string]any{"binary": browsers[0], "args": []string{"--automation"}},
	}}}
	var session struct {
		SessionID string `json:"sessionId"`
	}
	for range 100 { // until it listens
		if err = w.call(http.MethodPost, "", ask, &session); err == nil {
			break
		}
		time.Sleep(100 * time.Millisecond)
	}
	if err != nil {
		w.Close()
		return nil, err
	}
	w.at += "/" + session.SessionID
	return w, nil
}

func (w *webkit) call(method, path string, in, out any) error {
	text, err := json.Marshal(in)
	if err != nil {
		return err
	}
	request, err := http.NewRequest(method, w.at+path, bytes.NewReader(text))
	if err != nil {
		return err
	}
	response, err := http.DefaultClient.Do(request)
	if err != nil {
		return err
	}
	defer response.Body.Close()
	var answer struct {
		Value json.RawMessage `json:"value"`
	}
	if err := json.NewDecoder(response.Body).Decode(&answer); err != nil {
		return err
	}
	if response.StatusCode != http.StatusOK {
		return fmt.Errorf("%s: %s", path, answer.Value)
	}
	if out == nil {
		return nil
	}
	return json.Unmarshal(answer.Value, out)
}

func (w *webkit) Name() string { return "WebKit" }

func (w *webkit) Open(address string, width, height int) error {
	if err := w.call(http.MethodPost, "/window/rect", map[string]int{"x": 0, "y": 0, "width": width, "height": height},
		nil); err != nil {
		return err
	}
	return w.call(http.MethodPost, "/url", map[string]string{"url": address}, nil)
}

func (w *webkit) Eval(script string) (text string, err error) {
	err = w.call(
		http.MethodPost,
		"/execute/sync",
		map[string]any{"script": "return String(" + script + ")", "args": []any{}},
		&text,
	)
	return text, err
}

func (w *webkit) Touch(x, y int) error {
	return w.call(http.MethodPost, "/actions", map[string]any{"actions": touch(x, y, "touch")}, nil)
}

func (w *webkit) Type(text string) error {
	return w.call(http.MethodPost, "/actions", map[string]any{"actions": typed(text)}, nil)
}

func (w *webkit) Close() {
	_ = w.call(http.MethodDelete, "", struct{}{}, nil)
	for _, one := range []*exec.Cmd{w.driver, w.display} {
		if one != nil && one.Process != nil {
			_ = one.Process.Kill()
			_ = one.Wait()
		}
	}
}
