// Package tryout answers what the screens ask where there is no program: a page to try the application with, which any
// web server or the file system shows. It has the whole rehearsal and one sample class, keeps them in memory, and
// answers everything else with a plain no. It knows no clock: each question brings the time.
package tryout

import (
	"encoding/json"
	"errors"
	"net/url"
	"regexp"
	"strconv"
	"time"

	"vastlantern/core/care"
	"vastlantern/core/fact"
	"vastlantern/language"
	"vastlantern/studio/contract"
	"vastlantern/studio/led"
)

// Question is what a screen asks, as it would ask the program.
type Question struct {
	Method   string          `json:"method"`
	Path     string          `json:"path"` // from /api on
	Body     json.RawMessage `json:"body,omitempty"`
	Language string          `json:"language"` // of the screens
	NowMS    float64         `json:"now_ms"`   // since 1970
}

// Answer is an answer as the program would give it: its status of HTTP, and its JSON.
type Answer struct {
	Status int             `json:"status"`
	Body   json.RawMessage `json:"body"`
}

const (
	statusOK       = 200
	statusInvalid  = 400
	statusNotFound = 404
)

// errNotHere is of what only the program can do.
var errNotHere = fact.New("tryout.not-here")

// Tryout is what the page holds.
type Tryout struct {
	settings   contract.Settings
	class      *class
	rehearsals shelf
}

// New returns a page on which nothing was done yet.
func New() *Tryout {
	return &Tryout{
		settings: contract.Settings{
			Schools: map[string]string{}, OwnWords: map[string]string{}, Language: "en", Keys: contract.UsualKeys("", ""),
			General: care.Everyone.Say,
		},
		rehearsals: shelf{},
	}
}

// request is a question in parts.
type request struct {
	body  json.RawMessage
	query url.Values
	id    int64
	now   time.Time
	tell  func(fact.Fact) string
	tag   string
}

func (r request) nowMS() int64 { return r.now.UnixMilli() }

var number = regexp.MustCompile(`/(\d+)`)

// Answer returns the answer to a question as JSON.
func (t *Tryout) Answer(text []byte) []byte {
	result, err := t.answer(text)
	status := statusOK
	switch {
	case errors.Is(err, errNotHere), errors.Is(err, errMissing):
		status = statusNotFound
	case err != nil:
		status = statusInvalid
	}
	if err != nil {
		result = contract.Problem{Say: fact.Of(err)}
	}
	body, err := json.Marshal(result)
	if err == nil {
		text, err = json.Marshal(Answer{status, body})
	}
	if err != nil {
		panic(err) // only of what cannot be JSON, which no result is
	}
	return text
}

func (t *Tryout) answer(text []byte) (any, error) {
	var q Question
	if err := json.Unmarshal(text, &q); err != nil {
		return nil, err
	}
	asked, err := url.Parse(q.Path)
	if err != nil {
		return nil, err
	}
	r := request{
		body: q.Body, query: asked.Query(), now: time.UnixMilli(int64(q.NowMS)).UTC(), tag: q.Language,
		tell: language.In(q.Language).Text,
	}
	if found := number.FindStringSubmatch(asked.Path); found != nil {
		if r.id, err = strconv.ParseInt(found[1], 10, 64); err != nil {
			return nil, errNotHere
		}
	}
	answers, there := routes[q.Method+" "+number.ReplaceAllString(asked.Path, "/:id")]
	if !there {
		return nil, errNotHere
	}
	return answers(t, r)
}

// routes is what is answered, as the program's own routes have it.
var routes = map[string]func(*Tryout, request) (any, error){
	"GET /clock": func(_ *Tryout, r request) (any, error) {
		now := float64(r.nowMS())
		return contract.Clock{ReceivedMS: now, SentMS: now, Rate: 1}, nil
	},
	"GET /session":  func(*Tryout, request) (any, error) { return contract.Session{SignedIn: true}, nil },
	"GET /running":  func(t *Tryout, r request) (any, error) { return t.running(r), nil },
	"GET /settings": func(t *Tryout, _ request) (any, error) { return t.settings, nil },
	"PUT /settings": with((*Tryout).save),
	"GET /deleted": func(*Tryout, request) (any, error) {
		return contract.DeletedList{Deleted: []contract.Deleted{}}, nil
	},
	"GET /signals": func(*Tryout, request) (any, error) { return led.Signals(), nil },

	"POST /sample":                    func(t *Tryout, r request) (any, error) { return t.begin(r) },
	"GET /classes/:id/score":          ofClass(func(c *class, r request) (any, error) { return c.score(r), nil }),
	"POST /classes/:id/adjustments":   ofClass(withClass((*class).adjust)),
	"POST /classes/:id/would":         ofClass(withClass((*class).would)),
	"POST /classes/:id/seen":          ofClass(withClass((*class).saw)),
	"POST /classes/:id/taps":          ofClass(withClass((*class).tapped)),
	"POST /classes/:id/ear":           ofClass(withClass((*class).listens)),
	"POST /classes/:id/heard":         ofClass(withClass((*class).heard)),
	"POST /classes/:id/strokes-heard": ofClass(withClass((*class).heardStrokes)),
	"POST /classes/:id/card":          ofClass(withClass((*class).turn)),
	"GET /classes/:id/gap":            ofClass((*class).gap),
	"POST /classes/:id/again":         ofClass(withClass((*class).again)),

	"GET /rehearsals":                    (*Tryout).allRehearsals,
	"POST /rehearsals":                   with((*Tryout).beginRehearsal),
	"GET /rehearsals/:id":                (*Tryout).rehearsal,
	"POST /rehearsals/:id/adjustments":   with((*Tryout).adjustRehearsal),
	"POST /rehearsals/:id/would":         with((*Tryout).wouldRehearsal),
	"POST /rehearsals/:id/seen":          with((*Tryout).sawRehearsal),
	"POST /rehearsals/:id/taps":          with((*Tryout).tappedRehearsal),
	"POST /rehearsals/:id/strokes-heard": with((*Tryout).heardRehearsal),
	"POST /rehearsals/:id/came":          with((*Tryout).cameRehearsal),
	"POST /rehearsals/:id/end":           with((*Tryout).endRehearsal),
	"GET /rehearsals/:id/review":         (*Tryout).reviewRehearsal,
}

// with reads the body of a question.
func with[In any](ask func(*Tryout, request, In) (any, error)) func(*Tryout, request) (any, error) {
	return func(t *Tryout, r request) (any, error) {
		var in In
		if err := json.Unmarshal(r.body, &in); err != nil {
			return nil, err
		}
		return ask(t, r, in)
	}
}

// save keeps that the caution for everyone was read; there is no view to choose anything else.
func (t *Tryout) save(_ request, in contract.Settings) (any, error) {
	t.settings.CareRead = in.CareRead
	return t.settings, nil
}
