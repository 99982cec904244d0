package room_test

import (
	"fmt"

	"vastlantern/core/room"
)

// The room's own pace is the median of what was tapped; what lies outside is set aside.
func ExampleTaps() {
	beat, err := room.Taps([]int64{0, 1000, 2000, 3000, 9000})
	if err != nil {
		panic(err)
	}
	fmt.Println(beat.Interval.Round(), "ms,", beat.Aside, "set aside")
	// Output: 1000 ms, 1 set aside
}
