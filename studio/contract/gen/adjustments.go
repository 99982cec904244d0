package main

import (
	"bytes"
	"fmt"
	"slices"
	"strings"

	"vastlantern/core/pace"
	"vastlantern/language"
	"vastlantern/studio/contract"
)

const aboutAdjustments = `# Live adjustments

Made by "make types" from core/pace/verbs.go and studio/contract/controls.go. docs/rules/pacing.md says what each one does.

| adjustment | takes | key | accepted in | can end a strain | recorded as |
| --- | --- | --- | --- | --- | --- |
`

// adjustments returns a table of all verbs.
func adjustments() []byte {
	var out bytes.Buffer
	out.WriteString(aboutAdjustments)
	for _, v := range pace.Verbs() {
		where := strings.ReplaceAll(strings.Join(v.Places(), ", "), "-", " ")
		if len(v.Places()) == len(pace.Next.Places()) {
			where = "everywhere"
		}
		as := "change"
		switch {
		case v.Remarks():
			as = "remark"
		case v.GoesOn():
			as = "going on"
		}
		relief := map[pace.Relief]string{pace.Relieves: "yes", pace.ByEnding: "by natural breath",
			pace.NoRelief: "no"}[v.Relief()]
		fmt.Fprintf(
			&out,
			"| `%s`: %s | %s | %s | %s | %s | %s |\n",
			v,
			language.English().Text(v.Name()),
			taken(v),
			keys(v),
			where,
			relief,
			as,
		)
	}
	return out.Bytes()
}

// taken returns the arguments of a verb.
func taken(v pace.Verb) string {
	var list []string
	for _, a := range v.Takes() {
		name := a.Name
		if a.Or != nil {
			name += " or " + a.Or.Name
		}
		list = append(list, "`"+name+"`")
	}
	return strings.Join(list, ", ")
}

// keys returns where the verb has keys of its own on the lead screen.
func keys(v pace.Verb) string {
	if v == pace.ToPause {
		return "Space"
	}
	var list []string
	for _, c := range contract.Controls {
		if slices.Contains(c.Verbs, v) {
			list = append(list, strings.ToUpper(c.Key))
		}
	}
	return strings.Join(list, ", ")
}
