package web

import (
	"fmt"
	"maps"
	"slices"
	"time"

	"github.com/gin-gonic/gin"

	"vastlantern/studio/contract"
)

const (
	heldFor    = 24 * time.Hour // a plan that begins in this time is held
	heldBefore = 12 * time.Hour // no class is longer
	heldOthers = 3              // plans without a time that are held
)

// apart is what a lead screen needs to go on, or to begin, without an answer (docs/rules/apart.md).
func (s server) apart(api *gin.RouterGroup) {
	api.GET("/classes/:id/kit", answer(func(c *gin.Context) (contract.Kit, error) {
		return s.desk.Classes.Kit(contextOf(c), id(c), c.GetString(deviceKey))
	}))
	api.GET("/plans/:id/kit", answer(func(c *gin.Context) (contract.Kit, error) {
		return s.desk.Classes.PlanKit(contextOf(c), id(c), c.GetString(deviceKey))
	}))
	api.POST("/classes/apart", body(func(c *gin.Context, in contract.BegunApart) (contract.Kit, error) {
		return s.desk.Classes.BeginApart(contextOf(c), in, c.GetString(deviceKey))
	}))
	api.GET("/held", answer(s.held))
	api.POST("/classes/:id/presses", body(func(c *gin.Context, in contract.Presses) (contract.Taken, error) {
		for i := range in.Presses {
			in.Presses[i].Origin = c.GetString(deviceKey)
		}
		return s.desk.Classes.Take(contextOf(c), id(c), in)
	}))
}

// held lists what a device of the teacher's keeps for when the program does not answer: what can be led today, and what
// is looked at for it (docs/rules/apart.md section 6).
func (s server) held(c *gin.Context) (contract.Held, error) {
	ctx := contextOf(c)
	today := s.desk.Today.Show(ctx)
	groups, err := s.desk.Library.Groups(ctx)
	if err != nil {
		return contract.Held{}, err
	}
	held := contract.Held{Plans: []string{}, Groups: len(groups.Groups), Paths: []string{
		"/session", "/today", "/running", "/settings", "/groups", "/signals", "/practices?group=0",
	}}
	sounds := map[string]bool{}
	for _, plan := range plansHeld(today) {
		held.Plans = append(held.Plans, plan.Title)
		if plan.Group != nil {
			held.Paths = append(held.Paths, fmt.Sprintf("/practices?group=%d", plan.Group.ID))
		}
		held.Paths = append(held.Paths, fmt.Sprintf("/plans/%d", plan.ID))
		kit, err := s.desk.Classes.PlanKit(ctx, plan.ID, "")
		if err != nil { // it cannot be led yet
			continue
		}
		held.Paths = append(held.Paths, fmt.Sprintf("/plans/%d/kit", plan.ID))
		if kit.Voice != nil {
			for _, sum := range kit.Voice.Recordings {
				sounds[sum] = true
			}
		}
	}
	for _, group := range groups.Groups {
		held.Paths = append(held.Paths, fmt.Sprintf("/groups/%d/last", group.ID))
		last, err := s.desk.Records.Last(ctx, group.ID)
		if err != nil {
			return contract.Held{}, err
		}
		if last != 0 {
			held.Paths = append(held.Paths, fmt.Sprintf("/classes/%d/record", last))
		}
	}
	for _, sum := range slices.Sorted(maps.Keys(sounds)) {
		held.Paths = append(held.Paths, "/sounds/"+sum)
	}
	slices.Sort(held.Paths)
	held.Paths = slices.Compact(held.Paths)
	return held, nil
}

// plansHeld returns the plans that a device holds: the next one, those of today, and some without a time.
func plansHeld(today contract.Today) []contract.PlanCard {
	var list []contract.PlanCard
	if today.Next != nil {
		list = append(list, *today.Next)
	}
	others := 0
	for _, plan := range today.Plans {
		switch {
		case plan.StartsMS == nil && others < heldOthers:
			others++
		case plan.StartsMS == nil,
			*plan.StartsMS < today.NowMS-float64(heldBefore.Milliseconds()),
			*plan.StartsMS > today.NowMS+float64(heldFor.Milliseconds()):
			continue
		}
		list = append(list, plan)
	}
	return list
}
