package plan

import (
	"encoding/json"
	"slices"
	"strconv"

	"vastlantern/core/breath"
)

// CheckIn is what the room is asked in one touch before and after a class; empty where it is not asked. The questions
// are those of teachers (common practice, with no source). What people answer tells how it was for them, and nothing
// about why.
type CheckIn string

// The questions.
const (
	CheckSide CheckIn = "side" // which side of the nose is freer
	CheckCalm CheckIn = "calm" // how calm, from 1 to 5
)

// CheckIns are the questions that there are.
var CheckIns = []CheckIn{CheckSide, CheckCalm}

const calmest = 5

// Answers returns what can be answered, in the order in which it is shown.
func (c CheckIn) Answers() (list []string) {
	switch c {
	case CheckSide:
		list = []string{"left", "both", "right"}
	case CheckCalm:
		for n := 1; n <= calmest; n++ {
			list = append(list, strconv.Itoa(n))
		}
	}
	return list
}

// Takes reports whether an answer is one of those.
func (c CheckIn) Takes(answer string) bool { return slices.Contains(c.Answers(), answer) }

// Mean returns the mean of the answers that are numbers, and how many people gave one; 0 where there are none.
func (c CheckIn) Mean(sums map[string]int) (mean breath.Exact, people int) {
	if c != CheckCalm {
		return mean, 0
	}
	total := 0
	for i, answer := range c.Answers() {
		total += (i + 1) * sums[answer]
		people += sums[answer]
	}
	if people == 0 {
		return mean, 0
	}
	return breath.Ratio(int64(total), int64(people)), people
}

// CheckInOf returns the question of a document that is not read otherwise; empty if there is none.
func CheckInOf(document []byte) CheckIn {
	var asks struct {
		CheckIn CheckIn `json:"check_in"`
	}
	if json.Unmarshal(document, &asks) != nil || !slices.Contains(CheckIns, asks.CheckIn) {
		return ""
	}
	return asks.CheckIn
}
