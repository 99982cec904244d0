package e2e

import (
	"bytes"
	"fmt"
	"os/exec"
	"testing"

	"github.com/stretchr/testify/require"

	"vastlantern/e2e/stage"
)

// BenchmarkSheetProcess runs lantern sheet as a whole process, on a class of 5,400 counts and on one of a tenth of it.
func BenchmarkSheetProcess(b *testing.B) {
	binary, err := stage.Binary()
	require.NoError(b, err)
	for _, rounds := range []int{36, 360} {
		plan := fmt.Sprintf(`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [
			{"type": "practice", "practice": "counted-breath", "counts": "4:4:4:3", "rounds": %d, "lead_in": 0}]}`, rounds)
		b.Run(fmt.Sprintf("%d-counts", rounds*15), func(b *testing.B) {
			for b.Loop() {
				cmd := exec.Command(binary, "sheet", "-")
				cmd.Stdin = bytes.NewBufferString(plan)
				out, err := cmd.Output()
				if err != nil || len(out) == 0 {
					b.Fatal(err)
				}
			}
		})
	}
}
