package plan

import (
	"encoding/json"
	"slices"
	"strconv"
)

// Again reports whether the passage, at own pace, has the lines of its practice that come round again, and whether the
// practice has any.
func (p *Passage) Again() (on, there bool) {
	if p.Type != Practice || !p.OwnPace || len(p.Practice.Again) == 0 {
		return false, false
	}
	return slices.ContainsFunc(p.Lines, func(l Line) bool { return p.isAgain(l.Text) }), true
}

func (p *Passage) isAgain(text string) bool {
	for _, again := range p.Practice.Again {
		if again.Say == text {
			return true
		}
	}
	return false
}

// SetAgain gives the passage, which is p, the lines of its practice that come round again at own pace, for everybody,
// or
// takes them away. The teacher's own lines stay.
func (f Fields) SetAgain(p *Passage, on bool) {
	if p.Type != Practice {
		return
	}
	lines, _ := f.values["lines"].([]any)
	lines = slices.DeleteFunc(slices.Clone(lines), func(one any) bool {
		line, _ := one.(map[string]any)
		text, _ := line["text"].(string)
		return p.isAgain(text)
	})
	if on {
		for _, again := range p.Practice.Again {
			every := json.Number(strconv.Itoa(again.Every))
			lines = append(lines, map[string]any{"text": again.Say, "second": every, "every": every, "who": string(ForAll)})
		}
	}
	if len(lines) == 0 {
		delete(f.values, "lines")
		return
	}
	f.values["lines"] = lines
}
