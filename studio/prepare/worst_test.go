package prepare_test

import (
	"bytes"
	"fmt"
	"runtime"
	"runtime/metrics"
	"sort"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/core/cue"
	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/core/sheet"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk/desktest"
)

// worstPlans returns the longest plans that are accepted: of each practice, in one passage or in very many, plain or
// with all that costs something: a gentler lane, lines of the teacher's own, counts that are said.
func worstPlans() map[string][]byte {
	const lines = `, "lines": [{"text": "soft", "say": true, "stage": "round"}]`
	worst := map[string][]byte{}
	for _, p := range practice.Catalogue() {
		for _, passages := range []int{1, plan.MaxPassages} {
			for with, fields := range map[string]string{"plain": "", "lane": `, "beside": "breathe"`, "lines": lines,
				"said": `, "voice": "counts"`} {
				document := func(rounds int) []byte {
					one := fmt.Sprintf(`{"type": "practice", "practice": %q, "rounds": %d%s}`, p.ID, rounds, fields)
					return []byte(
						`{"format": "vast-lantern-plan", "version": 1, "tempo": 120, "passages": [` + strings.Repeat(
							one+",",
							passages-1,
						) + one + `]}`,
					)
				}
				tooMany := sort.Search(plan.MaxRounds, func(i int) bool { return read(document(i+1)) == nil })
				if tooMany > 0 {
					worst[fmt.Sprintf("%s, %d passages, %s", p.ID, passages, with)] = document(tooMany)
				}
			}
		}
	}
	return worst
}

// read returns the plan of a document, nil if it is not accepted.
func read(document []byte) *plan.Plan {
	_, p, err := sheet.ReadPlan(bytes.NewReader(document))
	if err != nil {
		return nil
	}
	return p
}

// What is computed of a plan is rows and what is made of them: no plan that is accepted has more of them than it says,
// and none says more than is allowed.
func TestNoPlanHasMoreRowsThanAreAllowed(t *testing.T) {
	most := 0
	for name, document := range worstPlans() {
		p := read(document)
		require.NotNil(t, p, name)
		assert.LessOrEqual(t, p.Rows(), plan.MaxRows, name)
		most = max(most, p.Rows())
		if strings.Contains(name, "plain") {
			assert.LessOrEqual(t, len(pace.Sheet(p).Rows), p.Rows(), name)
		}
	}
	assert.Greater(t, most, plan.MaxRows*9/10, "the search comes near to what is allowed")
}

// The longest plans: sheet, cues of both lanes, advice and summary of each are to take less than a second, and less
// than 200 MB of memory at once. What is allocated one after the other is told too.
func BenchmarkWorstPlan(b *testing.B) {
	d := desktest.New(b)
	worst := worstPlans()
	for b.Loop() {
		var slowest time.Duration
		var largest, highest uint64
		var slow, large string
		for name, document := range worst {
			runtime.GC()
			var before, after runtime.MemStats
			runtime.ReadMemStats(&before)
			peak := watchHeap()
			began := time.Now()
			p := read(document)
			pace.Sheet(p)
			cue.Begin(p, cue.Main).Cues()
			cue.Begin(p, cue.Beside).Cues()
			if _, err := d.Plans.Draft(b.Context(), contract.Draft{Document: document}); err != nil {
				b.Fatal(name, err)
			}
			took := time.Since(began)
			highest = max(highest, peak())
			runtime.ReadMemStats(&after)
			if took > slowest {
				slowest, slow = took, name
			}
			if allocated := after.TotalAlloc - before.TotalAlloc; allocated > largest {
				largest, large = allocated, name
			}
		}
		b.ReportMetric(float64(slowest.Milliseconds()), "slowest-ms")
		b.ReportMetric(float64(highest)/1e6, "peak-MB")
		b.ReportMetric(float64(largest)/1e6, "allocated-MB")
		b.Logf("the slowest: %s; the largest: %s", slow, large)
	}
}

// watchHeap looks every millisecond at how much of the heap is in use, until it is asked for the most that there was.
func watchHeap() (peak func() uint64) {
	stop, most := make(chan bool), make(chan uint64)
	go func() {
		var highest uint64
		sample := []metrics.Sample{{Name: "/memory/classes/heap/objects:bytes"}}
		for {
			metrics.Read(sample)
			highest = max(highest, sample[0].Value.Uint64())
			select {
			case <-stop:
				most <- highest
				return
			case <-time.After(time.Millisecond):
			}
		}
	}()
	return func() uint64 {
		close(stop)
		return <-most
	}
}
