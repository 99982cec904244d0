// Package web serves the application: JSON, the stream of changes of a class, and the built front end.
package web

import (
	"embed"
	"errors"
	"io/fs"
	"log/slog"
	"net"
	"net/http"
	"net/url"
	"strings"

	"github.com/gin-gonic/gin"

	"vastlantern/studio"
	"vastlantern/studio/contract"
)

//go:embed all:dist
var dist embed.FS

// mostBody bounds what is read of a request: a plan of 1 MiB, in JSON again.
const mostBody = 2 << 20

type server struct{ studio *studio.Studio }

// Handler is the whole application on one handler.
func Handler(s *studio.Studio) (http.Handler, error) {
	front, err := fs.Sub(dist, "dist")
	if err != nil {
		return nil, err
	}
	gin.SetMode(gin.ReleaseMode)
	router := gin.New()
	router.Use(gin.Recovery(), guard)
	sv := server{s}

	api := router.Group("/api")
	api.GET("/clock", sv.clock)
	api.GET("/today", answer(func(*gin.Context) (contract.Today, error) { return s.Today() }))
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
	api.GET("/settings", answer(func(*gin.Context) (contract.Settings, error) { return s.Settings() }))
	api.PUT("/settings", body(func(_ *gin.Context, in contract.Settings) (contract.Settings, error) { return s.SaveSettings(in) }))
	api.POST("/plans", body(func(_ *gin.Context, in contract.PlanSave) (contract.Plan, error) {
		return s.AddPlan(in.Document, in.GroupID)
	}))
	api.GET("/plans/:id", withID(s.Plan))
	api.PUT("/plans/:id", bodyWithID(s.SavePlan))
	api.POST("/draft", body(func(_ *gin.Context, in contract.Draft) (contract.Drafted, error) { return s.Draft(in) }))
	api.GET("/classes", answer(func(*gin.Context) ([]contract.ClassCard, error) { return s.Taught() }))
	api.POST("/classes", body(func(_ *gin.Context, in contract.Lead) (contract.Score, error) { return s.Lead(in) }))
	api.GET("/classes/:id/score", withID(s.Score))
	api.GET("/classes/:id/stream", sv.stream)
	api.POST("/classes/:id/adjustments", bodyWithID(s.Adjust))
	api.GET("/classes/:id/record", withID(s.Record))
	api.GET("/room", answer(func(*gin.Context) (contract.RoomCode, error) { return s.RoomCode() }))
	api.GET("/room/qr.png", sv.qr)
	api.GET("/rooms/:name", named(s.Room))
	api.GET("/rooms/:name/stream", sv.roomStream)
	api.GET("/signals", answer(func(*gin.Context) ([]contract.Signal, error) { return s.Signals(), nil }))
	api.POST("/classes/:id/seen", bodyWithID(s.Saw))
	api.POST("/classes/:id/taps", bodyWithID(s.Tapped))

	files := http.FileServerFS(front)
	router.NoRoute(func(c *gin.Context) {
		path := strings.TrimPrefix(c.Request.URL.Path, "/")
		if strings.HasPrefix(path, "api/") {
			c.JSON(http.StatusNotFound, contract.Problem{Say: "There is nothing at this address."})
			return
		}
		c.Status(http.StatusOK) // gin presets 404 for NoRoute
		if _, err := fs.Stat(front, path); path == "" || err != nil {
			// Every other address is a view of the one page; browsers ask again each time, so that an update is seen.
			c.Header("Cache-Control", "no-cache")
			c.FileFromFS("/", http.FS(front))
			return
		}
		if strings.HasPrefix(path, "assets/") { // their names change with their content
			c.Header("Cache-Control", "public, max-age=31536000, immutable")
		}
		files.ServeHTTP(c.Writer, c.Request)
	})
	return router, nil
}

// guard keeps other sites out: what changes something must come from our own pages, and our pages load nothing from
// elsewhere and stand in nobody's frame.
func guard(c *gin.Context) {
	h := c.Writer.Header()
	h.Set("Content-Security-Policy", "default-src 'self'; img-src 'self' data:; style-src 'self' 'unsafe-inline'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'")
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "no-referrer")
	if !loopback(c.Request.Host) {
		c.AbortWithStatusJSON(http.StatusForbidden, contract.Problem{Say: "This address is not served. Open the one that was printed at the start."})
		return
	}
	if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
		origin := c.GetHeader("Origin")
		from, err := url.Parse(origin)
		if origin != "" && (err != nil || from.Host != c.Request.Host) {
			c.AbortWithStatusJSON(http.StatusForbidden, contract.Problem{Say: "Changes are taken from the application's own pages only."})
			return
		}
		if !strings.HasPrefix(c.ContentType(), "application/json") {
			c.AbortWithStatusJSON(http.StatusUnsupportedMediaType, contract.Problem{Say: "Send JSON."})
			return
		}
		c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, mostBody)
	}
	c.Next()
}

// loopback tells whether a request was meant for this machine: a foreign name that points here is an attack on the
// browser's rule of same origin.
func loopback(host string) bool {
	if name, _, err := net.SplitHostPort(host); err == nil {
		host = name
	}
	ip := net.ParseIP(strings.Trim(host, "[]"))
	return host == "localhost" || ip != nil && ip.IsLoopback()
}

// problem is the one place that turns errors into status codes.
func problem(c *gin.Context, err error) {
	var failure *studio.Failure
	var tooLarge *http.MaxBytesError
	switch {
	case errors.As(err, &failure):
		c.JSON(status(failure.Kind), failure.Problem)
	case errors.As(err, &tooLarge):
		c.JSON(http.StatusRequestEntityTooLarge, contract.Problem{Say: "This is too large: a plan has at most 1 MiB."})
	default:
		slog.Error("request failed", "path", c.Request.URL.Path, "error", err)
		c.JSON(http.StatusInternalServerError, contract.Problem{Say: "Something went wrong inside the application: " + err.Error() + ". What was typed is still on this screen; try again."})
	}
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
