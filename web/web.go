// Package web serves the application: JSON, the stream of changes of a class, and the built front end.
package web

import (
	"context"
	"embed"
	"errors"
	"io/fs"
	"log/slog"
	"net/http"
	"os"
	"path"
	"reflect"
	"strconv"
	"strings"
	"sync"

	"github.com/gin-contrib/gzip"
	"github.com/gin-gonic/gin"

	"vastlantern/core/fact"
	"vastlantern/language"
	"vastlantern/studio"
	"vastlantern/studio/contract"
	"vastlantern/studio/demo"
	"vastlantern/studio/desk"
)

//go:embed all:dist
var dist embed.FS

// mostBody bounds what is read of a request: a plan of 1 MiB, in JSON again.
const mostBody = 2 << 20

type server struct {
	desk    *desk.Desk
	options Options
	feed    *feed
	guard   *guard
	work    *work
}

// Application is everything that is served. It is a handler of its own, so that its routes can be listed.
type Application struct {
	*gin.Engine
	work *work
	feed *feed
}

// Wait waits for what requests have begun: their answers, and what goes on after them. To be called when nothing is
// served any more, and when the context of Handler has ended if it is not to be long.
func (a *Application) Wait() {
	a.work.group.Wait()
	a.feed.following.Wait()
}

// work is what goes on behind the requests. All of it ends, or is given up as a whole, when the context ends.
type work struct {
	ctx   context.Context
	group sync.WaitGroup
}

// Handler returns the whole application. What takes long is given up where the context ends: an import, and what lists
// need of it.
func Handler(ctx context.Context, d *desk.Desk, options Options) (*Application, error) {
	front, err := fs.Sub(dist, "dist")
	if err != nil {
		return nil, err
	}
	gin.SetMode(gin.ReleaseMode)
	router := gin.New()
	g := newGuard(d, &options)
	working := &work{ctx: ctx}
	router.Use(working.tracked, logging, gin.Recovery(), g.checkRequest, packing())
	s := server{d, options, newFeed(ctx, d), g, working}
	router.Use(s.feed.notesWrites, inPersonsLanguage)
	s.public(router.Group("/api"))
	teacher := router.Group("/api", g.teacher)
	s.today(teacher)
	s.library(teacher)
	s.plans(teacher)
	s.classes(teacher)
	s.apart(teacher)
	s.records(teacher)
	s.homes(teacher)
	s.programmes(teacher)
	s.rehearsals(teacher)
	s.voices(teacher)
	s.deleted(teacher)
	router.NoRoute(pages(front))
	return &Application{router, working, s.feed}, nil
}

// tracked has Wait wait for the answer to a request.
func (w *work) tracked(c *gin.Context) {
	w.group.Add(1)
	defer w.group.Done()
	c.Next()
}

// public is what everybody may ask who is let in to the room, and how a device signs in.
func (s server) public(api *gin.RouterGroup) {
	api.GET("/clock", s.clock)
	api.GET("/certificate", answer(s.certificate))
	api.GET("/certificate/file", s.certificateFile)
	api.GET("/session", answer(s.guard.session))
	api.POST("/session", body(s.guard.enter))
	api.DELETE("/session", answer(s.guard.leave))
	api.GET("/rooms/:name", s.guard.room, s.room)
	api.GET("/rooms/:name/stream", s.guard.room, s.roomStream)
	// A screen that chose a language. It is in the path: what stands before the program keeps the others by theirs.
	api.GET("/rooms/:name/in/:language", s.guard.room, s.room)
	api.GET("/rooms/:name/in/:language/stream", s.guard.room, s.roomStream)
	api.POST(
		"/rooms/:name/answers",
		s.guard.room,
		body(func(c *gin.Context, in contract.RoomAnswer) (contract.RoomAnswered, error) {
			return s.desk.Audience.Answer(contextOf(c), c.Param("name"), in)
		}),
	)
	api.POST(
		"/rooms/:name/check-in",
		s.guard.room,
		body(func(c *gin.Context, in contract.CheckInAnswer) (contract.RoomAnswered, error) {
			return s.desk.Audience.CheckIn(contextOf(c), c.Param("name"), in)
		}),
	)
	// A recording is asked for by the sum of its sound, which only what is played tells.
	api.GET("/sounds/:sum", download(func(c *gin.Context) (studio.File, error) {
		file, err := s.desk.Voices.Sound(contextOf(c), c.Param("sum"))
		if err == nil {
			unchanging(c)
		}
		return file, err
	}))
}

