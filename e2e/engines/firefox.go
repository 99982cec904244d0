package main

import (
	"bufio"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"

	"github.com/go-rod/rod/lib/cdp"
)

// firefox is Firefox ESR without a window, by WebDriver BiDi (W3C), which it speaks by itself.
type firefox struct {
	cmd     *exec.Cmd
	speaker *exec.Cmd // without one Firefox lets no audio clock run
	profile string
	socket  *cdp.WebSocket // nil before there is one
	number  int
	context string // the tab
}

var listening = regexp.MustCompile(`ws://127\.0\.0\.1:\d+`)

func startFirefox() (engine, error) {
	profile, err := os.MkdirTemp("", "firefox")
	if err != nil {
		return nil, err
	}
	f := &firefox{profile: profile}
	place := filepath.Join(profile, "speaker")
	f.speaker = exec.Command(
		"pulseaudio",
		"-n",
		"--daemonize=no",
		"--exit-idle-time=-1",
		"--use-pid-file=no",
		"--load=module-null-sink",
		"--load=module-native-protocol-unix auth-anonymous=1 socket="+place,
	)
	f.speaker.Env = append(os.Environ(), "HOME="+profile, "XDG_RUNTIME_DIR="+profile)
	if err := f.speaker.Start(); err != nil {
		f.Close()
		return nil, fmt.Errorf("pulseaudio: %w (make engines installs what this needs)", err)
	}
	f.cmd = exec.Command(
		"firefox-esr",
		"--headless",
		"--no-remote",
		"--profile",
		profile,
		"--remote-debugging-port",
		"0",
		"about:blank",
	)
	f.cmd.Env = append(os.Environ(), "HOME="+profile, "PULSE_SERVER=unix:"+place)
	out, err := f.cmd.StderrPipe()
	if err != nil {
		return nil, err
	}
	if err := f.cmd.Start(); err != nil {
		f.Close()
		return nil, fmt.Errorf("firefox-esr: %w (make engines installs what this needs)", err)
	}
	at := ""
	lines := bufio.NewScanner(out)
	for at == "" && lines.Scan() {
		at = listening.FindString(lines.Text())
	}
	if at == "" {
		f.Close()
		return nil, errors.New("firefox-esr ended without an address")
	}
	go func() { // so that it is never kept waiting by what it says
		for lines.Scan() {
		}
	}()
	socket := &cdp.WebSocket{}
	if err := socket.Connect(context.Background(), at+"/session", nil); err != nil {
		f.Close()
		return nil, err
	}
	f.socket = socket
	if err := f.call("session.new", map[string]any{"capabilities": map[string]any{}}, nil); err != nil {
		f.Close()
		return nil, err
	}
	var made struct {
		Context string `json:"context"`
	}
	if err := f.call("browsingContext.create", map[string]string{"type": "tab"}, &made); err != nil {
		f.Close()
		return nil, err
	}
	f.context = made.Context
	return f, nil
}

func (f *firefox) call(method string, params, out any) error {
	f.number++
	text, err := json.Marshal(map[string]any{"id": f.number, "method": method, "params": params})
	if err != nil {
		return err
	}
	if err := f.socket.Send(text); err != nil {
		return err
	}
	for {
		text, err := f.socket.Read()
		if err != nil {
			return err
		}
		var answer struct {
			ID      int             `json:"id"`
			Result  json.RawMessage `json:"result"`
			Error   string          `json:"error"`
			Message string          `json:"message"`
		}
		if err := json.Unmarshal(text, &answer); err != nil {
			return err
		}
		switch {
		case answer.ID != f.number: // an event
		case answer.Error != "":
			return fmt.Errorf("%s: %s: %s", method, answer.Error, answer.Message)
		case out == nil:
			return nil
		default:
			return json.Unmarshal(answer.Result, out)
		}
	}
}

func (f *firefox) Name() string { return "Firefox" }

func (f *firefox) Open(address string, width, height int) error {
	size := map[string]any{"context": f.context, "viewport": map[string]int{"width": width, "height": height}}
	if err := f.call("browsingContext.setViewport", size, nil); err != nil {
		return err
	}
	return f.call(
		"browsingContext.navigate",
		map[string]any{"context": f.context, "url": address, "wait": "complete"},
		nil,
	)
}

func (f *firefox) Eval(script string) (string, error) {
	var answer struct {
		Result struct {
			Value string `json:"value"`
		} `json:"result"`
		Exception json.RawMessage `json:"exceptionDetails"`
	}
	err := f.call("script.evaluate", map[string]any{
		"expression": "String(" + script + ")", "target": map[string]string{"context": f.context}, "awaitPromise": false,
	}, &answer)
	if err == nil && answer.Exception != nil {
		err = fmt.Errorf("%s: %.300s", script, answer.Exception)
	}
	return answer.Result.Value, err
}

func (f *firefox) Touch(x, y int) error {
	return f.call("input.performActions", map[string]any{"context": f.context, "actions": touch(x, y, "touch")}, nil)
}

func (f *firefox) Type(text string) error {
	return f.call("input.performActions", map[string]any{"context": f.context, "actions": typed(text)}, nil)
}

func (f *firefox) Close() {
	if f.socket != nil {
		_ = f.socket.Close()
	}
	for _, one := range []*exec.Cmd{f.cmd, f.speaker} {
		if one != nil && one.Process != nil {
			_ = one.Process.Kill()
			_ = one.Wait()
		}
	}
	_ = os.RemoveAll(f.profile)
}
