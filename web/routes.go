package web

import (
	"context"
	"net/http"
	"reflect"

	"github.com/gin-gonic/gin"

	"vastlantern/studio/desk"
)

// Route is one question of the API.
type Route struct {
	Method string
	Path   string       // as the router has it: /api/plans/:id
	Body   reflect.Type // of the JSON that it reads; nil if it reads none
}

// Routes returns every route of the application, for those who try all of them.
func Routes() ([]Route, error) {
	handler, err := Handler(context.Background(), &desk.Desk{}, Options{}) // nothing is asked of it
	if err != nil {
		return nil, err
	}
	var routes []Route
	for _, info := range handler.Routes() {
		route := Route{Method: info.Method, Path: info.Path}
		if info.Method == http.MethodPost || info.Method == http.MethodPut {
			route.Body = bodyOf(info)
		}
		routes = append(routes, route)
	}
	return routes, nil
}

// shapeKey is where a request has a place for what a route reads, which is then told and nothing else done.
type shapeKey struct{}

func bodyOf(info gin.RouteInfo) reflect.Type {
	var shape reflect.Type
	request, err := http.NewRequestWithContext(
		context.WithValue(context.Background(), shapeKey{}, &shape),
		info.Method,
		info.Path,
		nil,
	)
	if err == nil {
		info.HandlerFunc(&gin.Context{Request: request})
	}
	return shape
}

// telling returns a handler that can tell what it reads.
func telling(shape reflect.Type, act gin.HandlerFunc) gin.HandlerFunc {
	return func(c *gin.Context) {
		if place, asked := c.Request.Context().Value(shapeKey{}).(*reflect.Type); asked {
			if *place == nil {
				*place = shape
			}
			return
		}
		act(c)
	}
}
