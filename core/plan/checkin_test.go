package plan_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"vastlantern/core/plan"
	"vastlantern/core/sheet"
)

func TestCheckIn(t *testing.T) {
	assert.Equal(t, []string{"left", "both", "right"}, plan.CheckSide.Answers())
	assert.Equal(t, []string{"1", "2", "3", "4", "5"}, plan.CheckCalm.Answers())
	assert.True(t, plan.CheckSide.Takes("both"))
	assert.False(t, plan.CheckSide.Takes("3"))
	assert.False(t, plan.CheckIn("").Takes(""))
	mean, people := plan.CheckCalm.Mean(map[string]int{"2": 3, "5": 1, "left": 7})
	assert.Equal(t, "2.75", mean.String(), "(3 x 2 + 5) / 4")
	assert.Equal(t, 4, people)
	_, people = plan.CheckSide.Mean(map[string]int{"left": 3})
	assert.Zero(t, people, "sides have no mean")
	for document, asks := range map[string]plan.CheckIn{
		`{"check_in": "calm"}`: plan.CheckCalm, `{"check_in": "mood"}`: "", `{}`: "", `{`: "",
	} {
		assert.Equal(t, asks, plan.CheckInOf([]byte(document)), document)
	}
}

// A question that there is not is an error of the plan, which says what is allowed.
func TestCheckInOfAPlan(t *testing.T) {
	p, err := readWith(`"check_in": "side"`)
	assert.NoError(t, err)
	assert.Equal(t, plan.CheckSide, p.CheckIn)
	_, err = readWith(`"check_in": "mood"`)
	assert.ErrorContains(t, err, "check_in")
}

func readWith(more string) (*plan.Plan, error) {
	_, p, err := sheet.ReadPlan(strings.NewReader(
		`{"format": "vast-lantern-plan", "version": 1, ` + more + `, "passages": [{"type": "talk", "seconds": 5}]}`))
	return p, err
}
