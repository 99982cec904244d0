package sheet

import (
	"bufio"
	"encoding/csv"
	"encoding/json"
	"io"
	"strconv"

	"vastlantern/core/cue"
)

// cueColumns is the header line of the cues (cues.md section 1).
var cueColumns = []string{"at_ms", "until_ms", "passage", "stage", "round", "who", "kind", "text"}

// WriteCues writes cues as RFC 4180 CSV; until_ms is empty if the end is not known.
func WriteCues(w io.Writer, cues []cue.Cue) error {
	out := csv.NewWriter(w)
	if err := out.Write(cueColumns); err != nil {
		return err
	}
	for _, c := range cues {
		until := ""
		if c.Until != cue.Open {
			until = strconv.FormatInt(c.Until, 10)
		}
		record := []string{
			strconv.FormatInt(c.At, 10),
			until,
			strconv.Itoa(c.Passage),
			string(c.Stage),
			strconv.Itoa(c.Round),
			string(c.Who),
			string(c.Kind),
			c.Text,
		}
		if err := out.Write(record); err != nil {
			return err
		}
	}
	out.Flush()
	return out.Error()
}

// cueLine is a cue in the names of the columns.
type cueLine struct {
	At      int64  `json:"at_ms"`
	Until   *int64 `json:"until_ms"`
	Passage int    `json:"passage"`
	Stage   string `json:"stage"`
	Round   int    `json:"round"`
	Who     string `json:"who"`
	Kind    string `json:"kind"`
	Text    string `json:"text"`
}

// WriteCuesJSON writes cues as an array of objects, one a line; until_ms is null if the end is not known.
func WriteCuesJSON(w io.Writer, cues []cue.Cue) error {
	out := bufio.NewWriter(w)
	out.WriteString("[")
	for i, c := range cues {
		line := cueLine{c.At, nil, c.Passage, string(c.Stage), c.Round, string(c.Who), string(c.Kind), c.Text}
		if c.Until != cue.Open {
			line.Until = &c.Until
		}
		text, err := json.Marshal(line)
		if err != nil {
			return err
		}
		if i > 0 {
			out.WriteByte(',')
		}
		out.WriteString("\n ")
		out.Write(text)
	}
	out.WriteString("\n]\n")
	return out.Flush()
}
