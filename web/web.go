// Package web serves the application: JSON, the stream of changes of a class, and the built front end.
package web

import (
	"embed"
	"errors"
	"io/fs"
	"log/slog"
	"net/http"
	"os"
	"strconv"
	"strings"

	"github.com/gin-contrib/gzip"
	"github.com/gin-gonic/gin"

	"vastlantern/studio"
	"vastlantern/studio/contract"
)

//go:embed all:dist
var dist embed.FS

// mostBody bounds what is read of a request: a plan of 1 MiB, in JSON again.
const mostBody = 2 << 20

type server struct {
	studio *studio.Studio
	reach  Reach
	feed   *feed
	door   *door
}

// Handler is the whole application on one handler.
func Handler(s *studio.Studio, reach Reach) (http.Handler, error) {
	front, err := fs.Sub(dist, "dist")
	if err != nil {
		return nil, err
	}
	gin.SetMode(gin.ReleaseMode)
	router := gin.New()
	d := newDoor(s, reach)
	router.Use(logging, gin.Recovery(), d.guard, packing)
	sv := server{s, reach, newFeed(s), d}

	public := router.Group("/api")
	public.GET("/clock", sv.clock)
	public.GET("/session", answer(d.session))
	public.POST("/session", body(d.enter))
	public.DELETE("/session", answer(d.leave))
	public.GET("/rooms/:name", d.room, sv.room)
	public.GET("/rooms/:name/stream", d.room, sv.roomStream)

	api := router.Group("/api", d.teacher)
	api.GET("/today", answer(func(*gin.Context) (contract.Today, error) { return s.Today(), nil }))
	api.GET("/running", answer(func(*gin.Context) (contract.Running, error) { return s.Running() }))
	api.GET("/practices", answer(func(c *gin.Context) (contract.Book, error) { return s.Practices(number(c.Query("group"))) }))
	api.GET("/practices/:name/sample", named(s.Sample))
	api.GET("/practices/:name/file", named(s.OwnPractice))
	api.DELETE("/practices/:name", named(s.RemovePractice))
	api.POST("/practices", body(func(_ *gin.Context, in contract.PracticeText) (contract.PracticeFile, error) {
		return s.SavePractice(in.Text)
	}))
	api.POST("/practices/copy", body(func(_ *gin.Context, in contract.PracticeCopy) (contract.PracticeFile, error) {
		return s.CopyPractice(in.ID, in.Name)
	}))
	api.POST("/practices/draft", body(func(_ *gin.Context, in contract.PracticeText) (contract.PracticeDrafted, error) {
		return s.DraftPractice(in.Text), nil
	}))
	api.GET("/groups", answer(func(*gin.Context) (contract.Groups, error) { return s.Groups() }))
	api.POST("/groups", body(func(_ *gin.Context, in contract.Group) (contract.Group, error) { return s.SaveGroup(in) }))
	api.GET("/groups/:id/course", withID(s.GroupCourse))
	api.GET("/settings", answer(func(*gin.Context) (contract.Settings, error) { return s.Settings() }))
	api.PUT("/settings", body(func(_ *gin.Context, in contract.Settings) (contract.Settings, error) { return s.SaveSettings(in) }))
	api.POST("/plans", body(func(_ *gin.Context, in contract.PlanSave) (contract.Plan, error) {
		return s.AddPlan(in.Document, in.GroupID)
	}))
	api.GET("/templates", answer(func(*gin.Context) ([]contract.Template, error) { return s.Templates() }))
	api.POST("/plans/begin", body(func(_ *gin.Context, in contract.Begin) (contract.Plan, error) { return s.BeginPlan(in) }))
	api.GET("/plans/:id/course", withID(s.Course))
	api.POST("/plans/:id/course", bodyWithID(s.MakeCourse))
	api.POST("/plans/:id/course/shift", withID(s.ShiftCourse))
	api.GET("/plans/:id/course/files", download(func(c *gin.Context) (studio.File, error) { return s.CourseFiles(id(c)) }))
	api.POST("/plans/import", body(func(_ *gin.Context, in contract.PlanText) (contract.Plan, error) { return s.ImportPlan(in) }))
	api.GET("/plans/:id", withID(s.Plan))
	api.GET("/plans/:id/file", download(func(c *gin.Context) (studio.File, error) { return s.PlanFile(id(c)) }))
	api.GET("/plans/:id/sheet/:form", download(func(c *gin.Context) (studio.File, error) { return s.PlanSheet(id(c), c.Param("form")) }))
	api.GET("/plans/:id/calendar", download(func(c *gin.Context) (studio.File, error) { return s.Calendar(id(c)) }))
	api.GET("/calendar", download(func(*gin.Context) (studio.File, error) { return s.Calendar(0) }))
	api.PUT("/plans/:id", bodyWithID(s.SavePlan))
	api.POST("/plans/:id/try", bodyWithID(s.Try))
	api.POST("/draft", body(func(_ *gin.Context, in contract.Draft) (contract.Drafted, error) { return s.Draft(in) }))
	api.GET("/classes", answer(asked(s.Find)))
	api.GET("/classes/table", download(asked(s.RecordsTable)))
	api.GET("/classes/file", download(asked(s.RecordsFile)))
	api.GET("/summary", answer(func(c *gin.Context) (contract.Summary, error) { return s.Summary(int(number(c.Query("year")))) }))
	api.POST("/classes/:id/remarks", bodyWithID(s.AddRemark))
	api.GET("/classes/:id/sheet/:form", download(func(c *gin.Context) (studio.File, error) { return s.TaughtSheet(id(c), c.Param("form")) }))
	api.GET("/classes/:id/table", download(func(c *gin.Context) (studio.File, error) { return s.RecordTable(id(c)) }))
	api.GET("/classes/:id/file", download(func(c *gin.Context) (studio.File, error) { return s.RecordFile(id(c)) }))
	api.POST("/classes", body(func(_ *gin.Context, in contract.Lead) (contract.Score, error) { return s.Lead(in) }))
	api.GET("/classes/:id/score", withID(s.Score))
	api.GET("/classes/:id/stream", sv.stream)
	api.POST("/classes/:id/adjustments", body(func(c *gin.Context, in contract.Adjust) (contract.Adjusted, error) {
		in.Origin = c.GetString(deviceKey)
		return s.Adjust(id(c), in)
	}))
	api.POST("/classes/:id/would", bodyWithID(s.Would))
	api.GET("/classes/:id/gap", answer(func(c *gin.Context) (contract.Gap, error) { return s.Gap(id(c), number(c.Query("from_ms"))) }))
	api.POST("/classes/:id/again", body(func(c *gin.Context, in contract.TakeAgain) (contract.Adjusted, error) {
		in.Origin = c.GetString(deviceKey)
		return s.TakeAgain(id(c), in)
	}))
	api.GET("/classes/:id/record", withID(s.Record))
	api.GET("/room", answer(sv.roomCode))
	api.GET("/room/qr.png", sv.qr)
	api.GET("/signals", answer(func(*gin.Context) ([]contract.Signal, error) { return s.Signals(), nil }))
	api.POST("/classes/:id/seen", body(func(c *gin.Context, in contract.Saw) (contract.Proposed, error) {
		in.Origin = c.GetString(deviceKey)
		return s.Saw(id(c), in)
	}))
	api.POST("/classes/:id/taps", bodyWithID(s.Tapped))

	for kind, path := range map[string]string{"group": "/groups/:id", "plan": "/plans/:id", "class": "/classes/:id"} {
		api.DELETE(path, answer(func(c *gin.Context) (contract.DeletedList, error) {
			return s.Delete(kind, id(c), c.Query("classes") == "true")
		}))
		api.GET(path+"/deletion", answer(func(c *gin.Context) (contract.Deletion, error) { return s.Deletion(kind, id(c)) }))
	}
	api.GET("/deleted", answer(func(*gin.Context) (contract.DeletedList, error) { return s.Deleted() }))
	api.POST("/deleted/:kind/:id/back", answer(func(c *gin.Context) (contract.DeletedList, error) {
		return s.BringBack(c.Param("kind"), id(c))
	}))

	files := http.FileServerFS(front)
	router.NoRoute(func(c *gin.Context) {
		path := strings.TrimPrefix(c.Request.URL.Path, "/")
		if strings.HasPrefix(path, "api/") {
			c.JSON(http.StatusNotFound, contract.Problem{Say: "There is nothing at this address."})
			return
		}
		c.Status(http.StatusOK) // gin presets 404 for NoRoute
		if _, err := fs.Stat(front, path); path == "" || err != nil {
			// Every other address is a view: of the room's page, or of the teacher's. Browsers ask again each time, so
			// that an update is seen.
			c.Header("Cache-Control", "no-cache")
			page := "/"
			if strings.HasPrefix(path, "room/") {
				page = "/room.html"
			}
			c.FileFromFS(page, http.FS(front))
			return
		}
		if strings.HasPrefix(path, "assets/") { // their names change with their content
			c.Header("Cache-Control", "public, max-age=31536000, immutable")
		}
		files.ServeHTTP(c.Writer, c.Request)
	})
	return router, nil
}

