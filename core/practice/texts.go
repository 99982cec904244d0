package practice

import (
	"slices"
	"sync"

	"vastlantern/core/fact"
)

// Texts is what a practice's file says in another language than English. Lists have an entry for each of the English
// ones.
type Texts struct {
	Name    string   `yaml:"name"`
	About   string   `yaml:"about"`
	Seat    string   `yaml:"seat"`
	Hands   string   `yaml:"hands"`
	Eyes    string   `yaml:"eyes"`
	Locks   string   `yaml:"locks"`
	How     []string `yaml:"how"`
	Prompts []Prompt `yaml:"prompts"`
	Again   []string `yaml:"again"`
	Watch   []string `yaml:"watch"`
	Gentler string   `yaml:"gentler"`
	Harder  string   `yaml:"harder"`
	Finish  string   `yaml:"finish"`
	Schools []string `yaml:"schools"`
	// Steps are the words of its course's openings and closings, by the English ones.
	Steps map[string]string `yaml:"steps"`
}

// singles returns the texts that are one sentence or a few, by their names in a file.
func (t *Texts) singles() map[string]*string {
	return map[string]*string{
		"name": &t.Name, "about": &t.About, "seat": &t.Seat, "hands": &t.Hands, "eyes": &t.Eyes, "locks": &t.Locks,
		"gentler": &t.Gentler, "harder": &t.Harder, "finish": &t.Finish,
	}
}

// lists returns the texts that are lists.
func (t *Texts) lists() map[string]*[]string {
	return map[string]*[]string{"how": &t.How, "again": &t.Again, "watch": &t.Watch, "schools": &t.Schools}
}

// english returns the texts of the file itself.
func (p *Practice) english() Texts {
	t := Texts{
		Name: p.Name, About: p.About, Seat: p.Seat, Hands: p.Hands, Eyes: p.Eyes, Locks: p.Locks, How: p.How,
		Prompts: p.Prompts, Watch: p.Watch, Gentler: p.Gentler, Harder: p.Harder, Finish: p.Finish, Schools: p.Schools,
	}
	for _, one := range p.Again {
		t.Again = append(t.Again, one.Say)
	}
	return t
}

// checkTexts returns what is wrong with the texts of other languages: a list must have an entry for each English one,
// so that a prompt stays with what it is for.
func (p *Practice) checkTexts() error {
	english := p.english()
	for tag, t := range p.In {
		for name, list := range t.lists() {
			if want := *english.lists()[name]; len(*list) > 0 && len(*list) != len(want) {
				return fact.New(
					"practice.texts", "language", tag, "list", name, "given", len(*list), "allowed", len(want),
				)
			}
		}
		if len(t.Prompts) > 0 && len(t.Prompts) != len(p.Prompts) {
			return fact.New(
				"practice.texts", "language", tag, "list", "prompts", "given", len(t.Prompts), "allowed", len(p.Prompts),
			)
		}
	}
	return nil
}

type inLanguage struct{ id, tag string }

var translated sync.Map // practices of the catalogue, by inLanguage

// Translated returns the practice with its texts in a language (BCP 47), and whether all of them are in it: what its
// file lacks in that language is English. In everything but its texts it is the same practice.
func (p *Practice) Translated(tag string) (*Practice, bool) {
	t, there := p.In[tag]
	if !there {
		return p, tag == "en"
	}
	if Find(p.ID) != p {
		return p.with(t)
	}
	key := inLanguage{p.ID, tag}
	known, ok := translated.Load(key)
	if !ok {
		made, whole := p.with(t)
		known, _ = translated.LoadOrStore(key, translation{made, whole})
	}
	one := known.(translation)
	return one.practice, one.whole
}

// Is reports whether the other is the same practice, in any language.
func (p *Practice) Is(other *Practice) bool { return p.ID == other.ID }

type translation struct {
	practice *Practice
	whole    bool
}

func (p *Practice) with(t Texts) (made *Practice, whole bool) {
	texts, whole := p.english(), true
	given := t.singles()
	for name, text := range texts.singles() {
		if *given[name] != "" {
			*text = *given[name]
		} else if *text != "" {
			whole = false
		}
	}
	lists := t.lists()
	for name, list := range texts.lists() {
		if len(*lists[name]) > 0 {
			*list = *lists[name]
		} else if len(*list) > 0 {
			whole = false
		}
	}
	if len(t.Prompts) > 0 {
		texts.Prompts = t.Prompts
	} else if len(p.Prompts) > 0 {
		whole = false
	}
	one := *p
	one.Name, one.About, one.Seat, one.Hands, one.Eyes = texts.Name, texts.About, texts.Seat, texts.Hands, texts.Eyes
	one.Locks, one.How, one.Prompts, one.Watch = texts.Locks, texts.How, texts.Prompts, texts.Watch
	one.Gentler, one.Harder, one.Finish, one.Schools = texts.Gentler, texts.Harder, texts.Finish, texts.Schools
	one.Again = slices.Clone(p.Again)
	for i := range one.Again {
		one.Again[i].Say = texts.Again[i]
	}
	return &one, whole
}