func (s server) today(api *gin.RouterGroup) {
	api.GET("/today", answer(func(c *gin.Context) (contract.Today, error) { return s.desk.Today.Show(contextOf(c)), nil }))
	api.GET("/demo", answer(func(c *gin.Context) (contract.DemoData, error) { return demo.State(s.desk) }))
	api.POST("/demo", answer(func(c *gin.Context) (contract.DemoData, error) { return demo.Lay(contextOf(c), s.desk) }))
	api.DELETE("/demo", answer(func(c *gin.Context) (contract.DemoData, error) {
		return demo.Remove(contextOf(c),
			s.desk)
	}))
	api.GET("/running", answer(func(c *gin.Context) (contract.Running,
		error) {
		return s.desk.Classes.Running(contextOf(c))
	}))
}

func (s server) library(api *gin.RouterGroup) {
	library := s.desk.Library
	api.GET(
		"/practices",
		answer(func(c *gin.Context) (contract.Book, error) {
			return library.Practices(contextOf(c), number(c.Query("group")))
		}),
	)
	api.GET("/practices/:name/sample", named(library.Sample))
	api.GET("/practices/:name/file", named(library.OwnPractice))
	api.DELETE("/practices/:name", named(library.RemovePractice))
	api.POST("/practices", body(func(c *gin.Context, in contract.PracticeText) (contract.PracticeFile, error) {
		return library.SavePractice(contextOf(c), in)
	}))
	api.POST("/practices/copy", body(func(c *gin.Context, in contract.PracticeCopy) (contract.PracticeFile, error) {
		return library.CopyPractice(contextOf(c), in.ID, in.Name)
	}))
	api.POST("/practices/draft", body(func(c *gin.Context, in contract.PracticeText) (contract.PracticeDrafted, error) {
		return library.DraftPractice(contextOf(c), in.Text)
	}))
	api.GET("/groups", answer(func(c *gin.Context) (contract.Groups, error) { return library.Groups(contextOf(c)) }))
	api.POST(
		"/groups",
		body(func(c *gin.Context, in contract.Group) (contract.Group, error) {
			return library.SaveGroup(contextOf(c), in)
		}),
	)
	api.GET("/settings", answer(func(c *gin.Context) (contract.Settings, error) { return library.Settings(contextOf(c)) }))
	api.PUT(
		"/settings",
		body(func(c *gin.Context, in contract.Settings) (contract.Settings, error) {
			return library.SaveSettings(contextOf(c), in)
		}),
	)
}

func (s server) plans(api *gin.RouterGroup) {
	plans := s.desk.Plans
	api.GET("/templates", answer(func(c *gin.Context) ([]contract.Template, error) {
		return plans.Templates(contextOf(c))
	}))
	api.POST("/draft", body(func(c *gin.Context, in contract.Draft) (contract.Drafted, error) {
		return plans.Draft(contextOf(c), in)
	}))
	api.POST(
		"/typed",
		body(func(c *gin.Context, in contract.Typed) (contract.TypedRead, error) {
			return plans.ReadTyped(contextOf(c), in)
		}),
	)
	api.GET(
		"/phrases",
		answer(func(c *gin.Context) (contract.Phrases, error) {
			return plans.Phrases(contextOf(c), c.Query("practice"))
		}),
	)
	api.GET("/groups/:id/last", withID(plans.LastTime))
	api.POST("/plans/:id/move", bodyWithID(plans.Move))
	api.GET(
		"/plans/:id/substitute",
		download(func(c *gin.Context) (studio.File, error) { return plans.Substitute(contextOf(c), id(c)) }),
	)
	api.GET("/plans/:id/text", withID(plans.Text))
	api.GET("/plans", answer(func(c *gin.Context) (contract.PlansFound, error) {
		return plans.Find(contextOf(c), c.Query("words"), int(number(c.Query("skip"))))
	}))
	api.POST("/plans", body(func(c *gin.Context, in contract.PlanSave) (contract.Plan, error) {
		return plans.Add(contextOf(c), in.Document, in.GroupID)
	}))
	api.POST(
		"/plans/begin",
		body(func(c *gin.Context, in contract.Begin) (contract.Plan, error) { return plans.Begin(contextOf(c), in) }),
	)
	api.POST(
		"/plans/import",
		body(func(c *gin.Context, in contract.PlanText) (contract.Plan, error) {
			return plans.Import(contextOf(c), in)
		}),
	)
	api.GET("/plans/:id", withID(plans.Plan))
	api.PUT("/plans/:id", bodyWithID(plans.Save))
	api.GET("/plans/:id/file", download(func(c *gin.Context) (studio.File, error) {
		return plans.File(contextOf(c),
			id(c))
	}))
	api.GET(
		"/plans/:id/sheet/:form",
		download(func(c *gin.Context) (studio.File, error) { return plans.Sheet(contextOf(c), id(c), c.Param("form")) }),
	)
	api.GET("/plans/:id/calendar",
		download(func(c *gin.Context) (studio.File, error) { return plans.Calendar(contextOf(c), id(c)) }))
	api.GET("/calendar", download(func(c *gin.Context) (studio.File, error) { return plans.Calendar(contextOf(c), 0) }))
}

