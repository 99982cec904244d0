package record

import (
	"cmp"
	"context"
	"fmt"
	"maps"
	"slices"

	"vastlantern/core/fact"
	"vastlantern/core/plan"
	"vastlantern/core/practice"
	"vastlantern/studio"
)

// headline returns a passage in a few words as a digest keeps it: for readers of every language.
func headline(p *plan.Passage) string {
	f := p.Summed()
	f.Args["practice"], f.Args["title"] = p.Practice.ID, p.Title
	return f.Text()
}

// headlines returns what a digest keeps of passages in the language of the person who asks. book is the names of
// practices in it.
func headlines(ctx context.Context, kept []string, book map[string]string) []string {
	list := make([]string, len(kept))
	for i, text := range kept {
		f := fact.FromText(text)
		id, _ := f.Args["practice"].(string)
		title, _ := f.Args["title"].(string)
		if p := practice.Find(id); p != nil {
			f.Args["name"] = studio.Called(ctx, plan.Passage{Type: plan.Practice, Practice: p, Title: title})
		} else if id != "" && title == "" {
			f.Args["name"] = cmp.Or(book[id], fmt.Sprint(f.Args["name"]))
		}
		list[i] = studio.Told(ctx, f)
	}
	return list
}

// namesOf returns what a passage is searched by: its name, and that of its practice in every language.
func namesOf(p *plan.Passage) []string {
	names := []string{p.Name()}
	if p.Practice != nil {
		for _, tag := range slices.Sorted(maps.Keys(p.Practice.In)) {
			names = append(names, p.Practice.NameIn(tag))
		}
	}
	return names
}
