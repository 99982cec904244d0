package cue_test

import (
	"fmt"
	"testing"

	"vastlantern/core/cue"
)

// BenchmarkCues is the cues of a class of an hour (3,520 counts), and those after one more adjustment when there were
// 200.
func BenchmarkCues(b *testing.B) {
	p := read(b, nadi("4:4:8", 110, ""))
	b.Run("sheet", func(b *testing.B) {
		for b.Loop() {
			cue.Sheet(p, cue.Main)
		}
	})
	class := cue.Begin(p, cue.Main)
	at := 0
	adjust := func() {
		at += 10
		class.Adjust(script(b, fmt.Sprintf(`%d rounds "to": %d`, at, 109+at/10%2))[0])
	}
	for range 200 {
		adjust()
	}
	b.Run("adjust", func(b *testing.B) {
		for b.Loop() {
			adjust()
		}
	})
}