func (s server) classes(api *gin.RouterGroup) {
	classes := s.desk.Classes
	api.POST("/sample", answer(func(c *gin.Context) (contract.Score, error) { return classes.BeginSample(contextOf(c)) }))
	api.POST("/plans/:id/try", bodyWithID(classes.Try))
	api.POST("/classes", body(func(c *gin.Context, in contract.Lead) (contract.Score,
		error) {
		return classes.Begin(contextOf(c), in)
	}))
	api.GET("/classes/:id/score", withID(classes.Score))
	api.GET("/classes/:id/stream", s.stream)
	api.POST("/classes/:id/adjustments", body(func(c *gin.Context, in contract.Adjust) (contract.Adjusted, error) {
		in.Origin = c.GetString(deviceKey)
		return classes.Adjust(contextOf(c), id(c), in)
	}))
	api.POST("/classes/:id/card", bodyWithID(classes.TurnCard))
	api.POST("/classes/:id/would", bodyWithID(classes.Would))
	api.GET(
		"/classes/:id/gap",
		answer(func(c *gin.Context) (contract.Gap, error) {
			return classes.Gap(contextOf(c), id(c), number(c.Query("from_ms")))
		}),
	)
	api.POST("/classes/:id/again", body(func(c *gin.Context, in contract.TakeAgain) (contract.Adjusted, error) {
		in.Origin = c.GetString(deviceKey)
		return classes.TakeAgain(contextOf(c), id(c), in)
	}))
	api.GET("/signals", answer(func(c *gin.Context) ([]contract.Signal, error) { return classes.Signals(), nil }))
	api.POST("/classes/:id/seen", body(func(c *gin.Context, in contract.Saw) (contract.Proposed, error) {
		in.Origin = c.GetString(deviceKey)
		return classes.Saw(contextOf(c), id(c), in)
	}))
	api.POST("/classes/:id/taps", bodyWithID(classes.Tapped))
	api.POST("/classes/:id/ear", bodyWithID(classes.Listen))
	api.POST("/classes/:id/strokes-heard", bodyWithID(classes.HeardStrokes))
	api.GET("/room", answer(s.roomCode))
	api.GET("/room/qr.png", s.qr)
}

func (s server) records(api *gin.RouterGroup) {
	records := s.desk.Records
	api.GET("/classes", answer(searched(records.Find)))
	api.GET("/classes/table", download(searched(records.RecordsTable)))
	api.GET("/classes/file", download(searched(records.RecordsFile)))
	api.GET("/classes/:id/record", withID(records.Record))
	api.POST("/classes/:id/remarks", bodyWithID(records.AddRemark))
	api.POST("/classes/:id/heard", bodyWithID(records.AddHeard))
	api.GET(
		"/classes/:id/sheet/:form",
		download(func(c *gin.Context) (studio.File, error) {
			return records.TaughtSheet(contextOf(c), id(c), c.Param("form"))
		}),
	)
	api.GET(
		"/classes/:id/table",
		download(func(c *gin.Context) (studio.File, error) { return records.RecordTable(contextOf(c), id(c)) }),
	)
	api.GET("/classes/:id/file", download(func(c *gin.Context) (studio.File,
		error) {
		return records.RecordFile(contextOf(c), id(c))
	}))
	api.GET("/summary/csv", download(func(c *gin.Context) (studio.File, error) {
		return records.SummaryTable(contextOf(c), int(number(c.Query("year"))))
	}))
	api.GET(
		"/summary",
		answer(func(c *gin.Context) (contract.Summary, error) {
			return records.Summary(contextOf(c), int(number(c.Query("year"))))
		}),
	)
	api.GET("/groups/:id/notes", withID(records.Returning))
	api.GET("/groups/:id/course", withID(records.GroupCourse))
}

