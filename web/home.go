package web

import (
	"github.com/gin-gonic/gin"

	"vastlantern/studio"
	"vastlantern/studio/contract"
)

// homes is what a group does between two classes: home practice.
func (s server) homes(api *gin.RouterGroup) {
	homes := s.desk.Homes
	api.GET("/plans/:id/home", withID(homes.OfferFromPlan))
	api.POST("/plans/:id/home", bodyWithID(homes.GiveFromPlan))
	api.POST("/plans/:id/home/preview", bodyWithID(homes.PreviewFromPlan))
	api.GET("/classes/:id/home", withID(homes.OfferFromClass))
	api.POST("/classes/:id/home", bodyWithID(homes.GiveFromClass))
	api.POST("/classes/:id/home/preview", bodyWithID(homes.PreviewFromClass))
	api.GET("/homes/:id", withID(homes.Sheet))
	api.DELETE("/homes/:id", withID(homes.TakeBack))
	api.POST("/homes/:id/answer", bodyWithID(homes.Answer))
	api.GET("/groups/:id/homes", withID(homes.OfGroup))
	api.GET("/homes/:id/score", answer(func(c *gin.Context) (contract.Score, error) {
		return homes.Score(contextOf(c), id(c), int(number(c.Query("step"))))
	}))
	api.GET("/homes/:id/recordings", withID(homes.Recordings))
	api.GET("/homes/:id/page", download(func(c *gin.Context) (studio.File, error) {
		template, err := HomeTemplate()
		if err != nil {
			return studio.File{}, err
		}
		return homes.Page(contextOf(c), id(c), template, c.Query("voice") == "true")
	}))
}

// programmes is what a group follows over weeks.
func (s server) programmes(api *gin.RouterGroup) {
	programmes := s.desk.Programmes
	api.GET("/plans/:id/programme", withID(programmes.OfPlan))
	api.GET("/plans/:id/programme/offer", withID(programmes.Offer))
	api.POST("/plans/:id/programme", bodyWithID(programmes.Begin))
	api.GET("/groups/:id/programmes", withID(programmes.OfGroup))
	api.GET("/programmes/:id", withID(programmes.Sheet))
	api.PUT("/programmes/:id", bodyWithID(programmes.Save))
	api.POST("/programmes/:id/shift", withID(programmes.Shift))
	api.POST("/programmes/:id/give", bodyWithID(programmes.Give))
	api.POST("/programmes/file", body(func(c *gin.Context, in contract.ProgrammeBring) (contract.ProgrammeSheet, error) {
		return programmes.Bring(contextOf(c), in)
	}))
	api.GET("/programmes/:id/page", download(func(c *gin.Context) (studio.File, error) {
		template, err := HomeTemplate()
		if err != nil {
			return studio.File{}, err
		}
		return programmes.HomePage(contextOf(c), id(c), c.Query("begins"), template)
	}))
	api.GET(
		"/programmes/:id/file",
		download(func(c *gin.Context) (studio.File, error) { return programmes.File(contextOf(c), id(c)) }),
	)
	api.GET(
		"/programmes/:id/files",
		download(func(c *gin.Context) (studio.File, error) { return programmes.Files(contextOf(c), id(c)) }),
	)
}
