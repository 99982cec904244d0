package practice

import (
	"regexp"
	"slices"
	"strings"

	"vastlantern/core/fact"
)

// Prompt is something short to say between rounds, and for what it is (cues.md section 5). In a file it is a text, with
// what it is for in square brackets at its end: "Into the sides. [attention sides]", "Narrow, not closed. [width
// narrow]".
type Prompt struct {
	Text string
	For  map[string][]string // by field of PromptFields, the values that it is for
}

// PromptFields is what a prompt can be for, with the values of each.
var PromptFields = map[string][]string{
	"zone": {
		"all",
		"belly",
		"ribs",
		"chest",
	}, "attention": {"front", "sides", "back", "round"}, "width": {"wide", "narrow"},
	"airway": {"nose", "out-mouth", "in-mouth", "mouth"}, "stage": {"round", "rest", "pause"},
}

var promptFor = regexp.MustCompile(`^(.*?)\s*\[([^\]]*)\]$`)

// ParsePrompt reads a prompt as a file has it. The error says what is allowed.
func ParsePrompt(text string) (Prompt, error) {
	parts := promptFor.FindStringSubmatch(strings.TrimSpace(text))
	if parts == nil {
		return Prompt{Text: text}, nil
	}
	p := Prompt{Text: parts[1], For: map[string][]string{}}
	for one := range strings.SplitSeq(parts[2], ",") {
		words := strings.Fields(one)
		if len(words) < 2 || PromptFields[words[0]] == nil {
			return p, fact.New("practice.prompt-selectors", "given", parts[2])
		}
		for _, value := range words[1:] {
			if !slices.Contains(PromptFields[words[0]], value) {
				return p, fact.New(
					"practice.prompt-value",
					"given",
					value,
					"field",
					words[0],
					"allowed",
					strings.Join(PromptFields[words[0]], ", "),
				)
			}
		}
		p.For[words[0]] = words[1:]
	}
	return p, nil
}

// Fits reports whether the prompt is for what has these values, by field. A field that has no value fits nothing that
// asks for it.
func (p Prompt) Fits(values map[string]string) bool {
	for field, allowed := range p.For {
		if !slices.Contains(allowed, values[field]) {
			return false
		}
	}
	return true
}

// UnmarshalYAML reads a prompt from its text.
func (p *Prompt) UnmarshalYAML(unmarshal func(any) error) error {
	var text string
	if err := unmarshal(&text); err != nil {
		return err
	}
	var err error
	*p, err = ParsePrompt(text)
	return err
}

// PromptTexts returns what the prompts say.
func (p *Practice) PromptTexts() []string {
	var texts []string
	for _, prompt := range p.Prompts {
		texts = append(texts, prompt.Text)
	}
	return texts
}
