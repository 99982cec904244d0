package sheet

import (
	"bufio"
	"encoding/csv"
	"encoding/json"
	"io"
	"strconv"

	"vastlantern/core/pace"
)

// columns is the header line of a cue sheet.
var columns = []string{
	"at_ms", "dur_ms", "passage", "practice", "stage", "round", "breath", "phase", "through", "count", "of", "part", "say",
	"kept",
}

// WriteCSV writes a cue sheet as RFC 4180 CSV.
func WriteCSV(w io.Writer, t pace.Timeline) error {
	out := csv.NewWriter(w)
	if err := out.Write(columns); err != nil {
		return err
	}
	record := make([]string, len(columns))
	for _, row := range t.Rows {
		dur := ""
		if row.Dur >= 0 {
			dur = strconv.FormatInt(row.Dur, 10)
		}
		copy(record, []string{
			strconv.FormatInt(row.At, 10), dur, strconv.Itoa(row.Passage), row.Practice, string(row.Stage),
			strconv.Itoa(row.Round), strconv.Itoa(row.Breath), string(row.Phase), string(row.Through),
			strconv.Itoa(row.Count), strconv.Itoa(row.Of), row.Part, row.Say, kept(row.Kept),
		})
		if err := out.Write(record); err != nil {
			return err
		}
	}
	out.Flush()
	return out.Error()
}

func kept(kept bool) string {
	if kept {
		return "yes"
	}
	return "no"
}

// sheetLine is a row in the names of the cue sheet.
type sheetLine struct {
	At       int64  `json:"at_ms"`
	Dur      *int64 `json:"dur_ms"`
	Passage  int    `json:"passage"`
	Practice string `json:"practice"`
	Stage    string `json:"stage"`
	Round    int    `json:"round"`
	Breath   int    `json:"breath"`
	Phase    string `json:"phase"`
	Through  string `json:"through"`
	Count    int    `json:"count"`
	Of       int    `json:"of"`
	Part     string `json:"part"`
	Say      string `json:"say"`
	Kept     string `json:"kept"`
}

// WriteJSON writes a cue sheet as an array of objects, one a line; dur_ms is null if the end is not known.
func WriteJSON(w io.Writer, t pace.Timeline) error {
	out := bufio.NewWriter(w)
	out.WriteString("[")
	for i, row := range t.Rows {
		c := sheetLine{
			row.At, nil, row.Passage, row.Practice, string(row.Stage), row.Round, row.Breath, string(row.Phase),
			string(row.Through), row.Count, row.Of, row.Part, row.Say, kept(row.Kept),
		}
		if row.Dur >= 0 {
			c.Dur = &row.Dur
		}
		line, err := json.Marshal(c)
		if err != nil {
			return err
		}
		if i > 0 {
			out.WriteByte(',')
		}
		out.WriteString("\n ")
		out.Write(line)
	}
	out.WriteString("\n]\n")
	return out.Flush()
}
