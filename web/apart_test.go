package web_test

import (
	"fmt"
	"net/http"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/studio/contract"
)

// A device keeps what can be led within a day, and each of the answers that it is told to keep is there.
func TestWhatADeviceKeeps(t *testing.T) {
	at := serve(t).URL + "/api"
	group, class := taught(t, at)
	soon := func(after time.Duration) string {
		return fmt.Sprintf(`"starts_at": %q,`, time.Now().Add(after).Format(time.RFC3339))
	}
	add := func(title, starts, passages string) (plan contract.Plan) {
		body := fmt.Sprintf(`{"group_id": %d, "document": {"format": "vast-lantern-plan", "version": 1, "title": %q, %s
			"passages": [%s]}}`, group, title, starts, passages)
		require.Equal(t, http.StatusOK, call(t, "POST", at+"/plans", body, &plan))
		return plan
	}
	const talk = `{"type": "talk", "seconds": 60}`
	tonight := add("Tonight", soon(5*time.Hour), talk)
	week := add("Next week", soon(7*24*time.Hour), talk)
	unfinished := add("Not finished", soon(6*time.Hour), "")
	for i := range 4 {
		add(fmt.Sprint("Some day ", i), "", talk)
	}

	var held contract.Held
	require.Equal(t, http.StatusOK, call(t, "GET", at+"/held", "", &held))
	assert.Contains(t, held.Plans, "Tonight")
	assert.NotContains(t, held.Plans, "Next week")
	assert.Len(t, held.Plans, 5, "tonight's two and three without a time: %v", held.Plans)
	assert.Equal(t, 1, held.Groups)
	assert.Contains(t, held.Paths, fmt.Sprintf("/plans/%d/kit", tonight.ID))
	assert.NotContains(t, held.Paths, fmt.Sprintf("/plans/%d/kit", unfinished.ID), "it cannot be led yet")
	assert.NotContains(t, held.Paths, fmt.Sprintf("/plans/%d", week.ID))
	assert.Contains(t, held.Paths, fmt.Sprintf("/classes/%d/record", class))
	for _, path := range held.Paths {
		assert.Equal(t, http.StatusOK, call(t, "GET", at+path, "", nil), path)
	}

	var kit contract.Kit
	require.Equal(t, http.StatusOK, call(t, "GET", fmt.Sprintf("%s/plans/%d/kit", at, tonight.ID), "", &kit))
	assert.Zero(t, kit.ClassID)
	assert.Equal(t, tonight.ID, kit.PlanID)
	assert.Equal(t, group, kit.Group.ID)
}