func (s server) rehearsals(api *gin.RouterGroup) {
	rehearse := s.desk.Rehearse
	api.GET("/plans/:id/expected", answer(func(c *gin.Context) (contract.Expected, error) {
		return rehearse.Expected(contextOf(c), id(c), c.Query("room"))
	}))
	api.GET("/rehearsals", answer(func(c *gin.Context) (contract.Rehearsals, error) { return rehearse.All(contextOf(c)) }))
	api.POST(
		"/rehearsals",
		body(func(c *gin.Context, in contract.Rehearse) (contract.Rehearsing, error) {
			return rehearse.Begin(contextOf(c), in)
		}),
	)
	api.GET(
		"/rehearsals/:id",
		answer(func(c *gin.Context) (contract.Rehearsing, error) {
			return rehearse.At(contextOf(c), id(c), number(c.Query("at_ms")))
		}),
	)
	api.POST("/rehearsals/:id/came", bodyWithID(rehearse.Came))
	api.POST("/rehearsals/:id/adjustments", bodyWithID(rehearse.Adjust))
	api.POST("/rehearsals/:id/seen", bodyWithID(rehearse.Saw))
	api.POST("/rehearsals/:id/would", bodyWithID(rehearse.Would))
	api.POST("/rehearsals/:id/taps", bodyWithID(rehearse.Tapped))
	api.POST("/rehearsals/:id/strokes-heard", bodyWithID(rehearse.HeardStrokes))
	api.POST("/rehearsals/:id/end", bodyWithID(rehearse.End))
	api.GET("/rehearsals/:id/review", withID(rehearse.Review))
}

func (s server) voices(api *gin.RouterGroup) {
	voices := s.desk.Voices
	api.GET("/voices", answer(func(c *gin.Context) (contract.Voices, error) { return voices.All(contextOf(c)) }))
	api.POST(
		"/voices",
		body(func(c *gin.Context, in contract.VoiceName) (contract.VoiceSheet, error) {
			return voices.Add(contextOf(c), in)
		}),
	)
	api.GET("/voices/:id", withID(voices.Sheet))
	api.PUT("/voices/:id", bodyWithID(voices.Rename))
	api.POST(
		"/voices/:id/words",
		bodyWithID(func(ctx context.Context, id int64, in contract.VoiceRecording) (contract.VoiceSheet, error) {
			return voices.Record(ctx, id, in)
		}),
	)
	api.POST("/voices/:id/back", bodyWithID(voices.TakeBack))
}

// HomeTemplate returns the page that plays a practice, without one.
func HomeTemplate() ([]byte, error) { return fs.ReadFile(dist, "dist/home.html") }

func (s server) deleted(api *gin.RouterGroup) {
	transfer := s.desk.Transfer
	for kind, path := range map[string]string{"group": "/groups/:id", "plan": "/plans/:id", "class": "/classes/:id",
		"voice": "/voices/:id", "programme": "/programmes/:id", "rehearsal": "/rehearsals/:id"} {
		api.DELETE(path, answer(func(c *gin.Context) (contract.DeletedList, error) {
			return transfer.Delete(contextOf(c), kind, id(c), c.Query("classes") == "true")
		}))
		api.GET(
			path+"/deletion",
			answer(func(c *gin.Context) (contract.Deletion, error) { return transfer.Deletion(contextOf(c), kind, id(c)) }),
		)
	}
	api.GET("/export", download(func(c *gin.Context) (studio.File, error) { return transfer.File(contextOf(c)) }))
	api.POST("/import", telling(reflect.TypeFor[contract.Export](), answer(s.bringIn)))
	api.GET(
		"/import",
		answer(func(c *gin.Context) (contract.ImportProgress, error) { return s.desk.Transfer.Progress(), nil }),
	)
	api.GET("/deleted", answer(func(c *gin.Context) (contract.DeletedList,
		error) {
		return transfer.Deleted(contextOf(c))
	}))
	api.POST("/deleted/:kind/:id/back", answer(func(c *gin.Context) (contract.DeletedList, error) {
		return transfer.BringBack(contextOf(c), c.Param("kind"), id(c))
	}))
}

// unchanging has browsers keep what never changes under its name.
func unchanging(c *gin.Context) { c.Header("Cache-Control", "public, max-age=31536000, immutable") }

// types is what the front end consists of. A system can know other types for these, Windows by what was installed on
// it, and browsers would refuse a script that is called text.
var types = map[string]string{
	".js": "text/javascript; charset=utf-8", ".css": "text/css; charset=utf-8", ".html": "text/html; charset=utf-8",
	".svg": "image/svg+xml", ".png": "image/png",
	".webp": "image/webp", ".woff2": "font/woff2", ".wasm": "application/wasm",
	".webmanifest": "application/manifest+json",
}