// logging writes a line for each request that failed by our fault, and for every one where debugging is wanted
// (lantern serve --verbose).
var logging = gin.LoggerWithConfig(gin.LoggerConfig{Output: os.Stderr, Skip: func(c *gin.Context) bool {
	return c.Writer.Status() < http.StatusInternalServerError && !slog.Default().Enabled(c, slog.LevelDebug)
}})

// packing packs what is worth it, but for what is packed already: streams, the room, pictures and fonts.
var packing = gzip.Gzip(gzip.DefaultCompression,
	gzip.WithExcludedPathsRegexs([]string{`/stream$`, `^/api/rooms/`}), gzip.WithExcludedExtensions([]string{".png", ".woff2"}))

// problem is the one place that turns errors into status codes.
func problem(c *gin.Context, err error) {
	var failure *studio.Failure
	var tooLarge *http.MaxBytesError
	var tries *tooManyGuesses
	switch {
	case errors.As(err, &failure):
		c.JSON(status(failure.Kind), failure.Problem)
	case errors.As(err, &tooLarge):
		c.JSON(http.StatusRequestEntityTooLarge, contract.Problem{Say: "This is too large: a plan has at most 1 MiB."})
	case errors.As(err, &tries):
		c.Header("Retry-After", strconv.Itoa(tries.seconds))
		c.JSON(http.StatusTooManyRequests, contract.Problem{Say: err.Error()})
	case errors.Is(err, os.ErrDeadlineExceeded):
		c.JSON(http.StatusRequestTimeout, contract.Problem{Say: "The request took too long to arrive. Nothing was changed; try again."})
	case studio.Trouble(err) != "":
		logFailure(c, err)
		c.JSON(http.StatusServiceUnavailable, contract.Problem{Say: studio.Trouble(err) + " This was not stored. A class that is led goes on where it is shown."})
	default:
		logFailure(c, err)
		c.JSON(http.StatusInternalServerError, contract.Problem{Say: "Something went wrong inside the application: " + err.Error() + ". What was typed is still on this screen; try again."})
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
