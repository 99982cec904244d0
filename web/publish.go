package web

import (
	"context"
	"encoding/base64"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/url"
	"strings"
	"time"

	"vastlantern/studio/desk"
)

const (
	// publishAgain is how long is waited where a proxy does not answer.
	publishAgain = time.Second
	// publishStill is how often what is so already is published: a proxy that was started anew has forgotten it.
	publishStill = 30 * time.Second
)

// Publish tells a reverse proxy of every change of the room until the context ends; the proxy tells all screens that
// listen there, so that thousands of them are one connection here (docs/scale.md). The room's code is added to the
// address.
func Publish(ctx context.Context, d *desk.Desk, to *url.URL) {
	code, err := d.Audience.RoomCode(ctx)
	if err != nil {
		slog.Error("nothing is published", "error", err)
		return
	}
	feed := newFeed(ctx, d)
	defer feed.following.Wait()
	line, leave := feed.room(code, "").join()
	defer leave()
	address := to.JoinPath(code).String()
	shown := to.Redacted() // a log is read by more people than the password and the room's code are for
	screens := d.Audience.Behind(ctx)
	defer screens(0)
	var failed string
	for {
		told := line.newest()
		wait := publishStill
		listening, err := publishNow(ctx, line, address)
		problem := ""
		if err != nil {
			wait, problem = publishAgain, err.Error()
		}
		switch { // once, not every second
		case problem == failed || ctx.Err() != nil:
		case problem == "":
			slog.Info("the proxy takes what is published again", "address", shown)
		default:
			slog.Error("the proxy does not take what is published", "address", shown, "error", err)
		}
		failed = problem
		screens(listening)
		select {
		case <-ctx.Done():
			return
		case <-told.replaced:
		case <-time.After(wait):
		}
	}
}

// publishNow publishes what there is, and returns how many screens listen, as far as the proxy says so.
func publishNow(ctx context.Context, line *line, address string) (listening int, err error) {
	news, err := line.now()
	if err != nil {
		return 0, err
	}
	ctx, cancel := context.WithTimeout(ctx, patience)
	defer cancel()
	request, err := http.NewRequestWithContext(
		ctx,
		http.MethodPost,
		address,
		strings.NewReader(base64.StdEncoding.EncodeToString(news.gzip)),
	)
	if err != nil {
		return 0, err
	}
	request.Header.Set("Content-Type", "text/plain")
	request.Header.Set("X-EventSource-Event", roomEvent)
	request.Header.Set("Accept", "application/json")
	response, err := http.DefaultClient.Do(request)
	var failed *url.Error
	if errors.As(err, &failed) {
		return 0, failed.Err // without the address, which has the room's code
	}
	if err != nil {
		return 0, err
	}
	defer response.Body.Close()
	text, err := io.ReadAll(io.LimitReader(response.Body, 10_000))
	if err == nil && response.StatusCode/100 != 2 {
		err = fmt.Errorf("it answers %s", response.Status)
	}
	var channel struct {
		Subscribers int `json:"subscribers"`
	}
	_ = json.Unmarshal(text, &channel) // not every proxy tells
	return channel.Subscribers, err
}
