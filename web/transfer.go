package web

import (
	"context"
	"log/slog"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"

	"vastlantern/studio/contract"
)

// Bounds of a file of everything: years of classes, and recorded voices.
const (
	mostImport = 512 << 20
	importTime = 5 * time.Minute
	importPath = "/api/import"
)

// bringIn reports what a file would change and, with apply=true, changes it; it takes longer than other questions, and
// is larger.
func (s server) bringIn(c *gin.Context) (contract.Imported, error) {
	control := http.NewResponseController(c.Writer)
	_ = control.SetWriteDeadline(time.Now().Add(importTime)) // a test's writer may have none
	_ = control.SetReadDeadline(time.Now().Add(importTime))  // for a teacher's device only: it has been let in here
	done, err := s.desk.Transfer.BringIn(s.work.ctx, c.Request.Body, c.Request.ContentLength, c.Query("apply") == "true")
	if err == nil && done.Done {
		s.work.group.Go(func() { s.prepare(s.work.ctx) })
	}
	return done, err
}

// prepare works out what lists need of what was imported, which takes longer than anybody waits; the list of classes
// reports how far it is.
func (s server) prepare(ctx context.Context) {
	defer func() { // a class may be led meanwhile
		if wrong := recover(); wrong != nil {
			slog.Error("the lists of what was brought in are not ready", "error", wrong)
		}
	}()
	if err := s.desk.Prepare(ctx); err != nil {
		slog.Error("the lists of what was brought in are not ready", "error", err) // the next start makes them
	}
}

// mostOf returns how much of a request's body is read.
func mostOf(path string) int64 {
	if path == importPath {
		return mostImport
	}
	return mostBody
}
