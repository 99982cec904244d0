package pace_test

import (
	"encoding/csv"
	"fmt"
	"io"
	"testing"

	"github.com/stretchr/testify/require"

	"vastlantern/core/pace"
	"vastlantern/core/plan"
	"vastlantern/core/sheet"
)

// long returns a class of minutes at 60 counts a minute, one count a row.
func long(b *testing.B, minutes int) *plan.Plan {
	p := read(
		b,
		fmt.Sprintf(
			`{"type": "practice", "practice": "counted-breath", "counts": "4:4:4:3", "rounds": %d, "lead_in": 0}`,
			minutes*4,
		),
	)
	require.Len(b, pace.Sheet(p).Rows, minutes*60)
	return p
}

// BenchmarkSheet compiles a class of 9 to 240 minutes, beside encoding/csv writing the rows of 90.
func BenchmarkSheet(b *testing.B) {
	for _, minutes := range []int{9, 24, 90, 240} {
		p := long(b, minutes)
		b.Run(fmt.Sprintf("compile/%d-counts", minutes*60), func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				pace.Sheet(p)
			}
		})
	}
	tl := pace.Sheet(long(b, 90))
	b.Run("our-csv/5400-counts", func(b *testing.B) {
		for b.Loop() {
			if err := sheet.WriteCSV(io.Discard, tl); err != nil {
				b.Fatal(err)
			}
		}
	})
	records := make([][]string, len(tl.Rows))
	for i, row := range tl.Rows {
		records[i] = []string{
			fmt.Sprint(row.At),
			fmt.Sprint(row.Dur),
			fmt.Sprint(row.Passage),
			row.Practice,
			string(row.Stage),
			fmt.Sprint(row.Round),
			fmt.Sprint(row.Breath),
			string(row.Phase),
			string(row.Through),
			fmt.Sprint(row.Count),
			fmt.Sprint(row.Of),
			row.Part,
			row.Say,
			"yes",
		}
	}
	b.Run("encoding-csv-alone/5400-counts", func(b *testing.B) {
		for b.Loop() {
			if err := csv.NewWriter(io.Discard).WriteAll(records); err != nil {
				b.Fatal(err)
			}
		}
	})
}

// BenchmarkAdjust answers an adjustment in the middle of a 90-minute class, with 200 tempo changes before it.
func BenchmarkAdjust(b *testing.B) {
	class := pace.Begin(long(b, 90))
	for i := range 200 {
		class.Adjust(script(b, fmt.Sprintf(`%d tempo "to": %d.%d`, i*13_000, 40+i%21, i%10))[0])
	}
	a := script(b, `2700000 tempo "to": 51.5`)[0]
	b.Run("answer", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			c := class.Copy()
			c.Adjust(a)
		}
	})
	b.Run("answer-and-timeline", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			c := class.Copy()
			c.Adjust(a)
			c.Timeline()
		}
	})
}

// BenchmarkPreviews reports what sixteen controls of the lead screen would do, at a phase in the middle of 88 minutes
// (5,280 counts) with 200 changes of tempo before it.
func BenchmarkPreviews(b *testing.B) {
	class := pace.Begin(long(b, 88))
	for i := range 200 {
		class.Adjust(script(b, fmt.Sprintf(`%d tempo "to": %d.%d`, i*13_000, 40+i%21, i%10))[0])
	}
	wants := script(
		b,
		`0 tempo "to": 48`,
		`0 tempo "to": 52`,
		`0 rounds "by": 1`,
		`0 rounds "by": -1`,
		`0 last-round`,
		`0 again`,
		`0 release`,
		`0 drop-holds`,
		`0 restore-holds`,
		`0 counts "to": [4, 4, 6, 3]`,
		`0 pause`,
		`0 close`,
		`0 next`,
		`0 by-hand "to": "all"`,
		`0 finish-by "to_ms": 5000000`,
		`0 undo`,
	)
	b.ReportAllocs()
	for b.Loop() {
		class.Previews(2_700_000, wants)
	}
}
