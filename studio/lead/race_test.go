//go:build race

package lead_test

func init() { ledClasses = 20 } // the race detector takes ten times as long, and needs no 200 classes
