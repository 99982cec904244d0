package led

import (
	"bytes"
	_ "embed"
	"time"

	"vastlantern/core/plan/line"
	"vastlantern/core/sheet"
)

// sampleText is a class of two minutes to try the program with.
//
//go:embed sample.txt
var sampleText string

// SamplePlan returns the plan file of a class of two minutes to try the program with.
func SamplePlan() ([]byte, error) {
	doc, err := line.NewNames([]string{"en"}, nil).FromText(sampleText, time.UTC)
	if err != nil {
		return nil, err
	}
	var text bytes.Buffer
	err = sheet.WritePlan(&text, doc)
	return text.Bytes(), err
}
