package sheet

import (
	"bufio"
	"fmt"
	"io"
	"strings"

	"vastlantern/core/pace"
)

// escape keeps what is said from being read as WebVTT's own marks.
var escape = strings.NewReplacer("&", "&amp;", "<", "&lt;", ">", "&gt;", "\r", " ", "\n", " ")

// WriteVTT writes a cue sheet as WebVTT (W3C): one cue for each phase, with its first words and its number of counts.
// What has no length or no end has no cue.
func WriteVTT(w io.Writer, t pace.Timeline) error {
	out := bufio.NewWriter(w)
	out.WriteString("WEBVTT\n")
	number := 0
	for start := 0; start < len(t.Rows); {
		end := start + 1
		for end < len(t.Rows) && t.Rows[end].Follows(&t.Rows[end-1]) {
			end++
		}
		first, last := t.Rows[start], t.Rows[end-1]
		start = end
		if last.End() < 0 || last.End() == first.At {
			continue
		}
		number++
		fmt.Fprintf(
			out,
			"\n%d\n%s --> %s\n%s\n",
			number,
			stamp(first.At),
			stamp(last.End()),
			escape.Replace(caption(first, last)),
		)
	}
	return out.Flush()
}

// caption returns what a cue shows: "inhale left, 4".
func caption(first, last pace.Row) string {
	text := first.Say
	if text == "" {
		text = strings.TrimSpace(string(first.Phase) + " " + string(first.Through))
	}
	if last.Of > 1 {
		return fmt.Sprintf("%s, %d", text, last.Count)
	}
	return text
}

func stamp(ms int64) string {
	return fmt.Sprintf("%02d:%02d:%02d.%03d", ms/3_600_000, ms/60_000%60, ms/1000%60, ms%1000)
}
