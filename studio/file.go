package studio

import (
	"strings"
	"unicode"
)

// File is something to be saved on disk.
type File struct {
	Name string
	Type string // of its content, as HTTP names it
	Data []byte
}

// FileName returns a title as a file's name on any system.
func FileName(title string) string {
	name := strings.Map(func(r rune) rune {
		if unicode.IsLetter(r) || unicode.IsDigit(r) {
			return unicode.ToLower(r)
		}
		return '-'
	}, title)
	name = strings.Join(strings.FieldsFunc(name, func(r rune) bool { return r == '-' }), "-")
	if name == "" {
		return "class"
	}
	return name
}
