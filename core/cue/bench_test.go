package cue_test

import (
	"fmt"
	"testing"

	"vastlantern/core/cue"
	"vastlantern/core/pace"
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

// BenchmarkByHand is a press of a class that is led by hand, with its cues, when there were 2,000: 90 minutes.
func BenchmarkByHand(b *testing.B) {
	p := read(b, `{"type": "practice", "practice": "nadi-shodhana", "counts": "4:8", "rounds": 600, "by_hand": "all"}`)
	var led *pace.Class
	var cues *cue.Class
	at := int64(0)
	press := func() {
		led = led.Next()
		answer := led.Adjust(pace.Adjustment{At: at, Do: pace.Advance})
		if !answer.Refused.None() {
			b.Fatal(answer.Refused)
		}
		cues.Follow(led.Copy(), answer)
		at += 2700
	}
	for pressed := 0; b.Loop(); pressed++ {
		if pressed%100 == 0 { // not much later in the class than that
			b.StopTimer()
			led, cues, at = pace.Begin(p), cue.Begin(p, cue.Main), 20_000
			for range 2000 {
				press()
			}
			b.StartTimer()
		}
		press()
	}
}