// pages answers what is no question of the API with the built front end.
func pages(front fs.FS) gin.HandlerFunc {
	files := http.FileServerFS(front)
	return func(c *gin.Context) {
		if c.Request.URL.Path == "/favicon.ico" { // browsers ask for it whatever a page says of its icon
			c.Redirect(http.StatusMovedPermanently, "/lantern.svg")
			return
		}
		name := strings.TrimPrefix(c.Request.URL.Path, "/")
		if strings.HasPrefix(name, "api/") {
			c.JSON(http.StatusNotFound, tell("web.nothing-here"))
			return
		}
		c.Status(http.StatusOK) // gin presets 404 for NoRoute
		if _, err := fs.Stat(front, name); name == "" || err != nil {
			// Every other address is a view: of the room's page, or of the teacher's. Browsers ask again each time, so
			// that an update is seen.
			c.Header("Cache-Control", "no-cache")
			page := "/"
			if strings.HasPrefix(name, "room/") {
				page = "/room.html"
			}
			c.FileFromFS(page, http.FS(front))
			return
		}
		if kind := types[path.Ext(name)]; kind != "" {
			c.Header("Content-Type", kind)
		}
		if strings.HasPrefix(name, "assets/") { // their names change with their content
			unchanging(c)
		}
		files.ServeHTTP(c.Writer, c.Request)
	}
}

// logging writes a line for each request that failed by our fault, and for every one where debugging is wanted
// (lantern serve --verbose).
var logging = gin.LoggerWithConfig(gin.LoggerConfig{Output: os.Stderr, Skip: func(c *gin.Context) bool {
	return c.Writer.Status() < http.StatusInternalServerError && !slog.Default().Enabled(c, slog.LevelDebug)
}})

// inPersonsLanguage tells what is asked which language the person reads: a cookie keeps the one that was chosen.
func inPersonsLanguage(c *gin.Context) {
	chosen, _ := c.Cookie("language")
	tag := language.Wanted(chosen, c.GetHeader("Accept-Language"))
	c.Request = c.Request.WithContext(language.With(c.Request.Context(), tag))
}

// packing packs what is worth it, except for what is packed already: streams, the room, pictures and fonts. Answers are
// packed quickly: that of a press would otherwise take longer than all that the press does.
func packing() gin.HandlerFunc {
	answers := gzip.Gzip(gzip.BestSpeed, gzip.WithExcludedPathsRegexs([]string{`/stream$`, `^/api/rooms/`}))
	pages := gzip.Gzip(gzip.DefaultCompression, gzip.WithExcludedExtensions([]string{".png", ".woff2"}))
	return func(c *gin.Context) {
		if strings.HasPrefix(c.Request.URL.Path, "/api/") {
			answers(c)
		} else {
			pages(c)
		}
	}
}

// problem is the one place that turns errors into status codes.
func problem(c *gin.Context, err error) {
	var failure *studio.Failure
	var tooLarge *http.MaxBytesError
	var tooMany *tooManyGuesses
	switch {
	case errors.As(err, &failure):
		c.JSON(status(failure.Kind), failure.Problem)
	case errors.As(err, &tooLarge):
		c.JSON(http.StatusRequestEntityTooLarge, tell("web.too-large"))
	case errors.As(err, &tooMany):
		c.Header("Retry-After", strconv.Itoa(tooMany.seconds))
		c.JSON(http.StatusTooManyRequests, contract.Problem{Say: fact.Of(err)})
	case contextOf(c).Err() != nil:
		c.Abort() // nobody is there to be told
	case errors.Is(err, os.ErrDeadlineExceeded):
		c.JSON(http.StatusRequestTimeout, tell("web.timeout"))
	case !studio.FileProblem(err).None():
		logFailure(c, err)
		c.JSON(http.StatusServiceUnavailable, tell("web.not-stored", "why", studio.FileProblem(err)))
	default:
		logFailure(c, err)
		c.JSON(http.StatusInternalServerError, tell("web.internal", "why", err))
	}
}

// logFailure writes down what went wrong for whoever looks after the application.
func logFailure(c *gin.Context, err error) {
	slog.Error("request failed", "path", c.Request.URL.Path, "error", err)
}

func status(kind error) int {
	switch kind {
	case studio.ErrNotFound:
		return http.StatusNotFound
	case studio.ErrConflict:
		return http.StatusConflict
	}
	return http.StatusUnprocessableEntity
}
