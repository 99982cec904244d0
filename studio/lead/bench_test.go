package lead_test

import (
	"encoding/json"
	"fmt"
	"path/filepath"
	"testing"
	"time"

	"vastlantern/core/pace"
	"vastlantern/store"
	"vastlantern/studio/contract"
	"vastlantern/studio/desk"
)

func BenchmarkAnAdjustmentOfAnHour(b *testing.B) {
	s, err := store.Open(filepath.Join(b.TempDir(), "x.db"), "a test")
	if err != nil {
		b.Fatal(err)
	}
	defer s.Close()
	now := time.Date(2026, 3, 2, 18, 30, 0, 0, time.UTC)
	d := desk.WithTime(s, func() time.Time { return now }, 1)
	plan, err := d.Plans.Add(
		b.Context(),
		[]byte(
			`{"format": "vast-lantern-plan", "version": 1, "tempo": 60, "passages": [{"type": "practice", "practice": `+
				`"nadi-shodhana", "counts": "4:4:8", "rounds": 110}]}`,
		),
		0,
	)
	if err != nil {
		b.Fatal(err)
	}
	score, err := d.Classes.Begin(b.Context(), contract.Lead{PlanID: plan.ID, Acknowledged: contract.StrongCautions(plan)})
	if err != nil {
		b.Fatal(err)
	}
	code, err := d.Audience.RoomCode(b.Context())
	if err != nil {
		b.Fatal(err)
	}
	var room contract.Room
	pressed := 0
	adjust := func(do pace.Verb, to float64) {
		now = now.Add(100 * time.Millisecond)
		pressed++
		if _, err := d.Classes.Adjust(b.Context(), score.ClassID, contract.Adjust{Key: fmt.Sprint(pressed), Do: do,
			To: &to}); err != nil {
			b.Fatal(err)
		}
		if room, err = d.Audience.Room(b.Context(), code); err != nil {
			b.Fatal(err)
		}
	}
	for i := range 200 {
		adjust("tempo", 60+float64(i%20)/10)
	}
	b.Run("tempo", func(b *testing.B) {
		for b.Loop() {
			adjust("tempo", 60+float64(pressed%20)/10)
		}
	})
	b.Run("rounds", func(b *testing.B) {
		for b.Loop() {
			adjust("rounds", float64(109+pressed%2))
		}
	})
	b.Run("encode", func(b *testing.B) {
		for b.Loop() {
			if _, err := json.Marshal(room.Sent()); err != nil {
				b.Fatal(err)
			}
		}
	})
}
